"""A first plan from what a keeper has: the animals, or the glass."""

import math
from collections.abc import Iterator
from dataclasses import replace

from loquen.core.errors import NamedCase
from loquen.core.graph.asking import number
from loquen.core.graph.judging import TIGHT_FRAC
from loquen.core.library.whole import Library
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.heat import Heat, Lamp, Light
from loquen.core.model.parts.running import Filter, RunIn
from loquen.core.model.parts.tank import Tank
from loquen.core.model.parts.water import Recipe, Water
from loquen.core.model.roots.plan import Plan
from loquen.core.physics.chemistry import ph_from_kh_co2
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.system.book import sheet_of
from loquen.core.system.planner.standing import Standing
from loquen.core.system.planner.steps.changing import delicate, regimes_to_propose
from loquen.core.system.planner.steps.filters import NEAR_USUAL, sold_filters, storms, surface
from loquen.core.system.planner.steps.glass import sold_tank
from loquen.core.system.planner.steps.land import land
from loquen.core.system.planner.steps.warmth import BASKING_LAMPS, fan, hot_lid
from loquen.core.system.planner.steps.water import hardness_borne, lime
from loquen.core.system.told import is_short, verdict_of

SPACE_CHECKS = ("litres_enough", "length_enough", "width_enough")
STOOD_ON = ("land_suits", "depth_suits")
IN_REACH = (
    *SPACE_CHECKS,
    *STOOD_ON,
    "in_balance",
    "pane_holds",
    "turnover_fits",
    "drift_fits",
    "media_carry",
    "dawn_breathes",
    "heaters_hold",
    "dead_heater_held",
    "summer_borne",
    "none_leaves",
    "reserve_lasts",
    "no_shock",
    "nitrate_held",
)
"""Checks that a larger tank, a larger part or another regime mends; the rest is said on the page."""
SOIL_KH_DKH, SOIL_PH = 4.0, 7.0
"""Kinds that want no more carbonate hardness than this, or whose water is as sour, are kept over active soil."""
FIRST_KIND, GENTLE_KIND = "canister", "sponge"
MOST_ALIKE = 3
"""Filters of the largest size beside each other."""
USUAL_CO2_MG_L = 10.0
"""In a tank with animals, where nobody adds any; keepers' practice, unverified."""
CHILLER_GRAIN_W = 10.0
COOLED_BELOW_K = 1.0
"""Below what they bear at most, where a chiller or a fan is set to start."""
LAMP_W_PER_CM = 0.25
DELICATE_NITRATE_MG_L = 20 / NITRATE_PER_N
"""Nitrate that a plan for delicate kinds is held under; others have the usual limit. Keepers' practice, unverified."""


def from_animals(name: str, animals: tuple[Group, ...], library: Library) -> Plan:
    """The smallest stock tank in which these animals' plan holds full grown, with water, heat, air and changes to match.

    Where none holds all that is in reach, that with least amiss, the smaller of two.
    Raises: NamedCase "no_stock_tank" when none has room; UnknownKey for an unknown animal.
    """
    plan = suited_to(Plan(name=name, animals=animals), library)
    best: tuple[int, Plan] | None = None
    for candidate in in_sold_tanks(plan, library):
        amiss = sum(not passes(candidate, key, library) for key in IN_REACH)
        if best is None or amiss < best[0]:
            best = (amiss, candidate)
        if amiss == 0:
            break
    if best is None:
        raise NamedCase("no_stock_tank")
    return best[1]


def in_sold_tanks(plan: Plan, library: Library) -> Iterator[Plan]:
    """The plan in every tank that is sold and has room for its animals, the smallest first, fitted out; where none has
    all the room that is asked for, in those that only just pass."""
    sold = [replace(plan, tank=sold_tank(key, library)) for key in library.stock_tanks]
    found = False
    for enough in (roomy, spacious):
        for bare in () if found else sold:
            candidate = next((one for one in landed(bare, library) if enough(one, library)), None)
            if candidate is not None:
                found = True
                yield fitted(candidate, library)


def landed(plan: Plan, library: Library) -> Iterator[Plan]:
    """The plan with dry places for those who leave the water, and filled as these let it be; as it is where none does."""
    if all(library.species[group.species].needs_land == "none" for group in plan.animals):
        yield plan
        return
    for one in land(Standing(plan, library), "land_suits"):
        if all(passes(one, key, library) for key in STOOD_ON):
            yield one


def on_land(plan: Plan, library: Library) -> Plan:
    """The plan with dry places where they fit, else as it is."""
    return next(landed(plan, library), plan)


