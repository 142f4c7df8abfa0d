"""The nitrogen of a tank through time against reference runs, a stiff solver, balances and limits."""

import math
import tomllib
from dataclasses import replace
from itertools import pairwise
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import solve_ivp

from loquen.core.errors import OutOfRange, UnknownKey
from loquen.core.physics.chemistry import aerated_ph, ammonia_fraction, ph_from_kh_co2
from loquen.core.physics.dilution import settled_peak
from loquen.core.physics.gases import hours_to_oxygen_floor, oxygen_after_mg_l, oxygen_saturation_mg_l
from loquen.core.physics.heat import cooling_h, settle_temperature_c
from loquen.core.timeline.nitrogen import OF_A_RANGE, RANGES, Inputs, ensemble, factors_of, members_of, simulate
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.process.heat import Heat, Surface, set_to_c
from loquen.core.timeline.process.net import Net
from loquen.core.timeline.process.oxygen import Oxygen
from loquen.core.timeline.rates import free_ammonia, hydrogen, rates
from loquen.core.timeline.run import Undisturbed, run
from loquen.core.timeline.state import NAMES, PARTS, State, state_of
from loquen.core.timeline.stepper import Stepper
from loquen.core.timeline.surroundings import Surroundings
from loquen.core.timeline.tanks import tanks_of
from loquen.core.timeline.tending.keeper import Changing, Source, changed, dosed, tend
from loquen.core.timeline.watch import first_h, first_of

CASES = tomllib.loads((Path(__file__).parent / "cases/cycles.toml").read_text(encoding="utf-8"))
DAYS = ("day_done", "clear_from_day", "stalled_day")
ANIMALS = {"mode": "with_animals", "load_mg_l_d_n": 0.25, "ph_highest": 8.4}


@pytest.mark.parametrize("case", CASES["run"], ids=lambda case: case["what"])
def test_a_reference_run_comes_out(case):
    run = simulate(**case.get("inputs", {}))
    for name in DAYS:
        if name in case:
            assert getattr(run, name) == pytest.approx(case[name], abs=1.5), name
        else:
            assert getattr(run, name) is None, name
    for name in set(case) - {"what", "inputs", *DAYS}:
        close = {"abs": 1.5} if name.endswith("_day") else {"rel": 0.04}
        assert getattr(run, name) == pytest.approx(case[name], **close), name


@pytest.mark.parametrize("case", CASES["ensemble"], ids=lambda case: case["what"])
def test_an_ensemble_lies_in_its_bands(case):
    found = ensemble(**case.get("inputs", {}))
    for day, (low, high) in zip(found.days_10_50_90, case["bands"], strict=True):
        assert low <= day <= high
    low, high = case.get("not_done", (0.0, 0.02))
    assert low <= found.not_done_frac <= high


# Against a library's stiff solver, the same changes and doses at the same hours --------------------


def solved(inputs, days, events):
    """The same right-hand side, integrated by LSODA between events of (day, change share, dose)."""
    around, state, keeper = inputs.around(), inputs.state(), inputs.keeper()
    times = sorted({0.0, float(days), *(event[0] for event in events)})
    for start, end in pairwise(times):
        for day, share, dose in events:
            if day == start:
                state = changed(dosed(state, dose, keeper.dose_kh_per_n), share, keeper.source)
        found = solve_ivp(
            lambda _, y: PARTS(rates(State(*map(float, np.maximum(y, 0.0))), around)),
            (24 * start, 24 * end),
            PARTS(state),
            method="LSODA",
            rtol=1e-8,
            atol=1e-10,
        )
        state = State(*map(float, found.y[:, -1]))
    return state


@pytest.mark.parametrize("load", [0.05, 0.25, 1.0])
def test_it_agrees_with_a_stiff_solver(load):
    inputs = Inputs(mode="with_animals", load_mg_l_d_n=load, run_days=40, plants_take_mg_l_d_n=0.05, kh_dkh=12)
    run = simulate(
        **{
            "mode": "with_animals",
            "load_mg_l_d_n": load,
            "run_days": 40,
            "plants_take_mg_l_d_n": 0.05,
            "kh_dkh": 12,
            "changes": [{"every_days": 4, "share": 0.3}],
        }
    )
    exact = solved(inputs, 40, [(float(day), 0.3, 0.0) for day in range(4, 40, 4)])
    for name in ("ammonia", "nitrite", "nitrate", "kh", "on_ammonia", "on_nitrite"):
        assert run.hours[name][-1] == pytest.approx(getattr(exact, name), rel=0.002, abs=0.002), name


