"""What all that is at work does to a water in an instant, each phenomenon with what it needs of the others."""

from dataclasses import replace

from loquen.core.physics.elementwise import Q
from loquen.core.timeline.process import (
    carbonate,
    disinfectant,
    heat,
    levels,
    lime,
    net,
    nitrogen,
    oxygen,
    plants,
    rot,
    soil,
    stagnation,
)
from loquen.core.timeline.process.nitrogen import Used
from loquen.core.timeline.state import State, unmoved
from loquen.core.timeline.surroundings import Surroundings
from loquen.core.timeline.warm import Warm, warm_at


def rates(now: State[Q], around: Surroundings[Q], hours: float = 0.0) -> State[Q]:
    """Change of every quantity in an hour, `hours` after these surroundings began."""
    out: State[Q] = unmoved()
    litres: Q | float = around.litres
    evaporated: Q | float = 0.0
    if around.heat is not None:
        evaporated = heat.evaporated_l_h(now.temp_c, around.heat.room_at(hours), around.heat.surface)
    if around.levels is not None:
        litres = now.volume_l
        levels.run_in_and_out(now, around.levels, evaporated, out)
    if around.heat is not None:
        heat.warm_or_cool(now, around.heat, hours, evaporated, litres, out)
    rotten = rot.rot(now, around.rot, litres, out) if around.rot is not None else None
    if around.plants is not None:
        plants.feed(now, around.plants, out)
    if around.soil is not None:
        soil.leach(now, around.soil, out)
    if around.lime is not None:
        lime.dissolve(now, around.lime, out)
    used = None
    if around.bacteria is not None:
        warm = warm_of(now, around)
        used = nitrogen.nitrify(
            now, around.bacteria, warm, hydrogen(now, around, warm), litres, around.oxygen is not None, out
        )
    if around.stagnation is not None:
        stagnation.stagnate(now, around.stagnation, out)
    if around.oxygen is not None:
        taken = oxygen.breathe(now, around.oxygen, used, rotten, litres, out)
        if around.carbon_dioxide is not None:
            carbonate.exchange(now, around.carbon_dioxide, around.oxygen.transfer_l_h, taken, litres, out)
    if around.disinfected:
        disinfectant.disinfect(now, around.bacteria, out)
    if around.net is not None:
        net.make(now, around.net, out)
    return out


def used_by_bacteria(now: State[Q], around: Surroundings[Q]) -> Used[Q] | None:
    """Ammonia and nitrite that bacteria take in an hour of this instant; None without any."""
    if around.bacteria is None:
        return None
    warm, litres = warm_of(now, around), around.litres if around.levels is None else now.volume_l
    h = hydrogen(now, around, warm)
    return nitrogen.nitrify(now, around.bacteria, warm, h, litres, around.oxygen is not None, unmoved())


def warm_of(now: State[Q], around: Surroundings[Q]) -> Warm[Q]:
    """What temperature and salt set at this instant."""
    return around.warm if around.warm is not None else warm_at(now.temp_c, now.salinity)


def hydrogen(now: State[Q], around: Surroundings[Q], warm: Warm[Q] | None = None) -> Q:
    """10^−pH of a water."""
    found = carbonate.hydrogen(now, warm or warm_of(now, around), around.least_hydrogen)
    return soil.holding(found, now, around.soil) if around.soil is not None else found


def free_ammonia(now: State[Q], around: Surroundings[Q]) -> Q:
    """Un-ionised ammonia, mg/L N."""
    warm = warm_of(now, around)
    return nitrogen.free_ammonia(now.ammonia, hydrogen(now, around, warm), warm)


def steady_oxygen(state: State[float], around: Surroundings[float]) -> float:
    """Oxygen at which as much comes in as is used, mg/L."""
    assert around.oxygen is not None
    part = around.oxygen
    most = oxygen.balance_mg_l(state.temp_c, state.salinity, part.altitude_m) + part.given_mg_h / max(
        part.transfer_l_h, 1e-9
    )

    def gains(level: float) -> float:
        return rates(replace(state, oxygen=level), around).oxygen

    from scipy.optimize import brentq

    return float(brentq(gains, 0.0, most, xtol=1e-6)) if gains(0.0) > 0 else 0.0
