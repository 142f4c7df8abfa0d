"""The pump, the return's run and its outlets, and what they really move."""

from dataclasses import dataclass
from functools import cached_property

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, at_most, caution
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.model.roots.consistency import is_pump_curve
from loquen.core.physics import hydraulics
from loquen.core.physics.hydraulics import Loss, PumpCurve

CURVE_POINTS = 16
SYSTEM_POINTS = 7


@step()
def sumped(way: str) -> bool:
    """Whether there is a sump at all."""
    return way != "none"


def need_sump(sumped: bool) -> None:
    """Raise NamedCase "not_needed" where a figure has no meaning without a sump."""
    if not sumped:
        raise NamedCase("not_needed")


# The return's run -------------------------------------------------------------------------------


@step()
def pump(
    pump_by: str,
    shutoff_head_m: float,
    pump_max_lph: float,
    curve_lph: tuple[float, ...] | None,
    curve_head_m: tuple[float, ...] | None,
) -> PumpCurve:
    if pump_by == "points" and curve_lph and curve_head_m and is_pump_curve(curve_lph, curve_head_m):
        return tuple(zip(curve_lph, curve_head_m, strict=True))
    return (shutoff_head_m, pump_max_lph)


@dataclass(frozen=True)
class PipeLoss:
    """Head (m) that straight pipe and fittings of one bore take at a flow (L/h)."""

    bore_mm: float
    length_m: float
    k: float
    temp_c: float

    @cached_property
    def at(self) -> Loss:
        return hydraulics.line_loss(self.bore_mm, self.length_m, self.k, self.temp_c)

    def __call__(self, flow_lph: float) -> float:
        return self.at(flow_lph)

    @property
    def label(self) -> str:
        return f"{self.length_m:g} m of {self.bore_mm:g} mm bore and K {self.k:.2f}"


@dataclass(frozen=True, slots=True)
class Along:
    """Losses one after another."""

    parts: tuple[PipeLoss, ...]

    def __call__(self, flow_lph: float) -> float:
        return sum(part(flow_lph) for part in self.parts)

    @property
    def label(self) -> str:
        return "; ".join(part.label for part in self.parts) or "nothing"


@step("run")
def part_loss(
    part: str, run_pipe: str, run_count: int, run_length_m: float, water_c: float, library: Library
) -> PipeLoss:
    bore = library.pipes[run_pipe].bore_mm
    if part == "pipe":
        return PipeLoss(bore, run_length_m * run_count, 0.0, water_c)
    return PipeLoss(bore, 0.0, library.fittings[part].k * run_count, water_c)


@step()
def common_loss(part_loss: tuple[PipeLoss, ...]) -> Along:
    return Along(part_loss)


@step("returns")
def outlet_loss(
    outlet_pipe: str,
    outlet_length_m: float,
    outlet_elbows: int,
    valve_open_frac: float,
    water_c: float,
    outlet_elbow_k: float,
    open_valve_k: float,
    exit_k: float,
    library: Library,
) -> PipeLoss:
    """One return's own pipe, elbows, valve and outlet."""
    k = outlet_elbows * outlet_elbow_k + open_valve_k / valve_open_frac**6 + exit_k
    return PipeLoss(library.pipes[outlet_pipe].bore_mm, outlet_length_m, k, water_c)


@figure(
    "Lift of one return",
    formula="({stand_cm} + {water_height_cm} + what its outlet stands above the water ({outlet_depth_cm}) "
    "− {return_level_cm}) ÷ 100",
    source="definition",
    row="returns",
)
def outlet_lift_head_m(
    stand_cm: float, water_height_cm: float, outlet_depth_cm: float, return_level_cm: float
) -> float:
    return (stand_cm + water_height_cm + max(0.0, -outlet_depth_cm) - return_level_cm) / 100


@figure(
    "Pump lifts at most",
    formula="head of the pump with no flow: {pump_by}, {shutoff_head_m} or the first of {curve_head_m}",
    source="pump_curves",
)
def shutoff_of_head_m(pump_by: str, shutoff_head_m: float, curve_head_m: tuple[float, ...] | None) -> float:
    return max(curve_head_m) if pump_by == "points" and curve_head_m else shutoff_head_m


