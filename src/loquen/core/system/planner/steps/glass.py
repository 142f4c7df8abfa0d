"""Glass that is sold, and what stands in it."""

from collections.abc import Iterator
from dataclasses import replace

from loquen.core.graph.keys import Key
from loquen.core.graph.nodes import Verdict
from loquen.core.library.whole import Library
from loquen.core.model.parts.tank import Planting, Tank
from loquen.core.model.roots.plan import PLAN, Plan
from loquen.core.system.planner.practice import usual
from loquen.core.system.planner.standing import Standing
from loquen.core.system.propose.sump_sizing import raised_returns

COVERS = (usual("planted_little_frac"), usual("planted_much_frac"))
PLANTS = ("fast_stems", "floating_plants", "roots_in_water", "slow_rooted")
SIZE = ("tank_length_cm", "tank_width_cm", "tank_height_cm", "pane_mm", "support")


def returns(now: Standing, _: Key) -> Iterator[Plan]:
    """The returns raised as far as the drain-down asks."""
    for remedy in raised_returns(now.sheet):
        yield PLAN.changed(now.plan, remedy.changes)


def plants(now: Standing, _: Key) -> Iterator[Plan]:
    """Plants over a part of the floor or the surface, where none are; of those that live here, what takes up most."""
    if now.plan.planting:
        return
    for cover in COVERS:
        for kind in PLANTS:
            planted = replace(now.plan, planting=(Planting(kind, cover),))
            lives = now.other(planted).sheet.look("plants_live")
            if isinstance(lives, Verdict) and lives.state == "holds":
                yield planted


def sold_tank(key: str, library: Library) -> Tank:
    """A tank that is sold, with the pane and the edge it is sold with."""
    stock = library.stock_tanks[key]
    return Tank(
        tank_length_cm=stock.length_cm,
        tank_width_cm=stock.width_cm,
        tank_height_cm=stock.height_cm,
        pane_mm=stock.pane_mm,
        support=stock.support,
    )


def pane(now: Standing, _: Key) -> Iterator[Plan]:
    """The next panes that are sold; then the edge braced all round."""
    tank = now.plan.tank
    for braced in (tank.support, "four_edges"):
        for mm in now.library.stock_panes_mm:
            if mm > tank.pane_mm or (braced != tank.support and mm >= tank.pane_mm):
                yield replace(now.plan, tank=replace(tank, pane_mm=mm, support=braced))


def tanks(now: Standing, _: Key) -> Iterator[Plan]:
    """Tanks that are sold and hold more, the smallest first, as full as this one; the bed and what lies on it stay."""
    tank = now.plan.tank
    if tank.shape != "box":
        return
    litres = tank.tank_length_cm * tank.tank_width_cm * tank.tank_height_cm
    sold = [sold_tank(key, now.library) for key in now.library.stock_tanks]
    for found in sorted(sold, key=lambda t: t.tank_length_cm * t.tank_width_cm * t.tank_height_cm):
        if found.tank_length_cm * found.tank_width_cm * found.tank_height_cm > litres * 1.01:
            size = {name: getattr(found, name) for name in SIZE} | {
                "freeboard_cm": max(tank.freeboard_cm, found.freeboard_cm)
            }
            if tank.fill_by == "height":
                size["part_fill_cm"] = round(tank.part_fill_cm * found.tank_height_cm / tank.tank_height_cm)
            yield replace(now.plan, tank=replace(tank, **size))


HARMLESS_BEDS = ("sand", "none")
"""Fine enough to pass, or not there."""


def bed(now: Standing, _: Key) -> Iterator[Plan]:
    """Fine sand, or bare glass."""
    tank = now.plan.tank
    for key in HARMLESS_BEDS:
        if key != tank.bed:
            yield replace(now.plan, tank=replace(tank, bed=key))
