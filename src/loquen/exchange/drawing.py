"""The workshop drawing of a system's section: lines, areas and words in cm, y upwards from the sump's base."""

from dataclasses import dataclass, field
from html import escape

from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import written
from loquen.core.model.roots.plan import Plan

INKS = {
    "glass": "#2a7763",
    "water": "#cde5e0",
    "sand": "#d9c8a2",
    "wood": "#7a5a38",
    "pipe": "#8a9699",
    "ink": "#10221d",
    "mark": "#84958e",
    "brass": "#7a5f16",
    "short": "#a8430f",
    "none": "none",
}


ROOMY_CM = 8.0
"""A chamber narrower than this has no room for its name."""
RETURNS_APART_CM = 8.0
"""How far apart returns are drawn; where they really go is the builder's to choose."""


@dataclass(frozen=True, slots=True)
class Line:
    points: tuple[tuple[float, float], ...]
    ink: str
    weight: float
    dashed: bool = False


@dataclass(frozen=True, slots=True)
class Area:
    x: float
    y: float
    width: float
    height: float
    ink: str


@dataclass(frozen=True, slots=True)
class Words:
    x: float
    y: float
    text: str
    size: float
    ink: str = "ink"
    anchor: str = "middle"
    turned: bool = False


@dataclass
class Drawing:
    """What is drawn, in order, and the frame around it."""

    left: float
    bottom: float
    right: float
    top: float
    items: list[Line | Area | Words] = field(default_factory=list)


def section(sheet: Sheet, chosen: dict[str, str]) -> Drawing:
    """The section with its dimensions, true to scale, from the sheet's own figures."""
    plan = sheet.root
    length, height = sheet.value("inside_length_cm"), sheet.value("inside_height_cm")
    water, pane = sheet.value("water_height_cm"), plan.tank.pane_mm / 10
    lift = plan.sump.stand_cm if plan.flow.way != "none" else 0.0
    room = 0.12 * max(length, height + lift)
    over = (
        max(0.0, water + plan.land.land_above_cm + plan.land.land_cover_cm - height)
        if plan.land.land_kind == "box"
        else 0.0
    )
    size = 0.022 * (length + 2 * room)
    drawing = Drawing(-room, -room, length + room, lift + height + room + over)
    items = drawing.items
    items.append(Area(0, lift, length, water, "water"))
    if plan.tank.bed != "none":
        items.append(Area(0, lift, length, (plan.tank.bed_front_cm + plan.tank.bed_back_cm) / 2, "sand"))
    items += land_items(plan, length, lift, water, chosen, size)
    items.append(box_line(0, lift, length, height, pane))
    items += across(0, length, lift - 0.35 * room, written(length, "length", chosen), size)
    items += upright(-0.4 * room, lift, lift + height, written(height, "length", chosen), size)
    items.append(
        Words(
            length * 0.03,
            lift + water - 1.4 * size,
            f"water {written(water, 'length', chosen)}",
            size,
            "ink",
            "start",
        )
    )
    if plan.flow.way != "none":
        items += sump_items(sheet, chosen, size, lift)
    return drawing


RAMP_SLOPE = 1.6
"""How far a ramp reaches for each cm that it leads down."""


def land_items(
    plan: Plan, length: float, lift: float, water: float, chosen: dict[str, str], size: float
) -> list[Line | Area | Words]:
    """The dry place: a bank from the floor up, a platform at the surface or a box over the rim, and the way down."""
    place, top = plan.land, lift + water + plan.land.land_above_cm
    if place.land_kind not in ("platform", "box", "bank"):
        return []
    run = min(place.land_length_cm, length)
    if place.land_kind == "bank":
        items: list[Line | Area | Words] = [Area(0, lift, run, top - lift, "sand")]
    else:
        items = [Line(((0, top), (run, top)), "wood", 1.2)]
        if place.land_ramp:
            down = min(place.land_above_cm + water * 0.4, water)
            items.append(Line(((run, top), (min(run + down * RAMP_SLOPE, length), top - down)), "wood", 0.8))
        if place.land_kind == "box":
            roof = top + place.land_cover_cm
            items.append(Line(((0, top), (0, roof), (run, roof), (run, top)), "pipe", 0.4, dashed=True))
    text = f"land {written(run, 'length', chosen)}, {written(place.land_above_cm, 'length', chosen)} over the water"
    # Beside a box, whose walls stand in the way.
    beside = run + size * 0.5 if place.land_kind == "box" else 0.6
    items.append(Words(beside, top + size * 0.5, text, size * 0.8, "ink", "start"))
    return items


