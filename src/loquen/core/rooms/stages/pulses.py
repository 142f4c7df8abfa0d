"""How long one pulse may be: by its step in temperature, by gas, by what a failed mix does, and by the store."""

import math
from dataclasses import dataclass

from loquen.core.graph.nodes import step
from loquen.core.physics.chemistry import gas_saturation_frac
from loquen.core.rooms.stages.plumbing import ZoneFlow
from loquen.core.rooms.stages.racks import Tank


@dataclass(frozen=True, slots=True)
class Bound:
    """How long one pulse may be in a zone, by what, and for whose sake."""

    zone: int
    minutes: float
    why: str
    tank: str
    fed_from: str = "street"


@step()
def pulse_bounds(
    zone_flows: tuple[ZoneFlow, ...],
    tanks: tuple[Tank, ...],
    mixed_c: float,
    reservoir_c: float,
    winter_c: float,
    hot_c: float,
    gas_most_frac: float,
    thermostatic: bool,
    winter_hot_frac: float | None,
) -> tuple[Bound, ...]:
    """The longest pulse of each zone that shocks nobody, over-fills nothing with gas and that a failed mix lets them live."""
    found = []
    gas = float(gas_saturation_frac(winter_c, mixed_c)) if winter_hot_frac else 1.0
    for row in zone_flows:
        pumped = row.fed_from == "reservoir"
        fed_c = reservoir_c if pumped else mixed_c
        for flow in row.tanks:
            tank = tanks[flow.tank]
            line = tank.line
            if row.minutes <= 0 or flow.ratio <= 0:
                continue
            per_min = flow.ratio / row.minutes
            # Water that has stood in a reservoir has let its gas go.
            bounds: list[tuple[float | None, str]] = (
                [] if pumped else [(ratio_of(gas_most_frac - 1, gas - 1), "gas")]
            )
            if line and line.borne_k is not None:
                bounds.append((ratio_of(line.borne_k, abs(fed_c - line.water_c)), "step"))
            if line and line.high_c is not None and line.low_c is not None and (pumped or not thermostatic):
                if not pumped:
                    bounds.append((ratio_of(line.high_c - line.water_c, hot_c - line.water_c), "hot"))
                bounds.append((ratio_of(line.water_c - line.low_c, line.water_c - winter_c), "cold"))
            found += [
                Bound(row.number, ratio / per_min, why, tank.name, row.fed_from)
                for ratio, why in bounds
                if ratio is not None
            ]
    return tuple(found)


def ratio_of(allowed: float, whole: float) -> float | None:
    """The ratio after which a step has come to what is allowed of it; None where the whole step is."""
    if whole <= allowed or whole <= 0:
        return None
    return -math.log1p(-max(0.0, allowed) / whole)


WHY = {
    "store": "the store",
    "step": "the step in temperature",
    "gas": "gas in warmed water",
    "hot": "the mixing valve failing hot",
    "cold": "the hot water running out",
    "own": "your own limit",
}


@step()
def pumped_bound(pulse_bounds: tuple[Bound, ...], longest_min: float | None) -> Bound | None:
    """The shortest of all limits of a pulse from the reservoir; None where there is none."""
    bounds = [bound for bound in pulse_bounds if bound.fed_from == "reservoir"]
    if longest_min is not None:
        bounds.append(Bound(0, longest_min, "own", ""))
    return min(bounds, key=lambda b: b.minutes, default=None)


@step()
def pulse_bound(
    pulse_bounds: tuple[Bound, ...], store_pulse_min: float | None, longest_min: float | None
) -> Bound | None:
    """The shortest of all limits of a pulse from the street; None where there is none."""
    bounds = [bound for bound in pulse_bounds if bound.fed_from == "street"]
    if store_pulse_min is not None:
        bounds.append(Bound(0, store_pulse_min, "store", ""))
    if longest_min is not None:
        bounds.append(Bound(0, longest_min, "own", ""))
    return min(bounds, key=lambda b: b.minutes, default=None)
