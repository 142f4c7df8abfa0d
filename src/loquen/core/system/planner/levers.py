"""What can be turned in a plan, each lever with its steps from what is sold and done, from the least to the most."""

import math
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, replace
from itertools import combinations

from loquen.core.data import library
from loquen.core.graph import asking
from loquen.core.graph.asking import number
from loquen.core.graph.engine import Key
from loquen.core.graph.nodes import Remedy, Verdict
from loquen.core.model.plan import PLAN, Filter, Group, Plan, Planting, Tank
from loquen.core.system.planner.standing import Standing
from loquen.core.system.planner.waters import minerals, mix
from loquen.core.system.propose.sump_sizing import raised_returns

Steps = Callable[[Standing, Key], Iterator[Plan]]
CHILLER_GRAIN_W = 10.0
OPEN_COVER = 0.5
"""Of the surface, what a lid may cover under a fan."""
STONES_LPH = (60.0, 120.0, 240.0, 480.0, 960.0)
MOST_HEATERS = 3
MOST_FILTERS = 6
BRISK = 1.5
"""Of the most turnover that is usual, what a proposed filter brings at most; keepers' practice, unverified."""
SHARES = tuple(n / 100 for n in range(10, 80, 5))
COVERS = (0.2, 0.4)
PLANTS = ("fast_stems", "floating_plants", "roots_in_water", "slow_rooted")
PARTS_KEPT = (0.9, 0.75, 0.6, 0.45, 0.3)
FOAM_MM = 20.0
FOAMED_FRAC = 0.75
"""Back and sides."""
KH_MARGIN_DKH = 0.5
FACTS = (
    "heat.room_",
    "heat.circuit_other_w",
    "water.source_kh_dkh",
    "water.source_nitrate_mg_l",
    "water.source_us_cm",
    "sources.",
    "bags.",
    "sump.stand_",
    "light.basking_c",
    "lamps.",
    "air.outlet_cm",
    "animals.",
)
"""Inputs that say how things are: no planner turns them."""
SOLD = ("tank.tank_", "tank.pane_mm", "filters.", "heat.fitted_", "heat.chiller_w", "heat.fan_", "air.stones_lph")
"""What is sold in sizes: its own lever picks from them, and no value between is solved for."""


@dataclass(frozen=True, slots=True)
class Lever:
    """One thing that can be turned. `moves` are the inputs or lists it may change; a pin on one of them holds it.

    `price` ranks levers: what is turned by hand first, then what is bought, then glass, then who lives there.
    """

    key: str
    label: str
    moves: tuple[Key, ...]
    price: float
    steps: Steps
    also: tuple[Key, ...] = ()
    """Checks it bears on by rows that are not there yet."""
    only: tuple[Key, ...] = ()
    """Where not empty, the checks it is turned for, whatever else hangs on it."""

    def held_by(self, pins: frozenset[Key]) -> Key | None:
        """The pin that holds it, or None."""
        return next((pin for pin in sorted(pins) for move in self.moves if touches(pin, move)), None)

    def bears_on(self, now: Standing, check: Key) -> bool:
        """Whether a check hangs on anything that this lever moves."""
        if check in self.also or check in self.only:
            return True
        if self.only:
            return False
        return check in now.sheet.wiring.users_under(*self.moves)


def touches(pin: Key, move: Key) -> bool:
    return pin == move or pin.startswith(f"{move}.") or move.startswith(f"{pin}.")


def closed(lid: str) -> bool:
    """Whether a fan over this lid would blow on the lid."""
    return library.lids()[lid].vapour_cover > OPEN_COVER


def lids(now: Standing, _: Key) -> Iterator[Plan]:
    """Lids, from the one that is there towards tight; over a fan, open ones."""
    for lid in ("glass", "mesh", "tight"):
        if lid != now.plan.heat.lid and not (now.plan.heat.fan_fitted and closed(lid)):
            yield replace(now.plan, heat=replace(now.plan.heat, lid=lid))


