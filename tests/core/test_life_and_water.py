"""Oxygen, the carbonate reserve, the shock of a change, disinfectant, and animals that grow."""

import math
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from loquen.core.graph import asking
from loquen.core.graph.keys import Missing
from loquen.core.library.whole import shipped
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.heat import Air, Heat
from loquen.core.model.parts.running import Changes, Filter
from loquen.core.model.parts.tank import Tank
from loquen.core.model.parts.water import Source, Water
from loquen.core.model.roots.consistency import conflicts
from loquen.core.physics.gases import hours_to_oxygen_floor
from loquen.core.system.book import sheet_of
from loquen.core.system.filter.oxygen import at_better_end
from loquen.core.system.planner.ways_out import ways_out
from loquen.core.system.propose.growth import outgrown
from loquen.core.system.source.settled import hardness_dgh
from tests.core.plans import BARE_BOX, plan

YOUNG = (Group("boeseman_rainbowfish", 10, size_by="length", length_cm=3),)


# Oxygen -----------------------------------------------------------------------------------------


def test_oxygen_at_dawn_by_hand():
    sheet = sheet_of(plan(air=Air(surface_movement="ripple")), shipped())
    mass = 0.00389 * 4.5**3.12
    breath = 10 * 0.45 * mass**0.80
    load, feed = sheet.value("load_full_mg_d"), sheet.value("feed_full_g_d")
    used = breath + load * 4.57 / 24 + feed * 150 / 24
    assert sheet.value("night_oxygen_mg_h") == pytest.approx(used)
    # 0.5 m2 of rippled surface at 0.08 m/h exchange 40 L/h; 8.263 mg/L in balance at 25 C.
    assert sheet.value("dawn_oxygen_mg_l") == pytest.approx(8.263 - used / 40, abs=2e-3)


def test_bubbles_and_a_fall_bring_in_more():
    still = sheet_of(plan(air=Air(surface_movement="still")), shipped())
    bubbled = still.changed({"air.stones_lph": 120.0})
    # Two stones' worth of air at 30 cm: 50 L/h.
    gained = bubbled.value("whole_transfer_l_h") - still.value("whole_transfer_l_h")
    assert gained == pytest.approx(50)
    assert still.changed({"air.fall_cm": 10.0}).value("falling_transfer_l_h") > 0


def test_an_air_driven_filter_is_an_air_stone():
    row = Filter(filter_kind="sponge", media="sponge_30", media_l=1, rated_lph=300)
    # 150 L/h of air at 50 cm: 25 x 150/60 x 50/30.
    assert sheet_of(plan(filters=(row,)), shipped()).value("bubble_transfer_l_h") == pytest.approx(104.17, rel=1e-3)


def test_air_breathers_use_none_and_only_the_filter_must_breathe():
    sheet = sheet_of(plan(animals=(Group("common_musk_turtle", 1),)), shipped())
    assert sheet.value("animals.0.breathing_oxygen_mg_h") == 0
    assert sheet.value("floor_oxygen_mg_l") == 2


@pytest.mark.parametrize(("kind", "floor"), [("zebra_danio", 4), ("hillstream_loach", 6), ("axolotl", 6)])
def test_the_floor_follows_the_most_demanding(kind, floor):
    assert sheet_of(plan(animals=(Group(kind, 5),)), shipped()).value("floor_oxygen_mg_l") == floor


def test_a_crowd_under_a_still_surface_can_not_breathe_and_air_mends_it():
    crowd = plan(animals=(Group("goldfish_common", 8),), air=Air(surface_movement="still"))
    sheet = sheet_of(crowd, shipped())
    assert sheet.look("dawn_oxygen_mg_l").case.code == "can_not_breathe"
    remedy = next(r for r in asking.remedies(sheet, "dawn_breathes") if "air.stones_lph" in r.changes)
    assert sheet.changed(remedy.changes).value("dawn_breathes").state != "short"


