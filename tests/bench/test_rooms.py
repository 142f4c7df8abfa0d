"""Speed of rooms: networks beside an independent engine, a room of 250 systems, one of its edits."""

from dataclasses import replace

import pytest

from loquen.core.library.whole import shipped
from loquen.core.model.roots.room import Place, Rack, Room, Store, Supply, Zone
from loquen.core.rooms.book import sheet_of
from loquen.core.rooms.lines import line_of
from loquen.core.rooms.network import read_network, solve_network, solved
from loquen.core.system.book import sheet_of as system_sheet
from loquen.demo.sluice_street import bottle_shelf, rope_walk_b
from loquen.house.rooms import view
from tests.core.network_engine import engine_flows


def house(count):
    """A regulated line with a zone for every twelve tanks, each with its drop."""
    network = {
        "temp_c": 20,
        "nodes": [{"id": "S", "elevation_m": 0}, {"id": "m0", "elevation_m": 0}, {"id": "m", "elevation_m": 0}],
        "sources": [{"node": "S", "static_kpa": 400, "tested_lph": 60 * count, "tested_kpa": 150}],
        "pipes": [],
        "valves": [],
        "resistances": [],
        "regulators": [{"id": "r", "from": "m0", "to": "m", "setpoint_kpa": 150, "kv_m3_h": 2 * count / 60}],
        "emitters": [],
    }

    def pipe(name, start, end, length, bore, k):
        row = {"id": name, "from": start, "to": end, "length_m": length, "bore_mm": bore}
        network["pipes"].append(row | {"roughness_mm": 0.0015, "minor_k": k, "check": False, "open": True})

    pipe("main", "S", "m0", 3, 13 * (count / 60) ** 0.5, 0)
    before = ""
    for i in range(count):
        if i % 12 == 0:
            before = f"z{i}"
            network["nodes"].append({"id": before, "elevation_m": 1})
            network["valves"].append({"id": f"v{i}", "from": "m", "to": before, "kv_m3_h": 2, "open": True})
        network["nodes"] += [{"id": f"h{i}", "elevation_m": 1.5}, {"id": f"t{i}", "elevation_m": 1.4}]
        pipe(f"h{i}", before, f"h{i}", 0.5, 13, 0.6)
        pipe(f"t{i}", f"h{i}", f"t{i}", 0.4, 4, 1.8)
        before = f"h{i}"
        emitter = {"id": f"e{i}", "node": f"t{i}", "kind": "plain", "nominal_lph": 24, "nominal_kpa": 100}
        network["emitters"].append(emitter | {"exponent": 0.5})
    return network


def test_network_of_300_built_and_solved_budget_15_ms(benchmark):
    network = house(300)
    benchmark(lambda: solve_network(**network))


def test_network_of_1000_built_and_solved_budget_40_ms(benchmark):
    network = house(1000)
    benchmark(lambda: solve_network(**network))


@pytest.mark.parametrize("count", [300, 1000])
def test_the_independent_engine_written_loaded_and_solved(benchmark, count):
    network = house(count)
    benchmark(lambda: engine_flows(network, set()))


def test_one_value_of_a_standing_network_of_300_budget_5_ms(benchmark):
    network = house(300)
    standing = read_network(**network)
    found = solved(standing)
    bores = iter(range(10_000_000))
    pipe = network["pipes"][1]
    benchmark(lambda: solved(standing.with_pipe("h0", {**pipe, "bore_mm": 9 + next(bores) % 8}), found))


def test_a_slider_at_60_tanks_budget_33_ms(benchmark):
    room, lines = crowded(60)
    sheet = sheet_of(room, shipped(), lines)
    sheet.all()
    bores = iter(range(10_000_000))
    benchmark(lambda: sheet.changed({"zones.0.header_mm": 9.0 + next(bores) * 1e-6}).look("zones.0.zone_flow"))


def crowded(count):
    """A room of so many systems, each of its own, on racks of twelve and zones of twelve."""
    lines, places, racks, zones = {}, [], [], []
    made = [line_of(0, system_sheet(plan(), shipped())) for plan in (rope_walk_b, bottle_shelf)]
    for i in range(count):
        rack = i // 12
        if i % 12 == 0:
            racks.append(Rack(f"Rack {rack + 1}", 1.0 + 4 * rack, rack_cm=280, rack_depth_cm=45, shelf_cm=70))
            zones.append(Zone(f"Zone {rack + 1}", nominal_lph=24, zone_min=12))
        lines[i + 1] = replace(made[i % 2], system=i + 1)
        places.append(Place(f"T{i + 1}", i + 1, rack + 1, 3 - i % 12 // 4, i % 4 + 1, rack + 1))
    supply = Supply(static_kpa=450, tested_lph=3000, tested_kpa=200, air_gap=True)
    room = Room(
        "Crowd",
        supply,
        store=Store(store_l=800, hot_w=12_000),
        racks=tuple(racks),
        places=tuple(places),
        zones=tuple(zones),
    )
    return room, lines


def test_room_of_250_systems_fresh_budget_1000_ms(benchmark):
    room, _ = crowded(250)

    def whole():
        plans = [rope_walk_b(), bottle_shelf()] * 125
        lines = {i + 1: line_of(i + 1, system_sheet(plan, shipped())) for i, plan in enumerate(plans)}
        return sheet_of(room, shipped(), lines).all()

    benchmark.pedantic(whole, rounds=3)


def test_room_of_250_page_with_remedies(benchmark):
    room, lines = crowded(250)
    benchmark.pedantic(lambda: view.view(sheet_of(room, shipped(), lines)), rounds=3)


def test_one_systems_edit_in_a_room_of_250_budget_60_ms(benchmark):
    room, lines = crowded(250)
    sheet = sheet_of(room, shipped(), lines)
    sheet.all()
    risen = iter(range(10_000_000))

    def edited():
        line = replace(lines[1], rise_nitrate_mg_l_d=1 + next(risen) % 5)
        return sheet.changed({"asked.lines": {**lines, 1: line}}).all()

    benchmark(edited)
