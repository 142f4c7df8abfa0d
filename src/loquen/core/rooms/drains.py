"""Whether a room's water gets away: at the worst hour, and after an accident."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from scipy.optimize import brentq

from loquen.core.errors import NamedCase
from loquen.core.physics.hydraulics import bulkhead_flow_lph, sloped_drain_flow_lph, stack_capacity_lph
from loquen.core.physics.ranges import within

FULLEST = 0.938
"""Share of its bore at which a sloped drain carries most."""
SHALLOWEST = 0.01
HALF = 0.5
LPH_PER_L_S = 3600.0


@dataclass(frozen=True, slots=True)
class RoomDrains:
    """What comes and what each part of the drain passes, L/h; None where the collector does not pass or nothing is left."""

    ordinary_lph: float
    worst_lph: float
    collector_half_lph: float
    collector_most_lph: float
    collector_holds_half: bool
    collector_passes: bool
    depth_frac_ordinary: float | None
    depth_frac_worst: float | None
    rack_drain_lph: float
    rack_drain_holds: bool
    bulkhead_lph: float
    bulkhead_holds: bool
    floor_drain_lph: float
    floor_drain_holds: bool
    accident_l: float
    accident_min: float | None


def drain_depth_frac(*, flow_lph: float, bore_mm: float, slope_frac: float, roughness_n: float = 0.009) -> float:
    """How deep water stands in a sloped drain.

    Equation: Manning's formula of a part-full circle, inverted up to 0.938 of the bore
    Parameters:
        flow_lph: L/h, scalar, 0 to 1e8. Through it.
        bore_mm: mm, scalar, 5 to 2000. True inside diameter.
        slope_frac: share, scalar, 0 to 1. Fall per length.
        roughness_n: 1, scalar, 0.005 to 0.05. Manning's n; 0.009 smooth plastic.
    Returns: share of the bore, scalar.
    Raises: OutOfRange; NamedCase "drain_full" with the most it carries.
    Source: manning

    >>> round(drain_depth_frac(flow_lph=1500, bore_mm=50, slope_frac=0.01), 3)
    0.411
    """
    within("flow_lph", flow_lph, 0, 1e8, "L/h")
    if flow_lph == 0:
        return 0.0
    most = sloped_drain_flow_lph(bore_mm, slope_frac, FULLEST, roughness_n)
    if flow_lph > most:
        raise NamedCase("drain_full", flow=flow_lph, most=most)

    def over(depth: float) -> float:
        return sloped_drain_flow_lph(bore_mm, slope_frac, depth, roughness_n) - flow_lph

    if over(SHALLOWEST) >= 0:
        return SHALLOWEST
    return float(brentq(over, SHALLOWEST, FULLEST, xtol=1e-9))


def room_drains(
    *,
    zones: Sequence[Mapping[str, float]],
    collector_mm: float,
    slope_frac: float,
    rack_drain_mm: float,
    rack_lph: float,
    bulkhead_mm: float,
    head_over_invert_mm: float,
    tank_inflow_lph: float,
    floor_drain_l_s: float,
    accident_l: float,
    hand_lph: float = 0.0,
    other_lph: float = 0.0,
    roughness_n: float = 0.009,
) -> RoomDrains:
    """What a room drains at most in order and with a valve stuck, against bulkhead, rack, collector and floor drain.

    Equation: ordinary = largest zone + hand + other; worst = the two largest zones + the same; minutes to clear an
        accident = litres/(floor drain − worst)·60
    Parameters:
        zones: {"flow_lph"}, each 0 to 1e6. Of every zone.
        collector_mm: mm, scalar, 5 to 2000. Bore of the sloped collector.
        slope_frac: share, scalar, 0 to 1. Its fall.
        rack_drain_mm: mm, scalar, 5 to 1000. Bore of a rack's stack.
        rack_lph: L/h, scalar, 0 to 1e6. That one rack drains at most.
        bulkhead_mm: mm, scalar, 1 to 1000. Bore of a tank's outlet.
        head_over_invert_mm: mm, scalar, 0 to 10000. Of water over it that is allowed.
        tank_inflow_lph: L/h, scalar, 0 to 1e6. The most that a tank gets.
        floor_drain_l_s: L/s, scalar, 0 to 1000. As rated.
        accident_l: L, scalar, 0 to 1e7. That may come at once: the largest tank, or a rack on one sump.
        hand_lph: L/h, scalar, 0 to 1e6. Hoses meanwhile.
        other_lph: L/h, scalar, 0 to 1e6. Osmosis waste and the like.
        roughness_n: 1, scalar, 0.005 to 0.05. Manning's n of the collector.
    Returns: RoomDrains.
    Raises: OutOfRange.
    Source: manning
    """
    flows = sorted((float(zone["flow_lph"]) for zone in zones), reverse=True)
    for name, value in [
        ("hand_lph", hand_lph),
        ("other_lph", other_lph),
        ("rack_lph", rack_lph),
        *(("flow_lph", f) for f in flows),
    ]:
        within(name, value, 0, 1e6, "L/h")
    within("floor_drain_l_s", floor_drain_l_s, 0, 1000, "L/s")
    within("accident_l", accident_l, 0, 1e7, "L")
    ordinary = sum(flows[:1]) + hand_lph + other_lph
    worst = sum(flows[:2]) + hand_lph + other_lph
    half = sloped_drain_flow_lph(collector_mm, slope_frac, HALF, roughness_n)
    most = sloped_drain_flow_lph(collector_mm, slope_frac, FULLEST, roughness_n)

    def depth(flow_lph: float) -> float | None:
        if flow_lph > most:
            return None
        return drain_depth_frac(
            flow_lph=flow_lph, bore_mm=collector_mm, slope_frac=slope_frac, roughness_n=roughness_n
        )

    stack = float(stack_capacity_lph(rack_drain_mm))
    outlet = bulkhead_flow_lph(bulkhead_mm, head_over_invert_mm)
    floor = floor_drain_l_s * LPH_PER_L_S
    left = floor - worst
    return RoomDrains(
        ordinary_lph=ordinary,
        worst_lph=worst,
        collector_half_lph=half,
        collector_most_lph=most,
        collector_holds_half=half >= ordinary,
        collector_passes=most >= worst,
        depth_frac_ordinary=depth(ordinary),
        depth_frac_worst=depth(worst),
        rack_drain_lph=stack,
        rack_drain_holds=stack >= rack_lph,
        bulkhead_lph=outlet,
        bulkhead_holds=outlet >= tank_inflow_lph,
        floor_drain_lph=floor,
        floor_drain_holds=floor >= worst,
        accident_l=accident_l,
        accident_min=accident_l / left * 60 if left > 0 else None,
    )
