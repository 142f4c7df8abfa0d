"""Whole ventures: what a breeder would be told of each, figures worked by hand, every check both ways."""

import re
from dataclasses import replace
from datetime import date

import pytest

from loquen.core.data.tables import constants, sources
from loquen.core.errors import NamedCase
from loquen.core.graph.asking import number, remedies
from loquen.core.growout.births import Born, Seen, lines_kept, seen_of
from loquen.core.growout.book import (
    STAGES,
    Placing,
    at_ends,
    calibration,
    colony_of,
    placing,
    sheet_of,
    venture_book,
)
from loquen.core.growout.compare import SHOW, compared, left_as_it_is, one_ways, row_of, swings
from loquen.core.growout.dated import Brood
from loquen.core.growout.first import first_venture
from loquen.core.growout.fullest import fullest
from loquen.core.growout.homes import OF_YOUNG, Housed, home_of, housed, unfit
from loquen.core.library.whole import shipped
from loquen.core.model.inputs.quantity import as_text, kinds
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.running import Changes
from loquen.core.model.parts.water import Water
from loquen.core.model.records.register import Resident
from loquen.core.model.roots.venture import VENTURE, Broods, Colony, Costs, Doubts, Raising, Sale, Stand, Venture
from loquen.core.model.roots.venture_conflicts import conflicts
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.register.lives import life_of
from loquen.core.system.told import sentence_of
from tests.core.lives import happened
from tests.core.ventures import home, state, tank, told, venture

NODES = venture_book().nodes.values()
TAKES_THEM = Housed("holds", (), 0.5, 40.0, 50.0, 1.0)


def plain(given=None, seen=Seen(), today="", **more):
    """A venture in a tank of round numbers."""
    return sheet_of(given or venture(), shipped(), Placing(home(**more), None, TAKES_THEM, TAKES_THEM), seen, today)


@pytest.mark.parametrize("node", [node for node in NODES if node.formula], ids=lambda node: node.name)
def test_a_figure_shows_all_it_is_made_of(node):
    named = set(re.findall(r"\{(\w+)\}", node.formula))
    assert named <= set(node.parameters)
    # What decides about a case without a number of its own need not stand in the formula.
    assert set(node.parameters) - named <= {"purpose", "sold_per_wk"}
    assert node.source in sources()
    assert node.kind in kinds()


def test_every_stage_has_its_result_and_its_checks():
    assert all(f"{stage}_result" in venture_book().nodes for stage in STAGES)
    assert {node.check.stage for node in NODES if node.check} == set(STAGES)


# Figures of the plain venture: six females, two males of platies; the library has 30 young at 5 cm, 30 days, born at
# 0.8 cm, K 1.5 and 5 cm adult; broods 0.8 fertile, 0.05 culled. Worked with a hand calculator.
PLATY = shipped().species["platy"]
K = PLATY.growth_per_year


@pytest.mark.parametrize(
    ("figure", "expected"),
    [
        ("breeders", 8),
        ("wanted_grown", 9),
        ("reckoned_per_day", 6 * 30 * (PLATY.adult_length_cm / 5) ** 3 * 0.8 / 30),
        ("brood_interval_d", 30),
        ("batches_per_day", 6 * 0.8 / 30),
        ("by_rule_cm", PLATY.adult_length_cm * PLATY.length_ratio),
        ("effective_count", 6.0),
        ("effective_low_count", 1.8),
        ("lost_least_frac", 1 / 12),
        ("lost_most_frac", 1 / 3.6),
        ("reared_all_frac", 0.72),
        ("colony_money", None),
        # 50 of 100 L a week: between a tenth and twice, by the logarithm, 0.75 to 1.1.
        ("pace_frac", 0.75 + 0.35 * 0.6990 / 1.3010),
        ("tank_water_l_wk", 50),
        ("unplaced_frac", 0),
        ("sales.0.way_frac", 0.5),
        ("sales.0.brings_money", 4),
        ("colony_feed_g_d", 1.0),
        # A gram at 25 °C fed to grow: 0.030 × 1.8.
        ("one_gram_g_d", 0.054),
        ("renewed_money", 9 * 15 / 104),
    ],
)
def test_figures_come_to_what_was_worked_by_hand(figure, expected):
    found = number(plain(), figure)
    if expected is None:
        # Young at 4 each, as many as the odds ask for.
        assert found == 4 * number(plain(), "young_to_buy")
    else:
        assert found == pytest.approx(expected, rel=1e-3)


