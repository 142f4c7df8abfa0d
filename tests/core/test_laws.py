"""Laws that hold for any plan, on two hundred that chance makes: more of what helps never harms, and order tells nothing."""

from dataclasses import replace

import pytest

from loquen.core.graph.nodes import WORST_FIRST
from loquen.core.library.whole import shipped
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.land import Land
from loquen.core.model.parts.tank import Patch
from loquen.core.physics.chemistry import salinity_from_conductivity_ppt, salt_conductivity_us_cm
from loquen.core.system.book import sheet_of
from loquen.core.system.told import verdict_of
from tests.core.random_plans import random_plans

PLANS = random_plans(200)
SLACK = 1e-6


def value(sheet, key):
    found = sheet.look(key)
    return found if isinstance(found, int | float) else None


def pairs_of(key, changed, plans=PLANS):
    """A figure of each plan, and of the plan as changed, where both have it."""
    for plan in plans:
        other = changed(plan)
        if other is not None:
            one, two = value(sheet_of(plan, shipped()), key), value(sheet_of(other, shipped()), key)
            if one is not None and two is not None:
                yield plan, one, two


def with_heat(plan, **more):
    return replace(plan, heat=replace(plan.heat, **more))


@pytest.mark.parametrize("key", ["one_dead_c", "winter_c", "powerless_c"])
def test_a_colder_night_never_helps_against_the_cold(key):
    def colder(plan):
        # Heaters that nobody entered are bought for the night.
        entered = key != "one_dead_c" or plan.heat.fitted_w is not None
        return with_heat(plan, room_cold_c=plan.heat.room_cold_c - 3) if entered else None

    assert [plan for plan, mild, cold in pairs_of(key, colder) if cold > mild + SLACK] == []


def test_more_lime_never_leaves_less_carbonate_hardness():
    def limed(plan):
        return replace(plan, tank=replace(plan.tank, lime_kg=plan.tank.lime_kg + 3))

    found = list(pairs_of("settled_kh_dkh", limed))
    assert [plan for plan, bare, more in found if more < bare - SLACK] == []
    assert any(more > bare + 0.1 for _, bare, more in found)


def test_harder_change_water_never_leaves_less_carbonate_hardness():
    """With lime in it too, whose ceiling it may pass."""

    def harder(plan):
        return replace(plan, water=replace(plan.water, source_kh_dkh=plan.water.source_kh_dkh + 0.5))

    assert [plan for plan, soft, hard in pairs_of("settled_kh_dkh", harder) if hard < soft - SLACK] == []


def test_a_chiller_cools_no_further_than_its_watts():
    """A watt against walls that lose some watts a kelvin, evaporation aside, is at most one over these."""

    def chilled(plan):
        return with_heat(plan, heated=False, chiller_w=1.0)

    plans = [with_heat(plan, heated=False, chiller_w=0.0) for plan in PLANS]
    for plan, warm, cool in pairs_of("water_c", chilled, plans):
        walls = sheet_of(plan, shipped()).value("walls_w_k")
        assert warm - 1 / walls - SLACK <= cool <= warm + SLACK


def test_heating_takes_no_more_than_its_heaters_can():
    def weaker(plan):
        return None if plan.heat.fitted_w is None or not plan.heat.heated else plan

    for plan, kwh, _ in pairs_of("heating_kwh", weaker):
        assert kwh <= sheet_of(plan, shipped()).value("heaters_w") * 24 * 365.25 / 1000 + SLACK


def told(sheet):
    return {key: verdict.state for key, _ in sheet.wiring.checks if (verdict := verdict_of(sheet, key)) is not None}


def test_the_order_of_animals_changes_no_verdict():
    for plan in PLANS[::2]:
        turned = replace(plan, animals=tuple(reversed(plan.animals)))
        assert told(sheet_of(plan, shipped())) == told(sheet_of(turned, shipped()))


def test_two_rows_of_a_kind_are_one():
    for plan in PLANS[::2]:
        first, *others = plan.animals
        if first.number < 2:
            continue
        parts = (replace(first, number=1), replace(first, number=first.number - 1))
        split = replace(plan, animals=(*parts, *others))
        assert told(sheet_of(plan, shipped())) == told(sheet_of(split, shipped()))


def test_one_more_fierce_kind_never_makes_peace():
    """A single fierce fish of no crowd beside any company leaves it no better."""
    for plan in PLANS[::2]:
        more = replace(plan, animals=(*plan.animals, Group("jack_dempsey", 1)))
        before, after = (told(sheet_of(one, shipped())).get("peace_kept", "holds") for one in (plan, more))
        assert WORST_FIRST.index(after) <= WORST_FIRST.index(before)