def cut_out(now: Standing, _: Key) -> Iterator[Plan]:
    if not now.plan.heat.cut_out:
        yield replace(now.plan, heat=replace(now.plan.heat, cut_out=True))


def surface(now: Standing, _: Key) -> Iterator[Plan]:
    """The surface moved, then air through stones."""
    air = now.plan.air
    for movement in ("ripple", "strong"):
        if ("still", "ripple", "strong").index(movement) > ("still", "ripple", "strong").index(
            air.surface_movement
        ):
            yield replace(now.plan, air=replace(air, surface_movement=movement))
    for lph in STONES_LPH:
        if lph > air.stones_lph:
            yield replace(now.plan, air=replace(air, surface_movement="strong", stones_lph=lph))


def warmed(now: Standing, _: Key) -> Iterator[Plan]:
    """Change water at the tank's own warmth."""
    water = number(now.sheet, "water_c")
    if water is not None and abs(water - now.plan.water.source_c) > 0.1:
        yield replace(now.plan, water=replace(now.plan.water, source_c=round(min(40.0, water), 1)))


def topped_up(now: Standing, _: Key) -> Iterator[Plan]:
    """Evaporation topped up with pure water: what is dissolved does not creep up."""
    if now.plan.water.topped_up != "pure":
        yield replace(now.plan, water=replace(now.plan.water, topped_up="pure"))


def hardness(now: Standing, _: Key) -> Iterator[Plan]:
    """Carbonate hardness weighed into the change water: as much as is left for them, and in reserve, before the next."""
    low = max((library.species()[group.species].kh_low_dkh for group in now.plan.animals), default=0.0)
    left, new = number(now.sheet, "settled_kh_dkh"), number(now.sheet, "new_kh_dkh")
    if left is None or new is None:
        return
    base = max(low, now.sheet.constants["kh_low_dkh"].value) + new - left
    for more in (KH_MARGIN_DKH, 2.0, 4.0):
        wanted = round(base + more, 1)
        if wanted > new and wanted <= 30:
            yield replace(now.plan, recipe=replace(now.plan.recipe, target_kh_dkh=wanted))


def regime(now: Standing, _: Key) -> Iterator[Plan]:
    """The regime of least work that holds, on the days the keeper is there; else the present days, with other shares."""
    found = now.sheet.look("least_regime_remedy")
    if isinstance(found, Remedy):
        yield PLAN.changed(now.plan, found.changes)


def share(now: Standing, _: Key) -> Iterator[Plan]:
    """Other shares on the days that there are, those nearest to the present one first."""
    changes = now.plan.changes
    for frac in sorted(SHARES, key=lambda frac: abs(frac - changes.change_frac)):
        yield replace(now.plan, changes=replace(changes, change_frac=frac))


def returns(now: Standing, _: Key) -> Iterator[Plan]:
    """The returns raised as far as the drain-down asks."""
    for remedy in raised_returns(now.sheet):
        yield PLAN.changed(now.plan, remedy.changes)


def chiller(now: Standing, _: Key) -> Iterator[Plan]:
    needed = number(now.sheet, "chiller_need_w")
    if needed is not None and needed > now.plan.heat.chiller_w:
        watts = math.ceil(needed / CHILLER_GRAIN_W) * CHILLER_GRAIN_W
        for more in (0.0, CHILLER_GRAIN_W, 5 * CHILLER_GRAIN_W):
            yield replace(now.plan, heat=replace(now.plan.heat, chiller_w=watts + more))


def fan(now: Standing, _: Key) -> Iterator[Plan]:
    """Air over the water, through the lid that there is where it is open, else through mesh; where that does in sticky air
    too."""
    heat = now.plan.heat
    lid = "mesh" if closed(heat.lid) else heat.lid
    if not heat.fan_fitted or lid != heat.lid:
        blown = replace(now.plan, heat=replace(heat, fan_fitted=True, lid=lid))
        then = now.other(blown).sheet
        sticky, high, borne = (number(then, key) for key in ("sticky_c", "animals_high_c", "hot_day_k"))
        if sticky is not None and high is not None and borne is not None and sticky <= high + borne:
            yield blown


