"""From what is kept of quarantine to what a page and the round show."""

from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import asdict, dataclass, replace
from datetime import date, timedelta

from sqlmodel import Session

from loquen.checked import stored
from loquen.checked.stored import those_read
from loquen.core.data.tables import constants
from loquen.core.errors import NamedCase
from loquen.core.events.kinds.lives import ToAnimals
from loquen.core.events.ledger import LifeEvent
from loquen.core.library.rows.animals import Species
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.parts.animals import Group
from loquen.core.model.records.quarantine import Arriving, TreatmentCourse, Tub
from loquen.core.model.roots.consistency import conflicts
from loquen.core.model.roots.documents import name_of, plain_data
from loquen.core.model.roots.plan import Plan
from loquen.core.quarantine.courses import days_of_course, endangered, held_copper, label_dose, rinses
from loquen.core.quarantine.duties import tub_duties
from loquen.core.quarantine.order import MOST_AT_ONCE, Job, Turn, in_order
from loquen.core.quarantine.stays import Stay, put_in, stay
from loquen.core.quarantine.tubs import Asks, asks, takes, with_in_it
from loquen.core.quarantine.watching import signs_of
from loquen.core.register.homes import living_groups
from loquen.core.routine.costs import day_words, with_on
from loquen.core.routine.duty import Duty
from loquen.core.system.book import sheet_of
from loquen.house.house import Visit
from loquen.house.kept import at_most
from loquen.house.log.reading import readable
from loquen.house.quarantine.schema import (
    ArrivingOut,
    ArrivingSchema,
    CourseOut,
    CourseSchema,
    Marked,
    Newcomers,
    Refusal,
    TubAsks,
    TubOut,
    TubPlace,
    TubSchema,
    Waits,
    WaivedOut,
)
from loquen.house.register import view as register_view
from loquen.house.register.lived import Written, everybody
from loquen.house.sheet.drawing import Section, section_of
from loquen.store.documents import systems
from loquen.store.documents.systems import Current
from loquen.store.happened import ledger, register
from loquen.store.routine import quarantine

DAYS_SHOWN_AFTER = 60
"""A course is shown for so long after its end."""


@dataclass(frozen=True, slots=True)
class Quarantined:
    """All that is kept of it, beside the systems and the register."""

    visit: Visit
    today: date
    systems: list[Current]
    plans: Mapping[int, Plan]
    names: Mapping[int, str]
    tubs: Mapping[int, Tub]
    arriving: Mapping[int, Arriving]
    courses: Mapping[int, TreatmentCourse]
    written: list[Written]
    logged: Mapping[int, list[LifeEvent]]
    """What a tub's log says of animals without saying whose."""

    def courses_in(self, tub: int) -> dict[int, TreatmentCourse]:
        return {number: one for number, one in self.courses.items() if one.tub == tub}

    def groups_in(self, system_id: int) -> tuple[Group, ...]:
        return living_groups((row.life for row in self.written), system_id, self.today, self.visit.library)

    def wait_d(self, tub: int) -> int:
        """The longest wait of those in a tub."""
        here = {row.id for row in self.written if row.life.homes.get(tub)}
        waits = [one.wait_d for one in self.arriving.values() if one.resident in here and one.wait_d is not None]
        return max([self.tubs[tub].wait_d, *waits])

    def stay(self, tub: int) -> Stay | None:
        lives = (row.life for row in self.written)
        return stay(lives, tub, self.wait_d(tub), self.courses_in(tub).values(), self.logged.get(tub, ()))

    def filter_dead(self, tub: int) -> bool:
        """Whether a course that runs, or ran while they are in it, harms the filter."""
        return any(one.harms_filter and one.first <= self.today for one in self.courses_in(tub).values())


