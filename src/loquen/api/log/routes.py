"""The log: entries of a system, one by one, many at once, and as a table."""

from dataclasses import asdict
from datetime import datetime
from typing import Annotated, Any

from fastapi import APIRouter, Query, Response
from pydantic import TypeAdapter
from sqlmodel import Session

from loquen.api.dependencies import FAULTS, Kept
from loquen.api.log.reading import log_of, readable
from loquen.api.log.schema import (
    EntriesIn,
    EntryUpdate,
    EntryWas,
    KitOut,
    Known,
    LoggedOut,
    MeasureOut,
    Numbers,
)
from loquen.api.wire.documents import read_document
from loquen.api.wire.plan import EntrySchema
from loquen.api.wire.stored import entry, or_none
from loquen.core.data.kits import kits, measures
from loquen.core.errors import CoreError
from loquen.core.model import log as logbook
from loquen.core.model.documents import document, rebuilt
from loquen.core.model.log import Entry, EntryFault, Logged
from loquen.core.system.book import sheet_of
from loquen.core.system.told import where_known
from loquen.exchange.log_table import write_table
from loquen.store import log, systems
from loquen.store.log import KeptEntry

router = APIRouter(prefix="/api", tags=["log"], responses=dict(FAULTS))


WHOLE_LOG = TypeAdapter(list[LoggedOut])
FIELDS = tuple(Entry.__slots__)


def shown(row: KeptEntry, known: Logged) -> LoggedOut:
    """An entry with its interval."""
    entry = known.entry
    low = high = None
    if entry.kind == "reading":
        try:
            read = logbook.read_interval(entry)
            low, high = read.low, None if read.high == float("inf") else read.high
        except (CoreError, KeyError):
            pass
    return LoggedOut(
        id=row.id,
        system_id=row.system_id,
        at=row.at,
        revision=row.revision,
        entry=EntrySchema.model_construct(**{name: getattr(entry, name) for name in FIELDS}),
        low=low,
        high=high,
    )


class Place:
    """What an entry is judged beside: the system's water, when it was started, and what else is in its log."""

    def __init__(self, session: Session, system_id: int, now: datetime) -> None:
        self.now = now
        self.others = [(row.id, known) for row, known in readable(log.list_of(session, system_id))]
        plan = where_known(lambda: read_document(systems.read(session, system_id).document), None)
        self.started = plan.cycle.begun_on if plan else ""
        self.volume_l = where_known(lambda: float(sheet_of(plan).value("real_volume_l")), None) if plan else None

    def faults(self, row: Logged, besides: int | None = None) -> list[EntryFault]:
        began = datetime.fromisoformat(self.started).replace(tzinfo=row.at.tzinfo) if self.started else None
        return logbook.faults(
            row,
            now=self.now,
            began=began,
            volume_l=self.volume_l,
            others=(other for number, other in self.others if number != besides),
        )


def core_entry(schema: Any) -> Entry:
    entry: Entry = rebuilt(Entry, schema.model_dump())
    return entry


@router.get("/log/known")
def read_known() -> Known:
    """What can be read, with what, and what can be done."""
    return Known(
        measures=[MeasureOut(key=m.key, label=m.label, kind=m.kind, ion=m.ion) for m in measures().values()],
        kits=[
            KitOut(
                key=key,
                label=kit.label,
                measure=kit.measure,
                steps=list(kit.steps),
                reads=kit.reads,
                interferes=kit.interferes,
                expires=kit.expires,
            )
            for key, kit in kits().items()
        ],
        kinds=logbook.KIND_WORDS,
        doses=logbook.DOSES,
        cleaned=logbook.CLEANED,
    )


@router.get("/log")
def list_latest(database: Kept, count: Annotated[int, Query(ge=1, le=500)] = 100) -> list[LoggedOut]:
    """The newest entries of all systems."""
    with database.reading() as session:
        rows = log.list_latest(session, count)
    return [shown(row, known) for row, known in readable(rows)]


@router.get("/systems/{system_id}/log", response_model=list[LoggedOut])
def list_entries(system_id: int, database: Kept) -> Response:
    """The log of a system, oldest first; written out without a second look, for it may be long."""
    with database.reading() as session:
        rows = log.list_of(session, system_id)
    answer = [shown(row, known) for row, known in readable(rows)]
    return Response(WHOLE_LOG.dump_json(answer), media_type="application/json")


@router.post("/systems/{system_id}/log", status_code=201)
def create_entries(system_id: int, given: EntriesIn, database: Kept) -> list[LoggedOut]:
    """Entries made together: all of them are kept, or none; 422 names the field of the first that can not be."""
    with database.writing() as session:
        place = Place(session, system_id, given.now)
        rows = [Logged(row.at, core_entry(row.entry)) for row in given.entries]
        for number, row in enumerate(rows):
            refuse(place.faults(row), number)
            place.others.append((-1 - number, row))
        kept = log.create(session, system_id, [(row.at, document(row.entry)) for row in rows])
    return [shown(row, known) for row, known in zip(kept, rows, strict=True)]


def refuse(faults: list[EntryFault], number: int = 0) -> None:
    """Raise the first of some faults, with the number of the entry that it is about."""
    if faults:
        faults[0].values["number"] = number
        raise faults[0]


@router.put("/log/{entry_id}")
def update_entry(entry_id: int, update: EntryUpdate, database: Kept) -> LoggedOut:
    """Keep what an entry is now; 409 when it was changed since."""
    with database.writing() as session:
        place = Place(session, log.read(session, entry_id).system_id, update.now)
        row = Logged(update.at, core_entry(update.entry))
        refuse(place.faults(row, besides=entry_id))
        kept = log.update(session, entry_id, update.base, row.at, document(row.entry))
    return shown(kept, row)


@router.post("/log/delete", status_code=204)
def delete_entries(numbers: Numbers, database: Kept) -> None:
    """Take entries out; `restore` brings them back."""
    with database.writing() as session:
        log.delete(session, numbers.ids)


@router.post("/log/restore", status_code=204)
def restore_entries(numbers: Numbers, database: Kept) -> None:
    with database.writing() as session:
        log.restore(session, numbers.ids)


@router.get("/log/{entry_id}/history")
def read_entry_history(entry_id: int, database: Kept) -> list[EntryWas]:
    """What an entry was, the newest first."""
    with database.reading() as session:
        rows = log.history(session, entry_id)
        return [
            EntryWas(number=row.number, saved=row.saved, at=row.at, entry=EntrySchema.model_validate(asdict(was)))
            for row in rows
            if (was := or_none(row.document, entry)) is not None
        ]


@router.get("/systems/{system_id}/log.csv", response_class=Response)
def export_log(system_id: int, database: Kept) -> Response:
    """The log as a table."""
    with database.reading() as session:
        rows = log_of(session, system_id)
    disposition = f'attachment; filename="log-{system_id}.csv"'
    return Response(write_table(rows), media_type="text/csv", headers={"Content-Disposition": disposition})
