"""What a builder takes from a sheet: panes and holes to cut, parts to buy, what plugs in, what to test in which order."""

import math
from collections import Counter, defaultdict
from dataclasses import dataclass

from loquen.core.data import library
from loquen.core.model.quantity import Sentence, Term, of, say
from loquen.core.physics import heat
from loquen.core.sheet.engine import Missing, Sheet

BULKHEAD_MM = 10.0
"""How much wider than its pipe the hole for a bulkhead is."""
PIPE_SPARE = 1.1
SILICONE_M = 8.0
"""Metres of joint that one cartridge of 310 mL fills."""
BUCKET_L = 10.0


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


@dataclass(frozen=True, slots=True)
class PartLine:
    """Something to buy: how many of it, and how many more to keep."""

    label: str
    quantity: float
    unit: str
    spare: int
    where: str


@dataclass(frozen=True, slots=True)
class Load:
    """Something that plugs in."""

    label: str
    count: int
    each_w: float


@dataclass(frozen=True, slots=True)
class Trial:
    """One step of putting into service: what to do, and what to see."""

    title: str
    sentence: Sentence


def number(sheet: Sheet, key: str) -> float | None:
    """A figure's value, or None where it has none."""
    value = sheet.look(key)
    return None if isinstance(value, Missing) or value is None else float(value)


# Glass ------------------------------------------------------------------------------------------


def panes(sheet: Sheet) -> tuple[Pane, ...]:
    """Every pane of display and sump: the base lies under the walls, the sides stand between front and back."""
    plan = sheet.plan
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
    flow, tank = sheet.plan.flow, sheet.plan.tank
    if flow.way != "holes":
        return ()
    outside = sheet.value("inside_length_cm") * 10 + 2 * tank.pane_mm
    y = sheet.value("crest_cm") * 10 + flow.hole_mm / 2
    first = flow.hole_edge_cm * 10 + flow.hole_mm / 2
    step = 2.5 * flow.hole_mm
    return tuple(Hole(outside - first - n * step, y, flow.hole_mm, "overflow") for n in range(flow.hole_count))


def base_holes(sheet: Sheet) -> tuple[Hole, ...]:
    """Bulkhead holes for the drains, under the weir box in the back right corner."""
    flow, tank = sheet.plan.flow, sheet.plan.tank
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
            library.pipes()[pipe].outside_mm + BULKHEAD_MM,
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


# Parts ------------------------------------------------------------------------------------------


def parts(sheet: Sheet) -> tuple[PartLine, ...]:
    """Everything to buy beside the glass, with spares."""
    plan = sheet.plan
    lines = [PartLine("Silicone for tanks, cartridge of 310 mL", silicone(sheet), "pieces", 1, "glass")]
    if plan.tank.bed != "none":
        bed = library.beds()[plan.tank.bed].label
        lines.append(PartLine(f"{bed}, bags of {plan.tank.bag_l:g} L", sheet.value("bed_bags"), "bags", 0, "bed"))
    for row in plan.filters:
        kind, media = library.filter_kinds()[row.filter_kind], library.media()[row.media]
        label = f"{kind.label}, {row.rated_lph:g} L/h rated, {row.media_l:g} L {media.label.lower()}"
        lines.append(PartLine(label, 1, "pieces", 0, "filter"))
    if plan.flow.way != "none":
        lines += plumbing(sheet)
    if plan.heat.heated:
        count, each = number(sheet, "heater_count"), number(sheet, "heater_each_w")
        if count and each:
            lines.append(PartLine(f"Heater, {each:g} W", count, "pieces", 1, "heat"))
        lines.append(PartLine("Independent cut-out controller with its own probe", 1, "pieces", 0, "heat"))
    lines.append(PartLine("Residual-current device, 30 mA, in front of everything", 1, "pieces", 0, "power"))
    lines.append(PartLine("Thermometer that does not belong to a heater", 1, "pieces", 1, "heat"))
    if plan.air.stones_lph > 0 or plan.air.outlets > 0:
        lines.append(PartLine("Air pump", 1, "pieces", 1, "air"))
        lines.append(PartLine("Check valve for air hose", max(1, plan.air.outlets), "pieces", 1, "air"))
    if plan.flow.uv_fitted and plan.flow.way != "none":
        lines.append(PartLine("Ultraviolet clarifier's lamp", 1, "pieces", 1, "water"))
    return tuple(lines)


