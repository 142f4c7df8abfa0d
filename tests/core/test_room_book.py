"""Whole rooms: what a keeper would be told of each, figures worked by hand, every check both ways."""

import math
from dataclasses import replace
from datetime import date

import pytest

from loquen.core.errors import PlanConflict
from loquen.core.graph import asking
from loquen.core.graph.nodes import Verdict
from loquen.core.library.whole import shipped
from loquen.core.model.roots.room import (
    Blower,
    Drain,
    Household,
    Place,
    Pulses,
    Purified,
    Purifier,
    Rack,
    Reservoir,
    Room,
    Softener,
    Store,
    Supply,
    Treatment,
    Window,
    Zone,
)
from loquen.core.model.roots.room_conflicts import conflicts
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.rooms import remedies
from loquen.core.rooms.book import room_book, sheet_of
from loquen.core.rooms.commissioning import steps
from loquen.core.rooms.lines import line_of
from loquen.core.rooms.parts import parts, room_quote
from loquen.core.rooms.propose import proposed_zones, rack_of
from loquen.core.rooms.stages.plumbing import trials
from loquen.core.system.book import sheet_of as system_sheet
from loquen.core.system.told import verdict_of
from loquen.demo import sluice_street
from loquen.demo.fish_room import cellar_room
from tests.core.rooms import line, room, state, told

SMALL_HEADER = {"zones": (Zone("One", header_mm=4, drop_mm=4, nominal_lph=40, zone_min=24),)}
"""A header no wider than its drops: the usual first mistake."""

PUMPED = {
    "zones": (Zone("One", "compensating", 24, 70, zone_min=24, fed_from="reservoir"),),
    "reservoir": Reservoir(300, reservoir_c=25),
}
"""The same twelve on a reservoir that is large enough."""

FALLING = {
    "rack_floor_bears": [({"drain": Drain(floor_l_s=0.8, floor_kn_m2=1)}, "short")],
    "shelves_hold": [({"racks": (Rack("Wall", rack_cm=220, rack_depth_cm=40),)}, "short")],
    "hand_gets_in": [
        ({"racks": (Rack("Wall", rack_cm=260, shelf_cm=45),)}, "tight"),
        ({"racks": (Rack("Wall", rack_cm=260, shelf_cm=36),)}, "short"),
    ],
    "zones_even": [(SMALL_HEADER, "short")],
    "pressure_reaches": [
        ({"supply": Supply(static_kpa=230, tested_lph=1200, tested_kpa=150, air_gap=True)}, "tight"),
        ({"supply": Supply(static_kpa=120, tested_lph=600, tested_kpa=20, air_gap=True)}, "short"),
        ({"treatment": Treatment(regulated=False)}, "tight"),
        (
            {
                "treatment": Treatment(regulated=False),
                "supply": Supply(static_kpa=60, tested_lph=400, tested_kpa=5, air_gap=True),
            },
            "short",
        ),
    ],
    "their_water": [
        ({"supply": Supply(air_gap=True, supply_us_cm=900)}, "short"),
        ({"supply": Supply(air_gap=True, supply_us_cm=700), "zones": (Zone("One", zone_min=120),)}, "tight"),
    ],
    "street_gives": [({"supply": Supply(static_kpa=260, tested_lph=700, tested_kpa=60, air_gap=True)}, "short")],
    "in_range": [({"zones": (Zone("One", "compensating", 24, 250, 0.5, 350, zone_min=24),)}, "tight")],
    "headers_quiet": [
        ({"zones": (Zone("One", header_mm=9, zone_min=24),)}, "tight"),
        (SMALL_HEADER, "short"),
    ],
    "valves_work": [({"zones": (Zone("One", pilot_kpa=260, pilot_lph=60, zone_min=24),)}, "short")],
    "pump_lifts": [
        (PUMPED, "holds"),
        ({**PUMPED, "reservoir": Reservoir(300, pump_kpa=75, pump_tested_kpa=40)}, "tight"),
        ({**PUMPED, "reservoir": Reservoir(300, pump_kpa=40, pump_tested_kpa=10)}, "short"),
    ],
    "reservoir_lasts": [
        (PUMPED, "holds"),
        ({**PUMPED, "reservoir": Reservoir(60, refill_lph=5)}, "short"),
        ({**PUMPED, "reservoir": Reservoir(60, reservoir_w=100)}, "short"),
    ],
    "kept_apart": [({"supply": Supply(air_gap=False)}, "short")],
    "day_fits": [({"store": Store(mixed_c=25, store_l=30, hot_w=200)}, "short")],
    "runs_borne": [({"store": Store(mixed_c=10)}, None)],
    "room_nitrate_held": [({"zones": (Zone("One", zone_min=3),)}, "short")],
    "mix_near": [({"store": Store(mixed_c=20)}, "tight")],
    "room_carbon_enough": [({"treatment": Treatment(carbon_l=1)}, "short")],
    "purified_lasts": [
        (
            {
                "purifier": Purifier(purifier_fitted=True, purified_l=100),
                "purified": (Purified("Sat", 10, 30, 90), Purified("Sat", 11, 30, 90)),
            },
            "short",
        )
    ],
    "blower_enough": [({"blower": Blower(blower_lph=500)}, "short")],
    "blower_reaches": [
        ({"blower": Blower(blower_kpa=4)}, "short"),
        ({"blower": Blower(air_main_mm=4)}, "short"),
        ({"blower": Blower(air_branch_mm=4, blower_kpa=8)}, "short"),
    ],
    "room_dry": [({"blower": Blower(fan_m3_h=0)}, "tight")],
    "collector_holds": [({"drain": Drain(collector_mm=25, collector_fall_frac=0.005)}, "short")],
    "outlets_hold": [
        ({"drain": Drain(outlet_mm=12, outlet_head_mm=8)}, "tight"),
        ({"drain": Drain(outlet_mm=8, outlet_head_mm=5)}, "short"),
    ],
    "rack_drains_hold": [({"racks": (Rack("Wall", rack_cm=260, rack_drain_mm=15),)}, "short")],
    "no_flood": [
        ({"drain": Drain(leak_sensor=True)}, "tight"),
        ({"drain": Drain()}, "short"),
    ],
    "pays_back": [
        ({"worth": replace(Room("x").worth, hour_money=0.1, hour_low_money=0, hour_high_money=0.2)}, "tight")
    ],
}


