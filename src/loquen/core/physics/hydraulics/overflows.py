"""Weirs, holes and drains: what lets water leave, and how high it stands meanwhile."""

import math

from scipy.optimize import brentq

from loquen.core.physics.geometry import GRAVITY_M_S2
from loquen.core.physics.hydraulics.pipes import LPH_PER_M3_S, line_loss
from loquen.core.physics.ranges import Number, within

WEIR = 1.84
LPH_PER_US_GPM = 227.1247
MOST_STACK_FILL = 7 / 24


def weir_flow_lph(length_cm: Number, head_mm: Number) -> Number:
    """Flow over a straight weir.

    Equation: Q = 1.84·L·h^1.5 m³/s (Francis, suppressed)
    Parameters:
        length_cm: cm, scalar or array, 0 to 10000. Crest; of a toothed edge only its open share; π·d of a standpipe.
        head_mm: mm, scalar or array, 0 to 1000. Of the water above the crest, before it bends down.
    Returns: L/h, as broadcast; ±15 % at heads under 30 mm.
    Raises: OutOfRange.
    Source: francis

    >>> round(weir_flow_lph(length_cm=30, head_mm=10))
    1987
    """
    within("length_cm", length_cm, 0, 10_000, "cm")
    within("head_mm", head_mm, 0, 1000, "mm")
    return WEIR * length_cm / 100 * (head_mm / 1000) ** 1.5 * LPH_PER_M3_S


def weir_head_mm(flow_lph: Number, length_cm: Number) -> Number:
    """How high water stands above a weir's crest.

    Equation: h = (Q/(1.84·L))^(2/3)
    Parameters:
        flow_lph: L/h, scalar or array, 0 to 1e7. Over the weir.
        length_cm: cm, scalar or array, 0.1 to 10000. Crest.
    Returns: mm, as broadcast; the flow at such a head is ±15 % under 30 mm.
    Raises: OutOfRange.
    Source: francis

    >>> round(weir_head_mm(flow_lph=3000, length_cm=30), 2)
    13.16
    """
    within("flow_lph", flow_lph, 0, 1e7, "L/h")
    within("length_cm", length_cm, 0.1, 10_000, "cm")
    return (flow_lph / LPH_PER_M3_S / (WEIR * length_cm / 100)) ** (2 / 3) * 1000


def orifice_flow_lph(bore_mm: Number, head_cm: Number, count: Number = 1, cd: Number = 0.61) -> Number:
    """Flow through round holes that water fully covers.

    Equation: Q = n·Cd·(π·d²/4)·√(2·g·h)
    Parameters:
        bore_mm: mm, scalar or array, 1 to 1000. Of each hole.
        head_cm: cm, scalar or array, 0 to 1000. From the surface to the hole's centre.
        count: 1, scalar or array, 0 to 1000. Holes at that height.
        cd: 1, scalar or array, 0.3 to 1. Discharge coefficient; 0.61 for a sharp edge.
    Returns: L/h, as broadcast. A hole not fully covered passes less; see partly_covered_frac.
    Raises: OutOfRange.
    Source: orifice

    >>> round(orifice_flow_lph(bore_mm=20, head_cm=5), 1)
    683.2
    """
    within("bore_mm", bore_mm, 1, 1000, "mm")
    within("head_cm", head_cm, 0, 1000, "cm")
    within("count", count, 0, 1000, "1")
    within("cd", cd, 0.3, 1, "1")
    area_m2 = math.pi / 4 * (bore_mm / 1000) ** 2
    return count * cd * area_m2 * (2 * GRAVITY_M_S2 * head_cm / 100) ** 0.5 * LPH_PER_M3_S


def partly_covered_frac(bore_mm: float, head_cm: float) -> float:
    """Share of its full capacity that a hole is trusted with when water hardly covers it.

    Equation: 1 from one bore of head on, 0.5 below
    Parameters:
        bore_mm: mm, scalar, 1 to 1000. Of the hole.
        head_cm: cm, scalar, 0 to 1000. From the surface to the hole's centre.
    Returns: share, scalar; below one bore it works as a small weir and half is a guess to the safe side.
    Raises: OutOfRange.
    Source: practice

    >>> round(partly_covered_frac(bore_mm=40, head_cm=3), 4)
    0.5
    """
    within("bore_mm", bore_mm, 1, 1000, "mm")
    within("head_cm", head_cm, 0, 1000, "cm")
    return 1.0 if head_cm * 10 >= bore_mm else 0.5


