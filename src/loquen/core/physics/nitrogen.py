"""Waste nitrogen and the media that turn it over. All concentrations are mg/L of N."""

from collections.abc import Callable

from loquen.core.errors import NamedCase
from loquen.core.physics.elementwise import at_least, expm1
from loquen.core.physics.ranges import Number, within

ATOMIC_N, ATOMIC_O, ATOMIC_H = 14.007, 15.999, 1.008
NITRATE_PER_N = (ATOMIC_N + 3 * ATOMIC_O) / ATOMIC_N
NITRITE_PER_N = (ATOMIC_N + 2 * ATOMIC_O) / ATOMIC_N
AMMONIA_PER_N = (ATOMIC_N + 3 * ATOMIC_H) / ATOMIC_N
NITROGEN_OF_PROTEIN = 0.16
ALKALINITY_MG_PER_N = 7.14
CACO3_MG_L_PER_DKH = 17.848


def ammonia_from_feed_mg_d(
    feed_g_d: Number, protein_frac: Number, kept_frac: Number = 0.28, removed_frac: Number = 0.20
) -> Number:
    """Ammonia nitrogen that food sets free.

    Equation: N = feed·1000·protein·0.16·(1 − kept)·(1 − removed)
    Parameters:
        feed_g_d: g/d, scalar or array, 0 to 1e6. Dry feed.
        protein_frac: share, scalar or array, 0 to 1. Protein in the dry feed.
        kept_frac: share, scalar or array, 0 to 1. Nitrogen that the animals keep as growth.
        removed_frac: share, scalar or array, 0 to 1. Waste taken out before it breaks down.
    Returns: mg N/d, as broadcast.
    Raises: OutOfRange.
    Source: timmons

    >>> round(ammonia_from_feed_mg_d(feed_g_d=10, protein_frac=0.45), 1)
    414.7
    """
    within("feed_g_d", feed_g_d, 0, 1e6, "g/d")
    within("protein_frac", protein_frac, 0, 1, "share")
    within("kept_frac", kept_frac, 0, 1, "share")
    within("removed_frac", removed_frac, 0, 1, "share")
    return feed_g_d * 1000 * protein_frac * NITROGEN_OF_PROTEIN * (1 - kept_frac) * (1 - removed_frac)


def nitrate_ion_mg(n_mg: Number) -> Number:
    """Nitrate (NO3) that holds some nitrogen.

    Equation: NO3 = N·62.004/14.007
    Parameters:
        n_mg: mg N or mg/L N, scalar or array, 0 to 1e9. Nitrogen.
    Returns: mg (or mg/L), as n_mg.
    Raises: OutOfRange.
    Source: iupac

    >>> round(nitrate_ion_mg(n_mg=1), 3)
    4.427
    """
    within("n_mg", n_mg, 0, 1e9, "mg")
    return n_mg * NITRATE_PER_N


def nitrite_ion_mg(n_mg: Number) -> Number:
    """Nitrite (NO2) that holds some nitrogen.

    Equation: NO2 = N·46.005/14.007
    Parameters:
        n_mg: mg N or mg/L N, scalar or array, 0 to 1e9. Nitrogen.
    Returns: mg (or mg/L), as n_mg.
    Raises: OutOfRange.
    Source: iupac

    >>> round(nitrite_ion_mg(n_mg=1), 3)
    3.284
    """
    within("n_mg", n_mg, 0, 1e9, "mg")
    return n_mg * NITRITE_PER_N


def ammonia_nh3_mg(n_mg: Number) -> Number:
    """Ammonia, counted as NH3, that holds some nitrogen.

    Equation: NH3 = N·17.031/14.007
    Parameters:
        n_mg: mg N or mg/L N, scalar or array, 0 to 1e9. Nitrogen.
    Returns: mg (or mg/L), as n_mg.
    Raises: OutOfRange.
    Source: iupac

    >>> round(ammonia_nh3_mg(n_mg=1), 3)
    1.216
    """
    within("n_mg", n_mg, 0, 1e9, "mg")
    return n_mg * AMMONIA_PER_N


