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
from loquen.core.timeline import course, rates
from loquen.core.timeline.arithmetic import Many, One
from loquen.core.timeline.nitrogen import OF_A_RANGE, RANGES, Inputs, ensemble, factors_of, members_of, simulate

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
    w, state, m = inputs.water(), np.array(inputs.state()), One()
    keeper = inputs.keeper()
    times = sorted({0.0, float(days), *(event[0] for event in events)})
    for start, end in pairwise(times):
        for day, share, dose in events:
            if day == start:
                state = np.array(course.dosed(tuple(state), dose, keeper.dose_kh_per_n, m))
                state = np.array(course.changed(tuple(state), share, keeper.source, m))
        found = solve_ivp(
            lambda _, y: rates.rates(tuple(np.maximum(y, rates.floors())), w, m),
            (start, end),
            state,
            method="LSODA",
            rtol=1e-8,
            atol=1e-10,
        )
        state = found.y[:, -1]
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
    for name, at in (("ammonia", rates.AMMONIA), ("nitrite", rates.NITRITE), ("nitrate", rates.NITRATE)):
        assert run.hours[name][-1] == pytest.approx(exact[at], rel=0.01, abs=0.01)
    assert run.hours["on_ammonia"][-1] == pytest.approx(exact[rates.ON_AMMONIA], rel=0.01)


def test_the_speed_of_both_bacteria_is_that_of_the_equations_by_hand():
    # 0.3 mg/L of ammonia and 0.8 of nitrite at 22 °C, KH 5: every factor by the textbook's own functions.
    w = rates.water(temp_c=22.0, co2_mg_l=2.0)
    ph = min(ph_from_kh_co2(kh_dkh=5, co2_mg_l=2.0, temp_c=22.0), aerated_ph(kh_dkh=5, temp_c=22.0))
    free = 0.3 * ammonia_fraction(ph=ph, temp_c=22.0)
    f = 1.08**-3 / (1 + 10 ** (2 * (6.0 - ph)))
    use_a = 0.4 * f * 0.3 / 0.8 / (1 + free / 10) * 5 / 5.1
    use_n = 0.2 * f * 0.8 / 1.3 / (1 + free / 0.75)
    found = rates.rates(course.start(ammonia=0.3, nitrite=0.8, on_ammonia=0.4, on_nitrite=0.2, kh=5.0), w, One())
    assert found[rates.AMMONIA] == pytest.approx(-use_a, rel=1e-6)
    assert found[rates.NITRITE] == pytest.approx(use_a - use_n, rel=1e-6)
    assert found[rates.NITRATE] == pytest.approx(use_n, rel=1e-6)
    assert found[rates.ON_AMMONIA] == pytest.approx(0.60 * use_a - 0.05 * 1.08**-3 * 0.4, rel=1e-6)
    assert found[rates.ON_NITRITE] == pytest.approx(0.55 * use_n - 0.05 * 1.08**-3 * 0.2, rel=1e-6)
    assert found[rates.KH] == pytest.approx(-0.40 * use_a, rel=1e-6)


@pytest.mark.parametrize("salinity", [0.0, 8.0, 30.0])
def test_free_ammonia_is_that_of_the_sheet_in_salted_water_too(salinity):
    w = Inputs(temp_c=25, kh_dkh=8, salinity_ppt=salinity).water()
    h = rates.hydrogen(8.0, 0.0, w, One())
    expected = ammonia_fraction(-math.log10(h), 25, salinity)
    assert rates.free_ammonia(1.0, h, w) == pytest.approx(expected, rel=1e-9)


def test_members_of_an_ensemble_differ_in_every_thing_that_is_uncertain():
    asked = Inputs(temp_c=24, load_mg_l_d_n=0.2, mode="with_animals", seed_ammonia_oxidisers_mg_l_d=0.1)
    z = np.zeros((len(RANGES), 1 + len(RANGES)))
    z[:, 1:] = np.diag(
        np.full(len(RANGES), OF_A_RANGE)
    )  # each member at the end of one range, all else in the middle
    state, w, _ = members_of(asked, factors_of(z))
    middle = {name: values[0] for name, values in vars_of(state, w).items()}
    moved = {name: vars_of(state, w)[name][1 + place] / middle[name] for place, name in enumerate(RANGES)}
    # A kelvin is 1.1^1 by the table's rate of warmth; the rest are their own ranges.
    warmer = rates.table().warmth_per_k
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


def vars_of(state, w):
    return {
        "seed_a": state[3], "seed_n": state[4], "growth_a": w.growth_a, "growth_n": w.growth_n, "half_a": w.half_a,
        "half_n": w.half_n, "load": w.load, "temp": w.warmth,
    }  # fmt: skip


