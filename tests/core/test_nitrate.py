"""Nitrate followed through a log: what was read bounds it, whatever the plan thinks of its animals."""

from dataclasses import replace
from datetime import timedelta

import numpy as np
import pytest

from loquen.core.errors import NamedCase
from loquen.core.events.kinds.keeping import Tried
from loquen.core.events.kinds.water import Changed, Read
from loquen.core.events.ledger import Logged
from loquen.core.fit.design import telling_odds, telling_odds_beside
from loquen.core.fit.followed import followed
from loquen.core.fit.nitrate import fit, steps_of
from loquen.core.library.whole import shipped
from loquen.core.model.parts.animals import Group
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.system.book import sheet_of
from loquen.core.system.nitrate.against import against
from loquen.core.system.nitrate.course import ahead, known
from loquen.core.system.nitrate.forecast import page
from loquen.core.system.nitrate.learnt import held_months
from tests.core.fit_logs import CHART, drawn, prior, read_off
from tests.core.plans import NOW, plan, words


def weekly_log(values, share=0.3, every_d=7):
    rows = []
    for place, value in enumerate(values):
        rows.append({"day": every_d * place, "kind": "reading", "value": value, "when": "before the change"})
        rows.append({"day": every_d * place, "kind": "change", "share": share})
    return rows


def band(values, at=(0.05, 0.95)):
    return tuple(float(value) for value in np.quantile(values, at))


def simulated(seed):
    """A tank that makes 0.1 to 1.5 times what its plan reckons; three days after its last change, and a change ahead."""
    chance = np.random.default_rng(seed)
    reckoned, share, weeks = (
        float(np.exp(chance.uniform(*np.log([0.3, 8])))),
        chance.uniform(0.15, 0.5),
        int(chance.integers(2, 26)),
    )
    made, report = reckoned * chance.uniform(0.1, 1.5), chance.uniform(2, 25)
    source = drawn(report, 1.3, chance)
    level, values = max(0.3, chance.uniform(0.3, 1.1) * (source + made * 7 / share)), []
    for week in range(weeks):
        values.append(str(read_off(level, chance)))
        level += share * (source - level) + (7 * made if week < weeks - 1 else 3 * made)
    believed = {**prior(), "made_from_feed_mg_l_d": reckoned, "source_report_mg_l": report}
    found = followed(believed, steps_of(weekly_log(values, share), CHART, 1.0), 7 * (weeks - 1) + 3)
    then, expected = level + 4 * made, found.level + 4 * found.made
    return (
        (level, band(found.level)),
        (then + share * (source - then), band(expected + share * (found.source - expected))),
    )


def test_the_band_holds_today_and_one_change_ahead_whatever_the_load_is_of_the_plans():
    found = [simulated(seed) for seed in range(200)]
    today, ahead = ([low <= truth <= high for truth, (low, high) in rows] for rows in zip(*found, strict=True))
    assert 0.82 <= np.mean(today) <= 0.97
    assert np.mean(ahead) >= 0.8


@pytest.mark.parametrize("reckoned", [0.2, 2.0, 10.0])
def test_a_log_of_zeros_never_reads_over_the_first_step_of_its_chart(reckoned):
    for weeks in (1, 3, 20):
        steps = steps_of(weekly_log(["0"] * weeks), CHART, 1.0)
        believed = {**prior(), "made_from_feed_mg_l_d": reckoned, "source_report_mg_l": 2.0}
        found = followed(believed, steps, 7 * (weeks - 1))
        assert band(found.level, (0.9,))[0] <= 5


