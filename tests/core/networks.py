"""Networks made by chance, from a seed: what rooms have, and worse."""

import random

EMPTY = ("nodes", "sources", "pipes", "valves", "regulators", "resistances", "emitters")


class Making:
    """A network as it grows."""

    def __init__(self, seed: int) -> None:
        self.chance = random.Random(seed)
        self.network: dict = {"temp_c": self.chance.uniform(5, 30), **{kind: [] for kind in EMPTY}}

    def node(self, name: str, height: float) -> str:
        self.network["nodes"].append({"id": name, "elevation_m": height})
        return name

    def pipe(self, start: str, end: str, length: float, bore: float, k: float, check: bool = False) -> None:
        row = {
            "id": f"p{len(self.network['pipes'])}",
            "from": start,
            "to": end,
            "length_m": length,
            "bore_mm": bore,
        }
        rough = self.chance.choice([0.0015, 0.01])
        self.network["pipes"].append(row | {"roughness_mm": rough, "minor_k": k, "check": check, "open": True})

    def source(self, name: str, static: float) -> None:
        row = {"node": name, "static_kpa": static}
        if self.chance.random() < 0.7:
            row |= {
                "tested_lph": self.chance.uniform(600, 2500),
                "tested_kpa": static * self.chance.uniform(0, 0.7),
            }
        self.network["sources"].append(row)

    def supply(self) -> str:
        """A tap, a pipe, often a cartridge and a regulator; the node that zones hang on."""
        chance = self.chance
        at = self.node("S", chance.uniform(-1, 1))
        self.source("S", chance.uniform(60, 500))
        self.pipe(
            at,
            self.node("a", 0.0),
            chance.uniform(1, 15),
            chance.choice([9, 13, 16, 20]),
            2.0,
            chance.random() < 0.3,
        )
        at = "a"
        if chance.random() < 0.5:
            row = {"id": "cartridge", "from": at, "to": self.node("c", 0.0)}
            lost = {"linear_kpa_per_lph": chance.uniform(0.001, 0.05), "quadratic_kpa_per_lph2": 0.0}
            self.network["resistances"].append(row | lost)
            at = "c"
        if chance.random() < 0.6:
            row = {"id": "reg", "from": at, "to": self.node("m", 0.2)}
            held = {"setpoint_kpa": chance.uniform(40, 350), "kv_m3_h": chance.uniform(1, 4)}
            self.network["regulators"].append(row | held)
            at = "m"
        return at

    def zone(self, number: int, manifold: str, first: int, tanks: int, exponent: float, mixed: bool) -> None:
        """A valve, a header of tanks, sometimes closed to a ring."""
        chance = self.chance
        height = chance.uniform(0, 2.5)
        head = self.node(f"z{number}", height)
        opened = first == 0 or chance.random() < 0.8
        self.network["valves"].append(
            {"id": f"v{number}", "from": manifold, "to": head, "kv_m3_h": chance.uniform(0.5, 3), "open": opened}
        )
        bore, before = chance.choice([9, 13, 16]), head
        for i in range(tanks):
            here = self.node(f"z{number}h{i}", height)
            self.pipe(before, here, chance.uniform(0.3, 2.0), bore, 0.6)
            tip = self.node(f"z{number}t{i}", height + chance.uniform(-0.5, 0.3))
            self.pipe(here, tip, chance.uniform(0.2, 1.5), chance.choice([3, 4, 5]), 1.8)
            row = {"id": f"e{first + i}", "node": tip, "nominal_lph": chance.choice([8, 20, 40])}
            if mixed and chance.random() < 0.5:
                row |= {"kind": "compensating", "min_kpa": chance.choice([50, 70, 100]), "max_kpa": 350}
            else:
                row |= {"kind": "plain", "nominal_kpa": 100, "exponent": exponent}
            self.network["emitters"].append(row)
            before = here
        if chance.random() < 0.4 and tanks > 1:
            self.pipe(before, head, chance.uniform(1, 6), bore, 1.2)