def test_a_power_cut_lasts_as_long_as_the_oxygen():
    crowd = plan(animals=(Group("boeseman_rainbowfish", 20),), air=Air(surface_movement="strong"))
    hours = sheet_of(crowd, shipped()).value("outage_h")
    assert 0 < hours < 24
    # While there is more than 2 mg/L nobody breathes less: the closed form, with a fifth of the filter's use in the tank.
    sheet = sheet_of(crowd, shipped())
    used = sheet.value("animals.0.hot_breathing_oxygen_mg_h") + sheet.value("decay_oxygen_mg_h")
    used += sheet.value("plant_oxygen_mg_h") + 0.2 * sheet.value("nitrifying_oxygen_mg_h")
    litres, balance = sheet.value("real_volume_l"), sheet.value("hot_saturation_oxygen_mg_l")
    start, floor = sheet.value("hot_dawn_oxygen_mg_l"), sheet.value("floor_oxygen_mg_l")
    exchange = sheet.value("still_transfer_l_h") / litres
    closed = hours_to_oxygen_floor(start, used, litres, exchange, balance, floor)
    assert hours == pytest.approx(closed, rel=1e-3)
    few = sheet_of(plan(animals=(Group("zebra_danio", 6),)), shipped())
    assert few.look("outage_h").case.code == "floor_never_reached"


def test_the_range_of_oxygen_is_wide_and_holds_the_likely_value():
    sheet = sheet_of(
        plan(animals=(Group("boeseman_rainbowfish", 10),), air=Air(surface_movement="strong")), shipped()
    )
    low, high = asking.spread(sheet, "dawn_oxygen_mg_l")
    assert low < sheet.value("dawn_oxygen_mg_l") < high
    assert high - low > 0.3


# The carbonate reserve --------------------------------------------------------------------------


def test_ten_milligrams_of_nitrate_from_food_cost_less_than_half_a_degree():
    sheet = sheet_of(plan(), shipped())
    # 10 mg/L of nitrate are 2.259 mg/L of N and cost 0.45 dKH net when they come from food.
    per_n = sheet.value("used_dkh_d") / (sheet.value("load_full_mg_d") / 250)
    assert per_n * 10 / 4.4266 == pytest.approx(0.45, abs=0.005)


def test_the_reserve_before_a_change():
    sheet = sheet_of(plan(water=Water(source_kh_dkh=4)), shipped())
    assert sheet.value("settled_kh_dkh") == pytest.approx(4 - sheet.value("used_dkh_d") * 7 / 0.5)


def test_a_reserve_that_is_used_up_falls_short_and_hard_water_mends_it():
    heavy = plan(animals=(Group("boeseman_rainbowfish", 25),), water=Water(source_kh_dkh=1.2))
    sheet = sheet_of(heavy, shipped())
    assert sheet.value("reserve_lasts").state == "short"
    # The tap is what it is: carbonate is weighed in.
    ways = [way for way in ways_out(sheet, "reserve_lasts") if "recipe.target_kh_dkh" in way.changes]
    assert sheet.changed(ways[0].changes).value("settled_kh_dkh") >= 1
    assert not [
        path
        for way in ways_out(sheet, "reserve_lasts")
        for path in way.changes
        if path.startswith("water.source_kh")
    ]


def test_days_left_end_where_the_reserve_does():
    sheet = sheet_of(plan(animals=(Group("boeseman_rainbowfish", 20),), water=Water(source_kh_dkh=3)), shipped())
    after_change = 3 - sheet.value("used_dkh_d") * sheet.value("standing_trough_d")
    assert sheet.value("kh_lasts_d") * sheet.value("used_dkh_d") == pytest.approx(after_change)