def test_a_weeks_money_adds_up_by_hand():
    sheet = plain()
    tanks = number(sheet, "tanks_needed")
    assert tanks == 1 + number(sheet, "raising_tanks") + number(sheet, "growing_tanks")
    # 50 L at 4 per 1000, 7 kWh at 0.30, (5.25 + 10) min at 6 an hour, each tank.
    assert number(sheet, "poured_money") == pytest.approx(0.2 * tanks)
    assert number(sheet, "power_money") == pytest.approx(2.1 * tanks)
    packed = 1.5 * number(sheet, "all_sold_per_wk")
    assert number(sheet, "work_money") == pytest.approx((15.25 * tanks + packed) / 60 * 6)
    feed = number(sheet, "young_feed_g_d") + 1.0
    assert number(sheet, "fed_money") == pytest.approx(feed * 7 / 1000 * 30)
    # Of those that are raised eight tenths live thirty days, nine tenths of them 120 more.
    alive = 0.8 * 0.9 ** ((number(sheet, "sales.0.gone_d") - 30) / 120)
    kept = number(sheet, "kept_per_day") * 7 * 0.5 * alive
    assert number(sheet, "sales.0.sold_money") == pytest.approx(kept * 0.9 * 4)
    spent = sum(
        number(sheet, name)
        for name in ("fed_money", "poured_money", "power_money", "work_money", "renewed_money", "kept_back_money")
    )
    assert number(sheet, "margin_money") == pytest.approx(number(sheet, "earned_money") - spent)
    assert number(sheet, "tank_margin_money") == pytest.approx(number(sheet, "margin_money") / tanks)
    hours = number(sheet, "worked_h")
    assert number(sheet, "hour_margin_money") == pytest.approx(number(sheet, "margin_money") / hours + 6)
    assert number(sheet, "unpaid_margin_money") == pytest.approx(
        (number(sheet, "margin_money") + 6 * hours) / tanks
    )


def test_at_break_even_prices_nothing_is_left():
    sheet = plain()
    part = number(sheet, "break_even_frac")
    there = sheet.changed({f"sales.{i}.price_money": price * part for i, price in enumerate((4.0, 2.0))})
    assert number(there, "margin_money") == pytest.approx(0, abs=1e-6)
    assert number(sheet, "break_even_money") == pytest.approx(4 * part)
    # Who sells them on keeps a fifth: prices have to be higher.
    kept = plain(venture(costs=Costs(hour_money=6, commission_frac=0.2)))
    part = number(kept, "break_even_frac")
    there = kept.changed({f"sales.{i}.price_money": price * part for i, price in enumerate((4.0, 2.0))})
    assert number(there, "margin_money") == pytest.approx(0, abs=1e-6)


def test_young_at_a_time_agree_with_littles_law_and_with_the_days():
    sheet = plain()
    assert number(sheet, "present") == pytest.approx(number(sheet, "little_present"), rel=1e-3)
    assert sheet.value("run").mean_young == pytest.approx(number(sheet, "present"), rel=0.02)
    assert sheet.value("run").growing[730:].mean() == pytest.approx(number(sheet, "growing_mean"), abs=1.0)


def test_a_batch_is_of_all_females_where_eggs_are_gathered_together():
    sheet = plain(venture(colony=Colony("zebra_danio", females=4, males=4)))
    assert number(sheet, "batches_per_day") == pytest.approx(1 / 7)
    assert number(plain(), "batches_per_day") == pytest.approx(0.16)


def test_no_more_is_raised_than_is_wanted():
    some = plain(venture(broods=Broods(taken_month=2, most_of_batch=10, culled_frac=0.1, move_cm=1.5)))
    assert number(some, "raised_of_batch") == pytest.approx(9)
    assert number(some, "taken_per_day") == pytest.approx(24 / 365.25)
    assert number(some, "kept_per_day") == pytest.approx(9 * 24 / 365.25)
    # More than come can not be taken.
    assert number(plain(venture(broods=Broods(taken_month=90, move_cm=1.5))), "taken_per_day") == pytest.approx(
        0.16
    )


def test_young_that_stay_with_their_parents_fill_no_raising_tank():
    assert number(plain(venture(broods=Broods(raised="parents", move_cm=1.5))), "raising_tanks") == 0
    moved = number(plain(), "moved_d")
    held = plain(venture(broods=Broods(raised="holding", holding_d=10, move_cm=1.5)))
    assert number(held, "apart_d") == pytest.approx(moved + 10)


def test_stripped_mouths_bring_more_young_and_only_mouths_are_stripped():
    mouths = venture(colony=Colony("saulosi", females=4, males=1))
    left, taken = plain(mouths), plain(replace(mouths, broods=Broods(stripped=True)))
    # A brood of 1.15 in 0.75 of the days.
    assert number(taken, "reckoned_per_day") == pytest.approx(number(left, "reckoned_per_day") * 1.15 / 0.75)
    assert number(plain(venture(broods=Broods(stripped=True, move_cm=1.5))), "reckoned_per_day") == pytest.approx(
        number(plain(), "reckoned_per_day")
    )


def test_the_unsold_stay_and_fill_tanks():
    sold = Sale("All", "any", "shop", 1.0, 3.0, 0.0, 2.0, 1.0)
    all_sold = plain(venture(sales=(sold,)))
    half = plain(venture(sales=(replace(sold, sells_frac=0.5, kept_d=365.0),)))
    assert number(half, "present") > number(all_sold, "present") * 1.5
    assert number(half, "sales.0.unsold_per_wk") == pytest.approx(number(half, "sales.0.sold_per_wk"))
    weeks = number(half, "full_tank") / number(half, "sales.0.unsold_per_wk")
    assert number(half, "sales.0.fills_weeks") == pytest.approx(weeks)
    assert number(all_sold, "sales.0.fills_weeks") is None


