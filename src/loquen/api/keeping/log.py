"""The log: entries of a system, one by one, many at once, and as a table."""

from collections.abc import Iterable, Mapping
from dataclasses import asdict, dataclass, replace
from datetime import datetime
from typing import Any

from fastapi import APIRouter, Response
from pydantic import TypeAdapter
from sqlmodel import Session

from loquen.api.dependencies import FAULTS, Asked
from loquen.checked.documents import A_PLAN
from loquen.checked.plan import EntrySchema
from loquen.checked.stored import event as stored_event
from loquen.checked.stored import or_none
from loquen.core.data.measures import measures
from loquen.core.errors import CoreError
from loquen.core.events.faults import faults
from loquen.core.events.kinds.keeping import Rinsed
from loquen.core.events.kinds.lives import Died, Moved, Sold, ToAnimals
from loquen.core.events.kinds.water import Dosed, Read
from loquen.core.events.ledger import Event, Logged
from loquen.core.events.lines import event_of, line_of
from loquen.core.events.readings import read_interval, unit_read_in
from loquen.core.library.whole import Library
from loquen.core.model.records.log import (
    CLEANED,
    DOSES,
    IN_THE_REGISTER_ALONE,
    KIND_WORDS,
    UNITS,
    Entry,
    EntryFault,
    LogLine,
)
from loquen.core.model.roots.documents import name_of, rebuilt
from loquen.core.routine.care.filters import beds_of
from loquen.core.system.book import sheet_of
from loquen.core.system.cycle.setup import ammonia_dose
from loquen.core.system.told import where_known
from loquen.exchange.log_table import write_table
from loquen.house.house import Visit
from loquen.house.log.lives import can_have_been, names_of, who_lives, write_down
from loquen.house.log.reading import readable
from loquen.house.log.schema import (
    About,
    EntriesIn,
    EntryIn,
    EntryUpdate,
    EntryWas,
    KitOut,
    Known,
    LivesHere,
    LoggedOut,
    MeasureOut,
    Numbers,
)
from loquen.house.sheet.todays import todays_sheet
from loquen.store.documents import systems
from loquen.store.happened import ledger
from loquen.store.happened.ledger import KeptEvent

router = APIRouter(prefix="/api", tags=["log"], responses=dict(FAULTS))


WHOLE_LOG = TypeAdapter(list[LoggedOut])
FIELDS = tuple(Entry.__slots__)


@dataclass(frozen=True, slots=True)
class Names:
    """What animals and systems are called that some events tell of, by their numbers."""

    animals: Mapping[int, str]
    systems: Mapping[int, str]


def shown(row: KeptEvent, known: Logged, names: Names, library: Library) -> LoggedOut:
    """An event as a line, with the interval of a reading, and the animals that it tells of."""
    event = known.event
    entry = line_of(event, row.resident_id)
    low = high = None
    if isinstance(event, Read):
        try:
            read = read_interval(event, library)
            low, high = read.low, None if read.high == float("inf") else read.high
        except (CoreError, KeyError):
            pass
    moved = event if isinstance(event, Moved) else Moved()
    return LoggedOut(
        id=row.id,
        system_id=row.system_id or 0,
        at=row.at,
        revision=row.revision,
        entry=EntrySchema.model_construct(**{name: getattr(entry, name) for name in FIELDS}),
        low=low,
        high=high,
        who=names.animals.get(row.resident_id or 0, ""),
        length_cm=event.length_cm if isinstance(event, ToAnimals) else None,
        left=names.systems.get(moved.system, ""),
        went_to=names.systems.get(moved.to, ""),
        whole_day=isinstance(event, ToAnimals) and bool(event.day) and row.at == ledger.noon(event),
    )


def all_shown(session: Session, rows: Iterable[tuple[KeptEvent, Logged]], library: Library) -> list[LoggedOut]:
    """Events as lines, with the names of the animals and systems that they tell of."""
    rows = list(rows)
    moves = [known.event for _, known in rows if isinstance(known.event, Moved)]
    places = {number for move in moves for number in (move.system, move.to)}
    names = Names(
        names_of(session, {row.resident_id for row, _ in rows if row.resident_id is not None}, library),
        {one.id: name_of(one.document, one.id) for one in systems.list_some(session, places)} if places else {},
    )
    return [shown(row, known, names, library) for row, known in rows]