def alkalinity_used_dkh(n_mg_l: Number) -> Number:
    """Carbonate hardness spent when ammonia becomes nitrate.

    Equation: ΔKH = N·7.14/17.848
    Parameters:
        n_mg_l: mg/L N, scalar or array, 0 to 1e6. Nitrified.
    Returns: dKH, as n_mg_l.
    Raises: OutOfRange.
    Source: wolfgladrow2007

    >>> round(alkalinity_used_dkh(n_mg_l=10), 3)
    4.0
    """
    within("n_mg_l", n_mg_l, 0, 1e6, "mg/L N")
    return n_mg_l * ALKALINITY_MG_PER_N / CACO3_MG_L_PER_DKH


def acid_frac(ph: Number, half_ph: Number = 6.0, slope: Number = 2.0) -> Number:
    """Part of the nitrification that acid water leaves.

    Equation: f = 1/(1 + 10^(slope·(half − pH)))
    Parameters:
        ph: pH, scalar or array, 3 to 11. Of the water.
        half_ph: pH, scalar or array, 3 to 9. At which half is left.
        slope: 1, scalar or array, 0.1 to 10. Tens over one pH.
    Returns: share, as broadcast.
    Raises: OutOfRange.
    Source: nitrify_acid

    >>> round(acid_frac(6.5), 4)
    0.9091
    """
    within("ph", ph, 3, 11, "pH")
    within("half_ph", half_ph, 3, 9, "pH")
    within("slope", slope, 0.1, 10, "1")
    return 1 / (1 + 10.0 ** (slope * (half_ph - ph)))


def full_rate_g_m2_d(temp_c: Number, rate_g_m2_d: Number = 0.60, warmth: Number = 1.08) -> Number:
    """Nitrification per area when ammonia does not limit it.

    Equation: r_max = rate·warmth^(T − 25)
    Parameters:
        temp_c: °C, scalar or array, 0 to 45. Water.
        rate_g_m2_d: g N/m²/d, scalar or array, 0 to 10. With ammonia in plenty, at 25 °C.
        warmth: 1, scalar or array, 1 to 1.5. Factor of the rate per kelvin.
    Returns: g N/m²/d, as broadcast.
    Raises: OutOfRange.
    Source: monod

    >>> round(full_rate_g_m2_d(temp_c=25), 4)
    0.6
    """
    within("temp_c", temp_c, 0, 45, "°C")
    within("rate_g_m2_d", rate_g_m2_d, 0, 10, "g/m2/d")
    within("warmth", warmth, 1, 1.5, "1")
    return rate_g_m2_d * warmth ** (temp_c - 25)


def nitrification_rate_g_m2_d(
    ammonia_mg_l: Number,
    temp_c: Number,
    half_mg_l: Number = 1.0,
    rate_g_m2_d: Number = 0.60,
    warmth: Number = 1.08,
) -> Number:
    """Nitrification per area of media at an ammonia level.

    Equation: r = rate·N/(half + N)·warmth^(T − 25)
    Parameters:
        ammonia_mg_l: mg/L N, scalar or array, 0 to 10000. Total ammonia.
        temp_c: °C, scalar or array, 0 to 45. Water.
        half_mg_l: mg/L N, scalar or array, 0.001 to 100. Ammonia at which the rate is half.
        rate_g_m2_d: g N/m²/d, scalar or array, 0 to 10. With ammonia in plenty, at 25 °C.
        warmth: 1, scalar or array, 1 to 1.5. Factor of the rate per kelvin.
    Returns: g N/m²/d, as broadcast.
    Raises: OutOfRange.
    Source: monod

    >>> round(nitrification_rate_g_m2_d(0.1, 25), 3)
    0.055
    """
    within("ammonia_mg_l", ammonia_mg_l, 0, 10_000, "mg/L N")
    within("half_mg_l", half_mg_l, 0.001, 100, "mg/L N")
    return full_rate_g_m2_d(temp_c, rate_g_m2_d, warmth) * ammonia_mg_l / (half_mg_l + ammonia_mg_l)


