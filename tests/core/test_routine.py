"""The keeper's days: recurring dates by the calendar, care by the plan's numbers, what is due, late and can wait."""

from dataclasses import replace
from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from loquen.core.events.kinds.keeping import TakenOut
from loquen.core.feeding.rota import days_with_food
from loquen.core.library.whole import shipped
from loquen.core.model.inputs.quantity import as_text, say
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.heat import Lamp
from loquen.core.model.parts.running import Changes, Cycle, RunIn
from loquen.core.model.parts.tank import Planting
from loquen.core.routine import consumables
from loquen.core.routine.away import away, every_visit
from loquen.core.routine.care import filters, living, zeolite
from loquen.core.routine.care.whole import care_of
from loquen.core.routine.costs import Ahead, NitrateRead, ahead_of, as_read, cost, day_words, passes_on
from loquen.core.routine.due import Done, Helper, as_set, attended, coming, due
from loquen.core.routine.duty import Duty, Set
from loquen.core.routine.recurring import WEEK, Rhythm, after, days_of, latest, rhythm_words
from loquen.core.system.book import sheet_of
from loquen.core.system.told import verdict_of
from loquen.core.timeline.setup import settled_capacity
from loquen.demo.sluice_street import (
    bottle_shelf,
    bottle_shelf_new,
    long_hall,
    old_copper,
    rope_walk_b,
    tidal_corner,
)
from tests.core.plans import plan as bare_box

SATURDAY = date(2026, 11, 28)


def plain(sentence):
    return as_text(sentence, {})


def duty(key="glass", kind="clean", **rhythm):
    return Duty(key, kind, say("Do it."), say("Because."), Rhythm(**rhythm), 5.0)


# Dates, each counted on a printed calendar.
@pytest.mark.parametrize(
    ("rhythm", "since", "until", "wanted"),
    [
        (Rhythm(weekdays=("Sat",)), date(2028, 2, 24), date(2028, 3, 12), ["02-26", "03-04", "03-11"]),
        (Rhythm(weekdays=("Wed", "Sat")), date(2026, 12, 28), date(2027, 1, 7), ["12-30", "01-02", "01-06"]),
        (Rhythm(every_d=14), date(2028, 2, 20), date(2028, 3, 20), ["02-20", "03-05", "03-19"]),
        (Rhythm(every_d=14), date(2027, 2, 20), date(2027, 3, 21), ["02-20", "03-06", "03-20"]),
        (Rhythm(every_months=1), date(2027, 12, 31), date(2028, 4, 1), ["12-31", "01-31", "02-29", "03-31"]),
        (Rhythm(every_months=3), date(2026, 11, 30), date(2027, 9, 1), ["11-30", "02-28", "05-30", "08-30"]),
        (Rhythm(every_months=12), date(2028, 2, 29), date(2032, 3, 1), ["02-29"] + ["02-28"] * 3 + ["02-29"]),
    ],
)
def test_days_come_as_on_the_calendar(rhythm, since, until, wanted):
    assert [day.strftime("%m-%d") for day in days_of(rhythm, since, since, until)] == wanted


def test_the_next_time_is_counted_from_the_last():
    assert after(Rhythm(every_d=21), date(2026, 11, 28)) == date(2026, 12, 19)
    assert after(Rhythm(every_months=3), date(2026, 11, 30)) == date(2027, 2, 28)
    assert latest(Rhythm(weekdays=("Sat",)), SATURDAY, date(2026, 12, 4)) == SATURDAY
    assert latest(Rhythm(weekdays=("Sat",)), SATURDAY, date(2026, 11, 27)) is None


def test_a_rhythm_in_words():
    assert plain(rhythm_words(Rhythm(weekdays=WEEK))) == "every day"
    assert plain(rhythm_words(Rhythm(weekdays=("Sat", "Wed")))) == "every Wednesday and Saturday"
    assert plain(rhythm_words(Rhythm(every_d=56))) == "every 8 weeks"
    assert plain(rhythm_words(Rhythm(every_d=10))) == "every 10 days"
    assert plain(rhythm_words(Rhythm(every_months=1))) == "every month"


