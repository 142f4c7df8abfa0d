"""The hours after something breaks, against a second writing of them that a library's stiff solver runs."""

from dataclasses import replace

import numpy as np
import pytest

from loquen.core.drills.course import QUANTITIES, run
from loquen.core.drills.harm import Kept, first_harm, harms
from loquen.core.errors import NamedCase, OutOfRange, UnknownKey
from loquen.core.timeline.nitrogen import Inputs
from loquen.core.timeline.tending.keeper import tend
from loquen.core.timeline.watch import Bound, Passed, Swing
from tests.core.failing_water import Water

TANK = {
    "volume_l": 200, "temp_c": 25, "set_c": 25, "heaters_w": (100, 100), "ua_w_k": 8, "surface_m2": 0.4, "room_c": 20,
    "transfer_running_l_h": 40, "transfer_still_l_h": 12, "transfer_air_l_h": 20, "breathing_mg_h": 60, "decay_mg_h": 10,
    "plants_night_mg_h": 10, "plants_day_mg_h": 30, "load_mg_d": 120, "capacity_ammonia_mg_l_d": 7,
    "capacity_nitrite_mg_l_d": 6.5, "ammonia_mg_l_n": 0.05, "nitrite_mg_l_n": 0.05, "brim_l": 220, "cover_frac": 0.5,
}  # fmt: skip
SMALL = {
    **TANK,
    "volume_l": 30,
    "brim_l": 33,
    "heaters_w": (50,),
    "ua_w_k": 2.5,
    "surface_m2": 0.1,
    "load_mg_d": 25,
}
SMALL |= {"breathing_mg_h": 12, "transfer_running_l_h": 70, "equipment_w": 4, "start_hour": 20, "kh_dkh": 2}
HOSE = {"kind": "inflow", "lph": 30, "c": 12, "kh_dkh": 4, "nitrate_mg_l_n": 2, "from_h": 2, "until_h": 9}
FAILURES = {
    "nothing": (TANK, []),
    "power": (TANK, [{"kind": "power", "from_h": 2, "until_h": 20}]),
    "power for long, the room cooling": (
        {**TANK, "start_hour": 15},
        [{"kind": "power"}, {"kind": "room", "from_h": 0, "temps_c": [20, 18, 15, 12, 10]}],
    ),
    "power with a battery's air": (TANK, [{"kind": "power", "from_h": 1}, {"kind": "battery_air", "from_h": 1, "until_h": 20, "transfer_l_h": 25}]),
    "heater stuck": (SMALL, [{"kind": "heater_stuck", "heater": 0, "from_h": 0.5}]),
    "heater dead": (TANK, [{"kind": "heater_dead", "heater": 1, "from_h": 3}, {"kind": "room", "from_h": 3, "until_h": 40, "temps_c": [8.0]}]),
    "pump": (SMALL, [{"kind": "pump", "from_h": 6, "until_h": 40}]),
    "air": (TANK, [{"kind": "air", "from_h": 4}]),
    "filter clogged": (TANK, [{"kind": "filter_clogged", "from_h": 0, "until_h": 40}]),
    "hose": (TANK, [{**HOSE, "chlorine_mg_l": 1.0, "chloramine": True}]),
    "hose of chlorinated water": (SMALL, [{**HOSE, "lph": 6, "chlorine_mg_l": 0.5, "salinity_ppt": 1.0}]),
    "top-up empty": ({**SMALL, "cover_frac": 0, "salinity_ppt": 8}, [{"kind": "top_up_empty"}]),
    "leak to a dry pump": ({**TANK, "pump_dry_l": 170}, [{"kind": "leak", "lph": 12, "down_to_l": 140, "from_h": 5}]),
    "overfed": (SMALL, [{"kind": "overfed", "dry_g": 6, "from_h": 1}]),
    "death": (TANK, [{"kind": "death", "wet_g": 100, "from_h": 0, "until_h": 30}]),
    "media lost": (TANK, [{"kind": "media_lost", "share": 0.9, "from_h": 1}]),
    "lamps": (TANK, [{"kind": "no_lamps"}]),
    "change": (SMALL, [{"kind": "change", "share": 0.5, "c": 18, "kh_dkh": 12, "nitrate_mg_l_n": 1, "from_h": 12.25}]),
    "dose": (TANK, [{"kind": "dose", "kh_dkh": 3, "ammonia_mg_l_n": 1, "nitrite_mg_l_n": 0.5, "oxygen_mg_l": 1, "from_h": 7}]),
    "surfaces full": ({**TANK, "x_max_mg_l_d": 8.0}, [{"kind": "overfed", "dry_g": 20}]),
}  # fmt: skip
HOURS = 48
NAMES = {"T": "temp_c", "O": "oxygen_mg_l", "G": "co2_mg_l", "A": "ammonia_mg_l_n", "B": "nitrite_mg_l_n"}
NAMES |= {"C": "nitrate_mg_l_n", "KH": "kh_dkh", "S": "salinity_ppt", "V": "volume_l", "L": "floor_l"}
NEAR = {"temp_c": 0.03, "volume_l": 0.1, "floor_l": 0.1}