@pytest.mark.parametrize(
    ("key", "more", "expected"), [(key, more, want) for key, rows in FALLING.items() for more, want in rows]
)
def test_a_check_falls_where_it_should(key, more, expected):
    if expected is not None:
        assert state(told(room(**more)), key) == expected


def test_every_check_of_a_room_is_judged_both_ways():
    checks = {name for name, node in room_book().nodes.items() if node.check}
    elsewhere = {"salt_stays", "mix_failure_borne", "as_caught"}
    assert checks == set(FALLING) | elsewhere


def test_a_room_that_holds():
    full = room(
        purifier=Purifier(purifier_fitted=True),
        purified=(Purified(),),
        zones=(Zone("One", "compensating", 24, 70, 0.5, 350, zone_min=24, pilot_kpa=70, pilot_lph=60),),
        treatment=Treatment(carbon_l=6),
        blower=Blower(fan_m3_h=60),
    )
    sheet = told(full)
    states = {key: state(sheet, key) for key, node in sheet.wiring.nodes.items() if node.check}
    usual = {"rack_floor_bears": "tight", "mix_failure_borne": "tight"} | dict.fromkeys(
        ("salt_stays", "as_caught", "pump_lifts", "reservoir_lasts")
    )
    assert {key: found for key, found in states.items() if found != "holds"} == usual


def test_a_street_that_nobody_asked_about_wants_the_carbon_of_chloramine_and_is_to_ask():
    asked = room(treatment=Treatment(carbon_l=60), supply=Supply(air_gap=True, supply_disinfectant="chloramine"))
    untold = room(treatment=Treatment(carbon_l=60), supply=Supply(air_gap=True))
    assert told(untold).value("needed_contact_min") == told(asked).value("needed_contact_min") == 3.0
    assert (state(told(asked), "room_carbon_enough"), state(told(untold), "room_carbon_enough")) == (
        "holds",
        "measure",
    )
    little = replace(untold, treatment=Treatment(carbon_l=0.5))
    assert state(told(little), "room_carbon_enough") == "short"


