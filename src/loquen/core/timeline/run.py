"""A run through time: the water goes its way from hour to hour, and at some hours somebody or something takes a hand."""

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import groupby
from typing import Generic, Protocol

import numpy as np

from loquen.core.graph.giving_up import heed
from loquen.core.physics.elementwise import Array, Q, Truth, any_of
from loquen.core.timeline.state import NAMES, State
from loquen.core.timeline.stepper import Step, Stepper, at
from loquen.core.timeline.surroundings import Surroundings
from loquen.core.timeline.tanks import PutAway, Tanks

HOURS = 24


class Turns(Protocol[Q]):
    """What is done to a water at its hours, by somebody or something."""

    @property
    def turned(self) -> Callable[[State[Q]], bool] | None:
        """Whether a water has come to where something turns by itself, and so is looked at before the next hour."""
        ...

    def next_h(self, hour: float) -> float:
        """The next hour at which anything is."""
        ...

    def happened(self, hour: float, state: State[Q], around: Surroundings[Q]) -> tuple[State[Q], Surroundings[Q]]:
        """The water, and what is around it, after what nobody decides."""
        ...

    def over(self, hour: float, state: State[Q], around: Surroundings[Q]) -> Truth:
        """Whether the run is over, by what is read."""
        ...

    def tended(self, hour: float, state: State[Q], around: Surroundings[Q]) -> State[Q]:
        """The water after what is done about it."""
        ...

    def left(self, ended: Truth, tanks: Tanks[Q]) -> None:
        """Those whose run is over leave; the others go on."""
        ...


class Undisturbed(Generic[Q]):
    """A water that nobody and nothing takes a hand in."""

    turned: Callable[[State[Q]], bool] | None = None

    def next_h(self, hour: float) -> float:
        return math.inf

    def happened(self, hour: float, state: State[Q], around: Surroundings[Q]) -> tuple[State[Q], Surroundings[Q]]:
        return state, around

    def over(self, hour: float, state: State[Q], around: Surroundings[Q]) -> Truth:
        return False

    def tended(self, hour: float, state: State[Q], around: Surroundings[Q]) -> State[Q]:
        return state

    def left(self, ended: Truth, tanks: Tanks[Q]) -> None:
        """Nothing is kept of those that leave."""


@dataclass(frozen=True, slots=True)
class Record(Generic[Q]):
    """Levels at every hour from 0 on, by name: hours (× members); and the water at the end."""

    hours: Mapping[str, Array]
    end: State[Q]
    steps: Sequence[Step[Q]]
    """Of a single tank."""


class Hourly(Mapping[str, Array]):
    """Levels of a single tank at its whole hours, drawn from its steps when they are first asked for."""

    def __init__(self, start: State[float], steps: Sequence[Step[float]], names: Sequence[str]) -> None:
        self.start, self.steps, self.names = start, steps, tuple(names)

    def __len__(self) -> int:
        return len(self.names)

    def __iter__(self) -> Iterator[str]:
        return iter(self.names)

    def __getitem__(self, name: str) -> Array:
        found: Array = self.levels[:, self.names.index(name)]
        return found

    @cached_property
    def levels(self) -> Array:
        last = whole_hours(self.steps[-1].end_h) if self.steps else 0
        found = np.empty((last + 1, len(self.names)))
        found[0] = [getattr(self.start, name) for name in self.names]
        begun = 1
        for _, alike in groupby(self.steps, key=lambda step: id(step.moving)):
            steps = tuple(alike)
            end = whole_hours(steps[-1].end_h)
            if end >= begun:
                found[begun : end + 1] = at(steps, np.arange(begun, end + 1.0), self.names)
                begun = end + 1
        return found


def whole_hours(hours: float) -> int:
    """The whole hours that have passed."""
    return math.floor(hours + 1e-9)


class Diary(Generic[Q]):
    """The levels of a run at its hours."""

    def __init__(self, start: State[Q], hours: int, keeps: Sequence[str], members: int | None) -> None:
        self.keeps, self.members = keeps, members
        self.start: State[Q] = start
        self.last = 0
        self.steps: list[Step[Q]] = []
        if members is not None:
            self.levels = np.full((hours + 1, len(keeps), members), np.nan)
            self.going = np.arange(members)
            for place, name in enumerate(keeps):
                self.levels[0, place] = getattr(start, name)

    def kept(self, step: Step[Q]) -> None:
        """The hours that lie in a step; the last of its ends included, its start not."""
        if self.members is None:
            self.steps.append(step)
            return
        end = whole_hours(step.end_h)
        if end <= self.last:
            return
        found = step.at(np.arange(self.last + 1, end + 1, dtype=float), self.keeps)
        if self.going.size == self.members:
            self.levels[self.last + 1 : end + 1] = found
        else:
            self.levels[self.last + 1 : end + 1, :, self.going] = found
        self.last = end

    def left(self, ended: Truth) -> None:
        """Members whose run is over stay as they ended."""
        if self.members is None:
            return
        gone = self.going[ended]
        self.levels[self.last + 1 :, :, gone] = self.levels[self.last][:, gone]
        self.going = self.going[~np.asarray(ended)]

    def record(self, end: State[Q]) -> Record[Q]:
        steps = tuple(self.steps)
        if self.members is None:
            return Record(Hourly(self.start, steps, self.keeps), end, steps)  # type: ignore[arg-type]
        return Record({name: self.levels[:, place] for place, name in enumerate(self.keeps)}, end, steps)


def run(
    state: State[Q],
    around: Surroundings[Q],
    turns: Turns[Q],
    hours: int,
    tanks: Tanks[Q],
    keeps: Sequence[str] = NAMES,
) -> Record[Q]:
    """A water from hour 0 to the last, or until its run is over."""
    stepper, diary, ends = (
        Stepper(tanks),
        Diary(state, hours, keeps, tanks.members),
        PutAway[State[Q]](tanks.members),
    )
    now = 0.0
    while True:
        heed()
        state, around = turns.happened(now, state, around)
        ended = turns.over(now, state, around)
        if now == hours:
            ended = tanks.all(True)
        if any_of(ended):
            ends.put(state, ended)
            turns.left(ended, tanks)
            diary.left(ended)
            if ends.complete:
                return diary.record(ends.whole)
            state, around, tanks = tanks.without(state, ended), tanks.without(around, ended), tanks.smaller(ended)
            stepper.tanks = tanks
        state = turns.tended(now, state, around)
        stop = float(min(turns.next_h(now), hours))
        for step in stepper.steps(now, stop, state, around, turns.turned):
            diary.kept(step)
            now, state = step.end_h, step.end
