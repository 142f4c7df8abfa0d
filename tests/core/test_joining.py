"""Joining: who goes in when and how many at once, sizes by three schools, the day's list."""

import itertools
from dataclasses import replace
from datetime import date

import pytest

from loquen.core.joining.batches import batches, ready_in_d, to_join, with_number
from loquen.core.joining.sizes import windows
from loquen.core.joining.the_day import list_of_the_day
from loquen.core.library.whole import shipped
from loquen.core.model.inputs.quantity import as_text
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.running import Filter, RunIn
from loquen.core.model.roots.plan import Plan
from loquen.core.system.book import sheet_of
from loquen.demo.sluice_street import long_hall, tidal_corner

DAY = date(2026, 11, 26)
BIG = Filter("canister", "sponge_20", 20.0, None, 2500.0)


def tank(*groups, age_weeks=200.0):
    plan = Plan(name="Tank", animals=groups, filters=(BIG,), run_in=RunIn("set_up", age_weeks=age_weeks))
    return replace(plan, tank=replace(plan.tank, tank_length_cm=180, tank_width_cm=60, tank_height_cm=60))


def told(rows):
    return [[(row.count, row.kind.key) for row in batch.joins] for batch in rows]


def test_the_peaceful_and_the_small_come_before_those_who_hold_ground():
    plan = tank(Group("zebra_mbuna", 1), Group("boeseman_rainbowfish", 6), Group("neon_tetra", 12))
    assert [row.kind.key for row in to_join(plan, {}, shipped())] == [
        "neon_tetra",
        "boeseman_rainbowfish",
        "zebra_mbuna",
    ]
    rows = batches(plan, {}, DAY, shipped())
    assert told(rows) == [[(12, "neon_tetra")], [(6, "boeseman_rainbowfish")], [(1, "zebra_mbuna")]]
    # An old filter carries them: two weeks from one to the next.
    assert [row.day for row in rows] == [date(2026, 11, 26), date(2026, 12, 10), date(2026, 12, 24)]
    assert as_text(rows[0].why, {}) == "Before those who hold ground: the filter carries them today."


def test_those_who_live_there_are_not_awaited():
    plan = tank(Group("boeseman_rainbowfish", 6), Group("neon_tetra", 12))
    assert told(batches(plan, {"neon_tetra": 5, "boeseman_rainbowfish": 6}, DAY, shipped())) == [
        [(7, "neon_tetra")]
    ]
    assert batches(plan, {"neon_tetra": 12, "boeseman_rainbowfish": 9}, DAY, shipped()) == []


def test_a_crowd_goes_in_at_once():
    crowd = [kind.key for kind in shipped().species.values() if kind.crowd][:2]
    rows = batches(tank(*(Group(key, 10) for key in crowd), Group("neon_tetra", 6)), {}, DAY, shipped())
    assert sorted(len(batch.joins) for batch in rows) == [1, 2]
    assert as_text(rows[-1].why, {}).startswith("All at once, so that nobody holds the whole ground")


