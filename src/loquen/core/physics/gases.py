"""Oxygen in water: what it can hold, what crosses its surface, what is left after a while."""

import math

from loquen.core.errors import NamedCase
from loquen.core.physics.elementwise import exp
from loquen.core.physics.ranges import Number, within

SCALE_HEIGHT_M = 8434.0


def air_pressure_atm(altitude_m: Number) -> Number:
    """Mean air pressure at an altitude.

    Equation: P = exp(−altitude/8434)
    Parameters:
        altitude_m: m, scalar or array, -500 to 6000. Above the sea.
    Returns: atm, as altitude_m.
    Raises: OutOfRange.
    Source: bensonkrause1984

    >>> round(air_pressure_atm(altitude_m=1500), 4)
    0.8371
    """
    within("altitude_m", altitude_m, -500, 6000, "m")
    return exp(-altitude_m / SCALE_HEIGHT_M)


def oxygen_saturation_mg_l(temp_c: Number, salinity_ppt: Number = 0.0, altitude_m: Number = 0.0) -> Number:
    """Oxygen that water holds in balance with air.

    Equation: ln C = −139.34411 + 1.575701e5/K − 6.642308e7/K² + 1.243800e10/K³ − 8.621949e11/K⁴
        − S·(0.017674 − 10.754/K + 2140.7/K²); C·P·(1 − p_w/P)·(1 − θ·P)/((1 − p_w)·(1 − θ))
    Parameters:
        temp_c: °C, scalar or array, 0 to 45. Water.
        salinity_ppt: ppt, scalar or array, 0 to 45. Practical salinity.
        altitude_m: m, scalar or array, -500 to 6000. Above the sea.
    Returns: mg/L, as broadcast.
    Raises: OutOfRange.
    Source: bensonkrause1984

    >>> round(oxygen_saturation_mg_l(temp_c=0), 2)
    14.62
    """
    within("temp_c", temp_c, 0, 45, "°C")
    within("salinity_ppt", salinity_ppt, 0, 45, "ppt")
    return held_oxygen_mg_l(temp_c, salinity_ppt, air_pressure_atm(altitude_m))


def held_oxygen_mg_l(temp_c: Number, salinity_ppt: Number, pressure: Number) -> Number:
    """The same under a pressure (atm), of numbers that are known to lie in range."""
    k = temp_c + 273.15
    fresh = -139.34411 + 1.575701e5 / k - 6.642308e7 / k**2 + 1.243800e10 / k**3 - 8.621949e11 / k**4
    at_sea = exp(fresh - salinity_ppt * (0.017674 - 10.754 / k + 2140.7 / k**2))
    vapour = exp(11.8571 - 3840.70 / k - 216_961 / k**2)
    theta = 0.000975 - 1.426e-5 * temp_c + 6.436e-8 * temp_c**2
    aloft = pressure * (1 - vapour / pressure) * (1 - theta * pressure) / ((1 - vapour) * (1 - theta))
    return at_sea * aloft


def surface_transfer_l_h(surface_m2: Number, velocity_m_h: Number) -> Number:
    """Gas exchange through an open surface, as the litres brought to balance with the air each hour.

    Equation: k·V = v·A·1000
    Parameters:
        surface_m2: m², scalar or array, 0 to 10000. Open water.
        velocity_m_h: m/h, scalar or array, 0 to 2. Still 0.02 to 0.04, ripple 0.06 to 0.10, strong 0.15 to 0.50.
    Returns: L/h, as broadcast.
    Raises: OutOfRange.
    Source: oxygen_transfer

    >>> round(surface_transfer_l_h(surface_m2=0.405, velocity_m_h=0.1), 2)
    40.5
    """
    within("surface_m2", surface_m2, 0, 10_000, "m2")
    within("velocity_m_h", velocity_m_h, 0, 2, "m/h")
    return surface_m2 * velocity_m_h * 1000