def test_soft_water_kept_so_on_purpose_is_care_and_no_fault():
    soft = plan(animals=(Group("crystal_shrimp", 20),), water=Water(source_kh_dkh=0.5))
    assert sheet_of(soft, shipped()).value("reserve_lasts").state == "tight"
    # One among them that wants carbonate makes it a fault.
    mixed = replace(soft, animals=(Group("crystal_shrimp", 20), Group("cherry_shrimp", 5)))
    assert sheet_of(mixed, shipped()).value("reserve_lasts").state == "short"


# The shock of a change and disinfectant ---------------------------------------------------------


def test_steps_of_a_change_by_hand():
    water = Water(source_c=15, source_us_cm=300, tank_us_cm=400, source_kh_dkh=6)
    sheet = sheet_of(plan(water=water, heat=Heat(target_c=25)), shipped())
    assert sheet.value("step_k") == pytest.approx(5)
    assert sheet.value("step_solids_frac") == pytest.approx(0.5 * 100 / 400)
    assert sheet.value("no_shock").state == "short"


def test_softer_water_is_the_more_dangerous_way_for_the_delicate():
    def borne(tank):
        water = Water(source_us_cm=200, tank_us_cm=tank, source_kh_dkh=0.5)
        return sheet_of(plan(animals=(Group("crystal_shrimp", 20),), water=water), shipped()).value(
            "borne_solids_frac"
        )

    assert (borne(150.0), borne(250.0)) == (0.10, 0.05)


def test_topping_up_with_the_same_water_creeps():
    sheet = sheet_of(plan(heat=Heat(lid="open"), water=Water(source_us_cm=400)), shipped())
    evaporated, changed = sheet.value("evaporation_l_d"), sheet.value("change_l_wk") / 7
    assert sheet.value("settled_us_cm") == pytest.approx(400 * (evaporated + changed) / changed)
    assert sheet.changed({"water.topped_up": "pure"}).value("settled_us_cm") == 400


def test_lime_gives_as_much_calcium_as_carbonate_and_both_conduct():
    """What lime gives in a settled week is what half a change takes away, and what is used."""
    water = (Source(src_gh_dgh=2, src_kh_dkh=1, src_us_cm=60),)
    limed = plan(tank=replace(BARE_BOX, lime_kg=2.9), sources=water, water=Water(topped_up="pure"))
    sheet = sheet_of(limed, shipped())
    gained = 7 * sheet.value("used_dkh_d") + 0.5 * (sheet.value("settled_kh_dkh") - 1)
    assert gained > 0.5
    assert sheet.value("floor_gh_dgh") == pytest.approx(gained / 0.5)
    assert sheet.value("settled_gh_dgh") == pytest.approx(2 + gained / 0.5)
    # 0.35665 meq/L a degree, of 59.5 and 44.5 S cm2/eq, a few percent less as ions are not alone.
    assert sheet.value("settled_us_cm") - 60 == pytest.approx(gained / 0.5 * 37.1, rel=0.06)
    bare = sheet_of(replace(limed, tank=BARE_BOX), shipped())
    assert (bare.value("floor_gh_dgh"), bare.value("settled_gh_dgh"), bare.value("settled_us_cm")) == (0, 2, 60)


def test_hardness_creeps_too_and_is_told_with_where_it_comes_from():
    tap = (Source(src_gh_dgh=18, src_kh_dkh=2),)
    water = Water(tank_gh_dgh=4, tank_ph=6.2)
    sheet = sheet_of(
        plan(animals=(Group("crystal_shrimp", 30),), heat=Heat(lid="open", target_c=21), water=water, sources=tap),
        shipped(),
    )
    evaporated, changed = sheet.value("evaporation_l_d"), sheet.value("change_l_wk") / 7
    settles = 18 * (evaporated + changed) / changed
    assert sheet.value("settled_gh_dgh") == pytest.approx(settles)
    (hardness,) = [found for found in sheet.value("animals.0.suited") if found.what == "hardness"]
    assert hardness.state == "short"
    assert hardness.sentence.terms["value"].value == pytest.approx(settles)
    assert hardness.sentence.terms["now"].value == 4
    already = sheet.changed({"water.tank_gh_dgh": 25.0})
    (hardness,) = [found for found in already.value("animals.0.suited") if found.what == "hardness"]
    assert hardness.sentence.terms["value"].value == 25
    assert "now" not in hardness.sentence.terms


