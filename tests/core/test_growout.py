"""Broods, young, a steady week and the days of a venture, against numbers worked outside the code."""

import math
from dataclasses import replace

import numpy as np
import pytest

from loquen.core import growout
from loquen.core.errors import NamedCase, OutOfRange
from loquen.core.growout.broods import age_at_length_d, fry_per_day, mean_present, survivors_frac
from loquen.core.growout.dated import Brood, Spends, Way, broods_from, by_day, growing_spans, raising_spans, run
from loquen.core.growout.lines import effective_number, lost_frac
from loquen.core.growout.week import sold_of, tanks_for
from loquen.core.growout.young import Growth, days_between, held

# Every number marked so is worked apart from the product: by hand, or by plain quadrature of the relations in steps of a
# thousandth of a day.
WEEK = {
    "females": 4,
    "males": 2,
    "brood_size": 25,
    "interval_d": 45,
    "fertile_frac": 0.8,
    "temp_c": 25,
    "shape": "fusiform",
    "growth": {"adult_length_cm": 11, "growth_per_year": 1.3, "start_length_cm": 1},
    "brood_length_cm": 10,
    "stages": [(30, 0.85), (150, 0.9)],
    "classes": [
        {
            "name": "males",
            "share": 0.5,
            "length_cm": 7,
            "colour_age_d": 240,
            "price": 6,
            "sells_frac": 0.8,
            "buyers_per_week": 3,
            "wait_d": 14,
            "unsold_price": 1,
        },
        {"name": "females", "share": 0.5, "length_cm": 6, "price": 3, "sells_frac": 0.5},
    ],
    "tank_l": 100,
    "stock_g_per_l": 1,
    "breeding_tanks": 1,
    "broodstock_price": 8,
    "broodstock_life_wk": 104,
    "settle_d": 30,
    "start": "2026-03-02",
    "tap_c": 10,
    "price_kwh": 0.3,
    "water_price_m3": 4,
    "money_per_h": 12,
    "minutes_per_sale": 1.5,
    "minutes_per_tank_wk": 8,
    "tank_kwh_wk": 2,
    "nitrate_limit_mg_l": 40,
    "nitrate_source_mg_l": 10,
    "protein_frac": 0.42,
    "feed_price_kg": 25,
    "commission_frac": 0.1,
}


def week(**more):
    return growout.growout_week(**{**WEEK, **more})


def test_small_relations_come_to_the_given_values():
    assert fry_per_day(4, 25, 45, 0.8) == pytest.approx(1.778, abs=5e-4)
    assert age_at_length_d(7, 11, 1.3, 1) == pytest.approx(257.4, abs=0.05)
    assert survivors_frac(60, [(30, 0.85), (150, 0.9)]) == pytest.approx(0.8323, abs=5e-5)
    assert mean_present(2, 90, 0.7) == pytest.approx(151.4, abs=0.05)


def test_what_a_relation_can_not_say_is_named():
    with pytest.raises(NamedCase, match="never_so_long"):
        age_at_length_d(11, 11, 1.3, 1)
    with pytest.raises(OutOfRange):
        survivors_frac(10, [(30, 1.2)])
    with pytest.raises(NamedCase, match="no_female"):
        week(females=0)
    with pytest.raises(NamedCase, match="source_at_limit"):
        week(nitrate_source_mg_l=40)
    with pytest.raises(OutOfRange):
        week(stages=[(30, 1.01)])
    assert age_at_length_d(0.5, 11, 1.3, 1) == 0
    # Nobody dies after the last stage; none lives past one that none lives through.
    assert survivors_frac(1000, [(30, 0.5)]) == 0.5
    assert mean_present(2, 90, 1) == 180
    assert mean_present(2, 90, 0) == 0