def test_the_speed_of_both_bacteria_is_that_of_the_equations_by_hand():
    # 0.3 mg/L of ammonia and 0.8 of nitrite at 22 °C, KH 5: every factor by the textbook's own functions.
    inputs = Inputs(temp_c=22.0, co2_mg_l=2.0)
    ph = min(ph_from_kh_co2(kh_dkh=5, co2_mg_l=2.0, temp_c=22.0), aerated_ph(kh_dkh=5, temp_c=22.0))
    free = 0.3 * ammonia_fraction(ph=ph, temp_c=22.0)
    f = 1.08**-3 / (1 + 10 ** (2 * (6.0 - ph)))
    use_a = 0.4 * f * 0.3 / 0.8 / (1 + free / 10) * 5 / 5.1
    use_n = 0.2 * f * 0.8 / 1.3 / (1 + free / 0.75)
    state = replace(inputs.state(), ammonia=0.3, nitrite=0.8, on_ammonia=0.4, on_nitrite=0.2, kh=5.0)
    found = daily(rates(state, inputs.around()))
    assert found.ammonia == pytest.approx(-use_a, rel=1e-6)
    assert found.nitrite == pytest.approx(use_a - use_n, rel=1e-6)
    assert found.nitrate == pytest.approx(use_n, rel=1e-6)
    assert found.on_ammonia == pytest.approx(0.60 * use_a - 0.05 * 1.08**-3 * 0.4, rel=1e-6)
    assert found.on_nitrite == pytest.approx(0.55 * use_n - 0.05 * 1.08**-3 * 0.2, rel=1e-6)
    assert found.kh == pytest.approx(-0.40 * use_a, rel=1e-6)


def daily(hourly):
    """Rates an hour as rates a day."""
    return State(*(24 * part for part in PARTS(hourly)))


@pytest.mark.parametrize("salinity", [0.0, 8.0, 30.0])
def test_free_ammonia_is_that_of_the_sheet_in_salted_water_too(salinity):
    inputs = Inputs(temp_c=25, kh_dkh=8, salinity_ppt=salinity)
    state, around = replace(inputs.state(), ammonia=1.0), inputs.around()
    ph = ph_from_kh_co2(kh_dkh=8, co2_mg_l=2, temp_c=25)
    assert -math.log10(hydrogen(state, around)) == pytest.approx(ph, abs=1e-9)
    assert free_ammonia(state, around) == pytest.approx(ammonia_fraction(ph, 25, salinity), rel=1e-9)


def test_members_of_an_ensemble_differ_in_every_thing_that_is_uncertain():
    asked = Inputs(temp_c=24, load_mg_l_d_n=0.2, mode="with_animals", seed_ammonia_oxidisers_mg_l_d=0.1)
    z = np.zeros((len(RANGES), 1 + len(RANGES)))
    z[:, 1:] = np.diag(
        np.full(len(RANGES), OF_A_RANGE)
    )  # each member at the end of one range, all else in the middle
    state, around, _ = members_of(asked, factors_of(z))
    middle = {name: values[0] for name, values in vars_of(state, around).items()}
    moved = {name: vars_of(state, around)[name][1 + place] / middle[name] for place, name in enumerate(RANGES)}
    # A kelvin is 1.08^1 by the table's rate of warmth; the rest are their own ranges.
    warmer = table().warmth_per_k
    expected = {
        "seed_a": 3,
        "seed_n": 3,
        "growth_a": 1.2,
        "growth_n": 1.2,
        "half_a": 1.4,
        "half_n": 1.4,
        "load": 1.25,
    }
    assert moved == pytest.approx({**expected, "temp": warmer}, rel=1e-6)