def test_the_hardness_that_a_tank_lives_in_is_where_it_settles():
    tap = (Source(src_gh_dgh=18),)
    fresh = sheet_of(plan(water=Water(tank_gh_dgh=4, topped_up="pure"), sources=tap), shipped())
    assert hardness_dgh(fresh) == 18
    salted = sheet_of(plan(water=Water(tank_gh_dgh=4, topped_up="pure", salinity_ppt=5.0), sources=tap), shipped())
    assert hardness_dgh(salted) == 4


@pytest.mark.parametrize(("treatment", "litres"), [("container", 125), ("tank", 250)])
def test_both_schools_of_dosing(treatment, litres):
    water = Water(disinfectant="chloramine", disinfectant_mg_l=2, treatment=treatment)
    sheet = sheet_of(plan(water=water), shipped())
    assert sheet.value("dosed_l") == pytest.approx(litres)
    # 25 mL for 100 L, twice for chloramine; 2 mg/L at 1.5 a dose are 1.4 doses in a barrel, and in the whole tank half of it
    # is met, which one takes; thiosulfate 7.0 x 1.25 mg for each mg, which the 125 L of new water bring.
    doses = 1.4 if treatment == "container" else 1.0
    assert sheet.value("dose_times") == pytest.approx(doses)
    assert sheet.value("dose_ml") == pytest.approx(litres / 100 * 25 * 2 * doses)
    assert sheet.value("thiosulfate_g") == pytest.approx(125 * 2 * 8.75 / 1000)
    # Half the water changed: half of 0.395 mg/L of N.
    assert sheet.value("freed_ammonia_mg_l") == pytest.approx(0.1975, rel=2e-3)


def test_dilution_is_not_treatment():
    sheet = sheet_of(plan(water=Water(disinfectant="chlorine", disinfectant_mg_l=1, treatment="none")), shipped())
    assert sheet.value("treated").state == "short"
    (remedy,) = asking.remedies(sheet, "treated")
    assert sheet.changed(remedy.changes).value("treated").state == "holds"


def test_a_hydrometer_is_read_and_its_slips_are_asked_about():
    read = plan(water=Water(salinity_by="gravity", gravity_sg=1.00377))
    assert sheet_of(read, shipped()).value("tank_salinity_ppt") == pytest.approx(5, rel=0.01)
    slip = plan(water=Water(salinity_by="gravity", gravity_sg=1.06))
    (conflict,) = conflicts(slip, shipped())
    assert (conflict.code, conflict.path) == ("gravity_slip", "water.gravity_sg")
    assert conflict.nearest == pytest.approx(1.006)


# Animals that grow ------------------------------------------------------------------------------


def test_today_in_a_year_and_grown():
    grown = sheet_of(plan(animals=YOUNG), shipped())
    today = sheet_of(plan(animals=YOUNG), shipped(), months_ahead=0)
    year = sheet_of(plan(animals=YOUNG), shipped(), months_ahead=12)
    lengths = [s.value("animals.0.length_then_cm") for s in (today, year, grown)]
    # L = 10 - 7 e^(-1.2): von Bertalanffy with K 1.2 a year.
    assert lengths == pytest.approx([3, 10 - 7 * math.exp(-1.2), 10], rel=1e-3)
    assert today.value("load_full_mg_d") < year.value("load_full_mg_d") < grown.value("load_full_mg_d") * 1.3