def heaters(now: Standing, _: Key) -> Iterator[Plan]:
    """Two or three heaters of a size that is sold, the smallest first, with a cut-out of their own."""
    heat = now.plan.heat
    if not heat.heated:
        return
    for watts in library.stock_heaters_w():
        for count in range(2, MOST_HEATERS + 1):
            yield replace(now.plan, heat=replace(heat, fitted_heaters=count, fitted_w=float(watts), cut_out=True))


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


def canisters() -> list[Filter]:
    """The canisters that are sold, the smallest first."""
    models = [(model.rated_lph, key) for key, model in library.filter_models().items() if model.kind == "canister"]
    return [filter_of(key) for _, key in sorted(models)]


def flow_of(rows: Iterable[Filter]) -> float:
    """What filters really move, L/h."""
    kinds = library.filter_kinds()
    return sum(row.measured_lph or row.rated_lph * kinds[row.filter_kind].flow_share for row in rows)


def filters(now: Standing, _: Key) -> Iterator[Plan]:
    """A canister of another size in place of the smallest filter, then more beside them, up to six; none that turns the
    water over far more often than they want."""
    turns, litres, high = (
        number(now.sheet, key) for key in ("turnover_per_h", "real_volume_l", "turnover_high_per_h")
    )
    most = math.inf if turns is None or high is None else max(turns, BRISK * high)
    for plan in filtered(now.plan):
        more_lph = flow_of(plan.filters) - flow_of(now.plan.filters)
        if turns is None or not litres or turns + more_lph / litres <= most:
            yield plan


def filtered(plan: Plan) -> Iterator[Plan]:
    own = plan.filters
    sold = canisters()
    weakest = min(range(len(own)), key=lambda i: own[i].rated_lph, default=None)
    if weakest is not None:
        for model in sorted(sold, key=lambda model: abs(model.rated_lph - own[weakest].rated_lph)):
            if model.rated_lph != own[weakest].rated_lph:
                kept = replace(model, maturity_frac=own[weakest].maturity_frac)
                yield replace(plan, filters=(*own[:weakest], kept, *own[weakest + 1 :]))
    for more in range(1, MOST_FILTERS - len(own) + 1):
        # Several more are of the largest: nobody hangs four small ones side by side.
        for model in sold if more == 1 else sold[-1:]:
            yield replace(plan, filters=(*own, *[model] * more))


def plants(now: Standing, _: Key) -> Iterator[Plan]:
    """Plants over a part of the floor or the surface, where none are; of those that live here, what takes up most."""
    if now.plan.planting:
        return
    for cover in COVERS:
        for kind in PLANTS:
            planted = replace(now.plan, planting=(Planting(kind, cover),))
            lives = now.other(planted).sheet.look("plants_live")
            if isinstance(lives, Verdict) and lives.state == "holds":
                yield planted


def foam(now: Standing, _: Key) -> Iterator[Plan]:
    """Foam under the base, then on back and sides."""
    heat = now.plan.heat
    if heat.base_foam_mm < FOAM_MM:
        yield replace(now.plan, heat=replace(heat, base_foam_mm=FOAM_MM))
    if heat.side_foam_mm < FOAM_MM:
        yield replace(
            now.plan,
            heat=replace(
                heat, base_foam_mm=max(heat.base_foam_mm, FOAM_MM), side_foam_mm=FOAM_MM, foam_frac=FOAMED_FRAC
            ),
        )


