"""What can be turned in a plan, each lever with its steps from what is sold and done, from the least to the most."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from loquen.core.graph import asking
from loquen.core.graph.keys import Key
from loquen.core.model.roots.plan import PLAN, Plan
from loquen.core.system.planner.standing import Standing
from loquen.core.system.planner.steps.changing import hard_regime, large_share, regime, share
from loquen.core.system.planner.steps.company import company, fewer, left_out
from loquen.core.system.planner.steps.filters import filters, surface
from loquen.core.system.planner.steps.glass import SIZE, bed, pane, plants, returns, tanks
from loquen.core.system.planner.steps.land import land
from loquen.core.system.planner.steps.warmth import chiller, cut_out, fan, foam, heaters, hot_lid, lids, sun, warmth
from loquen.core.system.planner.steps.water import hardness, lime, minerals, mix, salt, topped_up, warmed

Steps = Callable[[Standing, Key], Iterator[Plan]]
ROWS = ("animals.", "lamps.", "sources.", "bags.", "sump.stand_", "air.outlet_cm")
"""Inputs of rows that levers of their own move, or none does."""
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


MIXED_FOR = ("water_suits", "plants_live", "in_balance", "media_carry", "nitrate_leaves_room", "nitrate_held")
"""What other parts are tried for; a hardness that was asked for is solved for to the digit."""
WARMTH = (
    "water_suits",
    "plants_live",
    "heaters_hold",
    "summer_borne",
    "winter_borne",
    "dawn_breathes",
)
"""What a keeper turns the warmth for: nobody keeps animals colder so that they eat less."""
CARRIED = ("media_carry", "turnover_fits", "drift_fits", "in_balance", "dawn_breathes", "circuit_carries")
"""What a filter is bought for: nobody buys one for the few litres that it holds."""
FILL = ("tank.fill_by", "tank.freeboard_cm", "tank.part_fill_cm")
WARM_DAYS = ("summer_borne", "dawn_breathes", "water_suits", "plants_live")
"""What a fan is hung for."""
LEVERS = (
    Lever("lid", "Lid", ("heat.lid",), 1, lids),
    Lever("hot_lid", "Lid on hot days", ("heat.hot_day_lid",), 1.1, hot_lid, only=WARM_DAYS),
    Lever("cut_out", "Cut-out", ("heat.cut_out",), 1, cut_out),
    Lever("bed", "Bed", ("tank.bed",), 1.7, bed, only=("bed_borne",)),
    Lever("surface", "Air", ("air.surface_movement", "air.stones_lph"), 2, surface),
    Lever("warmed", "Change water warmed", ("water.source_c",), 2, warmed),
    Lever("lime", "Coral or shell", ("tank.lime_kg",), 1.9, lime, only=("water_suits", "reserve_lasts")),
    Lever("hardness", "Carbonate hardness added", ("recipe.target_kh_dkh",), 2, hardness),
    Lever("topped_up", "Topped up with pure water", ("water.topped_up",), 2.6, topped_up),
    Lever("salt", "Salinity", ("water.salinity_ppt", "water.salinity_by"), 2.8, salt, only=("water_suits",)),
    Lever("land", "Dry place", ("land", *FILL), 3.1, land, only=("land_suits", "depth_suits", "basks")),
    Lever("sun", "Lamps to bask by", ("lamps", "heat.lid"), 3.2, sun, only=("uvb_reaches", "basks")),
    Lever("minerals", "Hardness added", ("recipe.target_gh_dgh", "recipe.target_kh_dkh"), 2.5, minerals),
    Lever("warmth", "Warmth", ("heat.target_c", "heat.heated"), 3, warmth, only=WARMTH),
    Lever("share", "Share changed", ("changes.change_frac",), 3, share),
    Lever(
        "hard_regime",
        "Many changes",
        ("changes.regime", "changes.weekdays", "changes.change_frac"),
        5.5,
        hard_regime,
    ),
    Lever("large_share", "Large share changed", ("changes.change_frac",), 4.5, large_share),
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
    Lever("tank", "Tank", tuple(f"tank.{name}" for name in (*SIZE, "freeboard_cm", "part_fill_cm")), 8, tanks),
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
    """What a check itself names as mends, solved, one input each."""
    found = []
    for remedy in asking.remedies(now.sheet, check):
        (path, value), *more = remedy.changes.items()
        if not more and not path.startswith(ROWS + SOLD):
            found.append(single(path, asking.label_of(now.sheet, path), value))
    return found
