"""From the lists that describe a network to arrays of its live links; what can not be solved is named here."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from loquen.core.errors import NamedCase, OutOfRange
from loquen.core.physics.chemistry import density_kg_m3
from loquen.core.physics.geometry import GRAVITY_M_S2
from loquen.core.physics.hydraulics.pipes import viscosity_at
from loquen.core.rooms.network.laws import DRY_M_PER_LPH, SHUT_M_PER_LPH, Floats, Laws, per_lph, pipe_terms

Row = Mapping[str, Any]
Rows = Sequence[Row]
START_M_S = 0.5
LEAST_MIN_KPA = 1e-3
"""From where an emitter that gives the same at any pressure gives it."""


@dataclass(frozen=True)
class Network:
    """Live links in the order pipes, valves, resistances, regulators, sources, emitters.

    `start` and `end` are places of nodes; -1 stands for a fixed level: a source's own, the air at an emitter.
    `rise_m` is the level at the fixed end. What is shut or reached by no source is in `dead`, by kind.
    """

    temp_c: float
    kpa_per_m: float
    nodes: tuple[str, ...]
    node_m: Floats
    links: dict[str, tuple[str, ...]]
    start: NDArray[np.intp]
    end: NDArray[np.intp]
    rise_m: Floats
    laws: Laws
    first_lph: Floats
    pipe_m_s: Floats
    set_m: Floats
    emitter_rows: tuple[Row, ...]
    dry_nodes: frozenset[str]
    dead: dict[str, tuple[str, ...]]

    def span(self, kind: str) -> slice:
        """Where the links of a kind stand."""
        at = 0
        for name, ids in self.links.items():
            if name == kind:
                return slice(at, at + len(ids))
            at += len(ids)
        raise KeyError(kind)

    def place(self, kind: str, called: str) -> int:
        """Where one link stands; raise NamedCase."""
        if called not in self.links[kind]:
            raise NamedCase("no_such_link", kind=kind, id=called)
        first: int = self.span(kind).start
        return first + self.links[kind].index(called)

    def with_source(self, node: str, static_kpa: float, tested_lph: float, tested_kpa: float) -> "Network":
        """The network with another pressure at a source."""
        at = self.place("sources", node)
        rise = self.rise_m.copy()
        rise[at] += static_kpa / self.kpa_per_m - (rise[at] - self.node_m[self.end[at]])
        sag = sag_of(static_kpa, tested_lph, tested_kpa, self.kpa_per_m)
        return replace(self, rise_m=rise, laws=self.laws.with_at("square", at, sag))

    def with_pipe(self, called: str, row: Row) -> "Network":
        """The network with another length, bore, roughness or fittings of a pipe that is open both before and after."""
        at = self.place("pipes", called)
        pipe = checked_pipe(row)
        bore = column([pipe], "bore_mm")
        square, reynolds, rough, friction = pipe_terms(
            column([pipe], "length_m"),
            bore,
            column([pipe], "roughness_mm"),
            column([pipe], "minor_k"),
            viscosity_at(self.temp_c),
        )
        laws = self.laws
        for name, value in [
            ("square", square),
            ("pipe_reynolds", reynolds),
            ("pipe_rough", rough),
            ("pipe_friction", friction),
        ]:
            laws = laws.with_at(name, at, value[0])
        speeds = self.pipe_m_s.copy()
        speeds[at] = per_lph(bore)[0]
        return replace(self, laws=laws, pipe_m_s=speeds)

    def with_emitter_nominal(self, called: str, nominal_lph: float) -> "Network":
        """The network with an emitter that gives another flow at its nominal pressure, clogged or larger; not 0."""
        at = self.place("emitters", called)
        held = self.links["emitters"].index(called)
        row = {**self.emitter_rows[held], "nominal_lph": nominal_lph}
        rows = (*self.emitter_rows[:held], row, *self.emitter_rows[held + 1 :])
        laws = self.laws
        if holds_flow(row):
            laws = laws.with_at("most_lph", at, nominal_lph)
            laws = laws.with_at("square", at, min_kpa_of(row) / self.kpa_per_m / nominal_lph**2)
        else:
            laws = laws.with_at("power_nominal", int(np.flatnonzero(laws.power_at == at)[0]), nominal_lph)
        return replace(self, laws=laws, emitter_rows=rows)


def read_network(
    nodes: Rows,
    sources: Rows,
    pipes: Rows,
    valves: Rows,
    regulators: Rows,
    resistances: Rows,
    emitters: Rows,
    temp_c: float,
) -> Network:
    """The network as arrays, shut links left out, and what they cut off.

    Raises: NamedCase twice_named, no_such_node, no_source, impossible_value (what, id, value); OutOfRange temp_c.
    """
    if not 0 < temp_c <= 60:
        raise OutOfRange("temp_c", temp_c, 0, 60, "°C")
    kpa_per_m = float(density_kg_m3(0.0, temp_c)) * GRAVITY_M_S2 / 1000
    heights = {str(row["id"]): finite("elevation_m", row["id"], row["elevation_m"]) for row in nodes}
    if len(heights) < len(nodes):
        raise NamedCase("twice_named", kind="nodes")
    if not sources:
        raise NamedCase("no_source")
    between = {"pipes": pipes, "valves": valves, "resistances": resistances, "regulators": regulators}
    for kind, rows in {**between, "emitters": emitters}.items():
        if len({row["id"] for row in rows}) < len(rows):
            raise NamedCase("twice_named", kind=kind)
        for row in rows:
            for end in ("from", "to") if kind in between else ("node",):
                if row[end] not in heights:
                    raise NamedCase("no_such_node", kind=kind, id=row["id"], node=row[end])
    for row in sources:
        if row["node"] not in heights:
            raise NamedCase("no_such_node", kind="sources", id=row["node"], node=row["node"])
    pipes = [checked_pipe(row) for row in pipes]
    for row in [*valves, *regulators]:
        above_zero("kv_m3_h", row["id"], row["kv_m3_h"])
    wet = reached(between | {"pipes": pipes}, sources)
    live: dict[str, list[Row]] = {
        kind: [row for row in rows if row.get("open", True) and row["from"] in wet and row["to"] in wet]
        for kind, rows in (between | {"pipes": pipes}).items()
    }
    for row in emitters:
        not_below_zero("nominal_lph", row["id"], row["nominal_lph"])
    live["sources"] = list(sources)
    live["emitters"] = [row for row in emitters if row["nominal_lph"] > 0 and row["node"] in wet]
    names = tuple(name for name in heights if name in wet)
    place = {name: i for i, name in enumerate(names)}
    node_m = np.array([heights[name] for name in names])
    begin, stop = ends(live, place)
    count, after_sources = len(begin), len(live["emitters"])
    rise = np.zeros(count)
    rise[count - after_sources :] = [heights[row["node"]] for row in live["emitters"]]
    rise[count - after_sources - len(sources) : count - after_sources] = [
        heights[row["node"]] + finite("static_kpa", row["node"], row["static_kpa"]) / kpa_per_m for row in sources
    ]
    ids = {kind: tuple(str(row["node" if kind == "sources" else "id"]) for row in live[kind]) for kind in live}
    laws, first, speeds = laws_of(live, kpa_per_m, viscosity_at(temp_c))
    regulated = live["regulators"]
    return Network(
        temp_c=temp_c,
        kpa_per_m=kpa_per_m,
        nodes=names,
        node_m=node_m,
        links=ids,
        start=begin,
        end=stop,
        rise_m=rise,
        laws=laws,
        first_lph=first,
        pipe_m_s=speeds,
        set_m=np.array([heights[row["to"]] + row["setpoint_kpa"] / kpa_per_m for row in regulated]),
        emitter_rows=tuple(live["emitters"]),
        dry_nodes=frozenset(heights) - wet,
        dead={kind: cut_off(rows, ids[kind]) for kind, rows in {**between, "emitters": emitters}.items()},
    )


def cut_off(rows: Rows, live: tuple[str, ...]) -> tuple[str, ...]:
    """What of the rows is not among the live ones."""
    kept = set(live)
    return tuple(str(row["id"]) for row in rows if str(row["id"]) not in kept)


def reached(between: Mapping[str, Rows], sources: Rows) -> frozenset[str]:
    """The nodes that water from a source can come to: through what is open, and with the arrow of checks and regulators."""
    ways: dict[str, list[str]] = {}
    for kind, rows in between.items():
        for row in rows:
            if row.get("open", True):
                ways.setdefault(row["from"], []).append(row["to"])
                if kind != "regulators" and not row.get("check", False):
                    ways.setdefault(row["to"], []).append(row["from"])
    wet = {row["node"] for row in sources}
    waiting = list(wet)
    while waiting:
        for node in ways.get(waiting.pop(), ()):
            if node not in wet:
                wet.add(node)
                waiting.append(node)
    return frozenset(wet)


def ends(live: Mapping[str, list[Row]], place: Mapping[str, int]) -> tuple[NDArray[np.intp], NDArray[np.intp]]:
    start: list[int] = []
    end: list[int] = []
    for kind, rows in live.items():
        if kind == "sources":
            start += [-1] * len(rows)
            end += [place[row["node"]] for row in rows]
        elif kind == "emitters":
            start += [place[row["node"]] for row in rows]
            end += [-1] * len(rows)
        else:
            start += [place[row["from"]] for row in rows]
            end += [place[row["to"]] for row in rows]
    return np.array(start, dtype=np.intp), np.array(end, dtype=np.intp)


def laws_of(live: Mapping[str, list[Row]], kpa_per_m: float, viscosity: float) -> tuple[Laws, Floats, Floats]:
    """The laws of all live links, the flows to begin with, and the pipes' m/s for a litre an hour."""
    pipes = live["pipes"]
    bore = column(pipes, "bore_mm")
    minor, reynolds, rough, friction = pipe_terms(
        column(pipes, "length_m"), bore, column(pipes, "roughness_mm"), column(pipes, "minor_k"), viscosity
    )
    speeds = per_lph(bore)
    linear = {kind: np.zeros(len(rows)) for kind, rows in live.items()}
    square = {kind: np.zeros(len(rows)) for kind, rows in live.items()}
    one_way = {kind: np.zeros(len(rows)) for kind, rows in live.items()}
    most = {kind: np.full(len(rows), np.inf) for kind, rows in live.items()}
    first = {kind: np.zeros(len(rows)) for kind, rows in live.items()}
    square["pipes"], first["pipes"] = minor, START_M_S / speeds
    one_way["pipes"][[bool(row.get("check", False)) for row in pipes]] = SHUT_M_PER_LPH
    for kind in ("valves", "regulators"):
        kv = column(live[kind], "kv_m3_h")
        square[kind] = 100 / kpa_per_m / (1000 * kv) ** 2
        first[kind] = 100 * kv
    one_way["regulators"][:] = SHUT_M_PER_LPH
    for name, terms, least in [("linear_kpa_per_lph", linear, 0), ("quadratic_kpa_per_lph2", square, 0)]:
        terms["resistances"] = np.array(
            [not_below_zero(name, row["id"], row.get(name) or least) / kpa_per_m for row in live["resistances"]]
        )
    first["resistances"][:] = 100.0
    square["sources"] = np.array(
        [
            sag_of(row["static_kpa"], row.get("tested_lph"), row.get("tested_kpa"), kpa_per_m, row["node"])
            for row in live["sources"]
        ]
    )
    one_way["sources"][:], first["sources"][:] = SHUT_M_PER_LPH, 500.0
    rows = live["emitters"]
    nominal = column(rows, "nominal_lph")
    one_way["emitters"][:], first["emitters"] = DRY_M_PER_LPH, nominal
    held = np.array([holds_flow(row) for row in rows], dtype=bool)
    if held.any():
        least_kpa = np.array([min_kpa_of(row) for row in rows if holds_flow(row)])
        square["emitters"][held] = least_kpa / kpa_per_m / nominal[held] ** 2
        most["emitters"][held] = nominal[held]
    plain = [row for row in rows if not holds_flow(row)]
    ahead = sum(len(live[kind]) for kind in live if kind != "emitters")
    return (
        Laws(
            linear=joined(linear),
            square=joined(square),
            one_way=joined(one_way),
            most_lph=joined(most),
            pipe_reynolds=reynolds,
            pipe_rough=rough,
            pipe_friction=friction,
            power_at=ahead + np.flatnonzero(~held),
            power_nominal=nominal[~held],
            power_head=np.array([above_zero("nominal_kpa", row["id"], row["nominal_kpa"]) for row in plain])
            / kpa_per_m,
            power=np.array([1 / in_unit("exponent", row["id"], row["exponent"]) for row in plain]),
        ),
        joined(first),
        speeds,
    )