def ammonia_at_load_mg_l(
    load_mg_d: float,
    area_m2: float,
    temp_c: float,
    half_mg_l: float = 1.0,
    rate_g_m2_d: float = 0.60,
    warmth: float = 1.08,
) -> float:
    """Total ammonia at which media with ample flow keeps up with a load.

    Equation: r = load/1000/area; N = r·half/(r_max − r)
    Parameters:
        load_mg_d: mg N/d, scalar, 0 to 1e8. Ammonia made.
        area_m2: m², scalar, 0 to 1e6. Media area at work.
        temp_c: °C, scalar, 0 to 45. Water.
        half_mg_l: mg/L N, scalar, 0.001 to 100. Ammonia at which the rate is half.
        rate_g_m2_d: g N/m²/d, scalar, 0 to 10. With ammonia in plenty, at 25 °C.
        warmth: 1, scalar, 1 to 1.5. Factor of the rate per kelvin.
    Returns: mg/L N, scalar.
    Raises: OutOfRange; NamedCase "media_can_not_carry" when the load is above the full rate.
    Source: monod

    >>> round(ammonia_at_load_mg_l(load_mg_d=50, area_m2=1.5, temp_c=25), 5)
    0.05882
    """
    within("load_mg_d", load_mg_d, 0, 1e8, "mg/d")
    within("area_m2", area_m2, 0, 1e6, "m2")
    within("half_mg_l", half_mg_l, 0.001, 100, "mg/L N")
    most = float(full_rate_g_m2_d(temp_c, rate_g_m2_d, warmth)) * area_m2 * 1000
    if load_mg_d == 0:
        return 0.0
    if load_mg_d >= most:
        raise NamedCase("media_can_not_carry", load=load_mg_d, most=most)
    return load_mg_d * half_mg_l / (most - load_mg_d)


def ammonia_removal_mg_d(
    ammonia_mg_l: Number,
    flow_lph: Number,
    area_m2: Number,
    temp_c: Number,
    half_mg_l: Number = 1.0,
    rate_g_m2_d: Number = 0.60,
    warmth: Number = 1.08,
) -> Number:
    """Ammonia that a bed takes from the water driven through it.

    Equation: R = 24·Q·N·(1 − exp(−1000·k·A/(24·Q))), k = rate/(half + N)·warmth^(T − 25)
    Parameters:
        ammonia_mg_l: mg/L N, scalar or array, 0 to 10000. Total ammonia in the tank.
        flow_lph: L/h, scalar or array, 0 to 1e7. Through the media; 0 removes nothing.
        area_m2: m², scalar or array, 0 to 1e6. Media area at work.
        temp_c: °C, scalar or array, 0 to 45. Water.
        half_mg_l: mg/L N, scalar or array, 0.001 to 100. Ammonia at which the rate is half.
        rate_g_m2_d: g N/m²/d, scalar or array, 0 to 10. With ammonia in plenty, at 25 °C.
        warmth: 1, scalar or array, 1 to 1.5. Factor of the rate per kelvin.
    Returns: mg N/d, as broadcast.
    Raises: OutOfRange.
    Source: monod

    >>> round(float(ammonia_removal_mg_d(ammonia_mg_l=0.1, flow_lph=1000000.0, area_m2=1, temp_c=25)), 2)
    54.54
    """
    within("ammonia_mg_l", ammonia_mg_l, 0, 10_000, "mg/L N")
    return removal_of_bed(flow_lph, area_m2, temp_c, half_mg_l, rate_g_m2_d, warmth)(ammonia_mg_l)


def removal_of_bed(
    flow_lph: Number, area_m2: Number, temp_c: Number, half_mg_l: Number, rate_g_m2_d: Number, warmth: Number
) -> Callable[[Number], Number]:
    """What one bed removes (mg N/d) as a function of the level (mg/L N): what a root is sought of is checked once.

    Parameters, errors and source as of ammonia_removal_mg_d.
    """
    within("flow_lph", flow_lph, 0, 1e7, "L/h")
    within("area_m2", area_m2, 0, 1e6, "m2")
    within("half_mg_l", half_mg_l, 0.001, 100, "mg/L N")
    per_day = 24 * at_least(flow_lph, 1e-9)
    reach = -1000 * full_rate_g_m2_d(temp_c, rate_g_m2_d, warmth) * area_m2 / per_day
    return lambda level: per_day * level * -expm1(reach / (half_mg_l + level))