def test_a_steady_week_comes_to_what_was_worked_by_hand():
    found = week()
    assert found.fry_per_day == pytest.approx(1.77778, abs=1e-5)
    assert found.sale_age_d == {
        "males": pytest.approx(271.442, abs=1e-3),
        "females": pytest.approx(194.748, abs=1e-3),
    }
    # Sums by day against a quadrature: 0.01 %.
    assert found.present == pytest.approx(336.569, rel=1e-4)
    assert found.biomass_g == pytest.approx(434.843, rel=1e-4)
    assert found.feed_g_d == pytest.approx(21.2225, rel=1e-4)
    assert found.nitrogen_mg_d == pytest.approx(821.464, rel=1e-4)
    assert (found.grow_tanks, found.tanks) == (5, 6)
    assert found.water_l_wk == pytest.approx(848.506, rel=1e-4)
    assert found.kwh_wk == pytest.approx(26.7994, rel=1e-4)
    assert found.minutes_wk == pytest.approx(56.07, abs=1e-6)
    assert found.sold["males"] == {
        "raised_per_week": pytest.approx(4.76),
        "sold_per_week": 3,
        "unsold_per_week": pytest.approx(1.76),
    }
    assert found.sold["females"]["sold_per_week"] == pytest.approx(2.38)
    assert found.revenue_wk == pytest.approx(26.9)
    expected = {
        "feed": 3.71394,
        "water": 3.39402,
        "heat": 8.03981,
        "labour": 11.214,
        "broodstock": 0.461538,
        "other": 2.514,
    }
    assert found.cost_wk == {name: pytest.approx(value, rel=1e-4) for name, value in expected.items()}
    assert found.cost_total_wk == pytest.approx(29.3373, rel=1e-4)
    assert found.margin_wk == pytest.approx(-2.4373, abs=1e-3)
    assert found.margin_per_tank_wk == pytest.approx(-0.40622, abs=2e-4)
    # 30 d to settle and 194.7 d to grow, rounded up, from 2 March.
    assert found.first_sale == "2026-10-13"


def test_the_least_change_decides_where_nitrate_asks_for_less():
    found = week(nitrate_limit_mg_l=400, least_change_frac_wk=0.5)
    # Half of six hundred litres.
    assert found.water_l_wk == pytest.approx(300)
    assert week(tap_c=30).kwh_wk == pytest.approx(12)


def test_tanks_are_counted_by_weight_and_by_broods_kept_apart():
    assert tanks_for(434.8, 100, 1, 0, None) == 5
    assert tanks_for(500.0, 100, 1, 0, None) == 5
    # Four females, a brood in 45 days, 0.8 of them: 0.0711 a day, each 90 days apart is 6.4 tanks.
    assert tanks_for(10.0, 100, 1, 4 * 0.8 / 45, 90) == 7
    assert tanks_for(0.0, 100, 1, 0, None) == 1
    assert week(broods_apart_d=90).grow_tanks == 7


def test_sold_are_those_that_find_a_buyer_and_no_more_than_there_are():
    assert sold_of(10, 0.5, None) == 5
    assert sold_of(10, 0.5, 3) == 3
    assert sold_of(10, 0.5, 8) == 5


def test_a_class_that_nobody_buys_is_no_first_sale():
    classes = [{**WEEK["classes"][0], "sells_frac": 0}, WEEK["classes"][1]]
    assert week(classes=classes).first_sale == "2026-10-13"
    nobody = [{**row, "sells_frac": 0} for row in WEEK["classes"]]
    assert week(classes=nobody).first_sale is None
    # All unsold males at 1: 4.76 a week.
    assert week(classes=nobody).revenue_wk == pytest.approx(4.76)


def test_a_range_moves_all_that_is_uncertain_together():
    ranges = {
        "low": {"price_factor": 0.8, "sells_factor": 0.5, "survival_factor": 0.9, "money_per_h": 20},
        "high": {"price_factor": 1.2, "sells_factor": 2, "survival_factor": 1.2, "money_per_h": 5},
    }
    found = growout.growout_range(ranges=ranges, **WEEK)
    assert found.likely == week().margin_per_tank_wk
    classes = WEEK["classes"]
    low = [{**row, "price": row["price"] * 0.8, "sells_frac": row["sells_frac"] / 2} for row in classes]
    assert found.low == week(classes=low, stages=[(30, 0.765), (150, 0.81)], money_per_h=20).margin_per_tank_wk
    # Shares stay at one at most.
    high = [{**row, "price": row["price"] * 1.2, "sells_frac": 1.0} for row in classes]
    assert found.high == week(classes=high, stages=[(30, 1.0), (150, 1.0)], money_per_h=5).margin_per_tank_wk
    assert found.low < found.likely < found.high