def box_line(x: float, y: float, length: float, height: float, pane: float) -> Line:
    half = pane / 2
    points = (
        (x - half, y + height),
        (x - half, y - half),
        (x + length + half, y - half),
        (x + length + half, y + height),
    )
    return Line(points, "glass", pane)


def across(x1: float, x2: float, y: float, text: str, size: float) -> list[Line | Area | Words]:
    """A dimension along the floor."""
    tick = size * 0.5
    ends: list[Line | Area | Words] = [Line(((x, y - tick), (x, y + tick)), "mark", 0.2) for x in (x1, x2)]
    return [Line(((x1, y), (x2, y)), "mark", 0.2), *ends, Words((x1 + x2) / 2, y + size * 0.3, text, size)]


def upright(x: float, y1: float, y2: float, text: str, size: float) -> list[Line | Area | Words]:
    """A dimension up a wall."""
    tick = size * 0.5
    ends: list[Line | Area | Words] = [Line(((x - tick, y), (x + tick, y)), "mark", 0.2) for y in (y1, y2)]
    return [
        Line(((x, y1), (x, y2)), "mark", 0.2),
        *ends,
        Words(x - size * 0.3, (y1 + y2) / 2, text, size, turned=True),
    ]


def sump_items(sheet: Sheet, chosen: dict[str, str], size: float, lift: float) -> list[Line | Area | Words]:
    """The sump under the display, the way down and the way back."""
    plan, below = sheet.root, sheet.root.sump
    length = sheet.value("inside_length_cm")
    left = (length - below.sump_length_cm) / 2
    items: list[Line | Area | Words] = []
    baffles: list[Line | Area | Words] = []
    x = left
    for i, chamber in enumerate(plan.chambers):
        run, level = sheet.value(f"chambers.{i}.chamber_run_cm"), sheet.value(f"chambers.{i}.chamber_level_cm")
        items.append(Area(x, 0, run, level, "water"))
        if run > ROOMY_CM:
            baffles.append(Words(x + run / 2, size * 0.5, chamber.chamber_kind, size * 0.7))
        x += run
        if chamber.chamber_kind != "return":
            high = chamber.baffle_cm
            baffles.append(Line(((x, 0), (x, high)), "ink", 0.5))
            # A narrow chamber has no room for its own: its baffle's height stands a line lower.
            down = size if run > ROOMY_CM else size * 2.2
            baffles.append(Words(x - 0.6, high - down, written(high, "length", chosen), size * 0.6, anchor="end"))
    items += baffles
    items.append(box_line(left, 0, below.sump_length_cm, below.sump_height_cm, below.sump_pane_mm / 10))
    off = sheet.value("power_off_cm")
    fits = sheet.value("drain_down_fits").state != "short"
    ghost = "brass" if fits else "short"
    items.append(Line(((left - 2, off), (left + below.sump_length_cm + 2, off)), ghost, 0.25, dashed=True))
    items.append(
        Words(
            left + below.sump_length_cm + 3,
            off,
            f"power off {written(off, 'length', chosen)}",
            size * 0.8,
            ghost,
            "start",
        )
    )
    clogged = sheet.value("clogged_off_cm")
    if clogged > off:
        high = max(clogged, off + size)
        text = f"holes clogged {written(clogged, 'length', chosen)}"
        items.append(Words(left + below.sump_length_cm + 3, high, text, size * 0.8, ghost, "start"))
        items.append(
            Line(((left - 2, clogged), (left + below.sump_length_cm + 2, clogged)), ghost, 0.12, dashed=True)
        )
    items += across(
        left, left + below.sump_length_cm, -size * 2.2, written(below.sump_length_cm, "length", chosen), size
    )
    items += ways(sheet, chosen, size, lift, left)
    return items


