"""Nitrate followed through its readings: what is made may drift, a bucket may go unwritten, the last readings weigh most."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.special import logsumexp

from loquen.core.fit.likelihood import ANYTHING, LEAST, alternatives, within
from loquen.core.fit.nitrate import Step, spreads
from loquen.core.fit.weights import carried, evenly, shares
from loquen.core.graph.giving_up import heed
from loquen.core.physics.elementwise import Array

TANKS = 6000
"""Possible tanks that are followed at once."""
SHOWN = 400
"""Of them, by their weight, that are kept with their whole past."""
AS_RECKONED = 0.45
"""Chance that feeding is about as reckoned; else anything that nature does to it."""
UNHEARD_OF = 0.1
"""Chance that what is made has nothing to do with what is reckoned: a plan without its animals, or with others."""
OF_RECKONED = (-0.5, 2.0)
"""Times what is reckoned: from plants that take the change water's own, to twice the food."""
ANY_MG_L_D = (0.01, 40.0)
DRIFT_FRAC, STIRS_OF_RECKONED = 0.06, 0.02
"""By how much what is made wanders in a week: of itself, and of what is reckoned."""
SOURCE_DRIFT_FRAC = 0.03
UNWRITTEN = 0.02
"""Chance between two readings that something was done which nobody wrote down."""
UNWRITTEN_LEAVES = (0.2, 2.0)
"""What it leaves of the level, or makes of it."""
STIRRED = 0.5
"""Chance that what is made is another from a day on at which something was put in, taken out, or tried."""
STIRRED_TO = (-0.2, 1.5)
"""Times what was made before."""
STRANGE = 0.5
"""Chance of a mistake from which a reading is asked about."""
WEEK_D = 7.0


@dataclass(frozen=True, slots=True)
class Followed:
    """Possible tanks after all that was read, each as likely as the others; nitrate as the ion.

    `made`, `source` and `level` are today's; `levels` those at the log's steps (steps × tanks), on their `days`.
    `strange` has the days of readings that most of them take for a mistake, or for something that nobody wrote down.
    """

    made: Array
    source: Array
    level: Array
    days: Array
    levels: Array
    strange: tuple[float, ...]
    log_evidence: float


def followed(
    prior: Mapping[str, Any],
    steps: Sequence[Step],
    now_d: float,
    turns: Sequence[float] = (),
    seed: int = 0,
    drip_per_d: float = 0.0,
) -> Followed:
    """What a log of readings and changes leaves possible today.

    Equation: dN/dt = made + drip·(source − N), N → N + share·(source − N) at a change; made wanders by DRIFT_FRAC of itself a √week; weighed
        by censored log-normal readings, drawn anew by weight
    Parameters:
        prior: as of `fit`; made_range_x is how far what is reckoned may err where the tank is fed as planned.
        steps: Steps in their order, the first of them a reading.
        now_d: d, scalar, not before the last step. Today, on the clock of the steps.
        turns: d, any number. Days at which something was put in, taken out or tried.
        seed: count, scalar. Of the draws.
        drip_per_d: 1/d, scalar, not below 0. The share of the water that a drip exchanges all the time.
    Returns: Followed, of SHOWN tanks.
    Raises: nothing.
    Source: gordon1993
    """
    chance = np.random.default_rng(seed + 11)
    reckoned = float(prior["made_from_feed_mg_l_d"])
    made, source, level = started(prior, steps[0], chance)
    log_weight, log_evidence = np.zeros(TANKS), 0.0
    day = steps[0].day

    def on(until: float) -> None:
        """All of them until a day, and what is made stirred on the way where something was tried."""
        nonlocal day, made, source, level
        for turn in (*(turn for turn in sorted(turns) if day < turn <= until), until):
            made, source = wandered(made, source, reckoned, turn - day, chance)
            level = np.maximum(gone_on(level, made, source, drip_per_d, turn - day), 0.0)
            day = turn
            if turn in turns:
                other = made * chance.uniform(*STIRRED_TO, TANKS)
                made = np.where(chance.random(TANKS) < STIRRED, other, made)

    levels: list[Array] = []
    wrongs: list[Array] = []
    parents: list[NDArray[np.intp]] = []
    for step in steps:
        heed()
        on(step.day)
        if step.share:
            level = level + step.share * (source - level)
        wrong = np.zeros(TANKS)
        if step.read is not None:
            unsure = np.zeros(TANKS)
            if levels:
                unwritten = chance.random(TANKS) < UNWRITTEN
                low, high = (math.log(end) for end in UNWRITTEN_LEAVES)
                level = np.where(unwritten, level * np.exp(chance.uniform(low, high, TANKS)), level)
                unsure = unwritten.astype(float)
            sound = (1 - ANYTHING) * within(level, step.read, step.blur)
            anything = ANYTHING / alternatives(step.read)
            log_weight = log_weight + np.log(sound + anything)
            wrong = np.maximum(anything / (sound + anything), unsure)
        parent = np.arange(TANKS)
        if carried(shares(log_weight)) < TANKS / 2:
            parent = evenly(shares(log_weight), TANKS, chance)
            log_evidence += float(logsumexp(log_weight)) - math.log(TANKS)
            made, source, level, log_weight = made[parent], source[parent], level[parent], np.zeros(TANKS)
            wrong = wrong[parent]
        levels.append(level)
        wrongs.append(wrong)
        parents.append(parent)
    log_evidence += float(logsumexp(log_weight)) - math.log(TANKS)
    on(now_d)
    picked = evenly(shares(log_weight), SHOWN, chance)
    past, wrong_odds = back(picked, levels, wrongs, parents)
    return Followed(
        made[picked],
        source[picked],
        level[picked],
        np.array([step.day for step in steps]),
        past,
        tuple(step.day for step, odds in zip(steps, wrong_odds, strict=True) if odds > STRANGE),
        log_evidence,
    )