@pytest.mark.parametrize("name", FAILURES)
def test_it_agrees_with_a_stiff_solver(name):
    tank, failures = FAILURES[name]
    course = run(**tank, failures=failures, hours=HOURS)
    exact = Water(failures, **tank).run(HOURS)
    for short, quantity in NAMES.items():
        levels = np.array([hour[short] for hour in exact])
        near = {"rel": 0, "abs": NEAR[quantity]} if quantity in NEAR else {"rel": 0.01, "abs": 0.01}
        assert getattr(course, quantity) == pytest.approx(levels, **near), quantity
    for quantity, of in (("capacity_ammonia_mg_l_d", "A"), ("capacity_nitrite_mg_l_d", "N")):
        levels = np.array([hour[f"{of}f"] + hour[f"{of}w"] for hour in exact])
        assert getattr(course, quantity) == pytest.approx(levels, rel=0.01, abs=0.01), quantity
    chlorine = np.array([hour["K"] + hour["M"] for hour in exact])
    assert course.chlorine_mg_l == pytest.approx(chlorine, rel=0.01, abs=0.01)


# Moments, refusals, laws --------------------------------------------------------------------------


def test_the_moment_that_a_limit_is_passed_is_told_between_the_hours():
    failures = [{"kind": "pump", "from_h": 6.5}]
    course, exact = run(**SMALL, failures=failures), Water(failures, **SMALL)
    moment = course.first("oxygen_mg_l", below=7.5)
    now, passed = 0.0, None
    for stop in (6.5, *np.arange(6.55, 12, 0.05)):
        now = exact.solved(now, float(stop))
        if passed is None and exact.y["O"] < 7.5:
            passed = now
    assert passed - 0.05 - 0.03 <= moment <= passed + 0.03
    assert course.first("oxygen_mg_l", below=1.0) is None
    assert course.first("oxygen_mg_l", above=1.0) == 0.0


def test_a_moment_of_a_jump_is_the_hour_of_the_jump():
    course = run(**TANK, hours=12, failures=[{"kind": "dose", "ammonia_mg_l_n": 2, "from_h": 7.25}])
    assert course.first("ammonia_mg_l_n", above=1.0) == 7.25
    # Kept is what was before.
    late = run(**TANK, hours=12, failures=[{"kind": "dose", "ammonia_mg_l_n": 2, "from_h": 7}])
    assert late.ammonia_mg_l_n[7] < 0.1
    assert late.ammonia_mg_l_n[8] > 1.5


def test_where_nothing_breaks_oxygen_and_carbon_dioxide_stand_still_in_the_dark():
    calm = {**TANK, "set_c": None, "heaters_w": (), "room_c": 25, "cover_frac": 1, "humidity_frac": 1.0}
    course = run(**calm, hours=8)
    assert course.oxygen_mg_l == pytest.approx(np.full(9, course.oxygen_mg_l[0]), rel=0.002)
    assert course.co2_mg_l == pytest.approx(np.full(9, 2.0), rel=0.005)
    assert {name: len(getattr(course, name)) for name in QUANTITIES} == dict.fromkeys(QUANTITIES, 9)


