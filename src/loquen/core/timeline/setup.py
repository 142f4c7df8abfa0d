"""From a sheet to what runs through time: its numbers are taken once, and no step asks the sheet again."""

from dataclasses import dataclass
from typing import Any

from loquen.core.graph.asking import number
from loquen.core.graph.keys import Missing
from loquen.core.graph.sheet import Sheet
from loquen.core.timeline.process.constants import table

COLDEST_C, WARMEST_C = 5.0, 35.0
"""Between which the pace of bacteria is known."""
LEAST_MOST_CAPACITY = 1e-3
"""mg/L N a day that media carry, where there are next to none."""


@dataclass(frozen=True, slots=True)
class Tank:
    """A system's water as bacteria have it; None for what its sheet does not know."""

    litres: float
    temp_c: float | None
    kh_dkh: float | None
    """Of the water that comes in."""
    salinity_ppt: float
    x_max_mg_l_d: float
    """The most that its media carry, mg/L N a day."""


def tank_of(sheet: Sheet[Any]) -> Tank:
    """The water of a sheet; raise the case that its volume is."""
    litres, warm = float(sheet.value("real_volume_l")), number(sheet, "water_c")
    beds = sheet.look("beds")
    area_m2 = 0.0 if isinstance(beds, Missing) else beds.driven_m2
    return Tank(
        litres=litres,
        temp_c=None if warm is None else min(max(warm, COLDEST_C), WARMEST_C),
        kh_dkh=number(sheet, "new_kh_dkh"),
        salinity_ppt=number(sheet, "tank_salinity_ppt") or 0.0,
        x_max_mg_l_d=max(table().capacity_mg_m2_d * area_m2 / litres, LEAST_MOST_CAPACITY),
    )


def settled_capacity(growth: float, load_mg_l_d: float, pace: float, x_max_mg_l_d: float) -> float:
    """Capacity at which growth on a load and decay balance: growth·load·(1 − X/X_max) = decay·X, mg/L N a day."""
    fed, dies = growth * load_mg_l_d, float(table().decay_per_d) * pace
    return fed / (dies + fed / x_max_mg_l_d)
