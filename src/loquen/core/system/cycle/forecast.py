"""What a cycle will come to: bands over the hours, the day it is done, what was learned, what holds it up."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime

import numpy as np
from numpy.typing import NDArray

from loquen.core.errors import NamedCase
from loquen.core.events.kinds.water import Changed, Dosed, Read
from loquen.core.events.ledger import Logged
from loquen.core.events.lines import line_of
from loquen.core.events.readings import ReadAt, days_since
from loquen.core.fit.cycle import Learned, Seen, learned
from loquen.core.graph.engine import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.records.log import KIND_WORDS
from loquen.core.model.roots.plan import Plan
from loquen.core.system.cycle import replay
from loquen.core.system.cycle.answer import Done, is_it_done
from loquen.core.system.cycle.calendar import Line, calendar
from loquen.core.system.cycle.camps import Camp, camps
from loquen.core.system.cycle.care import Care, care
from loquen.core.system.cycle.obstacles import Hastens, cautions, hastens, stalls
from loquen.core.system.cycle.setup import Begun, begun
from loquen.core.timeline import course, rates
from loquen.core.timeline.course import HOURS, Happening, Keeper
from loquen.core.timeline.nitrogen import bands, factors_of, members_of, quantiles

EVERY_H = 6
"""Hours between the points of a chart."""
LEAST_MOVED = 0.8
"""Standard deviations that the middle of something has to move before it is told as learned."""
MOST_DAYS = 365


@dataclass(frozen=True, slots=True)
class Band:
    """10, 50 and 90 % of a level over the days of the chart, mg/L N or dKH."""

    what: str
    low: tuple[float, ...]
    middle: tuple[float, ...]
    high: tuple[float, ...]
    limit: float | None


@dataclass(frozen=True, slots=True)
class Mark:
    """A reading as a bar over its interval; without an upper end at the top of a chart."""

    what: str
    day: float
    low: float
    high: float | None


@dataclass(frozen=True, slots=True)
class Happened:
    """Something that was done, as a mark with a word."""

    day: float
    words: str


@dataclass(frozen=True, slots=True)
class Forecast:
    """A cycle's page."""

    result: Sentence
    today: float
    days_10_50_90: tuple[float | None, ...]
    not_done_frac: float
    hours: tuple[float, ...]
    bands: tuple[Band, ...]
    readings: tuple[Mark, ...]
    happened: tuple[Happened, ...]
    done: Done
    learned: Sentence | None
    asks: tuple[Sentence, ...]
    stalls: tuple[Sentence, ...]
    hastens: tuple[Hastens, ...]
    calendar: tuple[Line, ...]
    camps: tuple[Camp, ...]
    care: Care | None
    cautions: tuple[Sentence, ...]


def forecast(sheet: Sheet[Plan], log: Sequence[Logged], now: datetime, seed: int = 0) -> Forecast:
    """The forecast of a plan's cycle with what its log says; raise NamedCase "not_begun"."""
    cycle = begun(sheet, now.tzinfo, now.date())  # type: ignore[arg-type]
    today = max(0.0, days_since(cycle.start, now))
    if today > MOST_DAYS:
        raise NamedCase("not_begun")
    happenings = replay.happenings(cycle, log)
    read = replay.seen(cycle, log, sheet.library)
    keeper = kept_from(cycle, log, today)
    found = learned(cycle.asked, keeper, happenings, [one for _, one in read], cycle.ranges, seed)
    run_days = int(min(MOST_DAYS, max(cycle.asked.run_days, math.ceil(today) + 45)))
    record = run(cycle, keeper, happenings, found, run_days)
    ledger = record.ledger
    assert ledger is not None
    days = ledger.day_done if cycle.fishless else ledger.clear_from_day
    days = np.where(np.isnan(days), np.inf, days)
    done_days = quantiles(days)
    odds = odds_now(record, cycle, days, today)
    middle = done_days[1] if math.isfinite(done_days[1]) else run_days
    return Forecast(
        result=result(cycle, done_days, today, float(np.isinf(days).mean())),
        today=today,
        days_10_50_90=tuple(day if math.isfinite(day) else None for day in done_days),
        not_done_frac=float(np.isinf(days).mean()),
        hours=tuple(hour / HOURS for hour in range(0, shown_hours(done_days, today, run_days) + 1, EVERY_H)),
        bands=drawn(record, cycle, shown_hours(done_days, today, run_days)),
        readings=tuple(mark(one) for _, one in read),
        happened=tuple(
            happened_words(cycle, row) for row in replay.since_start(cycle, log) if not isinstance(row.event, Read)
        ),
        done=is_it_done(cycle, log, now, odds, sheet.library),
        learned=told(cycle, found),
        asks=tuple(asked_about(read[place][0]) for place in found.odd),
        stalls=stalls(cycle, record, log, today),
        hastens=hastens(cycle, middle) if not read else (),
        calendar=calendar(
            cycle, keeper, happenings, found, done_days, today, nitrate_then(record, done_days), sheet.library
        ),
        camps=camps(cycle, happenings, today) if cycle.animals_in else (),
        care=care(cycle, record, log, now, today, sheet.library) if cycle.animals_in else None,
        cautions=cautions(cycle),
    )


def kept_from(cycle: Begun, log: Sequence[Logged], today: float) -> Keeper:
    """Who tends the tank from now on: by the plan's routine, where the log does not say what was done."""
    day = math.floor(today)
    clock = min(math.ceil((today - day) * HOURS), HOURS - 1)
    keeper = replace(cycle.keeper(), clock_h=clock)
    own = replay.since_start(cycle, log)
    if cycle.fishless and not replay.doses_logged(cycle, log):
        return keeper
    done_today = any(
        isinstance(row.event, Dosed | Changed) and days_since(cycle.start, row.at) >= day for row in own
    )
    return replace(keeper, from_day=day + (1 if done_today else 0))


