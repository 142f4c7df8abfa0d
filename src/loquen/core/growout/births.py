"""What the register says of a kind's births and of its lines."""

from collections import Counter, defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date

from loquen.core.events.kinds.lives import Born as Birth
from loquen.core.growout.lines import effective_number, lost_frac
from loquen.core.register.lives import Life

ANYWHERE = 0
LEAST_TO_TELL = 2
"""Births on as many days from which a rate can be told."""


@dataclass(frozen=True, slots=True)
class Born:
    """Broods, their young, and the days they came in."""

    broods: int
    young: int
    days: float

    @property
    def label(self) -> str:
        return f"{self.broods} broods of {self.young} young in {self.days:.0f} days"


@dataclass(frozen=True, slots=True)
class Seen:
    """Births by day (ISO), and what they come to; None where they are too few to tell a rate."""

    born: Born | None = None
    births: tuple[tuple[str, int], ...] = ()


UNSEEN = Seen()


def seen_of(lives: Iterable[Life], species: str, system: int, today: date) -> Seen:
    """Births of a kind in a system (or anywhere), those of one day as one brood.

    The days run from the first brood to today, and one mean distance more: so many broods fill as many distances.
    """
    by_day: Counter[str] = Counter()
    for life in lives:
        if life.resident.species != species:
            continue
        for one in life.happened:
            if isinstance(one, Birth) and system in (ANYWHERE, one.system):
                by_day[one.day] += one.number
    births = tuple(sorted(by_day.items()))
    if len(births) < LEAST_TO_TELL:
        return Seen(Born(len(births), sum(by_day.values()), 0.0) if births else None, births)
    first, last = date.fromisoformat(births[0][0]), date.fromisoformat(births[-1][0])
    gap = (last - first).days / (len(births) - 1)
    return Seen(
        Born(len(births), sum(by_day.values()), max((today - first).days, (last - first).days) + gap), births
    )


@dataclass(frozen=True, slots=True)
class LineKept:
    """A line of a kind in the register: its animals, those whose sex is known, its effective number by sexes and at worst, and
    what it has lost since it was founded."""

    line: str
    alive: int
    males: int | None
    females: int | None
    generation: int
    effective: float | None
    effective_low: float | None
    lost_least_frac: float
    lost_most_frac: float


def lines_kept(lives: Iterable[Life], species: str, low_part: float) -> tuple[LineKept, ...]:
    """Each line of a kind, by name: who lives of its latest generation, and what all that bred before have lost.

    A generation whose sexes are not written down counts as even.
    """
    by_line: dict[str, dict[int, list[Life]]] = defaultdict(lambda: defaultdict(list))
    for life in lives:
        if life.resident.species == species:
            by_line[life.resident.line.strip()][life.resident.generation].append(life)
    return tuple(line_kept(line, rows, low_part) for line, rows in sorted(by_line.items()))


def line_kept(line: str, generations: dict[int, list[Life]], low_part: float) -> LineKept:
    latest = max(generations)
    alive = sum(life.alive for life in generations[latest])
    males = known_males(generations[latest])
    effective = effective_number(males, alive - males) if males is not None else None
    bred = [max(1.0, effective_of(rows)) for number, rows in sorted(generations.items()) if number < latest]
    return LineKept(
        line=line,
        alive=sum(life.alive for rows in generations.values() for life in rows),
        males=males,
        females=None if males is None else alive - males,
        generation=latest,
        effective=effective,
        effective_low=None if effective is None else effective * low_part,
        lost_least_frac=lost_frac(bred),
        lost_most_frac=lost_frac([max(0.5, number * low_part) for number in bred]),
    )


def known_males(lives: Iterable[Life]) -> int | None:
    """Males of all of them; None once one does not say."""
    counts = [life.males for life in lives if life.alive]
    return None if not counts or None in counts else sum(count for count in counts if count is not None)


def effective_of(lives: Iterable[Life]) -> float:
    """Of all that came of a generation, by sexes where they are known, else half and half."""
    rows = list(lives)
    came = sum(life.came for life in rows)
    males = known_males(rows)
    alive = sum(life.alive for life in rows)
    share = males / alive if males is not None and alive else 0.5
    return effective_number(came * share, came * (1 - share))
