"""A cycle and its log: the readings win, zero is zero, a rescue is told day by day, a soil by its first reading."""

from dataclasses import replace
from datetime import timedelta

import numpy as np
import pytest

from loquen.core.events.kinds.water import Read
from loquen.core.events.ledger import Logged
from loquen.core.events.readings import LEAST_TOLD_MG_L, ReadAt, is_zero
from loquen.core.library.whole import shipped
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.running import RunIn
from loquen.core.model.parts.tank import Planting
from loquen.core.physics.nitrogen import AMMONIA_PER_N
from loquen.core.system.book import sheet_of
from loquen.core.system.cycle.answer import is_it_done, settled_at
from loquen.core.system.cycle.forecast import forecast
from loquen.core.timeline.nitrogen import Inputs, simulate
from loquen.core.timeline.tending.keeper import Happening, tend
from loquen.demo import sluice_street, stories
from tests.core.plans import NOW, plan, words
from tests.core.test_ahead import cycling, made, read

IN_IT = RunIn("set_up", age_weeks=1)
PLAIN_LOAD = Inputs(mode="with_animals", load_mg_l_d_n=0.2)


def on_day(begun_d, day, what, value):
    """A reading on a day of a cycle that began so many days ago."""
    return Logged(NOW - timedelta(days=begun_d - day), Read(what, value, f"{what}_drops"))


def at(found, what, day):
    """A band's low, middle and high on a day."""
    band = next(row for row in found.bands if row.what == what)
    place = int(np.argmin(np.abs(np.array(found.hours) - day)))
    return band.low[place], band.middle[place], band.high[place]


def meets(found, mark):
    low, _, high = at(found, mark.what, mark.day)
    return low <= (mark.high if mark.high is not None else np.inf) and high >= mark.low


# Bands and bars -----------------------------------------------------------------------------------


def test_the_demos_own_cycle_goes_through_its_bars():
    of = sluice_street.bottle_shelf_new(NOW)
    found = forecast(sheet_of(of, shipped(), 0.0), list(stories.soil_cycle(of, NOW, shipped())), NOW)
    assert len(found.readings) == 12
    assert all(meets(found, mark) for mark in found.readings)
    assert not found.asks


@pytest.mark.parametrize("gives", [1.5, 3.0, 12.0])
def test_the_readings_of_another_bag_of_soil_are_followed(gives):
    begun_d = 24
    run = simulate(mode="active_soil", soil_ammonia_mg_l_n=gives, kh_dkh=2, run_days=begun_d, temp_c=25)
    rows = [
        on_day(begun_d, day, "ammonia", f"{float(run.hours['ammonia'][24 * day]) * AMMONIA_PER_N:.2f}")
        for day in (4, 8, 12, 16, 20)
    ]
    rows = [replace(row, event=replace(row.event, kit="ammonia_meter")) for row in rows]
    found = forecast(sheet_of(cycling("soil", begun_d, animals=()), shipped(), 0.0), rows, NOW)
    for mark in found.readings:
        low, _, high = at(found, "ammonia", mark.day)
        assert 0.7 * low <= mark.low <= 1.3 * high
    assert "By its readings this soil gives" in words(found.soil)


def test_readings_of_a_month_after_a_seeded_start_fit_with_a_richer_soil():
    """3 to 4 mg/L on day 30 of a soil tank with media from a running filter: not impossible, a rich bag."""
    days = {10: "4", 16: "4", 22: "4", 30: "between 3 and 4"}
    rows = [on_day(31, day, "ammonia", value) for day, value in days.items()]
    seeded = cycling("soil", 31, animals=(), cycle={"seeded_by": "plants"})
    found = forecast(sheet_of(seeded, shipped(), 0.0), rows, NOW)
    assert sum(meets(found, mark) for mark in found.readings) >= 3
    assert not [ask for ask in found.asks if "does not fit anything" in words(ask)]


def test_where_most_readings_are_beside_it_the_story_is_asked_about_and_no_single_reading():
    rows = [on_day(20, day, "nitrite", "5") for day in (1, 2, 3)] + [on_day(20, 4, "ammonia", "8")]
    found = forecast(sheet_of(cycling("empty", 20), shipped(), 0.0), rows, NOW)
    assert len(found.asks) == 1
    assert "do not fit this story" in words(found.asks[0])


