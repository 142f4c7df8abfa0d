"""What each system's log says was done and fed, kept until that log is another: a round and a larder ask all of them."""

from collections.abc import Iterable
from dataclasses import dataclass, field
from datetime import datetime
from threading import Lock

from sqlmodel import Session

from loquen.api.log.reading import readable
from loquen.core.events.effects import sees_to
from loquen.core.events.kinds.keeping import Fed, Rinsed
from loquen.store.happened import ledger


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


class Logs:
    """What was made of each system's log, made anew where one changed."""

    def __init__(self) -> None:
        self.made: dict[int, tuple[ledger.Stamp, Deeds]] = {}
        self.lock = Lock()

    def of(self, session: Session, system_ids: Iterable[int]) -> dict[int, Deeds]:
        """By system; only what changed since is read."""
        ids = list(system_ids)
        stamps = ledger.stamps(session, ids)
        found = {}
        for system_id in ids:
            stamp = stamps.get(system_id, ())
            with self.lock:
                known = self.made.get(system_id)
            if known is None or known[0] != stamp:
                known = (stamp, deeds_in(session, system_id))
                with self.lock:
                    self.made[system_id] = known
            found[system_id] = known[1]
        return found


def deeds_in(session: Session, system_id: int) -> Deeds:
    rows = ledger.list_of(session, system_id)
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
