"""Waters and their mix, what is weighed in, regimes side by side, arrivals and quarantine."""

from dataclasses import replace
from itertools import combinations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from loquen.core.graph import asking
from loquen.core.library.whole import shipped
from loquen.core.model.parts.animals import Bag, Group, Quarantine
from loquen.core.model.parts.running import Changes
from loquen.core.model.parts.water import Recipe, Source, Water
from loquen.core.physics import chemistry, dilution
from loquen.core.system.arrivals.tubs import Batch
from loquen.core.system.book import sheet_of
from loquen.core.system.changes import regime, side_by_side
from tests.core.plans import plan

TAP = Source("Tap", "tap", 2.0, 9.0, 5.0, 7.6, 450, 2.5, 14, 24, 10)
RAIN = Source("Rain", "rain", 3.0, 0.5, 0.3, 6.2, 25, 0.1, 1, 2, 12)


# Waters and their mix ---------------------------------------------------------------------------


def test_a_mix_by_hand():
    sheet = sheet_of(plan(sources=(TAP, RAIN)), shipped())
    assert sheet.value("mix_gh_dgh") == pytest.approx((2 * 9 + 3 * 0.5) / 5)
    assert sheet.value("mix_kh_dkh") == pytest.approx((2 * 5 + 3 * 0.3) / 5)
    assert sheet.value("new_nitrate_mg_l") == pytest.approx((2 * 2.5 + 3 * 0.1) / 5)
    # The mix is what the changes then work with.
    assert sheet.value("peak_nitrate_mg_l") == pytest.approx(
        sheet.value("new_nitrate_mg_l") + sheet.value("rise_nitrate_mg_l_d") * 14
    )


def test_one_water_entered_by_itself_still_counts():
    sheet = sheet_of(plan(water=Water(source_kh_dkh=7, source_nitrate_mg_l=3)), shipped())
    assert sheet.value("new_kh_dkh") == 7
    assert sheet.value("new_nitrate_mg_l") == 3


def test_ions_of_a_tap_by_other_hands():
    sheet = sheet_of(plan(sources=(TAP,)), shipped())
    # 9 dGH as calcium, 5 dKH, sodium, chloride, nitrate, and sulfate for what charge is left.
    assert sheet.value("sources.0.src_ions_us_cm") == pytest.approx(430, rel=0.06)


@pytest.mark.parametrize(
    ("water", "what"),
    [
        (replace(TAP, src_ph=9.4), "pH"),
        (replace(TAP, src_softened="all", src_sodium_mg_l=2), "softener"),
        (replace(TAP, src_us_cm=150), "conductivity"),
        (replace(RAIN, src_disinfectant="chlorine"), "disinfectant"),
    ],
)
def test_what_does_not_fit_together_is_asked(water, what):
    sheet = sheet_of(plan(sources=(water,)), shipped())
    assert what in [question.what for question in sheet.value("sources.0.src_questions")]
    assert sheet.value("waters_fit").state == "tight"


def test_a_sound_test_raises_no_question():
    assert sheet_of(plan(sources=(TAP, RAIN)), shipped()).value("waters_fit").state == "holds"


# What is weighed in -----------------------------------------------------------------------------


def test_minerals_for_soft_water_by_hand():
    recipe = Recipe(target_gh_dgh=6, target_kh_dkh=2, calcium_frac=0.75)
    sheet = sheet_of(plan(sources=(RAIN,), recipe=recipe), shipped())
    # 125 L are changed: 5.5 degrees, three quarters gypsum at 30.70 mg, a quarter Epsom salt at 43.95 mg.
    assert sheet.value("calcium_g") == pytest.approx(5.5 * 0.75 * 30.70 * 0.125, rel=2e-3)
    assert sheet.value("magnesium_g") == pytest.approx(5.5 * 0.25 * 43.95 * 0.125, rel=2e-3)
    assert sheet.value("carbonate_g") == pytest.approx(1.7 * 29.96 * 0.125, rel=2e-3)
    assert sheet.value("new_gh_dgh") == 6
    # 0.98 mmol/L of sulfates at 279 and 0.61 of bicarbonate at 95 S cm2/mol, a tenth held back: 300 more.
    assert sheet.value("new_us_cm") == pytest.approx(325, rel=0.06)


