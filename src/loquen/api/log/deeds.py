"""What each system's log says was done and fed, kept until that log is another: a round and a larder ask all of them."""

from collections.abc import Iterable
from dataclasses import dataclass, field
from datetime import datetime
from threading import Lock

from sqlmodel import Session

from loquen.api.log.reading import readable
from loquen.core.model.log import Entry
from loquen.store import log

FED, RINSED = "feed.", "rinse."
"""How the keys of duties begin that any meal, and any rinse, sees to."""


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
        self.made: dict[int, tuple[log.Stamp, Deeds]] = {}
        self.lock = Lock()

    def of(self, session: Session, system_ids: Iterable[int]) -> dict[int, Deeds]:
        """By system; only what changed since is read."""
        ids = list(system_ids)
        stamps = log.stamps(session, ids)
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
    rows = log.list_of(session, system_id)
    read = readable(rows)
    found = Deeds(unread=len(rows) - len(read))
    for row, known in read:
        entry = known.entry
        if deed := deed_of(entry):
            found.deeds.setdefault(deed, []).append(row.at)
        if entry.kind == "feed":
            found.meals.append(Meal(row.at, entry.amount, entry.what))
    return found


def deed_of(entry: Entry) -> str:
    """The duty that an entry of the log sees to, or how the keys of those begin; "" for none."""
    if entry.kind == "change":
        return "change"
    if entry.kind == "reading":
        return f"read.{entry.what}"
    if entry.kind == "feed":
        return FED
    return RINSED if entry.kind == "filter" and not entry.note else ""
