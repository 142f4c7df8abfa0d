"""Plain tanks and ventures that tests of breeding begin from."""

from loquen.core.growout.book import placing, sheet_of
from loquen.core.growout.homes import Home
from loquen.core.library.whole import shipped
from loquen.core.model.parts.heat import Heat
from loquen.core.model.parts.running import Changes, RunIn
from loquen.core.model.parts.tank import Tank
from loquen.core.model.parts.water import Water
from loquen.core.model.roots.plan import Plan
from loquen.core.model.roots.venture import Broods, Colony, Costs, Doubts, Raising, Sale, Stand, Venture
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.system.planner.steps.filters import filter_of
from loquen.core.system.told import verdict_of


def tank(length=100, width=40, height=45, warm_c=25.0, filters=("canister_1000",), **more) -> Plan:
    """A bare warm tank with a closed lid, changed by a third twice a week from clean water."""
    usual = {
        "name": "Hundred",
        "animals": (),
        "run_in": RunIn("set_up", age_weeks=100),
        "tank": Tank(
            tank_length_cm=length, tank_width_cm=width, tank_height_cm=height, bed="none", factory_built=True
        ),
        "filters": tuple(filter_of(key, shipped()) for key in filters),
        "heat": Heat(target_c=warm_c, lid="tight", room_cold_c=17, room_warm_c=22, room_mean_c=20, cut_out=True),
        "water": Water(
            tank_ph=7.4, tank_gh_dgh=9, source_kh_dkh=5, source_nitrate_mg_l=10 / NITRATE_PER_N, source_c=20
        ),
        "changes": Changes(weekdays=("Wed", "Sat"), change_frac=0.33, target_nitrate_mg_l=40 / NITRATE_PER_N),
    }
    return Plan(**{**usual, **more})


def home(**more) -> Home:
    """A hundred-litre tank as a place to breed in, its numbers round."""
    usual = {
        "system": 1,
        "name": "Hundred",
        "tanks": 1,
        "litres": 100.0,
        "length_cm": 100.0,
        "width_cm": 40.0,
        "water_c": 25.0,
        "coldest_c": 25.0,
        "hottest_c": 25.0,
        "ph": 7.4,
        "gh_dgh": 9.0,
        "kh_dkh": 5.0,
        "salinity_ppt": 0.0,
        "allowed_mg_d": 100.0,
        "change_l_wk": 50.0,
        "work_min_wk": 10.0,
        "year_kwh": 365.25,
        "kwh_money": 0.30,
        "eats_g_d": 1.0,
        "animals": 10,
        "regime": "weekdays",
        "rock_kg": 0.0,
        "wood_l": 0.0,
        "keeps_in": "all",
        "passed_frac": 0.25,
        "swapped_frac": 0.25,
        "short_cut_frac": 0.1,
    }
    return Home(**{**usual, **more})


def venture(**more) -> Venture:
    """Platies raised brood by brood, males to keepers, females to a shop."""
    usual = {
        "name": "Platies",
        "colony": Colony("platy", females=6, males=2),
        "stand": Stand(system=1, all_tanks=8, set_on="2026-03-02"),
        "broods": Broods(move_cm=1.5),
        "raising": (Raising("First food", 30.0, 0.8), Raising("Growing on", 120.0, 0.9)),
        "sales": (
            Sale("Males", "male", "direct", 1.0, 3.0, 90.0, 4.0, 0.9),
            Sale("Females", "female", "shop", 1.0, 3.5, 0.0, 2.0, 0.8),
        ),
        "costs": Costs(hour_money=6.0),
        "doubts": Doubts(),
    }
    return Venture(**{**usual, **more})


def told(given: Venture | None = None, plan: Plan | None = None, **more):
    """The sheet of a venture in tanks like a plan's."""
    given = given or venture()
    return sheet_of(
        given, shipped(), placing(given, plan or tank(), shipped(), more.pop("colony_plan", None)), **more
    )


def state(sheet, key):
    verdict = verdict_of(sheet, key)
    return verdict and verdict.state