def test_a_target_no_weighing_reaches_is_told_by_how_much_and_another_mix_mends_it():
    sheet = sheet_of(plan(sources=(TAP, RAIN), recipe=Recipe(target_gh_dgh=2)), shipped())
    verdict = sheet.value("hardness_reached")
    assert verdict.state == "short"
    assert verdict.reason.terms["over"].value == pytest.approx(3.9 - 2)
    remedy = next(r for r in asking.remedies(sheet, "hardness_reached") if "sources.1.src_parts" in r.changes)
    assert sheet.changed(remedy.changes).value("mix_gh_dgh") <= 2.26


def test_hot_and_cold_mix_to_the_wanted_warmth():
    sheet = sheet_of(
        plan(sources=(TAP,), recipe=Recipe(hot_c=60, fill_l_min=10), water=Water(source_c=25)), shipped()
    )
    assert sheet.value("hot_frac") == pytest.approx(15 / 50)
    assert sheet.value("hot_s") == pytest.approx(0.3 * 125 / 10 * 60)


def test_salt_and_a_slow_move():
    sheet = sheet_of(plan(recipe=Recipe(move_to_ppt=2.5, move_ppt_d=1.0)), shipped())
    assert sheet.value("move_d") == 3
    days = sheet.value("salt_days")
    assert [day.salinity_ppt for day in days] == [1, 2, 2.5]
    # 250 L by a part in a thousand: 997 g of water a litre, 1.00472 g a ppt.
    assert days[0].salt_g == pytest.approx(250 * 0.99705 * 1.00472, rel=1e-3)
    assert days[-1].gravity == pytest.approx(chemistry.specific_gravity(2.5, 25, 25))
    down = sheet_of(plan(water=Water(salinity_ppt=4), recipe=Recipe(move_to_ppt=2.0)), shipped())
    first = down.value("salt_days")[0]
    assert (first.salinity_ppt, first.salt_g) == (3, 0)
    assert first.fresh_l == pytest.approx(250 / 4)


def test_the_card_lists_the_work_in_order():
    town = replace(TAP, src_disinfectant="chloramine", src_chlorine_mg_l=1.6)
    sheet = sheet_of(
        plan(sources=(town, RAIN), recipe=Recipe(target_gh_dgh=6), water=Water(source_c=24)), shipped()
    )
    # Two parts of five bring their disinfectant.
    assert sheet.value("present_disinfectant") == "chloramine"
    assert sheet.value("present_chlorine_mg_l") == pytest.approx(0.64)
    lines = [line.text for line in sheet.value("card")]
    assert lines[0] == "For {litres}:"
    assert lines[1:3] == ["{litres} of {name}"] * 2
    assert any("conditioner" in line for line in lines)
    assert lines[-1].startswith("at {rate}, {seconds}")
    litres = [line.terms["litres"].value for line in sheet.value("card")[1:3]]
    assert sum(litres) == pytest.approx(125)


def test_the_card_airs_what_the_hot_tap_warmed():
    def last(**water):
        return (
            sheet_of(plan(sources=(replace(TAP, src_disinfectant="none"),), water=Water(**water)), shipped())
            .value("card")[-1]
            .text
        )

    assert last(source_c=24, aired=True) == "air it before it goes in"
    assert last(source_c=24).startswith("at {rate}, {seconds}")
    # What comes as cold as the tap is over-full of nothing.
    assert last(source_c=10, aired=True) == "{litres} of {name}"


def test_a_mixed_salt_by_its_label_takes_the_place_of_the_named_ones():
    sheet = sheet_of(plan(sources=(RAIN,), recipe=Recipe(target_gh_dgh=5.5, product_g=3.0)), shipped())
    # Five degrees in 125 L at 3 g for a degree in 100 L.
    assert sheet.value("product_dose_g") == pytest.approx(5 * 3 * 1.25)
    lines = [line.text for line in sheet.value("card")]
    assert "{grams} of the mixed salt, by its label" in lines
    assert "{grams} of {salt}" not in lines


