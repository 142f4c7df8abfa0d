"""The pipework piece by piece in the order of the water: its size, its flow, its speed, and what it takes of the lift."""

from collections.abc import Iterator
from dataclasses import dataclass

from loquen.core.graph.sheet import Sheet
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.physics import hydraulics


@dataclass(frozen=True, slots=True)
class PipeLine:
    """One piece of pipework: where it is, what it is, its size, and what its water does (L/h, m/s, m of head).

    `lost_head_m` is None in a drain, which spends what height it has.
    """

    place: str
    what: Sentence
    size: str
    flow_lph: float
    speed_m_s: float
    lost_head_m: float | None


def pipework(sheet: Sheet) -> tuple[PipeLine, ...]:
    """Run, returns and drains of one tank's way; empty without a sump."""
    if sheet.root.flow.way == "none":
        return ()
    return (*run_lines(sheet), *return_lines(sheet), *drain_lines(sheet))


def speed_m_s(flow_lph: float, pipe: str, library: Library) -> float:
    return float(hydraulics.velocity_m_s(flow_lph, library.pipes[pipe].bore_mm))


def run_lines(sheet: Sheet) -> Iterator[PipeLine]:
    flow = sheet.value("planned_return_lph")
    for i, row in enumerate(sheet.root.run):
        label = sheet.library.run_parts()[row.part]
        what = say(
            "{count} × {part}" if row.run_count > 1 else "{part}", count=Term(row.run_count, "count"), part=label
        )
        if row.part == "pipe":
            what = say("{length} of {part}", length=Term(row.run_length_m * row.run_count, "head"), part=label)
        yield PipeLine(
            "run" if i else "run, from the pump",
            what,
            sheet.library.pipes[row.run_pipe].label,
            flow,
            speed_m_s(flow, row.run_pipe, sheet.library),
            sheet.value(f"run.{i}.part_loss")(flow),
        )


def return_lines(sheet: Sheet) -> Iterator[PipeLine]:
    tanks = sheet.root.tank.tank_count
    for i, (row, together) in enumerate(zip(sheet.root.returns, sheet.value("outlet_flows"), strict=False)):
        flow = together / tanks
        yield PipeLine(
            f"return {i + 1}",
            say(
                "{length}, elbows: {elbows}, valve {open} open, ends {depth} under the water",
                length=Term(row.outlet_length_m, "head"),
                elbows=Term(row.outlet_elbows, "count"),
                open=Term(row.valve_open_frac, "share"),
                depth=Term(row.outlet_depth_cm, "length"),
            ),
            sheet.library.pipes[row.outlet_pipe].label,
            flow,
            speed_m_s(flow, row.outlet_pipe, sheet.library),
            sheet.value(f"returns.{i}.outlet_loss")(flow),
        )


def drain_lines(sheet: Sheet) -> Iterator[PipeLine]:
    flow, way = sheet.value("overflow_lph"), sheet.root.flow
    runs = "runs open" if way.drain_kind == "open" else "runs full, throttled by its valve"
    terms = {
        "count": Term(way.drain_count, "count"),
        "length": Term(way.drain_length_m, "head"),
        "elbows": Term(way.drain_elbows, "count"),
        "most": of(sheet.value("drain_lph"), "drain_lph"),
    }
    each = flow / way.drain_count
    yield PipeLine(
        "drain",
        say("{count} × {length}, elbows: {elbows}; {runs}; passes {most} at most", runs=runs, **terms),
        sheet.library.pipes[way.drain_pipe].label,
        each,
        speed_m_s(each, way.drain_pipe, sheet.library),
        None,
    )
    if way.emergency_pipe != "none":
        terms["most"] = of(sheet.value("emergency_lph"), "emergency_lph")
        yield PipeLine(
            "emergency drain",
            say("{length}, elbows: {elbows}; open and dry; passes {most} at most", **terms),
            sheet.library.pipes[way.emergency_pipe].label,
            0.0,
            0.0,
            None,
        )