def test_buyers_bound_what_is_sold_and_who_arrives_badly_is_not_paid_for():
    row = Sale("All", "any", "direct", 1.0, 3.0, 0.0, 5.0, 1.0, 0.8, 2.0)
    sheet = plain(venture(sales=(row,)))
    assert number(sheet, "sales.0.sold_per_wk") == 2
    assert number(sheet, "sales.0.sold_money") == pytest.approx(8)


def test_an_own_tank_of_the_colony_costs_by_its_own_plan():
    given = venture(stand=Stand(1, 2, 1, 8))
    mine = sheet_of(
        given, shipped(), Placing(home(), home(system=2, change_l_wk=500, year_kwh=3652.5), TAKES_THEM, TAKES_THEM)
    )
    young = number(mine, "young_tanks")
    assert number(mine, "all_water_l_wk") == pytest.approx(500 + 50 * young)
    assert number(mine, "all_kwh") == pytest.approx(70 + 7 * young)
    # In a show tank that is kept anyway it costs nothing more.
    free = replace(given, stand=Stand(1, 2, 0, 8))
    assert (
        number(sheet_of(free, shipped(), Placing(home(), home(system=2), TAKES_THEM, TAKES_THEM)), "all_water_l_wk")
        == 50 * young
    )


def test_growth_follows_the_tanks_own_change():
    fast, slow = plain(change_l_wk=200), plain(change_l_wk=10)
    assert (number(fast, "pace_frac"), number(slow, "pace_frac")) == (pytest.approx(1.1), pytest.approx(0.75))
    assert number(fast, "sales.0.ready_d") < number(slow, "sales.0.ready_d")
    # Colour comes with age and not with length.
    late = venture(sales=(replace(venture().sales[0], colour_d=900.0),))
    assert number(plain(late, change_l_wk=200), "sales.0.ready_d") == 900


def test_growth_goes_by_what_is_really_exchanged():
    # A quarter twice a week. Flowing through, each exchanges 1 − e^(−0.25 × 0.9) = 0.2015 of it.
    place = home()
    assert place.drained_part_wk == place.exchanged_part_wk == 0.5
    assert place.through_part_wk == pytest.approx(0.4030, abs=1e-4)
    flowing = home(regime="pulses", swapped_frac=0.2015)
    assert flowing.exchanged_part_wk == pytest.approx(0.4030)
    drained, through = plain(), plain(regime="pulses", swapped_frac=0.2015)
    assert number(through, "pace_frac") < number(drained, "pace_frac")
    assert through.value("raised_in").headline.text == "flows through"
    assert drained.value("raised_in").headline.text == "drained and filled"
    assert drained.value("raised_in").reason.terms["through"].value == pytest.approx(0.4030, abs=1e-4)


def test_a_flowing_plan_exchanges_less_than_it_pours():
    pulses = Changes(regime="pulses", pulses_d=1, change_frac=0.3, target_nitrate_mg_l=40 / NITRATE_PER_N)
    place = home_of(1, tank(changes=pulses), shipped())
    assert place.exchanged_part_wk == pytest.approx(place.through_part_wk)
    assert place.exchanged_part_wk < place.drained_part_wk
    assert home_of(1, tank(), shipped()).exchanged_part_wk == pytest.approx(
        home_of(1, tank(), shipped()).drained_part_wk
    )