def vars_of(state, around):
    like = {name: getattr(around.bacteria, name) for name in ("growth_a", "growth_n", "half_a", "half_n")}
    seeds = {"seed_a": state.on_ammonia, "seed_n": state.on_nitrite}
    return {**seeds, **like, "load": around.bacteria.load_mg_h, "temp": around.warm.pace}


def test_plants_take_ammonia_first_and_give_back_the_reserve():
    inputs = Inputs(mode="with_animals", temp_c=25.0, plants_take_mg_l_d_n=0.3, load_mg_l_d_n=0.1)
    state = replace(inputs.state(), ammonia=0.05, nitrate=1.5, on_ammonia=1e-4, on_nitrite=1e-4, kh=5.0)
    found = daily(rates(state, inputs.around()))
    # Half of 0.3 as ammonia, three quarters of the other half as nitrate.
    assert found.ammonia == pytest.approx(0.1 - 0.15, abs=1e-4)
    assert found.nitrate == pytest.approx(-0.1125, abs=1e-4)
    assert found.kh == pytest.approx(0.20 * (0.1 - 0.15 + 0.1125), abs=1e-4)


@pytest.mark.parametrize("mode", ["with_animals", "empty_with_ammonia", "active_soil"])
def test_one_and_many_come_to_the_same(mode):
    asked = {"mode": mode, "load_mg_l_d_n": 0.25, "soil_ammonia_mg_l_n": 2.0 if mode == "active_soil" else 0.0}
    inputs = Inputs(**asked, plants_take_mg_l_d_n=0.05, changes=({"every_days": 3, "share": 0.3},))
    one = tend(inputs.state(), inputs.around(), inputs.keeper(), 40)
    twins = State(*(np.full(2, part) for part in PARTS(inputs.state())))
    many = tend(twins, inputs.around(), inputs.keeper(), 40, members=2)
    for name in NAMES:
        assert getattr(many.end, name)[0] == pytest.approx(getattr(one.end, name), rel=1e-9), name
    for name in ("peak_nitrite", "peak_nitrite_day", "day_done", "clear_from_day", "dosed", "changes_made"):
        alone = getattr(one.tally, name)
        assert getattr(many.tally, name)[1] == pytest.approx(alone, rel=1e-9, nan_ok=True), name


def test_a_member_that_is_done_stays_as_it_ended_and_leaves_the_others_alone():
    inputs = Inputs(kh_dkh=16)
    seeds = np.array([0.01, 0.6])
    state = replace(inputs.state(on_ammonia=seeds, on_nitrite=seeds), kh=np.full(2, 16.0))
    pair = tend(state, inputs.around(), inputs.keeper(), 40, members=2)
    for member, seed in enumerate(seeds):
        alone = Inputs(kh_dkh=16, seed_ammonia_oxidisers_mg_l_d=seed, seed_nitrite_oxidisers_mg_l_d=seed)
        run = tend(alone.state(), alone.around(), alone.keeper(), 40)
        assert pair.tally.day_done[member] == run.tally.day_done
        assert pair.end.nitrate[member] == pytest.approx(run.end.nitrate, rel=2e-3)
    early = int(24 * pair.tally.day_done[1])
    assert (pair.hours["nitrate"][early:, 1] == pair.hours["nitrate"][early, 1]).all()


# Balances and limits ----------------------------------------------------------------------------


def nitrogen(hours):
    return sum(hours[name] for name in ("ammonia", "nitrite", "nitrate", "soil"))


def test_nitrogen_closes():
    run = simulate(mode="with_animals", load_mg_l_d_n=0.25, run_days=60, source_nitrate_ion_mg_l=0)
    total = run.hours["ammonia"] + run.hours["nitrite"] + run.hours["nitrate"]
    assert total == pytest.approx(0.25 * run.hours["day"], abs=1e-9)
    soil = Inputs(mode="active_soil", soil_ammonia_mg_l_n=6, kh_dkh=2)
    held = nitrogen(tend(soil.state(), soil.around(), soil.keeper(), 30).hours)
    assert held == pytest.approx(np.full(721, held[0]), abs=1e-9)


def test_no_bacteria_leave_the_load_as_ammonia():
    run = simulate(
        **{**ANIMALS, "run_days": 2, "seed_ammonia_oxidisers_mg_l_d": 0.0, "seed_nitrite_oxidisers_mg_l_d": 0.0}
    )
    assert run.hours["ammonia"][-1] == pytest.approx(0.5, rel=2e-4)


