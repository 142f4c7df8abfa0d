"""Heat lost, made and stored by a tank."""

import math

import numpy as np

from loquen.core.data.materials import materials
from loquen.core.errors import NamedCase
from loquen.core.physics.elementwise import exp
from loquen.core.physics.ranges import Number, within

SECONDS_PER_DAY = 86_400
WATER_HEAT_J_L_K, J_PER_KWH = 4186.0, 3.6e6


def wall_u_w_m2k(
    thickness_mm: Number, material: str, outside_w_m2k: Number = 9.0, inside_w_m2k: Number = 300.0
) -> Number:
    """Heat that passes a wall between water and room air.

    Equation: U = 1/(1/outside + t/k + 1/inside)
    Parameters:
        thickness_mm: mm, scalar or array, 0 to 500. The wall.
        material: a key of materials.csv.
        outside_w_m2k: W/m²K, scalar or array, 1 to 50. Film of air; 7 to 11 in a room.
        inside_w_m2k: W/m²K, scalar or array, 10 to 5000. Film of water.
    Returns: W/m²K, as broadcast.
    Raises: OutOfRange; UnknownKey.
    Source: film

    >>> round(wall_u_w_m2k(8, "glass"), 3)
    8.167
    """
    return layered_u_w_m2k([(thickness_mm, material)], outside_w_m2k, inside_w_m2k)


def layered_u_w_m2k(
    layers: list[tuple[Number, str]], outside_w_m2k: Number = 9.0, inside_w_m2k: Number = 300.0
) -> Number:
    """Heat that passes a wall of several layers.

    Equation: U = 1/(1/outside + Σ t/k + 1/inside)
    Parameters:
        layers: pairs of thickness in mm (0 to 500) and a key of materials.csv.
        outside_w_m2k: W/m²K, scalar or array, 1 to 50. Film of air.
        inside_w_m2k: W/m²K, scalar or array, 10 to 5000. Film of water.
    Returns: W/m²K, as broadcast.
    Raises: OutOfRange; UnknownKey.
    Source: film

    >>> round(layered_u_w_m2k(layers=[[10, "glass"], [20, "polystyrene"]], outside_w_m2k=6), 3)
    1.331
    """
    within("outside_w_m2k", outside_w_m2k, 1, 50, "W/m2K")
    within("inside_w_m2k", inside_w_m2k, 10, 5000, "W/m2K")
    resistance = 1 / outside_w_m2k + 1 / inside_w_m2k
    for thickness_mm, material in layers:
        within("thickness_mm", thickness_mm, 0, 500, "mm")
        resistance = resistance + thickness_mm / 1000 / materials()[material].conductivity_w_mk
    return 1 / resistance


def vapour_pressure_kpa(temp_c: Number) -> Number:
    """Vapour pressure over water.

    Equation: p = 0.61121·exp((18.678 − T/234.5)·T/(257.14 + T))
    Parameters:
        temp_c: °C, scalar or array, 0 to 60. Water or air.
    Returns: kPa, as temp_c.
    Raises: OutOfRange.
    Source: buck1996

    >>> round(vapour_pressure_kpa(temp_c=25), 3)
    3.169
    """
    within("temp_c", temp_c, 0, 60, "°C")
    return pressing_kpa(temp_c)


def pressing_kpa(temp_c: Number) -> Number:
    """The same of a temperature that is known to lie in range."""
    return 0.61121 * exp((18.678 - temp_c / 234.5) * temp_c / (257.14 + temp_c))


def latent_heat_kj_kg(water_c: Number) -> Number:
    """Heat that evaporating a kilogram of water takes.

    Equation: Y = 2501 − 2.361·T
    Parameters:
        water_c: °C, scalar or array, 0 to 60. Water.
    Returns: kJ/kg, as water_c.
    Raises: OutOfRange.
    Source: ashrae_pools

    >>> round(latent_heat_kj_kg(water_c=25))
    2442
    """
    within("water_c", water_c, 0, 60, "°C")
    return taken_kj_kg(water_c)


def taken_kj_kg(water_c: Number) -> Number:
    """The same of a temperature that is known to lie in range."""
    return 2501 - 2.361 * water_c


def evaporation_l_d(
    surface_m2: Number,
    water_c: Number,
    air_c: Number,
    humidity_frac: Number,
    cover_frac: Number = 0.0,
    air_m_s: Number = 0.0,
    calm_frac: Number = 0.5,
    cover_effect: Number = 0.9,
) -> Number:
    """Water that evaporates from a calm surface in a day.

    Equation: E = 86400·F·A·(p_w − φ·p_a)·(0.089 + 0.0782·v)/Y, F = calm·(1 − effect·cover), never below 0
    Parameters:
        surface_m2: m², scalar or array, 0 to 10000. Open water.
        water_c: °C, scalar or array, 0 to 45. Water.
        air_c: °C, scalar or array, 0 to 45. Room.
        humidity_frac: share, scalar or array, 0 to 1. Relative humidity of the room.
        cover_frac: share, scalar or array, 0 to 1. Of the surface under a lid.
        air_m_s: m/s, scalar or array, 0 to 10. Air over the surface.
        calm_frac: share, scalar or array, 0 to 2. Of a busy pool's evaporation that a calm surface has.
        cover_effect: share, scalar or array, 0 to 1. Of the evaporation that a whole lid keeps back.
    Returns: L/d, as broadcast.
    Raises: OutOfRange.
    Source: ashrae_pools

    >>> round(evaporation_l_d(0.405, 25, 18, 0.5), 2)
    1.36
    """
    within("surface_m2", surface_m2, 0, 10_000, "m2")
    within("water_c", water_c, 0, 45, "°C")
    within("air_c", air_c, 0, 45, "°C")
    within("humidity_frac", humidity_frac, 0, 1, "share")
    within("cover_frac", cover_frac, 0, 1, "share")
    within("air_m_s", air_m_s, 0, 10, "m/s")
    within("calm_frac", calm_frac, 0, 2, "share")
    within("cover_effect", cover_effect, 0, 1, "share")
    activity = calm_frac * (1 - cover_effect * cover_frac)
    return evaporating_l_d(surface_m2 * activity, water_c, air_c, humidity_frac, air_m_s)