@given(st.integers(0, 6), st.sets(st.sampled_from(WEEK), min_size=1))
def test_so_many_days_without_food_and_first_those_on_which_nobody_is_there(fasting, there):
    fed = days_with_food(fasting, tuple(sorted(there, key=WEEK.index)))
    assert len(fed) == 7 - fasting
    away_days = [day for day in WEEK if day not in there]
    assert len(set(away_days) - set(fed)) == min(fasting, len(away_days))


def by_key(plan):
    return {row.key: row for row in care_of(sheet_of(plan, shipped(), 0.0))}


def test_a_change_is_due_as_the_plan_says_with_its_litres_and_its_recipe():
    rows = by_key(long_hall())
    # 617.7 L × 0.30; 25 mL for 100 L, twice for chloramine, of 185.3 L; 1.6 mg/L at 1.5 a dose are 1.1 doses: 101.9 mL.
    assert rows["change"].event.litres == pytest.approx(185.3, abs=0.05)
    assert rows["change"].rhythm == Rhythm(weekdays=("Sat",))
    assert any("102 mL of conditioner" in plain(step) for step in rows["change"].steps)
    assert list(rows).index("read.nitrate") < list(rows).index("change")
    every = by_key(replace(long_hall(), changes=replace(long_hall().changes, regime="every", every_d=10)))
    assert every["change"].rhythm == Rhythm(every_d=10)
    assert "change" not in by_key(replace(long_hall(), changes=Changes(regime="pulses")))


def test_changes_by_a_reading_come_as_often_as_nitrate_reaches_the_limit():
    changes = replace(long_hall().changes, regime="trigger")
    plan = replace(long_hall(), changes=changes)
    wanted = int(sheet_of(plan, shipped(), 0.0).value("trigger_d"))
    assert by_key(plan)["change"].rhythm == Rhythm(every_d=wanted)
    seldom = replace(plan, changes=replace(changes, shortest_gap_d=wanted + 9.5))
    assert by_key(seldom)["change"].rhythm == Rhythm(every_d=wanted + 9)
    assert "change" not in by_key(replace(plan, changes=replace(changes, regime="weekdays", weekdays=())))


def test_what_evaporates_is_topped_up_before_a_pump_draws_air():
    assert "top_up" not in by_key(long_hall())  # it has an automatic one
    copper = sheet_of(old_copper(), shipped(), 0.0)
    row = by_key(old_copper())["top_up"]
    days = min(7, int(copper.value("dry_d") / 2))
    assert row.rhythm == Rhythm(every_d=days)
    assert row.words.terms["litres"].value == pytest.approx(days * copper.value("evaporation_l_d"))
    shallow = replace(
        old_copper(), sump=replace(old_copper().sump, intake_cm=old_copper().sump.return_level_cm - 1)
    )
    dry = sheet_of(shallow, shipped(), 0.0).value("dry_d")
    assert dry < 14
    assert by_key(shallow)["top_up"].rhythm == Rhythm(every_d=max(1, int(dry / 2)))


def test_food_of_a_day_is_what_the_balance_reckons_with():
    sheet = sheet_of(long_hall(), shipped(), 0.0)
    row = by_key(long_hall())["feed.0"]
    assert row.event.grams == pytest.approx(sheet.value("feed_total_g_d"), abs=0.001)
    plan = replace(
        long_hall(), animals=tuple(replace(g, fasting_d_wk=1, food="frozen") for g in long_hall().animals)
    )
    fasted = by_key(plan)["feed.1"]
    # The week's dry food over six days, as wet food of 15 % dry.
    dry = sheet_of(plan, shipped(), 0.0).value("feed_total_g_d")
    assert fasted.event.grams == pytest.approx(dry * 7 / 6 / 0.15, rel=1e-3)
    assert len(fasted.rhythm.weekdays) == 6


def test_plants_are_thinned_by_what_they_take_up():
    # 41.6 mg N a day for 14 days, at 4 % nitrogen of a dry mass that is a tenth of the wet.
    assert living.thinned_g(41.58, 14) == pytest.approx(145.5, abs=0.1)
    assert plain(by_key(long_hall())["thin"].words) == "Thin the plants: take out about 146 g, wet."
    assert "thin" not in by_key(tidal_corner())


