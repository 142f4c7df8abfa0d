"""Growth as measured against what the kind grows, and what that moves."""

import math
from dataclasses import dataclass
from datetime import date, timedelta

from loquen.core.events.kinds.lives import Born
from loquen.core.library.rows.animals import Species
from loquen.core.physics.animals import length_at_age_cm
from loquen.core.register.lives import Life

DAYS_PER_YEAR = 365.25
SLOWEST, FASTEST = 0.25, 3.0
"""Growth that a measurement may say, in times of the kind's own: beyond it the ruler is at fault."""
SHORTEST_D = 21
"""Between two measurements that say something of growth."""
NEARLY_GROWN = 0.95
BORN_CM = 1.0


@dataclass(frozen=True, slots=True)
class Grown:
    """How long they are today and how that is known; how fast they grow, in times of what their kind does.

    `pace` is None where no two measurements say it; `expected_cm` is what the kind would be by now.
    """

    length_cm: float
    known_by: str
    pace: float | None
    expected_cm: float | None


def measured(life: Life) -> list[tuple[date, float]]:
    """Every length that was written down, oldest first."""
    return [(date.fromisoformat(one.day), one.length_cm) for one in life.happened if one.length_cm is not None]


def grow_on(kind: Species, length_cm: float, days: float, pace: float = 1.0) -> float:
    """A length some days later; what is longer than its kind's adults stays."""
    if length_cm >= kind.adult_length_cm:
        return length_cm
    yearly = min(10.0, max(0.01, kind.growth_per_year * pace))
    return float(length_at_age_cm(max(0.0, days), kind.adult_length_cm, yearly, length_cm))


def pace_of(kind: Species, points: list[tuple[date, float]]) -> float | None:
    """Growth between the first and the last measurement, in times of the kind's own.

    K = ln((L∞ − L0)/(L∞ − L1))/t, over its own K. None where they lie too near in time or to the adult length.
    """
    if len(points) < 2:
        return None
    (first, short), (last, long) = points[0], points[-1]
    days = (last - first).days
    if days < SHORTEST_D or max(short, long) >= NEARLY_GROWN * kind.adult_length_cm:
        return None
    yearly = math.log((kind.adult_length_cm - short) / (kind.adult_length_cm - long)) / days * DAYS_PER_YEAR
    return min(FASTEST, max(SLOWEST, yearly / kind.growth_per_year))


def known_lengths(life: Life, kind: Species) -> list[tuple[date, float]]:
    """What was measured, with the length at birth before it where that day is known."""
    points, born = measured(life), born_on(life)
    if born is not None and (not points or born < points[0][0]):
        return [(born, min(BORN_CM, kind.adult_length_cm / 4)), *points]
    return points


def grown(life: Life, kind: Species, today: date) -> Grown:
    """How long they are by now: from the last length that is known on, or full grown where none is."""
    points = known_lengths(life, kind)
    if not points:
        return Grown(kind.adult_length_cm, "adult", None, None)
    pace = pace_of(kind, points)
    (first_day, first), (day, length) = points[0], points[-1]
    now = grow_on(kind, length, (today - day).days, pace or 1.0)
    expected = grow_on(kind, first, (today - first_day).days) if len(points) > 1 else None
    return Grown(now, "measured" if measured(life) else "age", pace, expected)


@dataclass(frozen=True, slots=True)
class GrowthPoint:
    """A length on a day: as the kind grows from the first that is known, and as these do."""

    day: date
    kind_cm: float
    these_cm: float


POINTS, AHEAD_D = 24, 365


def growth_course(life: Life, kind: Species, today: date) -> list[GrowthPoint]:
    """From the first length that is known to a year from today; empty where none is, or all are grown."""
    known = known_lengths(life, kind)
    if not known or known[0][1] >= kind.adult_length_cm:
        return []
    first, pace = known[0], pace_of(kind, known) or 1.0
    span = (today - first[0]).days + AHEAD_D
    days = [first[0] + timedelta(days=round(span * part / POINTS)) for part in range(POINTS + 1)]
    found = []
    for day in days:
        before = [point for point in known if point[0] <= day] or [first]
        from_day, length = before[-1]
        these = grow_on(kind, length, (day - from_day).days, pace)
        found.append(GrowthPoint(day, grow_on(kind, first[1], (day - first[0]).days), these))
    return found


def born_on(life: Life) -> date | None:
    """When they were born: as written, or on their birth here."""
    if life.resident.born:
        return date.fromisoformat(life.resident.born)
    births = [date.fromisoformat(one.day) for one in life.happened if isinstance(one, Born)]
    return min(births, default=None)