# Every check, and a venture in which it says something else.
PAIRED = {"colony": Colony("discus", females=1, males=1)}
REFUSED = Housed("short", (sentence_of(plain(), "colony_result"),), 1.4, 40.0, 50.0, 1.0)
FALLING = {
    "sexes_fit": [
        ({}, {}, "holds"),
        ({"colony": Colony("platy", females=5, males=2)}, {}, "short"),
        ({"colony": Colony("platy", females=11, males=4)}, {}, "tight"),
        ({"colony": Colony("platy", females=3, males=0)}, {}, "short"),
    ],
    "females_enough": [({}, {}, "holds"), ({"colony": Colony("platy", females=2, males=1)}, {}, "tight")],
    "male_spared": [
        ({}, {}, "holds"),
        ({"colony": Colony("platy", females=3, males=1, spare_male=False)}, {}, "tight"),
    ],
    "long_enough": [({}, {}, "holds"), ({}, {"length_cm": 20.0}, "short"), (PAIRED, {"length_cm": 75.0}, "tight"),
                    (PAIRED, {"length_cm": 60.0}, "short")],
    "catchable": [({}, {}, "holds"), ({}, {"rock_kg": 40.0}, "tight"), ({}, {"wood_l": 9.0}, "tight")],
    "line_broad": [
        ({"colony": Colony("platy", females=40, males=20)}, {}, "holds"),
        ({}, {}, "tight"),
        ({"colony": Colony("platy", "line", females=3, males=1)}, {}, "short"),
    ],
    "young_safe": [({}, {}, "holds"), ({"broods": Broods(raised="parents", move_cm=1.5)}, {}, "tight")],
    "tanks_enough": [
        ({"stand": Stand(1, all_tanks=100)}, {}, "holds"),
        ({"stand": Stand(1, all_tanks=2)}, {}, "short"),
    ],
    "peak_fits": [
        ({"stand": Stand(1, all_tanks=100)}, {}, "holds"),
        ({"stand": Stand(1, all_tanks=2)}, {}, "tight"),
    ],
    "all_placed": [({}, {}, "holds"), ({"sales": (venture().sales[0],)}, {}, "tight")],
    "demand_meets": [
        ({"sales": (Sale("All", sale_cm=3.0, sells_frac=0.95),)}, {}, "holds"),
        ({"sales": (Sale("All", sale_cm=3.0, sells_frac=0.5),)}, {}, "tight"),
    ],
    "worth_it": [
        ({"costs": Costs(hour_money=0.0), "sales": (Sale("All", sale_cm=3.0, price_money=20.0),)}, {}, "holds"),
        ({"costs": Costs(hour_money=40.0)}, {}, "tight"),
        ({"colony": Colony("platy", "line", females=6, males=2)}, {}, None),
    ],
    "prices_hold": [
        ({"costs": Costs(hour_money=0.0), "sales": (Sale("All", sale_cm=3.0, price_money=20.0),)}, {}, "holds"),
        ({"costs": Costs(hour_money=40.0)}, {}, "tight"),
        ({"sales": (Sale("All", sale_cm=3.0),)}, {}, "unknown"),
    ],
    "young_crowded": [({}, {}, "holds")],
    "raised_in": [({}, {}, "holds"), ({}, {"regime": "pulses"}, "holds")],
    "strip_schools": [({}, {}, None), ({"colony": Colony("saulosi", females=4, males=1)}, {}, "holds")],
}  # fmt: skip


@pytest.mark.parametrize(
    ("check", "changed", "at_home", "expected"),
    [(check, *case) for check, cases in FALLING.items() for case in cases],
)
def test_every_check_says_both(check, changed, at_home, expected):
    assert state(plain(venture(**changed), **at_home), check) == expected


HOUSED = {
    "colony_carried": [(replace(TAKES_THEM, balance_frac=1.4), "short"), (TAKES_THEM, "holds")],
    "tank_accepts": [(REFUSED, "short"), (replace(TAKES_THEM, state="tight"), "tight"), (TAKES_THEM, "holds")],
    "young_suited": [(REFUSED, "short"), (TAKES_THEM, "holds")],
}


@pytest.mark.parametrize(("check", "said", "expected"), [(c, *case) for c, rows in HOUSED.items() for case in rows])
def test_what_the_tanks_own_sheet_says_is_told(check, said, expected):
    sheet = sheet_of(venture(), shipped(), Placing(home(), None, said, said))
    assert state(sheet, check) == expected


def test_no_check_is_left_untried():
    checks = {node.name for node in NODES if node.check}
    assert checks == set(FALLING) | set(HOUSED) | {"births_told"}


def test_what_a_tank_refuses_is_reckoned_all_the_same():
    short = told(venture(colony=Colony("boeseman_rainbowfish", females=12, males=6)), tank(60, 30, 30))
    assert state(short, "long_enough") == "short"
    assert state(short, "colony_carried") == "short"
    assert number(short, "tank_margin_money") is not None


def test_without_a_tank_it_is_said_and_nothing_made_up():
    sheet = sheet_of(venture(), shipped())
    assert "Choose the tank" in as_text(sentence_of(sheet, "worth_result"), {})
    assert number(sheet, "young_per_day") is not None
    assert number(sheet, "tank_margin_money") is None


def test_a_kind_whose_broods_are_not_known_asks_for_them():
    sheet = plain(venture(colony=Colony("common_musk_turtle", females=1, males=1), sales=()))
    assert "not in the library" in as_text(sentence_of(sheet, "broods_result"), {})
    known = plain(
        venture(
            colony=Colony("common_musk_turtle", females=1, males=1),
            broods=Broods(brood_size=4, interval_d=180, raised="parents", move_cm=3),
            sales=(),
        )
    )
    assert number(known, "reckoned_per_day") == pytest.approx(4 * 0.8 / 180)


# Births of the register.
TODAY = date(2026, 9, 1)


def births(*days_and_young, species="platy", system=1, **more):
    return [
        life_of(
            Resident(species, line="Blue", generation=more.get("generation", 1)),
            [happened("birth", day, young, system, males=more.get("males"))],
        )
        for day, young in days_and_young
    ]