def test_water_is_never_lost_and_nitrogen_only_over_the_brim():
    hose = [{"kind": "inflow", "lph": 25, "c": 20, "from_h": 1, "until_h": 5}]
    flooded = run(**TANK, hours=12, failures=hose)
    assert flooded.volume_l + flooded.floor_l == pytest.approx(
        200 + 25 * np.clip(np.arange(13) - 1, 0, 4), abs=0.05
    )
    assert flooded.volume_l.max() == pytest.approx(220, abs=0.05)
    fed = run(**{**TANK, "brim_l": None}, hours=48, failures=[{"kind": "overfed", "dry_g": 4}])
    total = (fed.ammonia_mg_l_n + fed.nitrite_mg_l_n + fed.nitrate_mg_l_n) * fed.volume_l
    made = 120 / 24 * np.arange(49)
    # A gram of food of 45 % protein holds 72 mg of nitrogen; half of it rots in about a day.
    assert total[-1] - total[0] - made[-1] == pytest.approx(4 * 72 * (1 - np.exp(-0.7 * 2 * 1.10**0.14)), rel=0.01)


def test_bodies_are_found_each_for_itself():
    two = [{"kind": "death", "wet_g": 30}, {"kind": "death", "wet_g": 60, "until_h": 12}]
    both, one = run(**TANK, hours=24, failures=two), run(**TANK, hours=24, failures=two[:1])
    assert both.record.end.body_g == pytest.approx(one.record.end.body_g, rel=0.01)


def test_the_order_that_failures_are_told_in_changes_nothing():
    told = [{"kind": "power", "from_h": 3, "until_h": 9}, HOSE, {"kind": "overfed", "dry_g": 2, "from_h": 3}]
    first, again = run(**TANK, failures=told), run(**TANK, failures=told[::-1])
    for quantity in QUANTITIES:
        assert getattr(first, quantity) == pytest.approx(getattr(again, quantity), rel=1e-9), quantity


@pytest.mark.parametrize("more", [{"room_c": 16}, {"surface_m2": 0.8}])
def test_a_colder_room_or_a_wider_surface_never_keeps_it_warmer(more):
    cut = [{"kind": "power", "from_h": 1}]
    assert (run(**{**TANK, **more}, failures=cut).temp_c <= run(**TANK, failures=cut).temp_c + 0.01).all()


@pytest.mark.parametrize("kind", ["power", "pump", "air"])
def test_a_longer_failure_never_leaves_more_oxygen_while_it_lasts_and_a_battery_never_less(kind):
    short = run(**SMALL, hours=24, failures=[{"kind": kind, "from_h": 2, "until_h": 8}])
    long = run(**SMALL, hours=24, failures=[{"kind": kind, "from_h": 2, "until_h": 14}])
    held = run(
        **SMALL,
        hours=24,
        failures=[{"kind": kind, "from_h": 2}, {"kind": "battery_air", "from_h": 2, "transfer_l_h": 30}],
    )
    assert (long.oxygen_mg_l[:15] <= short.oxygen_mg_l[:15] + 0.01).all()
    assert (held.oxygen_mg_l[:15] >= long.oxygen_mg_l[:15] - 0.01).all()


@pytest.mark.parametrize(
    ("failure", "fault"),
    [
        ({"kind": "meteor"}, UnknownKey),
        ({"kind": "power", "loudness": 3}, UnknownKey),
        ({"kind": "overfed"}, NamedCase),
        ({"kind": "heater_stuck", "heater": 2}, UnknownKey),
    ],
)
def test_a_failure_that_can_not_be_is_refused(failure, fault):
    with pytest.raises(fault):
        run(**TANK, failures=[failure])


def test_what_no_relation_holds_for_is_refused():
    with pytest.raises(OutOfRange):
        run(**{**TANK, "temp_c": 60})
    with pytest.raises(UnknownKey):
        run(**TANK, hours=2).first("mood", below=1)


# Who is harmed first ------------------------------------------------------------------------------

RASBORA = Kept("rasbora", 23.0, 28.0, 4.0, 0.1)
GOURAMI = Kept("gourami", 22.0, 30.0, 4.0, 0.1, breathes_air=True)


def test_who_breathes_water_is_harmed_by_want_of_air_and_who_breathes_air_is_not():
    still = run(
        **{**TANK, "breathing_mg_h": 150, "set_c": None, "heaters_w": (), "room_c": 25},
        failures=[{"kind": "power"}],
    )
    first = first_harm(still, [GOURAMI, RASBORA])
    assert (first.name, first.quantity) == ("rasbora", "oxygen_mg_l")
    assert first.limit_h == still.first("oxygen_mg_l", below=4.0)
    # Four hours under the floor, or half of it at once, whichever is first.
    half = still.first("oxygen_mg_l", below=2.0)
    assert first.harm_h == pytest.approx(min(first.limit_h + 4, half or 99), abs=0.02)
    assert not any(one.quantity == "oxygen_mg_l" for one in harms(still, [GOURAMI]))