def test_what_is_read_follows_the_plan(monkeypatch):
    assert "read.ammonia" not in by_key(long_hall())
    from datetime import datetime

    new = by_key(bottle_shelf_new(datetime.now().astimezone()))
    assert new["read.ammonia"].rhythm == Rhythm(every_d=2)
    assert new["read.ammonia"].measure == "ammonia"
    assert "read.kh" in by_key(bottle_shelf())  # soft water
    assert "read.kh" not in by_key(long_hall())  # 4.5 dKH
    cool = replace(long_hall(), heat=replace(long_hall().heat, heated=False))
    assert "read.temperature" in by_key(long_hall())
    assert "read.temperature" not in by_key(cool)
    assert "read.temperature" in by_key(replace(cool, heat=replace(cool.heat, fan_fitted=True)))


def test_a_tank_that_waits_for_its_animals_is_cycled_and_not_fed():
    waiting = replace(long_hall(), cycle=Cycle(begun_by="empty"), run_in=RunIn("set_up", stocked="cycled"))
    rows = by_key(waiting)
    assert "feed.0" not in rows
    assert "change" not in rows
    assert rows["cycle"].rhythm == Rhythm(every_d=1)
    assert "read.ammonia" in rows
    assert "cycle" not in by_key(long_hall())
    planned = by_key(replace(long_hall(), run_in=RunIn(stocked="cycled")))
    assert planned.keys() == {"set_up"}
    assert planned["set_up"].page == "cycle"
    with_animals = by_key(replace(long_hall(), cycle=Cycle(begun_by="animals")))
    assert "feed.0" in with_animals
    assert "read.nitrite" in with_animals
    assert consumables.food(sheet_of(waiting, shipped(), 0.0)) == []


def test_lamps_and_calcium_only_for_those_that_bask():
    turtle = replace(
        tidal_corner(),
        animals=(Group("common_musk_turtle", 1),),
        lamps=(Lamp(lamp_kind="uvb", lamp_age_months=9.0, lamp_life_months=12.0),),
    )
    rows = by_key(turtle)
    assert "vet" in rows["calcium"].caution
    assert rows["lamp.0"].offset_d == pytest.approx(91, abs=1)  # three months of 30.44 days
    assert "salmonella" in rows["feed.0"].caution
    assert "calcium" not in by_key(tidal_corner())
    assert by_key(tidal_corner())["feed.0"].caution == ""
    frogs = by_key(replace(turtle, animals=(Group("african_clawed_frog", 2),)))
    assert "calcium" not in frogs
    assert "salmonella" in frogs["feed.0"].caution
    assert not [key for key in by_key(tidal_corner()) if key.startswith("lamp")]


def test_carbon_is_replaced_by_the_litres_that_went_through():
    water = replace(long_hall().water, treatment="carbon", carbon_l=2.0, disinfectant="chlorine")
    row = by_key(replace(long_hall(), water=water))["carbon"]
    # 2 L × 4000 L/L ÷ 185.3 L a week = 43.2 weeks.
    assert row.rhythm.every_d == pytest.approx(302, abs=1)


def test_algae_move_the_hours_of_light_an_hour_at_a_time():
    steps = by_key(long_hall())["glass"].steps  # eight hours
    assert "light for 7 h instead of 8 h" in plain(steps[0])
    dim = replace(long_hall(), lamps=(replace(long_hall().lamps[0], lamp_h=6.0),))
    assert "shade the window" in plain(by_key(dim)["glass"].steps[0])


def test_a_probe_is_compared_where_a_controller_is():
    assert by_key(long_hall())["probe"].rhythm == Rhythm(every_months=3)
    bare = replace(long_hall(), heat=replace(long_hall().heat, cut_out=False))
    assert "probe" not in by_key(bare)


def test_a_filter_settles_where_growth_and_decay_balance():
    # 0.6 × 0.5 × (1 − X/10) = 0.05 × X: X = 0.3 ÷ (0.05 + 0.03) = 3.75.
    assert settled_capacity(0.6, 0.5, 1.0, 10.0) == pytest.approx(3.75)


def test_rinses_apart_lift_ammonia_less_than_all_on_one_day():
    sheet = sheet_of(rope_walk_b(), shipped(), 0.0)
    first, second = filters.beds_of(sheet)
    assert (first.share, second.share) == (pytest.approx(0.5), pytest.approx(0.5))
    usual = filters.peak_after(sheet, [])
    together = filters.peak_after(sheet, [(0, 0.5), (0, 0.5)])
    apart = filters.peak_after(sheet, [(0, 0.5), (14, 0.5)])
    assert usual < apart < together
    rows = by_key(rope_walk_b())
    gap = abs(rows["rinse.0"].offset_d - rows["rinse.1"].offset_d)
    assert gap >= 7
    assert rows["rinse.0"].rhythm == Rhythm(every_d=21)
    assert "half of the sump" in plain(by_key(long_hall())["rinse.sump"].words)