def bulkhead_flow_lph(bore_mm: float, head_mm: float) -> float:
    """Flow through a single outlet in a wall, not a row of holes, also while water hardly covers it.

    Equation: to one bore of head critical at the brink, E = y + A/2T, Q = A·√(g·A/T); above Q = 0.61·A·√(2g(E − D/2))
    Parameters:
        bore_mm: mm, scalar, 1 to 1000. Of the outlet.
        head_mm: mm, scalar, 0 to 10000. Over its invert.
    Returns: L/h, scalar; ±15 %, and under 5 mm of head surface tension decides.
    Raises: OutOfRange.
    Source: chow1959

    >>> round(bulkhead_flow_lph(bore_mm=25, head_mm=20))
    349
    """
    within("bore_mm", bore_mm, 1, 1000, "mm")
    within("head_mm", head_mm, 0, 10_000, "mm")
    bore, head = bore_mm / 1000, head_mm / 1000
    if head == 0:
        return 0.0
    if head > bore:
        return float(orifice_flow_lph(bore_mm, (head_mm - bore_mm / 2) / 10))

    def wetted(depth: float) -> tuple[float, float]:
        half = math.acos(1 - 2 * depth / bore)
        return bore**2 / 4 * (half - math.sin(half) * math.cos(half)), bore * math.sin(half)

    def over(depth: float) -> float:
        area, width = wetted(depth)
        return depth + area / (2 * width) - head

    depth = float(brentq(over, head * 1e-6, min(head, bore * (1 - 1e-12))))
    area, width = wetted(depth)
    return area * math.sqrt(GRAVITY_M_S2 * area / width) * LPH_PER_M3_S


def stack_capacity_lph(bore_mm: Number, fill_frac: Number = 0.25) -> Number:
    """Flow down an open vertical drain that keeps an air core.

    Equation: Q (US gal/min) = 27.8·r^(5/3)·d^(8/3), d in inches
    Parameters:
        bore_mm: mm, scalar or array, 5 to 1000. True inside diameter.
        fill_frac: share, scalar or array, 0.01 to 0.2917. Of the bore's area under water; 7/24 at most.
    Returns: L/h, as broadcast.
    Raises: OutOfRange.
    Source: wylyeaton1961

    >>> round(stack_capacity_lph(bore_mm=38.1))
    1847
    """
    within("bore_mm", bore_mm, 5, 1000, "mm")
    within("fill_frac", fill_frac, 0.01, MOST_STACK_FILL, "share")
    return 27.8 * fill_frac ** (5 / 3) * (bore_mm / 25.4) ** (8 / 3) * LPH_PER_US_GPM


def siphon_flow_lph(bore_mm: float, drop_m: float, length_m: float, k: float, temp_c: float = 25.0) -> float:
    """Flow down a drain that runs full, throttled by its own losses.

    Equation: drop = (f·L/D + K)·v²/2g, f as in pipe_loss_m
    Parameters:
        bore_mm: mm, scalar, 1 to 1000. True inside diameter.
        drop_m: m, scalar, 0 to 100. From the surface above to the surface (or open end) below.
        length_m: m, scalar, 0 to 1000. Of the pipe.
        k: 1, scalar, 0 to 1000 (from 0.01 where there is no length). Sum of the fittings' coefficients, entry and
            exit among them.
        temp_c: °C, scalar, 0 to 60. Water.
    Returns: L/h, scalar.
    Raises: OutOfRange.
    Source: colebrook1939

    >>> round(siphon_flow_lph(bore_mm=21.2, drop_m=0.5, length_m=1, k=2))
    2285
    """
    within("bore_mm", bore_mm, 1, 1000, "mm")
    within("drop_m", drop_m, 0, 100, "m")
    within("length_m", length_m, 0, 1000, "m")
    within("k", k, 0 if length_m > 0 else 0.01, 1000, "1")
    if drop_m == 0:
        return 0.0
    from scipy.optimize import brentq

    loss, most = line_loss(bore_mm, length_m, k, temp_c), 1.0
    while loss(most) < drop_m:
        most *= 2
    return float(brentq(lambda flow: loss(flow) - drop_m, 0.0, most, xtol=1e-6))


