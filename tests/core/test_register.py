"""Who lives where: counts replayed, what can not have been, growth measured, survival, and how many to buy."""

import itertools
from dataclasses import replace
from datetime import date, timedelta

import pytest
from scipy.stats import binom

from loquen.core.errors import NamedCase
from loquen.core.library.whole import shipped
from loquen.core.model.inputs.quantity import as_text
from loquen.core.model.parts.animals import Group
from loquen.core.model.records.register import RegisterFault, Resident
from loquen.core.register import buying, growth, homes
from loquen.core.register.lives import faults, life_of
from loquen.core.register.survival import survival
from loquen.core.system.book import sheet_of
from loquen.demo.sluice_street import long_hall, rope_walk_b, tidal_corner
from tests.core.lives import happened

TODAY = date(2026, 11, 26)
RAINBOW = Resident("boeseman_rainbowfish", source="the club")
KIND = shipped().species["boeseman_rainbowfish"]  # 10 cm, K 1.2 a year


def on(days_ago):
    return (TODAY - timedelta(days=days_ago)).isoformat()


def event(kind, days_ago, count=1, system=1, **more):
    return happened(kind, on(days_ago), count, system, **more)


def codes(resident, *happened, others=()):
    return [fault.code for fault in faults(resident, happened, TODAY, others)]


def test_counts_follow_what_happened_from_home_to_home():
    life = life_of(
        RAINBOW,
        [
            event("death", 60, 2),
            event("arrival", 100, 12, males=5),
            event("move", 50, 4, to=2),
            event("sale", 20, 1, system=2),
            event("birth", 10, 6, system=2),
        ],
    )
    assert (life.homes, life.came, life.died, life.sold) == ({1: 6, 2: 9}, 18, 2, 1)
    assert life.since == TODAY - timedelta(days=100)
    assert life.males is None  # the dead were not looked at


def test_males_are_known_while_every_step_says_them():
    happened = [event("arrival", 9, 6, males=2), event("death", 5, 1, males=1)]
    assert life_of(RAINBOW, happened).males == 1
    assert life_of(replace(RAINBOW, sex="male"), [event("arrival", 9, 6), event("death", 5, 2)]).males == 4
    assert life_of(replace(RAINBOW, sex="female"), [event("arrival", 9, 6)]).males == 0


@pytest.mark.parametrize(
    ("resident", "happened", "code"),
    [
        (RAINBOW, [event("arrival", 9, 6), event("sale", 5, 7)], "more_than_live"),
        (RAINBOW, [event("arrival", 9, 6), event("sale", 5, 1, system=2)], "more_than_live"),
        (RAINBOW, [event("arrival", 9, 6), event("sale", 12, 1)], "not_here_yet"),
        (RAINBOW, [event("death", 9, 1)], "not_here_yet"),
        (RAINBOW, [event("arrival", -1, 6)], "in_the_future"),
        (replace(RAINBOW, born=on(5)), [event("arrival", 9, 6)], "before_birth"),
        (RAINBOW, [event("arrival", 9, 0)], "nobody"),
        (RAINBOW, [event("arrival", 9, 6), event("move", 2, 1, to=1)], "moves_nowhere"),
        (RAINBOW, [event("arrival", 9, 6), event("measured", 2)], "how_long"),
        (RAINBOW, [event("arrival", 9, 6, males=7)], "more_males"),
        (replace(RAINBOW, name="Otto"), [event("arrival", 9, 2)], "one_of_a_name"),
    ],
)
def test_what_can_not_have_been(resident, happened, code):
    assert code in codes(resident, *happened)


def test_a_name_is_one_living_animals():
    otto, came = replace(RAINBOW, name="Otto"), event("arrival", 9)
    assert codes(otto, came, others=[(replace(RAINBOW, name=" otto "), 1)]) == ["same_name"]
    assert codes(otto, came, others=[(replace(RAINBOW, name="otto"), 0)]) == []


def test_a_move_that_is_taken_back_leaves_no_sale_without_animals():
    with pytest.raises(RegisterFault, match="more_than_live"):
        life_of(RAINBOW, [event("arrival", 9, 6), event("sale", 2, 1, system=2)])


def test_growth_goes_on_from_the_last_measurement_at_the_measured_pace():
    # L = 10 − 8·e^(−0.6·t): K 0.6 is half of its kind's. Over 200 days from 2 cm: 10 − 8·e^(−0.3285) = 4.2404.
    points = [
        event("arrival", 230, 6),
        event("measured", 230, length_cm=2.0),
        event("measured", 30, length_cm=4.2404),
    ]
    found = growth.grown(life_of(RAINBOW, points), KIND, TODAY)
    assert found.pace == pytest.approx(0.5, abs=0.002)
    # 30 days on: 10 − 5.7596·e^(−0.04928) = 4.5173; its kind, over all 230 days at 1.2: 10 − 8·e^(−0.7556) = 6.242.
    assert found.length_cm == pytest.approx(4.517, abs=0.002)
    assert found.expected_cm == pytest.approx(6.242, abs=0.002)


def test_growth_without_measurements_is_by_age_or_full():
    by_age = growth.grown(life_of(RAINBOW, [event("birth", 365, 6)]), KIND, TODAY)
    # 10 − 9·e^(−1.2 × 365/365.25) = 7.287
    assert (by_age.known_by, by_age.pace) == ("age", None)
    assert by_age.length_cm == pytest.approx(7.287, abs=0.002)
    assert growth.grown(life_of(RAINBOW, [event("arrival", 9, 6)]), KIND, TODAY).length_cm == 10.0


