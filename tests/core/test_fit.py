"""Readings as intervals, and what a log of them says: cover, power, and what is asked about."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.stats import norm

from loquen.core.errors import BadReading, NamedCase, OutOfRange, UnknownKey
from loquen.core.fit.likelihood import likelihood
from loquen.core.fit.nitrate import fit
from loquen.core.fit.posterior import sampled
from loquen.core.model.records.readings import Interval, interval
from tests.core.fit_logs import CHART, prior, synthetic

# A reading is an interval -----------------------------------------------------------------------


@pytest.mark.parametrize(
    ("value", "chart", "expected"),
    [
        ("20", [0, 10, 20, 40], (15, 30)),
        ("0", CHART, (0, 2.5)),
        ("160", CHART, (120, math.inf)),
        ("between 20 and 40", CHART, (20, 40)),
        ("20-40", CHART, (20, 40)),
        ("under 5", CHART, (0, 5)),
        ("< 0,25", [], (0, 0.25)),
        ("over 80", CHART, (80, math.inf)),
        ("30", CHART, (25, 35)),
        ("7,2", [], (7.128, 7.272)),
    ],
)
def test_a_reading_is_an_interval(value, chart, expected):
    found = interval(value, tuple(chart))
    assert (found.low, found.high) == pytest.approx(expected)


@pytest.mark.parametrize(("value", "code"), [("lots", "not_a_reading"), ("between 40 and 20", "turned_round")])
def test_what_is_no_reading_is_said(value, code):
    with pytest.raises(BadReading) as caught:
        interval(value, tuple(CHART))
    assert caught.value.code == code


def test_the_likelihood_by_hand():
    # ln(30/20)/0.25 and ln(15/20)/0.25 standard deviations, 98 of a hundred, and two that may be any of seven.
    by_hand = 0.98 * (norm.cdf(math.log(1.5) / 0.25) - norm.cdf(math.log(0.75) / 0.25)) + 0.02 / 7
    assert likelihood(np.array([20.0]), Interval(15, 30), 7)[0] == pytest.approx(by_hand, rel=1e-9)


@given(st.floats(0.1, 300))
def test_all_steps_of_a_chart_together_are_certain(level):
    steps = [interval(str(step), tuple(CHART)) for step in CHART]
    assert sum(likelihood(np.array([level]), step, 7)[0] for step in steps) == pytest.approx(1.0, abs=1e-6)


def test_samples_of_a_known_density_have_its_mean_spread_and_evidence():
    chance = np.random.default_rng(0)
    z = chance.standard_normal((2, 3000))
    log_first = -0.5 * ((z) ** 2).sum(axis=0) - math.log(2 * math.pi)
    # Three times a normal density around (2, -1), 0.1 and 0.3 wide.
    found = sampled(
        z,
        log_first,
        lambda x: math.log(3) + norm.logpdf(x[0], 2, 0.1) + norm.logpdf(x[1], -1, 0.3),
    )
    assert found.quantiles(found.samples[0]) == pytest.approx((2 - 0.1645, 2, 2 + 0.1645), abs=0.02)
    assert found.mean(found.samples[1]) == pytest.approx(-1, abs=0.02)
    assert found.log_evidence == pytest.approx(math.log(3), abs=0.05)


# What a log says --------------------------------------------------------------------------------


def tried(count, effect, seed=0, before=8, after=12, **how):
    """Many synthetic logs: fits beside what is true of each."""
    chance = np.random.default_rng(seed)
    for _ in range(count):
        log, beforehand, truth = synthetic(chance, before, after, effect, **how)
        yield fit(prior=beforehand, log=log), truth


def holds(interval_of, value):
    return interval_of[0] <= value <= interval_of[2]


def test_the_intervals_hold_the_truth_and_no_sink_is_seldom_called_real():
    found = list(tried(40, 0.0, seed=3))
    assert sum(holds(fitted.effect_mg_l_d, 0) for fitted, _ in found) >= 31
    assert sum(holds(fitted.made_mg_l_d, truth["made"]) for fitted, truth in found) >= 31
    assert sum(holds(fitted.source_mg_l, truth["source"]) for fitted, truth in found) >= 31
    assert sum(fitted.verdict == "real" for fitted, _ in found) <= 3
    assert sum(fitted.verdict == "nothing to see" for fitted, _ in found) >= 8
    assert sum(bool(fitted.asks) for fitted, _ in found) <= 2


def test_a_sink_of_two_thirds_is_real_within_three_months():
    found = list(tried(20, 0.7))
    assert sum(fitted.verdict == "real" for fitted, _ in found) >= 18
    assert sum(holds(fitted.effect_mg_l_d, truth["effect"]) for fitted, truth in found) >= 15
    assert all(fitted.effect_odds > 0.9 for fitted, _ in found if fitted.verdict == "real")


def test_a_small_one_can_not_be_told_with_such_a_chart():
    found = list(tried(20, 0.15, after=8))
    assert sum(fitted.verdict == "can not tell yet" for fitted, _ in found) >= 12


def test_a_chart_that_reads_nitrogen_is_asked_about():
    found = list(tried(15, 0.0, after=4, as_n=True))
    assert sum({"about": "as_n"} in fitted.asks for fitted, _ in found) >= 14
    log, beforehand, _ = synthetic(np.random.default_rng(1), 8, 8, 0.0, as_n=True)
    said = fit(prior={**beforehand, "kit_says": "n"}, log=log)
    assert not [ask for ask in said.asks if ask["about"] != "reading"]


@pytest.mark.parametrize("wrong", ["0", "160"])
def test_an_impossible_reading_is_asked_about_and_moves_nothing_much(wrong):
    chance = np.random.default_rng(11)
    log, beforehand, truth = synthetic(chance, 10, 10, 0.7)
    there = [entry for entry in log if entry["kind"] == "reading"][12]
    changed = [{**entry, "value": wrong} if entry is there else entry for entry in log]
    fitted = fit(prior=beforehand, log=changed)
    assert {"about": "reading", "day": there["day"]} in fitted.asks
    assert holds(fitted.effect_mg_l_d, truth["effect"])


def test_a_level_under_the_source_just_after_a_change_with_it_is_asked_about():
    log = [
        {"day": 0, "kind": "reading", "value": "20"},
        {"day": 7, "kind": "change", "share": 0.9},
        {"day": 7, "kind": "reading", "value": "under 2", "when": "after the change"},
    ]
    assert {"about": "reading", "day": 7} in fit(prior=prior(), log=log).asks


def test_where_most_readings_contradict_the_feed_the_plan_is_asked_about_and_they_are_kept():
    """Two young turtles: by grown ones' feed 60 mg/L a day, and weekly readings of 10 to 15 before half a change."""
    rows = []
    for week, value in enumerate(["10", "between 10 and 15", "15", "10", "between 10 and 15", "10"]):
        rows.append({"day": 7 * week, "kind": "reading", "value": value, "when": "before the change"})
        rows.append({"day": 7 * week, "kind": "change", "share": 0.5})
    found = fit(prior={**prior(), "made_from_feed_mg_l_d": 60.0, "source_report_mg_l": 5.0}, log=rows)
    assert {"about": "plan"} in found.asks
    assert not [ask for ask in found.asks if ask["about"] == "reading"]
    # What stands after the last change is about half of what was read, with new water.
    assert 4 < found.level_mg_l[1] < 12
    assert {"about": "plan"} not in fit(prior={**prior(), "made_from_feed_mg_l_d": 1.0}, log=rows).asks


def test_without_a_sink_date_nothing_is_said_of_one():
    log, _, truth = synthetic(np.random.default_rng(4), 20, 0, 0.0)
    fitted = fit(prior=prior(), log=log)
    assert fitted.effect_mg_l_d is fitted.verdict is fitted.effect_odds is None
    assert holds(fitted.made_mg_l_d, truth["made"])
    # After the last change the level is the settled one, by hand within its range.
    assert holds(fitted.level_mg_l, truth["source"] + truth["made"] * 7 * 0.7 / 0.3)


@pytest.mark.parametrize(
    ("beforehand", "log", "fault"),
    [
        ({}, [{"day": 0, "kind": "change", "share": 0.3}], NamedCase),
        ({}, [{"day": 0, "kind": "reading", "value": "20"}, {"day": 1, "kind": "change", "share": 3}], OutOfRange),
        ({"kit_says": "guesses"}, [{"day": 0, "kind": "reading", "value": "20"}], UnknownKey),
    ],
)
def test_a_log_that_says_nothing_is_refused(beforehand, log, fault):
    with pytest.raises(fault):
        fit(prior={**prior(), **beforehand}, log=log)