def test_births_are_counted_by_day_and_system():
    lives = births(("2026-06-01", 10), ("2026-06-01", 4), ("2026-07-01", 12), ("2026-08-01", 20))
    seen = seen_of([*lives, *births(("2026-07-09", 99), system=2)], "platy", 1, TODAY)
    assert seen.births == (("2026-06-01", 14), ("2026-07-01", 12), ("2026-08-01", 20))
    # From 1 June to 1 September 92 days, and half of the 61 days between the three.
    assert (seen.born.broods, seen.born.young, seen.born.days) == (3, 46, 92 + 30.5)
    assert seen_of(lives, "platy", 0, TODAY).born.young == 46
    assert seen_of(lives, "guppy", 1, TODAY) == Seen()
    assert seen_of(births(("2026-06-01", 10)), "platy", 1, TODAY).born.days == 0


def test_births_of_the_register_take_the_guesss_place_from_three_on():
    guess = number(plain(), "young_per_day")
    two, three = Seen(Born(2, 20, 100.0)), Seen(Born(3, 30, 100.0))
    assert number(plain(seen=two), "young_per_day") == guess
    assert number(plain(seen=three), "young_per_day") == pytest.approx(0.3)
    assert number(plain(seen=three), "batches_per_day") == pytest.approx(0.03)
    assert state(plain(seen=two), "births_told") == "tight"
    assert state(plain(seen=three), "births_told") == "holds"
    assert state(plain(), "births_told") is None


def test_more_births_make_the_range_narrower():
    few, many = calibration(Doubts(), Born(4, 40, 100.0)), calibration(Doubts(), Born(25, 250, 600.0))
    # Twice half of a brood's mean over the root of so many.
    assert (few["broods_part"].low, few["broods_part"].high) == (0.5, 1.5)
    assert (many["broods_part"].low, many["broods_part"].high) == (pytest.approx(0.8), pytest.approx(1.2))
    assert calibration(Doubts(), None)["broods_part"].low == constants()["broods_part"].low
    assert calibration(Doubts(price_low=0.5, work_low=2.0), None)["price_part"].low == 0.5
    assert calibration(Doubts(work_low=2.0), None)["work_part"].high == 2.0


def test_the_days_begin_with_the_broods_that_came():
    seen = Seen(Born(3, 30, 90.0), (("2026-04-01", 10), ("2026-05-01", 8), ("2026-06-01", 12)))
    sheet = plain(seen=seen, today="2026-06-10")
    broods = sheet.value("brood_days")
    # Set on 2 March: 30, 60 and 91 days later, a twentieth culled.
    assert [(brood.day, brood.young) for brood in broods[:3]] == [
        (30, 9.5),
        (60, pytest.approx(7.6)),
        (91, pytest.approx(11.4)),
    ]
    # A brood every 30 days from then on.
    assert broods[3] == Brood(121.0, pytest.approx(9.5))


def test_lines_of_the_register_have_their_effective_number_and_what_they_lost():
    founders = life_of(
        Resident("platy", sex="mixed", line="Blue"), [happened("arrival", "2025-01-01", 8, 1, males=2)]
    )
    young = births(("2026-06-01", 10), males=5)
    (line,) = lines_kept([founders, *young], "platy", 0.3)
    assert (line.line, line.alive, line.generation) == ("Blue", 18, 1)
    # Five and five of the latest; two males and six females before: 4·2·6/8 = 6.
    assert (line.effective, line.effective_low) == (10, 3)
    assert line.lost_least_frac == pytest.approx(1 / 12)
    assert line.lost_most_frac == pytest.approx(1 / 3.6)
    unknown = lines_kept(births(("2026-06-01", 10), generation=0), "platy", 0.3)[0]
    assert (unknown.effective, unknown.lost_least_frac) == (None, 0)


# Ranges, what moves them, ways, and kinds side by side.
def test_at_their_ends_all_doubts_are_moved_together():
    sheet = plain()
    low, high = at_ends(sheet, "tank_margin_money")
    assert low.known["constant.work_part"] == 1.6
    assert high.known["constant.work_part"] == 0.7
    assert (low.known["constant.price_part"], high.known["constant.price_part"]) == (0.8, 1.2)
    alone = swings(sheet)
    assert number(low, "tank_margin_money") <= min(row.low_money for row in alone)
    assert number(high, "tank_margin_money") >= max(row.high_money for row in alone)
    spans = [row.high_money - row.low_money for row in alone]
    assert spans == sorted(spans, reverse=True)


def test_a_price_of_a_range_of_its_own_moves_the_end():
    low, _ = at_ends(plain(venture(doubts=Doubts(price_low=0.1))), "tank_margin_money")
    assert low.known["constant.price_part"] == 0.1


def test_each_way_alone_is_compared_with_all_of_its_sex():
    rows = (
        Sale("Small", "any", "shop", 0.5, 2.5, 0.0, 1.0, 1.0),
        Sale("Large", "any", "shop", 0.5, 4.0, 0.0, 1.2, 1.0),
    )
    small, large = one_ways(plain(venture(sales=rows)))
    alone = plain(venture(sales=(replace(rows[0], part_frac=1.0),)))
    assert small.tank_margin_money == pytest.approx(number(alone, "tank_margin_money"))
    # A fifth more for twice the months.
    assert small.tank_margin_money > large.tank_margin_money


