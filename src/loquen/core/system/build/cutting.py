"""Panes and baffles to cut, and the holes in them."""

from dataclasses import dataclass

from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, say

BULKHEAD_MM = 10.0
"""How much wider than its pipe the hole for a bulkhead is."""


@dataclass(frozen=True, slots=True)
class Hole:
    """A hole to drill: its centre from the pane's lower left corner, in mm."""

    x_mm: float
    y_mm: float
    bore_mm: float
    purpose: str


@dataclass(frozen=True, slots=True)
class Pane:
    """A pane or baffle to cut, in mm."""

    label: str
    width_mm: float
    height_mm: float
    thickness_mm: float
    count: int
    holes: tuple[Hole, ...] = ()


def panes(sheet: Sheet) -> tuple[Pane, ...]:
    """Every pane of display and sump: the base lies under the walls, the sides stand between front and back."""
    plan = sheet.root
    cut = []
    if plan.tank.shape == "box":
        length, width, height = (sheet.value(f"inside_{side}_cm") * 10 for side in ("length", "width", "height"))
        cut += box_panes(
            "Display", length, width, height, plan.tank.pane_mm, plan.tank.tank_count, back=back_holes(sheet),
            base=base_holes(sheet),
        )  # fmt: skip
    if plan.flow.way == "none":
        return tuple(cut)
    if plan.flow.way == "weir":
        crest = sheet.value("crest_cm") * 10
        box_length, box_width = plan.flow.box_length_cm * 10, plan.flow.box_width_cm * 10
        cut.append(Pane("Weir box, face with the edge", box_length, crest, 6.0, plan.tank.tank_count))
        cut.append(Pane("Weir box, ends", box_width, crest, 6.0, 2 * plan.tank.tank_count))
    below = plan.sump
    cut += box_panes(
        "Sump", below.sump_length_cm * 10, below.sump_width_cm * 10, below.sump_height_cm * 10,
        below.sump_pane_mm, 1,
    )  # fmt: skip
    for i, chamber in enumerate(plan.chambers):
        if chamber.chamber_kind != "return":
            label = f"Sump, baffle after chamber {i + 1} ({chamber.chamber_kind})"
            cut.append(Pane(label, below.sump_width_cm * 10, chamber.baffle_cm * 10, below.sump_pane_mm, 1))
    return tuple(cut)


def box_panes(
    name: str,
    length_mm: float,
    width_mm: float,
    height_mm: float,
    pane_mm: float,
    count: int,
    back: tuple[Hole, ...] = (),
    base: tuple[Hole, ...] = (),
) -> list[Pane]:
    """The five panes of a box by its inside measures."""
    outside = length_mm + 2 * pane_mm
    return [
        Pane(f"{name}, base", outside, width_mm + 2 * pane_mm, pane_mm, count, base),
        Pane(f"{name}, front", outside, height_mm, pane_mm, count),
        Pane(f"{name}, back", outside, height_mm, pane_mm, count, back),
        Pane(f"{name}, sides", width_mm, height_mm, pane_mm, 2 * count),
    ]


def back_holes(sheet: Sheet) -> tuple[Hole, ...]:
    """Holes at the working level in the back pane, their lowest edge at the crest."""
    flow, tank = sheet.root.flow, sheet.root.tank
    if flow.way != "holes":
        return ()
    outside = sheet.value("inside_length_cm") * 10 + 2 * tank.pane_mm
    y = sheet.value("crest_cm") * 10 + flow.hole_mm / 2
    first = flow.hole_edge_cm * 10 + flow.hole_mm / 2
    step = 2.5 * flow.hole_mm
    return tuple(
        Hole(outside - first - n * step, y + row * flow.row_gap_cm * 10, flow.hole_mm, "overflow")
        for row in range(flow.hole_rows)
        for n in range(flow.hole_count)
    )


def base_holes(sheet: Sheet) -> tuple[Hole, ...]:
    """Bulkhead holes for the drains, under the weir box in the back right corner."""
    flow, tank = sheet.root.flow, sheet.root.tank
    if flow.way != "weir":
        return ()
    wanted = [(flow.drain_pipe, "drain")] * flow.drain_count
    if flow.emergency_pipe != "none":
        wanted.append((flow.emergency_pipe, "emergency drain"))
    inside = sheet.value("inside_length_cm") * 10
    step = flow.box_length_cm * 10 / (len(wanted) + 1)
    y = tank.pane_mm + sheet.value("inside_width_cm") * 10 - flow.box_width_cm * 5
    return tuple(
        Hole(
            tank.pane_mm + inside - flow.box_length_cm * 10 + step * (n + 1),
            y,
            sheet.library.pipes[pipe].outside_mm + BULKHEAD_MM,
            purpose,
        )
        for n, (pipe, purpose) in enumerate(wanted)
    )


def holes_near_edges(sheet: Sheet) -> tuple[Sentence, ...]:
    """Holes whose rim comes nearer to an edge than one bore and the pane's thickness."""
    found = []
    for pane in panes(sheet):
        for hole in pane.holes:
            room = min(hole.x_mm, hole.y_mm, pane.width_mm - hole.x_mm, pane.height_mm - hole.y_mm)
            least = hole.bore_mm / 2 + hole.bore_mm + pane.thickness_mm
            if room < least:
                found.append(
                    say(
                        "{pane}: the hole for the {what} lies {room} from an edge; {least} to its centre is the least.",
                        pane=pane.label,
                        what=hole.purpose,
                        room=Term(room, "thickness"),
                        least=Term(least, "thickness"),
                    )
                )
    return tuple(found)