def warmth(now: Standing, _: Key) -> Iterator[Plan]:
    """The water kept in the middle of what all bear, then towards its ends."""
    kinds = [library.species()[group.species] for group in now.plan.animals]
    low = max((kind.temp_low_c for kind in kinds), default=0.0)
    high = min((kind.temp_high_c for kind in kinds), default=0.0)
    for part in (0.5, 0.75, 0.25) if low < high else ():
        target = round(low + part * (high - low), 1)
        heat = now.plan.heat
        cold = heat.room_cold_c < low
        yield replace(now.plan, heat=replace(heat, target_c=target, heated=cold or target > heat.room_mean_c))


def sold_tank(key: str) -> Tank:
    """A tank that is sold, with the pane and the edge it is sold with."""
    stock = library.stock_tanks()[key]
    return Tank(
        tank_length_cm=stock.length_cm,
        tank_width_cm=stock.width_cm,
        tank_height_cm=stock.height_cm,
        pane_mm=stock.pane_mm,
        support=stock.support,
    )


def pane(now: Standing, _: Key) -> Iterator[Plan]:
    """The next panes that are sold; then the edge braced all round."""
    tank = now.plan.tank
    for braced in (tank.support, "four_edges"):
        for mm in library.stock_panes_mm():
            if mm > tank.pane_mm or (braced != tank.support and mm >= tank.pane_mm):
                yield replace(now.plan, tank=replace(tank, pane_mm=mm, support=braced))


def tanks(now: Standing, _: Key) -> Iterator[Plan]:
    """Tanks that are sold and hold more, the smallest first; the bed and what lies on it stay."""
    tank = now.plan.tank
    if tank.shape != "box" or tank.fill_by != "freeboard":
        return
    litres = tank.tank_length_cm * tank.tank_width_cm * tank.tank_height_cm
    sold = [sold_tank(key) for key in library.stock_tanks()]
    for found in sorted(sold, key=lambda t: t.tank_length_cm * t.tank_width_cm * t.tank_height_cm):
        if found.tank_length_cm * found.tank_width_cm * found.tank_height_cm > litres * 1.01:
            size = {name: getattr(found, name) for name in SIZE} | {
                "freeboard_cm": max(tank.freeboard_cm, found.freeboard_cm)
            }
            yield replace(now.plan, tank=replace(tank, **size))


SIZE = ("tank_length_cm", "tank_width_cm", "tank_height_cm", "pane_mm", "support")


def company(now: Standing, _: Key) -> Iterator[Plan]:
    """More of those who want company, one more at a time."""
    for i, group in enumerate(now.plan.animals):
        kind = library.species()[group.species]
        if not kind.alone and group.number < kind.group_least:
            yield with_group(now.plan, i, replace(group, number=kind.group_least, males=None))


def fewer(now: Standing, _: Key) -> Iterator[Plan]:
    """Fewer of one kind, as many as stay in company; the least fewer first."""
    tried: set[tuple[float, int, int]] = set()
    for i, group in enumerate(now.plan.animals):
        kind = library.species()[group.species]
        least = 1 if kind.alone else max(1, kind.group_least)
        for kept in PARTS_KEPT:
            left = max(least, math.floor(group.number * kept))
            if left < group.number:
                tried.add((1 - left / group.number, i, left))
    for _part, i, left in sorted(tried):
        yield with_group(now.plan, i, replace(now.plan.animals[i], number=left, males=None))


def with_group(plan: Plan, at: int, group: Group) -> Plan:
    return replace(plan, animals=(*plan.animals[:at], group, *plan.animals[at + 1 :]))


def left_out(now: Standing, _: Key) -> Iterator[Plan]:
    """One kind less, then two; the fewest animals first."""
    animals = now.plan.animals
    for count in range(1, min(3, len(animals))):
        for out in sorted(
            combinations(range(len(animals)), count), key=lambda out: sum(animals[i].number for i in out)
        ):
            yield replace(now.plan, animals=tuple(group for i, group in enumerate(animals) if i not in out))