def test_summer_needs_less_from_the_hot_tap():
    tap = replace(TAP, src_summer_c=18.0)
    sheet = sheet_of(plan(sources=(tap,), recipe=Recipe(hot_c=60), water=Water(source_c=25)), shipped())
    assert sheet.value("mix_summer_c") == 18
    assert sheet.value("hot_summer_s") == pytest.approx(7 / 42 * 125 / 10 * 60)


# Disinfectant by all four ways ------------------------------------------------------------------


@pytest.mark.parametrize(
    ("more", "state"),
    [
        ({"treatment": "container"}, "holds"),
        ({"treatment": "tank"}, "holds"),
        ({"treatment": "none"}, "short"),
        ({"treatment": "aged", "disinfectant": "chlorine", "aged_h": 90}, "holds"),
        ({"treatment": "aged", "disinfectant": "chlorine", "aged_h": 12}, "short"),
        ({"treatment": "aged", "disinfectant": "chloramine", "aged_h": 900}, "short"),
        ({"treatment": "carbon", "carbon_l": 7, "carbon_lph": 120}, "holds"),
        ({"treatment": "carbon", "carbon_l": 7, "carbon_lph": 600}, "short"),
    ],
)
def test_four_ways_to_be_rid_of_it(more, state):
    water = Water(**{"disinfectant": "chloramine", "disinfectant_mg_l": 1.0, **more})
    assert sheet_of(plan(water=water), shipped()).value("treated").state == state


def test_chloramine_in_a_barrel_is_refused_with_the_reason():
    water = Water(disinfectant="chloramine", treatment="aged", aged_h=500)
    sheet = sheet_of(plan(water=water), shipped())
    assert "does not leave by standing" in sheet.value("treated").reason.text
    assert sheet.look("ageing_h").case.code == "chloramine_stays"


# Regimes ----------------------------------------------------------------------------------------

REGIMES = [
    Changes(regime="weekdays", weekdays=("Tue", "Thu", "Sat"), change_frac=0.3),
    Changes(regime="every", every_d=5, change_frac=0.4),
    Changes(regime="trigger", change_frac=0.3, target_nitrate_mg_l=9),
    Changes(regime="pulses", pulses_d=2, change_frac=0.08),
    Changes(regime="drip", drip_l_d=30),
]


@pytest.mark.parametrize("regime", REGIMES, ids=lambda row: row.regime)
def test_every_regime_settles_where_five_years_of_days_do(regime):
    sheet = sheet_of(plan(changes=regime), shipped())
    rise, source = sheet.value("rise_nitrate_mg_l_d"), 1.0
    gaps, frac = sheet.value("gaps_d"), sheet.value("swapped_frac")
    level, day, turn, peaks = source, 0.0, 0, []
    while day < 5 * 365 or turn < 60:
        gap = gaps[turn % len(gaps)]
        level += rise * gap
        peaks.append(level)
        level = dilution.after_batch(level, source, frac)
        day += gap
        turn += 1
    assert max(peaks[-14:]) == pytest.approx(sheet.value("peak_nitrate_mg_l"), rel=1e-3)


def test_a_trigger_is_met_exactly():
    sheet = sheet_of(plan(changes=Changes(regime="trigger", change_frac=0.3, target_nitrate_mg_l=9)), shipped())
    assert sheet.value("peak_nitrate_mg_l") == pytest.approx(9)
    assert sheet.value("trigger_d") == pytest.approx(8 * 0.3 / sheet.value("rise_nitrate_mg_l_d"))


def test_a_drip_comes_to_what_a_steady_flow_does():
    sheet = sheet_of(plan(changes=Changes(regime="drip", drip_l_d=25, short_cut_frac=0.0)), shipped())
    steady = dilution.dripped_level(1.0, sheet.value("load_full_mg_d"), 25)
    assert sheet.value("peak_nitrate_mg_l") == pytest.approx(steady, rel=0.005)
    assert sheet.value("change_l_wk") == pytest.approx(175)


