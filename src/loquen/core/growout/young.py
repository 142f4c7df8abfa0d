"""The young of a steady run of broods, age by age: how many, how heavy, what they eat."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from loquen.core.growout.broods import Stages
from loquen.core.physics.animals import length_at_age_cm

Floats = NDArray[np.float64]
MassOf = Callable[[Floats], Floats]
"""Grams by cm."""
FEED_POWER = 0.75
"""Food goes with mass to this power."""


@dataclass(frozen=True, slots=True)
class Growth:
    """How a kind grows from birth: its length by age towards that of an adult."""

    adult_length_cm: float
    growth_per_year: float
    start_length_cm: float

    def length_cm(self, age_d: Floats) -> Floats:
        found: Floats = np.asarray(
            length_at_age_cm(age_d, self.adult_length_cm, self.growth_per_year, self.start_length_cm)
        )
        return found


@dataclass(frozen=True, slots=True)
class Held:
    """What is held for each young that comes a day: animals, grams, and grams to the power that food goes with."""

    present: float
    mass_g: float
    eaten_g: float

    def times(self, part: float) -> "Held":
        return Held(self.present * part, self.mass_g * part, self.eaten_g * part)

    def plus(self, other: "Held") -> "Held":
        return Held(self.present + other.present, self.mass_g + other.mass_g, self.eaten_g + other.eaten_g)


NOBODY = Held(0.0, 0.0, 0.0)


def days_between(from_d: float, until_d: float) -> tuple[Floats, Floats]:
    """The middle of each day between two ages, and how much of a day it is: whole ones, and a part at the end."""
    if until_d <= from_d:
        return np.zeros(0), np.zeros(0)
    count = math.ceil(until_d - from_d - 1e-9)
    begins = from_d + np.arange(count)
    ends = np.minimum(begins + 1, until_d)
    return (begins + ends) / 2, ends - begins


def survivors(ages_d: Floats, stages: Stages) -> Floats:
    """Part of those born that is alive at each age, as `survivors_frac`."""
    alive, left = np.ones_like(ages_d), ages_d
    for days, share in stages:
        alive = alive * share ** np.clip(left / days, 0, 1)
        left = left - days
    return alive


def held(from_d: float, until_d: float, stages: Stages, growth: Growth, mass_of: MassOf) -> Held:
    """What is held between two ages for each young that comes a day; age by age, day by day.

    Equation: Σ over days of survivors × (1, mass, mass^0.75)
    """
    ages, widths = days_between(from_d, until_d)
    if not len(ages):
        return NOBODY
    there = survivors(ages, stages) * widths
    mass = mass_of(growth.length_cm(ages))
    return Held(float(there.sum()), float(there @ mass), float(there @ mass**FEED_POWER))


@lru_cache(4096)
def held_of(
    from_d: float, until_d: float, stages: tuple[tuple[float, float], ...], growth: Growth, mass_of: MassOf
) -> Held:
    """`held`, kept: a page asks for the same ages at every key."""
    return held(from_d, until_d, stages, growth, mass_of)