def test_figures_of_a_zone_as_worked_by_hand():
    compensating = room(zones=(Zone("One", "compensating", 24, 70, 0.5, 350, zone_min=24),))
    sheet = told(compensating)
    assert sheet.value("zones.0.zone_lph") == pytest.approx(288, rel=1e-6)
    assert sheet.value("changer_l_d") == pytest.approx(288 * 0.4, rel=1e-6)
    row = sheet.value("exchanged")[0]
    ratio = 24 * 24 / 60 / 47 * 0.9
    assert row.exchanged_frac == pytest.approx(1 - math.exp(-ratio), rel=1e-5)
    assert row.drained_frac == pytest.approx(24 * 0.4 / 47, rel=1e-5)
    assert row.week_frac == pytest.approx(1 - math.exp(-7 * ratio), rel=1e-5)
    assert row.nitrate == pytest.approx(5 / NITRATE_PER_N + 0.4 / (1 - math.exp(-ratio)), rel=1e-4)
    assert row.kh_dkh == pytest.approx(5 - 0.1 / (1 - math.exp(-ratio)), rel=1e-4)
    assert sheet.value("winter_hot_frac") == pytest.approx(18 / 53)
    assert sheet.value("winter_hot_l_d") == pytest.approx(115.2 * 18 / 53, rel=1e-5)
    assert sheet.value("winter_recovery_lph") == pytest.approx(3600 * 2940 / (4186 * 53))
    assert sheet.value("usable_l") == 140
    assert sheet.value("room_contact_min") == pytest.approx(3.6 / 288 * 60, rel=1e-5)
    assert sheet.value("through_l_wk") == pytest.approx(806.4, rel=1e-5)
    assert sheet.value("replaced_l_wk") == 180
    assert sheet.value("changer_kwh") == pytest.approx(806.4 * 4186 * 18 / 3.6e6, rel=1e-5)
    money = (16.878 * 0.3 + 0.8064 * 4) * (1 - 180 / 806.4) + 60 * 806.4 / 20_000
    assert sheet.value("running_money") == pytest.approx(money, rel=1e-3)
    assert sheet.value("hours_before") == pytest.approx(12 * (2.5 * 2 + 0.25 * 14 + 1 + 0.75) / 60)
    assert sheet.value("hours_after") == pytest.approx((12 * (0.25 * 14 + 1 + 0.75) + 15) / 60)
    assert sheet.value("tank_work_min") == pytest.approx(sheet.value("hours_after") * 5)
    assert sheet.value("gained_money") == pytest.approx((60 - 7.5 * 2) / 60 * 12 - money, abs=0.6)
    assert sheet.value("cartridges_money") == pytest.approx(60 * max(806.4 / 20_000, 7 / 180), rel=1e-5)
    assert sheet.value("heaviest_rack_kg") == 12 * 60 + 60
    assert sheet.value("most_floor_kpa") == pytest.approx(780 * 9.80665 / 1000 / (2.6 * 0.4))
    assert sheet.value("fullest_shelf_frac") == pytest.approx((4 * 60 + 3 * 2) / 260)
    assert sheet.value("least_over_cm") == 30
    assert sheet.value("tank_number") == 12
    assert sheet.value("room_water_l") == 12 * 47
    assert sheet.value("ordinary_lph") == pytest.approx(288 + 600, rel=1e-6)
    assert sheet.value("worst_drain_lph") == pytest.approx(288 + 600, rel=1e-6)
    assert sheet.value("collector_half_lph") == pytest.approx(2115, abs=1)
    assert sheet.value("collector_most_lph") == pytest.approx(4550, abs=5)
    assert sheet.value("outlet_lph") == pytest.approx(290, abs=1)
    assert sheet.value("floor_drain_lph") == 2880
    assert sheet.value("supply_wanted_lph") == pytest.approx(488, rel=1e-6)


def test_speed_surge_and_valve_as_worked_by_hand():
    sheet = told(room(zones=(Zone("One", "compensating", 24, 70, 0.5, 350, zone_min=24),)))
    speed = 288 / 3.6e6 / (math.pi / 4 * 0.013**2)
    assert sheet.value("zones.0.zone_speed_m_s") == pytest.approx(speed, rel=1e-5)
    assert sheet.value("fastest_m_s") == pytest.approx(speed, rel=1e-5)
    assert sheet.value("zones.0.zone_surge_kpa") == pytest.approx(997.05 * 400 * speed / 1000, rel=1e-4)
    assert sheet.value("zones.0.zone_valve_kpa") == pytest.approx((0.288 / 2) ** 2 * 100, rel=1e-3)
    assert sheet.value("zones.0.zone_even_frac") == pytest.approx(1, rel=1e-6)
    assert sheet.value("least_even_frac") == pytest.approx(1, rel=1e-6)


