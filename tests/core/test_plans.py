"""Laws that whole plans must keep, and first plans that must hold."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from loquen.core.library.whole import shipped
from loquen.core.model.parts.animals import Bag, Group
from loquen.core.model.parts.heat import Heat
from loquen.core.model.parts.running import Changes
from loquen.core.system.book import sheet_of
from loquen.core.system.planner import first_plan
from loquen.core.system.told import verdict_of
from tests.core.plans import BARE_BOX, plan

REGIMES = [
    Changes(weekdays=("Sat",), change_frac=0.5),
    Changes(regime="trigger", change_frac=0.3),
    Changes(regime="every", every_d=10, change_frac=0.4),
    Changes(regime="pulses", pulses_d=2, change_frac=0.05),
    Changes(regime="drip", drip_l_d=30.0),
]


@settings(max_examples=20, deadline=None)
@given(st.floats(20, 34), st.floats(0.5, 6))
def test_a_hotter_room_never_gives_more_oxygen(warm, more):
    def at(room):
        return sheet_of(plan(heat=Heat(room_warm_c=room)), shipped()).value("hot_dawn_oxygen_mg_l")

    assert at(warm + more) <= at(warm) + 1e-9


@pytest.mark.parametrize("changes", REGIMES, ids=lambda changes: changes.regime)
@settings(max_examples=10, deadline=None)
@given(st.integers(1, 900), st.integers(1, 900))
def test_more_animals_never_lower_the_balance(changes, few, more):
    def used(number):
        return sheet_of(plan(animals=(Group("zebra_danio", number),), changes=changes), shipped()).value(
            "balance_frac"
        )

    assert used(few + more) >= used(few)


@settings(max_examples=30, deadline=None)
@given(st.floats(60, 290), st.floats(10, 49), st.floats(0.5, 9))
def test_less_water_never_needs_a_thicker_pane(length, height, less):
    def needed(fill):
        tank = replace(BARE_BOX, tank_length_cm=length, fill_by="height", part_fill_cm=fill)
        return sheet_of(plan(tank=tank), shipped()).value("pane_needed_mm")

    assert needed(height - less) <= needed(height) + 1e-9


@settings(max_examples=20, deadline=None)
@given(st.integers(2, 200), st.floats(0.5, 500))
def test_a_bag_split_in_two_never_makes_less_waste(number, mass):
    first = number // 2

    def waste(count, grams):
        return sheet_of(plan(bags=(Bag(bag_mass_g=grams, bag_number=count),)), shipped()).value("bags.0.tub_mg_d")

    parts = waste(first, mass * first / number) + waste(number - first, mass * (number - first) / number)
    assert parts == pytest.approx(waste(number, mass))


# Whole companies, and what nothing that a plan can do mends: it is said on the page.
COMPANIES = [
    ((("discus", 6),), {"summer_borne"}),
    ((("neon_tetra", 20), ("panda_corydoras", 8)), {"summer_borne"}),
    ((("guppy", 8),), {"summer_borne"}),
    ((("common_musk_turtle", 1),), {"summer_borne"}),
    ((("african_clawed_frog", 2),), {"summer_borne"}),
    ((("figure_eight_puffer", 1),), {"summer_borne"}),
    ((("cherry_shrimp", 20),), {"summer_borne"}),
    ((("yellow_lab", 6), ("saulosi", 7)), {"summer_borne"}),
    ((("goldfish_fancy", 3),), {"summer_borne"}),
    ((("axolotl", 2),), {"summer_borne", "water_suits"}),
]


@pytest.mark.parametrize(
    ("company", "beyond"), COMPANIES, ids=lambda value: value[0][0] if isinstance(value, tuple) else ""
)
def test_a_first_plan_holds_all_that_is_in_reach(company, beyond):
    sheet = sheet_of(
        first_plan.from_animals("first", tuple(Group(*group) for group in company), shipped()), shipped()
    )
    checks = [key for key, node in sheet.wiring.nodes.items() if node.check]
    states = {key: verdict.state for key in checks if (verdict := verdict_of(sheet, key))}
    assert {key for key, state in states.items() if state == "short"} <= beyond
    assert states["media_carry"] == "tight"  # cycled first, before they go in