def sloped_drain_flow_lph(
    bore_mm: float, slope_frac: float, depth_frac: float = 0.5, roughness_n: float = 0.009
) -> float:
    """Flow in a sloped drain that runs part full.

    Equation: Q = A·R^(2/3)·√S/n, A and R of a circle filled to a share of its bore
    Parameters:
        bore_mm: mm, scalar, 5 to 2000. True inside diameter.
        slope_frac: share, scalar, 0 to 1. Fall per length.
        depth_frac: share, scalar, 0.01 to 1. Depth of water as a share of the bore; size drains at half.
        roughness_n: 1, scalar, 0.005 to 0.05. Manning's n; 0.009 smooth plastic.
    Returns: L/h, scalar.
    Raises: OutOfRange.
    Source: manning

    >>> round(sloped_drain_flow_lph(bore_mm=50, slope_frac=0.01))
    2115
    """
    within("bore_mm", bore_mm, 5, 2000, "mm")
    within("slope_frac", slope_frac, 0, 1, "share")
    within("depth_frac", depth_frac, 0.01, 1, "share")
    within("roughness_n", roughness_n, 0.005, 0.05, "1")
    bore_m = bore_mm / 1000
    angle = 2 * math.acos(1 - 2 * depth_frac)
    area = bore_m**2 / 8 * (angle - math.sin(angle))
    radius = area / (bore_m * angle / 2)
    flow_m3_s: float = area * radius ** (2 / 3) * math.sqrt(slope_frac) / roughness_n
    return flow_m3_s * LPH_PER_M3_S


def emitter_flow_lph(
    nominal_lph: Number, nominal_kpa: Number, pressure_kpa: Number, exponent: Number = 0.5
) -> Number:
    """Flow of a drip emitter at a pressure.

    Equation: q = q0·(p/p0)^x; nothing without pressure
    Parameters:
        nominal_lph: L/h, scalar or array, 0 to 10000. At the nominal pressure.
        nominal_kpa: kPa, scalar or array, 1 to 2000. Nominal pressure.
        pressure_kpa: kPa, scalar or array, 0 to 2000. At the emitter.
        exponent: 1, scalar or array, 0 to 1. 0.5 a plain orifice, 0 pressure-compensating in its working range.
    Returns: L/h, as broadcast.
    Raises: OutOfRange.
    Source: emitters

    >>> round(emitter_flow_lph(nominal_lph=8, nominal_kpa=100, pressure_kpa=225), 2)
    12.0
    """
    within("nominal_lph", nominal_lph, 0, 10_000, "L/h")
    within("nominal_kpa", nominal_kpa, 1, 2000, "kPa")
    within("pressure_kpa", pressure_kpa, 0, 2000, "kPa")
    within("exponent", exponent, 0, 1, "1")
    return nominal_lph * (pressure_kpa / nominal_kpa) ** exponent * (pressure_kpa > 0)


def uv_flow_lph(wanted_mj_cm2: Number, rated_mj_cm2: Number, rated_lph: Number) -> Number:
    """Flow at which an ultraviolet clarifier gives a wanted dose.

    Equation: Q = Q_rated·dose_rated/dose (dose is proportional to 1/flow)
    Parameters:
        wanted_mj_cm2: mJ/cm², scalar or array, 0.1 to 10000. 15 to 30 clears green water, 90 and more for protozoa.
        rated_mj_cm2: mJ/cm², scalar or array, 0.1 to 10000. The maker's figure.
        rated_lph: L/h, scalar or array, 1 to 1e6. The flow that the maker's figure is for.
    Returns: L/h, as broadcast.
    Raises: OutOfRange.
    Source: uv_dose

    >>> round(uv_flow_lph(wanted_mj_cm2=60, rated_mj_cm2=30, rated_lph=1200), 1)
    600.0
    """
    within("wanted_mj_cm2", wanted_mj_cm2, 0.1, 10_000, "mJ/cm2")
    within("rated_mj_cm2", rated_mj_cm2, 0.1, 10_000, "mJ/cm2")
    within("rated_lph", rated_lph, 1, 1e6, "L/h")
    return rated_lph * rated_mj_cm2 / wanted_mj_cm2
