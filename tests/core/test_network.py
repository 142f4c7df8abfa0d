"""A room's network: given cases, an independent engine beside it, and what can not be."""

import json
import math
import warnings
from pathlib import Path

import pytest

from loquen.core.errors import NamedCase, OutOfRange
from loquen.core.rooms.network import friction_smooth, read_network, solve_network, solved, surge_kpa
from tests.core.network_engine import engine_flows
from tests.core.networks import left_over, made, pruned, wild

GIVEN = json.loads((Path(__file__).parent / "cases/networks.json").read_text())
NEAR = 0.002
ALIKE_LPH = 0.02


def one(**more):
    case = {
        "nodes": [{"id": "S", "elevation_m": 0}, {"id": "e", "elevation_m": 1}],
        "sources": [{"node": "S", "static_kpa": 200}],
        "pipes": [{"id": "p", "from": "S", "to": "e", "length_m": 10, "bore_mm": 4, "minor_k": 2}],
        "emitters": [
            {"id": "e", "node": "e", "kind": "plain", "nominal_lph": 38, "nominal_kpa": 100, "exponent": 0.5}
        ],
    }
    return {**case, **more}


def test_one_emitter_as_worked_by_hand():
    found = solve_network(**one())
    assert found.emitters_lph["e"] == pytest.approx(44.80, rel=NEAR)
    assert found.pressures_kpa["e"] == pytest.approx(138.98, rel=NEAR)
    assert found.spread_frac == 1.0


@pytest.mark.parametrize(
    ("name", "flows", "state"),
    [
        ("two_regulated", (43.42, 42.02, 41.44, 40.00), "active"),
        ("two_weak", (41.33, 39.94, 39.37, 40.00), "open"),
    ],
)
def test_given_networks(name, flows, state):
    case = {key: value for key, value in GIVEN[name].items() if key not in ("id", "about")}
    found = solve_network(**case)
    assert list(found.emitters_lph.values()) == pytest.approx(flows, rel=NEAR)
    assert found.regulators == {"reg": state}
    if state == "active":
        assert found.pressures_kpa["c"] == pytest.approx(150, abs=1e-6)
    assert found.spread_frac == pytest.approx(min(flows) / max(flows), rel=NEAR)


@pytest.mark.parametrize(
    ("reynolds", "factor"), [(2500, 0.02915), (3000, 0.03313), (20_000, 0.02606), (1000, 0.064)]
)
def test_friction_is_smooth_between_laminar_and_turbulent(reynolds, factor):
    assert float(friction_smooth(reynolds, 1e-4)) == pytest.approx(factor, abs=1e-5)


@pytest.mark.parametrize("at", [2000, 4000])
def test_friction_joins_in_value_and_slope(at):
    below, here, above = (float(friction_smooth(at + by, 1e-4)) for by in (-0.5, 0, 0.5))
    assert below == pytest.approx(above, rel=1e-3)
    assert here - below == pytest.approx(above - here, rel=0.05)


def test_surge_of_water_that_is_stopped():
    assert surge_kpa(1.35) == pytest.approx(539, abs=0.5)


@pytest.mark.parametrize("first", range(0, 200, 20))
def test_like_an_independent_engine(first):
    """Trees, rings, slopes, sagging supplies, checks, shut valves, regulators in every state."""
    compared = 0
    for seed in range(first, first + 20):
        network = made(seed)
        found = solve_network(**network)
        holding = {
            row["id"]
            for row in network["emitters"]
            if row["kind"] == "compensating" and found.emitters_lph[row["id"]] >= row["nominal_lph"] * (1 - 1e-9)
        }
        with warnings.catch_warnings(record=True) as caught:
            warnings.simplefilter("always")
            flows, heads = engine_flows(pruned(network, found), holding)
        if caught:  # the other engine did not settle
            continue
        compared += 1
        for name, lph in flows.items():
            assert found.emitters_lph[name] == pytest.approx(lph, rel=NEAR, abs=ALIKE_LPH), (seed, name)
        at = {row["id"]: row["elevation_m"] for row in network["nodes"]}
        least = {row["id"]: row["min_kpa"] for row in network["emitters"] if row["id"] in holding}
        node_of = {row["id"]: row["node"] for row in network["emitters"]}
        for name, kpa in least.items():
            assert (heads[node_of[name]] - at[node_of[name]]) * 9.79 > kpa * 0.99, (seed, name)
    assert compared >= 18


def test_every_state_of_a_regulator_is_met():
    states = {state for seed in range(200) for state in solve_network(**made(seed)).regulators.values()}
    assert states == {"active", "open", "closed"}