def test_a_drip_beside_a_weekly_change_settles_where_days_do():
    both = Changes(weekdays=("Tue", "Sat"), change_frac=0.3, side_drip_l_d=10)
    sheet = sheet_of(plan(changes=both), shipped())
    rise, level, peaks = sheet.value("rise_nitrate_mg_l_d"), 1.0, []
    for turn in range(400):
        for _ in range((3, 4)[turn % 2] * 1000):
            level += (rise - 10 / 250 * (level - 1.0)) / 1000
        peaks.append(level)
        level = level * 0.7 + 0.3
    assert max(peaks[-2:]) == pytest.approx(sheet.value("peak_nitrate_mg_l"), rel=1e-3)
    assert sheet.value("change_l_wk") == pytest.approx(2 * 75 + 70)


def test_flow_through_wastes_some_of_the_new_water():
    sheet = sheet_of(plan(changes=Changes(regime="pulses", change_frac=0.5, short_cut_frac=0.0)), shipped())
    assert sheet.value("swapped_frac") == pytest.approx(1 - 2.718281828**-0.5)


def test_the_table_holds_the_keepers_own_and_at_least_seven_more():
    rows = sheet_of(plan(), shipped()).value("regime_rows")
    assert rows[0].now
    assert len(rows) >= 8
    half = next(row for row in rows if row.label == "Half each Saturday")
    sheet = sheet_of(plan(changes=Changes(weekdays=("Sat",), change_frac=0.5)), shipped())
    assert half.peak == pytest.approx(sheet.value("peak_nitrate_mg_l"))
    assert half.change_l_wk == pytest.approx(125)
    assert half.age_d == pytest.approx(14)
    # Between trough and peak of a saw-tooth lies its mean.
    assert half.mean == pytest.approx((half.peak + half.trough) / 2)


def test_days_to_get_there_from_todays_reading():
    reading = plan(changes=Changes(weekdays=("Sat",), change_frac=0.5, read_nitrate_mg_l=20))
    half = sheet_of(reading, shipped()).value("regime_rows")[0]
    # Each week halves the gap: until a twentieth of the peak is left, or less than a kit tells apart.
    weeks = 0
    gap = 20 - half.peak
    while gap > max(0.05 * half.peak, 0.2):
        gap, weeks = gap / 2, weeks + 1
    assert half.settles_d == pytest.approx(7 * weeks, abs=7)


@pytest.mark.parametrize("there", [("Sat", "Sun"), ("Mon", "Wed", "Fri"), regime.WEEK])
def test_the_least_work_is_never_beaten_on_its_own_grid(there):
    heavy = plan(animals=(Group("boeseman_rainbowfish", 16),), changes=Changes(there=there, target_nitrate_mg_l=9))
    sheet = sheet_of(heavy, shipped())
    least = sheet.value("least_regime")
    rise = sheet.value("rise_nitrate_mg_l_d")
    works = []
    for count in range(1, len(there) + 1):
        for days in combinations(there, count):
            for share in side_by_side.SHARES:
                gaps = regime.gaps_of(days)
                peaks, _ = dilution.settled_cycle(rise, 1.0, gaps, (share,) * count)
                if max(peaks) <= 9 and share <= sheet.value("shock_caps").frac:
                    works.append(share * 250 * count / 8 + 12 * count)
    assert least.work_min == pytest.approx(min(works))
    assert set(least.weekdays) <= set(there)


def test_the_search_never_shocks():
    cold = plan(
        animals=(Group("crystal_shrimp", 60),), water=Water(source_c=15, source_kh_dkh=1), changes=Changes()
    )
    sheet = sheet_of(cold, shipped())
    # Ten degrees apart, one is borne: a tenth.
    assert sheet.value("shock_caps").frac == pytest.approx(0.1)
    assert all(row.change_frac <= 0.1 for row in sheet.value("regimes") if not row.shocks)


