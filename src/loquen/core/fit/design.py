"""What an experiment could show before it is made: the chance that so many weekly readings tell an effect from none."""

import math

import numpy as np
from scipy.special import ndtr

from loquen.core.fit.nitrate import OF_A_RANGE
from loquen.core.physics.elementwise import Array

WEEK_D = 7.0
SURE_SD = 1.645
"""Standard deviations off nothing, at which an effect is called real."""
WIDEST_EFFECT = 0.9
"""Standard deviation of an effect of which nothing is known, in parts of what is made."""


def telling_odds(
    *,
    effect_frac: float,
    weeks_before: int,
    weeks_with: int,
    weeks_without: int = 0,
    made_mg_l_d: float,
    made_range_x: float,
    source_mg_l: float,
    source_range_x: float,
    weekly_share: float,
    reading_sd: float,
) -> float:
    """The chance that a sink is called real after weekly readings before it, with it, and after its end.

    Equation: levels are linear in made, source, first level and effect; covariance = (JᵀJ/σ² + prior⁻¹)⁻¹ on the log scale;
        chance = Φ(effect/sd − 1.645)
    Parameters:
        effect_frac: share, scalar, 0 to 1. What the sink takes, of what is made.
        weeks_before, weeks_with, weeks_without: weeks, scalars, 0 to 60. With a reading and a change in each.
        made_mg_l_d, source_mg_l: mg/L a day, mg/L, scalars, over 0; in one unit.
        made_range_x, source_range_x: 1, scalars. 90 % times or divided by of what is believed of them.
        weekly_share: share, scalar, 0 to 1. Changed each week.
        reading_sd: 1, scalar, over 0. Of a reading on the log scale, its chart's steps included.
    Returns: share, scalar.
    Raises: nothing.
    Source: fisher1925

    >>> usual = dict(made_mg_l_d=1.5, made_range_x=1.6, source_mg_l=10, source_range_x=1.3, weekly_share=0.3, reading_sd=0.3)
    >>> round(telling_odds(effect_frac=0.0, weeks_before=8, weeks_with=8, **usual), 2)
    0.05
    """
    if weeks_with < 1:
        return 0.0
    sd = deviations(
        (weeks_before, weeks_with, weeks_without),
        effect_frac,
        (made_mg_l_d, made_range_x),
        (source_mg_l, source_range_x),
        weekly_share,
        reading_sd,
    )
    return float(ndtr(effect_frac * made_mg_l_d / sd[EFFECT] - SURE_SD))


def telling_odds_beside(
    *,
    effect_frac: float,
    weeks: int,
    made_mg_l_d: float,
    made_range_x: float,
    source_mg_l: float,
    source_range_x: float,
    weekly_share: float,
    reading_sd: float,
) -> float:
    """The chance that a sink is told by a second tank without it, fed alike: both read each week, neither before.

    Equation: what stays is known to sd(made) in each, their difference to √(sd₁² + sd₂²); chance = Φ(effect/sd − 1.645)
    Parameters:
        weeks: weeks, scalar, 0 to 60. With a reading and a change in each, in both tanks.
        others: as of `telling_odds`.
    Returns: share, scalar.
    Raises: nothing.
    Source: fisher1925

    >>> usual = dict(made_mg_l_d=1.5, made_range_x=5, source_mg_l=10, source_range_x=1.3, weekly_share=0.3, reading_sd=0.3)
    >>> round(telling_odds_beside(effect_frac=0.0, weeks=8, **usual), 2)
    0.05
    """
    if weeks < 1:
        return 0.0
    source = (source_mg_l, source_range_x)
    with_it, without = (
        deviations((weeks, 0, 0), 0.0, (made, made_range_x), source, weekly_share, reading_sd)[MADE]
        for made in (made_mg_l_d * (1 - effect_frac), made_mg_l_d)
    )
    return float(ndtr(effect_frac * made_mg_l_d / math.hypot(with_it, without) - SURE_SD))


MADE, EFFECT = 0, 3
"""Their places among what a log is fitted by: made, source, first level, effect."""


def deviations(
    weeks: tuple[int, int, int],
    effect_frac: float,
    made: tuple[float, float],
    source: tuple[float, float],
    weekly_share: float,
    reading_sd: float,
) -> Array:
    """Standard deviations of made, source, first level and effect after so many weeks before, with and without; what is
    believed of made and source beforehand with its 90 % range, times or divided by."""
    (made_mg_l_d, made_range_x), (source_mg_l, source_range_x) = made, source
    jacobian, levels = paths(effect_frac, weeks, made_mg_l_d, source_mg_l, weekly_share)
    slopes = jacobian / levels[:, None] / reading_sd
    known = [
        OF_A_RANGE / math.log(made_range_x) / made_mg_l_d,
        OF_A_RANGE / math.log(source_range_x) / max(source_mg_l, 0.05),
        0.0,
        1 / WIDEST_EFFECT / made_mg_l_d,
    ]
    return np.asarray(np.sqrt(np.diag(np.linalg.inv(slopes.T @ slopes + np.diag(np.square(known))))))


def paths(
    effect_frac: float, weeks: tuple[int, int, int], made: float, source: float, share: float
) -> tuple[Array, Array]:
    """Each reading's level, and how it moves with made, source, first level and effect."""
    before, with_it, _ = weeks
    level, slope = source + made * WEEK_D / share, np.array([0.0, 0.0, 1.0, 0.0])
    levels, slopes = [], []
    for week in range(sum(weeks) + 1):
        levels.append(level)
        slopes.append(slope)
        works = before <= week < before + with_it
        level = level + share * (source - level) + WEEK_D * made * (1 - effect_frac * works)
        slope = (1 - share) * slope + np.array([WEEK_D, share, 0.0, -WEEK_D * works])
    return np.array(slopes), np.array(levels)