def test_days_between_two_ages_are_whole_but_for_the_last():
    middles, widths = days_between(2, 4.25)
    assert middles.tolist() == pytest.approx([2.5, 3.5, 4.125])
    assert widths.tolist() == pytest.approx([1, 1, 0.25])
    assert len(days_between(4, 4)[0]) == 0


def test_young_held_sum_to_what_littles_law_says():
    grows = Growth(11, 1.3, 1)
    found = held(0, 90, [(90, 0.7)], grows, lambda length: length)
    assert found.present == pytest.approx(mean_present(1, 90, 0.7), rel=1e-4)
    # Nobody is lost and all weigh 2 g: 10 days are 20 g, and 2^0.75 a day eaten.
    plain = held(5, 15, [(90, 1.0)], grows, lambda length: np.full_like(length, 2.0))
    assert (plain.present, plain.mass_g) == (pytest.approx(10), pytest.approx(20))
    assert plain.eaten_g == pytest.approx(10 * 2**0.75)


# Days of a venture.
GROWS = Growth(6.0, 2.0, 0.8)
NOTHING = Spends(0, 0, 0, 0, 0, 0, 0, 0, 0)
STAGES = ((30.0, 0.8), (120.0, 0.9))


def gram(length):
    return np.ones_like(length)


def dated(broods, ways, moved_d=20.0, apart_d=20.0, tank_g=50.0, spends=NOTHING, days=1826, before=0.0):
    return run(tuple(broods), tuple(ways), STAGES, GROWS, gram, moved_d, apart_d, before, tank_g, 1, spends, days)


@pytest.mark.parametrize(
    ("gap", "young", "ways"),
    [
        (7.0, 30.0, [Way(120, 60, 0.5, 0.4, 1, 0), Way(90, 0, 0.5, 0, 1, 0)]),
        (45.0, 20.0, [Way(150, 30, 1.0, 0.1, 1, 0)]),
        (11.25, 25.0, [Way(200.3, 90, 0.3, 1.0, 1, 0), Way(77.7, 10, 0.7, 0.5, 1, 0)]),
    ],
)
def test_five_years_day_by_day_agree_with_littles_law_within_two_percent(gap, young, ways):
    found = dated(broods_from(0.0, 1 / gap, young), ways)

    def until(age):
        first = min(age, 30)
        total = mean_present(1, first, 0.8 ** (first / 30))
        if age > 30:
            second = min(age - 30, 120)
            total += mean_present(0.8, second, 0.9 ** (second / 120))
        if age > 150:
            total += 0.72 * (age - 150)
        return total

    expected = (
        young
        / gap
        * sum(
            way.part
            * ((1 - way.unsold_part) * until(way.leaves_d) + way.unsold_part * until(way.leaves_d + way.kept_d))
            for way in ways
        )
    )
    assert found.mean_young == pytest.approx(expected, rel=0.02)
    assert found.raising[730:].mean() == pytest.approx(20 / gap, rel=0.02)


def test_broods_come_at_even_distances_and_are_shared_between_two_days():
    broods = broods_from(3.0, 0.5, 10.0, 10)
    assert [brood.day for brood in broods] == [3, 5, 7, 9]
    assert broods_from(3.0, 0, 10.0) == ()
    assert by_day([Brood(2.25, 8.0)], 5).tolist() == [0, 0, 6, 2, 0]
    # What comes after the end is not there.
    assert by_day([Brood(9.0, 8.0)], 5).sum() == 0