def test_soil_asks_for_the_one_reading_that_tells_of_its_bag():
    found = forecast(sheet_of(cycling("soil", 1, animals=()), shipped(), 0.0), [], NOW)
    assert "read it on day 5" in words(found.soil)
    assert forecast(sheet_of(cycling("empty", 1), shipped(), 0.0), [], NOW).soil is None


# Zero is zero -------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("what", "value", "kit", "zero"),
    [
        ("ammonia", "0", "ammonia_drops", True),
        ("ammonia", "0.25", "ammonia_drops", False),
        ("nitrite", "0.25", "nitrite_drops", False),
        ("nitrite", "0", "nitrite_fine", True),
        ("nitrite", "0.05", "nitrite_fine", False),
        ("nitrite", "between 0 and 0.25", "nitrite_drops", False),
        ("ammonia", "0.02", "ammonia_meter", True),
        ("ammonia", "0.2", "ammonia_meter", False),
        ("ammonia", "under 5", "ammonia_drops", False),
    ],
)
def test_zero_is_what_a_kit_can_not_tell_from_nothing(what, value, kit, zero):
    assert is_zero(Read(what, value, kit), shipped()) is zero


@pytest.mark.parametrize("trace", ["0.25", "0.5"])
def test_a_trace_is_not_clear_however_long(trace):
    rows = [
        read(what, trace if what == "nitrite" else "0", day)
        for day in range(30, -1, -1)
        for what in ("ammonia", "nitrite")
    ]
    rows = [replace(row, at=row.at - timedelta(minutes=30)) for row in rows]
    found = is_it_done(made("animals", 60), rows, NOW, odds=0.99, library=shipped())
    assert found.answer == "no"
    assert "still nitrite" in words(found.sentence)


def test_what_a_loaded_filter_settles_at_is_clear_and_says_so():
    """0.2 mg/L a day on media for four times as much: it settles over what a kit tells from nothing, under the limit."""
    loaded = made("animals", 60, animals=(Group("zebra_danio", 40),), run_in=IN_IT)
    levels = settled_at(loaded).levels
    assert levels
    assert all(
        level <= limit for level, limit in ((levels.get("ammonia", 0), 0.25), (levels.get("nitrite", 0), 0.1))
    )
    found = is_it_done(loaded, [read("ammonia", "0"), read("nitrite", "0")], NOW, odds=0.99, library=shipped())
    assert "settles at" in words(found.rule)
    assert "{" not in words(found.rule)
    what, level = max(levels.items(), key=lambda row: row[1])
    trace = [
        replace(read(one, f"{level * 1.1:.3f}"), event=Read(one, f"{level * 1.1:.3f}", f"{one}_n_meter"))
        for one in levels
    ]
    assert settled_at(loaded).clear(what, ReadAt(NOW, trace[0].event), shipped()) or levels[what] < LEAST_TOLD_MG_L
    assert not settled_at(loaded).clear(
        what, ReadAt(NOW, Read(what, f"{3 * level:.3f}", f"{what}_n_meter")), shipped()
    )


def test_days_are_counted_from_the_first_zero_after_the_last_trace():
    def answer(days_of_zero):
        rows = [read("nitrite", "0.25", days_of_zero + 1)]
        rows += [
            read(what, "0", day + 0.02) for day in range(days_of_zero, -1, -1) for what in ("ammonia", "nitrite")
        ]
        return is_it_done(made("animals", 60), rows, NOW, odds=0.99, library=shipped()).answer

    assert answer(4) == "not known"
    assert answer(7) == "yes"


# Rescue -------------------------------------------------------------------------------------------


def rescue(rows=(), **more):
    crowded = cycling(
        "animals",
        9,
        animals=(Group("zebra_danio", 40),),
        run_in=IN_IT,
        cycle={"camp": "rescue", "detoxifier_ml_100l": 5.0, **more},
    )
    return forecast(sheet_of(crowded, shipped(), 0.0), rows, NOW)


def test_a_rescue_gives_its_detoxifier_and_its_changes_day_by_day():
    found = rescue([read("ammonia", "2"), read("nitrite", "1")])
    told = " ".join(words(line) for line in found.care.lines)
    # 5 mL for 100 L, 250 L of water.
    assert "12.5 mL of detoxifier" in told
    assert "go on showing the ammonia that it holds bound" in told
    assert found.care.share > 0
    detox = [line for line in found.calendar if line.kind == "detoxify"]
    assert {line.amount for line in detox} == {12.5}
    assert [line.day for line in detox] == list(range(detox[0].day, detox[-1].day + 1))
    assert any(line.kind == "change" for line in found.calendar)
    assert any("stop the detoxifier on that day" in words(line.words) for line in found.calendar)