@pytest.mark.parametrize(
    ("reckoned", "values", "share", "low", "high"),
    [
        (60.0, ["10", "between 10 and 15", "15", "10", "between 10 and 15"], 0.5, 5, 25),
        (8.0, ["20", "between 15 and 30", "20", "between 15 and 30", "20"], 0.25, 12, 40),
        (0.3, ["40"] * 8, 0.5, 22, 50),
    ],
    ids=["two young turtles", "a large tank, lightly stocked", "a planted one, whose feed the plan does not know"],
)
def test_it_stands_where_it_was_read(reckoned, values, share, low, high):
    steps = steps_of(weekly_log(values, share), CHART, 1.0)
    found = followed({**prior(), "made_from_feed_mg_l_d": reckoned}, steps, steps[-1].day)
    before_last = found.levels[-2]
    assert low <= np.median(before_last) <= high
    assert not found.strange


def test_one_mistake_is_asked_about_and_a_new_habit_is_not():
    wrong = followed(prior(), steps_of(weekly_log(["20", "20", "20", "160", "20", "20"]), CHART, 1.0), 35)
    assert wrong.strange == (21,)
    habit = followed(prior(), steps_of(weekly_log(["20", "20", "40", "80", "80", "80"]), CHART, 1.0), 35)
    assert not habit.strange
    # The 80 is a step from 60 to 120.
    assert 40 <= np.median(habit.levels[-2]) <= 120


def test_the_last_readings_weigh_most():
    """Half a year at 40 before each change of three tenths, then two months at 10: less is made by now."""
    values = ["40"] * 26 + ["20", *["10"] * 8]
    steps = steps_of(weekly_log(values), CHART, 1.0)
    found = followed({**prior(), "source_report_mg_l": 2.0}, steps, steps[-1].day)
    # 10 before each change, seven of new water at 2 after three tenths: 0.3 x 8 a week.
    assert np.median(found.made) == pytest.approx(0.3 * 8 / 7, abs=0.35)


def test_more_nitrate_read_never_stands_for_less_made():
    made = [
        np.median(followed(prior(), steps_of(weekly_log([value] * 6), CHART, 1.0), 35).made)
        for value in ("10", "20", "40", "80")
    ]
    assert made == sorted(made)


def test_level_readings_under_a_drip_say_what_is_made():
    """20 mg/L that stay 20 while a tenth a day comes in with 5: 1.5 mg/L a day are made; without a drip hardly any."""
    steps = steps_of([row for row in weekly_log(["20"] * 10) if row["kind"] == "reading"], CHART, 1.0)
    believed = {**prior(), "made_from_feed_mg_l_d": 1.5, "source_report_mg_l": 5.0}
    dripped = followed(believed, steps, 63, drip_per_d=0.1)
    assert float(np.median(dripped.made)) == pytest.approx(1.5, abs=0.35)
    assert abs(float(np.median(followed(believed, steps, 63).made))) < 0.2
    # A drip next to none is none.
    least = followed(believed, steps, 63, drip_per_d=1e-9)
    assert float(np.median(least.made)) == pytest.approx(
        float(np.median(followed(believed, steps, 63).made)), abs=0.02
    )


def test_a_drip_counts_in_the_forecast_and_more_never_raises_it():
    """Two oscars' nitrate without a change: with a drip it goes to source + made ÷ drip, and stays there."""
    oscars = plan(animals=(Group("oscar", 2),))
    ends = []
    for drip_l in (0.0, 5.0, 25.0, 100.0):
        dripped = replace(oscars, changes=replace(oscars.changes, side_drip_l_d=drip_l))
        sheet = sheet_of(dripped, shipped(), 0.0)
        known_tanks = known(sheet, [], [], NOW)
        still = np.median(ahead(sheet, known_tanks, NOW, 30.0).still, axis=1)
        ends.append(float(still[-1]))
        if drip_l == 100.0:
            goal = known_tanks.source + known_tanks.made / sheet.value("drip_per_d")
            assert ends[-1] * NITRATE_PER_N == pytest.approx(float(np.median(goal)), rel=0.06)
            assert still[-1] == pytest.approx(still[-30], rel=0.05)
    assert ends == sorted(ends, reverse=True)
    assert ends[-1] < 0.2 * ends[0]


