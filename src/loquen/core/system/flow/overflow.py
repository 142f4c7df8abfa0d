"""The overflow: how high the water stands above its crest, and what its drains pass."""

from dataclasses import dataclass

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import of, say
from loquen.core.physics import hydraulics
from loquen.core.system.flow.returns import need_sump
from loquen.core.system.roots import root

HALVINGS = 60


@figure("Flow down from one tank", formula="{return_lph} ÷ {tank_count}", source="definition")
def overflow_lph(return_lph: float, tank_count: int) -> float:
    return return_lph / tank_count


def weir_rise_mm(flow_lph: float, weir_cm: float, teeth_frac: float) -> float:
    return float(hydraulics.weir_head_mm(flow_lph, weir_cm * teeth_frac))


@dataclass(frozen=True, slots=True)
class Holes:
    """Rows of round holes one above the other, some of them clogged."""

    bore_mm: float
    in_a_row: int
    rows: int
    gap_cm: float
    clogged_frac: float

    @property
    def label(self) -> str:
        clogged = f", {self.clogged_frac:.0%} clogged" if self.clogged_frac else ""
        return f"{self.rows} × {self.in_a_row} of {self.bore_mm:g} mm{clogged}"

    def passes_lph(self, head_mm: float) -> float:
        """What all rows pass with water so far above the lowest edge; a row hardly covered is trusted with half."""
        total = 0.0
        for row in range(self.rows):
            over_mm = head_mm - row * self.gap_cm * 10 - self.bore_mm / 2
            if over_mm <= 0:
                continue
            trusted = hydraulics.partly_covered_frac(self.bore_mm, over_mm / 10)
            full = float(hydraulics.orifice_flow_lph(self.bore_mm, over_mm / 10, self.in_a_row))
            total += full * trusted * (1 - self.clogged_frac)
        return total

    def rise_mm(self, flow_lph: float) -> float:
        """Water above the lowest edge at a flow."""
        if flow_lph <= 0:
            return 0.0
        if self.rows == 1:
            return row_rise_mm(flow_lph / (1 - self.clogged_frac), self.bore_mm, self.in_a_row)
        low, high = 0.0, self.bore_mm + row_rise_mm(flow_lph / (1 - self.clogged_frac), self.bore_mm, self.in_a_row)
        # Trust in a row comes at once when it is covered: halved until the step is found.
        for _ in range(HALVINGS):
            middle = (low + high) / 2
            low, high = (low, middle) if self.passes_lph(middle) >= flow_lph else (middle, high)
        return high


@step()
def over_edge(way: str, box_inlet: str) -> bool:
    """Whether water leaves over the edge of a box, not through holes in it or in the pane."""
    return way == "weir" and box_inlet == "edge"


@step()
def holes(hole_mm: float, hole_count: int, hole_rows: int, row_gap_cm: float, clogged_frac: float) -> Holes:
    return Holes(hole_mm, hole_count, hole_rows, row_gap_cm, clogged_frac)


def row_rise_mm(flow_lph: float, hole_mm: float, hole_count: int) -> float:
    """Water above the holes' lowest edge at a flow; in a row a hole hardly covered is trusted with half."""
    if hole_count == 1:
        return single_rise_mm(flow_lph, hole_mm)
    full_cm = head_for_holes_cm(flow_lph, hole_mm, hole_count)
    if full_cm * 10 >= hole_mm:
        return full_cm * 10 + hole_mm / 2
    halved_cm = head_for_holes_cm(flow_lph * 2, hole_mm, hole_count)
    return min(halved_cm * 10, hole_mm) + hole_mm / 2


def single_rise_mm(flow_lph: float, hole_mm: float) -> float:
    """Water above a single hole's lowest edge at a flow."""
    if flow_lph <= 0:
        return 0.0
    most_mm = hole_mm + head_for_holes_cm(flow_lph, hole_mm, 1) * 10
    return root(lambda head_mm: hydraulics.bulkhead_flow_lph(hole_mm, head_mm) - flow_lph, 0.0, most_mm)


def head_for_holes_cm(flow_lph: float, hole_mm: float, hole_count: int) -> float:
    """Head to their centres at which fully covered holes pass a flow."""
    at_one_cm = float(hydraulics.orifice_flow_lph(hole_mm, 1.0, hole_count))
    return (flow_lph / at_one_cm) ** 2


@figure(
    "Water stands above the crest",
    formula="over the edge, {over_edge}: (Q ÷ (1.84 × {weir_cm} × {teeth_frac}))^(2/3), or over {holes}, "
    "half trusted until one bore covers them, a single one critical at its brink; Q {overflow_lph}; {sumped}",
    source="francis",
)
def overflow_head_mm(
    over_edge: bool,
    weir_cm: float,
    teeth_frac: float,
    holes: Holes,
    overflow_lph: float,
    sumped: bool,
) -> float:
    need_sump(sumped)
    if over_edge:
        return weir_rise_mm(overflow_lph, weir_cm, teeth_frac)
    return holes.rise_mm(overflow_lph)


