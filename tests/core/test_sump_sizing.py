"""A first sump, the smallest that holds, and how deep the returns may reach."""

from dataclasses import replace

import pytest

from loquen.core.errors import NamedCase
from loquen.core.library.whole import shipped
from loquen.core.model.parts.flow import Chamber, Outlet
from loquen.core.model.parts.tank import Tank
from loquen.core.model.roots.consistency import conflicts
from loquen.core.model.roots.plan import PLAN
from loquen.core.system.book import sheet_of
from loquen.core.system.planner import first_plan
from loquen.core.system.propose import sump_sizing
from loquen.core.system.told import is_short
from loquen.demo.sluice_street import bottle_shelf, long_hall, old_copper, rope_walk_b, tidal_corner
from tests.core.plans import CHAMBERS, FLOW, RETURNS, SUMP, plan, sumped


def test_a_low_chamber_stands_as_high_as_the_one_it_runs_into():
    low_first = (Chamber("settling", 20, 15), *CHAMBERS[1:])
    sheet = sheet_of(sumped(chambers=low_first), shipped())
    assert sheet.value("chambers.0.chamber_level_cm") == sheet.value("chambers.1.chamber_level_cm") > 26
    # With the pump off the media chamber's baffle holds both; the trap keeps its own.
    assert sheet.value("floors_cm") == (26, 26, 22, 0)


def test_the_smallest_sump_by_hand():
    plan = sumped(returns=(replace(RETURNS[0], outlet_depth_cm=6),), flow=replace(FLOW, air_break=False))
    remedy = sump_sizing.smallest_sump(sheet_of(plan, shipped()))
    shortest = remedy.changes["sump.sump_length_cm"]

    def spare_l(length):
        sheet = sheet_of(replace(plan, sump=replace(SUMP, sump_length_cm=length)), shipped())
        levels = [sheet.value(f"chambers.{i}.chamber_level_cm") for i in range(4)]
        runs = (20, 24, 4, length - 48)
        free = 40 * sum(run * (40 - level) for run, level in zip(runs, levels, strict=True)) / 1000
        return free - 1.1 * sheet.value("drain_down_l"), sheet

    holds, sheet = spare_l(shortest)
    assert holds >= 0
    assert not any(is_short(sheet, key) for key in ("drain_down_fits", "blocked_stays", "pump_stays_wet"))
    less, smaller = spare_l(shortest - 1)
    assert less < 0
    assert is_short(smaller, "drain_down_fits")


def test_no_length_of_a_brimming_sump_holds():
    brimming = sumped(sump=replace(SUMP, return_level_cm=38, topper_l=400))
    with pytest.raises(NamedCase, match="no_sump_holds"):
        sump_sizing.smallest_sump(sheet_of(brimming, shipped()))


def test_returns_may_reach_as_deep_as_the_clogged_case_allows():
    sheet = sheet_of(sumped(returns=(*RETURNS, Outlet("pvc_25", 0.5, 1, 1.0, 20.0))), shipped())
    remedy = sump_sizing.deepest_returns(sheet)
    assert set(remedy.changes) == {"returns.0.outlet_depth_cm", "returns.1.outlet_depth_cm"}
    (depth,) = set(remedy.changes.values())

    def left_l(depth_cm):
        # Half a square metre of display to the outlet, the box and the pipes; a tenth is kept free.
        tried = sheet.changed(dict.fromkeys(remedy.changes, depth_cm))
        down = 0.5 * depth_cm * 10 + 30 * 15 * 4 / 1000 + tried.value("pipes_l")
        return tried.value("sump_free_l") - 1.1 * down

    assert left_l(depth) >= 0 > left_l(depth + 0.1)
    (offered,) = sump_sizing.raised_returns(sheet)
    assert offered == remedy
    assert sump_sizing.raised_returns(sheet.changed(remedy.changes)) == []


def test_no_depth_helps_where_the_weir_alone_brings_too_much():
    with pytest.raises(NamedCase, match="no_depth_holds") as caught:
        sump_sizing.deepest_returns(sheet_of(old_copper(), shipped()))
    assert caught.value.values["down"] > sheet_of(old_copper(), shipped()).value("sump_free_l") / 1.1
    assert sump_sizing.raised_returns(sheet_of(old_copper(), shipped())) == []


def test_without_a_sump_there_is_nothing_to_ask():
    for question in (sump_sizing.smallest_sump, sump_sizing.deepest_returns):
        with pytest.raises(NamedCase, match="not_needed"):
            question(sheet_of(plan(), shipped()))


BARE = {"flow": replace(long_hall().flow, way="none"), "run": (), "returns": (), "chambers": ()}


@pytest.mark.parametrize("way", ["weir", "holes"])
@pytest.mark.parametrize(
    "start",
    [
        tidal_corner(),
        rope_walk_b(),
        bottle_shelf(),
        replace(long_hall(), **BARE),
        first_plan.from_tank("60 cm", Tank(tank_length_cm=60, tank_width_cm=30, tank_height_cm=36), shipped()),
        first_plan.from_tank(
            "2 m", Tank(tank_length_cm=200, tank_width_cm=70, tank_height_cm=70, pane_mm=15), shipped()
        ),
    ],
    ids=lambda start: start if isinstance(start, str) else start.name,
)
def test_a_first_sump_makes_sense_and_holds(start, way):
    begun = sump_sizing.with_sump(start, way, shipped())
    sheet = sheet_of(begun, shipped())
    assert conflicts(begun, shipped()) == []
    assert [key for key in sump_sizing.flow_checks(begun, shipped()) if is_short(sheet, key)] == []
    assert sheet.value("return_lph") > 0
    assert begun.sump.sump_width_cm < start.tank.tank_width_cm


def test_a_first_sump_fits_a_low_stand():
    begun = sump_sizing.with_sump(
        plan(sump=replace(SUMP, stand_room_cm=46, tallest_part_cm=20, intake_cm=18)), "weir", shipped()
    )
    assert begun.sump.sump_height_cm == 46 - 20
    assert conflicts(begun, shipped()) == []


def test_a_sump_that_already_stands_is_taken_up_again():
    put_by = sumped(flow=replace(FLOW, way="none"))
    assert sump_sizing.with_sump(put_by, "weir", shipped()) == sumped()


def test_the_points_offered_lie_on_the_pumps_curve():
    sheet = sheet_of(sumped(), shipped())
    by_points = PLAN.changed(sumped(), sump_sizing.curve_points(sheet).changes)
    assert by_points.flow.curve_lph == (0, 1500, pytest.approx(2400))
    # H = 3 m x (1 - share^2)
    assert by_points.flow.curve_head_m == pytest.approx((3.0, 2.25, 1.08))
    assert conflicts(by_points, shipped()) == []
    assert sheet_of(by_points, shipped()).value("return_lph") == pytest.approx(sheet.value("return_lph"), rel=0.01)
