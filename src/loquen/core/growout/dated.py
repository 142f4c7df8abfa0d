"""A venture day by day: broods as they come, young as they grow and go, tanks as they fill, cash as it turns."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from loquen.core.growout.broods import Stages, survivors_frac
from loquen.core.growout.young import FEED_POWER, Floats, Growth, MassOf, survivors

YEARS = 5
DAYS = round(YEARS * 365.25)
WEEK = 7
TOLD_FROM_D = 365 * 2
"""A run has become steady by then: what is told of its mean is of the days after."""


@dataclass(frozen=True, slots=True)
class Way:
    """Where a part of the young goes: at an age those that sell, the others after some days more."""

    leaves_d: float
    kept_d: float
    part: float
    unsold_part: float
    earns_money: float
    unsold_money: float

    @property
    def label(self) -> str:
        return f"{self.part:.2f} of them at {self.leaves_d:.0f} d"


@dataclass(frozen=True, slots=True)
class Brood:
    """Young that come on a day from the start."""

    day: float
    young: float


@dataclass(frozen=True, slots=True)
class Spends:
    """Money that goes: at the start; a day whatever happens, and its hours; a day for each tank of the young in use, and its
    hours; for a gram of food; for one that is sold, in hours."""

    at_first: float
    a_day: float
    a_day_worked: float
    a_tank_day: float
    a_tank_day_worked: float
    a_gram: float
    a_sale_worked: float
    feed_of_colony_g_d: float
    one_gram_g_d: float


@dataclass(frozen=True, slots=True)
class Span:
    """A tank in use from a day to another."""

    tank: str
    from_d: float
    to_d: float


@dataclass(frozen=True, slots=True)
class Run:
    """Day by day from the start: young, grams that are growing on, tanks in use, money in hand without and with hours paid."""

    young: Floats
    growing_g: Floats
    raising: Floats
    growing: Floats
    tanks: Floats
    cash: Floats
    cash_worked: Floats
    sold: Floats
    broods: tuple[Brood, ...]
    apart_d: float
    held_before_d: float

    @property
    def label(self) -> str:
        return f"{len(self.young)} days, at most {self.peak_tanks} tanks"

    @property
    def peak_tanks(self) -> int:
        return int(self.tanks.max())

    @property
    def mean_young(self) -> float:
        """Once it has become steady."""
        return float(self.young[TOLD_FROM_D:].mean())

    @property
    def spans(self) -> tuple[Span, ...]:
        """Every tank in use, from when to when; the colony's are not told."""
        raising = raising_spans(self.broods, self.apart_d, self.held_before_d, len(self.young))
        return (*raising, *growing_spans(self.growing))

    @property
    def lowest_cash(self) -> float:
        return float(self.cash.min())


def broods_from(first_d: float, broods_a_day: float, young: float, days: int = DAYS) -> tuple[Brood, ...]:
    """Broods at an even distance from a first day to the end."""
    if broods_a_day <= 0 or young <= 0:
        return ()
    count = max(0, math.floor((days - first_d) * broods_a_day + 1e-9) + 1)
    return tuple(Brood(first_d + k / broods_a_day, young) for k in range(count))


def by_day(broods: Sequence[Brood], days: int) -> Floats:
    """Young born on each day, those between two days shared."""
    found = np.zeros(days + 1)
    for brood in broods:
        day = math.floor(brood.day)
        part = brood.day - day
        for place, share in ((day, 1 - part), (day + 1, part)):
            if 0 <= place <= days:
                found[place] += brood.young * share
    return found[:days]


def later(births: Floats, age_d: float) -> Floats:
    """What was born, so many days later."""
    days = len(births)
    day = math.floor(age_d)
    part = age_d - day
    found = np.zeros(days)
    for place, share in ((day, 1 - part), (day + 1, part)):
        if place < days:
            found[place:] += share * births[: days - place]
    return found


def along(births: Floats, kernel: Floats) -> Floats:
    """What all that were born come to, by what one comes to at each age."""
    if not len(kernel):
        return np.zeros(len(births))
    found: Floats = np.convolve(births, kernel)[: len(births)]
    return found