def test_a_missed_week_and_a_holiday():
    sheet = sheet_of(plan(changes=Changes(weekdays=("Sat",), change_frac=0.5, away_d=14)), shipped())
    rise = sheet.value("rise_nitrate_mg_l_d")
    assert sheet.value("missed_nitrate_mg_l") == pytest.approx(1 + rise * (14 + 7))
    assert sheet.value("away_nitrate_mg_l") == pytest.approx(1 + rise * (7 + 14))


@settings(max_examples=25, deadline=None)
@given(parts=st.lists(st.floats(0.1, 50), min_size=1, max_size=4))
def test_a_mix_lies_between_its_waters(parts):
    rows = tuple(replace(TAP if n % 2 else RAIN, src_parts=part) for n, part in enumerate(parts))
    sheet = sheet_of(plan(sources=rows), shipped())
    for key, name in (("mix_gh_dgh", "src_gh_dgh"), ("mix_us_cm", "src_us_cm")):
        values = [getattr(row, name) for row in rows]
        assert min(values) - 1e-9 <= sheet.value(key) <= max(values) + 1e-9
        assert sheet.value(key) * sum(parts) == pytest.approx(
            sum(a * b for a, b in zip(parts, values, strict=True)), rel=1e-9
        )


def test_a_shock_is_told_with_the_split_that_avoids_it():
    water = Water(source_c=15, source_kh_dkh=5)
    verdict = sheet_of(plan(water=water, changes=Changes(change_frac=0.5)), shipped()).value("no_shock")
    # Five degrees at one change, four are borne.
    assert verdict.reason.terms["parts"].value == 2
    assert "Split into" in verdict.reason.text


# Arrivals and quarantine ------------------------------------------------------------------------


def test_a_long_trip_decides_to_net_out_at_once():
    long_trip = Bag(bagged_l=1, bag_mass_g=30, bag_h=30, bag_fasted=False, bag_kh_dkh=5)
    sheet = sheet_of(plan(bags=(long_trip,)), shipped())
    # 0.035 mg of N a gram and hour.
    assert sheet.value("bags.0.bag_ammonia_mg_l") == pytest.approx(0.035 * 30 * 30)
    assert sheet.value("bags.0.opened_ph") == pytest.approx(chemistry.aerated_ph(5, 21))
    assert sheet.value("bags.0.opened_unionised_mg_l") > 20 * sheet.value("bags.0.sealed_unionised_mg_l")
    assert sheet.value("bag_opens").state == "short"
    assert "net them across at once" in sheet.value("arrivals_result").text
    short_trip = replace(long_trip, bag_h=0.5, bag_mass_g=3, bag_fasted=True)
    assert sheet_of(plan(bags=(short_trip,)), shipped()).value("bag_opens").state == "holds"


def test_every_arrival_has_its_card_and_the_worst_is_judged():
    fresh = Bag("Snails", bag_h=0.5, bag_mass_g=3, bag_us_cm=380)
    stale = Bag("Barbs", bag_h=40, bag_mass_g=60, bag_fasted=False)
    sheet = sheet_of(plan(bags=(fresh, stale)), shipped())
    # 450 against 380 is over the eighth under which a drip brings nothing.
    assert sheet.value("bags.0.bag_result").text.startswith("{name}: float the closed bag for {minutes}, then pour")
    assert "at once" in sheet.value("bags.1.bag_result").text
    assert sheet.value("worst_opened_mg_l") == sheet.value("bags.1.opened_unionised_mg_l")
    assert sheet.value("bag_opens").reason.terms["name"].value == "Barbs"
    assert sheet.value("tub_holds").reason.terms["name"].value == "Barbs"


def test_nobody_on_the_way_is_no_fault():
    sheet = sheet_of(plan(), shipped())
    assert sheet.look("bag_opens").case.code == "not_needed"
    assert sheet.value("arrivals_result").text == "Nobody is on the way."
    assert sheet.value("arrivals_order") == ()


