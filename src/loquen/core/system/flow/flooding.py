"""When the power fails or a drain blocks: what comes down, what is lifted, and whether it stays inside."""

import math

from loquen.core.graph.judging import at_most, between
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Term, of, say
from loquen.core.system.flow.returns import need_sump
from loquen.core.system.flow.sump import no_lower_than_next
from loquen.core.system.roots import root


def pipe_litres(pipe: str, length_m: float, library: Library) -> float:
    """Water that a full pipe holds."""
    bore_m = library.pipes[pipe].bore_mm / 1000
    return math.pi / 4 * bore_m**2 * length_m * 1000


@figure(
    "Water in the return's pipes",
    formula="π ÷ 4 × d² × length of {part} {run_pipe} × {run_length_m} × {run_count}, and {outlet_pipe} × {outlet_length_m} "
    "× {tank_count}; with a sump: {sumped}",
    source="definition",
)
def pipes_l(
    part: tuple[str, ...],
    run_pipe: tuple[str, ...],
    run_length_m: tuple[float, ...],
    run_count: tuple[int, ...],
    outlet_pipe: tuple[str, ...],
    outlet_length_m: tuple[float, ...],
    tank_count: int,
    sumped: bool,
    library: Library,
) -> float:
    if not sumped:
        return 0.0
    runs = zip(part, run_pipe, run_length_m, run_count, strict=True)
    common = sum(pipe_litres(pipe, length * count, library) for kind, pipe, length, count in runs if kind == "pipe")
    outlets = sum(
        pipe_litres(pipe, length, library) for pipe, length in zip(outlet_pipe, outlet_length_m, strict=True)
    )
    return common + outlets * tank_count


@figure(
    "Planned drop of the display",
    formula="the larger of {overflow_head_mm} ÷ 10 and {air_break_cm} while an outlet is under water; "
    "holes: {air_break}, deepest outlet {outlet_depth_cm}",
    source="balance",
)
def planned_drop_cm(
    overflow_head_mm: float, air_break_cm: float, air_break: bool, outlet_depth_cm: tuple[float, ...]
) -> float:
    deepest = max(outlet_depth_cm, default=0.0)
    return max(overflow_head_mm / 10, min(air_break_cm, deepest) if air_break else deepest)


@figure(
    "The display drops with the power off",
    formula="{measured_drop_cm} as measured, else {planned_drop_cm}",
    source="balance",
)
def drop_cm(planned_drop_cm: float, measured_drop_cm: float | None) -> float:
    return planned_drop_cm if measured_drop_cm is None else measured_drop_cm


@figure(
    "The display drops, air-break holes clogged",
    formula="the larger of {overflow_head_mm} ÷ 10 and the deepest outlet, {outlet_depth_cm}",
    source="balance",
)
def clogged_drop_cm(overflow_head_mm: float, outlet_depth_cm: tuple[float, ...]) -> float:
    return max(overflow_head_mm / 10, *outlet_depth_cm, 0.0)


@figure(
    "Water in the overflow boxes that drains",
    formula="{box_length_cm} × {box_width_cm} × {box_lip_cm} ÷ 1000 × {tank_count} with a weir box ({way})",
    source="definition",
)
def box_l(box_length_cm: float, box_width_cm: float, box_lip_cm: float, tank_count: int, way: str) -> float:
    return box_length_cm * box_width_cm * box_lip_cm / 1000 * tank_count if way == "weir" else 0.0


@figure(
    "Comes down when the power fails",
    formula="{display_m2} × {drop_cm} × 10 + {box_l} + {pipes_l}",
    source="balance",
)
def drain_down_l(display_m2: float, drop_cm: float, box_l: float, pipes_l: float) -> float:
    return display_m2 * drop_cm * 10 + box_l + pipes_l


@figure(
    "Comes down with the holes clogged",
    formula="{display_m2} × {clogged_drop_cm} × 10 + {box_l} + {pipes_l}",
    source="balance",
)
def clogged_down_l(display_m2: float, clogged_drop_cm: float, box_l: float, pipes_l: float) -> float:
    return drain_down_l(display_m2, clogged_drop_cm, box_l, pipes_l)


@figure(
    "Free room in the sump",
    formula="{sump_m2} × {sump_height_cm} × 10 − {sump_running_l}; with a sump: {sumped}",
    source="definition",
)
def sump_free_l(sump_m2: float, sump_height_cm: float, sump_running_l: float, sumped: bool) -> float:
    need_sump(sumped)
    return sump_m2 * sump_height_cm * 10 - sump_running_l


@step()
def floors_cm(chamber_kind: tuple[str, ...], baffle_cm: tuple[float, ...]) -> tuple[float, ...]:
    """How low the water of each chamber can stand, pump off: its own baffle or a later one holds it."""
    return no_lower_than_next(
        [0.0 if kind == "return" else baffle for kind, baffle in zip(chamber_kind, baffle_cm, strict=True)]
    )


