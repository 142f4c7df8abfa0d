"""First plans three ways: with least room, least work, least power; each with its reasons, and what is out of reach.

Every tank that is sold and has room is fitted out; the smallest few that hold are the field. Each is tried as it is, with
plants that live there and take up nitrate, and thrifty (foam, a tight lid, the warmth at the low end of what all bear, the filter of
least watts). The three plans are the least of that field by floor, by minutes and by kilowatt-hours, those with least
amiss first. The field is finite and small, so the search ends; nothing is proposed that the sheet itself does not accept.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import combinations
from typing import Literal

from loquen.core.graph.keys import Key
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.tank import Tank
from loquen.core.model.parts.water import Source
from loquen.core.model.roots.plan import Plan
from loquen.core.system.animals.company import RANGES, Leeways
from loquen.core.system.animals.findings import DEADLY, dies_first, told
from loquen.core.system.book import sheet_of, system_book
from loquen.core.system.planner.first_plan import (
    fitted,
    in_sold_tanks,
    on_land,
    on_soil,
    roomy,
    suited_to,
    warmed,
    with_aired_change,
    with_hot_lid,
    with_least_work,
    with_water_kept,
)
from loquen.core.system.planner.levers import LEVERS, Lever, touches
from loquen.core.system.planner.notes import notes
from loquen.core.system.planner.practice import usual
from loquen.core.system.planner.settle import Groups, Left, Move, brought, left_of, move_of, told_first
from loquen.core.system.planner.standing import Standing, Takes, difference, sensible
from loquen.core.system.planner.steps.changing import HARD, roughness
from loquen.core.system.planner.steps.filters import brings_usual, filter_of
from loquen.core.system.planner.steps.glass import plants, sold_tank
from loquen.core.system.planner.steps.warmth import FOAM_MM, FOAMED_FRAC
from loquen.core.system.planner.steps.water import PURE, hardness_borne, with_purified
from loquen.core.system.told import rows_of

Want = Literal["room", "work", "power"]
WANTS: tuple[Want, ...] = ("room", "work", "power")
FIELD = 2
"""Tanks beyond the smallest that holds which are looked at."""
DEAR_WATER, HARDLY_LESS = 1.25, 0.9
NEAR = 1.03
LARGER = 1.1
MOST_LARGER = 12
GRAIN_CM = 10.0
LONGEST_CM, WIDEST_CM = 1000.0, 500.0
"""Beyond which a plan is no tank any more."""
LEAST_CHANGED = usual("least_changed_frac")
LOW_PART = usual("warmth_low_part")
KH_WITHIN = usual("kh_of_most_frac")
KEPT = frozenset({"animals"})
SIZE_KEPT = frozenset({"tank.tank_length_cm"})
"""Each size that is sold is fitted out for itself: a filter that was bought for a smaller one is none for a larger."""
BY_HAND = frozenset({"heat.hot_day_lid"})
SHUT = ("glass", "tight")
"""Lids under which less is lost than under mesh."""
MOST_SHUT = 3
REST = Lever("rest", "And", (), 9.0, lambda now, _: iter(()))


@dataclass(frozen=True, slots=True)
class RoomGiven:
    """The room a plan is to stand in, °C."""

    cold_c: float
    warm_c: float
    mean_c: float


@dataclass(frozen=True, slots=True)
class Proposal:
    """A whole plan: what it is the least of, what it takes, why each of its parts is as it is, what is out of reach, what is
    tight, and what has to be measured or asked once it stands."""

    least: tuple[Want, ...]
    plan: Plan
    takes: Takes
    moves: tuple[Move, ...]
    left: tuple[Left, ...]
    tight: tuple[Sentence, ...]
    notes: tuple[Sentence, ...]
    asks: tuple[Sentence, ...]


@dataclass(frozen=True, slots=True)
class FirstPlans:
    """Up to three plans, what is wanted least of first; or why there can be none, all of it."""

    proposals: tuple[Proposal, ...]
    why: tuple[Sentence, ...] = ()


def first_plans(
    name: str,
    animals: tuple[Group, ...],
    library: Library,
    *,
    room: RoomGiven | None = None,
    water: Source | None = None,
    tank: Tank | None = None,
    least: Want = "room",
) -> FirstPlans:
    """Whole plans for a company of animals, three ways; for a given tank one, fitted out for them.

    Parameters:
        name: of the plans.
        animals: groups, one or more.
        room: its coldest, hottest and mean, or None for a usual one.
        water: the change water as it comes, or None for one of usual hardness.
        tank: the glass that there is, or None for tanks that are sold.
        least: which plan comes first.
    Returns: FirstPlans; `why` where no one water suits all of them.
    Source: balance
    """
    unsuited = tuple(no_one_water(animals, library))
    if unsuited:
        return FirstPlans((), (*unsuited, *deadly_pairs(animals, library)))
    base = with_water(
        with_room(suited_to(Plan(name=name, animals=animals), library), room, library), water, library
    )
    field = list(candidates(base, tank, library))
    chosen: list[tuple[Standing, list[Want]]] = []
    for want in (least, *(other for other in WANTS if other != least)):
        best = min(field, key=lambda standing: measure(standing, want))
        best = with_hands(least_power(field, best) if want == "power" else best)
        alike = next((wants for standing, wants in chosen if as_good(standing, best, want)), None)
        if alike is not None:
            alike.append(want)
        else:
            chosen.append((best, [want]))
    pins = KEPT if tank is None else KEPT | {"tank"}
    return FirstPlans(tuple(proposal(base, standing, tuple(wants), pins) for standing, wants in chosen))


def with_hands(standing: Standing) -> Standing:
    """The same with somebody at home on hot days, where that does them good."""
    plan = with_hot_lid(standing.plan, standing.library)
    return standing if plan is standing.plan else Standing(plan, standing.library)


def least_power(field: list[Standing], best: Standing) -> Standing:
    """The least of a field in power, or one of its best with a lid all year and mesh on hot days, where that takes less."""
    near = sorted(field, key=lambda standing: measure(standing, "power"))[:MOST_SHUT]
    return min([best, *(lidded for one in near for lidded in shut(one))], key=lambda one: measure(one, "power"))


def shut(standing: Standing) -> Iterator[Standing]:
    """A plan under mesh all year, with a lid for it and mesh on hot days alone; none where one basks under it."""
    plan, library = standing.plan, standing.library
    if plan.heat.lid != "mesh" or any(library.species[group.species].uvi_high > 0 for group in plan.animals):
        return
    for lid in SHUT:
        yield Standing(replace(plan, heat=replace(plan.heat, lid=lid, hot_day_lid="mesh")), library)


def as_good(one: Standing, best: Standing, want: Want) -> bool:
    """Whether a plan is as good as the best in what is wanted: but for a few hundredths, or but for a tenth of the work that a
    quarter more water would save."""
    (amiss, (value, *_)), (least_amiss, (least, *_)) = measure(one, want), measure(best, want)
    if amiss != least_amiss:
        return False
    now, then = one.takes(), best.takes()
    dear = then.litres >= DEAR_WATER * now.litres or then.change_l_wk >= DEAR_WATER * now.change_l_wk
    return value <= NEAR * least or (want == "work" and dear and least >= HARDLY_LESS * value)


def deadly_pairs(animals: tuple[Group, ...], library: Library) -> Iterator[Sentence]:
    """Those of a company who do not live together whatever the water: who swallows or hunts whom."""
    sheet = sheet_of(Plan(name="x", animals=animals), library)
    found = [*rows_of(sheet, "pairs"), *rows_of(sheet, "clashes")]
    for row in sorted((row for row in found if row.what in DEADLY and row.state == "short"), key=dies_first):
        yield told(row)


def no_one_water(animals: tuple[Group, ...], library: Library) -> Iterator[Sentence]:
    """Every two kinds that no one water suits, and by which range."""
    constants = system_book().constants
    leeways = Leeways(
        constants["temp_leeway_k"].value, constants["ph_leeway"].value, constants["hardness_leeway_deg"].value
    )
    kinds = list(dict.fromkeys(library.species[group.species] for group in animals))
    for one, other in combinations(kinds, 2):
        for what, kind, low, high in RANGES:
            cool, warm = sorted((one, other), key=lambda k: getattr(k, low))
            if getattr(warm, low) - getattr(cool, high) > 2 * leeways.of(what, one, other):
                yield say(
                    "No one water suits {one} and {other}: in {what}, {one} want {a} to {b}, {other} {c} to {d}.",
                    one=cool.common,
                    other=warm.common,
                    what=what,
                    a=Term(getattr(cool, low), kind, bare=True),
                    b=Term(getattr(cool, high), kind),
                    c=Term(getattr(warm, low), kind, bare=True),
                    d=Term(getattr(warm, high), kind),
                )


def with_room(plan: Plan, room: RoomGiven | None, library: Library) -> Plan:
    if room is None:
        return plan
    heat = replace(plan.heat, room_cold_c=room.cold_c, room_warm_c=room.warm_c, room_mean_c=room.mean_c)
    return warmed(replace(plan, heat=heat), library)


def with_water(plan: Plan, water: Source | None, library: Library) -> Plan:
    """The plan on a water, or on a tap of usual hardness: softened with purified water where it is too hard for them, by GH
    or by KH, and hardened where it, or what it is softened to, has too little GH."""
    low, high = hardness_borne(plan, library)
    own = replace(water or Source(), src_parts=1.0)
    if on_soil(plan, library):
        return over_soil(plan, own, low, high)
    kh_high = min((library.species[group.species].kh_high_dkh for group in plan.animals), default=math.inf)
    parts = 0.0
    if own.src_gh_dgh > high:
        parts = parts_of_pure(own.src_gh_dgh, max(low, high - 1.0), PURE.src_gh_dgh)
    if own.src_kh_dkh > kh_high:
        parts = max(parts, parts_of_pure(own.src_kh_dkh, KH_WITHIN * kh_high, PURE.src_kh_dkh))
    mixed = replace(plan, sources=(own,))
    if parts > 0:
        mixed = with_purified(mixed, parts / (1 + parts))
    gh = (own.src_gh_dgh + parts * PURE.src_gh_dgh) / (1 + parts)
    if gh < low:
        gh = min(low + 1.0, high)
        mixed = replace(mixed, recipe=replace(mixed.recipe, target_gh_dgh=round(gh, 1)))
    return replace(mixed, water=replace(mixed.water, tank_gh_dgh=round(gh, 1)))


def over_soil(plan: Plan, own: Source, low_dgh: float, high_dgh: float) -> Plan:
    """Purified water with minerals for GH alone, and evaporation topped up pure: no carbonate, which soil would only take."""
    gh = round(float(low_dgh + high_dgh) / 2, 1)
    return replace(
        plan,
        sources=(replace(own, src_parts=0.0), replace(PURE, src_c=own.src_c, src_parts=1.0)),
        recipe=replace(plan.recipe, target_gh_dgh=gh),
        water=replace(plan.water, tank_gh_dgh=gh, topped_up="pure"),
    )


def parts_of_pure(hard: float, wanted: float, pure: float) -> float:
    """So many parts of purified water to one of hard, that the mix comes to what is wanted."""
    return (hard - wanted) / max(wanted - pure, 0.1)


def candidates(base: Plan, tank: Tank | None, library: Library) -> Iterator[Standing]:
    """The field: tanks that are sold or the one there is, each as it is, planted and thrifty.

    It ends a few tanks after the last that left less amiss. What one tank's levers could not mend, and a larger tank
    brings no nearer, is not searched for again.
    """
    least: tuple[float, ...] = (math.inf,)
    since = 0
    beyond: set[Key] = set()
    before: dict[Key, float] = {}
    for plan in (
        [fitted(on_land(replace(base, tank=tank), library), library)]
        if tank is not None
        else in_larger(base, library)
    ):
        now = settled(with_care(plan, library), tank is not None, beyond, library)
        margins = {key: now.margin(key) for key in now.short}
        beyond |= {key for key in margins if margins[key] <= before.get(key, -math.inf)}
        before = margins
        yield now
        yield from variants(now, tank is not None, beyond)
        amiss = amiss_of(now)
        since = 0 if amiss < least else since + 1
        least = min(least, amiss)
        if since >= FIELD and now.short <= beyond:
            return


def settled(
    plan: Plan, glass_stays: bool, beyond: set[Key], library: Library, unattended: bool = False
) -> Standing:
    """The plan with what still falls short mended, where levers reach; its animals stay. Unattended, no hand is counted on
    on a hot day."""
    pins = KEPT | ({"tank"} if glass_stays else SIZE_KEPT)
    if unattended:
        pins |= BY_HAND
        plan = replace(plan, heat=replace(plan.heat, hot_day_lid="same"))
    now = Standing(plan, library)
    if not now.short <= beyond:
        now, _ = brought(now, pins)
    aired = with_aired_change(now.plan, library)
    done = aired if unattended else with_hot_lid(aired, library)
    return now if done is now.plan else Standing(done, library)


def in_larger(base: Plan, library: Library) -> Iterator[Plan]:
    """Every tank that is sold and has room; where none has, the largest, made larger until it has."""
    found = False
    for plan in in_sold_tanks(base, library):
        found = True
        yield plan
    if found:
        return
    tank = sold_tank(list(library.stock_tanks)[-1], library)
    for _ in range(MOST_LARGER):
        tank = replace(
            tank,
            tank_length_cm=min(LONGEST_CM, math.ceil(tank.tank_length_cm * LARGER / GRAIN_CM) * GRAIN_CM),
            tank_width_cm=min(WIDEST_CM, math.ceil(tank.tank_width_cm * LARGER / GRAIN_CM) * GRAIN_CM),
        )
        plan = on_land(replace(base, tank=tank), library)
        if roomy(plan, library):
            break
    yield fitted(plan, library)


def variants(now: Standing, glass_stays: bool, beyond: set[Key]) -> Iterator[Standing]:
    """The same planted, thrifty, and both; only what leaves nothing more short, and buys no cooling for what it closed. What
    is thrifty counts on no hand on a hot day."""
    planted = next(plants(now, ""), None)
    tried = [(thrifty(now.plan, now.library), True)]
    if planted is not None:
        tried = [(planted, False), *tried, (thrifty(planted, now.library), True)]
    for plan, unattended in tried:
        other = with_care(with_least_work(plan, now.library), now.library)
        if sensible(other, now.library):
            # What could not be mended as it is, is not searched for again in each of its variants.
            then = settled(other, glass_stays, beyond | now.short, now.library, unattended)
            if then.short <= now.short and cooling_of(then.plan) <= cooling_of(now.plan):
                yield then


def cooling_of(plan: Plan) -> int:
    """What cools, as it costs: nothing, a fan, a chiller."""
    return 2 if plan.heat.chiller_w > 0 else int(plan.heat.fan_fitted)


def with_care(plan: Plan, library: Library) -> Plan:
    """No change under a tenth, where a tenth holds as well; and hardness kept as they want it."""
    if plan.changes.change_frac < LEAST_CHANGED:
        more = replace(plan, changes=replace(plan.changes, change_frac=LEAST_CHANGED))
        plan = more if Standing(more, library).short <= Standing(plan, library).short else plan
    kept = with_water_kept(plan, library)
    return kept if kept == plan or Standing(kept, library).short <= Standing(plan, library).short else plan


def thrifty(plan: Plan, library: Library) -> Plan:
    """Foam, a tight lid where none is asked for open, the low end of their warmth but nothing cooled for it, the filter of least
    watts."""
    heat = plan.heat
    if heat.heated:
        kinds = [library.species[group.species] for group in plan.animals]
        low = max((kind.temp_low_c for kind in kinds), default=heat.target_c)
        high = min((kind.temp_high_c for kind in kinds), default=heat.target_c)
        least = low + LOW_PART * (high - low)
        if heat.chiller_w > 0 or heat.fan_fitted:
            least = max(least, heat.room_mean_c)
        target = round(float(min(heat.target_c, least)), 1)
        lid = "tight" if heat.lid == "glass" else heat.lid
        heat = replace(
            heat, target_c=target, lid=lid, side_foam_mm=FOAM_MM, foam_frac=FOAMED_FRAC, base_foam_mm=FOAM_MM
        )
        plan = replace(plan, heat=heat, water=replace(plan.water, source_c=target))
    return with_thrifty_filter(plan, library)


def with_thrifty_filter(plan: Plan, library: Library) -> Plan:
    """The filter of least watts that brings the turnover and carries the waste."""
    models = sorted(library.filter_models.items(), key=lambda item: (item[1].watts, item[1].rated_lph))
    now = Standing(plan, library)
    for key, model in models:
        if model.kind == "undergravel":
            continue
        then = now.other(replace(plan, filters=(filter_of(key, library),)))
        if brings_usual(then) and then.short <= now.short:
            return then.plan
    return plan


def measure(standing: Standing, want: Want) -> tuple[tuple[float, ...], tuple[float, ...]]:
    """What a plan is ranked by: least amiss, then least of what is wanted least of."""
    takes = standing.takes()
    by: dict[Want, tuple[float, ...]] = {
        "room": (takes.footprint_m2, takes.litres, takes.work_min),
        "work": (takes.work_min, takes.litres),
        "power": (takes.year_kwh, takes.litres),
    }
    return amiss_of(standing), by[want]


def amiss_of(standing: Standing) -> tuple[float, ...]:
    """What is not as it should be in a plan: what falls short, then changes that are hard on animals or keeper."""
    changes = standing.plan.changes
    return (
        len(standing.short),
        roughness(standing.plan, changes.weekdays, changes.change_frac, standing.library) == HARD,
    )


def proposal(base: Plan, chosen: Standing, least: tuple[Want, ...], pins: frozenset[Key]) -> Proposal:
    """A plan with its reasons: each lever's part in it, by the checks that fall short without it."""
    start = Standing(replace(base, tank=sold_tank(smallest(chosen.library), chosen.library)), chosen.library)
    groups = by_lever(start.plan, chosen.plan)
    moves = [move_of(start, chosen, lever, changes, groups) for lever, changes in groups]
    needed = sorted((move for move in moves if move.mends), key=lambda move: -len(move.mends))
    left = tuple(left_of(chosen, key, LEVERS, pins) for key in told_first(chosen))
    told = (left, chosen.tight(), tuple(notes(chosen)), chosen.asks())
    return Proposal(least, chosen.plan, chosen.takes(), tuple(needed), *told)


def smallest(library: Library) -> str:
    return next(iter(library.stock_tanks))


def by_lever(before: Plan, after: Plan) -> Groups:
    """What differs, by the lever that moves it; of several, by the one that moves most of it: a fan brings its lid."""
    groups: dict[str, tuple[Lever, dict[Key, object]]] = {}
    changes = difference(before, after)

    def moved_by(lever: Lever) -> int:
        return sum(any(touches(move, path) for move in lever.moves) for path in changes)

    # A display lamp of another strength is nobody's lamp to bask by: that lever brings rows.
    known = [lever for lever in LEVERS if "lamps" not in lever.moves or "lamps" in changes]
    levers = sorted(known, key=moved_by, reverse=True)
    for path, value in changes.items():
        lever = next((lever for lever in levers if any(touches(move, path) for move in lever.moves)), REST)
        groups.setdefault(lever.key, (lever, {}))[1][path] = value
    return list(groups.values())
