"""Waters put together and taken apart: blends, reverse osmosis, top-up, gas."""

from collections.abc import Sequence

import numpy as np

from loquen.core.errors import NamedCase
from loquen.core.physics.gases import oxygen_saturation_mg_l
from loquen.core.physics.ranges import Number, within

OSMOTIC_KPA_PER_MG_L = 0.07
PER_DEGREE = 1.03


def blended(litres: Sequence[float], values: Sequence[float]) -> float:
    """What waters come to together: an ion, hardness, dissolved solids, salinity, temperature; never pH.

    Equation: c = Σ litres·c_i/Σ litres
    Parameters:
        litres: L, one per water, each 0 to 1e6. Poured together.
        values: any conserved quantity, one per water, each -100 to 1e6.
    Returns: as values, scalar.
    Raises: OutOfRange; NamedCase "nothing_poured" when all litres are 0.
    Source: balance

    >>> round(blended(litres=[30, 20], values=[20, 5]), 2)
    14.0
    """
    within("litres", np.asarray(litres), 0, 1e6, "L")
    within("values", np.asarray(values), -100, 1e6, "")
    total = sum(litres)
    if total <= 0:
        raise NamedCase("nothing_poured")
    return sum(volume * value for volume, value in zip(litres, values, strict=True)) / total


def share_for_target(first: float, second: float, target: float) -> float:
    """Share of a first water, the rest a second, that gives a target.

    Equation: s = (target − second)/(first − second)
    Parameters:
        first: any conserved quantity, scalar, -100 to 1e6. Of the first water.
        second: as first. Of the second.
        target: as first. Wanted.
    Returns: share, scalar.
    Raises: OutOfRange; NamedCase "no_share_reaches" when the target lies outside both.
    Source: balance

    >>> round(share_for_target(first=20, second=5, target=14), 4)
    0.6
    """
    for name, value in (("first", first), ("second", second), ("target", target)):
        within(name, value, -100, 1e6, "")
    low, high = min(first, second), max(first, second)
    if not low <= target <= high:
        raise NamedCase("no_share_reaches", target=target, low=low, high=high)
    return 1.0 if first == second else (target - second) / (first - second)


def permeate_mg_l(feed_mg_l: Number, rejection_frac: Number) -> Number:
    """What is left in reverse-osmosis water.

    Equation: c = feed·(1 − rejection)
    Parameters:
        feed_mg_l: mg/L, scalar or array, 0 to 100000. Before the membrane.
        rejection_frac: share, scalar or array, 0 to 1. 0.95 to 0.98 of solids, 0.80 to 0.93 of nitrate.
    Returns: mg/L, as broadcast.
    Raises: OutOfRange.
    Source: osmosis

    >>> round(permeate_mg_l(feed_mg_l=400, rejection_frac=0.98), 3)
    8.0
    """
    within("feed_mg_l", feed_mg_l, 0, 100_000, "mg/L")
    within("rejection_frac", rejection_frac, 0, 1, "share")
    return feed_mg_l * (1 - rejection_frac)


def permeate_lph(
    rated_lph: float,
    feed_kpa: float,
    tds_mg_l: float,
    temp_c: float,
    rated_kpa: float = 345.0,
    rated_tds_mg_l: float = 250.0,
    back_kpa: float = 0.0,
) -> float:
    """What a reverse-osmosis membrane makes on this water.

    Equation: Q = rated·(feed − back − π)/(rated pressure − π_rated)·1.03^(T − 25), π = 0.07 kPa per mg/L
    Parameters:
        rated_lph: L/h, scalar, 0 to 10000. At the rated pressure and 25 °C.
        feed_kpa: kPa, scalar, 0 to 2000. Before the membrane.
        tds_mg_l: mg/L, scalar, 0 to 20000. Dissolved solids of the feed.
        temp_c: °C, scalar, 0 to 45. Of the feed.
        rated_kpa: kPa, scalar, 100 to 2000. That the rating is for; 345 or 414.
        rated_tds_mg_l: mg/L, scalar, 0 to 5000. That the rating is for.
        back_kpa: kPa, scalar, 0 to 1000. Against the permeate.
    Returns: L/h, scalar.
    Raises: OutOfRange; NamedCase "no_permeate" when the pressure does not pass the water's own.
    Source: osmosis

    >>> round(permeate_lph(rated_lph=10, feed_kpa=300, tds_mg_l=300, temp_c=15), 3)
    6.339
    """
    within("rated_lph", rated_lph, 0, 10_000, "L/h")
    within("feed_kpa", feed_kpa, 0, 2000, "kPa")
    within("tds_mg_l", tds_mg_l, 0, 20_000, "mg/L")
    within("temp_c", temp_c, 0, 45, "°C")
    within("rated_kpa", rated_kpa, 100, 2000, "kPa")
    within("rated_tds_mg_l", rated_tds_mg_l, 0, 5000, "mg/L")
    within("back_kpa", back_kpa, 0, 1000, "kPa")
    driving = feed_kpa - back_kpa - OSMOTIC_KPA_PER_MG_L * tds_mg_l
    if driving <= 0:
        raise NamedCase("no_permeate", feed=feed_kpa)
    rated = rated_kpa - OSMOTIC_KPA_PER_MG_L * rated_tds_mg_l
    return float(rated_lph * driving / rated * PER_DEGREE ** (temp_c - 25))


def settled_solids(source: Number, evaporation_l_d: Number, change_l_d: Number) -> Number:
    """What dissolved solids creep to when evaporation is topped up with the same water.

    Equation: c = source·(E + D)/D
    Parameters:
        source: any concentration, scalar or array, 0 to 1e6. Of change and top-up water.
        evaporation_l_d: L/d, scalar or array, 0 to 1e6. Evaporated.
        change_l_d: L/d, scalar or array, 1e-6 to 1e6. Changed, as a daily mean.
    Returns: as source, broadcast. Topped up with pure water it stays at the source.
    Raises: OutOfRange.
    Source: balance

    >>> round(settled_solids(source=200, evaporation_l_d=5, change_l_d=5), 1)
    400.0
    """
    within("source", source, 0, 1e6, "mg/L")
    within("evaporation_l_d", evaporation_l_d, 0, 1e6, "L/d")
    within("change_l_d", change_l_d, 1e-6, 1e6, "L/d")
    return source * (evaporation_l_d + change_l_d) / change_l_d


def gas_saturation_frac(cold_c: Number, mixed_c: Number) -> Number:
    """How over-full of air mains water is once it was warmed.

    Equation: C*(T_cold)/C*(T_mixed)
    Parameters:
        cold_c: °C, scalar or array, 0 to 45. As it came.
        mixed_c: °C, scalar or array, 0 to 45. As it leaves.
    Returns: share of saturation, as broadcast; keep tanks under 1.05.
    Raises: OutOfRange.
    Source: colt1984

    >>> round(gas_saturation_frac(cold_c=10, mixed_c=25), 3)
    1.366
    """
    within("cold_c", cold_c, 0, 45, "°C")
    within("mixed_c", mixed_c, 0, 45, "°C")
    return oxygen_saturation_mg_l(cold_c) / oxygen_saturation_mg_l(mixed_c)
