"""Nitrate from the last reading onwards: the band, the day that the limit is passed, what the log says, experiments."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

import numpy as np

from loquen.core.events.kinds.water import Changed
from loquen.core.events.ledger import Logged
from loquen.core.events.readings import ReadAt, days_since, read_interval, readings
from loquen.core.graph.asking import number
from loquen.core.graph.sheet import Sheet
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.roots.plan import Plan
from loquen.core.physics.elementwise import Array
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.system.book import ASKED_MONTHS
from loquen.core.system.changes.regime import Corner
from loquen.core.system.nitrate.course import Known, ahead, known
from loquen.core.system.nitrate.design import Design, design
from loquen.core.system.nitrate.entries import entries_of
from loquen.core.system.nitrate.experiments import Experiment, experiments
from loquen.core.system.nitrate.learnt import Way, ways
from loquen.core.system.nitrate.levers import Lever, levers, saw_of
from loquen.core.system.nitrate.said import Said, asks, said

PAST_D = 120
MOST_PAST_D = 760
MOST_READ_MG_L = 200.0
ENOUGH = 4
"""Entries of a log that say more than the plan does."""
WORTH_TELLING = 1.1
"""Times today's waste that grown animals make, from which it is told."""


@dataclass(frozen=True, slots=True)
class Course:
    """10, 50 and 90 % of nitrate over days from now, mg/L N."""

    days: tuple[float, ...]
    low: tuple[float, ...]
    middle: tuple[float, ...]
    high: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class Bar:
    """A reading: days from now, and where the level lay; without an upper end at the top of a chart."""

    day: float
    low: float
    high: float | None


@dataclass(frozen=True, slots=True)
class NitratePage:
    """A system's nitrate."""

    result: Sentence
    level: float | None
    limit: float
    source: float
    course: Course
    readings: tuple[Bar, ...]
    changes: tuple[float, ...]
    passes_low_d: float | None
    passes_d: float | None
    passes_high_d: float | None
    settled_peak: float | None
    settled_trough: float | None
    settles_d: float | None
    grown: Sentence | None
    """What it comes to once animals that grow are grown; None where they are."""
    said: tuple[Said, ...]
    ways: tuple[Way, ...]
    asks: tuple[Sentence, ...]
    experiments: tuple[Experiment, ...]
    design: Design
    levers: tuple[Lever, ...]
    saw: tuple[Corner, ...]


def page(sheet: Sheet[Plan], log: Sequence[Logged], now: datetime) -> NitratePage:
    """A plan's nitrate, its animals as they are today on its sheet, with what its log says."""
    limit = sheet.root.changes.target_nitrate_mg_l
    recent = [row for row in log if days_since(row.at, now) <= MOST_PAST_D and row.at <= now]
    entries = entries_of(recent, float(sheet.value("real_volume_l")), now, sheet.library)
    tanks = known(sheet, entries, recent, now)
    course = ahead(sheet, tanks, now, PAST_D)
    level = float(np.median(tanks.level)) / NITRATE_PER_N if tanks.read else sheet.root.changes.read_nitrate_mg_l
    told = tanks.read and len(entries) >= ENOUGH
    basis = as_logged(sheet, tanks) if told else sheet
    passes = passing(course.still, limit)
    from_here = basis if level is None else basis.changed({"changes.read_nitrate_mg_l": min(level, MOST_READ_MG_L)})
    settles, peak = number(from_here, "settles_in_d"), number(basis, "peak_nitrate_mg_l")
    return NitratePage(
        result=result(level, passes, limit, now, peak, told, settles),
        level=level,
        limit=limit,
        source=number(sheet, "new_nitrate_mg_l") or 0.0,
        course=band(course.days, course.regime),
        readings=tuple(
            bar(row, now, sheet.library) for row in readings(recent, "nitrate") if days_since(row.at, now) <= PAST_D
        ),
        changes=tuple(
            -days_since(row.at, now)
            for row in recent
            if isinstance(row.event, Changed) and days_since(row.at, now) <= PAST_D
        ),
        passes_low_d=passes[0],
        passes_d=passes[1],
        passes_high_d=passes[2],
        settled_peak=peak,
        settled_trough=number(basis, "trough_nitrate_mg_l"),
        settles_d=settles,
        grown=grown_up(basis),
        said=said(sheet, tanks) if told else (),
        ways=ways(sheet, tanks, recent, now) if told else (),
        asks=asks(sheet, tanks, recent, entries, now, told),
        experiments=experiments(sheet, recent, entries, now),
        design=design(basis, entries),
        levers=levers(basis),
        saw=saw_of(basis),
    )


