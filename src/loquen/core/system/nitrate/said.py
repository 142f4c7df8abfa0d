"""What a log says of nitrate beside what the plan reckons, and what it makes one ask."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

import numpy as np

from loquen.core.events.ledger import Logged
from loquen.core.events.readings import days_since, kit_of, readings
from loquen.core.graph.asking import number
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.roots.plan import Plan
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.system.nitrate.course import Known
from loquen.core.system.nitrate.entries import readings_in

FAR_APART = 2.0
"""Times past the log's own range, from which the plan is asked about."""
LIKELIER = 10.0
AS_NITROGEN = (3.0, 7.0)
"""Times less than reckoned that a kit which shows nitrogen would make it look, the feed's own doubt included."""


@dataclass(frozen=True, slots=True)
class Said:
    """What the log says of one figure beside what the plan has, each low, likely and high."""

    key: str
    label: str
    kind: str
    plan: float
    low: float
    likely: float
    high: float


def said(sheet: Sheet[Plan], tanks: Known) -> tuple[Said, ...]:
    """What the log says beside what the plan has."""
    rows = (
        (
            "changes.logged_rise_nitrate_mg_l_d",
            "Nitrate made a day, less what is lost",
            "nitrate_rate",
            "rise_nitrate_mg_l_d",
            tanks.made,
        ),
        ("water.source_nitrate_mg_l", "Nitrate of the change water", "nitrate", "new_nitrate_mg_l", tanks.source),
    )
    return tuple(
        Said(key, label, kind, number(sheet, figure) or 0.0, *span(values))
        for key, label, kind, figure, values in rows
    )


def span(values: Any) -> tuple[float, float, float]:
    """5, 50 and 95 % of what is carried as the ion, mg/L N."""
    low, likely, high = (float(value) / NITRATE_PER_N for value in np.quantile(values, [0.05, 0.5, 0.95]))
    return low, likely, high


def asks(
    sheet: Sheet[Plan],
    tanks: Known,
    log: Sequence[Logged],
    entries: Sequence[dict[str, Any]],
    now: datetime,
    told: bool,
) -> tuple[Sentence, ...]:
    """What is asked: about the plan where it and the log tell two stories, and about readings that fit neither.

    Where most readings are strange it is the plan that is: none of them is doubted.
    """
    found: list[Sentence] = []
    if told:
        found += apart(sheet, tanks)
    if tanks.as_nitrogen > math.log(LIKELIER):
        text = (
            "These readings fit far better if the kit shows nitrogen, not the ion: a “10” would be 44 mg/L NO₃. What "
            "does its leaflet say?"
        )
        found.append(say(text))
    if 2 * len(tanks.strange) < readings_in(entries):
        found += [about(day, sheet, log, now) for day in tanks.strange]
    return tuple(found)


def apart(sheet: Sheet[Plan], tanks: Known) -> Iterator[Sentence]:
    """Where the log and the plan tell quite different things of what is made: both, and what would explain it."""
    (low, likely, high), rise = span(tanks.made), number(sheet, "rise_nitrate_mg_l_d") or 0.0
    if low / FAR_APART <= rise <= high * FAR_APART or goes_by_log(sheet.root):
        return
    terms = {"logged": Term(max(0.0, likely), "nitrate_rate"), "reckoned": Term(rise, "nitrate_rate")}
    text = "Your readings make it {logged} where the plan reckons {reckoned} from its feed. This page goes by your readings"
    if rise > likely:
        text += ": fed less than planned, siphoned well, or do plants or a deep bed take it?"
        if AS_NITROGEN[0] <= rise / max(likely, 1e-6) <= AS_NITROGEN[1]:
            text += " A kit that shows nitrogen would look so too: what does its leaflet say?"
        peak = number(sheet, "peak_nitrate_mg_l")
        if peak is not None:
            terms["peak"] = Term(peak, "nitrate")
            text += " Fed as planned, with nothing that takes it, it could become {peak} before a change."
    else:
        text += ": fed more than planned, more animals than are entered, or something that rots?"
    yield say(text, **terms)


def goes_by_log(plan: Plan) -> bool:
    """Whether a plan goes by what its log said."""
    return plan.changes.logged_rise_nitrate_mg_l_d is not None or plan.stocking.logged_waste_frac is not None


def about(day: float, sheet: Sheet[Plan], log: Sequence[Logged], now: datetime) -> Sentence:
    """A reading that this water can not have come to, with the likeliest reasons."""
    row = min(readings(log, "nitrate"), key=lambda row: abs(-days_since(row.at, now) - day))
    kit = kit_of(row.read, sheet.library)
    text = (
        "“{value}” on {date} is more, or less, than this water can have come to. Likeliest: a change that was not "
        "written down, a wrong unit, or {kit} past its date."
    )
    what = kit.label.lower() if kit else "a kit"
    return say(text, value=row.read.value, date=row.at.strftime("%-d %B"), kit=what)
