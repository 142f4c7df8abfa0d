"""Who lives where today, by what is written down of them; and a plan with those animals in the place of the planned."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import date

from sqlmodel import Session

from loquen.checked import stored
from loquen.checked.stored import or_none, those_read
from loquen.core.events.ledger import LifeEvent
from loquen.core.model.parts.animals import Group
from loquen.core.model.records.register import RegisterFault
from loquen.core.model.roots.consistency import conflicts
from loquen.core.model.roots.plan import Plan
from loquen.core.register.homes import as_it_lives, living_groups
from loquen.core.register.lives import Life, life_of
from loquen.house.house import Visit
from loquen.house.kept import at_most
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


def as_lived(visit: Visit, plan: Plan, groups: tuple[Group, ...]) -> Plan:
    """The plan with those who live there; as planned where nobody is written down, or where they contradict it."""
    if not groups:
        return plan
    lives = as_it_lives(plan, groups)
    return plan if conflicts(lives, visit.library) else lives