@figure("Lift", formula="least of {outlet_lift_head_m}; {sumped}", source="definition")
def lift_head_m(outlet_lift_head_m: tuple[float, ...], sumped: bool) -> float:
    if not sumped:
        raise NamedCase("no_sump")
    if not outlet_lift_head_m:
        raise NamedCase("no_return")
    return min(outlet_lift_head_m)


@step()
def outlet_flows(
    sumped: bool,
    pump: PumpCurve,
    common_loss: Loss,
    outlet_lift_head_m: tuple[float, ...],
    outlet_loss: tuple[Loss, ...],
    tank_count: int,
) -> tuple[float, ...]:
    """What flows through each return as it is listed, all tanks' together; nothing where the pump does not reach.

    With several tanks every tank has one such set, and the common run carries them all.
    """
    if not sumped or not outlet_loss:
        return ()
    shared = tuple(shared_loss(loss, tank_count) for loss in outlet_loss)
    try:
        if len(shared) == 1:
            return (
                hydraulics.operating_flow_lph(
                    pump, outlet_lift_head_m[0], lambda flow: common_loss(flow) + shared[0](flow)
                ),
            )
        return hydraulics.split_flow_lph(pump, common_loss, outlet_lift_head_m, shared)
    except NamedCase:
        return (0.0,) * len(shared)


def shared_loss(loss: Loss, tank_count: int) -> Loss:
    """The loss of one tank's return when all tanks' together pass a flow."""
    return loss if tank_count == 1 else lambda flow: loss(flow / tank_count)


@figure(
    "Planned flow of the return",
    formula="Q at which the pump ({pump_by}) meets lift and losses: Σ {outlet_flows}",
    source="pump_curves",
)
def planned_return_lph(outlet_flows: tuple[float, ...], pump_by: str) -> float:
    return sum(outlet_flows)


@figure(
    "Flow of the return",
    formula="{measured_return_lph} as measured, else {planned_return_lph}; 0 without a sump ({sumped})",
    source="pump_curves",
)
def return_lph(sumped: bool, measured_return_lph: float | None, planned_return_lph: float) -> float:
    return measured_return_lph if sumped and measured_return_lph is not None else planned_return_lph


@figure(
    "Pump of the return takes",
    formula="{measured_w} as measured, else {pump_w}; 0 without a sump ({sumped})",
    source="definition",
)
def return_w(pump_w: float, measured_w: float | None, sumped: bool) -> float:
    if not sumped:
        return 0.0
    return pump_w if measured_w is None else measured_w


@figure(
    "Lost along the common run",
    formula="Σ losses of its parts at {return_lph}: {common_loss}",
    source="colebrook1939",
)
def run_loss_head_m(common_loss: Loss, return_lph: float) -> float:
    return common_loss(return_lph)


@figure(
    "Fastest water in a return pipe",
    formula="flow ÷ bore of the narrowest: {return_lph} through {run_pipe}; its part of {outlet_flows} ÷ {tank_count} "
    "through {outlet_pipe}",
    source="definition",
)
def fastest_m_s(
    return_lph: float,
    run_pipe: tuple[str, ...],
    outlet_flows: tuple[float, ...],
    tank_count: int,
    outlet_pipe: tuple[str, ...],
    library: Library,
) -> float:
    pipes = library.pipes
    runs = [(return_lph, pipes[key].bore_mm) for key in run_pipe]
    # What was measured parts among the outlets as what is planned does.
    part = return_lph / sum(outlet_flows) / tank_count if any(outlet_flows) else 0.0
    outlets = [(flow * part, pipes[key].bore_mm) for flow, key in zip(outlet_flows, outlet_pipe, strict=False)]
    return max((float(hydraulics.velocity_m_s(flow, bore)) for flow, bore in runs + outlets), default=0.0)


@dataclass(frozen=True, slots=True)
class CurvePoint:
    """A point of a curve: L/h and m."""

    flow: float
    head: float


@dataclass(frozen=True, slots=True)
class Curve:
    """Pump and system curve as (L/h, m), and where they meet."""

    pump: tuple[CurvePoint, ...]
    system: tuple[CurvePoint, ...]