def test_without_food_capacity_dies_off_by_a_twentieth_a_day():
    run = simulate(mode="with_animals", temp_c=25, run_days=14, seed_ammonia_oxidisers_mg_l_d=1.0)
    assert run.hours["on_ammonia"][-1] == pytest.approx(math.exp(-0.05 * 14), rel=1e-4)
    # 69 % in a week and 47 % in two at 26 °C.
    warm = simulate(mode="with_animals", temp_c=26, run_days=14, seed_ammonia_oxidisers_mg_l_d=1.0)
    assert warm.hours["on_ammonia"][7 * 24] == pytest.approx(0.69, abs=0.01)
    assert warm.hours["on_ammonia"][-1] == pytest.approx(0.47, abs=0.01)


def test_a_halved_step_changes_nothing_that_is_read():
    inputs = Inputs(**{**ANIMALS, "load_mg_l_d_n": 0.5})

    def ended(longest_h):
        stepper, state = Stepper(tanks_of(None)), inputs.state()
        for hour in np.arange(0, 25 * 24, longest_h):
            for step in stepper.steps(hour, hour + longest_h, state, inputs.around()):
                state = step.end
        return state

    coarse, fine = ended(24.0), ended(0.5)
    assert PARTS(coarse) == pytest.approx(PARTS(fine), rel=3e-3, abs=1e-3)


def test_active_soil_takes_the_reserve_and_is_spent():
    inputs = Inputs(mode="active_soil", kh_dkh=8, soil_hold_meq_l=1.0, soil_ammonia_mg_l_n=0)
    end = tend(inputs.state(), inputs.around(), inputs.keeper(), 30).end
    # A milliequivalent is 2.8 dKH: after that nothing is taken, and pH is free again.
    assert end.hold == 0
    assert end.kh == pytest.approx(8 - 1 / 0.35665, abs=0.1)


def test_hardness_at_the_least_that_a_soil_leaves_lies_still():
    inputs = Inputs(mode="active_soil", kh_dkh=0.5, soil_least_kh_dkh=0.5, source_kh_dkh=0.5, load_mg_l_d_n=0.1)
    kh = tend(inputs.state(), inputs.around(), inputs.keeper(), 10).hours["kh"]
    assert kh == pytest.approx(np.full(241, 0.5), abs=1e-9)


def test_chloramine_comes_in_with_a_change():
    plain = simulate(**ANIMALS, run_days=3, changes=[{"on_days": [2], "share": 0.5}])
    slip = simulate(**ANIMALS, run_days=3, changes=[{"on_days": [2], "share": 0.5}], source_ammonia_mg_l_n=0.6)
    assert slip.hours["ammonia"][49] - plain.hours["ammonia"][49] == pytest.approx(0.3, abs=2e-3)


def test_a_loss_of_bacteria_and_a_new_load_come_at_their_day():
    event = {"day": 10, "capacity_lost_share": 0.5}
    lost = simulate(**{**ANIMALS, "run_days": 12}, timed_events=[event])
    kept = simulate(**{**ANIMALS, "run_days": 12})
    assert lost.hours["on_ammonia"][241] == pytest.approx(kept.hours["on_ammonia"][241] / 2, rel=0.02)
    noon = simulate(**{**ANIMALS, "run_days": 12}, timed_events=[{"day": 10.5, "capacity_lost_share": 0.5}])
    assert noon.hours["on_ammonia"][252] == pytest.approx(kept.hours["on_ammonia"][252], rel=1e-3)
    assert noon.hours["on_ammonia"][253] == pytest.approx(kept.hours["on_ammonia"][253] / 2, rel=0.02)
    fed = simulate(mode="with_animals", run_days=6, timed_events=[{"day": 3, "load_mg_l_d_n": 1.0}])
    assert fed.hours["ammonia"][[72, 96]] == pytest.approx([0.0, 1.0], abs=0.01)