def test_a_heat_pump_makes_three_times_the_hot_water():
    plain, pump = (told(room(store=Store(mixed_c=25, hot_yield=yields))) for yields in (1.0, 3.0))
    assert pump.value("changer_kwh") == pytest.approx(plain.value("changer_kwh") / 3)
    assert pump.value("winter_recovery_lph") == pytest.approx(3600 * (9000 - 60) / (4186 * 53))


def test_the_worst_of_several_decides():
    """Two racks, one with a shelf of five; a second zone that is smaller: each figure takes the worst."""
    places = (*room().places, Place("A13", 1, 1, 1, 5), Place("B1", 1, 2, 1, 1, 2), Place("B2", 1, 2, 1, 2, 2))
    two = room(
        racks=(
            Rack("Wall", rack_cm=330, rack_depth_cm=40),
            Rack("Small", 5.0, rack_cm=150, rack_depth_cm=40, shelf_cm=40),
        ),
        places=places,
        zones=(Zone("One", "compensating", 24, 70, zone_min=24), Zone("Two", "compensating", 8, 70, zone_min=24)),
        drain=Drain(floor_l_s=0.8),
    )
    sheet = told(two)
    assert sheet.value("fullest_shelf_frac") == pytest.approx((5 * 60 + 4 * 2) / 330)
    assert sheet.value("least_over_cm") == 10
    assert sheet.value("heaviest_rack_kg") == 13 * 60 + 60
    assert sheet.value("most_floor_kpa") == pytest.approx(max(840 / 3.3, 180 / 1.5) / 0.4 * 9.80665 / 1000)
    assert sheet.value("largest_zone_lph") == pytest.approx(288, rel=1e-6)
    assert sheet.value("changer_l_d") == pytest.approx((288 + 16) * 0.4, rel=1e-6)
    assert sheet.value("worst_drain_lph") == pytest.approx(288 + 16 + 600, rel=1e-6)
    assert sheet.value("ordinary_lph") == pytest.approx(288 + 600, rel=1e-6)
    assert [tank.name for tank in sheet.value("by_hand")] == ["A13"]
    assert sheet.value("hand_l_wk") == 15
    assert sheet.value("hand_min") == 12
    weakest = max(sheet.value("exchanged"), key=lambda row: row.nitrate)
    assert sheet.value("worst_nitrate_mg_l") == pytest.approx(weakest.nitrate)
    assert weakest.name in ("B1", "B2")


def test_the_street_as_worked_by_hand():
    sheet = told(room())
    needed = sheet.value("needed_kpa")
    assert sheet.value("supply_most_lph") == pytest.approx(1200 * math.sqrt((350 - needed) / 200))
    row = sheet.value("zone_flows")[0]
    assert needed == pytest.approx(row.tap_kpa - row.before_kpa + 200)
    # The house and the zone together pull the street down along its two readings.
    drawn = row.lph + 200
    assert row.tap_kpa == pytest.approx(350 - 200 * (drawn / 1200) ** 2, abs=0.2)


def test_flood_and_purified_figures():
    sheet = told(room(drain=Drain(bund_l=60), purifier=Purifier(purifier_fitted=True), purified=(Purified(),)))
    made = 280 / 24 * (300 - 0.07 * 450 * 0.64) / (345 - 17.5) * 1.03**-18
    assert sheet.value("purified_lph") == pytest.approx(made)
    assert sheet.value("purified_fill_h") == pytest.approx(200 / made)
    assert sheet.value("purified_most_l_wk") == pytest.approx(168 * made)
    assert sheet.value("purified_l_wk") == 100
    assert sheet.value("purifier_waste_l_wk") == pytest.approx(3 * 100, rel=1e-6)
    assert sheet.value("purified_us_cm") == pytest.approx(450 * 0.04)
    assert sheet.value("worst_drain_lph") == pytest.approx(sheet.value("largest_zone_lph") + 600 + 3 * made)
    assert sheet.value("flood_min") == pytest.approx(60 / sheet.value("worst_drain_lph") * 60)


