"""Figures of whole plans against hand calculations, and the laws that must hold over all of them."""

import math
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from loquen.core.data.tables import constants
from loquen.core.errors import NamedCase, UnknownKey
from loquen.core.graph import asking
from loquen.core.graph.keys import Missing
from loquen.core.library.whole import shipped
from loquen.core.model.inputs.quantity import as_text
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.heat import Heat, Light
from loquen.core.model.parts.running import Changes, Filter
from loquen.core.model.parts.tank import Tank
from loquen.core.model.parts.water import Water
from loquen.core.system.book import sheet_of
from loquen.core.system.cases import told_case
from tests.core.plans import BARE_BOX, SUMP, plan, sumped, with_value

# Volumes and weights, by hand -------------------------------------------------------------------


def test_real_water_is_what_is_left_after_bed_rock_and_wood():
    tank = Tank(
        tank_length_cm=100,
        tank_width_cm=50,
        tank_height_cm=53,
        bed="sand",
        bed_front_cm=4,
        bed_back_cm=6,
        rock_kg=26,
        wood_l=3,
    )
    sheet = sheet_of(plan(tank=tank, filters=(Filter(holds_l=2),)), shipped())
    # 250 L to the line; 25 L of sand is 60 % grains; 26 kg of rock at 2.6 kg/L; 2 L stand in the filter.
    assert sheet.value("real_volume_l") == pytest.approx(250 - 15 - 10 - 3 + 2)
    assert sheet.value("bed_bags") == 3  # 25 L and 5 % settling in bags of 10 L
    # The pores' water weighs with the sand, not twice.
    mass = (250 - 25 - 10 - 3) + 25 * 1.95 + 26 + 3 * 1.1 + sheet.value("panes_kg")
    assert sheet.value("total_mass_kg") == pytest.approx(mass)


def test_outside_measure_takes_two_panes_off_the_length_and_one_off_the_height():
    tank = Tank(measured="outside", tank_length_cm=102, tank_width_cm=52, tank_height_cm=51, pane_mm=10, bed="none")
    sheet = sheet_of(plan(tank=tank), shipped())
    inside = [sheet.value(f"inside_{side}_cm") for side in ("length", "width", "height")]
    assert inside == pytest.approx([100, 50, 50])


@pytest.mark.parametrize(
    ("tank", "area_m2", "around_cm"),
    [
        (Tank(shape="cylinder", tank_length_cm=100), math.pi / 4, math.pi * 100),
        (Tank(shape="quarter_round", tank_length_cm=100), math.pi / 4, 200 + math.pi * 50),
        (Tank(shape="hexagon", tank_length_cm=100), 3 * math.sqrt(3) / 2 * 0.25, 300),
        (
            Tank(shape="l_shape", tank_length_cm=100, tank_width_cm=100, notch_length_cm=50, notch_width_cm=50),
            0.75,
            400,
        ),
        (Tank(shape="bow_front", tank_length_cm=100, tank_width_cm=50, bow_cm=0), 0.5, 300),
    ],
)
def test_other_footprints(tank, area_m2, around_cm):
    sheet = sheet_of(plan(tank=tank), shipped())
    assert sheet.value("footprint_m2") == pytest.approx(area_m2)
    assert sheet.value("perimeter_cm") == pytest.approx(around_cm)


def test_a_part_filled_tank_gives_the_water_height_itself():
    sheet = sheet_of(plan(tank=Tank(fill_by="height", part_fill_cm=28, bed="none")), shipped())
    assert sheet.value("water_height_cm") == 28


# Animals and waste, by hand ---------------------------------------------------------------------


def test_waste_of_grown_animals():
    # Ten 4.5 cm elongated fish: 0.00389 x 4.5^3.12 g each, light feeding at 25 C, 42 % protein, 0.125 x protein.
    mass = 0.00389 * 4.5**3.12
    feed = 10 * 0.030 * mass**0.75 * 0.6
    sheet = sheet_of(plan(), shipped())
    assert sheet.value("feed_full_g_d") == pytest.approx(feed)
    assert sheet.value("load_full_mg_d") == pytest.approx(feed * 1000 * 0.42 * 0.16 * 0.92 * 0.85)


def test_young_animals_are_judged_by_what_they_become():
    young = sheet_of(plan(animals=(Group("boeseman_rainbowfish", 10, size_by="length", length_cm=3),)), shipped())
    grown = sheet_of(plan(animals=(Group("boeseman_rainbowfish", 10),)), shipped())
    assert young.value("load_now_mg_d") < young.value("load_full_mg_d")
    assert young.value("load_full_mg_d") == pytest.approx(grown.value("load_full_mg_d"))