def test_it_says_stop_on_the_day_that_both_read_zero_and_asks_for_the_label():
    found = rescue([read("ammonia", "0"), read("nitrite", "0")])
    assert any("stop the detoxifier today" in words(line) for line in found.care.lines)
    unknown = rescue([read("ammonia", "2"), read("nitrite", "1")], detoxifier_ml_100l=None)
    assert any("as its label says" in words(line) for line in unknown.care.lines)
    assert all(line.amount is None for line in unknown.calendar if line.kind == "detoxify")


def test_the_usual_school_is_exposed_no_more_than_changes_alone():
    ways = {camp.key: camp for camp in rescue().camps}
    assert next(iter(ways)) == "rescue"
    assert ways["rescue"].over_nitrite == ways["changes"].over_nitrite
    assert ways["rescue"].least_over
    assert not ways["changes"].least_over


# Plants, hardness and lime ------------------------------------------------------------------------


def test_plants_go_in_fast_ones_first_and_mosses_last():
    planted = cycling(
        "soil",
        2,
        animals=(),
        planting=(Planting("java_moss", 0.1), Planting("hornwort", 0.1), Planting("amazon_frogbit", 0.1)),
    )
    lines = [words(line.words) for line in forecast(sheet_of(planted, shipped(), 0.0), [], NOW).calendar]
    first = next(
        text for text in lines if "first, from the start" in text or "as soon as ammonia has fallen" in text
    )
    last = next(text for text in lines if "Java moss" in text)
    assert "Hornwort" in first
    assert lines.index(first) <= lines.index(last)
    assert "Java moss" not in first


def test_lime_in_the_tank_holds_the_hardness_of_a_cycle():
    soft = {"kh_dkh": 4, "temp_c": 26}
    bare, limed = simulate(**soft), simulate(**soft, lime_per_d=0.2, lime_ceiling_dkh=6)
    # Without new KH it stalls on day 27, by the reference runs of the nitrogen simulation.
    assert bare.day_done is None
    assert limed.day_done == pytest.approx(29, abs=1.5)
    assert limed.kh_lowest_dkh > bare.kh_lowest_dkh
    # More of it never leaves less; water over its ceiling takes none and gives none back.
    lowest = [
        simulate(**soft, lime_per_d=rate, lime_ceiling_dkh=6).kh_lowest_dkh for rate in (0.02, 0.05, 0.1, 0.3)
    ]
    assert lowest == sorted(lowest)
    assert simulate(kh_dkh=8, lime_per_d=0.5, lime_ceiling_dkh=3, run_days=5).kh_end_dkh <= 8


def test_an_empty_cycle_that_runs_out_of_hardness_is_cured_by_its_own_calendar():
    found = forecast(
        sheet_of(cycling("empty", 0, animals=(), water=replace(plan().water, source_kh_dkh=2.0)), shipped()),
        [],
        NOW,
    )
    assert found.not_done_frac < 0.1
    assert any("Carbonate hardness runs out about day" in words(line) for line in found.stalls)
    # Three degrees in 250 L of water that brings two: 3 x 29.96 x 0.25 g, where half a change would not lift it.
    assert any("22.5 g of sodium bicarbonate" in words(line) for line in found.stalls)
    assert [line.amount for line in found.calendar if line.kind == "buffer"] == [pytest.approx(22.47, rel=1e-3)]


def test_young_ones_grow_while_their_tank_is_cycled():
    young = (Group("oscar", 2, size_by="length", length_cm=5),)
    cycle = made("animals", 1, animals=young, run_in=IN_IT)
    assert [one.hour for one in cycle.growing] == [24 * (day + 1) for day in range(10, 90, 10)]
    assert all(one.load_times > 1 for one in cycle.growing)
    assert not made("animals", 1, animals=(Group("oscar", 2),), run_in=IN_IT).growing
    # Ten days at twice the load leave as much as ten of a keeper who doubles the food on that day.
    asked, doubled = PLAIN_LOAD, Happening(24 * 10, load_times=2.0)
    told = Happening(24 * 10, load_mg_l_d_n=2 * asked.load_mg_l_d_n)
    ends = [tend(asked.state(), asked.around(), asked.keeper(), 20, [one]).end.ammonia for one in (doubled, told)]
    assert ends[0] == pytest.approx(ends[1], rel=1e-9)
