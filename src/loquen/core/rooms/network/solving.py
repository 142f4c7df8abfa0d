"""The global gradient method: Newton's on heads and flows at once, with regulators that hold, pass or shut."""

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csc_matrix
from scipy.sparse.linalg import SuperLU, splu

from loquen.core.errors import NamedCase
from loquen.core.rooms.network.laws import SHUT_M_PER_LPH, Floats
from loquen.core.rooms.network.reading import Network

Regulating = Literal["active", "open", "closed"]
RESIDUAL_M = 1e-6
NEAR_M = 1e-3
"""From here on a full step is nearer than any that rounding lets be found."""
REVIEWED_UNDER_M = 0.5
STATE_SLACK_M = 1e-6
MOST_STEPS = 300
QUICK_STEPS = 60
MOST_OVER = 1.5
STEP_TIMES = 4.0
LEAST_STEP = 0.25
"""Of a link's first flow: how far a step may go from no flow."""
HALVINGS = 40
PATIENCE = 15
"""Steps after which states are reviewed by what there is: a regulator that feeds itself never settles."""
REFINED = 3
JUST_PAST = 1e-12


@dataclass(frozen=True)
class Balance:
    """Heads and flows at which every law and every node agrees."""

    heads_m: Floats
    flows_lph: Floats
    states: tuple[Regulating, ...]
    steps: int


@dataclass(frozen=True)
class Frame:
    """Where each link's conductance goes in the matrix, while regulators keep their state.

    An active regulator fixes its outlet: that node's column moves to the right side, and its row is added to the row
    of the regulator's inlet, so that what the outlet draws is drawn there.
    """

    fixed: NDArray[np.bool_]
    fixed_m: Floats
    row_of: NDArray[np.intp]
    column_of: NDArray[np.intp]
    links: NDArray[np.bool_]
    entries_at: NDArray[np.intp]
    entries_link: NDArray[np.intp]
    entries_sign: Floats
    indices: NDArray[np.int32]
    indptr: NDArray[np.int32]
    size: int