def test_weighed_food_overrides_the_estimate_and_grows_with_the_animals():
    group = Group("boeseman_rainbowfish", 10, size_by="length", length_cm=5, feed_by="weighed", weighed_g_d=2)
    sheet = sheet_of(plan(animals=(group,)), shipped())
    assert sheet.value("feed_total_g_d") == 2
    # Twice as long is 2^3.01 as heavy and eats that to the power 0.75.
    assert sheet.value("feed_full_g_d") == pytest.approx(2 * 2 ** (3.01 * 0.75))


# Filter, heat and changes, by hand --------------------------------------------------------------


def test_turnover_uses_real_flow_unless_measured():
    assert sheet_of(plan(), shipped()).value("turnover_per_h") == pytest.approx(1500 * 0.65 / 250)
    measured = plan(filters=(Filter(rated_lph=1500, measured_lph=500),))
    assert sheet_of(measured, shipped()).value("turnover_per_h") == pytest.approx(2)


def test_ammonia_settles_where_media_take_what_is_made():
    sheet = sheet_of(plan(filters=(Filter(media_l=6, rated_lph=50_000),)), shipped())
    # With ample flow the plug-flow form is the media's own: 6 L x 0.65 m2/L x 0.6 share, and half the wetted glass.
    area = 6 * 0.65 * 0.6 + 0.5 * (3.0 * 0.5 + 0.5)
    load = sheet.value("load_full_mg_d")
    expected = load / (0.6 * area * 1000 - load)
    assert sheet.value("settled_ammonia_mg_l") == pytest.approx(expected, rel=0.01)


def test_media_that_can_not_carry_the_load_are_a_named_case():
    crowd = plan(animals=(Group("goldfish_common", 40),), filters=(Filter(media_l=0),))
    found = sheet_of(crowd, shipped()).look("media_carry")
    assert isinstance(found, Missing)
    assert found.case.code == "media_can_not_carry"
    assert found.case.values["load"] > found.case.values["most"]


def test_undergravel_counts_only_the_top_three_centimetres():
    row = Filter(filter_kind="undergravel", media="gravel_3mm", media_l=60)
    assert sheet_of(plan(filters=(row,)), shipped()).value("filters.0.media_counted_l") == pytest.approx(
        0.5 * 3 * 10
    )


def test_heat_lost_on_the_coldest_night():
    heat = Heat(target_c=25, room_cold_c=15, lid="open", base_foam_mm=0, against_wall=False, humidity_frac=1.0)
    sheet = sheet_of(plan(heat=heat), shipped())
    wall = 1 / (1 / 9 + 0.010 / 1.0 + 1 / 300)
    base = 1 / (1 / 6 + 0.010 / 1.0 + 1 / 300)
    assert sheet.value("walls_w_k") == pytest.approx(wall * 1.5 + (base + 9) * 0.5)
    # Evaporation after the pool relation with saturation pressures of 3.169 and 1.705 kPa (IAPWS).
    evaporated = 86400 * 0.5 * 0.5 * (3.169 - 1.705) * 0.089 / 2442
    assert sheet.value("evaporation_cold_w") == pytest.approx(evaporated * 2442e3 / 86400, rel=5e-3)


def test_heater_checks_know_a_dead_and_a_stuck_one():
    heat = Heat(target_c=25, room_cold_c=15, room_warm_c=28, fitted_heaters=2, fitted_w=300)
    sheet = sheet_of(plan(heat=heat), shipped())
    assert sheet.value("heaters_hold").state == "holds"
    assert sheet.value("one_dead_c") == 25
    assert sheet.value("stuck_heater_borne").state == "short"
    with_cut_out = sheet.changed({"heat.cut_out": True})
    assert with_cut_out.value("stuck_heater_borne").state == "holds"


def test_settled_temperature_balances_what_is_put_in():
    sheet = sheet_of(plan(heat=Heat(fitted_heaters=2, fitted_w=100, room_warm_c=26)), shipped())
    settled = sheet.value("stuck_on_c")
    from loquen.core.physics import heat

    litres = heat.evaporation_l_d(0.5, settled, 26, 0.5, 1.0)
    lost = sheet.value("walls_w_k") * (settled - 26) + heat.evaporation_loss_w(litres, settled)
    assert lost == pytest.approx(100 + sheet.value("equipment_high_w"), rel=1e-4)