class Place:
    """What an entry is judged beside: the system's water, when it was started, and what else is in its log."""

    def __init__(self, visit: Visit, session: Session, system_id: int, now: datetime) -> None:
        self.visit = visit
        self.now = now
        self.system_id = system_id
        self.others = [(row.id, known) for row, known in readable(ledger.list_of(session, system_id))]
        plan = where_known(lambda: A_PLAN.read(systems.read(session, system_id).document), None)
        self.plan = plan
        self.started = plan.cycle.begun_on if plan else ""
        self.volume_l = (
            where_known(lambda: float(sheet_of(plan, visit.library).value("real_volume_l")), None) if plan else None
        )

    def event(self, row: EntryIn) -> Event:
        """What a line tells, with what it leaves to the plan: what a dose of ammonia is made of, how much a filter holds."""
        event = event_of(core_entry(row.entry), row.at, self.system_id)
        if isinstance(event, Dosed) and event.what == "ammonia" and not event.unit and self.plan:
            return replace(ammonia_dose(self.plan.cycle, event.amount), note=event.note)
        if isinstance(event, Rinsed) and event.filter and event.share is None and self.plan:
            beds = {bed.filter: bed.share for bed in beds_of(todays_sheet(self.visit, self.plan))}
            return replace(event, share=beds.get(event.filter))
        return event

    def faults(self, row: Logged, besides: int | None = None) -> list[EntryFault]:
        began = datetime.fromisoformat(self.started).replace(tzinfo=row.at.tzinfo) if self.started else None
        return faults(
            row,
            self.visit.library,
            now=self.now,
            began=began,
            volume_l=self.volume_l,
            others=(other for number, other in self.others if number != besides),
        )


def core_entry(schema: Any) -> Entry:
    entry: Entry = rebuilt(Entry, schema.model_dump())
    return entry


@router.get("/log/known")
def read_known(visit: Asked) -> Known:
    """What can be read, with what, and what can be done."""
    return Known(
        measures=[
            MeasureOut(key=m.key, label=m.label, kind=m.kind, ion=m.ion, unit=unit_read_in(m.kind, m.ion))
            for m in measures().values()
        ],
        kits=[
            KitOut(
                key=key,
                label=kit.label,
                measure=kit.measure,
                steps=list(kit.steps),
                reads=kit.reads,
                unit=unit_read_in(measures()[kit.measure].kind, kit.factor),
                interferes=kit.interferes,
                expires=kit.expires,
            )
            for key, kit in visit.library.kits.items()
        ],
        kinds=KIND_WORDS,
        not_here=list(IN_THE_REGISTER_ALONE),
        doses=DOSES,
        units=UNITS,
        cleaned=CLEANED,
    )


@router.get("/systems/{system_id}/log", response_model=list[LoggedOut])
def list_entries(system_id: int, visit: Asked) -> Response:
    """The log of a system, oldest first; written out without a second look, for it may be long."""
    with visit.reading() as session:
        answer = all_shown(session, readable(ledger.list_of(session, system_id)), visit.library)
    return Response(WHOLE_LOG.dump_json(answer), media_type="application/json")


@router.get("/systems/{system_id}/log/about")
def read_about(system_id: int, visit: Asked) -> About:
    """What lines of a system's log can be about: animals of the register that live there, filters, what it doses."""
    with visit.reading() as session:
        lives = who_lives(session, system_id, visit.library)
        plan = where_known(lambda: A_PLAN.read(systems.read(session, system_id).document), None)
    beds = where_known(lambda: beds_of(todays_sheet(visit, plan)), []) if plan else []
    dose = ammonia_dose(plan.cycle, None) if plan else Dosed()
    return About(
        animals=[LivesHere(id=number, name=name, here=here) for number, name, here in lives],
        filters={bed.filter: bed.label for bed in beds},
        ammonia_unit=dose.unit,
        ammonia_product=dose.product,
    )