def made(seed: int, emitters: int | None = None) -> dict:
    """A room's network: a source, a regulator often, zones of headers with drops, rings, shut valves, slopes."""
    making = Making(seed)
    chance = making.chance
    count = emitters or chance.choice([1, 3, 8, 20, 45])
    manifold = making.supply()
    mixed = chance.random() < 0.5
    exponent = 0.5 if mixed else chance.choice([0.4, 0.5, 0.6, 0.75])
    number = at = 0
    while at < count:
        number += 1
        tanks = min(count - at, chance.randint(1, 14))
        making.zone(number, manifold, at, tanks, exponent, mixed)
        at += tanks
    if chance.random() < 0.15:
        end = making.node("S2", chance.uniform(0, 1))
        making.source(end, chance.uniform(60, 300))
        making.pipe(end, manifold, chance.uniform(1, 10), 13, 1.0, True)
    return making.network


def wild(seed: int) -> dict:
    """Anything: regulators that feed each other, checks that face each other, emitters that ask ten times the supply."""
    making = Making(seed)
    chance, network = making.chance, making.network
    count = chance.randint(2, 60)
    for i in range(count):
        making.node(f"n{i}", chance.uniform(-3, 12))
    for i in range(min(count, chance.randint(1, 3))):
        making.source(f"n{i}", chance.uniform(5, 600))
    pairs = [(chance.randrange(i), i) for i in range(1, count)]
    pairs += [tuple(chance.sample(range(count), 2)) for _ in range(chance.randint(0, count // 3))]
    for start, end in pairs:
        link = {"from": f"n{start}", "to": f"n{end}"}
        kind = chance.choices(["pipes", "valves", "regulators", "resistances"], [75, 10, 7, 8])[0]
        link["id"] = f"{kind}{len(network[kind])}"
        network[kind].append(link | wild_part(kind, chance))
    for i in range(count):
        if chance.random() < 0.6:
            row = {"id": f"e{i}", "node": f"n{i}", "nominal_lph": chance.choice([0, 2, 8, 40, 400])}
            plain = {"kind": "plain", "nominal_kpa": 100, "exponent": chance.choice([0.05, 0, 0.3, 0.5, 0.7, 1])}
            held = {"kind": "compensating", "min_kpa": chance.choice([0, 50, 100]), "max_kpa": 300}
            network["emitters"].append(row | (plain if chance.random() < 0.6 else held))
    return network


def wild_part(kind: str, chance: random.Random) -> dict:
    if kind == "pipes":
        return {
            "length_m": chance.choice([0, 0.01, 1, 10, 100]),
            "bore_mm": chance.choice([2, 4, 9, 13, 25, 50]),
            "roughness_mm": chance.choice([0, 0.0015, 0.1]),
            "minor_k": chance.choice([0, 1, 10]),
            "check": chance.random() < 0.15,
            "open": chance.random() < 0.95,
        }
    if kind == "valves":
        return {"kv_m3_h": chance.choice([0.1, 1, 5]), "open": chance.random() < 0.9}
    if kind == "regulators":
        return {"setpoint_kpa": chance.uniform(5, 300), "kv_m3_h": chance.choice([0.5, 2])}
    return {
        "linear_kpa_per_lph": chance.choice([0, 0.01, 0.2]),
        "quadratic_kpa_per_lph2": chance.choice([0, 1e-6, 1e-4]),
    }


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


def left_over(network: dict, solved) -> float:
    """What does not add up at any node that is no source, L/h."""
    sums = dict.fromkeys([row["id"] for row in network["nodes"]], 0.0)
    for kind in ("pipes", "valves", "regulators", "resistances"):
        for row in network[kind]:
            sums[row["from"]] -= solved.flows_lph[row["id"]]
            sums[row["to"]] += solved.flows_lph[row["id"]]
    for row in network["emitters"]:
        sums[row["node"]] -= solved.emitters_lph[row["id"]]
    fed = {row["node"] for row in network["sources"]}
    return max((abs(value) for name, value in sums.items() if name not in fed), default=0.0)