def roomy(plan: Plan, library: Library) -> bool:
    """Whether there is all the room that is asked for: what is amber for a tank that is there is too little to buy; but
    kinds that are crowded on purpose want no more than passes, their litres by practice and not as a crowd."""
    sheet = sheet_of(plan, library)
    if any(library.species[group.species].crowd for group in plan.animals):
        least = (1 - TIGHT_FRAC) * sheet.value("wanted_low_l")
        return spacious(plan, library) and sheet.value("real_volume_l") >= least
    return all((verdict := verdict_of(sheet, key)) is not None and verdict.margin >= 0 for key in SPACE_CHECKS)


def spacious(plan: Plan, library: Library) -> bool:
    """Whether there is room enough that nobody is harmed."""
    return all(passes(plan, key, library) for key in SPACE_CHECKS)


def from_tank(name: str, tank: Tank, library: Library) -> Plan:
    """A plan around a tank, with no animals and a filter of a general turnover."""
    return with_filter(Plan(name=name, tank=tank), library)


def passes(plan: Plan, key: str, library: Library) -> bool:
    return not is_short(sheet_of(plan, library), key)


def fitted(plan: Plan, library: Library) -> Plan:
    """The plan with glass, filter, air, heaters, hardness and changes that its checks ask for, as far as they reach."""
    for fit in FITS:
        plan = fit(plan, library)
    return plan


def with_lid(plan: Plan, library: Library) -> Plan:
    """A cover that lets none out: one without a gap, where the usual one has some, and mesh under a lamp to bask by."""
    basking = any(library.species[group.species].uvi_high > 0 for group in plan.animals)
    if basking:
        return replace(plan, heat=replace(plan.heat, lid="mesh"))
    kept = verdict_of(sheet_of(plan, library), "none_leaves")
    if kept is None or kept.state == "holds":
        return plan
    return replace(plan, heat=replace(plan.heat, lid="tight"))


def with_rock(plan: Plan, library: Library) -> Plan:
    """Rock that breaks lines of sight for kinds that are crowded on purpose: one of two schools, and the one that looks like
    where they live."""
    if not any(library.species[group.species].crowd for group in plan.animals):
        return plan
    sheet = sheet_of(plan, library)
    each = float(sheet.value("constant.rock_much_kg_per_100l"))
    rock = math.ceil(each * float(sheet.value("real_volume_l")) / 100)
    return replace(plan, tank=replace(plan.tank, rock_kg=float(rock)))


def on_soil(plan: Plan, library: Library) -> bool:
    """Whether all of a company are shrimps of soft, sour water."""
    kinds = [library.species[group.species] for group in plan.animals]
    return bool(kinds) and all(
        kind.feeds_on == "shrimp"
        and kind.kh_low_dkh == 0
        and (kind.kh_high_dkh <= SOIL_KH_DKH or kind.ph_high <= SOIL_PH)
        for kind in kinds
    )


def with_soil(plan: Plan, library: Library) -> Plan:
    """Active soil, which holds pH for them instead of carbonate hardness."""
    return replace(plan, tank=replace(plan.tank, bed="soil")) if on_soil(plan, library) else plan


def with_lamp(plan: Plan, _: Library) -> Plan:
    """A lamp as strong as the tank is long."""
    display, *others = plan.lamps
    return replace(plan, lamps=(replace(display, lamp_w=round(plan.tank.tank_length_cm * LAMP_W_PER_CM)), *others))


def with_cooling(plan: Plan, library: Library) -> Plan:
    """Where the hottest day is more than they bear: mesh for a lid where that is enough for so rare a day, else a fan, else
    a chiller of the next ten watts; where it is only more than they like, mesh on such days."""
    if passes(plan, "summer_borne", library):
        return with_hot_lid(plan, library)
    airy = replace(plan, heat=replace(plan.heat, lid="mesh"))
    sheet = sheet_of(airy, library)
    borne = verdict_of(sheet, "summer_borne")
    if (
        borne is not None
        and borne.margin >= -sheet.constants["temp_leeway_k"].value
        and passes(airy, "none_leaves", library)
    ):
        return airy
    blown = next(fan(Standing(plan, library), "summer_borne"), None)
    if blown is not None and passes(blown, "none_leaves", library):
        return blown
    needed = float(sheet_of(plan, library).value("chiller_need_w"))
    return replace(plan, heat=replace(plan.heat, chiller_w=math.ceil(needed / CHILLER_GRAIN_W) * CHILLER_GRAIN_W))