# The page ----------------------------------------------------------------------------------------


def log_of(values, share=0.5, kit="nitrate_drops"):
    rows = []
    for place, value in enumerate(reversed(values)):
        at = NOW - timedelta(days=7 * place + 1)
        rows.append(Logged(at, Read("nitrate", value, kit, "before")))
        rows.append(Logged(at + timedelta(minutes=20), Changed(share=share)))
    return sorted(rows, key=lambda row: row.at)


TURTLES = (Group("yellow_bellied_slider", 2, size_by="length", length_cm=6.0),)


def turtles_page(values, months=0.0):
    return page(sheet_of(plan(animals=TURTLES), shipped(), months), log_of(values), NOW)


def test_young_turtles_are_not_judged_by_the_waste_of_grown_ones():
    values = ["10", "between 10 and 20", "10", "10", "between 10 and 20", "10"]
    found = turtles_page(values)
    assert found.level * NITRATE_PER_N < 20
    assert "Grown, and fed by the same habit" in words(found.grown)
    # Even where the plan is asked about grown ones, the readings stand.
    assert turtles_page(values, None).level * NITRATE_PER_N < 20


def test_they_grow_along_the_days_ahead():
    flat = page(sheet_of(plan(animals=(replace(TURTLES[0], size_by="adult"),)), shipped(), 0.0), [], NOW)
    growing = turtles_page([])
    assert flat.grown is None
    at = growing.course.days.index(30)
    # Straight lines a month: what the first month adds a day, the fourth adds more of.
    first = growing.course.middle[at - 1] - growing.course.middle[at - 2]
    assert growing.course.middle[-1] > 0
    rises = np.diff(np.array(growing.course.middle))
    assert max(rises[90:]) > 1.1 * max(rises[:28])
    assert first > 0


def test_a_plan_that_most_readings_contradict_is_asked_about_not_they():
    found = page(sheet_of(plan(animals=(Group("oscar", 2),)), shipped(), 0.0), log_of(["5"] * 8), NOW)
    texts = [words(ask) for ask in found.asks]
    assert any("do plants or a deep bed take it?" in text for text in texts)
    assert not [text for text in texts if "than this water can have come to" in text]


def test_more_than_is_reckoned_is_asked_about_too():
    small = plan(animals=(Group("neon_tetra", 4),))
    found = page(sheet_of(small, shipped(), 0.0), log_of(["80"] * 8), NOW)
    assert any("more animals than are entered" in words(ask) for ask in found.asks)


# Experiments -------------------------------------------------------------------------------------


def test_without_readings_before_it_no_verdict_is_given():
    rows = log_of(["40"] * 12)
    tried = Logged(rows[3].at + timedelta(minutes=5), Tried("clay baskets"))
    (found,) = page(sheet_of(plan(animals=(Group("oscar", 2),)), shipped(), 0.0), [*rows, tried], NOW).experiments
    assert found.verdict == "no readings before"
    assert "No verdict" in words(found.sentence)
    late = Logged(rows[13].at + timedelta(minutes=5), Tried("clay baskets"))
    (judged,) = page(sheet_of(plan(animals=(Group("oscar", 2),)), shipped(), 0.0), [*rows, late], NOW).experiments
    assert judged.verdict in ("real", "can not tell yet", "nothing to see")


@pytest.mark.parametrize(
    ("effect", "weeks", "told"),
    [
        (0.3, 8, 0.28),
        (0.3, 12, 0.41),
        (0.3, 16, 0.49),
        (0.5, 8, 0.78),
        (0.5, 12, 0.90),
        (0.7, 4, 0.67),
        (0.7, 8, 0.97),
    ],
)
def test_a_design_promises_what_a_hundred_simulated_logs_each_gave(effect, weeks, told):
    """The rates of "real" of an independent fit of weekly readings on the same chart, twelve weeks before."""
    chart_sd = np.hypot(0.25, np.log(2) / np.sqrt(12))
    found = telling_odds(
        effect_frac=effect,
        weeks_before=12,
        weeks_with=weeks,
        made_mg_l_d=1.5,
        made_range_x=1.6,
        source_mg_l=10,
        source_range_x=1.3,
        weekly_share=0.3,
        reading_sd=1.1 * chart_sd,
    )
    assert found == pytest.approx(told, abs=0.11)