def test_a_tank_left_as_it_is_costs_what_its_sheet_says():
    row = left_as_it_is(home(), Costs(hour_money=6, feed_kg_money=30))
    # 7 kWh, 50 L, 7 g of food, and 15.25 minutes.
    assert row.likely_money == pytest.approx(-(2.1 + 0.2 + 0.21 + 1.525))
    assert row.unpaid_money == pytest.approx(-2.51)


def test_kinds_are_ordered_and_overlapping_ones_undecided():
    dear = (Sale("All", "any", "direct", 1.0, 3.0, 0.0, 6.0, 1.0),)
    several = {
        1: venture(name="Cheap"),
        2: venture(name="Dear", sales=dear),
        3: venture(name="As dear", sales=dear, costs=Costs(hour_money=6.1)),
        4: venture(name="Refused", colony=Colony("frontosa", females=3, males=1), sales=()),
    }
    rows = compared(several, 1, tank(), {}, {}, "2026-09-01", shipped())
    assert [row.name for row in rows][:2] == ["Dear", "As dear"]
    assert rows[-1].name == "Refused"
    assert rows[-1].against
    by_name = {row.name: row for row in rows}
    assert by_name["Dear"].undecided
    assert by_name["As dear"].undecided
    assert SHOW in {row.venture for row in rows}
    sure = Doubts(1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1)
    certain = {key: replace(one, doubts=sure) for key, one in several.items()}
    certain = {1: certain[1], 2: certain[2]}
    # Food and what is siphoned stay uncertain; that decides nothing here.
    assert not any(row.undecided for row in compared(certain, 1, tank(), {}, {}, "2026-09-01", shipped()))


# A first venture must itself hold.
@pytest.mark.parametrize("species", sorted(shipped().breeding))
def test_a_first_venture_fits_its_tanks(species):
    plan = tank(150, 50, 50, filters=("canister_2400",))
    first = first_venture(species, 1, "sale", plan, shipped())
    assert conflicts(first, shipped()) == []
    sheet = told(first, plan)
    assert state(sheet, "tanks_enough") == "holds"
    assert state(sheet, "sexes_fit") == "holds"
    assert state(sheet, "females_enough") == "holds"
    assert number(sheet, "tanks_peak") <= first.stand.all_tanks


def test_a_first_venture_without_known_broods_still_begins():
    first = first_venture("common_musk_turtle", 1, "line", tank(), shipped())
    assert first.colony.purpose == "line"
    assert conflicts(first, shipped()) == []


# Whole ventures of real keepers.
def soft_water_shrimps():
    plan = tank(
        45, 28, 30, 22.0, ("sponge_small",),
        water=Water(tank_ph=6.2, tank_gh_dgh=5, source_kh_dkh=0.5, source_nitrate_mg_l=2 / NITRATE_PER_N, source_c=20),
        changes=Changes(weekdays=("Sun",), change_frac=0.15, target_nitrate_mg_l=15 / NITRATE_PER_N),
    )  # fmt: skip
    return plan, Colony("crystal_shrimp", females=5, males=5)


def show_fish():
    plan = tank(
        100, 50, 50, 29.0, ("canister_2400",),
        water=Water(tank_ph=6.5, tank_gh_dgh=4, source_kh_dkh=2, source_nitrate_mg_l=5 / NITRATE_PER_N, source_c=24),
        changes=Changes(weekdays=("Mon", "Wed", "Fri", "Sun"), change_frac=0.5, target_nitrate_mg_l=20 / NITRATE_PER_N),
    )  # fmt: skip
    return plan, Colony("discus", females=1, males=1)


def crowded_cichlids():
    hard = Water(tank_ph=8, tank_gh_dgh=14, source_kh_dkh=8, source_nitrate_mg_l=10 / NITRATE_PER_N, source_c=20)
    plan = tank(
        100, 40, 45, 26.0, ("canister_2400",),
        water=hard,
        changes=Changes(weekdays=("Wed", "Sat"), change_frac=0.4, target_nitrate_mg_l=40 / NITRATE_PER_N),
    )  # fmt: skip
    return plan, Colony("saulosi", females=4, males=1)


@pytest.mark.parametrize(
    "keeper", [soft_water_shrimps, show_fish, crowded_cichlids], ids=lambda keeper: keeper.__name__
)
def test_a_sound_colony_is_taken(keeper):
    plan, colony = keeper()
    sheet = told(venture(colony=colony, sales=()), plan)
    for check in ("tank_accepts", "colony_carried", "young_suited"):
        assert state(sheet, check) in ("holds", "tight"), check


def test_shrimps_are_not_fed_up_for_breeding():
    colony = soft_water_shrimps()[1]
    assert colony_of(venture(colony=colony), shipped())[0].feed_by == "usual"
    assert colony_of(venture(), shipped())[0].feed_by == "normal"


def test_a_pair_is_asked_for_no_shoal_and_a_solitary_animal_for_no_mate():
    plan, pair = show_fish()
    assert state(told(venture(colony=pair, sales=()), plan), "tank_accepts") != "short"
    three = replace(pair, females=3, males=2)
    assert state(told(venture(colony=three, sales=()), plan), "tank_accepts") == "short"
    turtles = told(venture(colony=Colony("common_musk_turtle", females=2, males=1), sales=()), tank(120, 50, 50))
    assert "kept singly" in as_text(sentence_of_check(turtles, "tank_accepts"), {})


