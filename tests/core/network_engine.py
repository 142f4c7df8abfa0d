"""The same network put to an independent engine, through its own text format."""

import tempfile
from pathlib import Path

from epanet import toolkit

from loquen.core.physics.chemistry import density_kg_m3
from loquen.core.physics.geometry import GRAVITY_M_S2
from loquen.core.physics.hydraulics import viscosity_m2_s

ENGINE_VISCOSITY_M2_S = 1.1e-5 * 0.3048**2
VALVE_MM = 10.0


def k_of_square(m_per_lph2: float) -> float:
    """The loss coefficient, in a valve of VALVE_MM, that loses so much at a flow squared."""
    speed = 1 / 3.6e6 / (3.141592653589793 / 4 * (VALVE_MM / 1000) ** 2)
    return m_per_lph2 * 2 * 9.81456 / speed**2


def engine_flows(network: dict, holding: set[str]) -> tuple[dict[str, float], dict[str, float]]:
    """L/h of every emitter and m of head at every node that the engine knows.

    Shut and unreached parts are to be left out before; plain emitters share one exponent, which is 0.5 where
    compensating ones stand among them. `holding` are the compensating ones taken to be in their range, which are a
    demand to the engine (its flow control valves pass some 0.1 L/h more for every third of a metre): whether they are
    is seen by its pressures.
    """
    with tempfile.TemporaryDirectory() as folder:
        file = Path(folder) / "network.inp"
        file.write_text(as_text(network, holding))
        project = toolkit.createproject()
        try:
            toolkit.open(project, str(file), str(file.with_suffix(".rpt")), "")
            toolkit.setoption(project, toolkit.EMITBACKFLOW, 0)
            toolkit.openH(project)
            toolkit.initH(project, 0)
            toolkit.runH(project)
            flows = {
                emitter["id"]: 1000
                * toolkit.getlinkvalue(project, toolkit.getlinkindex(project, f"L_{emitter['id']}"), toolkit.FLOW)
                for emitter in network["emitters"]
            }
            heads = {
                node["id"]: toolkit.getnodevalue(project, toolkit.getnodeindex(project, node["id"]), toolkit.HEAD)
                for node in network["nodes"]
            }
            toolkit.closeH(project)
            toolkit.close(project)
        finally:
            toolkit.deleteproject(project)
    return flows, heads


def as_text(network: dict, holding: set[str]) -> str:
    """The network in the engine's text format."""
    temp = network["temp_c"]
    kpa_per_m = float(density_kg_m3(0.0, temp)) * GRAVITY_M_S2 / 1000
    exponent = next((e["exponent"] for e in network["emitters"] if e["kind"] == "plain"), 0.5)
    parts = {name: [] for name in ("JUNCTIONS", "RESERVOIRS", "PIPES", "VALVES", "CURVES", "EMITTERS")}
    heights = {node["id"]: node["elevation_m"] for node in network["nodes"]}
    parts["JUNCTIONS"] += [f"{name} {height} 0" for name, height in heights.items()]
    sources(parts, network, heights, kpa_per_m)
    links(parts, network, kpa_per_m)
    for emitter in network["emitters"]:
        name = emitter["id"]
        demand = emitter["nominal_lph"] / 1000 if name in holding else 0
        parts["JUNCTIONS"].append(f"E_{name} {heights[emitter['node']]} {demand}")
        parts["PIPES"].append(f"L_{name} {emitter['node']} E_{name} 0.0001 50 0.0015 0 Open")
        least = emitter["nominal_kpa" if emitter["kind"] == "plain" else "min_kpa"]
        if name not in holding:
            coefficient = emitter["nominal_lph"] / 1000 / (least / kpa_per_m) ** exponent
            parts["EMITTERS"].append(f"E_{name} {coefficient}")
    options = [
        *(
            "Units CMH",
            "Headloss D-W",
            "Trials 400",
            "Accuracy 0.00001",
            "Unbalanced Continue 10",
            "HEADERROR 0.00001",
        ),
        f"Emitter Exponent {exponent}",
        f"Viscosity {float(viscosity_m2_s(temp)) / ENGINE_VISCOSITY_M2_S}",
    ]
    sections = [line for name, lines in parts.items() for line in (f"[{name}]", *lines)]
    return "\n".join([*sections, "[OPTIONS]", *options, "[TIMES]", "Duration 0", "[END]"])


def sources(parts: dict, network: dict, heights: dict, kpa_per_m: float) -> None:
    """Each source as a reservoir behind a valve that loses its sag, and a check."""
    for source in network["sources"]:
        name = source["node"]
        parts["RESERVOIRS"].append(f"R_{name} {heights[name] + source['static_kpa'] / kpa_per_m}")
        sag = 1e-9
        if source.get("tested_lph"):
            sag = (source["static_kpa"] - source["tested_kpa"]) / kpa_per_m / source["tested_lph"] ** 2
        parts["JUNCTIONS"].append(f"J_{name} {heights[name]} 0")
        parts["VALVES"].append(f"V_{name} R_{name} J_{name} {VALVE_MM} TCV {k_of_square(sag)} 0")
        parts["PIPES"].append(f"C_{name} J_{name} {name} 0.001 100 0.0015 0 CV")


def links(parts: dict, network: dict, kpa_per_m: float) -> None:
    for pipe in network["pipes"]:
        status = "CV" if pipe.get("check") else "Open"
        parts["PIPES"].append(
            f"{pipe['id']} {pipe['from']} {pipe['to']} {max(pipe['length_m'], 1e-4)} {pipe['bore_mm']} "
            f"{pipe['roughness_mm']} {pipe['minor_k']} {status}"
        )
    for kind, setting in (("valves", None), ("regulators", "setpoint_kpa")):
        for valve in network[kind]:
            k = k_of_square(100 / kpa_per_m / (1000 * valve["kv_m3_h"]) ** 2)
            words = f"TCV {k} 0" if setting is None else f"PRV {valve[setting] / kpa_per_m} {k}"
            parts["VALVES"].append(f"{valve['id']} {valve['from']} {valve['to']} {VALVE_MM} {words}")
    for part in network["resistances"]:
        for flow in range(0, 4000, 20):
            lost = part["linear_kpa_per_lph"] * flow + part["quadratic_kpa_per_lph2"] * flow**2
            parts["CURVES"].append(f"{part['id']} {flow / 1000} {lost / kpa_per_m}")
        parts["VALVES"].append(f"{part['id']} {part['from']} {part['to']} {VALVE_MM} GPV {part['id']} 0")
