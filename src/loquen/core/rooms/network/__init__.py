"""Pressure and flow everywhere in a room's water lines: trees, rings, several sources and regulators alike."""

from collections.abc import Sequence
from dataclasses import dataclass

from loquen.core.physics.hydraulics import friction_smooth, surge_kpa
from loquen.core.rooms.network.reading import Network, Row, Rows, read_network
from loquen.core.rooms.network.solving import Balance, balanced

__all__ = ["Flowing", "Network", "friction_smooth", "read_network", "solve_network", "solved", "surge_kpa"]
DRY_LPH = 1e-9
PUSHED_M = 1e-6


@dataclass(frozen=True)
class Flowing:
    """A solved network. What no source reaches has a pressure of None and no flow.

    `spread_frac` is least over greatest flow of the emitters that are not shut and that a source reaches, None where
    there is none. `out_of_range` are compensating emitters over their range, `below_range` those under it. `checks`
    says of each one-way pipe whether it passes. `balance` is what a next solution may start from.
    """

    emitters_lph: dict[str, float]
    pressures_kpa: dict[str, float | None]
    flows_lph: dict[str, float]
    velocities_m_s: dict[str, float]
    total_lph: float
    spread_frac: float | None
    regulators: dict[str, str]
    checks: dict[str, str]
    idle_emitters: list[str]
    out_of_range: list[str]
    below_range: list[str]
    greatest_velocity_m_s: float
    steps: int
    balance: Balance

    @property
    def spread(self) -> float | None:
        """`spread_frac`, as the network format calls it."""
        return self.spread_frac

    @property
    def idle(self) -> list[str]:
        """`idle_emitters`, in short."""
        return self.idle_emitters


def solve_network(
    *,
    nodes: Rows,
    sources: Rows,
    pipes: Rows = (),
    valves: Rows = (),
    regulators: Rows = (),
    resistances: Rows = (),
    emitters: Rows = (),
    temp_c: float = 20.0,
) -> Flowing:
    """Flow at every emitter and pressure at every node of a network at rest in its flow.

    Equation: at every node inflow = outflow; along every link H_from − H_to = h(Q); pipes (f·L/D + ΣK)·v²/2g, valves
        (Q/Kv)² bar, resistances a·Q + b·Q² kPa, emitters p0·(Q/q0)^(1/x), sources static − (static − tested)·(Q/Q_tested)²
    Parameters: rows as in docs/formats.md, "A network": kPa over the air, L/h, m, mm; temp_c °C, 0 to 60.
    Returns: Flowing.
    Raises: NamedCase twice_named, no_such_node, no_source, impossible_value, did_not_settle; OutOfRange temp_c.
    Source: todini1988
    """
    network = read_network(nodes, sources, pipes, valves, regulators, resistances, emitters, temp_c)
    return solved(network, checks=[row["id"] for row in pipes if row.get("check")])


def solved(network: Network, start: Flowing | None = None, checks: Sequence[str] = ()) -> Flowing:
    """A network that was read, solved; from another solution where its links are the same."""
    found = balanced(network, start.balance if start else None)
    links, flows = network.links, found.flows_lph
    emitters = dict(zip(links["emitters"], flows[network.span("emitters")].tolist(), strict=True))
    pressures = ((found.heads_m - network.node_m) * network.kpa_per_m).tolist()
    at_node = dict(zip(network.nodes, pressures, strict=True))
    by_name = {
        name: flow
        for kind in ("pipes", "valves", "resistances", "regulators")
        for name, flow in zip(links[kind], flows[network.span(kind)].tolist(), strict=True)
    }
    speeds = abs(flows[: len(links["pipes"])]) * network.pipe_m_s
    states = {name: shown_state(found, network, i) for i, name in enumerate(links["regulators"])}
    greatest, least = max(emitters.values(), default=0.0), min(emitters.values(), default=0.0)
    return Flowing(
        emitters_lph=emitters | dict.fromkeys(network.dead["emitters"], 0.0),
        pressures_kpa=at_node | dict.fromkeys(sorted(network.dry_nodes)),
        flows_lph=by_name
        | {name: 0.0 for kind in ("pipes", "valves", "resistances", "regulators") for name in network.dead[kind]},
        velocities_m_s=dict(zip(links["pipes"], speeds.tolist(), strict=True)),
        total_lph=float(flows[network.span("sources")].sum()),
        spread_frac=(least / greatest if greatest > DRY_LPH else 0.0) if emitters else None,
        regulators=states | dict.fromkeys(network.dead["regulators"], "idle"),
        checks={name: "open" if by_name.get(name, 0.0) > DRY_LPH else "closed" for name in checks},
        idle_emitters=list(network.dead["emitters"]),
        out_of_range=[row["id"] for row in compensating(network) if at_node[row["node"]] > row["max_kpa"]],
        below_range=[row["id"] for row in compensating(network) if at_node[row["node"]] < row["min_kpa"]],
        greatest_velocity_m_s=float(speeds.max(initial=0.0)),
        steps=found.steps,
        balance=found,
    )


def shown_state(found: Balance, network: Network, i: int) -> str:
    """A regulator's state; an open one that its outlet pushes shut is closed."""
    at = network.span("regulators").start + i
    inlet, outlet = found.heads_m[network.start[at]], found.heads_m[network.end[at]]
    shut = found.states[i] == "open" and found.flows_lph[at] <= DRY_LPH and outlet > inlet + PUSHED_M
    return "closed" if shut else found.states[i]


def compensating(network: Network) -> list[Row]:
    return [row for row in network.emitter_rows if row["kind"] == "compensating"]