def with_hot_lid(plan: Plan, library: Library) -> Plan:
    """Mesh in the lid's place on hot days, where those are more than they like for good."""
    borne = verdict_of(sheet_of(plan, library), "summer_borne")
    if borne is None or borne.margin >= 0:
        return plan
    meshed = next(hot_lid(Standing(plan, library), "summer_borne"), plan)
    return meshed if passes(meshed, "none_leaves", library) else plan


def warmed(plan: Plan, library: Library) -> Plan:
    """The plan kept in the middle of what all bear, heated where its room is usually colder than that; and no colder than
    the room usually is, as long as that is well within what they bear."""
    kinds = [library.species[group.species] for group in plan.animals]
    mean = plan.heat.room_mean_c
    low, high = max((k.temp_low_c for k in kinds), default=mean), min((k.temp_high_c for k in kinds), default=mean)
    middle = (low + high) / 2
    target = round(float(max(middle, min(mean, high - COOLED_BELOW_K))), 1)
    return heated(replace(plan, heat=replace(plan.heat, target_c=target)), middle > mean)


def heated(plan: Plan, on: bool = True) -> Plan:
    """The plan with its heaters on or off, and change water that is as warm."""
    heat = replace(plan.heat, heated=on)
    source_c = heat.target_c if on else heat.room_mean_c
    return replace(plan, heat=heat, water=replace(plan.water, source_c=source_c))


def with_heating(plan: Plan, library: Library) -> Plan:
    """Heated, where the coldest night would be more than they bear."""
    return plan if plan.heat.heated or passes(plan, "winter_borne", library) else heated(plan)


def with_glass(plan: Plan, library: Library) -> Plan:
    """The tank in the pane that is sold for this height of water."""
    if passes(plan, "pane_holds", library):
        return plan
    try:
        needed = float(sheet_of(plan, library).value("pane_stock_mm"))
    except NamedCase:
        return plan
    return replace(plan, tank=replace(plan.tank, pane_mm=needed))


def with_air(plan: Plan, library: Library) -> Plan:
    """The surface moved, then air stones, until they breathe on the hottest day."""
    if passes(plan, "dawn_breathes", library):
        return plan
    steps = list(surface(Standing(plan, library), "dawn_breathes"))
    return next((step for step in steps if passes(step, "dawn_breathes", library)), steps[-1] if steps else plan)


def with_heaters(plan: Plan, library: Library) -> Plan:
    """Two heaters of the smallest size of which one alone keeps them alive on the coldest night."""
    if not plan.heat.heated or passes(plan, "dead_heater_held", library):
        return plan
    for watts in library.stock_heaters_w:
        candidate = replace(plan, heat=replace(plan.heat, fitted_heaters=2, fitted_w=float(watts)))
        if passes(candidate, "dead_heater_held", library) and passes(candidate, "heaters_hold", library):
            return candidate
    return plan


def with_hardness(plan: Plan, library: Library) -> Plan:
    """Coral or shell where they want hard water and it is enough, else carbonate hardness weighed into the change water,
    where too little is left for them before a change."""
    low = max((library.species[group.species].kh_low_dkh for group in plan.animals), default=0.0)
    sheet = sheet_of(plan, library)
    left = sheet.look("settled_kh_dkh")
    if not isinstance(left, float | int) or (left >= low and not is_short(sheet, "reserve_lasts")):
        return plan
    used = float(sheet.value("new_kh_dkh")) - left
    limed = next(
        (one for one in lime(Standing(plan, library), "reserve_lasts") if keeps_hard(one, low, library)), None
    )
    if limed is not None:
        return limed
    wanted = round(max(low, sheet.value("constant.kh_low_dkh")) + used + 0.5, 1)
    return replace(plan, recipe=replace(plan.recipe, target_kh_dkh=wanted))


def keeps_hard(plan: Plan, least_dkh: float, library: Library) -> bool:
    """Whether so much carbonate hardness is left before a change, and in reserve."""
    left = number(sheet_of(plan, library), "settled_kh_dkh")
    return left is not None and left >= least_dkh and passes(plan, "reserve_lasts", library)


def with_pure_top_up(plan: Plan, library: Library) -> Plan:
    """Evaporation topped up with pure water, where the hardness would creep over what they want."""
    _, high = hardness_borne(plan, library)
    settled = sheet_of(plan, library).look("settled_gh_dgh")
    if plan.water.topped_up == "pure" or not isinstance(settled, float | int) or settled <= high:
        return plan
    return replace(plan, water=replace(plan.water, topped_up="pure"))


def with_water_kept(plan: Plan, library: Library) -> Plan:
    """Hardness as they want it under the regime that there is in the end."""
    return with_hardness(with_pure_top_up(plan, library), library)