def silicone(sheet: Sheet) -> float:
    """Cartridges for every joint of every pane."""
    joints_m = sum((pane.width_mm + pane.height_mm) * 2 * pane.count for pane in panes(sheet)) / 2 / 1000
    return max(1, math.ceil(joints_m / SILICONE_M))


def plumbing(sheet: Sheet) -> list[PartLine]:
    """Pump, pipe by size and length, and fittings by size and number."""
    plan, flow = sheet.plan, sheet.plan.flow
    tanks = plan.tank.tank_count
    metres: defaultdict[str, float] = defaultdict(float)
    fittings: Counter[tuple[str, str]] = Counter()
    for part in plan.run:
        if part.part == "pipe":
            metres[part.run_pipe] += part.run_length_m * part.run_count
        else:
            fittings[part.part, part.run_pipe] += part.run_count
    for outlet in plan.returns:
        metres[outlet.outlet_pipe] += outlet.outlet_length_m * tanks
        fittings["elbow_90", outlet.outlet_pipe] += outlet.outlet_elbows * tanks
        fittings["ball_valve", outlet.outlet_pipe] += tanks
        fittings["union", outlet.outlet_pipe] += tanks
    metres[flow.drain_pipe] += flow.drain_length_m * flow.drain_count * tanks
    fittings["elbow_90", flow.drain_pipe] += flow.drain_elbows * flow.drain_count * tanks
    fittings["bulkhead", flow.drain_pipe] += flow.drain_count * tanks
    if flow.drain_kind == "siphon":
        fittings["gate_valve", flow.drain_pipe] += flow.drain_count * tanks
    if flow.emergency_pipe != "none":
        metres[flow.emergency_pipe] += flow.drain_length_m * tanks
        fittings["elbow_90", flow.emergency_pipe] += flow.drain_elbows * tanks
        fittings["bulkhead", flow.emergency_pipe] += tanks
    lifts = number(sheet, "shutoff_of_head_m") or 0.0
    pump = f"Return pump, {flow.pump_max_lph:g} L/h, lifts {lifts:g} m"
    if flow.pump_by == "points":
        pump = f"Return pump by its curve, lifts {lifts:g} m"
    lines = [PartLine(pump, 1, "pieces", 1, "flow")]
    lines += [
        PartLine(
            f"{library.pipes()[pipe].label}, bore {library.pipes()[pipe].bore_mm:g} mm",
            math.ceil(length * PIPE_SPARE * 2) / 2,
            "m",
            0,
            "flow",
        )
        for pipe, length in metres.items()
    ]
    lines += [
        PartLine(
            f"{library.fittings()[part].label}, {library.pipes()[pipe].label}",
            count,
            "pieces",
            1 if part in ("union", "bulkhead") else 0,
            "flow",
        )
        for (part, pipe), count in sorted(fittings.items())
        if count
    ]
    media = number(sheet, "sump_media_l")
    if media:
        lines.append(PartLine(library.media()[plan.sump.sump_media].label, math.ceil(media), "L", 0, "sump"))
    return lines


# Power ------------------------------------------------------------------------------------------


def loads(sheet: Sheet) -> tuple[Load, ...]:
    """Everything that plugs in, with its watts."""
    plan = sheet.plan
    rows = [Load(library.filter_kinds()[row.filter_kind].label, 1, row.filter_w) for row in plan.filters]
    if plan.flow.way != "none":
        rows.append(Load("Return pump", 1, sheet.value("return_w")))
    count, each = number(sheet, "heater_count"), number(sheet, "heater_each_w")
    if plan.heat.heated and count and each:
        rows.append(Load("Heater", int(count), each))
    if plan.heat.light_w:
        rows.append(Load("Lamp", 1, plan.heat.light_w))
    if plan.heat.circuit_other_w:
        rows.append(Load("Others on the circuit", 1, plan.heat.circuit_other_w))
    return tuple(rows)


# Putting into service ---------------------------------------------------------------------------


