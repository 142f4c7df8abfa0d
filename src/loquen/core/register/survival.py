"""How many of each source live on."""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, timedelta

from loquen.core.events.kinds.lives import Died
from loquen.core.register.lives import Coming, Going, Life, in_order

WATCHED_D = 90


@dataclass(frozen=True, slots=True)
class Survived:
    """Of those that came from a source at least so many days ago, how many were not dead within these days."""

    source: str
    came: int
    died: int

    @property
    def frac(self) -> float:
        return 1 - self.died / self.came


def survival(lives: Iterable[Life], today: date) -> list[Survived]:
    """By source, the largest first; deaths are counted against the oldest that are still there."""
    came: dict[str, int] = defaultdict(int)
    died: dict[str, int] = defaultdict(int)
    for life in lives:
        source = life.resident.source or "not written down"
        arrivals: list[list[object]] = []
        for one in in_order(life.happened):
            day = date.fromisoformat(one.day)
            if isinstance(one, Coming):
                arrivals.append([day, one.number])
                if day + timedelta(days=WATCHED_D) <= today:
                    came[source] += one.number
            elif isinstance(one, Going):
                take(arrivals, one.number, isinstance(one, Died), day, today, source, died)
    rows = [Survived(source, count, died[source]) for source, count in came.items() if count]
    return sorted(rows, key=lambda row: -row.came)


def take(
    arrivals: list[list[object]],
    count: int,
    dead: bool,
    day: date,
    today: date,
    source: str,
    died: dict[str, int],
) -> None:
    """Take so many out of those that came, the oldest first."""
    for row in arrivals:
        came_on, left = row
        assert isinstance(came_on, date)
        assert isinstance(left, int)
        taken = min(left, count)
        row[1] = left - taken
        count -= taken
        watched = came_on + timedelta(days=WATCHED_D)
        if dead and day < watched <= today:
            died[source] += taken