def evaporating_l_d(
    active_m2: Number, water_c: Number, air_c: Number, humidity_frac: Number, air_m_s: Number = 0.0
) -> Number:
    """The same of a surface as active as a busy pool's, of numbers that are known to lie in range."""
    pull = pressing_kpa(water_c) - humidity_frac * pressing_kpa(air_c)
    litres = SECONDS_PER_DAY * active_m2 * pull * (0.089 + 0.0782 * air_m_s) / taken_kj_kg(water_c)
    return max(litres, 0.0) if isinstance(litres, float) else np.maximum(litres, 0.0)


def evaporation_loss_w(litres_d: Number, water_c: Number) -> Number:
    """Heat that evaporation takes.

    Equation: P = litres·Y·1000/86400
    Parameters:
        litres_d: L/d, scalar or array, 0 to 1e6. Evaporated.
        water_c: °C, scalar or array, 0 to 60. Water.
    Returns: W, as broadcast.
    Raises: OutOfRange.
    Source: ashrae_pools

    >>> round(evaporation_loss_w(litres_d=1, water_c=25), 2)
    28.26
    """
    within("litres_d", litres_d, 0, 1e6, "L/d")
    return litres_d * latent_heat_kj_kg(water_c) * 1000 / SECONDS_PER_DAY


def warm_up_h(volume_l: Number, power_w: Number, loss_w: Number, rise_c: Number) -> Number:
    """Hours to warm water by a heater while it loses heat.

    Equation: t = V·4186·rise/(P − loss)/3600
    Parameters:
        volume_l: L, scalar or array, 0 to 1e6. Water.
        power_w: W, scalar or array, 0 to 1e6. Heater.
        loss_w: W, scalar or array, -1e6 to 1e6. Mean loss meanwhile.
        rise_c: K, scalar or array, 0 to 45. Wanted rise.
    Returns: h, as broadcast.
    Raises: OutOfRange; NamedCase "heater_too_weak" when power does not exceed the loss.
    Source: balance

    >>> round(warm_up_h(volume_l=100, power_w=200, loss_w=0, rise_c=10), 3)
    5.814
    """
    within("volume_l", volume_l, 0, 1e6, "L")
    within("power_w", power_w, 0, 1e6, "W")
    within("loss_w", loss_w, -1e6, 1e6, "W")
    within("rise_c", rise_c, 0, 45, "K")
    if np.any(np.asarray(power_w) <= np.asarray(loss_w)):
        raise NamedCase("heater_too_weak", power=power_w, loss=loss_w)
    return volume_l * WATER_HEAT_J_L_K * rise_c / (power_w - loss_w) / 3600


def settle_temperature_c(power_w: Number, loss_w_k: Number, room_c: Number) -> Number:
    """Temperature at which constant power and loss meet.

    Equation: T = room + P/UA
    Parameters:
        power_w: W, scalar or array, 0 to 1e6. Heat put in.
        loss_w_k: W/K, scalar or array, 0.001 to 1e6. Loss per degree, evaporation linearised inside it.
        room_c: °C, scalar or array, -30 to 60. Room.
    Returns: °C, as broadcast.
    Raises: OutOfRange.
    Source: balance

    >>> round(settle_temperature_c(power_w=100, loss_w_k=10, room_c=18), 2)
    28.0
    """
    within("power_w", power_w, 0, 1e6, "W")
    within("loss_w_k", loss_w_k, 0.001, 1e6, "W/K")
    within("room_c", room_c, -30, 60, "°C")
    return room_c + power_w / loss_w_k


def cooling_h(volume_l: float, loss_w_k: float, from_c: float, to_c: float, room_c: float) -> float:
    """Hours for unheated water to cool.

    Equation: t = ρcV/UA·ln((from − room)/(to − room))/3600
    Parameters:
        volume_l: L, scalar, 0 to 1e6. Water.
        loss_w_k: W/K, scalar, 0.001 to 1e6. Loss per degree.
        from_c: °C, scalar, -5 to 60. At the start.
        to_c: °C, scalar, -5 to 60. At the end.
        room_c: °C, scalar, -30 to 60. Room.
    Returns: h, scalar; 0 when it is already there.
    Raises: OutOfRange; NamedCase "room_not_colder" when the room is not below the end.
    Source: balance

    >>> round(cooling_h(volume_l=100, loss_w_k=10, from_c=25, to_c=21.5, room_c=18), 3)
    8.06
    """
    within("volume_l", volume_l, 0, 1e6, "L")
    within("loss_w_k", loss_w_k, 0.001, 1e6, "W/K")
    within("from_c", from_c, -5, 60, "°C")
    within("to_c", to_c, -5, 60, "°C")
    within("room_c", room_c, -30, 60, "°C")
    if from_c <= to_c:
        return 0.0
    if to_c <= room_c:
        raise NamedCase("room_not_colder", room=room_c, to=to_c)
    seconds = WATER_HEAT_J_L_K * volume_l / loss_w_k * math.log((from_c - room_c) / (to_c - room_c))
    return seconds / 3600
