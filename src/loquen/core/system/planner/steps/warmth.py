"""Lid, foam, heaters, warmth, what cools, and lamps to bask by."""

import math
from collections.abc import Iterator
from dataclasses import replace

from loquen.core.graph.asking import number
from loquen.core.graph.keys import Key
from loquen.core.library.whole import Library
from loquen.core.model.parts.heat import Lamp
from loquen.core.model.roots.plan import PLAN, Plan
from loquen.core.system.planner.practice import usual
from loquen.core.system.planner.standing import Standing

CHILLER_GRAIN_W = 10.0
OPEN_COVER = usual("open_under_fan_frac")
MOST_HEATERS = 3
BASKING_LAMPS = (
    Lamp(lamp_kind="basking", lamp_w=usual("basking_w"), lamp_h=usual("basking_h")),
    Lamp(lamp_kind="uvb", lamp_w=usual("uvb_w"), lamp_h=usual("basking_h"), lamp_cm=usual("uvb_cm")),
)
FOAM_MM, FOAMED_FRAC = usual("foam_mm"), usual("foamed_frac")
COLD = ("heaters_hold", "dead_heater_held", "winter_borne")


def closed(lid: str, library: Library) -> bool:
    """Whether a fan over this lid would blow on the lid."""
    return library.lids[lid].vapour_cover > OPEN_COVER


def lids(now: Standing, check: Key) -> Iterator[Plan]:
    """Lids, from the one that is there towards tight; over a fan, open ones; against the cold, those that keep more warmth."""
    rows = now.library.lids
    for lid in ("glass", "mesh", "tight"):
        lets_out = rows[lid].warm_cover <= rows[now.plan.heat.lid].warm_cover
        if (
            lid == now.plan.heat.lid
            or (now.plan.heat.fan_fitted and closed(lid, now.library))
            or (check in COLD and lets_out)
        ):
            continue
        yield replace(now.plan, heat=replace(now.plan.heat, lid=lid))


def hot_lid(now: Standing, _: Key) -> Iterator[Plan]:
    """Mesh in the lid's place on hot days, where the lid is closed."""
    heat = now.plan.heat
    if heat.hot_day_lid == "same" and closed(heat.lid, now.library):
        yield replace(now.plan, heat=replace(heat, hot_day_lid="mesh"))


def cut_out(now: Standing, _: Key) -> Iterator[Plan]:
    if not now.plan.heat.cut_out:
        yield replace(now.plan, heat=replace(now.plan.heat, cut_out=True))


def sun(now: Standing, _: Key) -> Iterator[Plan]:
    """The lamps to bask by that are not there, over mesh where the lid keeps ultraviolet-B out."""
    plan = now.plan
    have = {row.lamp_kind for row in plan.lamps}
    new = tuple(lamp for lamp in BASKING_LAMPS if lamp.lamp_kind not in have)
    lid = plan.heat.lid if now.library.lids[plan.heat.lid].uvb_passes > 0 else "mesh"
    if (new or lid != plan.heat.lid) and len(plan.lamps) + len(new) <= PLAN.limits["lamps"]:
        yield replace(plan, lamps=(*plan.lamps, *new), heat=replace(plan.heat, lid=lid))


def chiller(now: Standing, _: Key) -> Iterator[Plan]:
    needed = number(now.sheet, "chiller_need_w")
    if needed is not None and needed > now.plan.heat.chiller_w:
        watts = math.ceil(needed / CHILLER_GRAIN_W) * CHILLER_GRAIN_W
        for more in (0.0, CHILLER_GRAIN_W, 5 * CHILLER_GRAIN_W):
            yield replace(now.plan, heat=replace(now.plan.heat, chiller_w=watts + more))


def fan(now: Standing, _: Key) -> Iterator[Plan]:
    """Air over the water, through the lid that there is where it is open, else through mesh; where that does in sticky air
    too."""
    heat = now.plan.heat
    lid = "mesh" if closed(heat.lid, now.library) else heat.lid
    if not heat.fan_fitted or lid != heat.lid:
        blown = replace(now.plan, heat=replace(heat, fan_fitted=True, lid=lid))
        then = now.other(blown).sheet
        sticky, high, borne = (number(then, key) for key in ("sticky_c", "animals_high_c", "hot_day_k"))
        if sticky is not None and high is not None and borne is not None and sticky <= high + borne:
            yield blown


def heaters(now: Standing, _: Key) -> Iterator[Plan]:
    """Two or three heaters of a size that is sold, the smallest first, with a cut-out of their own."""
    heat = now.plan.heat
    if not heat.heated:
        return
    for watts in now.library.stock_heaters_w:
        for count in range(2, MOST_HEATERS + 1):
            yield replace(now.plan, heat=replace(heat, fitted_heaters=count, fitted_w=float(watts), cut_out=True))


def foam(now: Standing, _: Key) -> Iterator[Plan]:
    """Foam under the base, then on back and sides."""
    heat = now.plan.heat
    if heat.base_foam_mm < FOAM_MM:
        yield replace(now.plan, heat=replace(heat, base_foam_mm=FOAM_MM))
    if heat.side_foam_mm < FOAM_MM:
        yield replace(
            now.plan,
            heat=replace(
                heat, base_foam_mm=max(heat.base_foam_mm, FOAM_MM), side_foam_mm=FOAM_MM, foam_frac=FOAMED_FRAC
            ),
        )


def warmth(now: Standing, _: Key) -> Iterator[Plan]:
    """The water kept in the middle of what all bear, then towards its ends."""
    kinds = [now.library.species[group.species] for group in now.plan.animals]
    low = max((kind.temp_low_c for kind in kinds), default=0.0)
    high = min((kind.temp_high_c for kind in kinds), default=0.0)
    for part in (0.5, 0.75, 0.25) if low < high else ():
        target = round(low + part * (high - low), 1)
        heat = now.plan.heat
        cold = heat.room_cold_c < low
        yield replace(now.plan, heat=replace(heat, target_c=target, heated=cold or target > heat.room_mean_c))
