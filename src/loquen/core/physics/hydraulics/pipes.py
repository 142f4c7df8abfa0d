"""Losses in pipes, fittings and valves."""

import math
from collections.abc import Callable
from functools import cache, lru_cache

import numpy as np

from loquen.core.physics.chemistry import density_kg_m3
from loquen.core.physics.geometry import GRAVITY_M_S2
from loquen.core.physics.ranges import Number, within

Loss = Callable[[float], float]
"""Head lost, in m, at a flow in L/h."""
LAMINAR_TO, TURBULENT_FROM = 2000.0, 4000.0
SMOOTH_PLASTIC_MM = 0.0015
LPH_PER_M3_S = 3.6e6
LN_10_SQUARED = math.log(10) ** 2
M_PER_BAR = 1e5 / (1000 * GRAVITY_M_S2)


def viscosity_m2_s(temp_c: Number) -> Number:
    """Kinematic viscosity of fresh water.

    Equation: μ = 1e-6·(280.68·τ^−1.9 + 511.45·τ^−7.7 + 61.131·τ^−19.6 + 0.45903·τ^−40), τ = K/300; ν = μ/ρ
    Parameters:
        temp_c: °C, scalar or array, 0 to 60. Water.
    Returns: m²/s, as temp_c; within 1 % of IAPWS.
    Raises: OutOfRange.
    Source: iapws_liquid

    >>> round(viscosity_m2_s(temp_c=25), 10)
    8.926e-07
    """
    within("temp_c", temp_c, 0, 60, "°C")
    tau = (temp_c + 273.15) / 300
    dynamic = 280.68 * tau**-1.9 + 511.45 * tau**-7.7 + 61.131 * tau**-19.6 + 0.45903 * tau**-40
    return dynamic * 1e-6 / density_kg_m3(0.0, temp_c)


@lru_cache(maxsize=256)
def viscosity_at(temp_c: float) -> float:
    """The same at one temperature, which all pipes of a system share."""
    return float(viscosity_m2_s(temp_c))


def velocity_m_s(flow_lph: Number, bore_mm: Number) -> Number:
    """Mean speed of water in a full pipe.

    Equation: v = Q/(π·d²/4)
    Parameters:
        flow_lph: L/h, scalar or array, 0 to 1e7. Through the pipe.
        bore_mm: mm, scalar or array, 1 to 1000. True inside diameter.
    Returns: m/s, as broadcast.
    Raises: OutOfRange.
    Source: definition

    >>> round(velocity_m_s(flow_lph=1000, bore_mm=20), 4)
    0.8842
    """
    within("flow_lph", flow_lph, 0, 1e7, "L/h")
    within("bore_mm", bore_mm, 1, 1000, "mm")
    return flow_lph / LPH_PER_M3_S / (math.pi / 4 * (bore_mm / 1000) ** 2)


def friction_of(reynolds: float, relative_roughness: float) -> float:
    """Darcy friction factor: laminar to Re 2000, Colebrook from 4000 on, between them a cubic that joins both smoothly."""
    if reynolds <= LAMINAR_TO:
        return 64 / max(reynolds, 1e-9)
    if reynolds >= TURBULENT_FROM:
        return float(colebrook()(reynolds, relative_roughness))
    span = TURBULENT_FROM - LAMINAR_TO
    part = (reynolds - LAMINAR_TO) / span
    low, high = 64 / LAMINAR_TO, float(colebrook()(TURBULENT_FROM, relative_roughness))
    rising_low = -low / LAMINAR_TO * span
    rising_high = turbulent_slope(high, relative_roughness) * span
    return (
        low * (1 + 2 * part) * (1 - part) ** 2
        + rising_low * part * (1 - part) ** 2
        + high * part**2 * (3 - 2 * part)
        - rising_high * part**2 * (1 - part)
    )


def turbulent_slope(friction: float, relative_roughness: float) -> float:
    """How Colebrook's friction changes with Re where turbulence is full: its equation, differentiated."""
    root = math.sqrt(friction)
    smooth = 2.51 / (TURBULENT_FROM * root)
    within_log = relative_roughness / 3.7 + smooth
    pull = 2 / math.log(10) * smooth / within_log
    # 1/√f = −2·log10(ε/3.7D + 2.51/(Re·√f)): d(1/√f) = pull·(dRe/Re + d√f/√f), d(1/√f) = −d√f/f.
    return -2 * root * pull / TURBULENT_FROM / (1 / friction + pull / root)


