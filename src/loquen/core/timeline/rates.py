"""What bacteria, plants and active soil do to a litre of water in an instant.

Nitrogen in mg/L of N, capacity in mg/L of N a day at full rate and 25 °C, carbonate hardness in dKH, days.
"""

import math
from dataclasses import dataclass
from functools import cache
from types import SimpleNamespace
from typing import Any

import numpy as np

from loquen.core.data.tables import constants
from loquen.core.physics.chemistry import ammonia, carbonate
from loquen.core.physics.chemistry.ammonia import kelvin
from loquen.core.physics.ranges import within
from loquen.core.timeline.arithmetic import Arithmetic, State

AMMONIA, NITRITE, NITRATE, ON_AMMONIA, ON_NITRITE, KH, SOIL, HOLD = range(8)
"""The quantities of a state, in order: three of nitrogen, two capacities, hardness, a soil's ammonia and its hold."""

LEAST_KH = 0.02
"""dKH: pH is reckoned from no less."""

MOL_PER_DKH = carbonate.MEQ_L_PER_DKH / 1000


@cache
def table() -> SimpleNamespace:
    """The likely values of cycle.toml by name."""
    values = {name: row.value for name, row in constants("cycle.toml").items()}
    return SimpleNamespace(half_acid=10 ** values["half_acid_ph"], **values)


@cache
def floors(least_kh: float = 0.0) -> tuple[float, ...]:
    """What no quantity of a state falls under; active soil takes the acid that would bring hardness lower."""
    least = table().least_capacity_mg_l_d
    return (0.0, 0.0, 0.0, least, least, least_kh, 0.0, 0.0)


@dataclass(frozen=True, slots=True)
class Water:
    """What the rates hang on besides the state: each a number, or an array over members.

    `acid` is K1·CO2/2, `carbonate` 8·K2/(K1·CO2), `davies` −ln 10 times Davies' A: pH comes from carbonate hardness and
    these alone. `ammonium` is 1/Ka of ammonium.
    """

    warmth: Any
    death: Any
    growth_a: Any
    growth_n: Any
    half_a: Any
    half_n: Any
    per_most_capacity: Any
    load: Any
    plants: Any
    soil_release: Any
    acid: Any
    carbonate: Any
    davies: Any
    ammonium: Any
    least_hydrogen: Any
    soil_hydrogen: Any
    soil_takes: Any
    planted: bool = True
    soiled: bool = True
    bounded: bool = True
    least_kh: float = 0.0


def of_temperature(temp_c: Any, co2_mg_l: float, salinity_ppt: float = 0.0) -> dict[str, Any]:
    """What temperature, CO2 and salt set, as fields of `Water`: scalar or array of °C."""
    within("temp_c", temp_c, 0, 36, "°C")
    c = table()
    temps = np.atleast_1d(np.asarray(temp_c, dtype=float))
    k1 = np.array([10 ** -carbonate.carbonic_pk1(t) for t in temps])
    k2 = np.array([10 ** -carbonate.carbonic_pk2(t) for t in temps])
    # Water gives off what it holds over the air's CO2, never the other way: no pH is higher than that of aerated water.
    air = np.array([carbonate.carbon_dioxide_mol_l(t, 420.0) for t in temps])
    co2 = np.maximum(co2_mg_l / carbonate.CO2_G_MOL / 1000, air)
    k = kelvin(temps)
    permittivity = 87.740 - 0.40008 * temps + 9.398e-4 * temps**2 - 1.410e-6 * temps**3
    warmth = c.warmth_per_k ** (np.minimum(temps, c.warmest_c) - 25)
    found = {
        "warmth": warmth,
        "death": c.decay_per_d * warmth,
        "acid": k1 * co2 / 2,
        "carbonate": 8 * k2 / (k1 * co2),
        "davies": -math.log(10) * 1.82483e6 * (permittivity * k) ** -1.5,
        "ammonium": 10 ** ammonia.ammonium_pka(temps, salinity_ppt),
    }
    return {key: float(row[0]) if np.ndim(temp_c) == 0 else row for key, row in found.items()}


def hydrogen(kh: Any, hold: Any, w: Water, m: Arithmetic) -> Any:
    """10^−pH from carbonate hardness: the quadratic of bicarbonate and carbonate in balance with CO2."""
    alkalinity = m.most(kh, LEAST_KH) * MOL_PER_DKH
    root = m.sqrt(alkalinity)
    gamma = m.exp(w.davies * (root / (1 + root) - 0.3 * alkalinity))
    active = gamma * alkalinity
    found = m.most(
        w.acid * (1 + m.sqrt(1 + w.carbonate * active / (gamma * gamma * gamma))) / active, w.least_hydrogen
    )
    return m.where(hold > 0, m.most(found, w.soil_hydrogen), found) if w.soiled else found