def test_a_design_is_the_shortest_that_shows_a_half_and_says_what_it_can_not():
    found = page(sheet_of(plan(animals=(Group("oscar", 2),)), shipped(), 0.0), [], NOW).design
    assert found.weeks_before >= 4
    assert found.odds_half >= 0.8
    assert found.odds_third < found.odds_half
    assert "of a third" in words(found.sentence)
    assert found.odds_half_beside >= 0.8 or found.weeks_beside == 16


def test_two_tanks_side_by_side_are_told_apart_as_simulated_pairs_are():
    """Of 40 pairs that are fed alike, one with a sink of half, ten weeks of readings in both: how often their fitted
    production differs by more than 1.645 of its deviation, against what the design promises."""
    told = []
    for seed in range(40):
        chance = np.random.default_rng(seed)
        made = []
        for of_made in (1.0, 0.5):
            level, values = 10 + of_made * 1.5 * 7 / 0.3, []
            for _ in range(11):
                values.append(str(read_off(level, chance)))
                level += 0.3 * (10 - level) + 7 * of_made * 1.5
            believed = {**prior(), "made_range_x": 5.0}
            made.append(fit(prior=believed, log=weekly_log(values)).made_mg_l_d)
        spread = np.hypot(*((high - low) / (2 * 1.645) for low, _, high in made))
        told.append(made[0][1] - made[1][1] > 1.645 * spread)
    usual = {
        "made_mg_l_d": 1.5,
        "made_range_x": 5.0,
        "source_mg_l": 10,
        "source_range_x": 1.3,
        "weekly_share": 0.3,
        "reading_sd": 1.1 * np.hypot(0.25, np.log(2) / np.sqrt(12)),
    }
    assert telling_odds_beside(effect_frac=0.5, weeks=10, **usual) == pytest.approx(np.mean(told), abs=0.2)
    odds = [telling_odds_beside(effect_frac=0.5, weeks=weeks, **usual) for weeks in (2, 6, 12, 24)]
    assert odds == sorted(odds)


# The fed tank, against values worked apart ----------------------------------------------------------

FED = (Group("zebra_danio", 10, feed_by="weighed", weighed_g_d=1.0, food_protein_frac=0.5),)


def at(days_ago):
    return NOW - timedelta(days=days_ago)


def read(what, value, days_ago=0.02, kit=None):
    return Logged(at(days_ago), Read(what, value, kit or f"{what}_drops"))


def fed_page(*log):
    # A gram of food of half protein is 80 x 0.92 x 0.85 mg of N a day, 1.108 mg/L of the ion in 250 L.
    return page(sheet_of(plan(animals=FED), shipped()), log, NOW)


def test_the_limit_is_passed_when_the_slope_says():
    found = fed_page(read("nitrate", "20", 0.01, "nitrate_meter"))
    # From 20 to 39.8 mg/L by 1.108 a day are 17.9 days.
    assert found.passes_d == pytest.approx(18, abs=2)
    assert found.passes_low_d < found.passes_d
    # One reading says nothing of what is made: of ten such tanks one makes next to nothing.
    assert found.passes_high_d is None
    assert found.level == pytest.approx(20 / 4.4266, rel=0.05)
    assert "passes 40" in words(found.result)
    high = fed_page(read("nitrate", "80", 0.01, "nitrate_meter"))
    assert high.passes_d == 0
    # From 18.1 to within a twentieth of the settled 4.5 mg/L N by ln 2 a week: ln(13.6/0.225)/0.099 days.
    assert high.settles_d == pytest.approx(41.4, rel=0.06)
    assert "in about" in words(high.result)
    assert "A reading starts" in words(fed_page().result)