def sentence_of_check(sheet, check):
    return sheet.value(check).reason


def test_warm_fish_are_not_raised_in_a_cool_tank_though_the_colony_lives_warm():
    warm, cool = tank(180, 55, 55), tank(warm_c=19.0)
    given = venture(colony=Colony("boeseman_rainbowfish", females=4, males=2), stand=Stand(1, 2, 0, 8))
    sheet = sheet_of(given, shipped(), placing(given, cool, shipped(), warm))
    assert state(sheet, "tank_accepts") in ("holds", "tight")
    assert state(sheet, "young_suited") == "short"


def test_a_full_grow_out_tank_is_taken_by_its_own_sheet():
    plan = tank()
    first = first_venture("platy", 1, "sale", plan, shipped())
    sheet = told(first, plan)
    count = round(sheet.value("full_tank"))
    groups = fullest(sheet, count)
    assert sum(group.number for group in groups) == count
    assert housed(plan, groups, OF_YOUNG, shipped()).state in ("holds", "tight")
    # The sheet's own waste of them is what the venture reckons, to a few parts in a hundred.
    share = housed(plan, groups, OF_YOUNG, shipped()).balance_frac
    assert share == pytest.approx(sheet.value("by_balance") / sheet.value("growing_tanks"), rel=0.06)


def test_half_as_many_again_are_refused():
    plan = tank()
    sheet = told(first_venture("platy", 1, "sale", plan, shipped()), plan)
    full = sheet.value("full_tank") / (sheet.value("by_balance") / sheet.value("growing_tanks"))
    assert housed(plan, fullest(sheet, round(full * 1.5)), OF_YOUNG, shipped()).state == "short"


def test_a_tank_is_a_share_of_a_system_of_several():
    alone = home_of(1, tank(), shipped())
    plan = tank()
    two = replace(plan, tank=replace(plan.tank, tank_count=2))
    # The canister's own water is shared.
    assert home_of(1, two, shipped()).litres == pytest.approx(alone.litres, rel=0.02)
    assert home_of(1, two, shipped()).change_l_wk == pytest.approx(alone.change_l_wk, rel=0.02)
    # One filter for two tanks' litres; the changes are twice as many.
    assert home_of(1, two, shipped()).allowed_mg_d <= alone.allowed_mg_d * 1.001
    inhabited = replace(plan, animals=(Group("platy", 12),))
    assert home_of(1, inhabited, shipped()).eats_g_d > 0
    assert home_of(1, plan, shipped()).eats_g_d == 0


@pytest.mark.parametrize(
    ("more", "word"),
    [
        ({}, None),
        ({"water_c": 15.0}, "temperature"),
        ({"ph": 5.0}, "pH"),
        ({"gh_dgh": 1.0}, "hardness"),
        ({"salinity_ppt": 20.0}, "salinity"),
        ({"hottest_c": 33.0}, "hottest day"),
        ({"coldest_c": 12.0}, "coldest night"),
        ({"length_cm": 30.0}, "long"),
    ],
)
def test_why_a_kind_does_not_fit_a_tank(more, word):
    against = unfit(home(**more), PLATY)
    assert against is None if word is None else word in as_text(against, {})


def test_a_jumper_wants_a_lid_and_a_colony_elsewhere_no_length():
    sword = shipped().species["green_swordtail"]
    assert sword.jumper
    assert "lid" in as_text(unfit(home(keeps_in="none", length_cm=200), sword), {})
    assert (
        unfit(home(keeps_in="none"), shipped().species["neon_tetra"]) is None
        or not shipped().species["neon_tetra"].jumper
    )
    assert "long" in as_text(unfit(home(length_cm=30), PLATY), {})
    assert unfit(home(length_cm=30), PLATY, colony_too=False) is None


# What contradicts itself.
@pytest.mark.parametrize(
    ("changed", "code", "path", "nearest"),
    [
        ({"colony": Colony("platy", females=0)}, "no_female", "colony.females", 1),
        ({"broods": Broods(move_cm=9)}, "beyond_adult", "broods.move_cm", round(0.98 * PLATY.adult_length_cm, 1)),
        (
            {"sales": (Sale(sale_cm=12.0),)},
            "beyond_adult",
            "sales.0.sale_cm",
            round(0.98 * PLATY.adult_length_cm, 1),
        ),
        ({"sales": (Sale(price_money=3.0),)}, "price_without_size", "sales.0.sale_cm", None),
        ({"sales": (Sale(),)}, "sale_without_size", "sales.0.sale_cm", None),
        (
            {"sales": (Sale(sale_cm=3.0), Sale(sex="male", part_frac=0.4, sale_cm=3.0))},
            "sold_twice",
            "sales.1.part_frac",
            0.0,
        ),
        ({"stand": Stand(1, colony_tanks=5, all_tanks=3)}, "fewer_tanks_than_colony", "stand.all_tanks", 5),
    ],
)
def test_what_can_not_be_true_is_named_where_it_is_typed(changed, code, path, nearest):
    (found,) = conflicts(venture(**changed), shipped())
    assert (found.code, found.path, found.nearest) == (code, path, nearest)


