"""What a pulse does to the animals: its step in temperature as planned, and where a tank ends when the mix fails."""

from dataclasses import dataclass
from typing import Any

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_most, by_practice
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.model.inputs.quantity import Term, say
from loquen.core.rooms.stages.days import Season
from loquen.core.rooms.stages.plumbing import ZoneFlow
from loquen.core.rooms.stages.racks import Tank
from loquen.core.rooms.stages.reservoir import Waters
from loquen.core.rooms.zones import exchanged_frac, failed_mix_c


@figure(
    "Longest step in temperature of a run", formula="worst over tanks of one pulse of {seasons}", source="balance"
)
def run_step_k(
    seasons: tuple[Season, ...], zone_flows: tuple[ZoneFlow, ...], tanks: tuple[Tank, ...], fed_waters: Waters
) -> float:
    return max(
        (step_of(seasons[0], row, flow.ratio, tanks[flow.tank], fed_waters) for row, flow in pairs(zone_flows)),
        default=0.0,
    )


def pairs(zone_flows: tuple[ZoneFlow, ...]) -> list[tuple[ZoneFlow, Any]]:
    return [(row, flow) for row in zone_flows for flow in row.tanks]


def step_of(season: Season, row: ZoneFlow, ratio: float, tank: Tank, waters: Waters) -> float:
    """How far one pulse moves a tank's temperature, K; 0 where its own is not known."""
    if tank.kept_c is None:
        return 0.0
    fed_c = waters.of(row.fed_from).temp_c
    return exchanged_frac(ratios=[ratio / season.pulses_of(row.number)]) * abs(fed_c - tank.kept_c)


@check("No run shocks them", stage="timetable", judges="run_step_k", mends=("store.mixed_c", "zones.zone_min"))
def runs_borne(
    seasons: tuple[Season, ...], zone_flows: tuple[ZoneFlow, ...], tanks: tuple[Tank, ...], fed_waters: Waters
) -> Verdict:
    worst_share, told = 0.0, None
    for row, flow in pairs(zone_flows):
        tank = tanks[flow.tank]
        if tank.line is None or not tank.line.borne_k:
            continue
        moved = step_of(seasons[0], row, flow.ratio, tank, fed_waters)
        if told is None or moved / tank.line.borne_k > worst_share:
            worst_share, told = moved / tank.line.borne_k, (tank, moved, fed_waters.of(row.fed_from).temp_c)
    if told is None:
        raise NamedCase("no_animals")
    tank, moved, fed_c = told
    assert tank.line is not None
    reason = say(
        "One pulse of {mix} moves {tank}, kept at {kept}, by {moved}; the most delicate there bear {borne} at once.",
        mix=Term(fed_c, "temperature"),
        tank=tank.name,
        kept=Term(tank.line.water_c, "temperature"),
        moved=Term(moved, "temperature_difference"),
        borne=Term(tank.line.borne_k or 0.0, "temperature_difference"),
    )
    return by_practice(
        at_most(moved, tank.line.borne_k or 0.0, "temperature_difference", reason), tank.line.borne_k or 0.0
    )


@dataclass(frozen=True, slots=True)
class Failing:
    """What a pulse does to a tank: its step as planned (K), and where it ends when the warmth fails either way or the valve sticks."""

    tank: str
    fed_from: str
    step_k: float
    scalded_c: float
    chilled_c: float
    stuck_c: float


STUCK_H = 8.0


@step()
def failing(
    seasons: tuple[Season, ...],
    zone_flows: tuple[ZoneFlow, ...],
    tanks: tuple[Tank, ...],
    fed_waters: Waters,
    winter_c: float,
    hot_c: float,
) -> tuple[Failing, ...]:
    """What a run does to each tank when the cold side fails, the warmth runs out, or the valve sticks open on what is left.

    A reservoir has no hot side: it may go cold, and a stuck valve empties it at its own warmth until its switch stops the pump.
    """
    found = []
    for row, flow in pairs(zone_flows):
        kept = tanks[flow.tank].kept_c
        if kept is None or row.minutes <= 0:
            continue
        pumped = row.fed_from == "reservoir"
        fed_c = fed_waters.of(row.fed_from).temp_c
        ratio = flow.ratio / seasons[0].pulses_of(row.number)
        stuck = flow.ratio / row.minutes * 60 * STUCK_H
        found.append(
            Failing(
                tanks[flow.tank].name,
                row.fed_from,
                step_of(seasons[0], row, flow.ratio, tanks[flow.tank], fed_waters),
                failed_mix_c(tank_c=kept, fed_c=fed_c if pumped else hot_c, ratio=ratio),
                failed_mix_c(tank_c=kept, fed_c=winter_c, ratio=ratio),
                failed_mix_c(tank_c=kept, fed_c=fed_c if pumped else winter_c, ratio=stuck),
            )
        )
    return tuple(found)


@check("A failed mix is lived through", stage="timetable", judges="")
def mix_failure_borne(failing: tuple[Failing, ...], thermostatic: bool, tanks: tuple[Tank, ...]) -> Verdict:
    if not failing:
        raise NamedCase("no_animals")
    by_name = {tank.name: tank.line for tank in tanks}
    harmed = []
    for row in failing:
        line = by_name[row.tank]
        if line and line.high_c is not None and line.low_c is not None:
            over, under = row.scalded_c - line.high_c, line.low_c - row.chilled_c
            if max(over, under) > 0:
                harmed.append((max(over, under), row))
    hottest, coldest = max(failing, key=lambda r: r.scalded_c), min(failing, key=lambda r: r.chilled_c)
    terms: dict[str, Term | str] = {
        "hot": Term(hottest.scalded_c, "temperature"),
        "at": hottest.tank,
        "cold": Term(coldest.chilled_c, "temperature"),
        "there": coldest.tank,
        "stuck": Term(min(row.stuck_c for row in failing), "temperature"),
    }
    text = (
        "One pulse with the cold side failed brings {at} to {hot}, with no warmth left {there} to {cold}; a valve stuck open for "
        "eight hours, {stuck}."
    )
    if not harmed:
        return Verdict("holds", 1.0, say("borne"), say(text, **terms))
    if thermostatic and not any(row.fed_from == "reservoir" for _, row in harmed):
        text += " The thermostatic valve that shuts when either side fails is what stands before that: try it each month."
        return Verdict("tight", 0.0, say("by the valve alone"), say(text, **terms))
    text += (
        " Nothing stands before that: a thermostatic valve that shuts when either side fails, or shorter pulses."
    )
    return Verdict("short", -1.0, say("nothing stands before it"), say(text, **terms))