def test_nitrate_before_a_change():
    sheet = sheet_of(plan(), shipped())
    rise = sheet.value("load_full_mg_d") / 250
    assert sheet.value("peak_nitrate_mg_l") == pytest.approx(1.0 + rise * 7 / 0.5)
    assert sheet.value("trough_nitrate_mg_l") == pytest.approx(1.0 + rise * 7)


def test_no_regime_passes_the_source():
    found = sheet_of(plan(water=Water(source_nitrate_mg_l=10)), shipped())
    assert found.value("nitrate_held").state == "short"
    with pytest.raises(NamedCase) as caught:
        found.value("least_regime")
    assert caught.value.code == "no_regime_holds"


def test_the_least_regime_is_not_beaten_on_its_own_grid():
    sheet = sheet_of(plan(animals=(Group("boeseman_rainbowfish", 14),)), shipped())
    least = sheet.value("least_regime")
    holding = [r for r in sheet.value("regimes") if r.peak_nitrate_mg_l <= 9.0]
    assert least.work_min == min(r.work_min for r in holding)


def test_saw_tooth_ends_where_it_began_in_the_cycle():
    corners = sheet_of(plan(changes=Changes(weekdays=("Tue", "Sat"), change_frac=0.3)), shipped()).value(
        "saw_tooth"
    )
    levels = [corner.nitrate for corner in corners]
    assert corners[-1].day == 56
    assert max(levels) == pytest.approx(
        sheet_of(plan(changes=Changes(weekdays=("Tue", "Sat"), change_frac=0.3)), shipped()).value(
            "peak_nitrate_mg_l"
        )
    )
    assert min(levels[:6]) == pytest.approx(min(levels[-6:]))


# Schools and company ----------------------------------------------------------------------------


def test_seven_schools_side_by_side_with_one_binding():
    schools = sheet_of(plan(), shipped()).value("schools")
    assert [s.key for s in schools] == ["balance", "volume", "length", "shell", "surface", "crowd", "group"]
    assert [s.key for s in schools if s.picked] == ["balance"]
    assert sum(s.binds for s in schools) == 1
    by_key = {s.key: s for s in schools}
    assert by_key["length"].share == pytest.approx(4.5 * 12 / 100)  # danios: twelve lengths of 4.5 cm
    assert not by_key["surface"].applies
    assert not by_key["crowd"].applies
    tub = {s.key: s for s in sheet_of(plan(filters=()), shipped()).value("schools")}
    assert tub["surface"].share == pytest.approx(10 * 4.5 * 30 / 5000)


def test_crowd_school_wants_neither_too_few_nor_too_many():
    few = plan(animals=(Group("yellow_lab", 3), Group("zebra_mbuna", 3)))
    assert sheet_of(few, shipped()).value("crowd_fits").state == "short"
    enough = plan(animals=(Group("yellow_lab", 10), Group("zebra_mbuna", 10)))
    assert sheet_of(enough, shipped()).value("crowd_fits").state != "short"
    many = plan(animals=(Group("yellow_lab", 40), Group("zebra_mbuna", 40)))
    assert sheet_of(many, shipped()).value("crowd_fits").state == "short"


@pytest.mark.parametrize(
    ("animals", "check", "what"),
    [
        ((Group("neon_tetra", 3),), "company_fits", "group"),
        ((Group("siamese_fighter", 2),), "company_fits", "group"),
        ((Group("guppy", 6, males=4),), "company_fits", "sexes"),
        ((Group("axolotl", 1), Group("discus", 6)), "pairs_agree", "temperature"),
        ((Group("axolotl", 1), Group("white_cloud", 8)), "pairs_agree", "mouth"),
        ((Group("figure_eight_puffer", 1), Group("neon_tetra", 8)), "pairs_agree", "salinity"),
        ((Group("discus", 6),), "water_suits", "temperature"),
    ],
)
def test_what_does_not_agree_is_named(animals, check, what):
    sheet = sheet_of(plan(animals=animals), shipped())
    assert sheet.value(check).state == "short"
    rows = sheet.value({"pairs_agree": "pairs", "company_fits": "company"}.get(check, "animals.0.suited"))
    assert what in [finding.what for finding in rows if finding.state == "short"]