@figure("Crest above the base", formula="{water_height_cm} − {overflow_head_mm} ÷ 10", source="definition")
def crest_cm(water_height_cm: float, overflow_head_mm: float) -> float:
    return water_height_cm - overflow_head_mm / 10


@dataclass(frozen=True, slots=True)
class FlowCase:
    """What the overflow does at another flow: the water above the crest, and each drain's share of its capacity."""

    label: str
    flow_lph: float
    head_mm: float
    drain_frac: float
    emergency_frac: float | None
    drain_passes: bool
    emergency_passes: bool


@step()
def flow_cases(
    over_edge: bool,
    overflow_lph: float,
    weir_cm: float,
    teeth_frac: float,
    holes: Holes,
    drain_lph: float,
    emergency_lph: float,
    emergency_pipe: str,
) -> tuple[FlowCase, ...]:
    rows = []
    for label, share in (("half", 0.5), ("as it is", 1.0), ("double", 2.0)):
        flow = overflow_lph * share
        head = weir_rise_mm(flow, weir_cm, teeth_frac) if over_edge else holes.rise_mm(flow)
        second = flow / emergency_lph if emergency_pipe != "none" and emergency_lph else None
        first = flow / drain_lph
        rows.append(FlowCase(label, flow, head, first, second, first <= 1, second is None or second <= 1))
    return tuple(rows)


@figure(
    "Fall of the drain",
    formula="({stand_cm} + {water_height_cm} − {return_level_cm}) ÷ 100; {sumped}",
    source="definition",
)
def drain_fall_head_m(stand_cm: float, water_height_cm: float, return_level_cm: float, sumped: bool) -> float:
    need_sump(sumped)
    return (stand_cm + water_height_cm - return_level_cm) / 100


@figure(
    "Main drain passes",
    formula="{drain_count} × ({drain_kind}: 27.8 × {drain_fill}^(5/3) × d^(8/3) open, or full bore under {drain_fall_head_m} "
    "through {drain_length_m}, {drain_elbows} elbows of {outlet_elbow_k}, entry {entry_k}, exit {exit_k}) of {drain_pipe}, {water_c}",
    source="wylyeaton1961",
)
def drain_lph(
    drain_count: int,
    drain_kind: str,
    drain_fill: float,
    drain_fall_head_m: float,
    drain_length_m: float,
    drain_elbows: int,
    outlet_elbow_k: float,
    entry_k: float,
    exit_k: float,
    drain_pipe: str,
    water_c: float,
    library: Library,
) -> float:
    bore = library.pipes[drain_pipe].bore_mm
    if drain_kind == "open":
        return drain_count * float(hydraulics.stack_capacity_lph(bore, drain_fill))
    if drain_fall_head_m <= 0:
        raise NamedCase("no_fall")
    k = entry_k + exit_k + drain_elbows * outlet_elbow_k
    return drain_count * hydraulics.siphon_flow_lph(bore, drain_fall_head_m, drain_length_m, k, water_c)


@figure(
    "Emergency drain passes, open",
    formula="27.8 × {drain_fill}^(5/3) × d^(8/3) of {emergency_pipe}; {sumped}",
    source="wylyeaton1961",
)
def emergency_lph(emergency_pipe: str, drain_fill: float, sumped: bool, library: Library) -> float:
    need_sump(sumped)
    if emergency_pipe == "none":
        return 0.0
    return float(hydraulics.stack_capacity_lph(library.pipes[emergency_pipe].bore_mm, drain_fill))


@check(
    "Main drain passes the pump",
    stage="flow",
    glass="drain",
    judges="drain_lph",
    mends=("flow.drain_count", "flow.drain_pipe"),
)
def drain_passes(drain_lph: float, overflow_lph: float, drain_kind: str) -> Verdict:
    words = "open, a quarter full" if drain_kind == "open" else "running full"
    reason = say(
        "{words}, it passes {most}; {flow} come down.",
        words=words.capitalize(),
        most=of(drain_lph, "drain_lph"),
        flow=of(overflow_lph, "overflow_lph"),
    )
    return at_least(drain_lph, overflow_lph, "flow", reason)


@check(
    "Emergency drain alone",
    stage="flow",
    glass="drain",
    judges="emergency_lph",
    mends=("flow.emergency_pipe",),
    caution="Leave the emergency drain open and dry, with no valve in it; hear it run and look at once.",
)
def emergency_passes(emergency_lph: float, overflow_lph: float, emergency_pipe: str) -> Verdict:
    flow = of(overflow_lph, "overflow_lph")
    if emergency_pipe == "none":
        reason = say("There is no second path for the {flow} that come down when the drain blocks.", flow=flow)
        return Verdict("short", -overflow_lph, say("no second path"), reason)
    reason = say(
        "Open, a quarter full, it passes {most}; {flow} come down when the main drain blocks.",
        most=of(emergency_lph, "emergency_lph"),
        flow=flow,
    )
    return at_least(emergency_lph, overflow_lph, "flow", reason)