def joined(parts: Mapping[str, Floats]) -> Floats:
    return np.concatenate([np.asarray(part, dtype=float) for part in parts.values()])


def column(rows: Rows, name: str) -> Floats:
    return np.array([row[name] for row in rows], dtype=float)


def holds_flow(row: Row) -> bool:
    """Whether an emitter gives its nominal flow at any pressure above its least."""
    return bool(row["kind"] == "compensating" or row["exponent"] == 0)


def min_kpa_of(row: Row) -> float:
    if row["kind"] != "compensating":
        return LEAST_MIN_KPA
    return max(LEAST_MIN_KPA, not_below_zero("min_kpa", row["id"], row["min_kpa"]))


def sag_of(
    static_kpa: float, tested_lph: float | None, tested_kpa: float | None, kpa_per_m: float, called: str = ""
) -> float:
    """m per (L/h)² that a source loses, from its reading with water running; 0 where there is none."""
    if tested_lph is None or tested_kpa is None:
        return 0.0
    above_zero("tested_lph", called, tested_lph)
    return not_below_zero("sag_kpa", called, static_kpa - tested_kpa) / kpa_per_m / tested_lph**2


def checked_pipe(row: Row) -> Row:
    """A pipe with its missing values as usual; raise NamedCase for a bore of nothing or a negative length."""
    found = {"roughness_mm": 0.0015, "minor_k": 0.0, **row}
    above_zero("bore_mm", found["id"], found["bore_mm"])
    for name in ("length_m", "roughness_mm", "minor_k"):
        not_below_zero(name, found["id"], found[name])
    return found


def above_zero(what: str, called: Any, value: Any) -> float:
    if not finite(what, called, value) > 0:
        raise NamedCase("impossible_value", what=what, id=called, value=value)
    return float(value)


def not_below_zero(what: str, called: Any, value: Any) -> float:
    if not finite(what, called, value) >= 0:
        raise NamedCase("impossible_value", what=what, id=called, value=value)
    return float(value)


def in_unit(what: str, called: Any, value: Any) -> float:
    if not 0 < finite(what, called, value) <= 2:
        raise NamedCase("impossible_value", what=what, id=called, value=value)
    return float(value)


def finite(what: str, called: Any, value: Any) -> float:
    if not isinstance(value, int | float) or not math.isfinite(value):
        raise NamedCase("impossible_value", what=what, id=called, value=value)
    return float(value)
