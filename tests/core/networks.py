"""Networks made by chance, from a seed: what rooms have, and worse."""

import random


def made(seed: int, emitters: int | None = None) -> dict:
    """A network with a source, a regulator often, zones of headers with drops, rings, shut valves, slopes."""
    chance = random.Random(seed)
    count = emitters or chance.choice([1, 3, 8, 20, 45])
    temp = chance.uniform(5, 30)
    network: dict = {
        "temp_c": temp,
        "nodes": [],
        "sources": [],
        "pipes": [],
        "valves": [],
        "regulators": [],
        "resistances": [],
        "emitters": [],
    }

    def node(name: str, height: float) -> str:
        network["nodes"].append({"id": name, "elevation_m": height})
        return name

    def pipe(start: str, end: str, length: float, bore: float, k: float, check: bool = False) -> None:
        network["pipes"].append(
            {
                "id": f"p{len(network['pipes'])}",
                "from": start,
                "to": end,
                "length_m": length,
                "bore_mm": bore,
                "roughness_mm": chance.choice([0.0015, 0.01]),
                "minor_k": k,
                "check": check,
                "open": True,
            }
        )

    def source(name: str, static: float) -> None:
        row = {"node": name, "static_kpa": static}
        if chance.random() < 0.7:
            row |= {"tested_lph": chance.uniform(600, 2500), "tested_kpa": static * chance.uniform(0, 0.7)}
        network["sources"].append(row)

    at = node("S", chance.uniform(-1, 1))
    source("S", chance.uniform(60, 500))
    pipe(at, node("a", 0.0), chance.uniform(1, 15), chance.choice([9, 13, 16, 20]), 2.0, chance.random() < 0.3)
    at = "a"
    if chance.random() < 0.5:
        network["resistances"].append(
            {
                "id": "cartridge",
                "from": at,
                "to": node("c", 0.0),
                "linear_kpa_per_lph": chance.uniform(0.001, 0.05),
                "quadratic_kpa_per_lph2": 0.0,
            }
        )
        at = "c"
    if chance.random() < 0.6:
        network["regulators"].append(
            {
                "id": "reg",
                "from": at,
                "to": node("m", 0.2),
                "setpoint_kpa": chance.uniform(40, 350),
                "kv_m3_h": chance.uniform(1, 4),
            }
        )
        at = "m"
    mixed = chance.random() < 0.5
    exponent = 0.5 if mixed else chance.choice([0.4, 0.5, 0.6, 0.75])
    manifold, made_emitters, zone = at, 0, 0
    while made_emitters < count:
        zone += 1
        tanks = min(count - made_emitters, chance.randint(1, 14))
        head = node(f"z{zone}", chance.uniform(0, 2.5))
        network["valves"].append(
            {
                "id": f"v{zone}",
                "from": manifold,
                "to": head,
                "kv_m3_h": chance.uniform(0.5, 3),
                "open": made_emitters == 0 or chance.random() < 0.8,
            }
        )
        bore, height = chance.choice([9, 13, 16]), network["nodes"][-1]["elevation_m"]
        before, first = head, head
        for i in range(tanks):
            here = node(f"z{zone}h{i}", height)
            pipe(before, here, chance.uniform(0.3, 2.0), bore, 0.6)
            tip = node(f"z{zone}t{i}", height + chance.uniform(-0.5, 0.3))
            pipe(here, tip, chance.uniform(0.2, 1.5), chance.choice([3, 4, 5]), 1.8)
            nominal = chance.choice([8, 20, 40])
            name = f"e{made_emitters}"
            if mixed and chance.random() < 0.5:
                least = chance.choice([50, 70, 100])
                row = {"kind": "compensating", "min_kpa": least, "max_kpa": 350}
            else:
                row = {"kind": "plain", "nominal_kpa": 100, "exponent": exponent}
            network["emitters"].append({"id": name, "node": tip, "nominal_lph": nominal, **row})
            made_emitters += 1
            before = here
        if chance.random() < 0.4 and tanks > 1:
            pipe(before, first, chance.uniform(1, 6), bore, 1.2)
    if chance.random() < 0.15:
        end = node("S2", chance.uniform(0, 1))
        source(end, chance.uniform(60, 300))
        pipe(end, manifold, chance.uniform(1, 10), 13, 1.0, True)
    return network


def pruned(network: dict, solved) -> dict:
    """The network without what is shut or dry, which another engine would leak through."""
    wet = {name for name, kpa in solved.pressures_kpa.items() if kpa is not None}
    kept = {**network, "nodes": [row for row in network["nodes"] if row["id"] in wet]}
    for kind in ("pipes", "valves", "regulators", "resistances"):
        kept[kind] = [
            row for row in network[kind] if row.get("open", True) and row["from"] in wet and row["to"] in wet
        ]
    kept["emitters"] = [row for row in network["emitters"] if row["node"] in wet and row["nominal_lph"] > 0]
    return kept