def gone_on(level: Array, made: Array, source: Array, drip_per_d: float, days: float) -> Array:
    """The level so many days on: it rises by what is made, towards where a drip carries off as much."""
    if drip_per_d <= 0:
        return level + made * days
    return level + (source + made / drip_per_d - level) * -math.expm1(-drip_per_d * days)


def back(
    picked: NDArray[np.intp], levels: Sequence[Array], wrongs: Sequence[Array], parents: Sequence[NDArray[np.intp]]
) -> tuple[Array, tuple[float, ...]]:
    """The past of some tanks: their level at each step, and the chance that what was read there is a mistake."""
    past, odds, at = [], [], picked
    for level, wrong, parent in zip(reversed(levels), reversed(wrongs), reversed(parents), strict=True):
        past.append(level[at])
        odds.append(float(wrong[at].mean()))
        at = parent[at]
    return np.array(past[::-1]), tuple(odds[::-1])


def started(prior: Mapping[str, Any], first: Step, chance: np.random.Generator) -> tuple[Array, Array, Array]:
    """Made, source and level at the first reading, before it is weighed."""
    reckoned = float(prior["made_from_feed_mg_l_d"])
    (middle, wide), (source, source_wide) = spreads(prior)
    way = chance.random(TANKS)
    as_fed = np.exp(middle + wide * chance.standard_normal(TANKS))
    as_found = reckoned * chance.uniform(*OF_RECKONED, TANKS)
    least, most = (math.log(end) for end in ANY_MG_L_D)
    anything = np.exp(chance.uniform(least, most, TANKS))
    made = np.where(way < AS_RECKONED, as_fed, np.where(way < 1 - UNHEARD_OF, as_found, anything))
    read = first.read
    assert read is not None
    high = read.high if math.isfinite(read.high) else 3 * max(read.low, LEAST)
    low, high = read.low * math.exp(-2.5 * first.blur), high * math.exp(2.5 * first.blur)
    level = chance.uniform(low, max(high, low + LEAST), TANKS)
    return made, np.exp(source + source_wide * chance.standard_normal(TANKS)), level


def wandered(
    made: Array, source: Array, reckoned: float, days: float, chance: np.random.Generator
) -> tuple[Array, Array]:
    """What is made, and what the source brings, so many days on."""
    if days <= 0:
        return made, source
    weeks = math.sqrt(days / WEEK_D)
    stir = np.hypot(DRIFT_FRAC * made, STIRS_OF_RECKONED * reckoned)
    return (
        made + weeks * stir * chance.standard_normal(made.size),
        source * np.exp(weeks * SOURCE_DRIFT_FRAC * chance.standard_normal(made.size)),
    )