def test_air_damp_and_power_as_worked_by_hand():
    sheet = told(room(zones=(), places=tuple(replace(place, zone=0) for place in room().places)))
    assert sheet.value("wanted_blower_lph") == pytest.approx(12 * 60 * 1.2)
    speed = 864 / 3.6e6 / (math.pi / 4 * 0.025**2)
    assert sheet.value("air_main_kpa") == pytest.approx(0.025 * 15 / 0.025 * 1.2 * speed**2 / 2 / 1000)
    assert sheet.value("wanted_blower_kpa") == pytest.approx(
        (30 + 20) * 0.0980665 + sheet.value("air_main_kpa") + sheet.value("air_branch_kpa"), rel=1e-3
    )
    # All 864 L/h along three shelves of 2.6 m in 20 mm, a third of it as they leave on the way.
    along = 864 / 3.6e6 / (math.pi / 4 * 0.02**2)
    assert sheet.value("air_branch_kpa") == pytest.approx(0.025 * 7.8 / 0.02 * 1.2 * along**2 / 2 / 1000 / 3)
    assert sheet.value("room_evaporation_l_d") == 6
    # Saturated air holds 17.3 g/m³ at 20 °C and 6.8 at 5 °C (steam tables).
    assert sheet.value("vent_m3_h") == pytest.approx(6000 / 24 / (17.3 * 0.65 - 6.8 * 0.85), rel=0.01)
    assert sheet.value("room_year_kwh") == pytest.approx(1200 + 60 * 24 * 365.25 / 1000)
    damp = told(room(blower=Blower(outside_c=25, outside_humid_frac=0.9)))
    assert verdict_of(damp, "room_dry").state == "unknown"


def test_a_softener_on_the_hot_side_sees_only_that():
    sheet = told(room(softener=Softener("hot", 30_000, 0.65, 12)))
    assert sheet.value("softened_l") == pytest.approx(30_000 * 64.79891 * 0.65 / (17.848 * 12))
    share = sheet.value("winter_hot_frac")
    assert sheet.value("softener_d") == pytest.approx(
        sheet.value("softened_l") / (sheet.value("changer_l_d") * share)
    )
    assert sheet.value("softener_sodium") == pytest.approx(12 * 17.848 * 0.4594 * share, rel=1e-3)


def test_buckets_tell_a_blocked_emitter_from_a_weak_street():
    sheet = told(room())
    planned = {row.tank: row.lph for row in sheet.value("zone_flows")[0].tanks}
    assert state(sheet, "as_caught") is None

    def with_buckets(parts_of):
        places = [
            replace(place, caught_l_min=planned[i] / 60 * parts_of[i]) if i in parts_of else place
            for i, place in enumerate(room().places)
        ]
        return told(room(places=tuple(places)))

    alike = with_buckets({0: 0.8, 5: 0.8, 11: 0.8})
    assert alike.value("caught_frac") == pytest.approx(0.8)
    assert alike.value("caught_kpa") == pytest.approx(200 * 0.64, rel=1e-6)
    assert state(alike, "as_caught") == "tight"
    assert "manifold" in alike.value("as_caught").reason.text
    one = with_buckets({0: 1.0, 5: 1.0, 11: 0.4})
    assert one.value("as_caught").reason.terms["tank"].value == "A12"
    assert state(with_buckets({0: 1.03, 11: 0.98}), "as_caught") == "holds"


def test_buckets_find_a_header_that_is_worse_than_planned():
    """A made scaled header: buckets caught under it bring its factor back, and with it entered all is as caught."""
    narrow = Zone("One", header_mm=9, nominal_lph=60, zone_min=24)
    scaled = told(room(zones=(replace(narrow, header_x=8.0),))).value("zone_flows")[0]
    lph = {flow.tank: flow.lph for flow in scaled.tanks}
    places = tuple(
        replace(place, caught_l_min=lph[i] / 60) if i in (0, 5, 11) else place
        for i, place in enumerate(room().places)
    )
    found = told(room(zones=(narrow,), places=places))
    assert found.value("caught_header_x") == pytest.approx(8.0, rel=0.01)
    assert state(found, "as_caught") == "tight"
    entered = told(room(zones=(replace(narrow, header_x=8.0),), places=places))
    assert state(entered, "as_caught") == "holds"
    assert entered.value("zone_flows")[0].header_m == pytest.approx(found.value("zone_flows")[0].header_m)
    blocked = tuple(replace(place, caught_l_min=0.02) if i == 11 else place for i, place in enumerate(places))
    assert state(told(room(zones=(narrow,), places=blocked)), "as_caught") == "tight"


def test_a_quote_has_parts_hours_and_margin():
    given = replace(room(), worth=replace(room().worth, build_h=10, hour_money=20, margin_frac=0.25))
    found = room_quote(told(given), {"Emitter, 24 L/h at 100 kPa": 1.5, "Strainer": 12, "Nowhere listed": 99})
    assert found.parts_money == pytest.approx(14 * 1.5 + 2 * 12)
    assert found.hours_money == 200
    assert found.margin_money == pytest.approx(245 / 4)
    assert found.whole_money == pytest.approx(245 * 1.25)
    assert found.unpriced == len(found.lines) - 2
    assert {line.sum_money for line in found.lines} == {None, 14 * 1.5, 2 * 12}


