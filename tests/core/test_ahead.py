"""What lies ahead of whole plans: cycles, care, nitrate and trends against values worked apart."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import numpy as np
import pytest

from loquen.core.errors import NamedCase
from loquen.core.events.kinds.water import Dosed, Read
from loquen.core.events.ledger import Logged
from loquen.core.fit.cycle import FEWEST, MEMBERS, Seen, learned
from loquen.core.fit.trend import trend
from loquen.core.fit.weights import carried, shares
from loquen.core.library.whole import shipped
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.running import Cycle, Filter, RunIn
from loquen.core.model.parts.water import Water
from loquen.core.model.records.readings import Interval
from loquen.core.physics.chemistry import ammonia_fraction, ph_from_kh_co2
from loquen.core.system.book import sheet_of
from loquen.core.system.cycle import replay
from loquen.core.system.cycle.answer import is_it_done
from loquen.core.system.cycle.donors import donor
from loquen.core.system.cycle.forecast import forecast
from loquen.core.system.cycle.setup import begun, dose_amount, dosed_nitrogen_mg_l, limits_of
from loquen.core.system.trends import trends
from loquen.core.timeline.nitrogen import Inputs
from loquen.core.timeline.rates import free_ammonia
from loquen.core.timeline.tending.keeper import Source, changed, share_within, tend
from loquen.core.timeline.watch import Limits
from tests.core.plans import NOW, plan, words

NEW = RunIn("set_up", age_weeks=0, stocked="cycled")
FED = (Group("zebra_danio", 10, feed_by="weighed", weighed_g_d=1.0, food_protein_frac=0.5),)


def cycling(how, days_ago=10, **more):
    """The bare 250 L box as a new one, begun so many days ago."""
    started = (NOW - timedelta(days=days_ago)).date().isoformat()
    cycle = Cycle(begun_by=how, begun_on=started, **more.pop("cycle", {}))
    return plan(cycle=cycle, run_in=more.pop("run_in", NEW), **more)


def at(days_ago):
    return NOW - timedelta(days=days_ago)


def read(what, value, days_ago=0.02, kit=None):
    return Logged(at(days_ago), Read(what, value, kit or f"{what}_drops"))


def made(how, days_ago=10, **more):
    return begun(sheet_of(cycling(how, days_ago, **more), shipped()), UTC, NOW.date())


# What a plan brings into a run --------------------------------------------------------------------


def test_a_cycle_takes_its_numbers_from_the_sheet():
    cycle = made("animals")
    # Ten danios make 4.975 mg/d in 250 L; 3.34 m2 of media and glass take 600 mg each; KH 6, nitrate 1 mg/L N.
    assert cycle.asked.load_mg_l_d_n == pytest.approx(4.975 / 250, rel=2e-3)
    assert cycle.asked.x_max_mg_l_d == pytest.approx(600 * 3.34 / 250, rel=5e-3)
    assert cycle.asked.source_nitrate_ion_mg_l == pytest.approx(4.4266, rel=1e-3)
    assert (cycle.asked.mode, cycle.asked.seed_ammonia_oxidisers_mg_l_d) == ("with_animals", 0.004)
    assert cycle.start == datetime(2026, 5, 10, tzinfo=UTC)
    assert made("empty").asked.load_mg_l_d_n == 0
    with pytest.raises(NamedCase):
        begun(sheet_of(plan(), shipped()), UTC, NOW.date())
    # What was started over a year ago has long been running.
    with pytest.raises(NamedCase):
        forecast(sheet_of(cycling("animals", 400), shipped()), [], NOW)


def test_a_sheet_leaves_it_to_the_forecast_when_it_is_cycled():
    new = sheet_of(cycling("animals", run_in=RunIn("set_up", age_weeks=1)), shipped())
    verdict = new.look("media_carry")
    assert (verdict.state, words(verdict.headline)) == ("short", "short until cycled")
    first = sheet_of(cycling("empty"), shipped()).look("media_carry")
    assert (first.state, words(first.headline)) == ("tight", "holds once cycled")
    untold = sheet_of(plan(run_in=RunIn("set_up", age_weeks=1)), shipped()).look("media_carry")
    assert "more" in words(untold.headline)


def test_media_of_a_donor_are_worth_their_share_of_its_nitrogen():
    cycle = made("empty", cycle={"seeded_by": "media", "donor_frac": 0.3, "donor_mg_d": 100.0})
    assert cycle.asked.seed_nitrite_oxidisers_mg_l_d == pytest.approx(0.3 * 100 / 250)
    bottle = made("empty", cycle={"seeded_by": "bottle"})
    # Anything from 0.004 to 0.6, all sizes alike: the middle is their geometric mean.
    assert bottle.asked.seed_ammonia_oxidisers_mg_l_d == pytest.approx((0.004 * 0.6) ** 0.5)
    assert bottle.ranges["seed_a"] == ("any within", 12.0)


def test_a_dose_is_weighed_or_measured():
    cycle = made("empty")
    # One and a half times what ten danios make is less than the least that proves anything.
    assert cycle.asked.full_dose_mg_l_n == 0.5
    amount, unit = dose_amount(cycle, 0.5)
    assert (amount, unit) == (pytest.approx(0.5 * 250 * 53.491 / 14.007 / 1000), "g")
    bottled = made("empty", cycle={"dose_kind": "ammonia_solution", "solution_pct": 9.5})
    amount, unit = dose_amount(bottled, 0.5)
    # 95 g of NH3 a kilogram, 0.96 kg a litre: 75 mg of N a millilitre.
    assert (amount, unit) == (pytest.approx(125 / 75.006, rel=1e-4), "mL")
    assert dosed_nitrogen_mg_l(bottled, Dosed("ammonia", amount)) == pytest.approx(0.5)


def test_a_dose_stays_what_it_was_when_the_plan_doses_another():
    cycle = begun(sheet_of(cycling("empty", 5), shipped()), UTC, NOW.date())
    chloride = Dosed("ammonia", 10.0, "g", "ammonium chloride")
    weak = Dosed("ammonia", 10.0, "mL", "solution of ammonia, 5 %")
    for kind in ("ammonium_chloride", "ammonia_solution"):
        plan_now = replace(cycle.plan, cycle=replace(cycle.plan.cycle, dose_kind=kind))
        now_is = replace(cycle, plan=plan_now)
        # 14.007 of 53.491 g are nitrogen: 10 g bring 2619 mg. 50 g NH3 a kilogram, 0.96 kg a litre: 39.48 mg N a mL.
        assert dosed_nitrogen_mg_l(now_is, chloride) * now_is.litres == pytest.approx(2618.6, rel=1e-4)
        assert dosed_nitrogen_mg_l(now_is, weak) * now_is.litres == pytest.approx(394.8, rel=1e-3)
    # One without a unit is taken as the plan doses now.
    bare = Dosed("ammonia", 10.0)
    assert dosed_nitrogen_mg_l(now_is, bare) != pytest.approx(dosed_nitrogen_mg_l(cycle, bare))


@pytest.mark.parametrize(("chloride", "limit"), [(0, 0.1), (6, 0.1), (20, 1 / 3), (60, 1.0), (400, 1.0)])
def test_chloride_keeps_nitrite_out_with_a_threefold_margin(chloride, limit):
    assert limits_of(chloride).nitrite == pytest.approx(limit)


# What readings teach ------------------------------------------------------------------------------


def test_members_that_agree_are_kept_and_enough_of_them():
    asked = made("animals", animals=(Group("zebra_danio", 100),)).asked
    quick = replace(asked, seed_ammonia_oxidisers_mg_l_d=4 * asked.seed_ammonia_oxidisers_mg_l_d)
    truth = tend(quick.state(), quick.around(), quick.keeper(), 20)
    seen = [
        Seen(24 * day, "ammonia", Interval(0.9 * level, 1.1 * level), 20, 0.1)
        for day in (6, 9, 12, 15, 18)
        for level in [float(truth.hours["ammonia"][24 * day])]
    ]
    ranges = made("animals").ranges
    found = learned(asked, replace(asked.keeper(), from_day=20), (), seen, ranges)
    assert found.told
    assert found.z.shape == (len(ranges), MEMBERS)
    # Four times the usual seed is two of its standard deviations; load and growth take their part of it.
    assert 0.5 < float(np.median(found.z[0])) < 3
    assert len(np.unique(found.z[0])) >= FEWEST / 3
    untold = learned(asked, asked.keeper(), (), [], ranges)
    assert not untold.told
    assert abs(float(np.median(untold.z[0]))) < 0.2


def test_free_ammonia_is_read_as_the_total_that_it_stands_for():
    cycle = made("animals", 6, animals=(Group("zebra_danio", 60),))
    badge = Logged(at(1), Read("free_ammonia", "0.05", "free_ammonia_badge"))
    ((_, seen),) = replay.seen(cycle, [badge], shipped())
    # 0.035 to 0.125 mg/L of NH3; at 25 °C in water of KH 6 with 2 mg/L of CO2 about one part in twenty is free.
    ph = ph_from_kh_co2(kh_dkh=cycle.asked.kh_dkh, co2_mg_l=2.0)
    free = ammonia_fraction(ph=ph, temp_c=25)
    assert seen.what == "ammonia"
    assert seen.read.low == pytest.approx(0.035 / 1.215892 / free, rel=1e-3)


def test_weights_that_are_alike_carry_as_many_as_they_are():
    assert carried(shares(np.zeros(40))) == pytest.approx(40)
    assert carried(shares(np.array([0.0, -1e9]))) == pytest.approx(1)


def test_a_reading_moves_the_forecast_the_way_it_points():
    sheet = sheet_of(cycling("empty", 12, animals=(), water=Water(source_kh_dkh=12.0)), shipped())
    middle = forecast(sheet, [], NOW).days_10_50_90[1]
    late = forecast(sheet, [read("ammonia", "2"), read("nitrite", "0")], NOW).days_10_50_90[1]
    soon = forecast(sheet, [read("ammonia", "0"), read("nitrite", "5")], NOW).days_10_50_90[1]
    # It may not be done within the run at all.
    assert soon < middle < (late or 1e9)


def test_a_reading_that_no_tank_makes_is_asked_about():
    sheet = sheet_of(cycling("animals", 3), shipped())
    asks = forecast(sheet, [read("ammonia", "8")], NOW).asks
    assert "does not fit anything" in words(asks[0])


# Is it done? --------------------------------------------------------------------------------------

DOSE = Dosed("ammonia", 0.48)
LOW = [read("ammonia", "0"), read("nitrite", "0")]
ANSWERS = {
    "nothing read": ([], "not known", "nobody read ammonia and nitrite"),
    "nitrite unread": ([read("ammonia", "0")], "not known", "nobody read nitrite"),
    "nitrite stands": ([read("ammonia", "0"), read("nitrite", "2")], "no", "still nitrite"),
    "read too long ago": ([read("ammonia", "0", 4), read("nitrite", "0", 4)], "not known", "nobody read"),
    "low, but nothing was dosed": (LOW, "not known", "no full dose was given"),
    "low a day after a full dose": ([Logged(at(1.05), DOSE), *LOW], "yes", "gone within a day"),
    "low three days after one": ([Logged(at(3), DOSE), *LOW], "not known", "no full dose"),
    "low after half a dose": ([Logged(at(1.05), replace(DOSE, amount=0.2)), *LOW], "not known", "no full dose"),
}


@pytest.mark.parametrize("case", ANSWERS.values(), ids=ANSWERS)
def test_an_empty_one_is_done_by_its_rule_alone(case):
    log, answer, says = case
    found = is_it_done(made("empty"), log, NOW, odds=0.3, library=shipped())
    assert found.answer == answer
    assert says in words(found.sentence)
    assert len(found.evidence) == 2


def test_what_a_dose_proved_is_held_against_all_who_come():
    """Sixty boesemans make some 5 mg/L a day: a dose of 2 mg/L proves a part of it."""
    cycle = made(
        "empty", animals=(Group("boeseman_rainbowfish", 60),), filters=(Filter(media_l=40, rated_lph=3000),)
    )
    amount, _ = dose_amount(cycle, cycle.asked.full_dose_mg_l_n)
    found = is_it_done(cycle, [Logged(at(1.05), Dosed("ammonia", amount)), *LOW], NOW, odds=0.9, library=shipped())
    assert found.answer == "yes"
    load, proved = cycle.load_full_mg_l_d, cycle.asked.full_dose_mg_l_n
    assert proved < load
    assert found.sentence.terms["share"].value == pytest.approx(proved / load, rel=1e-3)
    assert "or prove more with larger doses" in words(found.sentence)


def test_one_with_animals_is_done_after_a_clear_week_with_bacteria_enough():
    week = [read(what, "0", day) for day in (7, 4, 1, 0.02) for what in ("ammonia", "nitrite")]
    cycle = made("animals", 40)
    assert is_it_done(cycle, week, NOW, odds=0.97, library=shipped()).answer == "yes"
    assert is_it_done(cycle, week, NOW, odds=0.7, library=shipped()).answer == "not known"
    # Low readings of a lightly loaded tank prove nothing.
    assert is_it_done(cycle, week, NOW, odds=0.1, library=shipped()).answer == "no"
    assert is_it_done(cycle, week[4:], NOW, odds=0.97, library=shipped()).answer == "not known"
    assert is_it_done(made("animals", 40, animals=()), week, NOW, odds=1.0, library=shipped()).answer == "no"


# Today's care -------------------------------------------------------------------------------------

LIMITS = Limits(0.25, 0.02, 1 / 3)
PLAIN = Inputs(temp_c=25.0, co2_mg_l=2.0)


def share(ammonia, nitrite, kh, source_kh, **more):
    state = replace(PLAIN.state(), ammonia=ammonia, nitrite=nitrite, kh=kh)
    return share_within(state, LIMITS, Source(0.0, source_kh, **more), PLAIN.around())


def test_the_share_is_the_least_that_brings_every_limit_back():
    assert share(0.2, 0.2, 1.0, 1.0) == 0
    # 0.5 to 0.25 is half; nitrite of 1 to a third is two thirds, in steps of a twentieth.
    assert share(0.5, 0.1, 1.0, 1.0) == pytest.approx(0.5)
    assert share(0.1, 1.0, 1.0, 1.0) == pytest.approx(0.7)
    # Water that brings as much as they may live in helps no further.
    assert np.isnan(share(0.5, 0.1, 1.0, 1.0, ammonia_mg_l_n=0.3))


def test_harder_water_can_make_it_worse():
    before = replace(PLAIN.state(), ammonia=1.0, kh=0.3)
    after = changed(before, 0.5, Source(0.0, 8.0))
    # Half the ammonia, and seven times the part of it that harms.
    assert free_ammonia(after, PLAIN.around()) / free_ammonia(before, PLAIN.around()) == pytest.approx(7, rel=0.15)


def test_with_fish_in_it_today_says_what_to_do():
    crowded = cycling("animals", 6, animals=(Group("zebra_danio", 60),), run_in=RunIn("set_up", age_weeks=1))
    found = forecast(sheet_of(crowded, shipped()), [read("ammonia", "1"), read("nitrite", "0.25")], NOW)
    assert found.care.from_readings
    assert 0.5 <= found.care.share <= 0.85
    assert found.care.litres == pytest.approx(found.care.share * 250)
    calm = forecast(sheet_of(cycling("animals", 2), shipped()), [read("ammonia", "0"), read("nitrite", "0")], NOW)
    assert (calm.care.share, words(calm.care.lines[0])[:9]) == (0, "No change")


def test_the_ways_side_by_side_agree_with_what_keepers_know():
    crowded = cycling("animals", 1, animals=(Group("zebra_danio", 60),), run_in=RunIn("set_up", age_weeks=1))
    ways = {camp.key: camp for camp in forecast(sheet_of(crowded, shipped()), [], NOW).camps}
    assert ways["none"].litres == 0 < ways["changes"].litres
    assert ways["changes"].over_nitrite < 0.2 * ways["none"].over_nitrite
    # Bacteria grow on what the animals must not have: without changes it is over sooner.
    assert ways["none"].clear_day < ways["changes"].clear_day
    assert "Harm" in words(ways["none"].risk)
    assert ways["detoxifier"].least_over


def test_a_stall_is_told_with_its_cure():
    soft = cycling("empty", 5, water=Water(source_kh_dkh=2.0), animals=())
    told = [words(sentence) for sentence in forecast(sheet_of(soft, shipped()), [], NOW).stalls]
    # Three degrees in 250 L: 3 x 29.96 x 0.25 g of bicarbonate.
    assert any("22.5 g" in text for text in told)
    small = cycling("animals", 5, animals=(Group("zebra_danio", 3000 // 2),), run_in=RunIn("set_up", age_weeks=1))
    small = replace(small, filters=(replace(small.filters[0], media_l=0.2),))
    assert any("too small" in words(s) for s in forecast(sheet_of(small, shipped()), [], NOW).stalls)
    assert forecast(sheet_of(cycling("empty", 5), shipped()), [], NOW).stalls == ()
    raw = Water(disinfectant="chlorine", disinfectant_mg_l=1.0, treatment="none")
    told = forecast(sheet_of(cycling("empty", 5, water=raw), shipped()), [], NOW).stalls
    assert any("chlorine kills" in words(sentence) for sentence in told)
    acid = forecast(sheet_of(cycling("empty", 5, water=Water(source_kh_dkh=0.05)), shipped()), [], NOW).cautions
    assert any("a guess" in words(sentence) for sentence in acid)
    healed = [Logged(at(1), Dosed("medicine", 5.0))]
    assert any("copper" in words(s) for s in forecast(sheet_of(cycling("empty", 5), shipped()), healed, NOW).stalls)


def test_so_much_in_so_little_water_is_said():
    bowl = cycling(
        "animals", 7, animals=(Group("goldfish_fancy", 12),), run_in=RunIn("set_up", age_weeks=1), filters=()
    )
    told = " ".join(words(sentence) for sentence in forecast(sheet_of(bowl, shipped()), [], NOW).stalls)
    assert "too small" in told or "Fewer animals" in told
    turtle = cycling(
        "animals", 7, animals=(Group("yellow_bellied_slider", 1),), run_in=RunIn("set_up", age_weeks=1)
    )
    ways = {camp.key: camp for camp in forecast(sheet_of(turtle, shipped()), [], NOW).camps}
    # Half a gram of nitrogen a day in 250 L: 9 mg/L before the next change is more than sore eyes.
    assert "Burns eyes and skin" in words(ways["changes"].risk)
    assert "Deadly" in words(ways["none"].risk)
    hatchling = cycling(
        "animals",
        7,
        animals=(Group("yellow_bellied_slider", 1, size_by="length", length_cm=5),),
        run_in=RunIn("set_up", age_weeks=1),
    )
    mild = {camp.key: camp for camp in forecast(sheet_of(hatchling, shipped(), 0.0), [], NOW).camps}
    assert "breathe air" in words(mild["none"].risk)


def test_salt_against_nitrite_is_offered_where_it_is_borne():
    few = [read("ammonia", "0"), read("nitrite", "1")]
    said = [words(s) for s in forecast(sheet_of(cycling("animals", 6), shipped()), few, NOW).care.lines]
    # 0.75 to 1.5 mg/L NO2 are 0.32 of N in the middle: 19 mg/L of chloride at 60 to 1; there are 20 already.
    assert not any("salt" in text for text in said)
    bare = cycling("animals", 6, cycle={"tank_chloride_mg_l": 0.0})
    said = [words(s) for s in forecast(sheet_of(bare, shipped()), few, NOW).care.lines]
    assert any("chloride to 19 mg/L" in text for text in said)
    much = [read("ammonia", "0"), read("nitrite", "over 40", kit="nitrite_meter")]
    discus = cycling("animals", 6, animals=(Group("discus", 2),))
    said = [words(s) for s in forecast(sheet_of(discus, shipped()), much, NOW).care.lines]
    assert any("Discus do not bear it" in text for text in said)


def test_a_donor_gives_what_it_can_spare():
    rich = donor(sheet_of(plan(animals=FED), shipped()), 0.3)
    assert rich.load_mg_d == pytest.approx(62.56, rel=1e-3)
    assert rich.state == "holds"
    poor = plan(animals=(Group("zebra_danio", 10, feed_by="weighed", weighed_g_d=14.0, food_protein_frac=0.5),))
    assert donor(sheet_of(poor, shipped()), 0.9).state == "short"
    assert donor(sheet_of(plan(animals=()), shipped()), 0.3) is None


def test_a_calendar_doses_what_the_routine_would():
    lines = forecast(sheet_of(cycling("empty", 0), shipped()), [], NOW).calendar
    doses = [line for line in lines if line.kind == "dose"]
    assert (doses[0].day, doses[0].amount) == (0, pytest.approx(0.4774, rel=1e-3))
    assert any("first animals" in words(line.words) for line in lines if line.kind == "milestone")
    # What was dosed today is not dosed again.
    again = forecast(sheet_of(cycling("empty", 0), shipped()), [Logged(at(0.1), DOSE)], NOW).calendar
    assert not [line for line in again if line.kind == "dose" and line.day == 0]


def test_running_media_and_warmth_hasten_it():
    hastens = {
        words(one.words): one.days for one in forecast(sheet_of(cycling("empty", 0), shipped()), [], NOW).hastens
    }
    assert any("running media" in text for text in hastens)
    assert all(days > 0.5 for days in hastens.values())


# Trends -------------------------------------------------------------------------------------------


def test_a_line_through_readings_by_hand():
    days = list(range(0, 70, 7))
    found = trend(days, [Interval(0.99 * (8 - 0.05 * d), 1.01 * (8 - 0.05 * d)) for d in days], [0.05] * 10)
    assert found.per_d[0] < -0.05 < found.per_d[2]
    assert found.sure
    assert found.level[1] == pytest.approx(8 - 0.05 * 63, rel=0.05)
    flat = trend(days, [Interval(7.9, 8.1)] * 10, [0.05] * 10)
    assert not flat.sure
    assert trend([0, 1, 2], [Interval(1, 2)] * 3, [0.1] * 3) is None


def test_creeping_is_told_with_what_it_comes_to():
    kh = [read("kh", f"{6 - 0.4 * week:.1f}", 7 * (9 - week), "") for week in range(10)]
    salt = [read("conductivity", str(400 + 20 * week), 7 * (9 - week), "conductivity_meter") for week in range(10)]
    warm = [read("temperature", f"{26 + 0.1 * week:.1f}", 7 * (9 - week), "thermometer") for week in range(10)]
    found = {row.what: row for row in trends(sheet_of(plan(), shipped()), [*kh, *salt, *warm], NOW)}
    assert found["kh"].per_week == pytest.approx(-0.4, rel=0.3)
    # From 2.4 down to 1 by 0.4 a week is three and a half weeks: the middle of June.
    assert "June" in words(found["kh"].sentence)
    assert "top up with pure water" in words(found["conductivity"].sentence)
    assert "check thermostat" in words(found["temperature"].sentence)
    steady = [read("temperature", "25.0", 7 * week, "thermometer") for week in range(8)]
    assert "holds near" in words(trends(sheet_of(plan(), shipped()), steady, NOW)[0].sentence)
