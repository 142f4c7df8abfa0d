"""A dry place for those who leave the water, and the water as high as it leaves them room."""

import math
from collections.abc import Iterator
from dataclasses import replace

from loquen.core.graph.asking import number
from loquen.core.graph.keys import Key
from loquen.core.library.rows.animals import Species
from loquen.core.model.parts.land import Land
from loquen.core.model.parts.tank import Tank
from loquen.core.model.roots import heights
from loquen.core.model.roots.plan import Plan
from loquen.core.system.planner.practice import usual
from loquen.core.system.planner.standing import Standing
from loquen.core.system.tank.depth import reach_cm
from loquen.core.system.tank.land import PLACES

ABOVE_CM, BOX_FREEBOARD_CM, SHORE_CM = usual("land_above_cm"), usual("box_freeboard_cm"), usual("shore_water_cm")
MOST_COVERED_FRAC = 0.5
"""Of the surface that platforms may cover where land is no part of the floor."""
SHARES = {"island": "land_island_frac", "third": "land_third_frac", "half": "land_half_frac"}


def land(now: Standing, _: Key) -> Iterator[Plan]:
    """What those aboard stand on: a bank for who lives ashore as much, an island for newts, platforms or boxes over the rim for
    who lies on a place of its own."""
    rows = [
        (now.library.species[group.species], group.number, length)
        for i, group in enumerate(now.plan.animals)
        if (length := number(now.sheet, f"animals.{i}.length_then_cm")) is not None
    ]
    needs = [(kind, count, length) for kind, count, length in rows if kind.needs_land != "none"]
    if not needs or now.plan.tank.shape != "box":
        return
    share = max(
        (now.sheet.constants[SHARES[kind.needs_land]].value for kind, _, _ in needs if kind.needs_land in SHARES),
        default=0.0,
    )
    longest = max(length for _, _, length in needs)
    over_cm = math.ceil(now.sheet.constants["place_shells"].value * longest)
    lying = sum(count for kind, count, _ in needs if kind.needs_land in PLACES)
    if any(kind.needs_land in ("half", "third") for kind, _, _ in needs):
        found = shore(now, share, over_cm)
    elif lying == 0:
        found = island(now, share, over_cm)
    else:
        found = places(now, lying, over_cm)
    for plan in found:
        yield replace(plan, land=replace(plan.land, rest_cm=rest_for(now, rows)))


def rest_for(now: Standing, rows: list[tuple[Species, int, float]]) -> float | None:
    """How far under the surface a rest helps the shortest neck aboard, today's; none where nobody has one."""
    now_cm = [number(now.sheet, f"animals.{i}.length_now_cm") for i in range(len(now.plan.animals))]
    necks = [
        reach_cm(length)
        for (kind, _, _), length in zip(rows, now_cm, strict=True)
        if kind.shape == "turtle" and length
    ]
    return math.floor(min(necks) * 10) / 10 if necks else now.plan.land.rest_cm


def filled(tank: Tank, free_cm: float) -> Tank:
    """The tank with at least so much free over the water."""
    if tank.fill_by == "height":
        inside = tank.tank_height_cm - heights.wall_off_cm(tank.measured, tank.pane_mm)
        return replace(tank, part_fill_cm=min(tank.part_fill_cm, inside - free_cm))
    return replace(tank, freeboard_cm=max(tank.freeboard_cm, free_cm))


def inside(now: Standing) -> tuple[float, float, float]:
    keys = ("inside_length_cm", "inside_width_cm", "inside_height_cm")
    length, width, height = (float(now.sheet.value(key)) for key in keys)
    return length, width, height


def shore(now: Standing, share: float, over_cm: float) -> Iterator[Plan]:
    """A bank across the tank's width, beside water as deep as they leave with ease."""
    length, width, height = inside(now)
    run = math.ceil(share * length)
    bed = number(now.sheet, "bed_depth_cm") or 0.0
    water = SHORE_CM + bed
    if water + ABOVE_CM + over_cm > height:
        return
    tank = replace(now.plan.tank, fill_by="height", part_fill_cm=round(water, 1))
    place = Land("bank", now.plan.tank.tank_count, run, width, ABOVE_CM)
    yield replace(now.plan, tank=tank, land=place)


def island(now: Standing, share: float, over_cm: float) -> Iterator[Plan]:
    """A float of the part of the floor that newts want, with room over it."""
    length, width, height = inside(now)
    side = math.ceil(math.sqrt(share * length * width))
    if ABOVE_CM + over_cm > height / 2 or side > width:
        return
    place = Land("platform", now.plan.tank.tank_count, side, side, ABOVE_CM)
    yield replace(now.plan, tank=filled(now.plan.tank, ABOVE_CM + over_cm), land=place)


def places(now: Standing, count: int, side_cm: float) -> Iterator[Plan]:
    """A place for each: platforms with room over them under the rim, else boxes over it, which leave the water its height."""
    length, width, height = inside(now)
    tanks = now.plan.tank.tank_count
    free = ABOVE_CM + side_cm
    fits = side_cm <= width and count * side_cm**2 <= MOST_COVERED_FRAC * length * width * tanks
    if fits and free < height / 2:
        place = Land("platform", count, side_cm, side_cm, ABOVE_CM)
        yield replace(now.plan, tank=filled(now.plan.tank, free), land=place)
    tank = filled(now.plan.tank, BOX_FREEBOARD_CM)
    above = max(BOX_FREEBOARD_CM, height - (number(now.sheet, "water_height_cm") or height)) + 1.0
    yield replace(now.plan, tank=tank, land=Land("box", count, side_cm, side_cm, above, side_cm))