@figure(
    "Power-off level in the sump",
    formula="level at which {sump_running_l} + {drain_down_l} stand over {chamber_run_cm} × {sump_width_cm}, "
    "each chamber at least to {floors_cm}; at most 4 × {sump_height_cm}",
    source="balance",
)
def power_off_cm(
    sump_running_l: float,
    drain_down_l: float,
    chamber_run_cm: tuple[float, ...],
    sump_width_cm: float,
    floors_cm: tuple[float, ...],
    sump_height_cm: float,
) -> float:
    wanted = sump_running_l + drain_down_l

    def excess(level: float) -> float:
        held = zip(chamber_run_cm, floors_cm, strict=True)
        return sum(length * sump_width_cm * max(level, low) / 1000 for length, low in held) - wanted

    top = 4 * sump_height_cm
    return 0.0 if excess(0.0) > 0 else top if excess(top) < 0 else root(excess, 0.0, top)


@figure(
    "Power-off level, holes clogged",
    formula="as without clogging, with {clogged_down_l} coming down on {sump_running_l}: {chamber_run_cm}, "
    "{sump_width_cm}, {floors_cm}, {sump_height_cm}",
    source="balance",
)
def clogged_off_cm(
    sump_running_l: float,
    clogged_down_l: float,
    chamber_run_cm: tuple[float, ...],
    sump_width_cm: float,
    floors_cm: tuple[float, ...],
    sump_height_cm: float,
) -> float:
    return power_off_cm(sump_running_l, clogged_down_l, chamber_run_cm, sump_width_cm, floors_cm, sump_height_cm)


@check(
    "Drain-down fits the sump",
    stage="flow",
    glass="drain",
    judges="drain_down_l",
    mends=(
        "flow.weir_cm",
        "flow.hole_count",
        "sump.sump_length_cm",
        "sump.sump_height_cm",
    ),
    caution="Switch the pump off and watch before you trust it; mark the highest level to fill the running sump to.",
)
def drain_down_fits(
    drain_down_l: float, clogged_down_l: float, sump_free_l: float, sump_spare: float, power_off_cm: float
) -> Verdict:
    needed = drain_down_l * (1 + sump_spare)
    terms = {
        "down": of(drain_down_l, "drain_down_l"),
        "free": of(sump_free_l, "sump_free_l"),
        "clogged": of(clogged_down_l, "clogged_down_l"),
        "spare": Term(sump_spare, "share"),
        "level": of(power_off_cm, "power_off_cm"),
    }
    text = "Power off: {down} come down, {free} are free, {spare} to be kept; the sump then stands at {level}. "
    clogs = clogged_down_l * (1 + sump_spare) > sump_free_l
    text += "With the air-break holes clogged {clogged}" + (", which does not fit." if clogs else ".")
    # What fits only while small holes stay open is no more than tight: they clog, unseen.
    return between(at_most(needed, sump_free_l, "volume", say(text, **terms)), clogs)


@figure(
    "Water the pump can lift out of the sump",
    formula="return chamber {chamber_run_cm} ({chamber_kind}) × {sump_width_cm} × ({return_level_cm} − {intake_cm}) ÷ 1000 "
    "+ {topper_l}; with a sump: {sumped}",
    source="balance",
)
def liftable_l(
    chamber_run_cm: tuple[float, ...],
    chamber_kind: tuple[str, ...],
    sump_width_cm: float,
    return_level_cm: float,
    intake_cm: float,
    topper_l: float,
    sumped: bool,
) -> float:
    need_sump(sumped)
    lengths = zip(chamber_run_cm, chamber_kind, strict=True)
    length = sum(run for run, kind in lengths if kind == "return")
    return length * sump_width_cm * max(0.0, return_level_cm - intake_cm) / 1000 + topper_l


@figure("Then the display rises", formula="{liftable_l} ÷ {display_m2}", source="balance")
def blocked_rise_mm(liftable_l: float, display_m2: float) -> float:
    return liftable_l / display_m2


@figure("Free board", formula="({inside_height_cm} − {water_height_cm}) × 10", source="definition")
def board_mm(inside_height_cm: float, water_height_cm: float) -> float:
    return (inside_height_cm - water_height_cm) * 10


@check(
    "A blocked drain stays in the tank",
    stage="flow",
    glass="drain",
    judges="blocked_rise_mm",
    mends=("sump.topper_l", "tank.freeboard_cm", "sump.return_level_cm"),
)
def blocked_stays(blocked_rise_mm: float, board_mm: float, liftable_l: float) -> Verdict:
    reason = say(
        "The pump can lift {litres}, top-up included: the display rises {rise}; the rim is {board} above.",
        litres=of(liftable_l, "liftable_l"),
        rise=of(blocked_rise_mm, "blocked_rise_mm"),
        board=of(board_mm, "board_mm"),
    )
    return at_most(blocked_rise_mm, board_mm, "thickness", reason)