def read_quarantine(visit: Visit, session: Session, today: date, known: list[Current] | None = None) -> Quarantined:
    """What is kept; systems that can not be read are no tubs."""
    present = systems.list_all(session) if known is None else known
    plans = {row.id: plan for row in present if (plan := register_view.readable(visit, row)) is not None}
    tubs = {
        number: tub
        for number, tub in those_read(quarantine.tubs(session).items(), stored.tub).items()
        if number in plans and not conflicts(plans[number], visit.library)
    }
    return Quarantined(
        visit=visit,
        today=today,
        systems=present,
        plans=plans,
        names={row.id: plans[row.id].name if row.id in plans else name_of(row.document, row.id) for row in present},
        tubs=tubs,
        arriving=those_read(quarantine.arriving.all(session), stored.arriving),
        courses=those_read(quarantine.courses.all(session), stored.course),
        written=everybody(register.everybody(session)),
        logged=of_nobody(session, tubs),
    )


def of_nobody(session: Session, system_ids: Iterable[int]) -> dict[int, list[LifeEvent]]:
    """By system what its log says of animals without saying whose."""
    found: dict[int, list[LifeEvent]] = defaultdict(list)
    for row, known in readable(ledger.of_nobody(session, system_ids)):
        if isinstance(known.event, ToAnimals) and row.system_id is not None:
            day = known.event.day or row.at.date().isoformat()
            found[row.system_id].append(replace(known.event, day=day, system=row.system_id))
    return found


@dataclass(frozen=True, slots=True)
class Occupied:
    """A tub with animals in it, as its sheet says."""

    asked: Asks
    section: Section


@at_most(200)
def occupied(visit: Visit, plan: Plan, groups: tuple[Group, ...], filter_dead: bool) -> Occupied:
    sheet = sheet_of(with_in_it(plan, groups), visit.library, 0.0)
    return Occupied(asks(sheet, filter_dead), section_of(sheet, "length_now_cm"))


@at_most(1000)
def taken(visit: Visit, plan: Plan, groups: tuple[Group, ...]) -> tuple[bool, Sentence]:
    return takes(plan, groups, visit.library)


def occupied_tub(kept: Quarantined, tub: int) -> Occupied | None:
    """A tub as it is lived in; None where it is empty, or its plan has no such numbers."""
    groups = kept.groups_in(tub)
    if not groups:
        return None
    try:
        return kept.visit.kept(occupied, kept.plans[tub], groups, kept.filter_dead(tub))
    except NamedCase:
        return None


@dataclass(frozen=True, slots=True)
class TubCare:
    """What the round shows of a tub with animals."""

    duties: tuple[Duty, ...]
    section: Section


def tub_cares(visit: Visit, session: Session, known: list[Current], today: date) -> dict[int, TubCare]:
    """The duties of every tub; an empty one has none."""
    kept = read_quarantine(visit, session, today, known)
    began = {row.id: row.created.date() for row in known}
    found = {}
    for tub in kept.tubs:
        lived, waiting = occupied_tub(kept, tub), kept.stay(tub)
        if lived is None or waiting is None:
            found[tub] = TubCare((), section_of(sheet_of(kept.plans[tub], visit.library, 0.0)))
            continue
        running = {number: one for number, one in kept.courses_in(tub).items() if one.last >= today}
        sheet = sheet_of(with_in_it(kept.plans[tub], kept.groups_in(tub)), visit.library, 0.0)
        duties = tub_duties(sheet, lived.asked, waiting, running, began[tub], today)
        found[tub] = TubCare(duties, lived.section)
    return found


# What a page shows ------------------------------------------------------------------------------


def newcomers(kept: Quarantined, library: Library) -> Newcomers:
    """The whole house: tubs first, then who is to come, in the order of their turns."""
    tubs = [tub_out(kept, tub, library) for tub in kept.tubs]
    waiting = arriving_out(kept)
    return Newcomers(
        today=kept.today,
        result=result_of(kept, tubs, waiting),
        tubs=tubs,
        arriving=waiting,
        waived=[
            waived_out(kept, number, one)
            for number, one in kept.arriving.items()
            if one.waived and watched_until(kept, one) >= kept.today
        ],
        marked=marked(kept),
        places=[TubPlace(row.id, kept.names[row.id], row.id in kept.tubs) for row in kept.systems],
        best=len(waiting) <= MOST_AT_ONCE,
    )