def test_a_lever_is_worth_what_the_balance_says():
    levers = {lever.key: lever for lever in fed_page().levers}
    # Half changed each week: 14 days of rise stand before a change; a quarter of 0.25024 mg/L less of each.
    assert levers["feed"].off == pytest.approx(0.25 * 0.25024 * 14, rel=5e-3)
    assert levers["feed"].minutes_wk == 0
    # 65 % instead of half: 7/0.65 days stand instead of 14.
    assert levers["larger"].off == pytest.approx(0.25024 * (14 - 7 / 0.65), rel=5e-3)
    assert levers["another"].minutes_wk > 0
    assert levers["another"].money_yr >= 0
    assert levers["clay"].low_off <= levers["clay"].off <= levers["clay"].high_off
    # A fifth of the surface over roots takes 0.2 x 0.5 m2 x 120 mg: 0.048 mg/L a day, fourteen days of it.
    assert levers["roots"].off == pytest.approx(0.048 * 14, rel=5e-3)
    assert levers["source"].off == pytest.approx(0.5, rel=1e-3)


def test_levers_are_tried_on_the_tank_as_the_log_says_it_is():
    levers = {lever.key: lever for lever in fed_page(*weekly(made=0.9)).levers}
    said = 0.9 / 4.4266
    assert levers["roots"].off == pytest.approx(0.048 * 14, rel=0.05)
    assert levers["larger"].off == pytest.approx(said * (14 - 7 / 0.65), rel=0.15)


def weekly(effect_from=None, weeks=30, made=1.3, left=0.3):
    """Weekly readings of a photometer on the fed tank, half changed each week."""
    level, rows = 5 + 14 * made, []
    for week in range(weeks, 0, -1):
        rows.append(read("nitrate", f"{level:.3g}", 7 * week - 6, "nitrate_meter"))
        rows.append(Logged(at(7 * week - 6.02), Changed(share=0.5)))
        level += 0.5 * (4.43 - level)
        level += 7 * made * (left if effect_from and week <= effect_from else 1)
        if week == effect_from:
            rows.append(Logged(at(7 * week - 6.03), Tried("a sink")))
    return rows


def test_what_the_log_says_stands_beside_what_the_plan_has():
    found = {row.key: row for row in fed_page(*weekly(made=1.0)).said}
    said = found["changes.logged_rise_nitrate_mg_l_d"]
    assert said.plan == pytest.approx(0.25024, rel=1e-3)
    assert said.low < 1.0 / 4.4266 < said.high
    assert said.high - said.low < 0.15
    # The plan goes by it when it takes it, and no longer when it lets go.
    taken = plan(animals=FED, changes=replace(plan().changes, logged_rise_nitrate_mg_l_d=0.1))
    assert sheet_of(taken, shipped()).value("peak_nitrate_mg_l") == pytest.approx(1 + 0.1 * 14)


def test_an_experiment_is_judged_and_the_forecast_follows_it():
    found = fed_page(*weekly(effect_from=12))
    (tried,) = found.experiments
    assert tried.verdict == "real"
    assert tried.low < 0.7 * 1.3 / 4.4266 < tried.high
    assert "Real: a sink takes" in words(tried.sentence)
    # As it is made now, three tenths of it, it settles at 4.43 + 0.39 x 14 of the ion.
    assert found.settled_peak == pytest.approx((4.43 + 0.39 * 14) / 4.4266, rel=0.15)
    young = fed_page(*weekly(effect_from=2, left=0.8)).experiments[0]
    assert young.verdict == "can not tell yet"
    assert "Can not tell" in words(young.sentence)