def test_a_stuck_heater_harms_two_kelvin_over_or_after_half_a_day():
    hot = run(**SMALL, failures=[{"kind": "heater_stuck", "heater": 0}])
    found = next(one for one in harms(hot, [RASBORA]) if one.quantity == "temp_c")
    assert found.limit_h == hot.first("temp_c", above=28.0)
    assert found.harm_h == pytest.approx(min(hot.first("temp_c", above=30.0), found.limit_h + 12), abs=0.02)


def test_chlorine_harms_at_once_and_a_little_only_with_time():
    strong, weak = (
        [{"kind": "change", "share": 0.5, "c": 25, "kh_dkh": 6, "chlorine_mg_l": mg, "from_h": 1}]
        for mg in (1, 0.1)
    )
    assert first_harm(run(**TANK, hours=24, failures=strong), [RASBORA]).harm_h == 1.0
    mild = [
        one for one in harms(run(**TANK, hours=24, failures=weak), [RASBORA]) if one.quantity == "chlorine_mg_l"
    ]
    assert (mild[0].limit_h, mild[0].harm_h) == (1.0, None)


def test_nothing_broken_harms_nobody():
    assert harms(run(**TANK, hours=48), [RASBORA, GOURAMI]) == ()


def test_a_bound_counts_without_a_break_and_a_swing_looks_back():
    hours = np.array([0.0, 1, 2, 3, 4, 5, 6])
    levels = np.array([5.0, 3, 3, 5, 3, 3, 3])
    assert Bound("x", below=4.0, for_h=2.0).passed(hours, levels) == Passed("x", 0.5, 5.5)
    assert Bound("x", below=4.0, for_h=9.0).passed(hours, levels).harm_h is None
    assert Bound("x", below=4.0, for_h=9.0, at_once=3.5).passed(hours, levels).harm_h == 0.75
    assert Swing("x", 1.0, 1.0).passed(hours, levels).harm_h == pytest.approx(0.5)
    assert Swing("x", 3.0, 6.0).passed(hours, levels).harm_h is None


def test_in_plenty_of_oxygen_it_is_the_cycle():
    calm = {
        **TANK,
        "set_c": None,
        "heaters_w": (),
        "room_c": 25,
        "cover_frac": 1,
        "humidity_frac": 1.0,
        "surface_m2": 0.0,
    }
    calm |= {
        "transfer_running_l_h": 400,
        "plants_day_mg_h": 0,
        "in_filter_frac": 1.0,
        "capacity_ammonia_mg_l_d": 0.5,
    }
    calm |= {"capacity_nitrite_mg_l_d": 0.3, "ammonia_mg_l_n": 1.0, "kh_dkh": 8, "x_max_mg_l_d": 5.0}
    course = run(**calm, hours=96)
    cycle = tend_a_litre(temp_c=25, kh_dkh=8, load=120 / 200, hours=96, ammonia=1.0, nitrite=0.05)
    for ours, theirs in (("ammonia_mg_l_n", "ammonia"), ("nitrite_mg_l_n", "nitrite"), ("kh_dkh", "kh")):
        assert getattr(course, ours) == pytest.approx(cycle[theirs], rel=0.01, abs=0.01), ours
    assert course.capacity_ammonia_mg_l_d == pytest.approx(cycle["on_ammonia"], rel=0.01)


def tend_a_litre(*, temp_c, kh_dkh, load, hours, ammonia, nitrite):
    """The same water as a cycle has it, with animals in it and nobody who changes any."""
    asked = Inputs(mode="with_animals", temp_c=temp_c, kh_dkh=kh_dkh, load_mg_l_d_n=load, x_max_mg_l_d=5.0)
    state = replace(asked.state(), ammonia=ammonia, nitrite=nitrite, on_ammonia=0.5, on_nitrite=0.3)
    return tend(state, asked.around(), asked.keeper(), hours // 24).hours
