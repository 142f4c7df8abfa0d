"""What moves a figure, how sure it is, and what it would take."""

import pytest

from loquen.core.errors import UnknownKey
from loquen.core.graph import asking
from loquen.core.library.whole import shipped
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.heat import Heat
from loquen.core.model.parts.running import Changes, Filter
from loquen.core.model.parts.tank import Tank
from loquen.core.model.parts.water import Water
from loquen.core.model.roots.plan import Plan
from loquen.core.system.book import sheet_of
from loquen.core.system.planner import first_plan
from tests.core.plans import plan

HEAVY = {"animals": (Group("boeseman_rainbowfish", 14),)}


def test_answers_bring_the_figure_to_the_target():
    sheet = sheet_of(plan(**HEAVY), shipped())
    target = sheet.value("peak_nitrate_mg_l") * 0.7
    found = asking.answers(
        sheet, "peak_nitrate_mg_l", target, [row.path for row in asking.movers(sheet, "peak_nitrate_mg_l")]
    )
    assert any(answer.needed is not None for answer in found)
    for answer in found:
        if answer.needed is not None:
            reached = sheet.changed({answer.path: answer.needed}).value("peak_nitrate_mg_l")
            assert reached <= target
            assert reached > 0.85 * target or isinstance(answer.needed, int)


def test_an_answer_by_hand():
    # peak = source + rise x 7 / share: for a peak of source + rise x 10 the share is 0.7.
    sheet = sheet_of(plan(), shipped())
    target = 1.0 + sheet.value("rise_nitrate_mg_l_d") * 10
    (answer,) = asking.answers(sheet, "peak_nitrate_mg_l", target, ["changes.change_frac"])
    assert answer.needed == pytest.approx(0.70, abs=0.011)
    assert answer.present == 0.5


def test_what_no_value_can_do_is_said():
    sheet = sheet_of(plan(), shipped())
    (answer,) = asking.answers(sheet, "peak_nitrate_mg_l", 0.5, ["changes.change_frac"])
    assert answer.needed is None


def test_words_can_not_be_solved_for():
    with pytest.raises(UnknownKey):
        asking.answers(sheet_of(plan(), shipped()), "peak_nitrate_mg_l", 5, ["tank.bed"])


def test_movers_are_ordered_and_right():
    sheet = sheet_of(plan(), shipped())
    found = asking.movers(sheet, "peak_nitrate_mg_l")
    sizes = [abs(mover.change) for mover in found]
    assert sizes == sorted(sizes, reverse=True)
    share = next(mover for mover in found if mover.path == "changes.change_frac")
    rise = sheet.value("rise_nitrate_mg_l_d") * 7
    assert share.change == pytest.approx(rise / 0.55 - rise / 0.5)


def test_the_range_follows_from_what_is_uncertain():
    sheet = sheet_of(plan(), shipped())
    low, high = asking.spread(sheet, "feed_full_g_d")
    likely = sheet.value("feed_full_g_d")
    assert (low, high) == pytest.approx((0.6 * likely, 1.4 * likely))
    assert asking.spread(sheet, "real_volume_l") is None


SHORT = {
    "turnover_fits": {"filters": (Filter(rated_lph=300),)},
    "media_carry": {**HEAVY, "filters": (Filter(media_l=0.05, rated_lph=1500),), "water": Water(tank_ph=8.4)},
    "nitrate_held": {"animals": (Group("boeseman_rainbowfish", 30),)},
    "litres_enough": {"animals": (Group("boeseman_rainbowfish", 30),)},
    "heaters_hold": {"heat": Heat(fitted_heaters=2, fitted_w=20, room_cold_c=8)},
    "stuck_heater_borne": {"heat": Heat(fitted_heaters=2, fitted_w=300)},
    "none_leaves": {"heat": Heat(lid="open")},
    "pane_holds": {"tank": Tank(tank_length_cm=100, tank_height_cm=60, pane_mm=6)},
}


@pytest.mark.parametrize("key", SHORT)
def test_every_remedy_mends_its_check(key):
    sheet = sheet_of(plan(**SHORT[key]), shipped())
    assert sheet.value(key).state == "short"
    found = asking.remedies(sheet, key)
    assert found
    for remedy in found:
        assert sheet.changed(remedy.changes).value(key).state in ("holds", "tight")


def test_the_least_regime_as_a_remedy_holds():
    sheet = sheet_of(
        plan(animals=(Group("boeseman_rainbowfish", 20),), changes=Changes(change_frac=0.1, weekdays=("Sat",))),
        shipped(),
    )
    remedy = sheet.value("least_regime_remedy")
    assert sheet.changed(remedy.changes).value("nitrate_held").state != "short"


def test_a_start_from_animals_has_room_for_them():
    started = first_plan.from_animals("x", (Group("discus", 6),), shipped())
    sheet = sheet_of(started, shipped())
    for key in (*first_plan.SPACE_CHECKS, "water_suits", "turnover_fits", "media_carry"):
        assert sheet.value(key).state != "short", key


def test_a_start_from_glass_keeps_the_glass():
    tank = Tank(tank_length_cm=77)
    started = first_plan.from_tank("x", tank, shipped())
    assert started.tank == tank
    assert sheet_of(started, shipped()).value("turnover_per_h") >= 4


def test_animals_no_sold_tank_can_hold_are_a_named_case():
    with pytest.raises(first_plan.NamedCase) as caught:
        first_plan.from_animals("x", (Group("yellow_bellied_slider", 1), Group("frontosa", 60)), shipped())
    assert caught.value.code == "no_stock_tank"


def test_an_empty_start_is_a_plan():
    assert first_plan.suited_to(Plan(name="x"), shipped()).animals == ()