def test_a_scheduled_fortnight_of_rinses_stays_under_all_on_one_day():
    sheet = sheet_of(rope_walk_b(), shipped(), 0.0)
    rows = [row for row in care_of(sheet) if row.key.startswith("rinse")]
    schedule = [(row.offset_d, bed.share) for row, bed in zip(rows, filters.beds_of(sheet), strict=True)]
    assert filters.peak_after(sheet, schedule) < filters.peak_after(
        sheet, [(0, bed.share) for bed in filters.beds_of(sheet)]
    )


# What is due.
def test_a_weekday_comes_round_whether_or_not_it_was_done():
    change = duty("change", "change", weekdays=("Sat",))
    began = date(2026, 11, 1)
    assert due(change, began, Done(), SATURDAY).late_d == 0
    late = due(change, began, Done(), SATURDAY + timedelta(days=3))
    assert (late.day, late.late_d, late.again) == (SATURDAY, 3, date(2026, 12, 5))
    assert due(change, began, Done(settled=SATURDAY), SATURDAY + timedelta(days=3)) is None
    assert due(change, began, Done(last=SATURDAY - timedelta(days=2)), SATURDAY).late_d == 0
    assert due(change, began, Done(last=SATURDAY - timedelta(days=1)), SATURDAY) is None  # done the evening before
    daily = duty("feed.0", "feed", weekdays=WEEK)
    assert due(daily, began, Done(last=SATURDAY - timedelta(days=1)), SATURDAY).late_d == 0
    assert due(change, SATURDAY + timedelta(days=1), Done(), SATURDAY + timedelta(days=2)) is None


def test_an_interval_is_counted_from_when_it_was_done():
    glass = duty(every_d=7)
    assert due(glass, SATURDAY, Done(), SATURDAY).day == SATURDAY
    assert due(glass, SATURDAY, Done(last=SATURDAY - timedelta(days=6)), SATURDAY) is None
    assert due(glass, SATURDAY, Done(last=SATURDAY - timedelta(days=9)), SATURDAY).late_d == 2
    # Due ten days ago and skipped today: it comes a week from today.
    skipped = Done(settled=SATURDAY - timedelta(days=10), seen=SATURDAY)
    assert due(glass, SATURDAY, skipped, SATURDAY + timedelta(days=6)) is None
    assert due(glass, SATURDAY, skipped, SATURDAY + timedelta(days=7)).late_d == 0
    assert due(replace(glass, offset_d=5), SATURDAY, Done(), SATURDAY + timedelta(days=4)) is None


def test_food_that_was_missed_is_not_made_up_for():
    feed = duty("feed.1", "feed", weekdays=("Fri",))
    assert due(feed, date(2026, 11, 1), Done(), SATURDAY) is None
    assert due(feed, date(2026, 11, 1), Done(), SATURDAY - timedelta(days=1)).late_d == 0


def test_yesterdays_meal_is_not_todays():
    """A food of one weekday: the meal of the day before does not stand for it, today's own does."""
    feed, began = duty("feed.rota2", "feed", weekdays=("Sat",)), date(2026, 11, 1)
    assert due(feed, began, Done(last=SATURDAY - timedelta(days=1)), SATURDAY).late_d == 0
    assert due(feed, began, Done(last=SATURDAY), SATURDAY) is None


def test_a_keeper_sets_it_otherwise_leaves_it_out_or_adds_something():
    usual = (duty("glass", every_d=7), duty("thin", every_d=14))
    own = Set(rhythm=Rhythm(weekdays=("Sun",)), words="Turn the leaves")
    found = as_set(usual, {"glass": Set(rhythm=Rhythm(every_d=3)), "thin": Set(off=True), "own.a": own})
    assert [(row.key, row.rhythm) for row in found] == [
        ("glass", Rhythm(every_d=3)),
        ("own.a", Rhythm(weekdays=("Sun",))),
    ]
    assert plain(found[1].words) == "Turn the leaves"
    assert found[1].event.note == "Turn the leaves"