def with_changes(plan: Plan, library: Library) -> Plan:
    """The regime of least work that holds, where the usual one does not, or only just."""
    spare = verdict_of(sheet_of(plan, library), "nitrate_held")
    if (spare is None or spare.state == "holds") and all(
        passes(plan, key, library) for key in ("no_shock", "in_balance")
    ):
        return plan
    return with_least_work(plan, library)


def with_least_work(plan: Plan, library: Library) -> Plan:
    """The easiest regime of least work that holds, with some nitrate to spare where one does."""
    return next(regimes_to_propose(Standing(plan, library)), plan)


def with_aired_change(plan: Plan, library: Library) -> Plan:
    """Change water aired before it goes in, where warming it under pressure brings more gas than is borne."""
    borne = verdict_of(sheet_of(plan, library), "gas_borne")
    if borne is None or borne.margin >= 0:
        return plan
    return replace(plan, water=replace(plan.water, aired=True))


def suited_to(plan: Plan, library: Library) -> Plan:
    """The plan with water in the middle of what all animals share, and the lamps of those that bask."""
    kinds = [library.species[group.species] for group in plan.animals]
    if not kinds:
        return plan

    def middle(low: str, high: str, digits: int = 1) -> float:
        least, most = max(getattr(k, low) for k in kinds), min(getattr(k, high) for k in kinds)
        return round(float(least + most) / 2, digits)

    def likely_ph() -> float:
        """In the middle of what all bear, or as far above it as usual water in a tank comes to."""
        low, high = max(k.ph_low for k in kinds), min(k.ph_high for k in kinds)
        usual = ph_from_kh_co2(Water().source_kh_dkh, USUAL_CO2_MG_L, target)
        return round(max((low + high) / 2, min(usual, low + 0.9 * (high - low))), 1)

    in_room = warmed(replace(plan, heat=Heat(cut_out=True)), library)
    target = in_room.heat.target_c
    salty = max(k.salinity_low_ppt for k in kinds)
    if salty > 0:
        salty = middle("salinity_low_ppt", "salinity_high_ppt")
    water = Water(
        tank_ph=likely_ph(),
        tank_gh_dgh=middle("gh_low_dgh", "gh_high_dgh", 0),
        salinity_ppt=salty,
        source_c=in_room.water.source_c,
    )
    usual = plan.changes.target_nitrate_mg_l
    limit = min(usual, DELICATE_NITRATE_MG_L) if delicate(plan, library) else usual
    basks = any(k.uvi_high > 0 for k in kinds)
    lamps = (Lamp(), *BASKING_LAMPS) if basks else (Lamp(),)
    return replace(
        plan,
        heat=in_room.heat,
        water=water,
        light=Light(),
        lamps=lamps,
        recipe=Recipe(),
        changes=replace(plan.changes, target_nitrate_mg_l=limit),
        run_in=RunIn(stocked="cycled"),
    )


def first_filters(library: Library) -> Iterator[tuple[Filter, ...]]:
    """Canisters by their flow, then several of the largest."""
    sold = sold_filters(FIRST_KIND, library)
    yield from ((one,) for one in sold[:-1])
    yield from ((sold[-1],) * n for n in range(1, MOST_ALIKE + 1))


def with_filter(plan: Plan, library: Library) -> Plan:
    """The plan with the fewest and smallest generic canisters that bring its turnover and carry its waste, else the most; with
    an air-driven sponge, where the smallest canister is a storm to them and one is enough."""
    found = plan
    for filters in first_filters(library):
        found = replace(plan, filters=filters)
        if filters_enough(found, library):
            break
    if not storms(Standing(found, library)):
        return found
    gentle = (replace(plan, filters=(sponge,)) for sponge in sold_filters(GENTLE_KIND, library))
    return next(
        (one for one in gentle if filters_enough(one, library) and not storms(Standing(one, library))), found
    )


def filters_enough(plan: Plan, library: Library) -> bool:
    """Whether filters bring what is usual, and carry the waste; what is amber for a plan that is kept is too little for one
    that is proposed."""
    sheet = sheet_of(plan, library)
    usual = sheet.value("turnover_low_per_h") if plan.animals else library.turnovers["general"].low_per_h
    carried = not plan.animals or not is_short(sheet, "media_carry")
    return carried and sheet.value("turnover_per_h") >= NEAR_USUAL * usual


FITS = (
    with_soil,
    with_rock,
    with_lid,
    with_glass,
    with_lamp,
    with_filter,
    with_air,
    with_cooling,
    with_heating,
    with_heaters,
    with_hardness,
    with_changes,
    with_water_kept,
    with_aired_change,
)
"""In this order: what follows is fitted to what came before."""
