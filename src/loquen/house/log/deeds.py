"""What each system's log says was done and fed, kept until that log is another: a round and a larder ask all of them."""

from collections.abc import Iterable
from dataclasses import dataclass, field
from datetime import datetime

from sqlmodel import Session

from loquen.core.events.effects import sees_to
from loquen.core.events.kinds.keeping import Fed, Rinsed
from loquen.house.house import Visit
from loquen.house.kept import at_most
from loquen.house.log.reading import readable
from loquen.store.happened import ledger

MOST_LOGS = 2000


@dataclass(frozen=True, slots=True)
class Meal:
    """What was fed, grams where they were told, and what was left of it."""

    at: datetime
    grams: float | None
    left: str


@dataclass(frozen=True, slots=True)
class Deeds:
    """Of one log the moments of what was done, by the duty that it sees to or how the keys of those begin; and its meals, the
    oldest first."""

    deeds: dict[str, list[datetime]] = field(default_factory=dict)
    meals: list[Meal] = field(default_factory=list)
    unread: int = 0
    """How many entries can not be read."""


@dataclass(frozen=True)
class LogAsItStands:
    """One system's log, at hand to be read; told apart by what stands in it."""

    session: Session
    system_id: int
    stamp: ledger.Stamp

    @property
    def mark(self) -> tuple[int, ledger.Stamp]:
        return self.system_id, self.stamp


def log_as_it_stands(session: Session, system_id: int) -> LogAsItStands:
    return LogAsItStands(session, system_id, ledger.stamps(session, [system_id]).get(system_id, ()))


def deeds_of(visit: Visit, session: Session, system_ids: Iterable[int]) -> dict[int, Deeds]:
    """By system; only the logs that changed since are read."""
    ids = list(system_ids)
    stamps = ledger.stamps(session, ids)
    return {
        system_id: visit.kept(deeds_in, LogAsItStands(session, system_id, stamps.get(system_id, ())))
        for system_id in ids
    }


@at_most(MOST_LOGS)
def deeds_in(_: Visit, log: LogAsItStands) -> Deeds:
    rows = ledger.list_of(log.session, log.system_id)
    read = readable(rows)
    found = Deeds(unread=len(rows) - len(read))
    for row, known in read:
        event = known.event
        # A rinse that was ticked is one of the bed that its duty names.
        if (deed := sees_to(event)) and not (isinstance(event, Rinsed) and row.duty):
            found.deeds.setdefault(deed, []).append(row.at)
        if isinstance(event, Fed):
            found.meals.append(Meal(row.at, event.grams, event.left))
    return found