def test_a_changer_washes_salt_out():
    assert state(told(room(), line(salinity_ppt=4.0)), "salt_stays") == "short"
    assert state(told(room()), "salt_stays") is None


def test_hot_show_fish_on_a_cold_mix_are_shocked():
    """Discus at 29 °C on a mix of 15: a pulse is cut until the step is borne, and no shorter than allowed."""
    warm = line(water_c=29.0, low_c=27.0, high_c=31.0, borne_k=2.0)
    sheet = told(room(store=Store(mixed_c=15), zones=(Zone("One", nominal_lph=60, zone_min=60),)), warm)
    bound = sheet.value("pulse_bound")
    assert bound.why == "step"
    assert sheet.value("run_step_k") <= 2.0 + 1e-6
    assert state(sheet, "runs_borne") in ("holds", "tight")
    assert state(sheet, "mix_near") == "tight"


def test_summer_has_a_mix_of_its_own():
    same, cooler = (told(room(store=Store(mixed_c=25, summer_mixed_c=c))).value("seasons") for c in (None, 21.0))
    assert same[1].hot.table.hot_share_frac == pytest.approx(8 / 43)
    assert cooler[1].hot.table.hot_share_frac == pytest.approx(4 / 43)
    assert cooler[0].hot.table == same[0].hot.table


def test_cool_natives_need_no_hot_water():
    cool = line(water_c=14.0, low_c=6.0, high_c=20.0)
    sheet = told(room(store=Store(mixed_c=14), supply=Supply(winter_c=14, air_gap=True)), cool)
    assert sheet.value("winter_hot_frac") == 0
    assert state(sheet, "day_fits") == "holds"


def test_a_day_that_repeats_is_the_one_that_is_shown():
    """The store must be as full next midnight as it was: a slow heater is short though one night would do."""
    sheet = told(
        room(store=Store(mixed_c=25, store_l=200, hot_w=200, standing_w=60), household=(Household(7, 9, 30),))
    )
    winter = sheet.value("seasons")[0]
    assert not winter.hot.table.feasible
    assert winter.hot.table.reason in ("not_enough_heat", "house_alone_empties", "no_room_for_pulses")


def test_lines_come_from_the_systems_own_sheet():
    sheet = system_sheet(sluice_street.rope_walk_b(), shipped())
    found = line_of(3, sheet)
    assert found.litres == pytest.approx(sheet.value("real_volume_l"))
    assert found.rise_nitrate_mg_l_d == sheet.value("rise_nitrate_mg_l_d")
    assert found.water_c == sheet.value("water_c")
    assert found.borne_k == sheet.value("borne_k")
    salty = line_of(2, system_sheet(sluice_street.tidal_corner(), shipped()))
    assert salty.salinity_ppt == pytest.approx(4.0)


def test_what_evens_a_zone_out_itself_holds():
    sheet = told(room(**SMALL_HEADER))
    found = remedies.evened(sheet)
    assert found
    for way in found:
        assert state(sheet.changed(way.changes), "zones_even") != "short"
        assert state(sheet.changed(way.changes), "street_gives") != "short"


def test_longer_runs_bring_all_under_their_limit():
    sheet = told(room(zones=(Zone("One", zone_min=3),)))
    (way,) = remedies.longer_runs(sheet)
    after = sheet.changed(way.changes)
    assert state(after, "room_nitrate_held") != "short"
    assert all(row.state != "short" for row in after.value("exchanged"))
    assert state(after, "day_fits") == "holds"


def test_a_failed_mix_is_stood_before_or_cut_short():
    narrow = line(low_c=24.0, high_c=26.0)
    trusting = told(room(), narrow)
    assert state(trusting, "mix_failure_borne") == "tight"
    assert max(row.scalded_c for row in trusting.value("failing")) > 26
    bare = told(room(store=Store(mixed_c=25, thermostatic=False)), narrow)
    assert bare.value("pulse_bound").why == "hot"
    assert max(row.scalded_c for row in bare.value("failing")) <= 26 + 1e-6
    assert state(bare, "mix_failure_borne") == "holds"
    hopeless = told(room(store=Store(mixed_c=25, thermostatic=False), windows=(Window(0, 0.1),)), narrow)
    assert state(hopeless, "mix_failure_borne") == "short"


