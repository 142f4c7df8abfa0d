"""What readings say of a cycle: the members of an ensemble weighed by them, and drawn anew where few are left."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from scipy.special import logsumexp

from loquen.core.fit.likelihood import likelihood, within
from loquen.core.fit.weights import carried, evenly, shares
from loquen.core.model.records.readings import Interval
from loquen.core.physics.elementwise import Array
from loquen.core.timeline.nitrogen import Inputs, factors_of, members_of
from loquen.core.timeline.run import HOURS
from loquen.core.timeline.tending.keeper import Happening, Keeper, tend

MEMBERS = 200
LEARNERS = 600
"""Members that are weighed: three times as many take a quarter longer."""
FEWEST = 30
"""Members that have to carry the weight; with fewer they are drawn anew around those that do."""
ROUNDS = 2
WIDE = 0.5
"""Of the members' own spread: how far around one of them new ones are drawn."""
NO_TANK_IS_ITS_MODEL = 0.15
"""Standard deviation on the log scale by which a tank goes its own way beside the run that is nearest to it."""
MEETS = 0.25
"""Of the likelihood at its middle, under which a reading is missed."""
KNOWN = ("ammonia", "nitrite", "nitrate", "kh")
"""Levels of a run that readings are compared with."""


@dataclass(frozen=True, slots=True)
class Seen:
    """A reading of a cycle: at which hour, of what, where the level lay (mg/L N, dKH), and how the kit errs."""

    hour: int
    what: str
    read: Interval
    choices: int
    blur: float
    after_change: bool = False


@dataclass(frozen=True, slots=True)
class Learned:
    """Members that agree with what was read: their standard normal numbers, all of one weight."""

    z: Array
    told: bool
    """Whether anything was read that tells members apart."""
    odd: tuple[int, ...] = ()
    """Readings, by their place, that no member explains."""


def learned(
    asked: Inputs,
    keeper: Keeper[Any],
    happenings: Sequence[Happening],
    seen: Sequence[Seen],
    ranges: Mapping[str, tuple[str, float]],
    seed: int = 0,
) -> Learned:
    """Members of a cycle after what was read of it.

    Equation: w = likelihood × prior/proposal; drawn anew from a mixture of normals around the weighed members until
        FEWEST of them carry the weight
    Parameters:
        asked, keeper, happenings: the cycle as it was really run up to the last reading.
        seen: readings, each a Seen.
        ranges: kind and reach of every uncertain thing, by name.
        seed: count, scalar. Of the draws.
    Returns: Learned, z as things × MEMBERS.
    Raises: nothing.
    Source: cappe2004
    """
    chance = np.random.default_rng(seed + 17)
    z = np.random.default_rng(seed).standard_normal((len(ranges), LEARNERS))
    if not seen:
        return Learned(z[:, :MEMBERS], told=False)
    days = max(1, math.ceil(max(reading.hour for reading in seen) / HOURS))
    log_prior_over_proposal = np.zeros(LEARNERS)
    log_likelihood, odd = weighed(asked, keeper, happenings, seen, ranges, z, days)
    for _ in range(ROUNDS):
        log_weight = log_likelihood + log_prior_over_proposal
        if carries(log_weight, 1.0) >= FEWEST:
            break
        power = flattened(log_weight)
        weights = shares(power * log_weight)
        z, log_proposal = around(z, weights, chance)
        log_prior = -0.5 * (z**2).sum(axis=0) - 0.5 * len(z) * math.log(2 * math.pi)
        log_prior_over_proposal = log_prior - log_proposal
        log_likelihood, odd = weighed(asked, keeper, happenings, seen, ranges, z, days)
    log_weight = log_likelihood + log_prior_over_proposal
    # Never fewer than FEWEST different members: a forecast of one member has no range.
    weights = shares(max(flattened(log_weight), 0.0) * log_weight)
    return Learned(z[:, evenly(weights, MEMBERS, chance)], told=True, odd=odd)


def weighed(
    asked: Inputs,
    keeper: Keeper[Any],
    happenings: Sequence[Happening],
    seen: Sequence[Seen],
    ranges: Mapping[str, tuple[str, float]],
    z: Array,
    days: int,
) -> tuple[Array, tuple[int, ...]]:
    """Log-likelihood of members, and the readings that none of them explains."""
    state, around, drawn = members_of(asked, factors_of(z, ranges))
    patient = replace(keeper, full_dose=drawn.full_dose, ends=False)
    hours = tend(state, around, patient, days, happenings, z.shape[1]).hours
    total, odd = np.zeros(z.shape[1]), []
    for place, reading in enumerate(seen):
        levels = hours[reading.what]
        at = min(reading.hour + reading.after_change, len(levels) - 1)
        found = likelihood(
            levels[at], reading.read, reading.choices, math.hypot(reading.blur, NO_TANK_IS_ITS_MODEL)
        )
        if found.max() < 3 * 0.02 / reading.choices:
            odd.append(place)
        total += np.log(found)
    return total, tuple(odd)


def its_own_way(levels: Array, seed: int) -> Array:
    """Levels of members (hours × members) as their tanks would really have them, each off by its own factor."""
    off = np.random.default_rng(seed + 29).standard_normal(levels.shape[1])
    return np.asarray(levels * np.exp(NO_TANK_IS_ITS_MODEL * off))


def beside(hours: Mapping[str, Array], seen: Sequence[Seen]) -> tuple[int, ...]:
    """On which side of each reading the runs (hours × members) lie: −1 under it, 1 over it, 0 where they meet it."""
    return tuple(
        side_of(hours[one.what][min(one.hour + one.after_change, len(hours[one.what]) - 1)], one) for one in seen
    )


def side_of(levels: Array, one: Seen) -> int:
    blur = math.hypot(one.blur, NO_TANK_IS_ITS_MODEL)
    best = float(within(np.array([max(one.read.middle, 1e-3)]), one.read, blur)[0])
    if float(within(levels, one.read, blur).mean()) >= MEETS * best:
        return 0
    return -1 if float(np.median(levels)) < one.read.middle else 1


def carries(log_weight: Array, power: float) -> float:
    """How many members of one weight would know as much."""
    return carried(shares(power * log_weight))


def flattened(log_weight: Array) -> float:
    """The power, one at most, at which FEWEST members carry the weight."""
    if carries(log_weight, 1.0) >= FEWEST:
        return 1.0
    low, high = 0.0, 1.0
    for _ in range(25):
        middle = (low + high) / 2
        low, high = (middle, high) if carries(log_weight, middle) >= FEWEST else (low, middle)
    return low


def around(z: Array, weights: Array, chance: np.random.Generator) -> tuple[Array, Array]:
    """New members from normals around the weighed ones, and the logarithm of that mixture's density."""
    spread = WIDE * np.sqrt(
        np.maximum(np.average((z - (z * weights).sum(1, keepdims=True)) ** 2, axis=1, weights=weights), 0.02)
    )
    parents = chance.choice(z.shape[1], size=z.shape[1], p=weights)
    new = z[:, parents] + spread[:, None] * chance.standard_normal(z.shape)
    apart = (new[:, :, None] - z[:, None, :]) / spread[:, None, None]
    log_each = -0.5 * (apart**2).sum(axis=0) - np.log(spread).sum() - 0.5 * len(z) * math.log(2 * math.pi)
    return new, np.asarray(logsumexp(log_each + np.log(np.maximum(weights, 1e-300))[None, :], axis=1))