def test_a_low_hardness_is_answered_from_the_first_reading_on():
    rule = [{"when_kh_read_under_dkh": 1.5, "share": 0.5}]
    run = simulate(**{**ANIMALS, "kh_dkh": 1.0, "source_kh_dkh": 8.0, "run_days": 3}, changes=rule)
    assert run.hours["kh"][24] < 1.1
    assert run.hours["kh"][25] == pytest.approx(4.5, abs=0.1)
    assert run.changes_made == 1


def test_no_source_of_ammonia_is_no_cycling():
    assert (
        simulate(
            mode="with_animals", seed_ammonia_oxidisers_mg_l_d=1, seed_nitrite_oxidisers_mg_l_d=1
        ).clear_from_day
        is None
    )


@pytest.mark.parametrize(
    ("inputs", "fault"),
    [
        ({"temp_c": 37}, OutOfRange),
        ({"mode": "hoping"}, UnknownKey),
        ({"dose_kind": "shrimp"}, UnknownKey),
        ({"x_max_mg_l_d": 0}, OutOfRange),
        ({"changes": [{"every_days": 3, "share": 1.2}]}, OutOfRange),
        ({"timed_events": [{"day": 3, "flood": 1}]}, UnknownKey),
    ],
)
def test_what_no_relation_holds_for_is_refused(inputs, fault):
    with pytest.raises(fault):
        simulate(**inputs)


# Runs of one phenomenon, and the closed forms that they come to ------------------------------------

DRY = Surface(area_m2=0.0, cover_frac=1.0, humidity_frac=0.5, calm_frac=0.5, cover_effect=0.9)


def left_alone(state, around, hours=48):
    return run(state, around, Undisturbed(), hours, tanks_of(None))


def test_water_that_does_not_evaporate_cools_by_newton():
    course = left_alone(state_of(temp_c=25.0), Surroundings(100.0, heat=Heat(10.0, DRY, 18.0)))
    passed = first_of(course.steps, "temp_c", below=21.5)
    assert passed == pytest.approx(cooling_h(100, 10, 25, 21.5, 18), rel=1e-3)


def test_a_heater_that_is_stuck_warms_to_where_walls_lose_as_much():
    heat = Heat(10.0, DRY, 18.0, constant_w=100.0)
    end = left_alone(state_of(temp_c=20.0), Surroundings(100.0, heat=heat), 240).end
    assert end.temp_c == pytest.approx(settle_temperature_c(100, 10, 18), abs=0.01)


def test_a_thermostat_set_by_its_keeper_stands_still_and_heats_all_it_can_below():
    heat = Heat(10.0, DRY, 18.0, set_c=set_to_c(25.0, 70.0, 0.0, 200.0), heaters_w=200.0)
    kept = left_alone(state_of(temp_c=25.0), Surroundings(100.0, heat=heat))
    assert kept.hours["temp_c"] == pytest.approx(np.full(49, 25.0), abs=0.02)
    warming = left_alone(state_of(temp_c=10.0), Surroundings(100.0, heat=replace(heat, walls_w_k=0.0)), 2)
    # 200 W for two hours in 100 L.
    assert warming.end.temp_c - 10 == pytest.approx(400 * 3600 / (100 * 4186), rel=1e-3)


def test_oxygen_without_power_sinks_as_the_closed_form_has_it():
    still = Oxygen(transfer_l_h=12.0, breathing_mg_h=60.0, breathing_at_c=25.0, warmth_10k=1.83, decay_mg_h=5.0)
    around = Surroundings(200.0, oxygen=still)
    course = left_alone(state_of(temp_c=25.0, oxygen=7.0), around)
    balance = oxygen_saturation_mg_l(25.0)
    for hour in (1, 5, 10):
        level = oxygen_after_mg_l(hour, 7.0, 65.0, 200.0, 12 / 200, balance)
        assert course.hours["oxygen"][hour] == pytest.approx(level, abs=0.005)
    assert first_of(course.steps, "oxygen", below=4.0) == pytest.approx(
        hours_to_oxygen_floor(7.0, 65.0, 200.0, 12 / 200, balance, 4.0), rel=2e-3
    )