def test_each_tank_is_told_what_a_pulse_does_to_it():
    """The handbook's worked cases: a third of a tank at 25 °C, in one pulse without short cut, and its four quarters."""
    third = 60 * 47 / 3 / 24
    whole = room(
        zones=(Zone("One", "compensating", 24, 70, 0.5, 350, zone_min=third),),
        pulses=Pulses(straight_frac=0.0, shortest_min=third),
        supply=Supply(air_gap=True, winter_c=24.9, summer_c=24.9),
        store=Store(mixed_c=25),
    )
    (row, *_) = told(whole).value("failing")
    assert row.scalded_c == pytest.approx(34.9, abs=0.06)
    assert row.step_k == pytest.approx(0)
    cooler = replace(whole, store=Store(mixed_c=24.95))
    assert told(cooler).value("failing")[0].step_k == pytest.approx(0.05 * 0.2835, abs=1e-4)


def test_the_least_that_mends_a_day_itself_holds():
    sheet = told(
        room(
            store=Store(mixed_c=25, store_l=60, hot_w=500),
            windows=(Window(0, 3),),
            zones=(Zone("One", zone_min=60),),
        )
    )
    assert state(sheet, "day_fits") == "short"
    ways = asking.remedies(sheet, "day_fits")
    paths = {path for way in ways for path in way.changes}
    assert {"store.hot_w", "store.store_l", "zones.0.zone_min"} <= paths
    for way in ways:
        assert state(sheet.changed(way.changes), "day_fits") == "holds"


def test_what_could_go_wrong_goes_wrong():
    sheet = told(room(**SMALL_HEADER))
    valved = (sheet.value("zones.0.valved"),)
    args = (sheet.value("feed"), valved, (sheet.value("racks.0.standing"),), sheet.value("tanks"), 0.1)
    rows = {row.key: row for row in trials(1, *args)}
    assert rows["weak"].lph < rows["as_is"].lph
    assert rows["one_blocked"].even_frac < rows["as_is"].even_frac
    assert rows["larger"].even_frac > rows["as_is"].even_frac
    assert rows["ring"].even_frac > rows["as_is"].even_frac
    assert rows["middle"].even_frac > rows["as_is"].even_frac
    # Compensating emitters even nothing out where the header starves them, and everything where it does not.
    assert rows["compensating"].even_frac < rows["as_is"].even_frac
    wide = told(room())
    rows_of_wide = trials(
        1,
        wide.value("feed"),
        (wide.value("zones.0.valved"),),
        (wide.value("racks.0.standing"),),
        wide.value("tanks"),
        0.1,
    )
    assert next(row.even_frac for row in rows_of_wide if row.key == "compensating") == pytest.approx(1, abs=1e-6)
    assert rows["worn"].lph <= rows["as_is"].lph
    assert "two_open" not in rows


def test_twelve_of_54_on_three_shelves_and_their_zones():
    made = rack_of(Room("New"), "Rope Walk A", 12, 3, 54, None)
    assert len(made.places) == 12
    assert {place.shelf for place in made.places} == {1, 2, 3}
    assert made.places[0].tank_name == "A1"
    assert conflicts(made) == []
    sheet = sheet_of(made, shipped())
    assert sheet.value("room_water_l") == pytest.approx(648)
    assert state(sheet, "shelves_hold") == "holds"
    zoned, why = proposed_zones(sheet, 0.15)
    assert [row.tanks for row in why] == [12]
    after = sheet_of(zoned, shipped())
    assert after.value("exchanged")[0].passed_frac == pytest.approx(0.15 / 0.9, rel=0.15)
    assert state(after, "zones_even") == "holds"


def test_a_tank_of_another_size_sits_badly_and_is_told():
    odd = room(places=(*room().places[:11], replace(room().places[11], place_l=90.0)))
    _, why = proposed_zones(told(odd), 0.15)
    assert any(sentence.terms["tank"].value == "A12" for row in why for sentence in row.apart)


