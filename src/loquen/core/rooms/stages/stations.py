"""Pipe and hose between what stands in the room, reckoned along the walls where nobody has measured it."""

import math
from dataclasses import dataclass

from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import figure, step
from loquen.core.rooms.stages.plumbing import place_m, walked_m
from loquen.core.rooms.stages.racks import Standing, Tank

L_PER_M3 = 1000.0
ALONG_CM = 50.0
"""A hose hangs so far from the rim it fills."""


@figure(
    "Pipe from the tap",
    formula="{feed_m} as measured, or along the walls from tap ({tap_x_m}, {tap_y_m}, {tap_cm}) to manifold ({manifold_x_m}, "
    "{manifold_y_m}, {manifold_cm})",
    source="definition",
    kind="head",
)
def feed_run_m(
    feed_m: float | None,
    tap_x_m: float,
    tap_y_m: float,
    tap_cm: float,
    manifold_x_m: float,
    manifold_y_m: float,
    manifold_cm: float,
) -> float:
    if feed_m is not None:
        return feed_m
    return max(0.1, walked_m((tap_x_m, tap_y_m, tap_cm / 100), (manifold_x_m, manifold_y_m, manifold_cm / 100)))


@figure(
    "Pipe from the reservoir",
    formula="{reservoir_pipe_m} as measured, or along the walls from it ({tub_x_m}, {tub_y_m}, floor) to its manifold "
    "({manifold_x_m}, {manifold_y_m}, {manifold_cm})",
    source="definition",
    kind="head",
)
def reservoir_run_m(
    reservoir_pipe_m: float | None,
    tub_x_m: float,
    tub_y_m: float,
    manifold_x_m: float,
    manifold_y_m: float,
    manifold_cm: float,
) -> float:
    if reservoir_pipe_m is not None:
        return reservoir_pipe_m
    return max(0.1, walked_m((tub_x_m, tub_y_m, 0.0), (manifold_x_m, manifold_y_m, manifold_cm / 100)))


@figure(
    "Cools in the hot pipe between two runs",
    formula="1000 × π ÷ 4 × {feed_mm}² × way along the walls from hot store ({hot_x_m}, {hot_y_m}) to manifold "
    "({manifold_x_m}, {manifold_y_m}, {manifold_cm})",
    source="definition",
)
def hot_leg_l(
    feed_mm: float,
    hot_x_m: float,
    hot_y_m: float,
    manifold_x_m: float,
    manifold_y_m: float,
    manifold_cm: float,
) -> float:
    way = walked_m((hot_x_m, hot_y_m, 0.0), (manifold_x_m, manifold_y_m, manifold_cm / 100))
    return L_PER_M3 * math.pi / 4 * (feed_mm / 1000) ** 2 * way


@dataclass(frozen=True, slots=True)
class HoseEnd:
    """The tank by hand that is farthest from the sink, and the hose that reaches it, m."""

    tank: str
    hose_m: float

    @property
    def label(self) -> str:
        return self.tank


@step()
def farthest_by_hand(
    by_hand: tuple[Tank, ...], standing: tuple[Standing, ...], sink_x_m: float, sink_y_m: float
) -> HoseEnd:
    racked = [tank for tank in by_hand if tank.rack]
    if not racked:
        raise NamedCase("none_by_hand")
    ends = []
    for tank in racked:
        x, y = place_m(standing[tank.rack - 1], tank.middle_cm)
        # Over the floor it goes straight, and then up to the rim.
        over = math.hypot(x - sink_x_m, y - sink_y_m) + (tank.rim_cm + ALONG_CM) / 100
        ends.append(HoseEnd(tank.name, over))
    return max(ends, key=lambda end: end.hose_m)


@figure(
    "Hose that reaches every tank by hand",
    formula="straight over the floor and up, of {farthest_by_hand}",
    source="definition",
    kind="head",
)
def hose_m(farthest_by_hand: HoseEnd) -> float:
    return farthest_by_hand.hose_m


@figure(
    "Collector to the drain",
    formula="longest way along the walls from the far end of a rack of {standing} to the drain ({drain_x_m}, {drain_y_m})",
    source="definition",
    kind="head",
)
def collector_m(standing: tuple[Standing, ...], drain_x_m: float, drain_y_m: float) -> float:
    if not standing:
        raise NamedCase("no_racks")
    ends = [place_m(rack, along) for rack in standing for along in (0.0, rack.length_cm)]
    return max(walked_m((x, y, 0.0), (drain_x_m, drain_y_m, 0.0)) for x, y in ends)


@figure("It falls on the way by", formula="{collector_m} × 100 × {collector_fall_frac}", source="definition")
def collector_drop_cm(collector_m: float, collector_fall_frac: float) -> float:
    return collector_m * 100 * collector_fall_frac