def as_logged(sheet: Sheet[Plan], tanks: Known) -> Sheet[Plan]:
    """The plan with what is made as the log says: levers are tried on the tank as it is."""
    made = max(0.0, float(np.median(tanks.made)) / NITRATE_PER_N)
    return sheet.changed({"changes.logged_rise_nitrate_mg_l_d": made})


def grown_up(basis: Sheet[Plan]) -> Sentence | None:
    """What it comes to when animals that still grow are grown, fed by the same habit."""
    now, grown = number(basis, "load_now_mg_d"), basis.changed({ASKED_MONTHS: math.inf})
    then, peak = number(grown, "load_full_mg_d"), number(grown, "peak_nitrate_mg_l")
    if not now or then is None or peak is None or then < WORTH_TELLING * now:
        return None
    text = "Reckoned with the animals as they are today. Grown, and fed by the same habit, they make {times} times as much: {peak} before a change."
    return say(text, times=Term(then / now, "ratio"), peak=Term(peak, "nitrate"))


def band(days: Array, levels: Array) -> Course:
    low, middle, high = np.quantile(levels, [0.1, 0.5, 0.9], axis=1)
    return Course(*(tuple(np.round(row, 4).tolist()) for row in (days, low, middle, high)))


def passing(still: Array, limit: float) -> tuple[float | None, float | None, float | None]:
    """Days until the limit is passed without a change: soonest, likely and latest; None beyond what is looked at."""
    over = still >= limit
    first = np.where(over.any(axis=0), over.argmax(axis=0), np.inf)
    found = np.quantile(first, [0.1, 0.5, 0.9], method="higher")
    return tuple(float(day) if math.isfinite(day) else None for day in found)  # type: ignore[return-value]


def result(
    level: float | None,
    passes: tuple[float | None, ...],
    limit: float,
    now: datetime,
    peak: float | None,
    told: bool,
    settles: float | None,
) -> Sentence:
    """The page's first sentence."""
    terms = {"limit": Term(limit, "nitrate")}
    settled = ""
    if peak is not None:
        terms["peak"] = Term(peak, "nitrate")
        settled = "; as it is made now it" if told else "; by this regime it"
        settled += " settles at {peak} before a change"
        if settles is not None and settles >= 1:
            settled += ", in about {settles}"
            terms["settles"] = Term(settles, "days")
    if level is None:
        return say("Nothing read yet" + settled + ". A reading starts the forecast.", **terms)
    terms["level"] = Term(level, "nitrate")
    soon, likely, late = passes
    if likely is None or soon is None:
        return say(
            "About {level} now" + settled + ". Without a change it does not pass {limit} in four months.", **terms
        )
    terms["date"] = Term((now + timedelta(days=likely)).strftime("%-d %B"))
    terms["soon"] = Term(soon, "days")
    if likely == 0:
        return say("About {level} now, over {limit}" + settled + ".", **terms)
    span = ", in {soon} at the soonest" if late is None else ", in {soon} to {late}"
    if late is not None:
        terms["late"] = Term(late, "days")
    if soon < 1:
        span = ", or any day" if late is None else ", any day within {late}"
    return say("About {level} now; without a change it passes {limit} about {date}" + span + settled + ".", **terms)


def bar(row: ReadAt, now: datetime, library: Library) -> Bar:
    read = read_interval(row.read, library)
    return Bar(-days_since(row.at, now), read.low, None if math.isinf(read.high) else read.high)
