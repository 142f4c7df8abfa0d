"""Broods and how their young grow and are lost, in plain numbers."""

import math
from collections.abc import Sequence

from loquen.core.errors import NamedCase
from loquen.core.physics.ranges import within

DAYS_A_YEAR = 365.25
Stages = Sequence[tuple[float, float]]
"""Stages of a life in order: days, and the share that lives through them."""


def fry_per_day(females: float, brood_size: float, interval_d: float, fertile_frac: float = 1.0) -> float:
    """Young a day that a group of females brings.

    Equation: females·brood·fertile/interval
    Parameters:
        females: 1, scalar, 0 to 1e5. That spawn or drop young.
        brood_size: 1, scalar, 0 to 1e6. Young of one brood.
        interval_d: d, scalar, 0.1 to 3660. From one brood of a female to her next.
        fertile_frac: share, scalar, 0 to 1. Of broods, or eggs, that come to something.
    Returns: 1/d, scalar.
    Raises: OutOfRange.
    Source: balance

    >>> round(fry_per_day(females=4, brood_size=25, interval_d=45, fertile_frac=0.8), 3)
    1.778
    """
    within("females", females, 0, 1e5, "1")
    within("brood_size", brood_size, 0, 1e6, "1")
    within("interval_d", interval_d, 0.1, 3660, "d")
    within("fertile_frac", fertile_frac, 0, 1, "share")
    return females * brood_size * fertile_frac / interval_d


def age_at_length_d(
    length_cm: float, adult_length_cm: float, growth_per_year: float, start_length_cm: float = 1.0
) -> float:
    """Age at which a growing animal has a length: von Bertalanffy the other way round.

    Equation: 365.25/K·ln((L∞ − L0)/(L∞ − L))
    Parameters:
        length_cm: cm, scalar, 0 to 300. Length asked for; at or under the start length it is age 0.
        adult_length_cm: cm, scalar, 0.5 to 300. Length it grows towards.
        growth_per_year: 1/year, scalar, 0.01 to 10. Growth constant K.
        start_length_cm: cm, scalar, 0 to adult length. Length at age 0.
    Returns: d, scalar.
    Raises: OutOfRange; NamedCase "never_so_long" for the adult length and beyond, which it never quite reaches.
    Source: bertalanffy1938

    >>> round(age_at_length_d(length_cm=7, adult_length_cm=11, growth_per_year=1.3, start_length_cm=1), 1)
    257.4
    """
    within("length_cm", length_cm, 0, 300, "cm")
    within("adult_length_cm", adult_length_cm, 0.5, 300, "cm")
    within("growth_per_year", growth_per_year, 0.01, 10, "1/year")
    within("start_length_cm", start_length_cm, 0, adult_length_cm, "cm")
    if length_cm >= adult_length_cm:
        raise NamedCase("never_so_long", length_cm=length_cm, adult_cm=adult_length_cm)
    if length_cm <= start_length_cm:
        return 0.0
    grown = math.log((adult_length_cm - start_length_cm) / (adult_length_cm - length_cm))
    return DAYS_A_YEAR / growth_per_year * grown


def survivors_frac(age_d: float, stages: Stages) -> float:
    """Part of those born that is alive at an age, losses even within each stage and none after the last.

    Equation: Π s_i over stages that are over × s_j^(days in it/its days)
    Parameters:
        age_d: d, scalar, 0 to 73000.
        stages: (days over 0, share 0 to 1) each, in order.
    Returns: share, scalar.
    Raises: OutOfRange.
    Source: balance

    >>> round(survivors_frac(age_d=60, stages=[(30, 0.85), (150, 0.9)]), 4)
    0.8323
    """
    within("age_d", age_d, 0, 73_000, "d")
    left, alive = age_d, 1.0
    for days, share in stages:
        within("survival", share, 0, 1, "share")
        within("stage", days, 1e-9, 73_000, "d")
        part = min(1.0, max(0.0, left / days))
        alive *= share**part
        left -= days
    return alive


def mean_present(rate_d: float, days: float, survival_frac: float) -> float:
    """Animals present on the mean where so many come a day, stay so long, and some are lost meanwhile.

    Equation: rate·W·(1 − s)/(−ln s): Little's law with deaths at an even hazard
    Parameters:
        rate_d: 1/d, scalar, 0 to 1e6. That come.
        days: d, scalar, 0 to 73000. That those stay which live.
        survival_frac: share, scalar, 0 to 1. That live through all of it.
    Returns: 1, scalar.
    Raises: OutOfRange.
    Source: little1961

    >>> round(mean_present(rate_d=2, days=90, survival_frac=0.7), 1)
    151.4
    """
    within("rate_d", rate_d, 0, 1e6, "1/d")
    within("days", days, 0, 73_000, "d")
    within("survival_frac", survival_frac, 0, 1, "share")
    if survival_frac == 1:
        return rate_d * days
    if survival_frac == 0:
        return 0.0
    return rate_d * days * (1 - survival_frac) / -math.log(survival_frac)