@step()
def curves(
    sumped: bool,
    pump: PumpCurve,
    common_loss: Loss,
    outlet_lift_head_m: tuple[float, ...],
    outlet_loss: tuple[Loss, ...],
    tank_count: int,
) -> Curve:
    """Both curves for a chart; the system's is drawn by what all returns pass at each head."""
    need_sump(sumped)
    if not outlet_loss:
        raise NamedCase("no_return")
    head, most = hydraulics.pump_of(pump)
    flows = [most * n / CURVE_POINTS for n in range(CURVE_POINTS + 1)]
    shared = tuple(shared_loss(loss, tank_count) for loss in outlet_loss)
    lowest = min(outlet_lift_head_m)
    top = max(head(0.0), lowest) - lowest
    # By the head that stands at the outlets: what each then passes, and what the common run takes of the sum.
    system = [CurvePoint(0.0, lowest)]
    for n in range(1, SYSTEM_POINTS + 1):
        at = lowest + top * (n / SYSTEM_POINTS) ** 2
        pairs = zip(outlet_lift_head_m, shared, strict=True)
        total = sum(hydraulics.branch_flow_lph(at, static, loss, most) for static, loss in pairs)
        system.append(CurvePoint(total, at + common_loss(total)))
    of_pump = tuple(CurvePoint(flow, head(flow)) for flow in flows)
    return Curve(of_pump, tuple(point for point in system if point.flow < most))


@figure(
    "Lift over the rim at the start",
    formula="({stand_cm} + {inside_height_cm} − {return_level_cm}) ÷ 100; {sumped}",
    source="definition",
)
def rim_head_m(stand_cm: float, inside_height_cm: float, return_level_cm: float, sumped: bool) -> float:
    need_sump(sumped)
    return (stand_cm + inside_height_cm - return_level_cm) / 100


@figure("Most it has to lift", formula="the larger of {lift_head_m} and {rim_head_m}", source="definition")
def most_lift_head_m(lift_head_m: float, rim_head_m: float) -> float:
    return max(lift_head_m, rim_head_m)


@check(
    "The pump reaches the display",
    stage="flow",
    judges="most_lift_head_m",
    mends=("flow.shutoff_head_m",),
)
def pump_reaches(
    lift_head_m: float,
    rim_head_m: float,
    most_lift_head_m: float,
    shutoff_of_head_m: float,
    planned_return_lph: float,
) -> Verdict:
    reason = say(
        "It has to lift {lift}, {rim} over the dry rim at the start, and lifts {most} at most; it moves {flow}.",
        lift=of(lift_head_m, "lift_head_m"),
        rim=of(rim_head_m, "rim_head_m"),
        most=of(shutoff_of_head_m, "shutoff_of_head_m"),
        flow=of(planned_return_lph, "planned_return_lph"),
    )
    return at_least(shutoff_of_head_m, most_lift_head_m, "head", reason)


@check("Quiet pipes", stage="flow", judges="fastest_m_s", mends=("flow.pump_max_lph",))
def pipes_quiet(fastest_m_s: float, quiet_m_s: float, loud_m_s: float, sumped: bool) -> Verdict:
    need_sump(sumped)
    terms = {
        "speed": of(fastest_m_s, "fastest_m_s"),
        "quiet": Term(quiet_m_s, "pipe_speed"),
        "loud": Term(loud_m_s, "pipe_speed"),
    }
    if fastest_m_s > loud_m_s:
        reason = say("{speed} in the narrowest pipe: over {loud} it hums, wears and wastes lift.", **terms)
        return at_most(fastest_m_s, loud_m_s, "pipe_speed", reason)
    fine = say("{speed} in the narrowest pipe; up to {quiet} it is quiet.", **terms)
    loud = say("{speed} in the narrowest pipe: over {quiet} it can be heard, {loud} is the most.", **terms)
    return caution(fastest_m_s, "fastest_m_s", quiet_m_s, fine, loud)


@step()
def flow_result(
    sumped: bool, shutoff_of_head_m: float, return_lph: float, lift_head_m: float, turnover_per_h: float
) -> Sentence:
    return say(
        "The pump lifts {most} at most. Against {lift} of lift and these pipes it moves {flow}; with the filters that is {turns}.",
        most=of(shutoff_of_head_m, "shutoff_of_head_m"),
        lift=of(lift_head_m, "lift_head_m"),
        flow=of(return_lph, "return_lph"),
        turns=of(turnover_per_h, "turnover_per_h"),
    )
