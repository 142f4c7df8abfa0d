"""Salinity, density and what a hydrometer reads."""

from loquen.core.errors import OutOfRange
from loquen.core.physics.ranges import Number, within

ABSOLUTE_PER_PRACTICAL = 35.16504 / 35
MOST_PPT = 45.0


def density_kg_m3(salinity_ppt: Number, temp_c: Number) -> Number:
    """Density of water at the surface.

    Equation: TEOS-10, ρ(S·35.16504/35, T)
    Parameters:
        salinity_ppt: ppt, scalar or array, 0 to 45. Practical salinity.
        temp_c: °C, scalar or array, 0 to 60. Water.
    Returns: kg/m³, as broadcast.
    Raises: OutOfRange.
    Source: teos10

    >>> round(density_kg_m3(salinity_ppt=0, temp_c=25), 1)
    997.0
    """
    within("salinity_ppt", salinity_ppt, 0, MOST_PPT, "ppt")
    within("temp_c", temp_c, 0, 60, "°C")
    import gsw

    absolute = salinity_ppt * ABSOLUTE_PER_PRACTICAL
    density = gsw.rho(absolute, gsw.CT_from_t(absolute, temp_c, 0), 0)
    return float(density) if density.ndim == 0 else density


def specific_gravity(salinity_ppt: Number, temp_c: Number, reference_c: Number | None = None) -> Number:
    """What a hydrometer reads.

    Equation: SG = ρ(S, T)/ρ(0, T_ref)
    Parameters:
        salinity_ppt: ppt, scalar or array, 0 to 45. Practical salinity.
        temp_c: °C, scalar or array, 0 to 45. Water.
        reference_c: °C, scalar or array, 0 to 45. That the hydrometer is made for; the water's own when left out.
    Returns: 1, as broadcast.
    Raises: OutOfRange.
    Source: teos10

    >>> round(specific_gravity(salinity_ppt=5, temp_c=25), 3)
    1.004
    """
    within("temp_c", temp_c, 0, 45, "°C")
    reference = temp_c if reference_c is None else reference_c
    within("reference_c", reference, 0, 45, "°C")
    return density_kg_m3(salinity_ppt, temp_c) / density_kg_m3(0.0, reference)


def salinity_from_sg_ppt(sg: float, temp_c: float, reference_c: float | None = None) -> float:
    """Salinity that a hydrometer's reading stands for.

    Equation: the S at which ρ(S, T)/ρ(0, T_ref) is the reading
    Parameters:
        sg: 1, scalar, what fresh water to 45 ppt read at this temperature. Reading.
        temp_c: °C, scalar, 0 to 45. Water.
        reference_c: °C, scalar, 0 to 45. That the hydrometer is made for; the water's own when left out.
    Returns: ppt, scalar; readings under fresh water's by less than 0.0005 are a hydrometer's grain and give 0.
    Raises: OutOfRange.
    Source: teos10

    >>> round(salinity_from_sg_ppt(sg=1.01505, temp_c=25), 2)
    20.0
    """
    low = float(specific_gravity(0.0, temp_c, reference_c))
    high = float(specific_gravity(MOST_PPT, temp_c, reference_c))
    if not low - 5e-4 <= sg <= high:
        raise OutOfRange("sg", sg, low, high, "1")
    if sg <= low:
        return 0.0
    from scipy.optimize import brentq

    return float(brentq(lambda s: specific_gravity(s, temp_c, reference_c) - sg, 0.0, MOST_PPT, xtol=1e-9))


def salt_to_add_g(
    litres: Number, target_ppt: Number, present_ppt: Number, temp_c: Number = 25.0, purity_frac: Number = 1.0
) -> Number:
    """Salt that brings water to a salinity.

    Equation: m = V·ρ·(target − present)·1.00472/purity/1000
    Parameters:
        litres: L, scalar or array, 0 to 1e6. Water to salt.
        target_ppt: ppt, scalar or array, 0 to 45. Wanted.
        present_ppt: ppt, scalar or array, 0 to target. Before.
        temp_c: °C, scalar or array, 0 to 45. Water.
        purity_frac: share, scalar or array, 0.3 to 1. Salt in what is weighed; the rest is water.
    Returns: g, as broadcast.
    Raises: OutOfRange.
    Source: balance

    >>> round(salt_to_add_g(litres=100, target_ppt=4, present_ppt=0), 1)
    400.7
    """
    within("litres", litres, 0, 1e6, "L")
    within("target_ppt", target_ppt, 0, MOST_PPT, "ppt")
    within("purity_frac", purity_frac, 0.3, 1, "share")
    within("target_ppt - present_ppt", target_ppt - present_ppt, 0, MOST_PPT, "ppt")
    kilograms = litres * density_kg_m3(present_ppt, temp_c) / 1000
    return kilograms * (target_ppt - present_ppt) * ABSOLUTE_PER_PRACTICAL / purity_frac


LEAST_US_CM = 100.0
"""Under this the relation of sea water says nothing: from there to none it is taken as a line."""


def salt_conductivity_us_cm(salinity_ppt: float) -> float:
    """Conductivity at 25 °C that a salinity gives.

    Equation: C of practical salinity at 25 °C, by its inverse; in proportion under 100 µS/cm
    Parameters:
        salinity_ppt: ppt, scalar, 0 to 45. Practical salinity.
    Returns: µS/cm, scalar.
    Raises: OutOfRange.
    Source: teos10

    >>> round(salt_conductivity_us_cm(salinity_ppt=35))
    53071
    """
    within("salinity_ppt", salinity_ppt, 0, MOST_PPT, "ppt")
    from gsw import C_from_SP

    known = max(salinity_ppt, salinity_from_conductivity_ppt(LEAST_US_CM))
    return float(C_from_SP(known, 25.0, 0.0)) * 1000 * salinity_ppt / known


def salinity_from_conductivity_ppt(us_cm: float) -> float:
    """Practical salinity of water by its conductivity at 25 °C.

    Equation: practical salinity of C at 25 °C; in proportion under 100 µS/cm
    Parameters:
        us_cm: µS/cm, scalar, 0 to 70000. Conductivity at 25 °C.
    Returns: ppt, scalar.
    Raises: OutOfRange.
    Source: teos10

    >>> round(salinity_from_conductivity_ppt(us_cm=53065), 2)
    35.0
    """
    within("us_cm", us_cm, 0, 70_000, "µS/cm")
    from gsw import SP_from_C

    known = max(us_cm, LEAST_US_CM)
    return float(SP_from_C(known / 1000, 25.0, 0.0)) * us_cm / known