def test_what_falls_on_an_empty_day_waits_for_the_next_who_comes():
    helpers = [Helper("Ida", ("Mon", "Thu")), Helper("Bram", ("Tue",))]
    assert attended(helpers, SATURDAY) == date(2026, 11, 30)
    assert attended(helpers, date(2026, 12, 1)) == date(2026, 12, 1)
    assert attended([], SATURDAY) == SATURDAY


def test_what_is_to_come_goes_on_from_the_last_time():
    found = coming(
        duty(every_d=7), SATURDAY, Done(last=date(2026, 11, 24)), SATURDAY, SATURDAY + timedelta(days=14)
    )
    assert found == [date(2026, 12, 1), date(2026, 12, 8)]


# What waiting costs: 4 mg/L after a change, half a mg/L more a day, 9 the most: on the tenth day it is reached.
AHEAD = Ahead(4.0, 0.5, 9.0, 2.0, 0.4, 7.0, 7, "Somebody")


def test_a_missed_change_says_when_nitrate_passes_its_limit():
    assert passes_on(AHEAD, SATURDAY) == date(2026, 12, 8)
    change = due(duty("change", "change", weekdays=("Sat",)), date(2026, 11, 1), Done(), date(2026, 12, 5))
    assert plain(cost(change, AHEAD, SATURDAY, None, date(2026, 12, 5))) == "nitrate passes 40 mg/L NO₃ on Tuesday"
    assert plain(cost(change, AHEAD, SATURDAY, None, date(2026, 12, 7))) == "nitrate passes 40 mg/L NO₃ tomorrow"
    late = plain(cost(change, AHEAD, SATURDAY, None, date(2026, 12, 12)))
    assert late == "nitrate is past 40 mg/L NO₃, near 49 mg/L NO₃"  # 4 + 14 × 0.5 = 11 mg/L N
    assert passes_on(replace(AHEAD, rise_mg_l_d=0.0), SATURDAY) is None


@pytest.mark.parametrize(
    ("level", "days_after", "before", "after"),
    [(8.0, 0, True, 5.6), (8.0, 0, False, 8.0), (6.0, 2, False, 5.0), (7.0, -2, False, 5.6)],
)
def test_what_was_read_goes_before_what_the_plan_reckons(level, days_after, before, after):
    """Two fifths of water at 2 after half a mg/L a day: 8 becomes 5.6; 6 two days later was 5; 7 two days before was 8."""
    read = NitrateRead(level, SATURDAY + timedelta(days=days_after), before)
    found = as_read(AHEAD, read, SATURDAY)
    assert found.after_change_mg_l == pytest.approx(after)
    assert passes_on(found, SATURDAY) >= SATURDAY
    assert as_read(replace(AHEAD, rise_mg_l_d=None), read, SATURDAY).after_change_mg_l == AHEAD.after_change_mg_l


@pytest.mark.parametrize(
    ("apart", "words"),
    [(0, "today"), (1, "tomorrow"), (-1, "yesterday"), (3, "Tuesday"), (7, "5 December"), (-3, "25 November")],
)
def test_a_day_in_words(apart, words):
    assert day_words(SATURDAY + timedelta(days=apart), SATURDAY) == words


def test_animals_without_food_for_longer_than_they_bear():
    feed = due(duty("feed.0", "feed", weekdays=WEEK), date(2026, 11, 1), Done(), SATURDAY)
    assert cost(feed, AHEAD, None, SATURDAY - timedelta(days=7), SATURDAY) is None
    told = cost(feed, AHEAD, None, SATURDAY - timedelta(days=8), SATURDAY)
    assert plain(told) == "8 days without food; Somebody goes 7 days at most"
    assert ahead_of(sheet_of(long_hall(), shipped(), 0.0)).fast_d == 7
    young = tuple(replace(group, size_by="length", length_cm=2.0) for group in long_hall().animals[1:2])
    assert ahead_of(sheet_of(replace(long_hall(), animals=young), shipped(), 0.0)).fast_d == 2


# A holiday.
FORTNIGHT = (date(2026, 12, 1), date(2026, 12, 14))


def gone(ahead, *duties, days=FORTNIGHT, visit_d=1):
    return away(duties, ahead, {}, date(2026, 11, 1), *days, visit_d)


