"""Pump curves, and where they meet the system's."""

from collections.abc import Callable, Sequence
from itertools import pairwise
from typing import cast

import numpy as np

from loquen.core.errors import NamedCase, OutOfRange
from loquen.core.physics.hydraulics.pipes import Loss
from loquen.core.physics.ranges import Number, within

PumpCurve = tuple[float, float] | Sequence[tuple[float, float]] | Callable[[float], float]
"""Shut-off head (m) and largest flow (L/h); or points of flow (L/h) and head (m); or head (m) at a flow."""
MOST_FLOW_LPH = 1e7


def pump_head_m(flow_lph: Number, shutoff_head_m: Number, max_flow_lph: Number) -> Number:
    """Head that a centrifugal pump makes at a flow.

    Equation: H = H0·(1 − (Q/Qmax)²)
    Parameters:
        flow_lph: L/h, scalar or array, 0 to 1e7. At most max_flow_lph: below zero head past it.
        shutoff_head_m: m, scalar or array, 0.01 to 1000. With no flow.
        max_flow_lph: L/h, scalar or array, 1 to 1e7. With no head.
    Returns: m, as broadcast.
    Raises: OutOfRange.
    Source: pump_curves

    >>> round(pump_head_m(flow_lph=0, shutoff_head_m=3, max_flow_lph=3000), 3)
    3.0
    """
    within("flow_lph", flow_lph, 0, 1e7, "L/h")
    within("shutoff_head_m", shutoff_head_m, 0.01, 1000, "m")
    within("max_flow_lph", max_flow_lph, 1, 1e7, "L/h")
    return shutoff_head_m * (1 - (flow_lph / max_flow_lph) ** 2)


def pump_of(pump: PumpCurve) -> tuple[Loss, float]:
    """A pump's head (m) at a flow (L/h), and its largest flow (L/h). Points run through without overshoot."""
    if callable(pump):
        return pump, largest_flow(pump)
    if all(isinstance(part, int | float) for part in pump):
        shutoff, most = (float(part) for part in cast("tuple[float, float]", pump))
        within("shutoff_head_m", shutoff, 0.01, 1000, "m")
        within("max_flow_lph", most, 1, 1e7, "L/h")
        return lambda flow: shutoff * (1 - (flow / most) ** 2), most
    from scipy.interpolate import PchipInterpolator

    points = sorted(cast("Sequence[tuple[float, float]]", pump))
    flows, heads = [p[0] for p in points], [p[1] for p in points]
    if len(points) < 2 or flows[0] != 0 or any(a <= b for a, b in pairwise(heads)):
        raise OutOfRange("pump", len(points), 2, 100, "points from no flow on, each with less head")
    curve = PchipInterpolator(flows, heads)
    end, slope = flows[-1], float(curve.derivative()(flows[-1]))
    # Past the last point the curve goes on straight, down to no head at all.
    most = end + heads[-1] / -min(slope, -1e-9) if heads[-1] > 0 else end
    return lambda flow: float(curve(flow)) if flow <= end else heads[-1] + slope * (flow - end), most


def largest_flow(head: Loss) -> float:
    """The flow at which a pump's head is used up."""
    most = 1.0
    while head(most) > 0 and most < MOST_FLOW_LPH:
        most *= 2
    return most


def operating_flow_lph(pump: PumpCurve, static_head_m: float, system_loss: Loss) -> float:
    """Flow at which a pump's curve and its system's curve meet.

    Equation: H_pump(Q) = static head + loss(Q)
    Parameters:
        pump: (shut-off head in m, largest flow in L/h), or points of (L/h, m), or a function of L/h giving m.
        static_head_m: m, scalar, -100 to 1000. Lift from the sump's level to the outlet or the display's level.
        system_loss: a function of L/h giving m, rising.
    Returns: L/h, scalar.
    Raises: OutOfRange; NamedCase "no_flow" when the lift is at or above the shut-off head.
    Source: pump_curves
    """
    within("static_head_m", static_head_m, -100, 1000, "m")
    head, most = pump_of(pump)
    if static_head_m >= head(0.0):
        raise NamedCase("no_flow", static=static_head_m, shutoff=head(0.0))
    from scipy.optimize import brentq

    def spare(flow: float) -> float:
        return head(flow) - static_head_m - system_loss(flow)

    while spare(most) > 0:
        most *= 2
    return float(brentq(spare, 0.0, most, xtol=1e-6, rtol=1e-10))


def branch_flow_lph(head_m: float, static_m: float, loss: Loss, most_lph: float, near_lph: float = 0.0) -> float:
    """What one return passes when a head stands before it: 0 when it is not reached, `most_lph` at most.

    It is looked for first near a flow that it passed at another head.
    """
    if head_m <= static_m:
        return 0.0
    if static_m + loss(most_lph) <= head_m:
        return most_lph
    from scipy.optimize import brentq

    def over(flow: float) -> float:
        return static_m + loss(flow) - head_m

    low, high = 0.0, most_lph
    for end in (near_lph * 0.9, near_lph * 1.1):
        if low < end < high:
            low, high = (end, high) if over(end) < 0 else (low, end)
    return float(brentq(over, low, high, xtol=1e-6, rtol=1e-8))


def split_flow_lph(
    pump: PumpCurve, common_loss: Loss, static_heads_m: Sequence[float], branch_losses: Sequence[Loss]
) -> tuple[float, ...]:
    """Flow through each of several returns that share a pump and the head left after a common pipe.

    Equation: H = H_pump(ΣQ) − common(ΣQ) = static_i + loss_i(Q_i) for every return that flows
    Parameters:
        pump: as for operating_flow_lph.
        common_loss: a function of L/h giving m, of the pipe before the branches.
        static_heads_m: m, one per return, each -100 to 1000. Lift of each.
        branch_losses: one function of L/h giving m per return, rising.
    Returns: L/h, one per return; 0 for one that the head does not reach.
    Raises: OutOfRange; NamedCase "no_flow" when the head reaches none.
    Source: pump_curves
    """
    within("static_heads_m", np.asarray(static_heads_m), -100, 1000, "m")
    head, most = pump_of(pump)
    lowest = min(static_heads_m)
    if lowest >= head(0.0):
        raise NamedCase("no_flow", static=lowest, shutoff=head(0.0))
    from scipy.optimize import brentq

    # Down a negative lift more may pass than the pump moves by itself.
    cap = most if lowest >= 0 else MOST_FLOW_LPH

    flows = (0.0,) * len(branch_losses)

    def branches(at: float) -> tuple[float, ...]:
        nonlocal flows
        rows = zip(static_heads_m, branch_losses, flows, strict=True)
        flows = tuple(branch_flow_lph(at, static, loss, cap, near) for static, loss, near in rows)
        return flows

    def spare(at: float) -> float:
        total = sum(branches(at))
        return head(total) - common_loss(total) - at

    return branches(float(brentq(spare, lowest, head(0.0), xtol=1e-10, rtol=1e-12)))
