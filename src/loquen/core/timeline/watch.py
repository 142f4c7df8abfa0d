"""What is watched in a water: limits that animals may live within, and the moment one is passed."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from loquen.core.physics.elementwise import Array, Q, Truth, both
from loquen.core.timeline.rates import free_ammonia
from loquen.core.timeline.run import Undisturbed
from loquen.core.timeline.state import State
from loquen.core.timeline.stepper import Step
from loquen.core.timeline.surroundings import Surroundings


@dataclass(frozen=True, slots=True)
class Limits:
    """What animals may live in, mg/L N: total and un-ionised ammonia, nitrite."""

    ammonia: float
    unionised: float
    nitrite: float

    def met(self, state: State[Q], around: Surroundings[Q]) -> Truth:
        """Whether a state lies inside all three."""
        calm = both(state.ammonia <= self.ammonia, state.nitrite <= self.nitrite)
        return both(calm, free_ammonia(state, around) <= self.unionised)


def first_h(hours: Array, levels: Array, *, below: float | None = None, above: float | None = None) -> float | None:
    """The hour at which a level first passes a limit, on straight lines between; None where it never does.

    A level that begins beyond its limit has passed it at the first hour.
    """
    signs = [(levels - above) if above is not None else None, (below - levels) if below is not None else None]
    found = [passed(hours, over) for over in signs if over is not None]
    return min((hour for hour in found if hour is not None), default=None)


def passed(hours: Array, over: Array) -> float | None:
    """The hour at which a number first gets over nothing."""
    places = np.flatnonzero(over > 0)
    if places.size == 0:
        return None
    place = int(places[0])
    if place == 0:
        return float(hours[0])
    before, after = over[place - 1], over[place]
    return float(hours[place - 1] + (hours[place] - hours[place - 1]) * -before / (after - before))


class Until(Undisturbed[float]):
    """A water that is left to itself until a quantity falls under a limit."""

    def __init__(self, name: str, below: float) -> None:
        self.name, self.below = name, below

    def over(self, hour: float, state: State[float], around: Surroundings[float]) -> Truth:
        return self.passed(state)

    def passed(self, state: State[float]) -> bool:
        return bool(getattr(state, self.name) < self.below)

    turned = passed


POINTS = 33
"""Of a step, between which a level is taken as straight."""


def first_of(
    steps: Sequence[Step[float]], name: str, *, below: float | None = None, above: float | None = None
) -> float | None:
    """The hour of a run of one tank at which a quantity first passes a limit; None where it never does."""
    for step in steps:
        if not step.reaches(name, below, above):
            continue
        hours = np.linspace(step.start_h, step.end_h, POINTS)
        found = first_h(hours, step.at(hours, (name,))[:, 0], below=below, above=above)
        if found is not None:
            return found
    return None


@dataclass(frozen=True, slots=True)
class Bound:
    """A level that harms who is beyond it for so many hours, and one that harms at once; on one side."""

    quantity: str
    below: float | None = None
    above: float | None = None
    for_h: float = 0.0
    at_once: float | None = None

    def over(self, levels: Array, limit: float) -> Array:
        """How far levels lie beyond a limit on this bound's side; negative inside it."""
        return limit - levels if self.below is not None else levels - limit

    @property
    def limit(self) -> float:
        limit = self.below if self.below is not None else self.above
        assert limit is not None
        return limit

    def passed(self, hours: Array, levels: Array) -> "Passed":
        over = self.over(levels, self.limit)
        found = [stayed(hours, over, self.for_h)]
        if self.at_once is not None:
            found.append(passed(hours, self.over(levels, self.at_once)))
        harm = min((hour for hour in found if hour is not None), default=None)
        return Passed(self.quantity, passed(hours, over), harm)


@dataclass(frozen=True, slots=True)
class Swing:
    """A level that harms where it moves by more than so much within some hours."""

    quantity: str
    most: float
    within_h: float

    def passed(self, hours: Array, levels: Array) -> "Passed":
        """The first hour at which the lowest and the highest of the hours before lie too far apart."""
        begins = np.searchsorted(hours, hours - self.within_h)
        spread = np.array([np.ptp(levels[first : last + 1]) for last, first in enumerate(begins)])
        hour = passed(hours, spread - self.most)
        return Passed(self.quantity, hour, hour)


@dataclass(frozen=True, slots=True)
class Passed:
    """When a limit is first passed, and when harm is likely; None where it is not."""

    quantity: str
    limit_h: float | None
    harm_h: float | None


def stayed(hours: Array, over: Array, for_h: float) -> float | None:
    """The hour at which something has been over nothing for so long without a break."""
    since = None
    for place, hour in enumerate(hours):
        if over[place] <= 0:
            since = None
            continue
        if since is None:
            before = over[place - 1] if place else 0.0
            part = -before / (over[place] - before) if place and before <= 0 else 1.0
            since = float(hours[place - 1] + (hour - hours[place - 1]) * part) if place else float(hour)
        if hour - since >= for_h:
            return since + for_h
    return None