def test_prey_outgrows_a_mouth_by_length():
    # A striped panchax of 10 cm takes prey up to half its length: a 4.5 cm danio is food, a 10 cm fish is not.
    small = sheet_of(plan(animals=(Group("striped_panchax", 3), Group("zebra_danio", 8))), shipped())
    assert any(f.what == "mouth" and f.state == "short" for f in small.value("pairs"))
    large = sheet_of(plan(animals=(Group("striped_panchax", 3), Group("boeseman_rainbowfish", 6))), shipped())
    assert not any(f.what == "mouth" and f.state == "short" for f in large.value("pairs"))


def test_jumpers_need_a_closed_lid():
    sheet = sheet_of(plan(heat=Heat(lid="open")), shipped())
    assert sheet.value("none_leaves").state == "short"
    assert sheet.changed({"heat.lid": "glass"}).value("none_leaves").state == "holds"


def test_bubbles_and_trickling_water_evaporate_half_as_much_again():
    calm = sheet_of(plan(), shipped())
    moved = calm.changed({"air.surface_movement": "strong"})
    assert moved.value("evaporation_l_d") == pytest.approx(1.5 * calm.value("evaporation_l_d"))
    assert moved.value("heater_need_w") > calm.value("heater_need_w")


# Laws -------------------------------------------------------------------------------------------

CHANGES_TRIED = [
    ("tank.tank_length_cm", 150.0),
    ("tank.pane_mm", 12.0),
    ("animals.0.number", 25),
    ("filters.0.media_l", 1.0),
    ("heat.target_c", 22.0),
    ("heat.room_cold_c", 10.0),
    ("water.tank_ph", 8.2),
    ("changes.change_frac", 0.2),
    ("changes.weekdays", ("Mon", "Thu")),
]


@pytest.mark.parametrize(("path", "value"), CHANGES_TRIED)
def test_one_changed_input_equals_a_fresh_sheet(path, value):
    start = plan()
    old = sheet_of(start, shipped())
    old.all()
    changed = old.changed({path: value}).all()
    fresh = sheet_of(with_value(start, path, value), shipped()).all()
    for key, expected in fresh.items():
        got = changed[key]
        if isinstance(expected, Missing):
            assert got.case.code == expected.case.code, key
        else:
            assert got == expected, key


def test_only_what_hangs_on_an_input_is_computed_again():
    old = sheet_of(plan(), shipped())
    old.all()
    new = old.changed({"heat.price_per_kwh": 9.0})
    assert old.known.keys() - new.known.keys() == {"electricity_money"}
    new.all()
    assert old.known.keys() == new.known.keys()


def test_unknown_figures_and_inputs_are_named():
    for ask in (lambda s: s.value("no_such_figure"), lambda s: s.changed({"tank.no_such": 1})):
        with pytest.raises(UnknownKey):
            ask(sheet_of(plan(), shipped()))


sizes = st.floats(30, 300)


@settings(max_examples=40, deadline=None)
@given(length=sizes, number=st.integers(1, 60), more=st.integers(1, 40))
def test_more_animals_never_lower_nitrate_or_ammonia(length, number, more):
    box = Tank(tank_length_cm=length, tank_width_cm=50, tank_height_cm=50, bed="none")
    few = sheet_of(plan(tank=box, animals=(Group("zebra_danio", number),)), shipped())
    many = few.changed({"animals.0.number": number + more})
    for key in ("peak_nitrate_mg_l", "settled_ammonia_mg_l", "feed_full_g_d"):
        assert many.value(key) >= few.value(key)


@settings(max_examples=40, deadline=None)
@given(room=st.floats(0, 24), colder=st.floats(0, 10), lid=st.sampled_from(["open", "part", "tight"]))
def test_a_colder_room_never_needs_less_heat(room, colder, lid):
    warm = sheet_of(plan(heat=Heat(target_c=25, room_cold_c=room, lid=lid)), shipped())
    cold = warm.changed({"heat.room_cold_c": room - colder})
    assert cold.value("heater_need_w") >= warm.value("heater_need_w") - 1e-9


@settings(max_examples=30, deadline=None)
@given(key=st.sampled_from(sorted(shipped().species)), number=st.integers(1, 30))
def test_every_species_gives_numbers_and_never_nan(key, number):
    for value in sheet_of(plan(animals=(Group(key, number),)), shipped()).all().values():
        if isinstance(value, float):
            assert math.isfinite(value)


