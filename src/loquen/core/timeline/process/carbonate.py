"""pH from carbonate hardness and carbon dioxide, and the carbon dioxide that breathing and the air give and take."""

from dataclasses import dataclass

from loquen.core.physics.chemistry import carbonate
from loquen.core.physics.elementwise import Q, at_least, at_most
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.state import State
from loquen.core.timeline.warm import WARMEST_C, Warm

LEAST_KH_DKH = 0.02
LEAST_CO2_MG_L = 0.1
MOL_PER_DKH = carbonate.MEQ_L_PER_DKH / 1000
MOL_PER_MG_CO2 = 1 / carbonate.CO2_G_MOL / 1000
KH_PER_N_USED = 2 * table().kh_per_n
"""Two of hardness for each of nitrogen that is oxidised: what it gave as ammonia, and as much again."""
OUTDOOR_PPM, ROOM_PPM = 420.0, 600.0
"""Carbon dioxide in the air."""


def hydrogen(now: State[Q], warm: Warm[Q], least: float = 0.0) -> Q:
    """10^−pH from hardness and carbon dioxide, no less than at the highest pH that is allowed."""
    alkalinity = at_least(now.kh, LEAST_KH_DKH) * MOL_PER_DKH
    co2 = at_least(now.carbon_dioxide, LEAST_CO2_MG_L) * MOL_PER_MG_CO2
    found: Q = carbonate.hydrogen_mol_l(alkalinity, co2, warm.carbonic)
    return at_least(found, least) if least else found


def room_co2_mg_l(temp_c: Q) -> Q:
    """Carbon dioxide of water in balance with the air of a room."""
    return air_co2_mg_l(temp_c, ROOM_PPM)


def outdoor_co2_mg_l(temp_c: Q) -> Q:
    """The same with the air outdoors: the least that water of a room holds."""
    return air_co2_mg_l(temp_c, OUTDOOR_PPM)


def air_co2_mg_l(temp_c: Q, co2_ppm: float) -> Q:
    """Carbon dioxide of water in balance with air."""
    found: Q = carbonate.carbon_dioxide_mol_l(at_most(temp_c, WARMEST_C), co2_ppm) / MOL_PER_MG_CO2
    return found


@dataclass(frozen=True, slots=True)
class CarbonDioxide:
    """Given off for each milligram of oxygen used (mg), and its exchange with the air against oxygen's."""

    per_oxygen: float
    against_oxygen: float


def exchange(
    now: State[Q], part: CarbonDioxide, transfer_l_h: float, used_mg_h: Q, litres: Q | float, out: State[Q]
) -> None:
    """Add what the air takes or brings, and what breathing and rot give off."""
    over = now.carbon_dioxide - room_co2_mg_l(now.temp_c)
    out.carbon_dioxide += (part.per_oxygen * used_mg_h - part.against_oxygen * transfer_l_h * over) / litres