def test_each_brood_has_the_first_raising_tank_that_is_free():
    spans = raising_spans([Brood(0, 1), Brood(5, 1), Brood(12, 1)], 10, 0, 100)
    assert [(span.tank, span.from_d, span.to_d) for span in spans] == [
        ("Raising 1", 0, 10),
        ("Raising 2", 5, 15),
        ("Raising 1", 12, 22),
    ]
    # A female that is held three days before takes the tank as long before.
    assert raising_spans([Brood(5, 1)], 10, 3, 100)[0].from_d == 2
    assert raising_spans([Brood(0, 1)], 0, 0, 100) == []


def test_a_grow_out_tank_is_in_use_while_the_fish_need_it():
    spans = growing_spans(np.array([0, 1, 2, 2, 1, 0, 1]))
    assert [(span.tank, span.from_d, span.to_d) for span in spans] == [
        ("Grow-out 1", 1, 5),
        ("Grow-out 1", 6, 7),
        ("Grow-out 2", 2, 4),
    ]


def test_tanks_and_money_follow_one_brood_through_its_life():
    # A hundred young on day 0: 72 live past day 150 and weigh a gram each; they are moved on day 20 and sold on day 150
    # for 2 each, but a quarter: those stay 50 days more and bring 0.5.
    spends = Spends(10, 1, 0, 2, 0, 0, 0, 0, 0)
    found = dated([Brood(0, 100)], [Way(150, 50, 1.0, 0.25, 2.0, 0.5)], spends=spends, days=260)
    assert found.raising[:22].tolist() == [1] * 20 + [0] * 2
    # 100 × 0.8^(25.5/30) = 82.7 g on day 25: two tanks of 50 g; 18 g of unsold fish are one.
    assert found.growing[[10, 25, 149, 160, 205]].tolist() == [0, 2, 2, 1, 0]
    assert found.growing_g[160] == pytest.approx(18)
    assert found.peak_tanks == 3
    assert found.sold.sum() == pytest.approx(54)
    earned = 54 * 2 + 18 * 0.5
    young_tanks = found.raising.sum() + found.growing.sum()
    assert found.cash[-1] == pytest.approx(-10 + earned - 260 - 2 * young_tanks)
    assert found.lowest_cash == found.cash.min() < -10


def test_hours_are_paid_in_the_one_line_and_not_in_the_other():
    spends = Spends(0, 0, 1.5, 0, 0.5, 0, 0.25, 0, 0)
    found = dated([Brood(0, 100)], [Way(100, 0, 1.0, 0.0, 0.0, 0.0)], spends=spends, days=120)
    assert found.cash[-1] == 0
    tanks = found.raising.sum() + found.growing.sum()
    assert found.cash_worked[-1] == pytest.approx(-(1.5 * 120 + 0.5 * tanks + 0.25 * found.sold.sum()))


def test_food_is_of_young_and_colony():
    spends = Spends(0, 0, 0, 0, 0, 0.01, 0, 3.0, 0.05)
    found = dated([Brood(0, 100)], [Way(10, 0, 1.0, 0.0, 0.0, 0.0)], spends=spends, days=20)
    # 100 × 0.05 g × Σ over ten days of 0.8^(age/30) and 3 g a day of the colony's.
    alive = sum(0.8 ** ((day + 0.5) / 30) for day in range(10))
    assert found.cash[-1] == pytest.approx(-0.01 * (100 * 0.05 * alive + 60))


def test_effective_number_and_what_a_line_loses():
    assert effective_number(1, 3) == 3
    assert effective_number(5, 5) == 10
    assert effective_number(0, 5) == 0
    # Wright: 1 − (1 − 1/20)^5.
    assert lost_frac([10] * 5) == pytest.approx(1 - 0.95**5)
    assert lost_frac([]) == 0
    assert lost_frac([2, 8]) == pytest.approx(1 - 0.75 * 0.9375)


def test_the_last_day_of_a_stage_is_the_first_of_the_next():
    stages = [(30, 0.5), (60, 0.25)]
    assert survivors_frac(30, stages) == 0.5
    assert survivors_frac(60, stages) == pytest.approx(0.5 * 0.25**0.5)
    assert survivors_frac(90, stages) == pytest.approx(0.125)
    assert math.isclose(replace(GROWS).length_cm(np.array([0.0]))[0], 0.8)