def air_stone_transfer_l_h(air_lph: Number, depth_cm: Number, stone_l_h: Number = 25.0) -> Number:
    """Gas exchange that rising bubbles add.

    Equation: k·V = stone·(air/60)·(depth/30)
    Parameters:
        air_lph: L/h, scalar or array, 0 to 100000. Air let out.
        depth_cm: cm, scalar or array, 0 to 300. Of the stone under the surface.
        stone_l_h: L/h, scalar or array, 0 to 500. Of 60 L/h of air let out at 30 cm; 10 to 50.
    Returns: L/h, as broadcast.
    Raises: OutOfRange.
    Source: oxygen_transfer

    >>> air_stone_transfer_l_h(120, 45)
    75.0
    """
    within("air_lph", air_lph, 0, 100_000, "L/h")
    within("depth_cm", depth_cm, 0, 300, "cm")
    within("stone_l_h", stone_l_h, 0, 500, "L/h")
    return stone_l_h * air_lph / 60 * depth_cm / 30


def fall_transfer_l_h(flow_lph: Number, fall_cm: Number, temp_c: Number, weir: Number = 0.8) -> Number:
    """Gas exchange that falling water adds: an overflow, a spray bar, a trickle tower.

    Equation: k·V = Q·(1 − 1/r), r = 1 + 0.38·a·b·h·(1 − 0.11·h)·(1 + 0.046·T), a = 1.2
    Parameters:
        flow_lph: L/h, scalar or array, 0 to 1e7. Falling.
        fall_cm: cm, scalar or array, 0 to 400. Height of the fall.
        temp_c: °C, scalar or array, 0 to 45. Water.
        weir: 1, scalar or array, 0.05 to 2. Shape of the fall b: 0.6 to 1.0 for a free fall.
    Returns: L/h, as broadcast.
    Raises: OutOfRange.
    Source: weir_aeration

    >>> round(fall_transfer_l_h(flow_lph=1000, fall_cm=30, temp_c=20), 1)
    168.9
    """
    within("flow_lph", flow_lph, 0, 1e7, "L/h")
    within("fall_cm", fall_cm, 0, 400, "cm")
    within("temp_c", temp_c, 0, 45, "°C")
    within("weir", weir, 0.05, 2, "1")
    height_m = fall_cm / 100
    ratio = 1 + 0.38 * 1.2 * weir * height_m * (1 - 0.11 * height_m) * (1 + 0.046 * temp_c)
    return flow_lph * (1 - 1 / ratio)


def steady_oxygen_mg_l(use_mg_h: float, volume_l: float, transfer_per_h: float, saturation_mg_l: float) -> float:
    """Oxygen at which what is used and what the air brings balance.

    Equation: C = C* − R/(k·V)
    Parameters:
        use_mg_h: mg/h, scalar, 0 to 1e8. Used by all.
        volume_l: L, scalar, 0.01 to 1e7. Water.
        transfer_per_h: 1/h, scalar, 0 to 1000. Exchange rate k.
        saturation_mg_l: mg/L, scalar, 0 to 30. In balance with air.
    Returns: mg/L, scalar.
    Raises: OutOfRange; NamedCase "can_not_breathe" when the balance lies below nothing.
    Source: balance

    >>> round(steady_oxygen_mg_l(use_mg_h=50, volume_l=100, transfer_per_h=0.5, saturation_mg_l=8), 3)
    7.0
    """
    check_oxygen(use_mg_h, volume_l, transfer_per_h, saturation_mg_l)
    if use_mg_h == 0:
        return saturation_mg_l
    if use_mg_h > transfer_per_h * volume_l * saturation_mg_l:
        raise NamedCase("can_not_breathe", use=use_mg_h, most=transfer_per_h * volume_l * saturation_mg_l)
    return saturation_mg_l - use_mg_h / (transfer_per_h * volume_l)


