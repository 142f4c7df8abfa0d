"""What the readings of the last months say is creeping, and when it matters."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from loquen.core.data.measures import Measure, measures
from loquen.core.events.ledger import Logged
from loquen.core.events.readings import days_since, kit_of, read_interval, readings
from loquen.core.fit.trend import Trend, trend
from loquen.core.graph.keys import Missing
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.roots.plan import Plan

LOOKED_BACK_D = 120
NITROGEN = ("ammonia", "free_ammonia", "nitrite", "nitrate")
KH_LEAST = 1.0
DRIFT_K = 0.7
"""Kelvin off its target at which a heater's drift is told."""


@dataclass(frozen=True, slots=True)
class Creep:
    """A measure's line: what it reads now and changes in a week, each low, likely and high, and what it means."""

    what: str
    level: float
    per_week: float
    low_per_week: float
    high_per_week: float
    sure: bool
    sentence: Sentence


def trends(sheet: Sheet[Plan], log: Sequence[Logged], now: datetime) -> tuple[Creep, ...]:
    """Every measure with readings enough, but the nitrogen, which has pages of its own."""
    found = []
    for what, measure in measures().items():
        if what in NITROGEN:
            continue
        rows = [row for row in readings(log, what) if 0 <= days_since(row.at, now) <= LOOKED_BACK_D]
        line = trend(
            [-days_since(row.at, now) for row in rows],
            [read_interval(row.read, sheet.library) for row in rows],
            [kit.blur_frac if (kit := kit_of(row.read, sheet.library)) else 0.1 for row in rows],
        )
        if line is not None:
            found.append(creep(sheet, measure, line, now))
    return tuple(found)


def creep(sheet: Sheet[Plan], measure: Measure, line: Trend, now: datetime) -> Creep:
    low, likely, high = (7 * rate for rate in line.per_d)
    return Creep(
        what=measure.key,
        level=line.level[1],
        per_week=likely,
        low_per_week=low,
        high_per_week=high,
        sure=line.sure,
        sentence=meaning(sheet, measure, line, now),
    )


def meaning(sheet: Sheet[Plan], measure: Measure, line: Trend, now: datetime) -> Sentence:
    """What a line comes to."""
    level, per_d = line.level[1], line.per_d[1]
    terms = {"label": Term(measure.label), "level": Term(level, measure.kind)}
    if measure.key == "temperature":
        return heater(sheet, line)
    if not line.sure:
        return say("{label} holds near {level}: no trend to see.", **terms)
    terms["week"] = Term(
        abs(7 * per_d), "temperature_difference" if measure.kind == "temperature" else measure.kind
    )
    way = "rises" if per_d > 0 else "falls"
    if measure.key == "kh" and per_d < 0 and level > KH_LEAST:
        days = (level - KH_LEAST) / -per_d
        terms["least"] = Term(KH_LEAST, measure.kind)
        terms["date"] = Term((now + timedelta(days=days)).strftime("%-d %B"))
        text = "{label} {level}, and falls by {week} a week: {least} about {date}, under which pH has no floor."
        return say(text, **terms)
    if measure.key in ("conductivity", "salinity") and per_d > 0:
        text = "{label} creeps: {level}, and {week} more a week. What evaporates leaves its salts: top up with pure water."
        return say(text, **terms)
    return say("{label} {level}, and " + way + " by {week} a week.", **terms)


def heater(sheet: Sheet[Plan], line: Trend) -> Sentence:
    """Temperature against the thermostat's target."""
    level, per_d = line.level[1], line.per_d[1]
    terms = {"level": Term(level, "temperature"), "week": Term(abs(7 * per_d), "temperature_difference")}
    target = sheet.look("water_c")
    off = 0.0 if isinstance(target, Missing) else level - float(target)
    heated = sheet.root.heat.heated
    if heated and abs(off) > DRIFT_K:
        terms["off"] = Term(abs(off), "temperature_difference")
        side = "over" if off > 0 else "under"
        drift = ", and moving by {week} a week" if line.sure else ""
        text = (
            "Temperature {level}, {off} "
            + side
            + " what the heater is set to"
            + drift
            + ": check thermostat and thermometer."
        )
        return say(text, **terms)
    if line.sure and abs(7 * per_d) >= 0.05:
        way = "rises" if per_d > 0 else "falls"
        return say("Temperature {level}, and " + way + " by {week} a week.", **terms)
    return say("Temperature holds near {level}.", **terms)
