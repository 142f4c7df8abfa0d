"""A reservoir that is pumped to its zones: worked by hand, and what a keeper is told of it."""

from dataclasses import replace
from itertools import pairwise

import pytest

from loquen.core.model.roots.room import (
    Pulses,
    Purified,
    Purifier,
    Reservoir,
    Store,
    Supply,
    Treatment,
    Window,
    Zone,
)
from loquen.core.model.roots.room_conflicts import conflicts
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.rooms.parts import parts
from loquen.core.rooms.propose import proposed_zones
from loquen.core.rooms.stages.reservoir import ReservoirStore, ready_lph
from loquen.core.rooms.timetable import windows_left
from tests.core.rooms import line, room, state, told

PUMPED = (Zone("One", "compensating", 24, 70, zone_min=24, fed_from="reservoir"),)
STANDS = Reservoir(300, reservoir_c=25)


def soft_water(**more):
    """Twelve tanks of soft-water shrimps, on a reservoir of purified water with salts added."""
    own = Reservoir(300, reservoir_c=23, reservoir_purified_frac=1.0, added_us_cm=180, added_dkh=0.5)
    usual = {
        "zones": PUMPED,
        "reservoir": own,
        "purifier": Purifier(purifier_fitted=True, membranes=2, purified_l=300),
    }
    return room(**(usual | more))


def test_what_is_ready_again_is_the_slower_of_refill_and_heater():
    own = ReservoirStore(300, 0.85, 10, 25, 1000, 60, 60)
    # 940 W warm 3600 × 940 ÷ (4186 × 18) = 44.9 L/h by 18 K; by 7 K they would warm more than the refill brings.
    assert ready_lph(own, 7) == pytest.approx(44.91, abs=0.01)
    assert ready_lph(own, 18) == 60
    assert ready_lph(own, 26) == 60


def test_figures_of_a_pumped_room_as_worked_by_hand():
    sheet = told(room(zones=PUMPED, reservoir=STANDS), line(low_c=15))
    litres = 288 * 24 / 60
    assert sheet.value("pumped_l_d") == pytest.approx(litres, rel=1e-6)
    assert sheet.value("street_l_d") == 0
    assert sheet.value("winter_hot_l_d") == 0
    assert sheet.value("reservoir_serves_l") == pytest.approx(255)
    assert sheet.value("ready_winter_lph") == pytest.approx(44.91, abs=0.01)
    # One start of 24 minutes from full, refilled meanwhile.
    assert sheet.value("least_reservoir_l") == pytest.approx(255 - litres + 44.91 * 0.4, abs=0.02)
    assert sheet.value("changer_kwh") == pytest.approx(7 * (litres * 4186 * 18 / 3.6e6 + 0.25 * 0.4), rel=1e-5)
    assert sheet.value("refill_draw_lph") == 60
    assert sheet.value("cartridges_lph") == 60
    assert sheet.value("room_contact_min") == pytest.approx(3.6)
    assert sheet.value("supply_wanted_lph") == 260
    # Half of it purified: the street gives the other half, and the membranes the rest in their own time.
    half = replace(sheet.root, reservoir=replace(STANDS, reservoir_purified_frac=0.5))
    assert told(half).value("refill_draw_lph") == 30
    # The pump and its pipe: what 288 L/h leave of 250 kPa on the curve through 1500 L/h at 120 kPa, 1.2 m higher.
    row = sheet.value("zone_flows")[0]
    assert row.tap_kpa == pytest.approx(250 - 130 * (288 / 1500) ** 2, abs=0.1)
    assert row.manifold_kpa == pytest.approx(row.tap_kpa - 9.78 * 1.2, abs=1.0)


def test_ways_are_reckoned_along_the_walls_until_they_are_measured():
    places = (*room().places[:11], replace(room().places[11], zone=0))
    sheet = told(room(places=places))
    # Tap at 0.2, 1.7 m and 1 m up; manifold at 0.2, 0.2 and 1.8 up.
    assert sheet.value("feed_run_m") == pytest.approx(1.5 + 0.8)
    # Hot store at 0.3, 1.15 on the floor: 2.85 m of 16 mm.
    assert sheet.value("hot_leg_l") == pytest.approx(0.20106 * 2.85, rel=1e-3)
    assert sheet.value("reservoir_run_m") == pytest.approx(0.1 + 2.1 + 1.8)
    # A12, fourth on the lowest shelf: its middle 3 × 62 + 30 cm along a rack that begins 1 m from the wall; rim at 50 cm.
    over = ((1 + 2.16 - 2.1) ** 2 + 2.8**2) ** 0.5
    assert sheet.value("farthest_by_hand").tank == "A12"
    assert sheet.value("hose_m") == pytest.approx(over + 0.5 + 0.5)
    assert sheet.value("collector_m") == pytest.approx(2.9 - 1 + 2.8)
    assert sheet.value("collector_drop_cm") == pytest.approx(4.7)
    measured = room(treatment=Treatment(feed_m=9.0), reservoir=Reservoir(reservoir_pipe_m=4.0))
    assert told(measured).value("feed_run_m") == 9
    assert told(measured).value("reservoir_run_m") == 4
    assert told(measured).value("zone_flows")[0].tap_kpa > sheet.value("zone_flows")[0].before_kpa


def test_water_in_a_reservoir_is_neither_gassed_nor_a_shock_nor_scalding():
    cold = Supply(air_gap=True, winter_c=4, house_lph=200, supply_nitrate_mg_l=5 / NITRATE_PER_N)
    long = replace(PUMPED[0], zone_min=60)
    street = told(room(supply=cold, zones=(replace(long, fed_from="street"),), store=Store(mixed_c=28)))
    pumped = told(room(supply=cold, zones=(long,), reservoir=STANDS))
    assert {bound.why for bound in street.value("pulse_bounds")} >= {"gas", "step"}
    assert {bound.why for bound in pumped.value("pulse_bounds")} == {"cold"}
    assert all(row.step_k == 0 for row in pumped.value("failing"))
    assert max(row.scalded_c for row in pumped.value("failing")) == 25
    assert min(row.chilled_c for row in pumped.value("failing")) >= 23 - 1e-6
    assert state(pumped, "runs_borne") == "holds"


