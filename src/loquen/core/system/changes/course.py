"""What moves carbonate hardness between changes, and the cycle that changes settle at."""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import NamedTuple

from loquen.core.system.roots import root

STILL = 1e-12
"""Below this rate a day nothing moves it but what is used."""
FORGOTTEN = 4
"""Cycles after which a reserve that runs dry in each has forgotten where it started."""


class Stretch(NamedTuple):
    """Some days between changes: where carbonate hardness ends, its mean, and what lime gave on the mean of a day."""

    end_dkh: float
    mean_dkh: float
    lime_dkh_d: float


@dataclass(frozen=True, slots=True)
class Pull:
    """What moves carbonate hardness between changes: use, soil that takes a share, a drip that pulls to its own level, and
    lime that lifts what stands under its ceiling, and leaves alone what stands over it."""

    used_dkh_d: float
    soil_per_d: float = 0.0
    lime_per_d: float = 0.0
    ceiling_dkh: float = 0.0
    drip_per_d: float = 0.0
    new_dkh: float = 0.0

    @property
    def label(self) -> str:
        parts = [f"{self.used_dkh_d:.3g} dKH a day used"]
        if self.soil_per_d:
            parts.append(f"{self.soil_per_d:.0%} a day into the soil")
        if self.lime_per_d:
            parts.append(f"{self.lime_per_d:.1%} a day of the way to {self.ceiling_dkh:.1f} dKH by lime")
        return ", ".join(parts)

    @property
    def rate(self) -> float:
        return self.soil_per_d + self.lime_per_d + self.drip_per_d

    @property
    def level(self) -> float:
        """Where it would stand without a change."""
        return (self.lime_per_d * self.ceiling_dkh + self.drip_per_d * self.new_dkh - self.used_dkh_d) / self.rate

    @property
    def unlimed(self) -> "Pull":
        """The same over the ceiling, where lime rests."""
        return replace(self, lime_per_d=0.0)

    def falls(self, dkh: float) -> float:
        """How fast it falls there, a day."""
        return self.used_dkh_d if self.rate < STILL else self.rate * (dkh - self.level)

    def rests(self, dkh: float) -> bool:
        """Whether lime has nothing to do from there on: over its ceiling, or on it and rising."""
        return dkh > self.ceiling_dkh or (dkh == self.ceiling_dkh and self.unlimed.falls(dkh) < 0)

    def along(self, dkh: float, days: float) -> Stretch:
        """Some days from there, in two where the ceiling is passed meanwhile; below 0 where more is used than there was."""
        if not self.lime_per_d:
            return self.smooth(dkh, days)
        first, then = (self.unlimed, self) if self.rests(dkh) else (self, self.unlimed)
        part = min(days, first.days_to(self.ceiling_dkh, dkh)) if dkh != self.ceiling_dkh else days
        one = first.smooth(dkh, part)
        if part >= days:
            return one
        other = then.smooth(self.ceiling_dkh, days - part)
        shares = part / days, 1 - part / days
        return Stretch(
            other.end_dkh,
            shares[0] * one.mean_dkh + shares[1] * other.mean_dkh,
            shares[0] * one.lime_dkh_d + shares[1] * other.lime_dkh_d,
        )

    def smooth(self, dkh: float, days: float) -> Stretch:
        """Some days in which no ceiling is passed."""
        if self.rate < STILL:
            return Stretch(dkh - self.used_dkh_d * days, dkh - self.used_dkh_d * days / 2, 0.0)
        turned = self.rate * days
        end = self.level + (dkh - self.level) * math.exp(-turned)
        mean = self.level + (dkh - self.level) * (-math.expm1(-turned) / turned if turned > 0 else 1.0)
        return Stretch(end, mean, self.lime_per_d * (self.ceiling_dkh - mean))

    def days_to(self, target_dkh: float, dkh: float) -> float:
        """Days until it stands there, no ceiling being passed; infinite where it never does."""
        if self.rate < STILL:
            return (dkh - target_dkh) / self.used_dkh_d if self.used_dkh_d > 0 and dkh >= target_dkh else math.inf
        far, near = dkh - self.level, target_dkh - self.level
        return math.log(far / near) / self.rate if near and far / near >= 1 else math.inf

    def days_left(self, dkh: float) -> float:
        """Days until nothing is left of it; infinite where that never comes."""
        if not self.lime_per_d or not self.rests(dkh):
            return self.days_to(0.0, dkh)
        return self.unlimed.days_to(self.ceiling_dkh, dkh) + self.days_to(0.0, self.ceiling_dkh)


@dataclass(frozen=True, slots=True)
class Course:
    """The settled cycle of carbonate hardness: before and after each change, its mean, and what lime gives a day."""

    before_dkh: tuple[float, ...]
    after_dkh: tuple[float, ...]
    mean_dkh: float
    lime_dkh_d: float = 0.0

    @property
    def label(self) -> str:
        return f"{min(self.before_dkh):.2f} before to {max(self.after_dkh):.2f} after a change"


def settled_course(new_dkh: float, gaps_d: tuple[float, ...], frac: float, pull: Pull) -> Course:
    """The cycle that changes of a share with new water settle at, never below 0."""

    def cycle(start: float, least: float) -> Course:
        befores, afters, total, given, level = [], [], 0.0, 0.0, start
        for gap in gaps_d:
            stretch = pull.along(level, gap)
            total += max(0.0, stretch.mean_dkh) * gap
            given += stretch.lime_dkh_d * gap
            befores.append(max(least, stretch.end_dkh))
            level = befores[-1] + (new_dkh - befores[-1]) * frac
            afters.append(level)
        days = sum(gaps_d)
        return Course(tuple(befores), tuple(afters), total / days, given / days)

    def end(start: float) -> float:
        return cycle(start, -math.inf).after_dkh[-1]

    course = cycle(settled_start(new_dkh, end, pull), -math.inf)
    if min(course.before_dkh) < 0:
        start = max(0.0, course.after_dkh[-1])
        for _ in range(FORGOTTEN):
            course = cycle(start, 0.0)
            start = course.after_dkh[-1]
    return course


def settled_start(new_dkh: float, end: Callable[[float], float], pull: Pull) -> float:
    """Where a cycle meets itself: it maps its start to its end along a line, or along two that meet at lime's ceiling."""
    rise = end(0.0)
    slope = end(1.0) - rise
    if not pull.lime_per_d:
        return rise / (1 - slope) if slope < 1 - STILL else new_dkh
    high = max(new_dkh, pull.ceiling_dkh) + 1
    low = -1 - pull.used_dkh_d * LONGEST_D
    return root(lambda start: start - end(start), low, high) if low - end(low) < 0 < high - end(high) else new_dkh


LONGEST_D = 3660.0
"""Farther than any cycle falls below 0 in this time."""