def test_one_tank_against_another_whatever_is_changed_in_them():
    fed = sheet_of(plan(animals=FED), shipped())
    same, losing = (fed, weekly(weeks=16, made=1.1)), (fed, weekly(weeks=16, made=0.6))
    found = against(same, losing, NOW)
    # 1.1 of the 1.108 that its feed makes stay, and 0.6 in the other.
    assert found.here[0] < 1.1 / 1.1077 < found.here[2]
    assert found.there[0] < 0.6 / 1.1077 < found.there[2]
    assert found.odds_there_less > 0.95
    assert "loses more of it" in words(found.sentence)
    assert "this one loses more" in words(against(losing, same, NOW).sentence)
    assert "Can not tell them apart" in words(against(same, same, NOW).sentence)
    with pytest.raises(NamedCase):
        against(same, (fed, []), NOW)


def test_a_log_that_shows_a_fifth_of_what_the_plan_reckons_is_told_with_both_and_judged():
    """1.108 mg/L of the ion a day by the feed; readings that rise by a fifth of it."""
    found = fed_page(*weekly(made=0.22))
    said = words(found.asks[0])
    assert "the plan reckons 1.11 mg/L NO₃ a day" in said
    assert "This page goes by your readings" in said
    # Half of it each week: it settles at the source and twice a week's rise.
    assert found.settled_peak == pytest.approx(1 + 0.22 / 4.4266 * 14, rel=0.25)
    assert "it could become" in said
    assert not [row for row in fed_page(*weekly(made=1.0)).asks if "goes by your readings" in row.text]
    taken = plan(animals=FED, changes=replace(plan().changes, logged_rise_nitrate_mg_l_d=0.05))
    assert not page(sheet_of(taken, shipped()), weekly(made=0.22), NOW).asks


def test_an_impossible_reading_is_asked_about_with_its_day():
    rows = weekly(weeks=10)
    wrong = replace(rows[8], event=replace(rows[8].event, value="110"))
    asks = fed_page(*rows[:8], wrong, *rows[9:]).asks
    assert "“110”" in words(asks[0])
    assert "not written down" in words(asks[0])


# What the whole plan goes by -----------------------------------------------------------------------


def ways_of(*log, **more):
    return {way.key: way for way in page(sheet_of(plan(animals=FED, **more), shipped(), 0.0), log, NOW).ways}


def shown_by(way):
    return {row.key: row.value for row in way.figures}


def test_as_logged_stands_beside_as_reckoned_and_it_is_said_what_hangs_on_why():
    """1.108 mg/L of the ion a day by the feed, half of it in the log."""
    ways = ways_of(*weekly(made=0.55))
    assert list(ways) == ["reckoned", "waste", "taken"]
    assert ways["waste"].changes["stocking.logged_waste_frac"] == pytest.approx(0.5, abs=0.12)
    assert ways["taken"].changes["changes.logged_rise_nitrate_mg_l_d"] == pytest.approx(
        0.55 / NITRATE_PER_N, abs=0.03
    )
    by = {key: shown_by(way) for key, way in ways.items()}
    # Less waste reaches the filter only where less is made; the nitrate is the same either way.
    assert by["waste"]["mature_ammonia_mg_l"] < by["reckoned"]["mature_ammonia_mg_l"]
    assert by["taken"]["mature_ammonia_mg_l"] == by["reckoned"]["mature_ammonia_mg_l"]
    assert by["waste"]["peak_nitrate_mg_l"] == pytest.approx(by["taken"]["peak_nitrate_mg_l"], rel=0.02)
    assert by["waste"]["dawn_oxygen_mg_l"] >= by["taken"]["dawn_oxygen_mg_l"]


def test_more_than_is_reckoned_is_more_waste_and_nothing_else():
    ways = ways_of(*weekly(made=2.6))
    assert list(ways) == ["reckoned", "waste"]
    assert ways["waste"].changes["stocking.logged_waste_frac"] > 1.8