@cache
def colebrook() -> Callable[[float, float], float]:
    """Colebrook's equation solved; read when first asked for, as the library is slow to load."""
    from fluids.friction import Clamond

    return Clamond


def friction_smooth(reynolds: Number, relative_roughness: Number) -> Number:
    """Darcy friction factor in explicit form, smooth over the whole range: what a network is solved with.

    Equation: f = 64/Re to 2000; Swamee–Jain 0.25/log10(ε/3.7 + 5.74/Re^0.9)² from 4000; between them the cubic that joins
        both in value and slope
    Parameters:
        reynolds: 1, scalar or array, 1e-9 to 1e9. Reynolds number.
        relative_roughness: 1, scalar or array, 0 to 0.1. Roughness over bore.
    Returns: 1, as broadcast.
    Raises: OutOfRange.
    Source: dunlop1991

    >>> round(float(friction_smooth(reynolds=3000, relative_roughness=1e-4)), 5)
    0.03313
    """
    within("reynolds", reynolds, 1e-9, 1e9, "1")
    within("relative_roughness", relative_roughness, 0, 0.1, "1")
    return friction_and_slope(reynolds, relative_roughness)[0]


def friction_and_slope(reynolds: Number, relative_roughness: Number) -> tuple[Number, Number]:
    """The factor of friction_smooth and how it changes with Re, unchecked, as a solver asks for them."""
    above = np.maximum(reynolds, TURBULENT_FROM)
    smooth = 5.74 * above**-0.9
    inside = relative_roughness / 3.7 + smooth
    logarithm = np.log(inside)
    turbulent = 0.25 * LN_10_SQUARED / logarithm**2
    turbulent_rise = 1.8 * turbulent / logarithm * smooth / inside / above
    below = np.minimum(reynolds, LAMINAR_TO)
    laminar = 64 / below
    span = TURBULENT_FROM - LAMINAR_TO
    part = np.clip((reynolds - LAMINAR_TO) / span, 0, 1)
    left = 1 - part
    low, low_rise = 64 / LAMINAR_TO, -64 / LAMINAR_TO**2 * span
    high_rise = turbulent_rise * span
    between = (
        low * (1 + 2 * part) * left**2
        + low_rise * part * left**2
        + turbulent * part**2 * (3 - 2 * part)
        - high_rise * part**2 * left
    )
    between_rise = (
        (turbulent - low) * 6 * part * left + low_rise * left * (1 - 3 * part) - high_rise * part * (2 - 3 * part)
    ) / span
    slow, fast = reynolds <= LAMINAR_TO, reynolds >= TURBULENT_FROM
    factor = np.where(slow, laminar, np.where(fast, turbulent, between))
    rise = np.where(slow, -laminar / below, np.where(fast, turbulent_rise, between_rise))
    return factor, rise


def surge_kpa(velocity_m_s: Number, wave_m_s: Number = 400.0, temp_c: Number = 20.0) -> Number:
    """Pressure that rises when moving water is stopped at once.

    Equation: Δp = ρ·a·Δv/1000
    Parameters:
        velocity_m_s: m/s, scalar or array, 0 to 20. Of the water before the valve shuts.
        wave_m_s: m/s, scalar or array, 100 to 1500. Speed of the wave; plastic 300 to 500, copper 1200.
        temp_c: °C, scalar or array, 0 to 60. Water.
    Returns: kPa, as broadcast.
    Raises: OutOfRange.
    Source: joukowsky1898

    >>> round(surge_kpa(velocity_m_s=1.35))
    539
    """
    within("velocity_m_s", velocity_m_s, 0, 20, "m/s")
    within("wave_m_s", wave_m_s, 100, 1500, "m/s")
    within("temp_c", temp_c, 0, 60, "°C")
    return density_kg_m3(0.0, temp_c) * wave_m_s * velocity_m_s / 1000