def test_a_figure_moves_by_little_for_a_little():
    """Hardness of change water, over lime: no step where nature has none."""

    def nudged(plan):
        return replace(plan, water=replace(plan.water, source_kh_dkh=plan.water.source_kh_dkh * (1 + 1e-4)))

    for plan, one, two in pairs_of("settled_kh_dkh", nudged):
        assert abs(two - one) <= 0.05 * max(1.0, abs(one)), plan


def test_a_trace_of_salt_conducts_a_trace():
    """About two thousand µS/cm to a g/kg, however little: fresh water of 450 µS/cm is no step away from none."""
    for ppt in (1e-6, 1e-4, 1e-2, 0.04, 0.06, 0.1):
        assert salt_conductivity_us_cm(ppt) / ppt == pytest.approx(2150, rel=0.03)
        assert salinity_from_conductivity_ppt(salt_conductivity_us_cm(ppt)) == pytest.approx(ppt, rel=1e-6)


def test_no_more_is_lost_under_a_better_lid():
    """Of a heated system at the same water: glass for mesh, a closed canopy for glass."""
    for lids in (("open", "mesh"), ("mesh", "glass"), ("glass", "tight")):
        plans = [with_heat(plan, lid=lids[0], heated=True, chiller_w=0.0) for plan in PLANS[::4]]
        found = pairs_of("heating_kwh", lambda plan, lid=lids[1]: with_heat(plan, lid=lid), plans)
        assert [plan for plan, airy, shut in found if shut > airy + SLACK] == []


def test_more_siphoned_never_leaves_more_waste():
    def cleaner(plan):
        return replace(plan, tank=replace(plan.tank, siphoned_frac=0.4))

    plans = [replace(plan, tank=replace(plan.tank, siphoned_frac=0.3)) for plan in PLANS[::2]]
    found = list(pairs_of("load_full_mg_d", cleaner, plans))
    assert found
    assert [plan for plan, some, more in found if more > some + SLACK] == []


def test_what_siphoning_takes_is_never_less_than_none():
    """Daily from bare glass, weekly, as most do: in this order."""
    for plan in PLANS[::4]:
        daily, weekly = (
            value(
                sheet_of(replace(plan, tank=replace(plan.tank, bed="none", siphoned_by=how)), shipped()),
                "load_full_mg_d",
            )
            for how in ("daily", "weekly")
        )
        assert daily <= weekly + SLACK


def test_one_heater_dead_is_never_warmer_than_all_at_work_nor_colder_for_larger_ones():
    for plan in PLANS:
        sheet = sheet_of(plan, shipped())
        dead, all_at_work = value(sheet, "one_dead_c"), value(sheet, "water_c")
        if dead is not None and all_at_work is not None:
            assert dead <= all_at_work + SLACK

    def larger(plan):
        return with_heat(plan, fitted_w=plan.heat.fitted_w * 1.5) if plan.heat.fitted_w is not None else None

    assert [plan for plan, small, large in pairs_of("one_dead_c", larger) if large < small - SLACK] == []


def test_more_soil_never_leaves_more_carbonate_hardness():
    """A corner takes less than half of the floor, by a part of it each."""

    def on(share):
        def soiled(plan):
            row = Patch(patch_bed="soil", patch_frac=share, patch_front_cm=4.0, patch_back_cm=4.0)
            return replace(plan, tank=replace(plan.tank, bed="none"), patches=(row,))

        return soiled

    for less, more in ((0.05, 0.1), (0.1, 0.4), (0.4, 0.9)):
        corners = [on(less)(plan) for plan in PLANS[::2]]
        found = list(pairs_of("settled_kh_dkh", lambda plan, more=more: on(more)(plan), corners))
        assert found
        assert [plan for plan, corner, half in found if half > corner + SLACK] == []


def test_land_takes_water_by_its_area_and_never_adds_any():
    def banked(run_cm):
        def one(plan):
            tank = replace(plan.tank, tank_length_cm=100.0, tank_width_cm=50.0)
            return replace(plan, tank=tank, land=Land("bank", 1, run_cm, 50.0, 0.0))

        return one

    for less, more in ((1.0, 2.0), (2.0, 30.0), (30.0, 60.0)):
        narrow = [banked(less)(plan) for plan in PLANS[::4]]
        for key in ("real_volume_l", "surface_m2"):
            pairs = list(pairs_of(key, lambda plan, more=more: banked(more)(plan), narrow))
            assert pairs
            assert [plan for plan, wide, small in pairs if small > wide + SLACK] == []