def result_of(kept: Quarantined, tubs: Iterable[TubOut], waiting: Iterable[ArrivingOut]) -> Sentence:
    """How it stands, in a sentence: what falls short first, then who is free to go, then whose turn is next."""
    full = [tub for tub in tubs if tub.waits]
    if not kept.tubs:
        return say("No tub is kept yet: set one up, and say who is to come.")
    short = next((tub for tub in full if tub.asks and tub.asks.state == "short"), None)
    if short is not None:
        return say("{tub} can not hold those in it: see what makes it less.", tub=short.name)
    nowhere = next((row for row in waiting if row.tub is None), None)
    if nowhere is not None:
        return say("No tub takes {who} when they come.", who=nowhere.common)
    ready = [tub for tub in full if tub.ready]
    if ready:
        who = ", ".join(row.common for row in ready[0].waits)
        return say("The wait in {tub} is over: {who} can go home.", tub=ready[0].name, who=who)
    terms = {"full": Term(len(full), "count"), "tubs": Term(len(kept.tubs), "count")}
    coming = [row for row in waiting if row.enters is not None]
    if coming:
        first = coming[0]
        assert first.enters is not None
        return say(
            "{full} of {tubs} tubs are taken; {who} come next, into {tub} {day}.",
            who=first.common,
            tub=first.tub_name,
            day=with_on(day_words(first.enters, kept.today)),
            **terms,
        )
    if full:
        first_out = min((tub for tub in full if tub.release), key=lambda tub: tub.release or date.max)
        assert first_out.release is not None
        day = with_on(day_words(first_out.release, kept.today))
        return say("{full} of {tubs} tubs are taken; the next is free {day}.", day=day, **terms)
    return say("All {tubs} tubs are empty.", **terms)


def tub_out(kept: Quarantined, tub: int, library: Library) -> TubOut:
    lived, waiting = occupied_tub(kept, tub), kept.stay(tub)
    litres = sheet_of(kept.plans[tub], library, 0.0).value("real_volume_l") if lived is None else lived.asked.litres
    courses = {
        number: one
        for number, one in kept.courses_in(tub).items()
        if (kept.today - one.last).days <= DAYS_SHOWN_AFTER
    }
    copper = held_copper(kept.courses_in(tub).values(), kept.tubs[tub].renewed, kept.today)
    return TubOut(
        system_id=tub,
        name=kept.names[tub],
        litres=litres,
        section=lived.section if lived else section_of(sheet_of(kept.plans[tub], library, 0.0)),
        tub=TubSchema.model_validate(asdict(kept.tubs[tub])),
        waits=tuple(waits_in(kept, tub)),
        release=waiting.release if waiting else None,
        because=waiting.words(kept.today) if waiting else None,
        ready=waiting is not None and waiting.release <= kept.today,
        asks=asks_out(lived.asked) if lived else None,
        courses=tuple(course_out(kept, number, one, litres, lived, library) for number, one in courses.items()),
        copper=copper.product if copper else "",
    )


def waits_in(kept: Quarantined, tub: int) -> Iterable[Waits]:
    meant = {one.resident: one.goes_to for one in kept.arriving.values() if one.resident}
    for row in kept.written:
        since = put_in(row.life, tub)
        if since is not None:
            to = meant.get(row.id, 0)
            name = row.life.resident.name or common(kept, row.life.resident.species)
            yield Waits(row.id, name, row.life.homes[tub], since, to, kept.names.get(to, ""))


def asks_out(asked: Asks) -> TubAsks:
    return TubAsks(
        state=asked.state,
        words=asked.words,
        hours=asked.hours,
        limit_mg_l=asked.limit_mg_l,
        made_mg_d=asked.made_mg_d,
        taken_mg_d=asked.taken_mg_d,
        change_l=asked.change_l,
        change_frac=asked.told_frac,
        against=asked.against,
        shock=asked.shock,
        ways=asked.ways,
    )