@pytest.mark.parametrize("first", range(0, 500, 100))
def test_any_network_settles_and_adds_up(first):
    for seed in range(first, first + 100):
        network = wild(seed)
        found = solve_network(**network)
        assert left_over(network, found) <= 1e-9 * max(found.total_lph, 1.0), seed
        assert sum(found.emitters_lph.values()) == pytest.approx(found.total_lph, rel=1e-9, abs=1e-8), seed
        for pipe in network["pipes"]:
            if pipe["check"]:
                assert found.flows_lph[pipe["id"]] >= -1e-6, seed
        for regulator in network["regulators"]:
            outlet = found.pressures_kpa[regulator["to"]]
            state = found.regulators[regulator["id"]]
            assert found.flows_lph[regulator["id"]] >= -1e-6, seed
            if state == "active":
                assert outlet == pytest.approx(regulator["setpoint_kpa"], abs=1e-3), seed
            elif state == "open":
                assert outlet <= regulator["setpoint_kpa"] + 1e-3, seed


def test_a_standing_network_moves_as_one_that_is_read_anew():
    case = {"resistances": [], "valves": [], "regulators": [], **one(), "temp_c": 20.0}
    standing = read_network(**case)
    before = solved(standing)
    wider = {**case["pipes"][0], "bore_mm": 6}
    warm = solved(standing.with_pipe("p", wider), before)
    assert warm.emitters_lph["e"] == pytest.approx(
        solve_network(**{**case, "pipes": [wider]}).emitters_lph["e"], rel=1e-6
    )
    weak = solved(standing.with_source("S", 120, 500, 60), before)
    again = {**case, "sources": [{"node": "S", "static_kpa": 120, "tested_lph": 500, "tested_kpa": 60}]}
    assert weak.emitters_lph["e"] == pytest.approx(solve_network(**again).emitters_lph["e"], rel=1e-6)
    half = solved(standing.with_emitter_nominal("e", 19), before)
    emitter = {**case["emitters"][0], "nominal_lph": 19}
    assert half.emitters_lph["e"] == pytest.approx(
        solve_network(**{**case, "emitters": [emitter]}).emitters_lph["e"], rel=1e-6
    )


def test_behind_a_shut_valve_there_is_no_pressure():
    network = one(
        nodes=[*one()["nodes"], {"id": "x", "elevation_m": 0}],
        valves=[{"id": "v", "from": "S", "to": "x", "kv_m3_h": 1, "open": False}],
    )
    network["emitters"] = [
        *network["emitters"],
        {"id": "off", "node": "x", "kind": "compensating", "nominal_lph": 8, "min_kpa": 50, "max_kpa": 300},
    ]
    found = solve_network(**network)
    assert found.pressures_kpa["x"] is None
    assert found.emitters_lph["off"] == 0.0
    assert found.idle_emitters == found.idle == ["off"]
    assert found.spread_frac == found.spread == 1.0


def test_a_compensating_emitter_out_of_its_range_is_named():
    def at(static, least, most):
        held = {"id": "e", "node": "e", "kind": "compensating", "nominal_lph": 8, "min_kpa": least, "max_kpa": most}
        return solve_network(**one(sources=[{"node": "S", "static_kpa": static}], emitters=[held]))

    inside = at(200, 70, 300)
    assert inside.emitters_lph["e"] == pytest.approx(8, rel=1e-6)
    assert inside.out_of_range == inside.below_range == []
    low = at(60, 100, 300)
    kpa = low.pressures_kpa["e"]
    assert low.below_range == ["e"]
    assert low.emitters_lph["e"] == pytest.approx(8 * math.sqrt(kpa / 100), rel=1e-5)
    assert at(500, 70, 300).out_of_range == ["e"]


def test_a_supply_under_the_emitters_gives_nothing():
    found = solve_network(**one(sources=[{"node": "S", "static_kpa": 5}]))
    assert found.emitters_lph["e"] == 0.0
    assert found.pressures_kpa["S"] == pytest.approx(5, abs=1e-3)
    assert found.spread_frac == 0.0


@pytest.mark.parametrize(
    ("code", "more"),
    [
        ("no_source", {"sources": []}),
        ("no_such_node", {"sources": [{"node": "nowhere", "static_kpa": 1}]}),
        ("impossible_value", {"pipes": [{"id": "p", "from": "S", "to": "e", "length_m": 1, "bore_mm": 0}]}),
        ("impossible_value", {"pipes": [{"id": "p", "from": "S", "to": "e", "length_m": -1, "bore_mm": 9}]}),
        ("impossible_value", {"sources": [{"node": "S", "static_kpa": 100, "tested_lph": 9, "tested_kpa": 200}]}),
        ("twice_named", {"nodes": [{"id": "S", "elevation_m": 0}] * 2}),
    ],
)
def test_what_can_not_be_is_named(code, more):
    with pytest.raises(NamedCase) as found:
        solve_network(**one(**more))
    assert found.value.code == code


def test_water_hotter_than_the_relation_is_refused():
    with pytest.raises(OutOfRange):
        solve_network(**one(temp_c=80))