def trials(sheet: Sheet) -> tuple[Trial, ...]:
    """The tests before animals come, in order, with what must be seen."""
    water = of(sheet.value("water_height_cm"), "water_height_cm")
    found = [
        Trial(
            "Leak test",
            say(
                "On its level stand, fill the display to {water} in four steps over a day; dry every joint and wait 24 h.",
                water=water,
            ),
        )
    ]
    if sheet.plan.flow.way != "none":
        found += sump_trials(sheet)
    if sheet.plan.heat.heated:
        found.append(heater_trial(sheet))
    found.append(
        Trial(
            "Electricity",
            say(
                "Press the test button of the residual-current device; see a drip loop under every plug, and no plug under a tank's rim."
            ),
        )
    )
    return tuple(found)


def sump_trials(sheet: Sheet) -> list[Trial]:
    plan = sheet.plan
    flow = sheet.value("return_lph")
    terms = {
        "level": Term(plan.sump.return_level_cm, "length"),
        "off": of(sheet.value("power_off_cm"), "power_off_cm"),
        "drop": of(sheet.value("drop_cm"), "drop_cm"),
        "down": of(sheet.value("drain_down_l"), "drain_down_l"),
        "clogged": of(sheet.value("clogged_down_l"), "clogged_down_l"),
        "rise": of(sheet.value("blocked_rise_mm"), "blocked_rise_mm"),
        "board": of(sheet.value("board_mm"), "board_mm"),
        "head": of(sheet.value("overflow_head_mm"), "overflow_head_mm"),
        "flow": of(flow, "return_lph"),
        "bucket": Term(BUCKET_L, "volume"),
        "seconds": Term(BUCKET_L / flow * 3600 if flow else 0.0, "seconds"),
    }
    return [
        Trial(
            "Level marks",
            say("With the pump running mark {level} in the return chamber: never fill above it.", **terms),
        ),
        Trial(
            "Power-off test",
            say(
                "Switch the pump off: the display drops {drop}, {down} come down, the sump ends at {off}. Mark it.",
                **terms,
            ),
        ),
        Trial(
            "Power-off test with the air-break holes taped over",
            say("{clogged} come down. Watch the sump's rim, hand on the tape.", **terms),
        ),
        Trial(
            "Blocked-drain test",
            say(
                "Close both drains, let the pump run its chamber empty: the display rises {rise} and stays {board} under the rim at the start.",
                **terms,
            ),
        ),
        Trial(
            "Emergency drain alone",
            say("Close the main drain only: the emergency drain carries {flow} in the end, and is heard.", **terms),
        ),
        Trial(
            "Flow by bucket and clock",
            say(
                "{bucket} at the return take {seconds} for {flow}; the water stands {head} above the crest. Enter what you measure.",
                **terms,
            ),
        ),
    ]


def heater_trial(sheet: Sheet) -> Trial:
    each = number(sheet, "heater_each_w")
    if not each:
        return Trial("Heater test", say("Heat with each heater alone and see that its thermostat stops it."))
    hours = float(heat.warm_up_h(sheet.value("real_volume_l"), each, 0.0, 1.0))
    text = "Each heater alone warms the water by a degree in {hours} or more; see its thermostat stop it, then the cut-out."
    return Trial("Heater test", say(text, hours=Term(hours, "hours")))


CAUTIONS = (
    (
        "Electricity and water",
        "A residual-current device on the circuit, drip loops on every cable; a licensed electrician and the local code decide.",
    ),
    (
        "Floor and stand",
        "Joist direction and position decide what a floor bears; a structural engineer and the local code have the last word.",
    ),
    (
        "Glass",
        "Thicknesses are for annealed float glass with sound edges; toughened panes can not be drilled; a glazier decides.",
    ),
    (
        "Drinking water",
        "A check valve is no backflow preventer; the local plumbing code and a licensed plumber decide how tap and tank may meet.",
    ),
    (
        "Drains",
        "A drain in use for years narrows: test both paths every few months, and keep the emergency drain open and dry.",
    ),
    ("Ultraviolet", "Never look at a lit lamp; unplug it before it is opened."),
)
"""Where the danger is, and who decides."""
