"""A first plan from what a keeper has: the animals, or the glass."""

from dataclasses import replace

from loquen.core.data import library
from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import Verdict
from loquen.core.model.plan import Filter, Group, Heat, Plan, RunIn, Tank, Water
from loquen.core.system.book import sheet_of

SPACE_CHECKS = ("litres_enough", "length_enough", "width_enough")
FIRST_FILTERS = ("canister_300", "canister_600", "canister_1000", "canister_1500", "canister_2400")


def from_animals(name: str, animals: tuple[Group, ...]) -> Plan:
    """The smallest stock tank with room for these animals full grown, with water, heat and filter to match.

    Raises: NamedCase "no_stock_tank" when none is large enough; UnknownKey for an unknown animal.
    """
    plan = suited_to(Plan(name=name, animals=animals))
    for stock in library.stock_tanks().values():
        tank = Tank(
            tank_length_cm=stock.length_cm,
            tank_width_cm=stock.width_cm,
            tank_height_cm=stock.height_cm,
            pane_mm=stock.pane_mm,
        )
        candidate = replace(plan, tank=tank)
        if all(passes(candidate, key) for key in SPACE_CHECKS):
            return with_filter(candidate)
    raise NamedCase("no_stock_tank")


def from_tank(name: str, tank: Tank) -> Plan:
    """A plan around a tank, with no animals and a filter of a general turnover."""
    return with_filter(Plan(name=name, tank=tank))


def passes(plan: Plan, key: str) -> bool:
    verdict = sheet_of(plan).look(key)
    return isinstance(verdict, Verdict) and verdict.state != "short"


def suited_to(plan: Plan) -> Plan:
    """The plan with temperature, pH, hardness and salinity in the middle of what all animals share."""
    kinds = [library.species()[group.species] for group in plan.animals]
    if not kinds:
        return plan

    def middle(low: str, high: str, digits: int = 1) -> float:
        least, most = max(getattr(k, low) for k in kinds), min(getattr(k, high) for k in kinds)
        return round(float(least + most) / 2, digits)

    target = middle("temp_low_c", "temp_high_c")
    usual = Heat()
    heat = replace(usual, target_c=target, heated=target > usual.room_mean_c, cut_out=True)
    salinity = max(k.salinity_low_ppt for k in kinds)
    water = Water(
        tank_ph=middle("ph_low", "ph_high"),
        tank_gh_dgh=middle("gh_low_dgh", "gh_high_dgh", 0),
        salinity_ppt=salinity,
        source_c=target,
    )
    return replace(plan, heat=heat, water=water, run_in=RunIn(stocked="cycled"))


def filter_of(key: str) -> Filter:
    """A library filter as a row of a plan."""
    model = library.filter_models()[key]
    return Filter(
        filter_kind=model.kind,
        media=model.media_key,
        media_l=model.media_l,
        rated_lph=model.rated_lph,
        holds_l=model.holds_l,
        filter_w=model.watts,
    )


def with_filter(plan: Plan) -> Plan:
    """The plan with the smallest generic canister that brings its turnover and carries its waste, else the largest."""
    for key in FIRST_FILTERS:
        candidate = replace(plan, filters=(filter_of(key),))
        if plan.animals:
            fits = passes(candidate, "turnover_fits") and passes(candidate, "media_carry")
        else:
            sheet = sheet_of(candidate)
            fits = sheet.value("turnover_per_h") >= library.turnovers()["general"].low_per_h
        if fits:
            return candidate
    return replace(plan, filters=(filter_of(FIRST_FILTERS[-1]),))