def speed(h: Any, w: Water) -> Any:
    """Rate of nitrification by warmth and acid, as a share of that at 25 °C in neutral water."""
    acid = h * table().half_acid
    return w.warmth / (1 + acid * acid)


def free_ammonia(ammonia: Any, h: Any, w: Water) -> Any:
    """Un-ionised part of the ammonia, mg/L N."""
    return ammonia / (1 + h * w.ammonium)


def rates(state: State, w: Water, m: Arithmetic) -> tuple[Any, ...]:
    """Change of every quantity in a day."""
    ammonia, nitrite, nitrate, on_ammonia, on_nitrite, kh, soil, hold = state
    c = table()
    h = hydrogen(kh, hold, w, m)
    f = speed(h, w)
    free = free_ammonia(ammonia, h, w)
    use_a = (
        on_ammonia
        * f
        * ammonia
        / ((w.half_a + ammonia) * (1 + free / c.free_ammonia_on_ammonia_oxidisers_mg_l))
        * kh
        / (kh + c.half_kh_dkh)
    )
    use_n = (
        on_nitrite * f * nitrite / ((w.half_n + nitrite) * (1 + free / c.free_ammonia_on_nitrite_oxidisers_mg_l))
    )
    made = w.load
    given_up = taken = 0.0
    if w.soiled:
        given_up = w.soil_release * soil
        made = made + given_up
        taken = m.where(hold > 0, w.soil_takes * kh, 0.0)
    by_plants_a = by_plants_c = 0.0
    if w.planted:
        by_plants_a = w.plants * ammonia / (ammonia + c.plants_half_ammonia_mg_l)
        by_plants_c = (w.plants - by_plants_a) * nitrate / (nitrate + c.plants_half_nitrate_mg_l)
    room_a = room_n = 1.0
    if w.bounded:
        room_a = m.most(1 - on_ammonia * w.per_most_capacity, 0.0)
        room_n = m.most(1 - on_nitrite * w.per_most_capacity, 0.0)
    return (
        made - use_a - by_plants_a,
        use_a - use_n,
        use_n - by_plants_c,
        w.growth_a * use_a * room_a - w.death * on_ammonia,
        w.growth_n * use_n * room_n - w.death * on_nitrite,
        c.kh_per_n * (made - by_plants_a + by_plants_c - 2 * use_a) - taken,
        -given_up,
        -carbonate.MEQ_L_PER_DKH * taken,
    )


MOST_OF_A_STEP = 0.25
"""mg/L of N that bacteria may take in one step, so that the straight line over it stays near the curve."""


def stepped(state: State, w: Water, m: Arithmetic, days: float) -> State:
    """The state some days later, by Heun's method in as many parts as its bacteria are quick."""
    quickest = max(m.top(state[ON_AMMONIA]), m.top(state[ON_NITRITE])) * m.top(w.warmth) * days / MOST_OF_A_STEP
    if w.planted:
        grabbing = m.top(w.plants) * days * table().half_ammonia_mg_l / table().plants_half_ammonia_mg_l
        quickest = max(quickest, grabbing / MOST_OF_A_STEP)
    parts = max(1, math.ceil(quickest))
    low = floors(w.least_kh)
    for _ in range(parts):
        first = rates(state, w, m)
        second = rates(m.moved(state, days / parts, first, low), w, m)
        state = m.moved(state, days / parts, m.mean(first, second), low)
    return state


def water(
    *,
    temp_c: Any,
    co2_mg_l: float,
    ph_highest: float | None = None,
    x_max_mg_l_d: float | None = None,
    load_mg_l_d_n: Any = 0.0,
    plants_take_mg_l_d_n: float = 0.0,
    soil_release_per_d: float = 0.0,
    soil_holds_ph_at_most: float | None = None,
    soil_takes_kh_per_d: float = 0.0,
    soil_least_kh_dkh: float = 0.0,
    soiled: bool = False,
    salinity_ppt: float = 0.0,
) -> Water:
    """The water of a plan, from figures that a keeper reads."""
    c = table()
    return Water(
        growth_a=c.growth_ammonia_oxidisers,
        growth_n=c.growth_nitrite_oxidisers,
        half_a=c.half_ammonia_mg_l,
        half_n=c.half_nitrite_mg_l,
        per_most_capacity=1 / x_max_mg_l_d if x_max_mg_l_d else 0.0,
        load=load_mg_l_d_n,
        plants=plants_take_mg_l_d_n,
        soil_release=soil_release_per_d,
        least_hydrogen=10**-ph_highest if ph_highest is not None else 0.0,
        soil_hydrogen=10**-soil_holds_ph_at_most if soil_holds_ph_at_most is not None else 0.0,
        soil_takes=soil_takes_kh_per_d,
        planted=plants_take_mg_l_d_n > 0,
        soiled=soiled,
        least_kh=soil_least_kh_dkh,
        bounded=x_max_mg_l_d is not None,
        **of_temperature(temp_c, co2_mg_l, salinity_ppt),
    )