def run(
    broods: tuple[Brood, ...],
    ways: tuple[Way, ...],
    stages: Stages,
    growth: Growth,
    mass_of: MassOf,
    moved_d: float,
    apart_d: float,
    held_before_d: float,
    tank_g: float,
    colony_tanks: int,
    spends: Spends,
    days: int = DAYS,
) -> Run:
    """A venture over so many days; `tank_g` is what a grow-out tank holds of growing young."""
    births = by_day(broods, days)
    longest = max((way.leaves_d + way.kept_d for way in ways), default=0.0)
    ages: Floats = np.arange(min(days, math.ceil(longest)), dtype=np.float64) + 0.5
    there = np.zeros(len(ages))
    for way in ways:
        there += way.part * within(ages, 0, way.leaves_d)
        there += way.part * way.unsold_part * within(ages, way.leaves_d, way.leaves_d + way.kept_d)
    there = there * survivors(ages, stages)
    mass = mass_of(growth.length_cm(ages)) if len(ages) else ages
    young = along(births, there)
    growing_g = along(births, there * mass * (1 - within(ages, 0, moved_d)))
    feed = along(births, there * mass**FEED_POWER) * spends.one_gram_g_d + spends.feed_of_colony_g_d
    middles = np.arange(days) + 0.5
    raising = np.zeros(days)
    for brood in broods if apart_d > 0 else ():
        raising += (middles >= brood.day - held_before_d) & (middles < brood.day - held_before_d + apart_d)
    growing = np.ceil(growing_g / tank_g - 1e-9) if tank_g > 0 else np.zeros(days)
    tanks = colony_tanks + raising + growing
    sold, earned = np.zeros(days), np.zeros(days)
    for way in ways:
        lived = survivors_frac(way.leaves_d, stages) * way.part
        gone = later(births, way.leaves_d) * lived * (1 - way.unsold_part)
        left = later(births, way.leaves_d + way.kept_d) * lived * way.unsold_part
        sold += gone
        earned += gone * way.earns_money + left * way.unsold_money
    young_tanks = raising + growing
    spent = spends.a_day + spends.a_tank_day * young_tanks + spends.a_gram * feed
    worked = spends.a_day_worked + spends.a_tank_day_worked * young_tanks + spends.a_sale_worked * sold
    return Run(
        young=young,
        growing_g=growing_g,
        raising=raising,
        growing=growing,
        tanks=tanks,
        cash=np.cumsum(earned - spent) - spends.at_first,
        cash_worked=np.cumsum(earned - spent - worked) - spends.at_first,
        sold=sold,
        broods=broods,
        apart_d=apart_d,
        held_before_d=held_before_d,
    )


def within(ages: Floats, from_d: float, until_d: float) -> Floats:
    """How much of the day around each age lies between two ages."""
    found: Floats = np.clip(np.minimum(ages + 0.5, until_d) - np.maximum(ages - 0.5, from_d), 0, 1)
    return found


def raising_spans(broods: Sequence[Brood], apart_d: float, held_before_d: float, days: int) -> list[Span]:
    """Which brood has which raising tank: each the first that is free."""
    if apart_d <= 0:
        return []
    free: list[float] = []
    found = []
    for brood in broods:
        begins = brood.day - held_before_d
        if begins >= days:
            break
        place = next((i for i, until in enumerate(free) if until <= begins + 1e-9), len(free))
        free[place : place + 1] = [begins + apart_d]
        found.append(Span(f"Raising {place + 1}", begins, begins + apart_d))
    return found


def growing_spans(growing: Floats) -> list[Span]:
    """When each grow-out tank is in use: the first one first."""
    found = []
    for place in range(int(growing.max(initial=0))):
        used = np.concatenate([[False], growing > place, [False]])
        edges = np.flatnonzero(used[1:] != used[:-1])
        found += [
            Span(f"Grow-out {place + 1}", float(begins), float(ends))
            for begins, ends in zip(edges[::2], edges[1::2], strict=True)
        ]
    return found