def test_soft_water_shrimps_are_not_fed_from_the_street():
    """Dwarf shrimps at 190 µS/cm on a tap of 450: told in red where they are on a zone, and left out of what is proposed."""
    shrimps = line(us_cm=190.0, borne_solids_frac=0.1, borne_k=1.0)
    sheet = told(room(), shrimps)
    assert state(sheet, "their_water") == "short"
    assert sheet.value("strange_frac") == pytest.approx((450 - 190) / 190)
    mixed = room(places=(*room().places, Place("Shrimps", 2, 1, 1, 5)))
    zoned, _ = proposed_zones(told(mixed, line(), replace(shrimps, system=2)), 0.15)
    assert zoned.places[-1].zone == 0
    assert zoned.places[0].zone == 1


def test_a_tank_without_a_plan_is_judged_at_the_warmth_it_is_kept_at():
    own = tuple(replace(place, system=0, place_l=47.0, place_c=29.0) for place in room().places)
    assert state(sheet_of(room(places=own), shipped()), "mix_near") == "tight"
    near = tuple(replace(place, place_c=25.5) for place in own)
    assert state(sheet_of(room(places=near), shipped()), "mix_near") == "holds"


def test_salt_water_stays_by_hand():
    zoned, _ = proposed_zones(
        told(room(places=(*room().places, Place("S", 2, 1, 1, 5))), line(), line(system=2, salinity_ppt=4)), 0.15
    )
    assert zoned.places[-1].zone == 0


def test_parts_follow_the_solved_lines():
    sheet = told(room())
    found = {part.label: part for part in parts(sheet)}
    assert found["Emitter, 24 L/h at 100 kPa"].quantity == 12
    assert found["Zone valve, shut without power, Kv 2"].quantity == 1
    assert found["Union, so that each serviced part comes out without a saw"].quantity == 2 * 5
    pipe = found["Pipe, 13 mm bore"].quantity
    assert pipe == pytest.approx(1.1 * sheet.value("zone_flows")[0].header_m, abs=0.06)
    # Three shelves of four tanks, 62 cm apart, and the way from the manifold.
    assert sheet.value("zone_flows")[0].header_m > 3 * 3 * 0.62


def test_commissioning_tells_the_planned_values():
    sheet = told(room())
    texts = [step.text for step in steps(sheet)]
    assert any("licensed" in text for text in texts)
    bucket = next(step for step in steps(sheet) if "{far_ml}" in step.text)
    far = max(sheet.value("zone_flows")[0].tanks, key=lambda t: t.pipe_m)
    assert bucket.terms["far_ml"].value == pytest.approx(far.lph * 1000 / 60)


@pytest.mark.parametrize(
    ("code", "path", "nearest", "more"),
    [
        ("off_every_rack", "places.0.rack", 1, {"places": (Place("x", rack=4),)}),
        ("above_the_rack", "places.0.shelf", 3, {"places": (Place("x", shelf=5),)}),
        ("no_such_zone", "places.0.zone", 1, {"places": (Place("x", zone=2),)}),
        ("two_in_one_place", "places.1.slot", 2, {"places": (Place("x"), Place("y"))}),
        ("ends_before_it_begins", "windows.0.window_to_h", 8.0, {"windows": (Window(7, 3),)}),
        ("ends_before_it_begins", "household.0.house_to_h", 9.0, {"household": (Household(8, 8, 10),)}),
        ("test_not_lower", "supply.tested_kpa", 150.0, {"supply": Supply(static_kpa=200, tested_kpa=220)}),
        ("summer_colder", "supply.summer_c", 12.0, {"supply": Supply(winter_c=12, summer_c=8)}),
        ("mix_hotter_than_store", "store.hot_c", 46.0, {"store": Store(mixed_c=36, hot_c=35)}),
    ],
)
def test_what_contradicts_itself_is_named_where_it_is(code, path, nearest, more):
    found = conflicts(room(**more))
    assert [type(one) for one in found] == [PlanConflict]
    assert (found[0].code, found[0].path, found[0].nearest) == (code, path, nearest)


def test_the_demo_room_makes_sense_and_has_its_troubles():
    walk_b = line_of(3, system_sheet(sluice_street.rope_walk_b(), shipped()))
    given = cellar_room(date(2026, 3, 2), 3, (5, 6))
    assert conflicts(given) == []
    sheet = sheet_of(given, shipped(), {3: walk_b})
    states = {key: state(sheet, key) for key, node in sheet.wiring.nodes.items() if node.check}
    assert states["zones_even"] == "short"
    assert states["day_fits"] == "holds"
    assert states["purified_lasts"] == "holds"
    assert states["no_flood"] == "tight"
    verdict = sheet.value("zones_even")
    assert isinstance(verdict, Verdict)
    assert verdict.reason.terms["least"].value == "A12"
