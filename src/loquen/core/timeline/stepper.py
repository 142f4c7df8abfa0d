"""Steps through time that follow the fastest of what happens: Bogacki and Shampine's pair of third and second order."""

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from functools import cache
from typing import Generic

import numpy as np

from loquen.core.physics.elementwise import Array, Q
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.rates import rates
from loquen.core.timeline.state import NAMES, PARTS, PLACE, State, moved
from loquen.core.timeline.surroundings import Surroundings
from loquen.core.timeline.tanks import Tanks

FIRST_H, SHORTEST_H = 2.0, 1e-5
SAFE, MOST_TIMES, LEAST_TIMES = 0.9, 4.0, 0.2
HALVINGS, NEARLY_H = 24, 1e-4
OF_DIFFERENCE = 0.25
"""Of what third and second order differ by, that a step of third order errs by at most."""
EVEN_PARTS = 4
"""So near to the end steps are made alike, lest the last be a scrap."""


@cache
def least_of(least_kh: float) -> dict[str, float]:
    """What quantities do not fall under where that is not nothing: a filter's bacteria never die out."""
    bacteria = table().least_capacity_mg_l_d
    return {"on_ammonia": bacteria, "on_nitrite": bacteria, "kh": least_kh}


OF_BACTERIA, OF_WATER = (1e-6, 2e-4), (5e-3, 0.0)
MAY_ERR = {
    "temp_c": (3e-3, 0.0),
    "volume_l": OF_WATER,
    "floor_l": OF_WATER,
    **dict.fromkeys(("on_ammonia", "on_nitrite", "wall_on_ammonia", "wall_on_nitrite"), OF_BACTERIA),
}
OTHERS_MAY_ERR = (5e-4, 1e-3)
"""What a step may err by, in a quantity's own unit and of its size: less of bacteria, for they grow by what they are."""


@dataclass(frozen=True, slots=True)
class Levels:
    """Levels of some names: as they stay, and for those that move their columns and their rows in a vector."""

    still: Array
    columns: list[int]
    rows: list[int]


class Moving(Generic[Q]):
    """The quantities of a water that what is at work moves; all others stay as they are."""

    def __init__(self, tanks: Tanks[Q], state: State[Q], around: Surroundings[Q]) -> None:
        self.tanks: Tanks[Q] = tanks
        self.around: Surroundings[Q] = around
        self.whole: list[Q] = list(PARTS(state))
        first = rates(state, around)
        self.places = moved(first)
        self.begins: Sequence[Q] = tanks.vector(first, self.places)
        """What each changes by in the first hour."""
        self.levels: dict[tuple[str, ...], Levels] = {}
        names, least = [NAMES[place] for place in self.places], least_of(around.least_kh)
        self.least: Sequence[Q] = tanks.each([least.get(name, 0.0) for name in names])
        may_err = [MAY_ERR.get(name, OTHERS_MAY_ERR) for name in names]
        self.absolute: Sequence[Q] = tanks.each([absolute for absolute, _ in may_err])
        self.relative: Sequence[Q] = tanks.each([relative for _, relative in may_err])

    def vector(self, state: State[Q]) -> Sequence[Q]:
        found: Sequence[Q] = self.tanks.vector(state, self.places)
        return found

    def state(self, vector: Sequence[Q]) -> State[Q]:
        """The whole water, with the quantities that move as they are now."""
        parts = self.whole.copy()
        for place, part in zip(self.places, vector, strict=True):
            parts[place] = part
        return State(*parts)

    def level(self, names: Sequence[str]) -> "Levels":
        """Where the levels of these names come from: those that move, and those that stay."""
        known = self.levels.get(names := tuple(names))
        if known is None:
            still = np.asarray(self.tanks.vector(State(*self.whole), [PLACE[name] for name in names]))
            rows = {NAMES[place]: row for row, place in enumerate(self.places)}
            columns = [column for column, name in enumerate(names) if name in rows]
            known = self.levels[names] = Levels(still, columns, [rows[names[column]] for column in columns])
        return known

    def slope(self, vector: Sequence[Q], hours: float) -> Sequence[Q]:
        """What each changes by in an hour."""
        return self.vector(rates(self.state(vector), self.around, hours))


@dataclass(frozen=True, slots=True)
class Step(Generic[Q]):
    """A stretch of a run: where it begins and ends, and how steeply it goes there, an hour."""

    moving: Moving[Q]
    start_h: float
    end_h: float
    before: Sequence[Q]
    after: Sequence[Q]
    slope_before: Sequence[Q]
    slope_after: Sequence[Q]

    @property
    def end(self) -> State[Q]:
        return self.moving.state(self.after)

    def reaches(self, name: str, below: float | None, above: float | None) -> bool:
        """Whether a quantity may pass a limit in the step: at an end of it, or because it turns between them."""
        place = PLACE[name]
        if place not in self.moving.places:
            parts: tuple[Q, ...] = (self.moving.whole[place],)
            turns = False
        else:
            row = self.moving.places.index(place)
            parts = (self.before[row], self.after[row])
            turns = bool(self.slope_before[row] * self.slope_after[row] < 0)
        low, high = (below is not None and min(parts) < below), (above is not None and max(parts) > above)
        return bool(turns or low or high)

    def inside(self, s: float) -> State[Q]:
        """The water after a part of the step: the cubic through both ends."""
        length, rest = self.end_h - self.start_h, 1 - s
        a, b = (1 + 2 * s) * rest * rest, s * s * (3 - 2 * s)
        c, d = length * s * rest * rest, -length * s * s * rest
        ends = zip(self.before, self.after, self.slope_before, self.slope_after, strict=True)
        return self.moving.state([a * p + b * q + c * r + d * t for p, q, r, t in ends])

    def at(self, hours: Array, names: Sequence[str]) -> Array:
        """Quantities at hours within the step, hours × names (× members)."""
        return at((self,), hours, names)