def course_out(
    kept: Quarantined, number: int, course: TreatmentCourse, litres: float, lived: Occupied | None, library: Library
) -> CourseOut:
    share = lived.asked.told_frac if lived else 0.0
    days = days_of_course(course, litres, share)
    kinds = [
        kind for group in kept.groups_in(course.tub) if (kind := kept.visit.library.species.get(group.species))
    ]
    planted = bool(kept.plans[course.tub].planting)
    rinse = max(share, constants("quarantine.toml")["easy_change_frac"].value)
    return CourseOut(
        id=number,
        course=CourseSchema.model_validate(plain_data(asdict(course))),
        running=course.first <= kept.today <= course.last,
        ends=course.last,
        label_dose=label_dose(course, litres),
        days=tuple(days),
        endangered=tuple(endangered(course, kinds, planted, library)) if course.last >= kept.today else (),
        rinses=rinses(days[-1].level, rinse) if days else 0,
    )


def arriving_out(kept: Quarantined) -> list[ArrivingOut]:
    """Who is to come and is not waived, in the order of their turns.

    What comes from one source on one day shares a tub, for it shared water; where no tub has room for it all in time,
    each of it has a turn of its own.
    """
    coming = {number: one for number, one in kept.arriving.items() if not one.resident and not one.waived}
    lots = together(coming)
    found = placed(kept, coming, lots)
    without = {row.id for row in found if row.tub is None and row.together > 1}
    if without:
        found = placed(kept, coming, [part for lot in lots for part in split(lot, without)])
    return sorted(found, key=lambda row: (row.enters or date.max, row.id))


def together(coming: Mapping[int, Arriving]) -> list[list[int]]:
    """Arrivals that may share a turn: from one source on one day."""
    lots: dict[tuple[object, ...], list[int]] = defaultdict(list)
    for number, one in coming.items():
        source = one.source.strip().lower()
        lots[(source, one.comes_on, one.can_wait, one.tub) if source else (number,)].append(number)
    return list(lots.values())


def split(lot: list[int], without: set[int]) -> list[list[int]]:
    return [[number] for number in lot] if without & set(lot) else [lot]


def placed(kept: Quarantined, coming: Mapping[int, Arriving], lots: Iterable[list[int]]) -> list[ArrivingOut]:
    """A row for every arrival, with the turn of its lot."""
    by_first = {lot[0]: lot for lot in lots}
    refused = {first: refusals(kept, [coming[number] for number in lot]) for first, lot in by_first.items()}
    turns = {turn.key: turn for turn in turns_of(kept, coming, by_first, refused)}
    return [
        arriving_row(kept, number, coming[number], turns[first], len(lot), refused[first])
        for first, lot in by_first.items()
        for number in lot
    ]


def refusals(kept: Quarantined, lot: Iterable[Arriving]) -> dict[int, Sentence]:
    """The tubs that can not take some arrivals together, and why."""
    rows = list(lot)
    groups = tuple(group_of(one) for one in rows)
    kinds = [kind for one in rows if (kind := kept.visit.library.species.get(one.species))]
    found: dict[int, Sentence] = {}
    for tub in kept.tubs:
        copper = held_copper(kept.courses_in(tub).values(), kept.tubs[tub].renewed, kept.today)
        killed = [kind.common for kind in kinds if kind.copper_sensitive]
        if copper is not None and killed:
            found[tub] = say(
                "it held “{product}”: copper lingers, and kills {who}",
                product=copper.product,
                who=", ".join(killed),
            )
        elif any(one.tub and one.tub != tub for one in rows):
            found[tub] = say("another tub was chosen")
        else:
            try:
                good, why = kept.visit.kept(taken, kept.plans[tub], groups)
            except NamedCase:
                good, why = False, say("its plan has no such numbers")
            if not good:
                found[tub] = why
    return found


