"""Who lives where today, by what is written down of them; and a plan with those animals in the place of the planned."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import date

from sqlmodel import Session

from loquen.checked import stored
from loquen.checked.documents import A_PLAN
from loquen.checked.stored import or_none, those_read
from loquen.core.errors import NamedCase
from loquen.core.events.ledger import LifeEvent
from loquen.core.model.parts.animals import Group
from loquen.core.model.records.register import RegisterFault, Resident
from loquen.core.model.roots.consistency import conflicts
from loquen.core.model.roots.documents import Unreadable
from loquen.core.model.roots.plan import Plan
from loquen.core.register.homes import as_it_lives, living_groups
from loquen.core.register.lives import Life, life_of
from loquen.core.register.stays import ends_on, stay_duties
from loquen.core.routine.duty import Duty
from loquen.core.system.book import sheet_of
from loquen.house.house import Visit
from loquen.house.kept import at_most
from loquen.store.documents import systems
from loquen.store.documents.systems import Current
from loquen.store.happened import register
from loquen.store.happened.register import KeptResident


@dataclass(frozen=True, slots=True)
class Written:
    """A resident as the core's, with the numbers of what happened."""

    id: int
    life: Life
    numbers: tuple[tuple[int, LifeEvent], ...]


def written(row: KeptResident) -> Written | None:
    """What is kept, replayed; None where it contradicts itself or can not be read. What happened and can not be read is
    passed over."""
    resident = or_none(row.document, stored.resident)
    if resident is None:
        return None
    numbers = tuple(those_read(row.happened, stored.happened).items())
    try:
        return Written(row.id, life_of(resident, [one for _, one in numbers]), numbers)
    except RegisterFault:
        return None


def everybody(rows: Iterable[KeptResident]) -> list[Written]:
    """All that can be read."""
    return [row for row in map(written, rows) if row is not None]


def living(visit: Visit, session: Session, today: date) -> Mapping[int, tuple[Group, ...]]:
    """The animals of each system that anybody lives in."""
    return visit.kept(living_of, tuple(register.everybody(session)), today)


@at_most(4)
def living_of(visit: Visit, rows: tuple[KeptResident, ...], today: date) -> Mapping[int, tuple[Group, ...]]:
    lives = [row.life for row in everybody(rows)]
    homes = {system_id for life in lives for system_id in life.homes}
    found = {
        home: living_groups((life for life in lives if home in life.homes), home, today, visit.library)
        for home in homes
    }
    return {home: groups for home, groups in found.items() if groups}


@at_most(4)
def stays_of(
    visit: Visit, rows: tuple[KeptResident, ...], homes: tuple[tuple[int, date], ...]
) -> Mapping[int, tuple[Duty, ...]]:
    lives = [(row.id, row.life) for row in everybody(rows) if row.life.resident.stays_until]
    return {home: stay_duties(lives, home, began, visit.library) for home, began in homes}


def stays(visit: Visit, session: Session, known: Iterable[Current]) -> Mapping[int, tuple[Duty, ...]]:
    """What the stays of those who live in each system ask."""
    homes = tuple((system.id, system.created.date()) for system in known)
    return visit.kept(stays_of, tuple(register.everybody(session)), homes)


def with_stay(visit: Visit, session: Session, resident: Resident, happened: Iterable[LifeEvent]) -> Resident:
    """A newcomer with the day on which the stay that its new home's plan has ends, where no other was told."""
    first = next((one for one in happened if one.system), None)
    if resident.stays_until or first is None:
        return resident
    try:
        plan = A_PLAN.read(systems.read(session, first.system).document)
        ends = ends_on(sheet_of(plan, visit.library), date.fromisoformat(first.day))
    except (Unreadable, NamedCase):
        return resident
    return resident if ends is None else replace(resident, stays_until=ends.isoformat())


def as_lived(visit: Visit, plan: Plan, groups: tuple[Group, ...]) -> Plan:
    """The plan with those who live there; as planned where nobody is written down, or where they contradict it."""
    if not groups:
        return plan
    lives = as_it_lives(plan, groups)
    return plan if conflicts(lives, visit.library) else lives