def at(steps: Sequence[Step[Q]], hours: Array, names: Sequence[str]) -> Array:
    """Quantities at hours within steps that move the same, hours × names (× members): the cubic through both ends of each."""
    level = steps[0].moving.level(names)
    found = np.repeat(level.still[None], len(hours), axis=0)
    starts, ends = (np.array([getattr(step, name) for step in steps]) for name in ("start_h", "end_h"))
    place = np.minimum(np.searchsorted(ends, hours), len(steps) - 1)

    def there(name: str) -> Array:
        held: Array = np.array([getattr(step, name) for step in steps])[:, level.rows]
        return held[place]

    before: Array = there("before")
    after: Array = there("after")
    each = (-1, *(1,) * (before.ndim - 1))
    length = (ends - starts)[place].reshape(each)
    s = (hours - starts[place]).reshape(each) / length
    rest = 1 - s
    moving = (1 + 2 * s) * rest * rest * before + s * s * (3 - 2 * s) * after
    # What lies at its least does not fall, however it is drawn.
    least = np.asarray(steps[0].moving.least)[level.rows]
    leaves, arrives = (
        np.where((held <= least) & (steep < 0), 0.0, steep)
        for held, steep in ((before, there("slope_before")), (after, there("slope_after")))
    )
    moving += length * s * rest * (rest * leaves - s * arrives)
    found[:, level.columns] = np.maximum(moving, 0.0)
    return found


class Stepper(Generic[Q]):
    """Steps of one run, each as long as its error allows."""

    def __init__(self, tanks: Tanks[Q]) -> None:
        self.tanks: Tanks[Q] = tanks
        self.hours = FIRST_H
        """That the next step is tried with."""

    def steps(
        self,
        start_h: float,
        end_h: float,
        state: State[Q],
        around: Surroundings[Q],
        turned: Callable[[State[Q]], bool] | None = None,
    ) -> Iterator[Step[Q]]:
        """The steps from an hour to another; the last ends earlier where something turns on the way."""
        moving = Moving(self.tanks, state, around)
        now, vector = start_h, moving.vector(state)
        slope = moving.begins
        while now < end_h:
            step = self.step(moving, now, end_h, vector, slope, now - start_h)
            if turned is not None and turned(step.end):
                yield self.until(step, now - start_h, turned)
                return
            yield step
            now, vector, slope = step.end_h, step.after, step.slope_after

    def step(
        self,
        moving: Moving[Q],
        start_h: float,
        end_h: float,
        before: Sequence[Q],
        slope: Sequence[Q],
        since: float,
    ) -> Step[Q]:
        """One step whose error is small enough, no longer than to the end."""
        while True:
            left = end_h - start_h
            parts = math.ceil(left / self.hours - 1e-6)
            length = left if parts <= 1 else left / parts if parts <= EVEN_PARTS else self.hours
            found, error = self.tried(
                moving, start_h, end_h if length == left else start_h + length, before, slope, since
            )
            times = min(MOST_TIMES, max(LEAST_TIMES, SAFE / max(error, 1e-8) ** (1 / 3)))
            if error <= 1 or length <= SHORTEST_H:
                # A step cut short by the end says only how long the next may be at least.
                self.hours = length * times if times < MOST_TIMES else max(self.hours, length * times)
                return found
            self.hours = max(SHORTEST_H, length * times)

    def tried(
        self,
        moving: Moving[Q],
        start_h: float,
        end_h: float,
        before: Sequence[Q],
        first: Sequence[Q],
        since: float,
    ) -> tuple[Step[Q], float]:
        """A step to an hour, and its error."""
        length = end_h - start_h
        plus, slope, least = self.tanks.plus, moving.slope, moving.least
        second = slope(plus(before, [(length / 2, first)], least), since + length / 2)
        third = slope(plus(before, [(0.75 * length, second)], least), since + 0.75 * length)
        ninth, part = length / 9, length * OF_DIFFERENCE / 9
        after = plus(before, [(2 * ninth, first), (3 * ninth, second), (4 * ninth, third)], least)
        last = slope(after, since + length)
        # Against the midpoint rule: the pair's own second order has no error at all for what relaxes just once a step.
        terms = [(2 * part, first), (-6 * part, second), (4 * part, third)]
        error = self.tanks.error(terms, before, after, moving.absolute, moving.relative)
        return Step(moving, start_h, end_h, before, after, first, last), error

    def until(self, step: Step[Q], since: float, turned: Callable[[State[Q]], bool]) -> Step[Q]:
        """The part of a step after which something has just turned.

        What turns may bend the curve: the shorter the step that ends just past it, the better its curve tells where.
        """
        unturned_h = step.start_h
        for _ in range(HALVINGS):
            hour = max(crossing_h(step, turned), unturned_h + NEARLY_H / 2)
            if step.end_h - hour <= NEARLY_H:
                break
            found, _ = self.tried(step.moving, step.start_h, hour, step.before, step.slope_before, since)
            if turned(found.end):
                step = found
            else:
                unturned_h = (hour + step.end_h) / 2
        return step


def crossing_h(step: Step[Q], turned: Callable[[State[Q]], bool]) -> float:
    """The hour of a step after which its curve has just turned."""
    low, high = 0.0, 1.0
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        low, high = (low, middle) if turned(step.inside(middle)) else (middle, high)
    return step.start_h + (step.end_h - step.start_h) * high