def test_a_limit_passed_on_either_side_is_the_earlier_one():
    hours, levels = np.arange(5.0), np.array([5.0, 7.0, 9.0, 5.0, 1.0])
    assert first_h(hours, levels, below=4.0, above=8.0) == 1.5
    assert first_h(hours, levels, below=4.0) == 3.25
    assert first_h(hours, levels, below=6.0) == 0.0
    assert first_h(hours, levels, above=9.0) is None


def test_a_water_within_a_step_is_what_is_drawn_of_it():
    course = left_alone(state_of(temp_c=25.0), Surroundings(100.0, heat=Heat(10.0, DRY, 18.0)))
    step = course.steps[1]
    for part in (0.0, 0.3, 0.8, 1.0):
        hour = step.start_h + part * (step.end_h - step.start_h)
        assert step.inside(part).temp_c == pytest.approx(step.at(np.array([hour]), ("temp_c",))[0, 0], rel=1e-12)
        # Newton's law of cooling: 10 W/K on 100 L.
        exact = 18 + 7 * math.exp(-10 * 3600 * hour / (4186 * 100))
        assert step.inside(part).temp_c == pytest.approx(exact, abs=0.01)


def test_what_is_not_at_work_stays_as_it_is():
    end = left_alone(state_of(temp_c=25.0, oxygen=7.0, nitrate=3.0, kh=5.0), Surroundings(100.0, net=Net(0.01))).end
    assert (end.temp_c, end.oxygen, end.kh) == (25.0, 7.0, 5.0)
    assert end.nitrate == pytest.approx(3.48)


def test_changes_of_a_share_each_week_settle_as_the_fixed_point_has_it():
    source = Source(nitrate_mg_l_n=1.0, kh_dkh=0.0)
    weekly = Changing(0.4, range(7, 400, 7), source)
    levels = run(
        state_of(nitrate=20.0), Surroundings(net=Net(0.5 / 24)), weekly, 399 * 24, tanks_of(None), ("nitrate",)
    )
    assert levels.hours["nitrate"][-1] == pytest.approx(settled_peak(3.5, 1.0, 0.4), abs=0.01)


# Laws -------------------------------------------------------------------------------------------


@settings(max_examples=12, deadline=None)
@given(st.floats(0.004, 0.3), st.floats(1.0, 3.0))
def test_more_seed_is_never_later(seed, more):
    few = simulate(seed_ammonia_oxidisers_mg_l_d=seed, seed_nitrite_oxidisers_mg_l_d=seed, kh_dkh=16)
    many = simulate(seed_ammonia_oxidisers_mg_l_d=more * seed, seed_nitrite_oxidisers_mg_l_d=more * seed, kh_dkh=16)
    # A day of grace: what is read in the morning decides whether a whole dose is due.
    assert many.day_done <= few.day_done + 1


@settings(max_examples=12, deadline=None)
@given(st.floats(18, 28), st.floats(0.5, 4))
def test_warmer_is_never_slower(temp, more):
    cool, warm = (simulate(temp_c=t, kh_dkh=20).day_done for t in (temp, temp + more))
    assert warm <= cool + 1


@settings(max_examples=20, deadline=None)
@given(st.floats(0, 1), st.floats(0, 5), st.floats(0, 5), st.floats(0, 20))
def test_a_change_never_raises_what_the_source_lacks(share, ammonia, nitrite, nitrate):
    state = state_of(ammonia=ammonia, nitrite=nitrite, nitrate=nitrate, on_ammonia=1.0, on_nitrite=1.0, kh=5.0)
    after = changed(state, share, Source(nitrate_mg_l_n=0, kh_dkh=5))
    assert all(getattr(after, name) <= getattr(state, name) for name in ("ammonia", "nitrite", "nitrate"))
    assert (after.on_ammonia, after.on_nitrite) == (1.0, 1.0)


def test_an_ensemble_is_drawn_the_same_twice_and_spreads_around_its_middle():
    first, again = ensemble(members=40, run_days=60), ensemble(members=40, run_days=60)
    assert first.days_10_50_90 == again.days_10_50_90
    low, middle, high = (first.bands["nitrite"][row] for row in range(3))
    assert (low <= middle).all()
    assert (middle <= high).all()
    steady = replace(Inputs(), seed_ammonia_oxidisers_mg_l_d=0.3)
    assert steady.checked() is steady