def pipe_loss_m(
    flow_lph: Number,
    bore_mm: Number,
    length_m: Number,
    temp_c: Number = 25.0,
    roughness_mm: Number = SMOOTH_PLASTIC_MM,
) -> Number:
    """Head lost by friction in a straight pipe.

    Equation: h = f·(L/D)·v²/2g, f = 64/Re to Re 2000, Colebrook from 4000, a cubic between that joins value and slope
    Parameters:
        flow_lph: L/h, scalar or array, 0 to 1e7. Through the pipe.
        bore_mm: mm, scalar or array, 1 to 1000. True inside diameter.
        length_m: m, scalar or array, 0 to 1000. Of the pipe.
        temp_c: °C, scalar or array, 0 to 60. Water.
        roughness_mm: mm, scalar or array, 0 to 5. Of the wall; 0.0015 smooth plastic.
    Returns: m, as broadcast.
    Raises: OutOfRange.
    Source: colebrook1939

    >>> round(pipe_loss_m(flow_lph=1000, bore_mm=20, length_m=3), 4)
    0.1561
    """
    within("length_m", length_m, 0, 1000, "m")
    within("roughness_mm", roughness_mm, 0, 5, "mm")
    speed = velocity_m_s(flow_lph, bore_mm)
    reynolds = speed * bore_mm / 1000 / viscosity_m2_s(temp_c)
    rough = roughness_mm / bore_mm
    if np.ndim(reynolds) or np.ndim(rough):
        friction = np.vectorize(friction_of, otypes=[float])(reynolds, rough)
    else:
        friction = friction_of(float(reynolds), float(rough))
    return friction * length_m / (bore_mm / 1000) * speed**2 / (2 * GRAVITY_M_S2)


def fitting_loss_m(flow_lph: Number, bore_mm: Number, k: Number) -> Number:
    """Head lost in a fitting.

    Equation: h = K·v²/2g
    Parameters:
        flow_lph: L/h, scalar or array, 0 to 1e7. Through the fitting.
        bore_mm: mm, scalar or array, 1 to 1000. True inside diameter.
        k: 1, scalar or array, 0 to 1e6. Loss coefficient; fittings.csv has them.
    Returns: m, as broadcast.
    Raises: OutOfRange.
    Source: crane410

    >>> round(fitting_loss_m(flow_lph=1000, bore_mm=20, k=0.9), 5)
    0.03587
    """
    within("k", k, 0, 1e6, "1")
    return k * velocity_m_s(flow_lph, bore_mm) ** 2 / (2 * GRAVITY_M_S2)


def line_loss(bore_mm: float, length_m: float, k: float, temp_c: float = 25.0) -> Loss:
    """Head lost in a length of smooth plastic pipe and its fittings, as a function of the flow.

    Checked once and then asked at many flows, where pipe_loss_m and fitting_loss_m would check each.

    Equation: h = (f·L/D + K)·v²/2g, f as in pipe_loss_m
    Parameters:
        bore_mm: mm, scalar, 1 to 1000. True inside diameter.
        length_m: m, scalar, 0 to 1000. Of the pipe.
        k: 1, scalar, 0 to 1e6. Sum of the fittings' coefficients.
        temp_c: °C, scalar, 0 to 60. Water.
    Returns: a function of L/h giving m.
    Raises: OutOfRange.
    Source: colebrook1939
    """
    within("bore_mm", bore_mm, 1, 1000, "mm")
    within("length_m", length_m, 0, 1000, "m")
    within("k", k, 0, 1e6, "1")
    bore_m = bore_mm / 1000
    m_s_per_lph = float(velocity_m_s(1.0, bore_mm))
    reynolds_per_m_s = bore_m / viscosity_at(temp_c)
    slenderness, rough = length_m / bore_m, SMOOTH_PLASTIC_MM / bore_mm

    def loss(flow_lph: float) -> float:
        speed = flow_lph * m_s_per_lph
        resistance = k
        if slenderness:
            resistance += friction_of(speed * reynolds_per_m_s, rough) * slenderness
        return resistance * speed * speed / (2 * GRAVITY_M_S2)

    return loss


def valve_loss_m(flow_lph: Number, kv_m3_h: Number) -> Number:
    """Head lost in a valve by its rated flow coefficient.

    Equation: Δp (bar) = (Q/Kv)²; Kv = Cv/1.156
    Parameters:
        flow_lph: L/h, scalar or array, 0 to 1e7. Through the valve.
        kv_m3_h: m³/h, scalar or array, 0.001 to 10000. Flow at one bar.
    Returns: m, as broadcast.
    Raises: OutOfRange.
    Source: iec60534

    >>> round(valve_loss_m(flow_lph=2000, kv_m3_h=2), 2)
    10.2
    """
    within("flow_lph", flow_lph, 0, 1e7, "L/h")
    within("kv_m3_h", kv_m3_h, 0.001, 10_000, "m3/h")
    return (flow_lph / 1000 / kv_m3_h) ** 2 * M_PER_BAR