MIXED_FOR = ("water_suits", "plants_live", "in_balance", "media_carry", "nitrate_leaves_room", "nitrate_held")
"""What other parts are tried for; a hardness that was asked for is solved for to the digit."""
WARMTH = (
    "water_suits",
    "plants_live",
    "heaters_hold",
    "dead_heater_held",
    "stuck_heater_borne",
    "summer_borne",
    "winter_borne",
    "dawn_breathes",
)
"""What a keeper turns the warmth for: nobody keeps animals colder so that they eat less."""
CARRIED = ("media_carry", "turnover_fits", "drift_fits", "in_balance", "dawn_breathes", "circuit_carries")
"""What a filter is bought for: nobody buys one for the few litres that it holds."""
WARM_DAYS = ("summer_borne", "dawn_breathes", "water_suits", "plants_live")
"""What a fan is hung for."""
LEVERS = (
    Lever("lid", "Lid", ("heat.lid",), 1, lids),
    Lever("cut_out", "Cut-out", ("heat.cut_out",), 1, cut_out),
    Lever("surface", "Air", ("air.surface_movement", "air.stones_lph"), 2, surface),
    Lever("warmed", "Change water warmed", ("water.source_c",), 2, warmed),
    Lever("hardness", "Carbonate hardness added", ("recipe.target_kh_dkh",), 2, hardness),
    Lever("topped_up", "Topped up with pure water", ("water.topped_up",), 2.6, topped_up),
    Lever("minerals", "Hardness added", ("recipe.target_gh_dgh", "recipe.target_kh_dkh"), 2.5, minerals),
    Lever("warmth", "Warmth", ("heat.target_c", "heat.heated"), 3, warmth, only=WARMTH),
    Lever("share", "Share changed", ("changes.change_frac",), 3, share),
    Lever("regime", "Changes", ("changes.regime", "changes.weekdays", "changes.change_frac"), 3.5, regime),
    Lever("returns", "Returns raised", ("returns",), 3, returns),
    Lever(
        "mix",
        "Softer water mixed in",
        ("sources", "recipe.target_gh_dgh", "recipe.target_kh_dkh"),
        3.8,
        mix,
        only=MIXED_FOR,
    ),
    Lever("plants", "Plants", ("planting",), 4, plants, ("nitrate_held",)),
    Lever("filters", "Filter", ("filters",), 5, filters, only=CARRIED),
    Lever("foam", "Foam", ("heat.base_foam_mm", "heat.side_foam_mm", "heat.foam_frac"), 4, foam),
    Lever("fan", "Fan", ("heat.fan_fitted", "heat.lid"), 4.2, fan, only=WARM_DAYS),
    Lever("heaters", "Heaters", ("heat.fitted_heaters", "heat.fitted_w", "heat.cut_out"), 5, heaters),
    Lever("pane", "Pane", ("tank.pane_mm", "tank.support"), 6, pane),
    Lever("chiller", "Chiller", ("heat.chiller_w",), 7, chiller),
    Lever("tank", "Tank", tuple(f"tank.{name}" for name in (*SIZE, "freeboard_cm")), 8, tanks),
    Lever("company", "How many", ("animals",), 8.5, company),
    Lever("fewer", "Fewer animals", ("animals",), 10, fewer),
    Lever("left_out", "Left out", ("animals",), 12, left_out),
)
SINGLE_PRICE = 4.5
GIVEN_AWAY = 10.0
"""From this price on, animals have to go."""


def single(path: Key, label: str, value: object) -> Lever:
    """One input brought to a value that was solved for."""
    return Lever(path, label, (path,), SINGLE_PRICE, lambda now, _: iter((PLAN.changed(now.plan, {path: value}),)))


def singles(now: Standing, check: Key) -> list[Lever]:
    """What a check itself names as mends, solved, one input each; facts are left as they are."""
    found = []
    for remedy in asking.remedies(now.sheet, check):
        (path, value), *more = remedy.changes.items()
        if not more and not path.startswith(FACTS + SOLD):
            found.append(single(path, asking.label_of(now.sheet, path), value))
    return found
