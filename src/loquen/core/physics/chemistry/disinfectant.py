"""Chlorine and chloramine: what they free, how they go, what takes them out."""

import numpy as np

from loquen.core.physics.ranges import Number, within

CHLORINE_G_MOL = 70.906
NITROGEN_G_MOL = 14.007
THIOSULFATE_MG_PER_CHLORINE = 7.0


def chloramine_ammonia_mg_l(total_chlorine_mg_l: Number) -> Number:
    """Ammonia that breaking chloramine sets free.

    Equation: N = Cl2·14.007/70.906
    Parameters:
        total_chlorine_mg_l: mg/L, scalar or array, 0 to 100. Total chlorine as Cl2, all of it monochloramine.
    Returns: mg/L N, as total_chlorine_mg_l; up to 0.33 per mg/L with the utility's excess ammonia.
    Raises: OutOfRange.
    Source: iupac

    >>> round(chloramine_ammonia_mg_l(total_chlorine_mg_l=2.0), 4)
    0.3951
    """
    within("total_chlorine_mg_l", total_chlorine_mg_l, 0, 100, "mg/L")
    return total_chlorine_mg_l * NITROGEN_G_MOL / CHLORINE_G_MOL


def chlorine_after_mg_l(chlorine_mg_l: Number, hours: Number, half_life_h: Number) -> Number:
    """Free chlorine left after standing. Chloramine does not leave this way.

    Equation: c = c0·2^(−t/half-life)
    Parameters:
        chlorine_mg_l: mg/L, scalar or array, 0 to 100. Free chlorine at the start.
        hours: h, scalar or array, 0 to 10000. Of standing.
        half_life_h: h, scalar or array, 0.1 to 1000. Open and still 24 to 48, aerated 6 to 12.
    Returns: mg/L, as broadcast.
    Raises: OutOfRange.
    Source: practice

    >>> round(chlorine_after_mg_l(chlorine_mg_l=1, hours=48, half_life_h=24), 4)
    0.25
    """
    within("chlorine_mg_l", chlorine_mg_l, 0, 100, "mg/L")
    within("hours", hours, 0, 10_000, "h")
    within("half_life_h", half_life_h, 0.1, 1000, "h")
    return chlorine_mg_l * 2.0 ** (-hours / half_life_h)


def ageing_h(chlorine_mg_l: float, limit_mg_l: float, half_life_h: float) -> float:
    """Hours of standing until free chlorine is under a limit.

    Equation: t = half-life·log2(c0/limit)
    Parameters:
        chlorine_mg_l: mg/L, scalar, 0 to 100. Free chlorine at the start.
        limit_mg_l: mg/L, scalar, 0.001 to 10. Wanted.
        half_life_h: h, scalar, 0.1 to 1000. As for chlorine_after_mg_l.
    Returns: h, scalar; 0 when it starts under the limit.
    Raises: OutOfRange.
    Source: practice

    >>> round(ageing_h(chlorine_mg_l=1, limit_mg_l=0.01, half_life_h=24), 1)
    159.5
    """
    within("chlorine_mg_l", chlorine_mg_l, 0, 100, "mg/L")
    within("limit_mg_l", limit_mg_l, 0.001, 10, "mg/L")
    within("half_life_h", half_life_h, 0.1, 1000, "h")
    return half_life_h * float(np.log2(chlorine_mg_l / limit_mg_l)) if chlorine_mg_l > limit_mg_l else 0.0


def thiosulfate_mg(chlorine_mg: Number, margin: Number = 1.25) -> Number:
    """Sodium thiosulfate pentahydrate that takes out chlorine.

    Equation: m = 7.0·Cl2·margin
    Parameters:
        chlorine_mg: mg, scalar or array, 0 to 1e9. Total chlorine as Cl2 in all the water.
        margin: 1, scalar or array, 1 to 3. Over the bare need.
    Returns: mg, as broadcast.
    Raises: OutOfRange.
    Source: practice

    >>> round(thiosulfate_mg(chlorine_mg=100), 1)
    875.0
    """
    within("chlorine_mg", chlorine_mg, 0, 1e9, "mg")
    within("margin", margin, 1, 3, "1")
    return THIOSULFATE_MG_PER_CHLORINE * chlorine_mg * margin


def contact_min(bed_l: Number, flow_lph: Number) -> Number:
    """Minutes that water spends in a carbon bed, counted on the empty bed.

    Equation: t = V/Q·60
    Parameters:
        bed_l: L, scalar or array, 0 to 100000. Carbon.
        flow_lph: L/h, scalar or array, 0.01 to 1e7. Through it.
    Returns: min, as broadcast.
    Raises: OutOfRange.
    Source: definition

    >>> round(contact_min(bed_l=6, flow_lph=120), 3)
    3.0
    """
    within("bed_l", bed_l, 0, 100_000, "L")
    within("flow_lph", flow_lph, 0.01, 1e7, "L/h")
    return bed_l / flow_lph * 60