@router.post("/systems/{system_id}/log", status_code=201)
def create_entries(system_id: int, given: EntriesIn, visit: Asked) -> list[LoggedOut]:
    """Entries made together: all of them are kept, or none; 422 names the field of the first that can not be.

    What happened to animals of the register is written there: it is one event, and both pages show it.
    """
    with visit.writing() as session:
        place = Place(visit, session, system_id, given.now)
        rows = [(line, Logged(line.at, place.event(line))) for line in given.entries]
        kept = []
        for number, (line, row) in enumerate(rows):
            refuse(place.faults(row), number)
            place.others.append((-1 - number, row))
            resident = line.entry.resident
            if isinstance(row.event, ToAnimals) and resident is not None:
                kept.append(write_down(session, resident, row.event, row.at, given.now.date()))
            else:
                refuse(whose(session, system_id, row, visit.library), number)
                kept += ledger.write(session, system_id, [ledger.new(row.event, row.at)])
        return all_shown(session, zip(kept, (row for _, row in rows), strict=True), visit.library)


def whose(session: Session, system_id: int, row: Logged, library: Library) -> list[EntryFault]:
    """Where the register knows who lives there, it has to be told whose death or sale it was: heads are counted by it."""
    if not isinstance(row.event, Died | Sold):
        return []
    who = ", ".join(dict.fromkeys(name for _, name, _ in who_lives(session, system_id, library)))
    return [EntryFault("whose", "resident", who=who)] if who else []


def refuse(faults: list[EntryFault], number: int = 0) -> None:
    """Raise the first of some faults, with the number of the entry that it is about."""
    if faults:
        faults[0].values["number"] = number
        raise faults[0]


@router.put("/log/{entry_id}")
def update_entry(entry_id: int, update: EntryUpdate, visit: Asked) -> LoggedOut:
    """Keep what an entry is now; 409 when it was changed since."""
    with visit.writing() as session:
        before = ledger.read(session, entry_id)
        place = Place(visit, session, before.system_id or 0, update.now)
        event = place.event(update)
        resident = before.resident_id
        if isinstance(event, ToAnimals):
            resident = resident if update.entry.resident is None else update.entry.resident
            was = or_none(before.document, stored_event)
            # A line of the log shows less of it than is known: the rest stays.
            if type(was) is type(event):
                event = replace(was, count=event.count, signs=event.signs, day=event.day)
        elif resident is not None:
            raise EntryFault("stays_theirs", "kind")
        row = Logged(update.at, event)
        refuse(place.faults(row, besides=entry_id))
        kept = ledger.update(session, entry_id, update.base, ledger.new(event, row.at, resident=resident))
        can_have_been(session, (before.resident_id, resident))
        return all_shown(session, [(kept, row)], visit.library)[0]


@router.post("/log/delete", status_code=204)
def delete_entries(numbers: Numbers, visit: Asked) -> None:
    """Take entries out; `restore` brings them back. Raises: RegisterFault where what came later hangs on one."""
    with visit.writing() as session:
        whose_are = [ledger.read(session, number).resident_id for number in numbers.ids]
        ledger.delete(session, numbers.ids)
        session.flush()
        can_have_been(session, whose_are)


@router.post("/log/restore", status_code=204)
def restore_entries(numbers: Numbers, visit: Asked) -> None:
    with visit.writing() as session:
        ledger.restore(session, numbers.ids)
        can_have_been(session, [ledger.read(session, number).resident_id for number in numbers.ids])


@router.get("/log/{entry_id}/history")
def read_entry_history(entry_id: int, visit: Asked) -> list[EntryWas]:
    """What an entry was, the newest first."""
    with visit.reading() as session:
        rows, whose_it_is = ledger.history(session, entry_id), ledger.read(session, entry_id).resident_id
        return [
            EntryWas(
                number=row.number,
                saved=row.saved,
                at=row.at,
                entry=EntrySchema.model_validate(asdict(line_of(was, whose_it_is))),
            )
            for row in rows
            if (was := or_none(row.document, stored_event)) is not None
        ]


@router.get("/systems/{system_id}/log.csv", response_class=Response)
def export_log(system_id: int, visit: Asked) -> Response:
    """The log as a table."""
    with visit.reading() as session:
        rows = [
            LogLine(row.at, line_of(known.event, row.resident_id))
            for row, known in readable(ledger.list_of(session, system_id))
        ]
    disposition = f'attachment; filename="log-{system_id}.csv"'
    return Response(write_table(rows), media_type="text/csv", headers={"Content-Disposition": disposition})