def framed(network: Network, states: tuple[Regulating, ...]) -> Frame:
    count = len(network.nodes)
    regulators = network.span("regulators")
    fixed, fixed_m = np.zeros(count, dtype=bool), np.zeros(count)
    into = np.arange(count)
    active = np.zeros(len(network.start), dtype=bool)
    for state, at, level in zip(states, range(regulators.start, regulators.stop), network.set_m, strict=True):
        if state == "active":
            outlet = network.end[at]
            fixed[outlet], fixed_m[outlet], active[at] = True, level, True
            into[outlet] = network.start[at]
    for _ in range(len(states) + 1):
        into = into[into]
    free = ~fixed
    column_of = np.where(free, np.cumsum(free) - 1, -1)
    row_of = np.where(fixed[into], -1, column_of[into])
    links = ~active
    linked = np.flatnonzero(links)
    start, end = network.start[linked], network.end[linked]
    # Each link puts its conductance at (start, start) and (end, end), and takes it off at (start, end), (end, start).
    rows = np.concatenate([start, end, start, end])
    columns = np.concatenate([start, end, end, start])
    signs = np.repeat([1.0, 1.0, -1.0, -1.0], len(linked))
    of_link = np.tile(linked, 4)
    there = (rows >= 0) & (columns >= 0)
    rows, columns, signs, of_link = rows[there], columns[there], signs[there], of_link[there]
    rows, columns = row_of[rows], column_of[columns]
    there = (rows >= 0) & (columns >= 0)
    rows, columns, signs, of_link = rows[there], columns[there], signs[there], of_link[there]
    size = int(free.sum())
    where, entries_at = np.unique(columns.astype(np.int64) * size + rows, return_inverse=True)
    indices = (where % size).astype(np.int32) if size else np.zeros(0, dtype=np.int32)
    per_column = np.bincount(where // size, minlength=size) if size else np.zeros(0, dtype=int)
    indptr = np.concatenate([[0], np.cumsum(per_column)]).astype(np.int32)
    return Frame(fixed, fixed_m, row_of, column_of, links, entries_at, of_link, signs, indices, indptr, size)


def balanced(network: Network, start: Balance | None = None) -> Balance:
    """Heads and flows of a network, from another balance of the same links where one is given.

    Regulators begin as active and are reviewed as soon as heads are near. Where that swings they begin as open, one at
    a time is changed once all else has settled, and every step goes as far as the network's content still falls: the
    content is convex while regulators keep their state, so that this ends.

    Raises: NamedCase did_not_settle, which no network of live emitters has been seen to do.
    """
    count = len(network.links["regulators"])
    active: tuple[Regulating, ...] = tuple("active" for _ in range(count))
    opened: tuple[Regulating, ...] = tuple("open" for _ in range(count))
    if start is not None and len(start.flows_lph) == len(network.start):
        found = settled(network, start.flows_lph, start.states, QUICK_STEPS, REVIEWED_UNDER_M)
        if found:
            return found
    found = settled(network, network.first_lph, active, QUICK_STEPS, REVIEWED_UNDER_M)
    found = found or settled(network, network.first_lph, opened, MOST_STEPS, RESIDUAL_M, careful=True)
    if found is None:
        raise NamedCase("did_not_settle", steps=MOST_STEPS)
    return found


def settled(
    network: Network,
    flows: Floats,
    states: tuple[Regulating, ...],
    most_steps: int,
    reviewed_under_m: float,
    careful: bool = False,
) -> Balance | None:
    """The balance that these flows and states lead to; None when they do not within so many steps."""
    states = one_holds_each(network, states)
    frame = framed(network, states)
    most = most_flows(network)
    near, last, since = True, np.inf, 0
    for step in range(1, most_steps + 1):
        try:
            heads, moved, conductance, solver = stepped(network, frame, states, flows)
        except RuntimeError:  # two regulators that feed each other leave a node without a level
            return None
        if careful:
            flows = moved if near else fallen(network, frame, states, flows, moved, heads)
        else:
            flows = held(network, flows, limited(network, flows, moved, most))
        error = np.abs(head_lost(network, states, flows)[0] - head_between(network, heads))
        error[~frame.links] = 0
        worst = error.max(initial=0.0)
        near, last = worst < NEAR_M and worst < last / 2, worst
        since += 1
        if worst < reviewed_under_m or since > PATIENCE:
            reviewed = one_holds_each(network, review(network, states, heads, flows, careful))
            if reviewed != states:
                since = 0
                states, frame, near = reviewed, framed(network, reviewed), True
                continue
        if worst < RESIDUAL_M:
            return closed_to_the_litre(network, frame, Balance(heads, flows, states, step), conductance, solver)
    return None


def limited(network: Network, flows: Floats, moved: Floats, most: Floats) -> Floats:
    """The new flows, none more than four times the last, nor more than an emitter can pass."""
    scale = np.maximum(network.first_lph, 1.0)
    limit = np.minimum(STEP_TIMES * np.maximum(np.abs(flows), LEAST_STEP * scale), most)
    limit[network.span("regulators")] = np.inf
    return np.clip(moved, -limit, limit)


def fallen(
    network: Network, frame: Frame, states: tuple[Regulating, ...], flows: Floats, moved: Floats, heads: Floats
) -> Floats:
    """The flows on the way to the new ones where the network's content is least."""
    way = np.where(frame.links, moved - flows, 0.0)
    given = head_between(network, heads)

    def rise(share: float) -> float:
        return float(way @ (head_lost(network, states, flows + share * (moved - flows))[0] - given))

    if rise(1.0) <= 0:
        return moved
    low, high = 0.0, 1.0
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        low, high = (middle, high) if rise(middle) <= 0 else (low, middle)
    return flows + high * (moved - flows)


def most_flows(network: Network) -> Floats:
    """What an emitter can pass at the highest level that a source gives; no limit to the other links."""
    laws = network.laws
    most = np.full(len(network.start), np.inf)
    top = network.rise_m[network.span("sources")].max(initial=0.0)
    over = np.maximum(top - network.rise_m[laws.power_at], 1e-6)
    most[laws.power_at] = MOST_OVER * laws.power_nominal * (over / laws.power_head) ** (1 / laws.power)
    return most


def stepped(
    network: Network, frame: Frame, states: tuple[Regulating, ...], flows: Floats
) -> tuple[Floats, Floats, Floats, SuperLU | None]:
    """New heads and flows from one Newton step; a regulator's flow is what its outlet draws."""
    lost, slope = head_lost(network, states, flows)
    conductance = np.where(frame.links, 1 / slope, 0.0)
    # Q' = Q + D·(ΔH − h(Q)): what is known of it, before the heads.
    known = np.where(frame.links, flows - conductance * lost, 0.0)
    solver = factored(frame, conductance)
    heads = frame.fixed_m.copy()
    settled = known + conductance * head_between(network, heads)
    if solver is not None:
        heads[~frame.fixed] = solver.solve(-gathered(network, frame, settled))
    moved = known + conductance * head_between(network, heads)
    moved, correction = spread_away(network, frame, moved, conductance, solver)
    return heads + correction, drawn(network, frame, moved), conductance, solver


def spread_away(
    network: Network, frame: Frame, flows: Floats, conductance: Floats, solver: SuperLU | None
) -> tuple[Floats, Floats]:
    """The flows, with what rounding left of each node's sum spread over the links that lose least; heads for it."""
    if solver is None:
        return flows, np.zeros(len(network.nodes))
    flows = np.where(frame.links, flows, 0.0)
    correction = np.zeros(len(network.nodes) + 1)
    correction[:-1][~frame.fixed] = solver.solve(-gathered(network, frame, flows))
    return flows + conductance * (correction[network.start] - correction[network.end]), correction[:-1]


def held(network: Network, before: Floats, flows: Floats) -> Floats:
    """The flows, those that just passed into a law's steep end put at its very beginning, where Newton's step is exact."""
    most = network.laws.most_lph
    least = -network.laws.seeps_lph
    backward = (flows < least) & (before >= least)
    over = (flows > most) & (before <= most)
    return np.where(backward, least * (1 + JUST_PAST) - JUST_PAST, np.where(over, most * (1 + JUST_PAST), flows))


def head_lost(network: Network, states: tuple[Regulating, ...], flows: Floats) -> tuple[Floats, Floats]:
    """Loss and slope of every link, a shut regulator's steep both ways."""
    lost, slope = network.laws.loss(flows)
    for at, state in zip(range(network.span("regulators").start, len(flows)), states, strict=False):
        if state == "closed":
            lost[at], slope[at] = SHUT_M_PER_LPH * flows[at], SHUT_M_PER_LPH
    return lost, slope


def head_between(network: Network, heads: Floats) -> Floats:
    """Head at each link's start less head at its end, fixed levels as they are."""
    padded = np.append(heads, 0.0)
    between: Floats = padded[network.start] - padded[network.end]
    between += np.where(network.start < 0, network.rise_m, 0.0) - np.where(network.end < 0, network.rise_m, 0.0)
    return between


def factored(frame: Frame, conductance: Floats) -> SuperLU | None:
    if frame.size == 0:
        return None
    data = np.bincount(
        frame.entries_at, weights=frame.entries_sign * conductance[frame.entries_link], minlength=len(frame.indices)
    )
    matrix = csc_matrix((data, frame.indices, frame.indptr), shape=(frame.size, frame.size))
    return splu(matrix, permc_spec="MMD_AT_PLUS_A", diag_pivot_thresh=0.0, options={"SymmetricMode": True})


def outflow(network: Network, flows: Floats) -> Floats:
    """What leaves each node less what comes to it."""
    count = len(network.nodes)
    leaves = np.bincount(network.start + 1, weights=flows, minlength=count + 1)
    comes = np.bincount(network.end + 1, weights=flows, minlength=count + 1)
    leaving: Floats = np.asarray((leaves - comes)[1:], dtype=float)
    return leaving


def gathered(network: Network, frame: Frame, flows: Floats) -> Floats:
    """What leaves each free node, an active regulator's outlet counted with its inlet."""
    leaving = outflow(network, flows)
    kept = frame.row_of >= 0
    sums = np.bincount(frame.row_of[kept], weights=leaving[kept], minlength=frame.size)
    found: Floats = np.asarray(sums, dtype=float)
    return found


def drawn(network: Network, frame: Frame, flows: Floats) -> Floats:
    """The flows with each active regulator's own: what its outlet passes on."""
    active = np.flatnonzero(~frame.links)
    flows = flows.copy()
    flows[active] = 0.0
    for _ in active:
        leaving = outflow(network, flows)
        flows[active] += leaving[network.end[active]]
        if not np.abs(leaving[network.end[active]]).max(initial=0.0) > 0:
            break
    return flows


def review(
    network: Network, states: tuple[Regulating, ...], heads: Floats, flows: Floats, one_at_once: bool
) -> tuple[Regulating, ...]:
    """Each regulator's state by the heads at its ends; of several that are wrong, the one that is most, if asked."""
    if not states:
        return states
    span = network.span("regulators")
    own = network.laws.loss(flows)[0][span]
    found: list[Regulating] = list(states)
    wrong: dict[int, float] = {}
    for i, at in enumerate(range(span.start, span.stop)):
        inlet, outlet = heads[network.start[at]], heads[network.end[at]]
        setting, flow = network.set_m[i], flows[at]
        if states[i] == "active":
            if flow < -STATE_SLACK_M:
                found[i], wrong[i] = "closed", max(1.0, -flow)
            elif inlet - own[i] < setting - STATE_SLACK_M:
                found[i], wrong[i] = "open", setting - inlet + own[i]
        elif states[i] == "open":
            if outlet > setting + STATE_SLACK_M:
                found[i], wrong[i] = ("active" if flow > 0 else "closed"), outlet - setting
        elif outlet < setting - STATE_SLACK_M and inlet > outlet + STATE_SLACK_M:
            found[i], wrong[i] = ("active" if inlet > setting else "open"), setting - outlet
    if one_at_once and len(wrong) > 1:
        worst = max(wrong, key=lambda i: wrong[i])
        return tuple(state if i == worst else states[i] for i, state in enumerate(found))
    return tuple(found)


def one_holds_each(network: Network, states: tuple[Regulating, ...]) -> tuple[Regulating, ...]:
    """Where several regulators feed one node, the highest setting holds it and the others shut."""
    span = network.span("regulators")
    holding: dict[int, int] = {}
    found = list(states)
    for i, at in enumerate(range(span.start, span.stop)):
        if found[i] != "active":
            continue
        outlet = int(network.end[at])
        other = holding.get(outlet)
        if other is None:
            holding[outlet] = i
        elif network.set_m[i] > network.set_m[other]:
            found[other], holding[outlet] = "closed", i
        else:
            found[i] = "closed"
    return tuple(found)


def closed_to_the_litre(
    network: Network, frame: Frame, found: Balance, conductance: Floats, solver: SuperLU | None
) -> Balance:
    """The balance with no flow backwards where there is none, and what rounding left of each node's sum spread away."""
    flows = found.flows_lph.copy()
    shut = (network.laws.one_way > 0) & (flows < 0)
    regulators = network.span("regulators")
    shut[regulators] |= np.array([state == "closed" for state in found.states], dtype=bool)
    flows[shut] = 0.0
    flows = np.where(frame.links & (flows > network.laws.most_lph), network.laws.most_lph, flows)
    moving = np.where(shut, 0.0, conductance)
    for _ in range(REFINED):
        flows = drawn(network, frame, spread_away(network, frame, flows, moving, solver)[0])
    return replace(found, flows_lph=flows)