def test_a_sound_venture_contradicts_nothing():
    assert conflicts(venture(), shipped()) == []
    males_and_all = (Sale(sex="female", sale_cm=3.0), Sale(sex="male", part_frac=0.4, sale_cm=3.0))
    assert conflicts(venture(sales=males_and_all), shipped()) == []
    rows = tuple(Sale(part_frac=0.0, sale_cm=3.0) for _ in range(13))
    assert [found.code for found in conflicts(venture(sales=rows), shipped())] == ["too_many_rows"]


def test_sections_of_a_venture_are_its_own():
    assert set(VENTURE.sections) == {"colony", "stand", "broods", "raising", "sales", "costs", "doubts"}
    assert isinstance(VENTURE.root("Name", Colony("platy")), Venture)


def test_a_tank_short_of_room_is_mended_by_raising_fewer():
    sheet = plain(venture(stand=Stand(1, all_tanks=3)))
    ways = [remedy.changes for remedy in remedies(sheet, "tanks_enough")]
    assert any("stand.all_tanks" in change for change in ways)
    for change in ways:
        assert state(sheet.changed(change), "tanks_enough") == "holds"


def test_a_row_of_a_venture_says_when_it_first_sells():
    row = row_of(3, plain(today="2026-09-01"))
    days = plain().value("first_sale_d")
    assert row.first_sale == date.fromordinal(date(2026, 3, 2).toordinal() + int(days)).isoformat()
    assert row.venture == 3


def test_without_a_price_it_is_asked_for():
    sheet = plain(venture(sales=(Sale("All", sale_cm=3.0),)))
    assert "No price is entered yet" in as_text(sentence_of(sheet, "worth_result"), {})


def test_a_line_is_told_by_what_it_costs():
    sheet = plain(venture(colony=Colony("platy", "line", females=6, males=2), sales=()))
    text = as_text(sentence_of(sheet, "worth_result"), {})
    assert "Keeping this line" in text
    assert number(sheet, "line_year_money") == pytest.approx(-number(sheet, "margin_money") * 365.25 / 7)
    with pytest.raises(NamedCase, match="not_needed"):
        plain().value("line_year_money")


def test_stages_of_life_that_are_entered_are_reckoned_with():
    harsh = plain(venture(raising=(Raising("All", 100.0, 0.1),)))
    assert number(harsh, "reared_all_frac") == pytest.approx(0.1)
    assert number(harsh, "all_raised_per_wk") < number(plain(), "all_raised_per_wk") / 3


def test_what_goes_each_day_is_what_goes_each_week():
    spends = plain().value("spends")
    # 7 kWh at 0.30 and 50 L at 4 per 1000; 15.25 minutes at 6 an hour; a colony of its own tank, and its renewal.
    assert spends.a_tank_day == pytest.approx((2.1 + 0.2) / 7)
    assert spends.a_tank_day_worked == pytest.approx(1.525 / 7)
    assert spends.a_day == pytest.approx((2.1 + 0.2 + 9 * 15 / 104) / 7)
    assert spends.a_day_worked == pytest.approx(1.525 / 7)
    assert spends.a_gram == pytest.approx(0.03)
    assert spends.a_sale_worked == pytest.approx(0.15)
    assert spends.at_first == number(plain(), "colony_money")
    assert (spends.feed_of_colony_g_d, spends.one_gram_g_d) == (1.0, pytest.approx(0.054))
    more = plain(venture(costs=Costs(hour_money=6.0, kwh_money=1.0, other_money=7.0, set_up_money=300.0)))
    assert more.value("spends").a_tank_day == pytest.approx((7 + 0.2) / 7)
    assert more.value("spends").a_day == pytest.approx((7.2 + 9 * 15 / 104 + 7) / 7)
    assert more.value("spends").at_first == number(more, "colony_money") + 300


def test_five_years_of_cash_come_to_the_steady_week():
    sheet = plain()
    run = sheet.value("run")
    # Once it is steady a year brings 52 weeks of what is left with hours unpaid, but for tanks that are half full.
    year = run.cash[-1] - run.cash[-366]
    weekly = number(sheet, "margin_money") + number(sheet, "work_money")
    assert year == pytest.approx(weekly * 365 / 7, rel=0.15)
    assert number(sheet, "laid_out_money") == pytest.approx(-run.cash.min())


def test_a_way_without_a_name_is_called_by_who_and_size():
    rows = (Sale(sex="any", part_frac=0.5, sale_cm=2.5), Sale(sex="any", part_frac=0.5, sale_cm=4.0))
    assert [way.name for way in one_ways(plain(venture(sales=rows)))] == ["any at 2.5 cm", "any at 4 cm"]
    assert row_of(1, plain(venture(sales=()))).best_way == ""