def test_a_week_without_food_needs_nobody_and_a_fortnight_does():
    feed = duty("feed.0", "feed", weekdays=WEEK)
    short = gone(AHEAD, feed, days=(date(2026, 12, 1), date(2026, 12, 7)))
    assert short.stand_in == ()
    assert "No food at all" in plain(short.waits[0])
    [task] = gone(AHEAD, feed, visit_d=4).stand_in
    assert [day.day for day in task.days] == [4, 8, 12]
    gaps = [b - a for a, b in zip((date(2026, 11, 30), *task.days), (*task.days, date(2026, 12, 15)), strict=True)]
    assert max(gaps).days <= AHEAD.fast_d


def test_visits_are_as_far_apart_as_the_least_patient_bear():
    young = replace(AHEAD, fast_d=2)
    assert every_visit([AHEAD, young], *FORTNIGHT) == 2
    assert every_visit([AHEAD], *FORTNIGHT) == 4
    [task] = gone(young, duty("feed.0", "feed", weekdays=WEEK), visit_d=2).stand_in
    assert [day.day for day in task.days] == [2, 4, 6, 8, 10, 12, 14]


def test_water_waits_as_long_as_nitrate_allows_and_no_longer():
    change = duty("change", "change", weekdays=("Sat",))
    slow = gone(replace(AHEAD, rise_mg_l_d=0.3), change)
    # 4 + 14 × 0.3 = 8.2 mg/L N, which kits read as 36.
    assert slow.stand_in == ()
    assert "nitrate ends near 36 mg/L NO₃" in plain(slow.waits[0])
    assert slow.before[0].days == (date(2026, 11, 30),)
    [task] = gone(AHEAD, change).stand_in
    # Changed on 30 November it passes on 10 December: the ninth, and again as 0.4 × (9 − 2) ÷ 0.5 = 5 days on.
    assert [day.day for day in task.days] == [9, 14]


def test_what_only_looks_bad_waits_and_what_harms_does_not():
    found = gone(
        AHEAD,
        duty("glass", every_d=7),
        duty("top_up", "change", every_d=7),
        duty("read.nitrite", "read", every_d=2),
    )
    assert [task.key for task in found.stand_in] == ["top_up", "read.nitrite"]
    # The day before all of it is done: then after a week, and every second day.
    assert [task.key for task in found.before] == ["glass", "top_up", "read.nitrite"]
    assert [[day.day for day in task.days][:2] for task in found.stand_in] == [[7, 14], [2, 4]]
    assert "Do it" in plain(found.waits[0])


@pytest.mark.parametrize("plan", [long_hall(), rope_walk_b(), old_copper(), tidal_corner(), bottle_shelf()])
def test_every_duty_of_the_demo_says_what_why_and_how_often(plan):
    rows = care_of(sheet_of(plan, shipped(), 0.0))
    assert len({row.key for row in rows}) == len(rows) > 8
    for row in rows:
        assert "{" not in plain(row.words) + plain(row.why) + plain(rhythm_words(row.rhythm))
        assert row.minutes > 0
        assert row.rhythm.days > 0
        assert (row.event is None) == bool(row.measure)


# What is used up.
def test_a_week_of_a_system_is_what_its_plan_pours_and_feeds():
    sheet = sheet_of(long_hall(), shipped(), 0.0)
    found = {use.key: use for use in consumables.uses_of(sheet, care_of(sheet))}
    # One change of 92.65 mL a week, and 1.48 mL for what is topped up; each 1.1 times, for 1.6 mg/L at 1.5 a dose.
    assert found["conditioner"].a_week == pytest.approx(1.1 * 94.13, abs=0.03)
    assert found["food.dry"].a_week == pytest.approx(7 * sheet.value("feed_total_g_d"), rel=1e-6)
    assert found["test.nitrate"].a_week == 1
    assert "salt" not in found
    corner = sheet_of(tidal_corner(), shipped(), 0.0)
    # 160 g of salt for each change, one a week.
    assert {use.key: use.a_week for use in consumables.uses_of(corner, ())}["salt"] == pytest.approx(160, abs=1)