def test_it_is_told_when_a_tank_is_outgrown_and_by_what():
    box = Tank(tank_length_cm=80, tank_width_cm=50, tank_height_cm=50, bed="none")
    found = {row.check: row.months for row in outgrown(sheet_of(plan(animals=YOUNG, tank=box), shipped()))}
    # Nine lengths pass 80 cm and the tenth that a rule of practice leaves at 9.88 cm: 12 ln(7/0.123)/1.2 months.
    assert found["length_enough"] == pytest.approx(12 * math.log(7 / (10 - 80 / 0.9 / 9)) / 1.2, abs=0.6)
    months = list(found.values())
    assert months == sorted(months)
    before = sheet_of(plan(animals=YOUNG, tank=box), shipped(), months_ahead=found["length_enough"] - 1)
    assert before.value("length_enough").state != "short"


def test_grown_animals_outgrow_nothing():
    assert outgrown(sheet_of(plan(), shipped())) == ()


def test_a_bite_is_judged_at_the_size_asked_for():
    young = Group("oscar", 1, size_by="length", length_cm=5)
    pair = plan(animals=(young, Group("boeseman_rainbowfish", 8)))

    def eaten(**asked):
        rows = sheet_of(pair, shipped(), **asked).value("pairs")
        return any(f.what == "mouth" and f.state == "short" for f in rows)

    assert not eaten(months_ahead=0)
    assert eaten()


def test_where_nothing_is_left_at_dawn_the_better_ends_are_told():
    # Ripple, 40 L/h: at 60 use 7.7 mg/L more than it holds. Twice the exchange and half the breath leave some.
    close = sheet_of(
        plan(animals=(Group("zebra_danio", 900),), filters=(Filter(media_l=60, rated_lph=3000),)), shipped()
    )
    assert close.look("hot_dawn_oxygen_mg_l").case.code == "can_not_breathe"
    told = at_better_end(close)
    assert "would be left at dawn" in told.text
    assert 0 < told.terms["level"].value < 8
    far = close.changed({"animals.0.number": 2000})
    assert at_better_end(far.changed({"air.surface_movement": "still"})).text.startswith("At no end")
    assert at_better_end(sheet_of(plan(), shipped())) is None


# Laws -------------------------------------------------------------------------------------------


@settings(max_examples=40, deadline=None)
@given(number=st.integers(1, 60), more=st.integers(1, 40), surface=st.sampled_from(["still", "ripple", "strong"]))
def test_more_animals_never_raise_oxygen_or_the_reserve(number, more, surface):
    few = sheet_of(
        plan(tank=BARE_BOX, animals=(Group("zebra_danio", number),), air=Air(surface_movement=surface)), shipped()
    )
    many = few.changed({"animals.0.number": number + more})
    for key in ("dawn_oxygen_mg_l", "settled_kh_dkh"):
        fewer, crowded = few.look(key), many.look(key)
        if not isinstance(crowded, Missing):
            assert crowded <= fewer


@settings(max_examples=40, deadline=None)
@given(litres=st.floats(20, 2000), share=st.floats(0.05, 1), gap=st.integers(1, 30))
def test_nitrogen_made_is_nitrogen_taken_out_once_settled(litres, share, gap):
    box = Tank(tank_length_cm=litres / 2.5, tank_width_cm=50, tank_height_cm=50, bed="none", freeboard_cm=0)
    sheet = sheet_of(plan(tank=box, changes=Changes(regime="every", every_d=gap, change_frac=share)), shipped())
    peak, source = sheet.value("peak_nitrate_mg_l"), 1.0
    taken = (peak - source) * share * sheet.value("real_volume_l")
    assert taken == pytest.approx(sheet.value("load_full_mg_d") * gap, rel=1e-9)


def test_what_lies_outside_its_range_is_told_before_what_is_near_an_edge():
    # A terrapin in fresh water, its carbonate hardness a hair inside: the salt is the point.
    verdict = sheet_of(plan(animals=(Group("diamondback_terrapin", 1),)), shipped()).look("water_suits")
    assert verdict.state == "tight"
    assert verdict.reason.terms["what0"].value == "salinity"