def oxygen_after_mg_l(
    hours: float,
    start_mg_l: float,
    use_mg_h: float,
    volume_l: float,
    transfer_per_h: float,
    saturation_mg_l: float,
) -> float:
    """Oxygen after some hours of use and exchange.

    Equation: dC/dt = k·(C* − C) − R/V, solved exactly
    Parameters:
        hours: h, scalar, 0 to 100000. Passed.
        start_mg_l: mg/L, scalar, 0 to 30. At the start.
        use_mg_h: mg/h, scalar, 0 to 1e8. Used by all.
        volume_l: L, scalar, 0.01 to 1e7. Water.
        transfer_per_h: 1/h, scalar, 0 to 1000. Exchange rate k.
        saturation_mg_l: mg/L, scalar, 0 to 30. In balance with air.
    Returns: mg/L, scalar.
    Raises: OutOfRange; NamedCase "can_not_breathe" when all oxygen is used up before then.
    Source: balance
    """
    within("hours", hours, 0, 100_000, "h")
    within("start_mg_l", start_mg_l, 0, 30, "mg/L")
    check_oxygen(use_mg_h, volume_l, transfer_per_h, saturation_mg_l)
    if transfer_per_h == 0:
        level = start_mg_l - use_mg_h / volume_l * hours
    else:
        steady = saturation_mg_l - use_mg_h / (transfer_per_h * volume_l)
        level = steady + (start_mg_l - steady) * math.exp(-transfer_per_h * hours)
    if level < 0:
        raise NamedCase("can_not_breathe", use=use_mg_h, most=transfer_per_h * volume_l * saturation_mg_l)
    return level


def hours_to_oxygen_floor(
    start_mg_l: float,
    use_mg_h: float,
    volume_l: float,
    transfer_per_h: float,
    saturation_mg_l: float,
    floor_mg_l: float = 4.0,
) -> float:
    """Hours until oxygen has sunk to a floor.

    Equation: t = ln((C0 − Cs)/(floor − Cs))/k, Cs = C* − R/(k·V); (C0 − floor)·V/R when k = 0
    Parameters:
        start_mg_l: mg/L, scalar, 0 to 30. At the start.
        use_mg_h: mg/h, scalar, 0 to 1e8. Used by all.
        volume_l: L, scalar, 0.01 to 1e7. Water.
        transfer_per_h: 1/h, scalar, 0 to 1000. Exchange rate k.
        saturation_mg_l: mg/L, scalar, 0 to 30. In balance with air.
        floor_mg_l: mg/L, scalar, 0 to 30. Level that must not be passed.
    Returns: h, scalar; 0 when it starts at or below the floor.
    Raises: OutOfRange; NamedCase "floor_never_reached" when it settles above the floor.
    Source: balance
    """
    within("start_mg_l", start_mg_l, 0, 30, "mg/L")
    within("floor_mg_l", floor_mg_l, 0, 30, "mg/L")
    check_oxygen(use_mg_h, volume_l, transfer_per_h, saturation_mg_l)
    if start_mg_l <= floor_mg_l:
        return 0.0
    if transfer_per_h == 0:
        if use_mg_h == 0:
            raise NamedCase("floor_never_reached", settles=start_mg_l)
        return (start_mg_l - floor_mg_l) * volume_l / use_mg_h
    steady = saturation_mg_l - use_mg_h / (transfer_per_h * volume_l)
    if steady >= floor_mg_l:
        raise NamedCase("floor_never_reached", settles=steady)
    return math.log((start_mg_l - steady) / (floor_mg_l - steady)) / transfer_per_h


def check_oxygen(use_mg_h: float, volume_l: float, transfer_per_h: float, saturation_mg_l: float) -> None:
    """The ranges that every oxygen balance shares."""
    within("use_mg_h", use_mg_h, 0, 1e8, "mg/h")
    within("volume_l", volume_l, 0.01, 1e7, "L")
    within("transfer_per_h", transfer_per_h, 0, 1000, "1/h")
    within("saturation_mg_l", saturation_mg_l, 0, 30, "mg/L")