def test_food_of_days_without_is_not_used():
    plan = replace(long_hall(), animals=(replace(long_hall().animals[0], fasting_d_wk=2, food="frozen"),))
    sheet = sheet_of(plan, shipped(), 0.0)
    [use] = consumables.food(sheet)
    assert use.key == "food.frozen"
    assert use.a_week == pytest.approx(7 * sheet.value("feed_total_g_d") / 0.15, rel=1e-6)


def test_a_stock_runs_out_and_is_ordered_in_time():
    use = consumables.Use("conditioner", "Conditioner", "dose", 70.0)
    stock = consumables.Stock(500.0, date(2026, 11, 1), 7)
    found = consumables.runs_out(use, stock, date(2026, 11, 21))
    # Ten a day: gone after fifty days, ordered a week before; 300 left after twenty.
    assert (found.left, found.on, found.order_by) == (pytest.approx(300), date(2026, 12, 21), date(2026, 12, 14))
    assert consumables.runs_out(use, stock, date(2027, 3, 1)).left == 0
    assert consumables.runs_out(replace(use, a_week=0.0), stock, SATURDAY).on is None


def test_spares_are_one_for_so_many_in_use_of_the_whole_house():
    rows = [{"Heater, 75 W": 2}, {"Heater, 75 W": 9, "Return pump": 1}]
    assert [(row.label, row.in_use, row.keep) for row in consumables.spares(rows, 10)] == [
        ("Heater, 75 W", 11, 2),
        ("Return pump", 1, 1),
    ]
    assert consumables.spared_parts(sheet_of(long_hall(), shipped()))["Heater, 300 W"] == 2


def test_the_uses_of_a_house_are_each_there_once():
    one = consumables.Use("salt", "Salt", "small_mass", 3.0)
    assert [(use.key, use.a_week) for use in consumables.together([one, one])] == [("salt", 6.0)]


def test_zeolite_is_full_when_it_holds_what_the_animals_make():
    plan = rope_walk_b()
    plan = replace(
        plan,
        filters=(replace(plan.filters[0], zeolite_g=200.0), *plan.filters[1:]),
        water=replace(plan.water, tank_gh_dgh=8.0),
    )
    made = sheet_of(plan, shipped(), 0.0).value("load_now_mg_d")
    duty = by_key(plan)["zeolite"]
    # 1.5 mg of N a gram in soft water, half of it at 8 dGH: 150 mg in 200 g.
    assert duty.rhythm.every_d == duty.offset_d == max(1, int(150 / made))
    assert zeolite.capacity_mg_g(0) == 1.5
    assert zeolite.capacity_mg_g(8) == 0.75
    assert "never in the tank" in duty.caution
    assert "zeolite" not in by_key(rope_walk_b())


def test_zeolite_leaves_salted_water_at_once():
    plan = tidal_corner()
    plan = replace(plan, filters=(replace(plan.filters[0], zeolite_g=200.0), *plan.filters[1:]))
    duty = by_key(plan)["zeolite"]
    assert (duty.rhythm.every_d, duty.event) == (1, TakenOut("zeolite"))
    assert "Take the zeolite out" in as_text(duty.words, {})


def test_shrimps_have_leaves_by_their_litres():
    duty = by_key(bottle_shelf())["leaves"]
    litres = sheet_of(bottle_shelf(), shipped(), 0.0).value("real_volume_l")
    assert duty.event.amount == max(1, litres // 20)
    assert duty.rhythm.every_d == 21
    assert "leaves" not in by_key(long_hall())


@pytest.mark.parametrize(
    ("bed", "planted", "said"),
    [
        ("none", 0.0, "Siphon what lies on the bare floor."),
        ("none", 0.4, "Siphon what lies on the bare floor."),
        ("soil", 0.4, "Draw off what lies on the soil"),
        ("soil", 0.0, "Draw off what lies on the soil"),
        ("gravel", 0.0, "Siphon half of the bed."),
    ],
)
def test_a_bare_floor_has_no_half_and_soil_is_not_dug_into(bed, planted, said):
    planting = (Planting("fast_stems", planted),) if planted else ()
    found = bare_box(planting=planting)
    found = replace(found, tank=replace(found.tank, bed=bed, bed_front_cm=3.0, bed_back_cm=5.0))
    assert as_text(by_key(found)["siphon"].words, {}).startswith(said)
    opens = verdict_of(sheet_of(found, shipped()), "bed_open")
    assert ("no bed that could go foul" in opens.reason.text) == (bed == "none")