def ways(sheet: Sheet, chosen: dict[str, str], size: float, lift: float, left: float) -> list[Line | Area | Words]:
    """Crest, drain and return."""
    plan, below = sheet.root, sheet.root.sump
    length, height = sheet.value("inside_length_cm"), sheet.value("inside_height_cm")
    crest = lift + sheet.value("crest_cm")
    out = length - plan.flow.box_width_cm / 2 if plan.flow.way == "weir" else length + 4
    start = crest - 5 if plan.flow.way == "weir" else crest
    inlet, middle = left + 5, below.sump_height_cm + (lift - below.sump_height_cm) * 0.6
    drain = ((out, start), (out, middle), (inlet, middle), (inlet, below.return_level_cm))
    back = left + below.sump_length_cm - 6
    rise = length + 10
    water = lift + sheet.value("water_height_cm")
    inner = length - plan.flow.box_width_cm if plan.flow.way == "weir" else length
    drops = [inner - 4 - i * RETURNS_APART_CM for i in range(len(plan.returns))]
    up = (
        (back, below.intake_cm), (back, below.sump_height_cm + 5), (rise, below.sump_height_cm + 5),
        (rise, lift + height + 4), (drops[-1] if drops else inner, lift + height + 4),
    )  # fmt: skip
    items: list[Line | Area | Words] = [Line(drain, "pipe", 1.2), Line(up, "pipe", 1.2)]
    items += [
        Line(((x, lift + height + 4), (x, water - row.outlet_depth_cm)), "pipe", 1.2)
        for x, row in zip(drops, plan.returns, strict=True)
    ]
    down, blocked = water - sheet.value("drop_cm"), water + sheet.value("blocked_rise_mm") / 10
    items += [Line(((length * 0.3, y), (inner, y)), "brass", 0.2, dashed=True) for y in (down, blocked)]
    levels = (
        f"power off {written(sheet.value('drop_cm'), 'length', chosen)} lower, "
        f"drain blocked {written(sheet.value('blocked_rise_mm') / 10, 'length', chosen)} higher"
    )
    items.append(Words(length * 0.3, min(down, water - size) - size, levels, size * 0.8, "brass", "start"))
    if plan.flow.way == "weir":
        wall = length - plan.flow.box_width_cm
        items.append(Line(((wall, lift), (wall, crest)), "ink", 0.6))
    text = f"crest {written(sheet.value('crest_cm'), 'length', chosen)}"
    items.append(Words(length * 0.84, lift + height + size, text, size, anchor="end"))
    pumped = written(sheet.value("return_lph"), "flow", chosen)
    items.append(
        Words(
            back - 2,
            below.sump_height_cm + size * 0.6,
            f"pump {pumped}",
            size * 0.8,
            anchor="end",
        )
    )
    return items


def svg(drawing: Drawing) -> str:
    """A drawing as SVG text, standing on its own."""
    width, height = drawing.right - drawing.left, drawing.top - drawing.bottom
    parts = [
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width:.2f} {height:.2f}" '
        f'width="{width:.1f}mm" height="{height:.1f}mm" font-family="sans-serif">'
    ]
    for item in drawing.items:
        if isinstance(item, Area):
            y = drawing.top - item.y - item.height
            parts.append(
                f'<rect x="{item.x - drawing.left:.2f}" y="{y:.2f}" width="{item.width:.2f}" '
                f'height="{item.height:.2f}" fill="{INKS[item.ink]}"/>'
            )
        elif isinstance(item, Line):
            points = " ".join(f"{x - drawing.left:.2f},{drawing.top - y:.2f}" for x, y in item.points)
            dash = ' stroke-dasharray="2 1.4"' if item.dashed else ""
            parts.append(
                f'<polyline points="{points}" fill="none" stroke="{INKS[item.ink]}" stroke-width="{item.weight:.2f}"{dash}/>'
            )
        else:
            x, y = item.x - drawing.left, drawing.top - item.y
            turn = f' transform="rotate(-90 {x:.2f} {y:.2f})"' if item.turned else ""
            parts.append(
                f'<text x="{x:.2f}" y="{y:.2f}" font-size="{item.size:.2f}" text-anchor="{item.anchor}" '
                f'fill="{INKS[item.ink]}"{turn}>{escape(item.text)}</text>'
            )
    return "\n".join([*parts, "</svg>", ""])
