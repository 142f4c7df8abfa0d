"""The water itself: its salinity and its conductivity."""

from loquen.core.graph.nodes import figure
from loquen.core.physics import chemistry


@figure(
    "Salinity of the tank",
    formula="{salinity_by}: {salinity_ppt} as entered, or S at which ρ(S, {water_c}) ÷ ρ(0, {hydrometer_c}) = {gravity_sg}; "
    "0 within half of {hydrometer_grain_sg} of what fresh water reads",
    source="teos10",
)
def tank_salinity_ppt(
    salinity_by: str,
    salinity_ppt: float,
    gravity_sg: float,
    hydrometer_c: float,
    water_c: float,
    hydrometer_grain_sg: float,
) -> float:
    if salinity_by == "ppt":
        return salinity_ppt
    fresh = float(chemistry.specific_gravity(0.0, water_c, hydrometer_c))
    if abs(gravity_sg - fresh) <= hydrometer_grain_sg / 2:
        return 0.0
    return chemistry.salinity_from_sg_ppt(gravity_sg, water_c, hydrometer_c)


@figure(
    "Conductivity the tank settles at",
    formula="{tank_us_cm} as measured, else ({new_us_cm} − {salt_us_cm}) × ({evaporation_l_d} × 7 + {change_l_wk}) ÷ "
    "{change_l_wk} when evaporation is topped up with unsalted change water ({topped_up}), + {salt_us_cm}",
    source="balance",
)
def settled_us_cm(
    tank_us_cm: float | None,
    new_us_cm: float,
    salt_us_cm: float,
    evaporation_l_d: float,
    change_l_wk: float,
    topped_up: str,
) -> float:
    if tank_us_cm is not None:
        return tank_us_cm
    if topped_up == "pure":
        return new_us_cm
    return salt_us_cm + float(chemistry.settled_solids(new_us_cm - salt_us_cm, evaporation_l_d, change_l_wk / 7))


@figure("Water of one change", formula="{passed_frac} × {real_volume_l}", source="definition")
def change_l(passed_frac: float, real_volume_l: float) -> float:
    return passed_frac * real_volume_l