def test_an_empty_tank_has_figures_but_no_verdict_on_animals():
    sheet = sheet_of(plan(animals=(), tank=BARE_BOX), shipped())
    assert sheet.value("real_volume_l") == 250
    assert sheet.look("media_carry").case.code == "no_animals"


# Small and odd cases ----------------------------------------------------------------------------


def test_a_small_drip_on_a_large_system_holds_what_it_dilutes():
    tank = Tank(tank_length_cm=500, tank_width_cm=200, tank_height_cm=103, bed="none")
    regime = Changes(regime="drip", drip_l_d=20, short_cut_frac=0.0)
    sheet = sheet_of(plan(tank=tank, changes=regime, filters=()), shipped())
    # A steady drip D settles where it carries off as much as is made: V/D days of rise, here 10 000 L over 20 L a day.
    assert sheet.value("standing_peak_d") == pytest.approx(sheet.value("real_volume_l") / 20, rel=1e-3)
    assert sheet.value("peak_nitrate_mg_l") > sheet.value("new_nitrate_mg_l")


def test_pulses_smaller_than_a_thousandth_are_reckoned_too():
    regime = Changes(regime="pulses", pulses_d=1, change_frac=0.01, short_cut_frac=0.9)
    # 1 − e^(−0.001) goes each day: what stands before a pulse is a day's rise over that.
    assert sheet_of(plan(changes=regime), shipped()).value("standing_peak_d") == pytest.approx(
        1 / (1 - math.exp(-0.001))
    )


def test_a_basking_places_band_is_told_in_one_unit():
    turtle = Group("common_musk_turtle", 1)
    sheet = sheet_of(plan(animals=(turtle,), light=Light(basking_c=32)), shipped())
    fahrenheit = {"temperature": "F"}
    # 30 and 36 °C.
    assert as_text(sheet.value("basks").headline, fahrenheit) == "inside 86 to 96.8 °F"
    assert as_text(sheet.value("basks").headline, {}) == "inside 30 to 36 °C"


def test_a_pane_that_is_not_sold_is_told_in_any_unit():
    tank = Tank(tank_length_cm=400, tank_width_cm=150, tank_height_cm=200, support="three_edges")
    case = sheet_of(plan(tank=tank), shipped()).look("pane_stock_mm").case
    words = as_text(told_case(case)[1], {"thickness": "in"})
    assert (case.code, " in;" in words) == ("no_stock_pane", True)


@pytest.mark.parametrize(
    ("more_mm", "state"), [(-0.3, "short"), (-0.01, "tight"), (0.04, "tight"), (0.06, "holds")]
)
def test_a_pane_is_tight_within_a_twentieth_of_a_millimetre(more_mm, state):
    tank = Tank(tank_length_cm=100, tank_width_cm=50, tank_height_cm=50)
    needed = sheet_of(plan(tank=tank), shipped()).value("pane_needed_mm")
    assert (
        sheet_of(plan(tank=replace(tank, pane_mm=needed + more_mm)), shipped()).value("pane_holds").state == state
    )


def test_a_calibration_narrows_the_figures_that_hang_on_it():
    usual = sheet_of(plan(), shipped())
    narrow = {"nitrify_rate_g_m2_d": replace(constants()["nitrify_rate_g_m2_d"], value=0.5, low=0.48, high=0.52)}
    fitted = sheet_of(plan(), shipped(), calibration=narrow)
    # The media's most goes with the rate: 0.5 of 0.6.
    assert fitted.value("capacity_mg_d") == pytest.approx(usual.value("capacity_mg_d") * 0.5 / 0.6)
    wide, close = (asking.spread(sheet, "capacity_mg_d") for sheet in (usual, fitted))
    assert wide == pytest.approx((usual.value("capacity_mg_d") * 0.33 / 0.6, usual.value("capacity_mg_d") / 0.6))
    assert close == pytest.approx((fitted.value("capacity_mg_d") * 0.96, fitted.value("capacity_mg_d") * 1.04))


def test_a_sumps_walls_lose_by_the_films_of_this_system():
    # 10 mm of glass: U = 1/(1/9 + 0.01 + 1/300) = 8.036; with an outside film of 11 it is 9.593.
    ours = sheet_of(sumped(sump=replace(SUMP, sump_pane_mm=10)), shipped())
    windy = ours.changed({"constant.outside_film_w_m2k": 11.0})
    assert windy.value("sump_w_k") / ours.value("sump_w_k") == pytest.approx(9.593 / 8.036, rel=1e-3)