def run(
    cycle: Begun, keeper: Keeper, happenings: Sequence[Happening], found: Learned, run_days: int
) -> course.Record:
    """Every learned member to the end, through what happened and then by the routine."""
    state, w, tended = members_of(cycle.asked, factors_of(found.z, cycle.ranges))
    return course.many(
        state, w, replace(keeper, full_dose=tended.full_dose, ends_when_clear=True), run_days, happenings
    )


def shown_hours(done_days: tuple[float, ...], today: float, run_days: int) -> int:
    """How far the chart goes: a week past the day by which nine tenths are done, and past today."""
    last = done_days[2] if math.isfinite(done_days[2]) else run_days
    return int(min(run_days, max(last + 7, today + 14))) * HOURS


def drawn(record: course.Record, cycle: Begun, most: int) -> tuple[Band, ...]:
    """The bands of a chart."""
    levels = bands(record.hours[: most + 1 : EVERY_H])
    limits = {} if cycle.fishless else {"ammonia": cycle.limits.ammonia, "nitrite": cycle.limits.nitrite}
    rows = {what: [tuple(np.round(row, 4).tolist()) for row in level] for what, level in levels.items()}
    return tuple(Band(what, low, middle, high, limits.get(what)) for what, (low, middle, high) in rows.items())


def mark(one: Seen) -> Mark:
    high = None if math.isinf(one.read.high) else one.read.high
    return Mark(one.what, one.hour / HOURS, one.read.low, high)


def happened_words(cycle: Begun, row: Logged) -> Happened:
    entry = line_of(row.event)
    words = KIND_WORDS[entry.kind]
    if entry.kind == "change" and entry.share is not None:
        words = f"{entry.share:.0%} changed"
    elif entry.what:
        words = f"{words}: {entry.what}"
    return Happened(days_since(cycle.start, row.at), words)


def odds_now(record: course.Record, cycle: Begun, days: NDArray[np.float64], today: float) -> float:
    """Share of the members that are done, or would be if they were asked today."""
    if not cycle.fishless:
        return float((days <= today).mean())
    # A full dose is gone in a day when both bacteria take it at the levels that it leaves: half saturated at the end.
    hour = min(int(today * HOURS), len(record.hours) - 1)
    on_ammonia, on_nitrite = record.hours[hour, 4], record.hours[hour, 5]
    dose, warmth = cycle.asked.full_dose_mg_l_n, rates.of_temperature(cycle.asked.temp_c, 2.0)["warmth"]
    # The mean of A/(0.5 + A) while a dose falls to a tenth of it.
    part = dose / (dose + 0.5 * math.log(10))
    able = (np.minimum(on_ammonia, on_nitrite) * warmth * part >= dose) | (days <= today)
    return float(able.mean())


def result(cycle: Begun, days: tuple[float, ...], today: float, never: float) -> Sentence:
    """The page's first sentence."""
    middle, late = days[1], days[2]
    word = "Done" if cycle.fishless else "Clear"
    if not math.isfinite(middle):
        text = "Not done within {horizon}, as it stands: see what holds it up."
        return say(text, horizon=Term(float(cycle.asked.run_days), "days"))
    terms = {"middle": Term(round(middle), "count"), "early": Term(round(days[0]), "count")}
    terms |= {"today": Term(math.floor(today), "count")}
    if not math.isfinite(late):
        text = f"{word} about day {{middle}} (day {{early}} at best, {{never}} not at all); today is day {{today}}."
        return say(text, never=Term(never, "share"), **terms)
    text = f"{word} about day {{middle}} ({{early}} to {{late}}); today is day {{today}}."
    return say(text, late=Term(round(late), "count"), **terms)


LEARNED = {
    "seed_a": "the ammonia-oxidisers it began with",
    "seed_n": "the nitrite-oxidisers it began with",
    "growth_a": "the growth of ammonia-oxidisers",
    "growth_n": "the growth of nitrite-oxidisers",
    "load": "what is made, or dosed",
}


def told(cycle: Begun, found: Learned) -> Sentence | None:
    """What the readings taught, by what moved farthest from what is usual."""
    if not found.told:
        return None
    names = list(cycle.ranges)
    moved = {name: float(np.median(found.z[names.index(name)])) for name in LEARNED}
    name = max(moved, key=lambda key: abs(moved[key]))
    if abs(moved[name]) < LEAST_MOVED:
        return say("What was read is what is usual: nothing faster or slower stands out.")
    factor = float(np.median(factors_of(found.z, cycle.ranges)[name]))
    pace = "Faster" if moved[name] > 0 else "Slower"
    if name == "load":
        pace = "More" if moved[name] > 0 else "Less"
    text = "{pace} than usual: {what} at about {times} times the usual."
    return say(text, pace=pace, what=LEARNED[name], times=Term(round(factor, 2), "ratio"))


def asked_about(row: ReadAt) -> Sentence:
    """A reading that no member explains, with the likeliest reasons."""
    text = (
        "{what} read as “{value}” does not fit anything this water can do. Likeliest: another unit (ion or nitrogen), a kit "
        "past its date, or a change or dose that was not written down."
    )
    return say(text, what=row.read.what.capitalize(), value=row.read.value)


def nitrate_then(record: course.Record, done_days: tuple[float, ...]) -> float:
    """Nitrate when it is done, mg/L N."""
    hour = len(record.hours) - 1
    if math.isfinite(done_days[1]):
        hour = min(hour, round(done_days[1]) * HOURS)
    return float(np.median(record.hours[hour, 2]))