def test_a_young_filter_sets_the_day_by_its_own_growth():
    plan = replace(long_hall(), run_in=RunIn("set_up", age_weeks=2.0))
    rows = batches(plan, {}, DAY, shipped())
    alone = replace(plan, animals=plan.animals[:1])
    days = sheet_of(alone, shipped(), 0.0).value("mature_in_d")
    assert ready_in_d(plan, {0: plan.animals[0].number}, shipped()) == pytest.approx(days)
    assert (rows[0].day - DAY).days == -(-days // 1)
    assert "carries them in 15 days" in as_text(rows[0].why, {})
    assert all((after.day - before.day).days >= 14 for before, after in itertools.pairwise(rows))


def test_half_a_group_goes_first_where_that_spares_waiting():
    # Young media: a load of twenty needs them half grown, of ten a week less.
    plan = tank(Group("boeseman_rainbowfish", 40, size_by="length", length_cm=8), age_weeks=3.0)
    plan = replace(plan, filters=(replace(BIG, media_l=8.0),))
    whole, half = ready_in_d(plan, {0: 40}, shipped()), ready_in_d(plan, {0: 20}, shipped())
    assert whole is not None
    assert half is not None
    assert half < whole
    assert told(batches(plan, {}, DAY, shipped())) == [
        [(20, "boeseman_rainbowfish")],
        [(20, "boeseman_rainbowfish")],
    ]


def test_a_group_that_waits_for_the_one_before_anyway_goes_in_whole():
    # The filter carries all forty on day 16, the first half of them on day 7; after the tetras they come on day 21 at the soonest.
    plan = tank(
        Group("ember_tetra", 8), Group("boeseman_rainbowfish", 40, size_by="length", length_cm=8), age_weeks=3.0
    )
    plan = replace(plan, filters=(replace(BIG, media_l=8.0),))
    tetras, half, whole = (ready_in_d(plan, {0: 8, 1: count}, shipped()) for count in (0, 20, 40))
    assert half < 14 < whole < tetras + 14
    assert told(batches(plan, {}, DAY, shipped())) == [[(8, "ember_tetra")], [(40, "boeseman_rainbowfish")]]


def test_what_the_filter_never_carries_is_said():
    plan = replace(tank(Group("boeseman_rainbowfish", 60)), filters=(replace(BIG, media_l=0.1),))
    [row, *_] = batches(plan, {}, DAY, shipped())
    assert row.ready_d is None
    assert "the filter never carries them" in as_text(row.why, {})


def test_holders_of_ground_alone_are_not_called_late():
    rows = batches(tidal_corner(), {}, DAY, shipped())
    assert as_text(rows[0].why, {}).startswith("All of them together, for they hold their ground")
    assert as_text(rows[1].why, {}).startswith("Late, for they hold their ground")


def test_a_part_of_a_group_has_its_share_of_males_and_of_weighed_food():
    half = with_number(Group("zebra_mbuna", 12, males=4, weighed_g_d=3.0), 6)
    assert (half.number, half.males, half.weighed_g_d) == (6, 2, 1.5)
    assert with_number(Group("zebra_mbuna", 12), 6).males is None


# Sizes --------------------------------------------------------------------------------------------


def by_school(newcomer, *residents):
    found = windows(shipped().species[newcomer], [(shipped().species[key], length) for key, length in residents])
    return {row.school: row for row in found}


def test_three_schools_beside_a_fish_of_ten_centimetres():
    rows = by_school("yellow_lab" if "yellow_lab" in shipped().species else "discus", ("zebra_mbuna", 10.0))
    assert rows["alike"].low_cm == pytest.approx(8.5)
    assert rows["alike"].high_cm == pytest.approx(11.5)
    assert (rows["larger"].low_cm, rows["larger"].high_cm) == (pytest.approx(12.5), None)
    assert rows["smaller"].high_cm == pytest.approx(4.0)
    assert 0 < rows["smaller"].low_cm < 4.0


def test_what_would_be_food_or_never_grows_so_large_is_no_way():
    rows = by_school("neon_tetra", ("zebra_mbuna", 10.0))
    assert not rows["alike"].possible
    assert "grow to 3.5 cm only" in as_text(rows["alike"].words, {})
    # A slender fish under the gape of 30 % is swallowed: 3 to 4 cm is what is left.
    assert rows["smaller"].low_cm == pytest.approx(shipped().species["zebra_mbuna"].gape_frac * 10)
    hunter = next(kind for kind in shipped().species.values() if kind.temper == "hunter" and kind.gape_frac >= 0.4)
    swallowed = by_school("boeseman_rainbowfish", (hunter.key, 20.0))["smaller"]
    assert not swallowed.possible
    assert "food to" in as_text(swallowed.words, {}) or "grow to" in as_text(swallowed.words, {})


def test_a_deep_body_is_swallowed_at_less_length():
    slender, disc = (by_school(key, ("zebra_mbuna", 10.0))["smaller"].low_cm for key in ("neon_tetra", "discus"))
    assert disc == pytest.approx(slender * 0.6)
    assert disc < slender


def test_nobody_who_holds_ground_sets_no_size():
    assert windows(shipped().species["discus"], [(shipped().species["neon_tetra"], 3.5)]) == []


# The day ------------------------------------------------------------------------------------------


def lines(joins, residents, spare=()):
    return [
        as_text(row, {}) for row in list_of_the_day(joins, [shipped().species[key] for key in residents], spare)
    ]


def test_the_days_list_by_who_lives_there():
    [batch] = batches(tank(Group("neon_tetra", 10)), {}, DAY, shipped())
    quiet = lines(batch.joins, [])
    assert quiet[0].startswith("No empty tub suits")
    assert len(quiet) == 2
    held = lines(batch.joins, ["zebra_mbuna"], ["Tub 2"])
    assert held[0] == "A place for one that is hunted: Tub 2 is empty, and its water suits."
    assert held[1].startswith("Set the rocks and wood anew before they go in: Zebra mbuna")
    assert held[2].startswith("Feed those who live there")
    assert held[-1].startswith("Watch for an hour")
    assert "Look at dawn" in lines(batch.joins, ["boeseman_rainbowfish"])[-1]
    [fierce] = batches(tank(Group("zebra_mbuna", 3)), {}, DAY, shipped())
    assert any("raised together" in line for line in lines(fierce.joins, []))