def group_of(one: Arriving) -> Group:
    if one.length_cm is None:
        return Group(one.species, one.number)
    return Group(one.species, one.number, size_by="length", length_cm=one.length_cm)


def turns_of(
    kept: Quarantined,
    coming: Mapping[int, Arriving],
    lots: Mapping[int, list[int]],
    refused: Mapping[int, Mapping[int, Sentence]],
) -> list[Turn]:
    jobs = []
    for first, lot in lots.items():
        rows = [coming[number] for number in lot]
        ready = max(0, (date.fromisoformat(rows[0].comes_on) - kept.today).days)
        waits = {
            tub: max(one.wait_d or kept.tubs[tub].wait_d for one in rows)
            for tub in kept.tubs
            if tub not in refused[first]
        }
        jobs.append(Job(first, ready, waits, rows[0].can_wait))
    free = {tub: max(0, (kept_free(kept, tub) - kept.today).days) for tub in kept.tubs}
    return in_order(jobs, free)


def kept_free(kept: Quarantined, tub: int) -> date:
    """The day from which on a tub is free: after those in it, and after a course."""
    waiting = kept.stay(tub)
    ends = [one.last + timedelta(days=1) for one in kept.courses_in(tub).values()]
    return max([kept.today, *([waiting.release] if waiting else []), *ends])


def arriving_row(
    kept: Quarantined, number: int, one: Arriving, turn: Turn, lot: int, refused: Mapping[int, Sentence]
) -> ArrivingOut:
    placed = turn.tub is not None
    comes = max(kept.today, date.fromisoformat(one.comes_on))
    enters = kept.today + timedelta(days=turn.enters_d) if placed else None
    return ArrivingOut(
        id=number,
        arriving=ArrivingSchema.model_validate(asdict(one)),
        common=common(kept, one.species),
        goes_to_name=kept.names.get(one.goes_to, ""),
        tub=turn.tub,
        tub_name=kept.names[turn.tub] if turn.tub is not None else "",
        enters=enters,
        leaves=kept.today + timedelta(days=turn.leaves_d) if placed else None,
        together=lot,
        hold_d=(enters - comes).days if enters else 0,
        refused=tuple(Refusal(kept.names[tub], why) for tub, why in refused.items()),
    )


def watched_until(kept: Quarantined, one: Arriving) -> date:
    """How long a waived arrival is watched: as long as it would have waited."""
    here = next((row for row in kept.written if row.id == one.resident), None)
    since = here.life.since if here and here.life.since else date.fromisoformat(one.comes_on)
    usual = round(constants("quarantine.toml")["wait_d"].value)
    return since + timedelta(days=one.wait_d or usual)


def waived_out(kept: Quarantined, number: int, one: Arriving) -> WaivedOut:
    kind: Species | None = kept.visit.library.species.get(one.species)
    lives = [common(kept, group.species) for group in kept.groups_in(one.goes_to)]
    planned = (
        [common(kept, group.species) for group in kept.plans[one.goes_to].animals]
        if one.goes_to in kept.plans
        else []
    )
    return WaivedOut(
        id=number,
        arriving=ArrivingSchema.model_validate(asdict(one)),
        common=common(kept, one.species),
        goes_to_name=kept.names.get(one.goes_to, ""),
        here=bool(one.resident),
        exposed=tuple(dict.fromkeys(lives or planned)),
        watch_until=watched_until(kept, one),
        signs=signs_of(kind) if kind else (),
    )


def marked(kept: Quarantined) -> list[Marked]:
    """Equipment that was in a course, copper first."""
    found = [
        Marked(one.equipment, one.product, kept.names.get(one.tub, ""), one.last, one.copper)
        for one in kept.courses.values()
        if one.equipment.strip() and one.first <= kept.today
    ]
    return sorted(found, key=lambda row: (not row.copper, row.until))


def common(kept: Quarantined, key: str) -> str:
    kind = kept.visit.library.species.get(key)
    return kind.common if kind else key