@pytest.mark.parametrize(
    ("first", "last", "days", "pace"),
    [(2.0, 4.0, 10, None), (2.0, 9.8, 200, None), (2.0, 2.01, 300, 0.25), (2.0, 9.4, 40, 3.0)],
)
def test_a_pace_from_too_little_or_beyond_belief(first, last, days, pace):
    assert growth.pace_of(KIND, [(TODAY - timedelta(days=days), first), (TODAY, last)]) == pace


def test_a_course_joins_what_was_measured_and_goes_a_year_on():
    life = life_of(RAINBOW, [event("birth", 200, 6), event("measured", 20, length_cm=4.0)])
    course = growth.growth_course(life, KIND, TODAY)
    assert course[0].these_cm == pytest.approx(1.0)
    assert course[-1].day == TODAY + timedelta(days=365)
    assert all(b.these_cm >= a.these_cm - 1e-9 for a, b in itertools.pairwise(course))
    assert growth.growth_course(life_of(RAINBOW, [event("arrival", 9, 6)]), KIND, TODAY) == []


def test_survival_counts_those_that_had_ninety_days_to_die():
    lives = [
        life_of(RAINBOW, [event("arrival", 200, 10), event("death", 190, 2), event("death", 50, 3)]),
        life_of(RAINBOW, [event("arrival", 30, 10), event("death", 20, 5)]),
        life_of(replace(RAINBOW, source=""), [event("arrival", 120, 4)]),
    ]
    found = {row.source: (row.came, row.died, row.frac) for row in survival(lives, TODAY)}
    assert found == {"the club": (10, 2, 0.8), "not written down": (4, 0, 1.0)}


@pytest.mark.parametrize(
    ("males", "females", "number", "p"), [(1, 2, 6, 0.5), (2, 3, 9, 0.4), (0, 1, 3, 0.5), (3, 3, 5, 0.5)]
)
def test_the_chance_of_both_is_the_binomial_sum(males, females, number, p):
    wanted = sum(binom.pmf(k, number, p) for k in range(males, number - females + 1))
    assert buying.chance_of_both(number, males, females, p) == pytest.approx(wanted, abs=1e-12)


@pytest.mark.parametrize(("males", "females", "number"), [(1, 3, 12), (2, 2, 9), (0, 2, 5), (4, 1, 20)])
def test_lost_ones_are_neither(males, females, number):
    # Over how many of them survive, the binomial sum of those.
    wanted = sum(
        binom.pmf(alive, number, 0.7) * buying.chance_of_both(alive, males, females, 0.4)
        for alive in range(males + females, number + 1)
    )
    assert buying.chance_grown(number, males, females, 0.4, 0.7) == pytest.approx(wanted, abs=1e-10)


def test_how_many_to_buy():
    # 1 − 2·0.5^n ≥ 0.95 first with n = 6; a fifth lost: each a male with 0.4, a female with 0.4.
    assert buying.to_buy(1, 1, 0.95) == 6
    lossy = buying.to_buy(1, 1, 0.95, survive_frac=0.8)
    assert 1 - 2 * 0.6**lossy + 0.2**lossy >= 0.95 > 1 - 2 * 0.6 ** (lossy - 1) + 0.2 ** (lossy - 1)
    found = buying.bought(1, 1, 0.95, 0.5, 1.0, 5.0, 2.0, 30.0)
    assert (found.number, found.young_money, found.grown_money, found.over) == (6, 42.0, 60.0, 4)
    with pytest.raises(NamedCase, match="never_both"):
        buying.to_buy(1, 1, 0.95, male_frac=1.0)


def lives_in(plan, extra):
    groups = tuple(replace(group) for group in plan.animals)
    return homes.as_it_lives(plan, (*groups, extra))


def test_a_system_as_it_lives_has_the_registers_numbers_and_the_plans_food():
    life = life_of(RAINBOW, [event("arrival", 200, 7), event("measured", 1, length_cm=6.0)])
    other = life_of(RAINBOW, [event("arrival", 100, 3), event("measured", 1, length_cm=6.04)])
    gone = life_of(RAINBOW, [event("arrival", 100, 3), event("sale", 10, 3)])
    [group] = homes.living_groups([life, other, gone], 1, TODAY, shipped())
    assert (group.number, group.size_by, group.length_cm) == (10, "length", 6.0)
    plan = replace(rope_walk_b(), animals=(replace(rope_walk_b().animals[0], feed_by="light", meals_d=3),))
    [row] = homes.as_it_lives(plan, (group,)).animals
    assert (row.number, row.length_cm, row.feed_by, row.meals_d) == (10, 6.0, "light", 3)


def test_more_than_was_planned_moves_the_verdict():
    planned = sheet_of(long_hall(), shipped())
    crowded = sheet_of(lives_in(long_hall(), Group("boeseman_rainbowfish", 60)), shipped())
    found = {row.check: (row.planned, row.lives) for row in homes.differs(planned, crowded)}
    assert found["litres_enough"] == ("holds", "short")
    assert homes.differs(planned, sheet_of(long_hall(), shipped())) == ()


def test_what_they_outgrow_has_a_date_and_grown_ones_outgrow_nothing():
    young = Group("boeseman_rainbowfish", 24, size_by="length", length_cm=2.0)
    found = homes.outgrows_on(sheet_of(homes.as_it_lives(rope_walk_b(), (young,)), shipped()), TODAY)
    assert "litres_enough" in {row.check for row in found}
    assert all(row.day > TODAY for row in found)
    assert homes.outgrows_on(sheet_of(tidal_corner(), shipped()), TODAY) == ()


def test_where_they_could_go_is_said_by_the_checks():
    group = Group("boeseman_rainbowfish", 2, size_by="length", length_cm=6.0)
    found = homes.places_for(group, {1: tidal_corner(), 2: long_hall()}, shipped())
    assert [(row.system_id, row.takes) for row in found] == [(2, True), (1, False)]
    assert "would fall short" in as_text(found[1].against, {})