def test_one_zone_at_a_time_whichever_store_it_draws_from():
    places = (*room().places[:6], *(replace(place, zone=2) for place in room().places[6:]))
    both = room(
        places=places,
        zones=(Zone("Street", "compensating", 24, 70, zone_min=60), replace(PUMPED[0], zone_min=60)),
        reservoir=STANDS,
        pulses=Pulses(gap_min=3),
    )
    (winter, _) = told(both).value("seasons")
    rows = winter.schedule
    assert {row["zone"] for row in rows} == {1, 2}
    for row, later in pairwise(rows):
        assert later["start_h"] - row["end_h"] >= 3 / 60 - 1e-9
    assert {row["zone"] for row in winter.hot.table.schedule} == {1}
    # Two hours of each zone do not go into three.
    crowded = told(
        replace(both, zones=tuple(replace(z, zone_min=100) for z in both.zones), windows=(Window(0, 3),))
    )
    assert crowded.value("seasons")[0].hot.table.feasible
    assert crowded.value("seasons")[0].reservoir.table.reason == "not_enough_hours"
    assert state(crowded, "reservoir_lasts") == "short"
    assert not crowded.value("seasons")[0].feasible


def test_what_is_left_of_the_hours_allowed():
    assert windows_left([(0, 7)], [(1, 2), (4, 4.5)], 0.5) == ((0, 0.5), (2.5, 3.5), (5.0, 7))
    assert windows_left([(0, 2), (3, 4)], [(0, 4)], 0) == ()


def test_shrimps_may_live_on_water_that_is_made_for_them():
    shrimps = line(us_cm=200, rise_nitrate_mg_l_d=0.05, water_c=23, low_c=20, high_c=25)
    made = told(soft_water(), shrimps)
    # 450 µS/cm, a twenty-fifth of it let through, and 180 added.
    assert made.value("reservoir_us_cm") == pytest.approx(450 * 0.04 + 180)
    assert state(made, "their_water") == "holds"
    assert state(told(room(), shrimps), "their_water") == "short"
    plain = told(soft_water(reservoir=Reservoir(300, reservoir_c=23, reservoir_purified_frac=1.0)), shrimps)
    assert state(plain, "their_water") == "short"
    # Its nitrate is the street's, a twenty-fifth of it; its KH besides what is added.
    row = made.value("exchanged")[0]
    rise = 0.05 / row.exchanged_frac
    assert row.nitrate == pytest.approx(5 / NITRATE_PER_N * 0.04 + rise, rel=1e-4)
    assert row.kh_dkh == pytest.approx(5 * 0.04 + 0.5 - 0.1 / row.exchanged_frac, rel=1e-4)


def test_the_reservoir_draws_on_the_purified_store():
    made = told(soft_water(purified=(Purified("Sat", 10, 30, 50),)))
    litres = 288 * 0.4
    assert made.value("reservoir_purified_l_d") == pytest.approx(litres, rel=1e-6)
    assert made.value("purified_l_wk") == pytest.approx(50 + 7 * litres, rel=1e-6)
    assert state(made, "purified_lasts") == "holds"
    one = told(soft_water(purifier=Purifier(purifier_fitted=True, purified_l=300)))
    # One membrane makes 5.6 L/h in winter, 940 L a week at most, and does; a small store does not last the hours.
    assert state(one, "purified_lasts") == "holds"
    small = told(soft_water(purifier=Purifier(purifier_fitted=True, membranes=1, membrane_l_d=200, purified_l=100)))
    assert state(small, "purified_lasts") == "short"


def test_zones_proposed_draw_from_the_reservoir_whose_water_it_is():
    shrimps = line(system=2, us_cm=200, water_c=23)
    places = (*room().places[:6], *(replace(place, system=2) for place in room().places[6:]))
    proposed, told_of = proposed_zones(told(soft_water(places=places, zones=()), line(), shrimps), 0.15)
    assert [zone.fed_from for zone in proposed.zones] == ["street", "reservoir"]
    assert [place.zone for place in proposed.places] == [1] * 6 + [2] * 6
    assert len(told_of) == 2
    bare = room(places=places, zones=())
    by_hand, _ = proposed_zones(told(bare, line(), shrimps), 0.15)
    assert [place.zone for place in by_hand.places] == [1] * 6 + [0] * 6


def test_a_reservoir_that_can_not_be():
    def codes(given):
        return {(found.code, found.path) for found in conflicts(given)}

    assert codes(room(zones=PUMPED)) == {("no_reservoir", "reservoir.reservoir_l")}
    bad = Reservoir(300, pump_kpa=100, pump_tested_kpa=120, reservoir_purified_frac=0.5)
    assert codes(room(zones=PUMPED, reservoir=bad)) == {
        ("test_not_lower", "reservoir.pump_tested_kpa"),
        ("nothing_purifies", "reservoir.reservoir_purified_frac"),
    }
    assert codes(room(zones=PUMPED, reservoir=STANDS)) == set()


def test_what_a_reservoir_asks_for_is_on_the_list():
    bought = {row.label for row in parts(told(room(zones=PUMPED, reservoir=STANDS)))}
    assert "Reservoir of 300 L with a lid" in bought
    assert "Low-level switch that stops pump and heater" in bought
    assert not any("eservoir" in row.label for row in parts(told(room())))