def test_the_drip_answers_both_ways():
    sheet = sheet_of(plan(bags=(Bag(bagged_l=1.5, drops_per_s=2, drip_min=40, drip_frac=0.8),)), shipped())
    assert sheet.value("bags.0.dripped_frac") == pytest.approx(0.13793, rel=1e-3)
    assert sheet.value("bags.0.wanted_min") == pytest.approx(1000)
    assert sheet.value("bags.0.wanted_drops") == pytest.approx(50)


def test_a_large_gap_is_moved_over_in_days():
    bag = Bag(bag_us_cm=1600, drops_per_s=2, drip_min=60)
    sheet = sheet_of(plan(bags=(bag,), water=Water(tank_us_cm=400)), shipped())
    # A quarter is reached by losing two fifths a day at most: ln 4 / -ln 0.6 = 2.7.
    assert sheet.value("bags.0.tub_move_d") == 3
    assert sheet.value("bags.0.drip_rate") == pytest.approx(1200 * sheet.value("bags.0.dripped_frac"))


@pytest.mark.parametrize(("bag", "days"), [(100, 5), (400, 0), (401, 1), (1600, 3)])
def test_a_tubs_days_follow_bag_against_tank_whatever_the_change_water_is(bag, days):
    # Upwards 40 % a day: ln 4 / ln 1.4 = 4.1; downwards 40 % a day: ln 4 / -ln 0.6 = 2.7.
    for change_water in (50, 2000):
        water = Water(tank_us_cm=400, source_us_cm=change_water)
        sheet = sheet_of(plan(bags=(Bag(bag_us_cm=bag),), water=water), shipped())
        assert sheet.value("bags.0.tub_move_d") == days


def test_a_drip_beside_the_changes_hastens_the_way():
    def days(litres):
        regime = Changes(weekdays=("Sat",), change_frac=0.25, read_nitrate_mg_l=100, side_drip_l_d=litres)
        return sheet_of(plan(changes=regime), shipped()).value("regime_rows")[0].settles_d

    sheet = sheet_of(plan(), shipped())
    alone, beside = days(0), days(0.05 * sheet.value("real_volume_l"))
    # A quarter a week leaves e^(-0.0411 d); a twentieth a day besides e^(-(0.0411 + 0.05) d). The goals lie close.
    assert alone / beside == pytest.approx((0.0411 + 0.05) / 0.0411, rel=0.15)


def test_a_tub_without_media_by_hand():
    sheet = sheet_of(
        plan(bags=(Bag(bag_mass_g=10),), quarantine=Quarantine(tub_l=18), water=Water(tank_ph=7.0)), shipped()
    )
    made = 0.030 * 10**0.75 * 0.6 * 1000 * 0.42 * 0.16 * 0.92
    assert sheet.value("bags.0.tub_mg_d") == pytest.approx(made)
    limit = sheet.value("allowed_ammonia_mg_l")
    assert sheet.value("bags.0.tub_h") == pytest.approx(limit * 18 / made * 24)
    assert sheet.value("bags.0.tub_change_frac") == pytest.approx(made / 18 / limit)
    seeded = sheet_of(plan(bags=(Bag(),), quarantine=Quarantine(tub_media_m2=5.0)), shipped())
    assert seeded.look("bags.0.tub_h").case.code == "media_take_all"


def test_few_tubs_make_arrivals_wait():
    sheet = sheet_of(
        plan(bags=tuple(Bag(name) for name in "abcde"), quarantine=Quarantine(tub_count=2, wait_weeks=4)), shipped()
    )
    assert sheet.value("through_weeks") == 12
    assert sheet.value("arrivals_order") == (
        Batch("a", 1, 0, 4),
        Batch("b", 2, 0, 4),
        Batch("c", 1, 4, 8),
        Batch("d", 2, 4, 8),
        Batch("e", 1, 8, 12),
    )


@pytest.mark.parametrize(("kind", "state"), [("cherry_shrimp", "short"), ("zebra_danio", "tight")])
def test_copper_and_those_it_kills(kind, state):
    sheet = sheet_of(plan(animals=(Group(kind, 10),), quarantine=Quarantine(copper_used=True)), shipped())
    assert sheet.value("copper_borne").state == state