def test_plants_take_ammonia_first_and_give_back_the_reserve():
    w = rates.water(temp_c=25.0, co2_mg_l=2.0, plants_take_mg_l_d_n=0.3, load_mg_l_d_n=0.1)
    found = rates.rates(course.start(ammonia=0.05, nitrate=1.5, on_ammonia=1e-4, on_nitrite=1e-4, kh=5.0), w, One())
    # Half of 0.3 as ammonia, three quarters of the other half as nitrate.
    assert found[rates.AMMONIA] == pytest.approx(0.1 - 0.15, abs=1e-4)
    assert found[rates.NITRATE] == pytest.approx(-0.1125, abs=1e-4)
    assert found[rates.KH] == pytest.approx(0.20 * (0.1 - 0.15 + 0.1125), abs=1e-4)


def test_one_and_many_come_to_the_same():
    inputs = Inputs(**ANIMALS, run_days=20, changes=({"every_days": 3, "share": 0.3},))
    one = course.one(inputs.state(), inputs.water(), inputs.keeper(), 20)
    many = course.many(Many(2).state(inputs.state()), inputs.water(), inputs.keeper(), 20)
    assert many.end[:, 0] == pytest.approx(np.array(one.end), rel=1e-9)
    assert many.ledger.peak_nitrite[1] == pytest.approx(one.ledger.peak_nitrite, rel=1e-9)


# Balances and limits ----------------------------------------------------------------------------


def nitrogen(state):
    return sum(state[at] for at in (rates.AMMONIA, rates.NITRITE, rates.NITRATE, rates.SOIL))


def test_nitrogen_closes():
    run = simulate(mode="with_animals", load_mg_l_d_n=0.25, run_days=60, source_nitrate_ion_mg_l=0)
    total = run.hours["ammonia"] + run.hours["nitrite"] + run.hours["nitrate"]
    assert total == pytest.approx(0.25 * run.hours["day"], abs=1e-9)
    soil = Inputs(mode="active_soil", soil_ammonia_mg_l_n=6, kh_dkh=2)
    record = course.one(soil.state(), soil.water(), soil.keeper(), 30)
    assert [nitrogen(hour) for hour in record.hours] == pytest.approx([nitrogen(record.hours[0])] * 721, abs=1e-9)


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
    state, w, m = inputs.state(), inputs.water(), One()
    fine = coarse = state
    for _ in range(25 * 24):
        coarse = rates.stepped(coarse, w, m, 1 / 24)
        fine = rates.stepped(rates.stepped(fine, w, m, 1 / 48), w, m, 1 / 48)
    assert coarse == pytest.approx(fine, rel=2e-3, abs=1e-3)


def test_active_soil_takes_the_reserve_and_is_spent():
    inputs = Inputs(mode="active_soil", kh_dkh=8, soil_hold_meq_l=1.0, soil_ammonia_mg_l_n=0)
    record = course.one(inputs.state(), inputs.water(), inputs.keeper(), 30)
    # A milliequivalent is 2.8 dKH: after that nothing is taken, and pH is free again.
    assert record.end[rates.HOLD] == 0
    assert record.end[rates.KH] == pytest.approx(8 - 1 / 0.35665, abs=0.1)


def test_chloramine_comes_in_with_a_change():
    plain = simulate(**ANIMALS, run_days=3, changes=[{"on_days": [2], "share": 0.5}])
    slip = simulate(**ANIMALS, run_days=3, changes=[{"on_days": [2], "share": 0.5}], source_ammonia_mg_l_n=0.6)
    assert slip.hours["ammonia"][49] - plain.hours["ammonia"][49] == pytest.approx(0.3, abs=2e-3)


def test_a_loss_of_bacteria_and_a_new_load_come_at_their_day():
    event = {"day": 10, "capacity_lost_share": 0.5}
    lost = simulate(**{**ANIMALS, "run_days": 12}, timed_events=[event])
    kept = simulate(**{**ANIMALS, "run_days": 12})
    assert lost.hours["on_ammonia"][241] == pytest.approx(kept.hours["on_ammonia"][241] / 2, rel=0.02)
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
    state = course.start(ammonia=ammonia, nitrite=nitrite, nitrate=nitrate, on_ammonia=1, on_nitrite=1, kh=5.0)
    after = course.changed(state, share, course.Source(nitrate_mg_l_n=0, kh_dkh=5), One())
    assert all(after[at] <= state[at] for at in range(3))
    assert after[3:5] == state[3:5]


def test_an_ensemble_is_drawn_the_same_twice_and_spreads_around_its_middle():
    first, again = ensemble(members=40, run_days=60), ensemble(members=40, run_days=60)
    assert first.days_10_50_90 == again.days_10_50_90
    low, middle, high = (first.bands["nitrite"][row] for row in range(3))
    assert (low <= middle).all()
    assert (middle <= high).all()
    steady = replace(Inputs(), seed_ammonia_oxidisers_mg_l_d=0.3)
    assert steady.checked() is steady