def test_what_a_plan_goes_by_reaches_balance_filter_and_oxygen():
    bare, fed = plan(animals=FED), sheet_of(plan(animals=FED), shipped())
    half = sheet_of(replace(bare, stocking=replace(bare.stocking, logged_waste_frac=0.5)), shipped())
    for key in ("load_full_mg_d", "load_now_mg_d", "load_fed_day_mg_d", "balance_frac"):
        assert half.value(key) == pytest.approx(0.5 * fed.value(key))
    # A gram of food of half protein is 62.56 mg a day, 40 of them stay in the water of 250 L at 0.16 mg/L a day.
    taken = sheet_of(replace(bare, changes=replace(bare.changes, logged_rise_nitrate_mg_l_d=0.16)), shipped())
    assert taken.value("taken_up_mg_d") == pytest.approx(62.56 - 40, rel=1e-3)
    assert taken.value("balance_frac") < fed.value("balance_frac")


def test_what_was_logged_of_young_ones_grows_with_them():
    young = plan(animals=TURTLES, changes=replace(plan().changes, logged_rise_nitrate_mg_l_d=0.2))
    today, grown = sheet_of(young, shipped(), 0.0), sheet_of(young, shipped())
    assert today.value("rise_nitrate_mg_l_d") == pytest.approx(0.2)
    # Two of 6 cm make less than the 50 mg a day that the log shows in 250 L: all that they make more shows.
    more = (grown.value("load_full_mg_d") - today.value("load_now_mg_d")) / 250
    assert today.value("load_now_mg_d") < 50
    assert grown.value("rise_nitrate_mg_l_d") == pytest.approx(0.2 + more)
    # Where a fifth of what is made shows, a fifth shows of what they make more.
    fifth = 0.2 * today.value("load_now_mg_d") / 250
    shown = replace(young, changes=replace(young.changes, logged_rise_nitrate_mg_l_d=fifth))
    assert sheet_of(shown, shipped()).value("rise_nitrate_mg_l_d") == pytest.approx(fifth + 0.2 * more)


def held(days, nitrate="20"):
    rows = []
    for day in range(0, days, 14):
        rows += [
            read("nitrate", nitrate, day + 0.1),
            read("ammonia", "0", day + 0.1),
            read("nitrite", "0", day + 0.1),
        ]
    return rows


def test_months_of_readings_that_hold_weigh_more_than_a_rule_of_practice():
    crowd = plan(animals=(Group("zebra_danio", 250),))
    plain = sheet_of(crowd, shipped()).value("litres_enough")
    assert plain.state == "short"
    lived = replace(crowd, stocking=replace(crowd.stocking, held_months=7.0))
    verdict = sheet_of(lived, shipped()).value("litres_enough")
    assert verdict.state == "tight"
    assert "holds for you" in words(verdict.headline)
    assert "held for 7 months" in words(verdict.reason)
    short = replace(crowd, stocking=replace(crowd.stocking, held_months=2.0))
    assert sheet_of(short, shipped()).value("litres_enough").state == "short"
    # What can kill at once is judged as ever.
    for key in ("media_carry", "dawn_breathes", "in_balance"):
        assert sheet_of(lived, shipped()).value(key).state == sheet_of(crowd, shipped()).value(key).state


def test_only_readings_of_all_three_make_months_that_held():
    assert held_months(held(200), 40 / NITRATE_PER_N, shipped(), NOW) == pytest.approx(196.1 / 30.44, abs=0.1)
    assert held_months(held(200, "160"), 40 / NITRATE_PER_N, shipped(), NOW) is None
    nitrate_alone = [row for row in held(200) if row.event.what == "nitrate"]
    assert held_months(nitrate_alone, 40 / NITRATE_PER_N, shipped(), NOW) is None
    spoilt = [*held(200), read("nitrite", "0.5", 50)]
    assert held_months(spoilt, 40 / NITRATE_PER_N, shipped(), NOW) == pytest.approx(42.1 / 30.44, abs=0.1)
