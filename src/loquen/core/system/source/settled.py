"""The water itself: its salinity, its conductivity, its hardness and its pH."""

import math

from loquen.core.errors import NamedCase
from loquen.core.graph.asking import number
from loquen.core.graph.judging import tight_past, within_band
from loquen.core.graph.nodes import Verdict, check, figure
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Term, of, say
from loquen.core.model.roots.plan import Plan
from loquen.core.physics import chemistry
from loquen.core.physics.nitrogen import CACO3_MG_L_PER_DKH
from loquen.core.system.source.recipe import salts_us_cm


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
    "{change_l_wk} when evaporation is topped up with unsalted change water ({topped_up}), + {salt_us_cm}, + what "
    "{floor_gh_dgh} of calcium bicarbonate conducts; 1 at least",
    source="balance",
)
def settled_us_cm(
    tank_us_cm: float | None,
    new_us_cm: float,
    salt_us_cm: float,
    evaporation_l_d: float,
    change_l_wk: float,
    topped_up: str,
    floor_gh_dgh: float | None,
) -> float:
    if tank_us_cm is not None:
        return tank_us_cm
    dissolved = lime_us_cm(floor_gh_dgh or 0.0)
    if topped_up == "pure":
        return max(salt_us_cm, new_us_cm + dissolved, LEAST_US_CM)
    poured = float(chemistry.settled_solids(new_us_cm - salt_us_cm, evaporation_l_d, change_l_wk / 7))
    return max(LEAST_US_CM, salt_us_cm + max(0.0, poured + dissolved))


def lime_us_cm(gh_dgh: float) -> float:
    """What lime that gives so much GH adds to conductivity, or soil that takes it takes."""
    return math.copysign(salts_us_cm({"calcium_carbonate": abs(gh_dgh) * CACO3_MG_L_PER_DKH}), gh_dgh)


@figure(
    "GH the tank settles at",
    formula="{tank_gh_dgh} where no waters are mixed ({src_parts}) and nothing is added ({added_dgh}); else {new_gh_dgh} "
    "× ({evaporation_l_d} × 7 + {change_l_wk}) ÷ {change_l_wk} when evaporation is topped up with change water ({topped_up}), "
    "+ {floor_gh_dgh}, not below 0; not over {salted_ppt}, {tank_salinity_ppt}",
    source="balance",
)
def settled_gh_dgh(
    tank_gh_dgh: float,
    src_parts: tuple[float, ...],
    added_dgh: float,
    new_gh_dgh: float,
    evaporation_l_d: float,
    change_l_wk: float,
    topped_up: str,
    tank_salinity_ppt: float,
    salted_ppt: float,
    floor_gh_dgh: float | None,
) -> float:
    if tank_salinity_ppt > salted_ppt:
        raise NamedCase("salt_hardens")
    if not src_parts and added_dgh == 0:
        return tank_gh_dgh
    creeps = topped_up != "pure"
    poured = float(chemistry.settled_solids(new_gh_dgh, evaporation_l_d, change_l_wk / 7)) if creeps else new_gh_dgh
    return max(0.0, poured + (floor_gh_dgh or 0.0))


LEAST_US_CM = 1.0
"""Purer no tank stands."""
LEAST_DKH = 0.2
"""Under this it is not the carbonate that holds pH."""


def need_carbonate(settled_kh_dkh: float, tank_salinity_ppt: float, salted_ppt: float) -> None:
    """Raise NamedCase "not_needed" where it is not carbonate that holds pH, or salt moves its balance."""
    if settled_kh_dkh < LEAST_DKH or tank_salinity_ppt > salted_ppt:
        raise NamedCase("not_needed")


@figure(
    "Lowest pH that this KH lets stand",
    formula="pH of {settled_kh_dkh} at {water_c} with {co2_borne_mg_l} of CO2; not over {salted_ppt}, {tank_salinity_ppt}",
    source="plummer1982",
    kind="ph",
)
def least_ph(
    settled_kh_dkh: float, water_c: float, co2_borne_mg_l: float, tank_salinity_ppt: float, salted_ppt: float
) -> float:
    need_carbonate(settled_kh_dkh, tank_salinity_ppt, salted_ppt)
    return chemistry.ph_from_kh_co2(settled_kh_dkh, co2_borne_mg_l, water_c)


@figure(
    "pH of the tank once aired",
    formula="aerated pH of {settled_kh_dkh} at {water_c}, air at {room_co2_ppm}; not over {salted_ppt}, {tank_salinity_ppt}",
    source="plummer1982",
    kind="ph",
)
def aired_ph(
    settled_kh_dkh: float, water_c: float, room_co2_ppm: float, tank_salinity_ppt: float, salted_ppt: float
) -> float:
    need_carbonate(settled_kh_dkh, tank_salinity_ppt, salted_ppt)
    return chemistry.aerated_ph(settled_kh_dkh, water_c, room_co2_ppm)


@check("pH and KH fit together", stage="source", judges="least_ph")
def ph_fits_kh(
    tank_ph: float,
    settled_kh_dkh: float,
    least_ph: float,
    aired_ph: float,
    co2_borne_mg_l: float,
    ph_leeway: float,
) -> Verdict:
    """Whether the pH that was entered can stand at the carbonate hardness the tank settles at."""
    terms = {
        "ph": Term(tank_ph, "ph"),
        "kh": of(settled_kh_dkh, "settled_kh_dkh"),
        "co2": Term(co2_borne_mg_l, "level"),
        "least": of(least_ph, "least_ph"),
        "aired": of(aired_ph, "aired_ph"),
    }
    text = "At {kh}, pH lies from {least}, with {co2} of carbon dioxide, to {aired}, aired; {ph} was entered."
    if tank_ph < least_ph:
        text = (
            "{ph} at {kh} would take more than the {co2} of carbon dioxide that fish bear; aired it comes to {aired}. "
            "One of the two will not stay, unless peat or another acid holds it: test both, and expect the higher pH."
        )
    elif tank_ph > aired_ph + ph_leeway:
        text = (
            "{ph} is more than air leaves at {kh}, {aired}: plants by day, lime, or one of the two is misread. "
            "Test both early in the morning."
        )
    verdict = within_band(tank_ph, least_ph, aired_ph + ph_leeway, "ph", say(text, **terms))
    return tight_past(verdict, "test both") if verdict.state == "short" else verdict


def hardness_dgh(sheet: Sheet[Plan]) -> float:
    """The GH that a tank lives in: what it settles at, or what it has where that is not known."""
    settled = number(sheet, "settled_gh_dgh")
    return sheet.root.water.tank_gh_dgh if settled is None else settled


@figure("Water of one change", formula="{passed_frac} × {real_volume_l}", source="definition")
def change_l(passed_frac: float, real_volume_l: float) -> float:
    return passed_frac * real_volume_l
