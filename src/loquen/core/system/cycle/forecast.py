"""What a cycle will come to: bands over the hours, the day it is done, what was learned, what holds it up."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any

import numpy as np

from loquen.core.errors import NamedCase
from loquen.core.events.kinds.water import Changed, Dosed, Read
from loquen.core.events.ledger import Logged
from loquen.core.events.lines import line_of
from loquen.core.events.readings import ReadAt, days_since
from loquen.core.fit.cycle import Learned, Seen, its_own_way, learned
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.records.log import CLEANED, DOSES, KIND_WORDS, LEFT_WORDS
from loquen.core.model.roots.plan import Plan
from loquen.core.physics.elementwise import Array
from loquen.core.system.cycle import replay
from loquen.core.system.cycle.answer import Done, is_it_done
from loquen.core.system.cycle.calendar import Line, calendar
from loquen.core.system.cycle.camps import Camp, camps
from loquen.core.system.cycle.care import Care, care
from loquen.core.system.cycle.obstacles import Hastens, cautions, hastens, stalls
from loquen.core.system.cycle.setup import Begun, begun
from loquen.core.system.cycle.stories import fits_not
from loquen.core.timeline.nitrogen import bands, done_days, factors_of, members_of, quantiles
from loquen.core.timeline.run import HOURS
from loquen.core.timeline.tending.keeper import Happening, Keeper, Tended, tend
from loquen.core.timeline.warm import warm_at

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
    soil: Sentence | None
    """How much ammonia an active soil gives, or the reading that would say it."""
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
    happenings = [*replay.happenings(cycle, log), *cycle.growing]
    read = replay.seen(cycle, log, sheet.library)
    keeper = kept_from(cycle, log, today)
    found = learned(cycle.asked, keeper, happenings, [one for _, one in read], cycle.ranges, seed)
    run_days = int(min(MOST_DAYS, max(cycle.asked.run_days, math.ceil(today) + 45)))
    tended = run(cycle, keeper, happenings, found, run_days)
    days = done_days(tended.tally, cycle.fishless)
    by_day = quantiles(days)
    odds = odds_now(tended, cycle, days, today)
    middle = by_day[1] if math.isfinite(by_day[1]) else run_days
    return Forecast(
        result=result(cycle, by_day, today, float(np.isinf(days).mean())),
        today=today,
        days_10_50_90=tuple(day if math.isfinite(day) else None for day in by_day),
        not_done_frac=float(np.isinf(days).mean()),
        hours=tuple(hour / HOURS for hour in range(0, shown_hours(by_day, today, run_days) + 1, EVERY_H)),
        bands=drawn(tended, cycle, shown_hours(by_day, today, run_days), seed),
        readings=tuple(mark(one) for _, one in read),
        happened=tuple(
            happened_words(cycle, row) for row in replay.since_start(cycle, log) if not isinstance(row.event, Read)
        ),
        done=is_it_done(cycle, log, now, odds, sheet.library),
        learned=told(cycle, found),
        soil=soil_gives(cycle, found, [one for _, one in read], today),
        asks=asks(cycle, read, found, tended),
        stalls=stalls(cycle, tended, log, today),
        hastens=hastens(cycle, middle) if not read else (),
        calendar=calendar(
            cycle, keeper, happenings, found, by_day, today, nitrate_then(tended, by_day), sheet.library
        ),
        camps=camps(cycle, happenings, today) if cycle.animals_in else (),
        care=care(cycle, tended, log, now, today, sheet.library) if cycle.animals_in else None,
        cautions=cautions(cycle),
    )


def asks(
    cycle: Begun, read: Sequence[tuple[ReadAt, Seen]], found: Learned, tended: Tended[Array]
) -> tuple[Sentence, ...]:
    """What does not fit: the story where most readings are beside it, else single readings."""
    story = fits_not(cycle, [one for _, one in read], tended.hours)
    if story is not None:
        return (story,)
    return tuple(asked_about(read[place][0]) for place in found.odd)


def kept_from(cycle: Begun, log: Sequence[Logged], today: float) -> Keeper[Any]:
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
    cycle: Begun, keeper: Keeper[Any], happenings: Sequence[Happening], found: Learned, run_days: int
) -> Tended[Array]:
    """Every learned member to the end, through what happened and then by the routine."""
    state, around, drawn = members_of(cycle.asked, factors_of(found.z, cycle.ranges))
    patient = replace(keeper, full_dose=drawn.full_dose, ends_when_clear=True)
    return tend(state, around, patient, run_days, happenings, found.z.shape[1])


def shown_hours(by_day: tuple[float, ...], today: float, run_days: int) -> int:
    """How far the chart goes: a week past the day by which nine tenths are done, and past today."""
    last = by_day[2] if math.isfinite(by_day[2]) else run_days
    return int(min(run_days, max(last + 7, today + 14))) * HOURS


def drawn(tended: Tended[Array], cycle: Begun, most: int, seed: int) -> tuple[Band, ...]:
    """The bands of a chart."""
    levels = bands(own_ways(tended.hours, seed), EVERY_H, most)
    limits = {} if cycle.fishless else {"ammonia": cycle.limits.ammonia, "nitrite": cycle.limits.nitrite}
    rows = {what: [tuple(np.round(row, 4).tolist()) for row in level] for what, level in levels.items()}
    return tuple(Band(what, low, middle, high, limits.get(what)) for what, (low, middle, high) in rows.items())


def own_ways(hours: Mapping[str, Array], seed: int) -> dict[str, Array]:
    """The hours with ammonia and nitrite as far off as a tank is from its model."""
    return {
        what: its_own_way(level, seed) if what in ("ammonia", "nitrite") else level for what, level in hours.items()
    }


def mark(one: Seen) -> Mark:
    high = None if math.isinf(one.read.high) else one.read.high
    return Mark(one.what, one.hour / HOURS, one.read.low, high)


def happened_words(cycle: Begun, row: Logged) -> Happened:
    entry = line_of(row.event)
    words = KIND_WORDS[entry.kind]
    if entry.kind == "change" and entry.share is not None:
        words = f"{entry.share:.0%} changed"
    elif entry.kind == "feed":
        words = "fasted" if entry.amount == 0 else "fed"
        words += f", {LEFT_WORDS[entry.what]}" if entry.what in LEFT_WORDS else ""
    elif entry.kind == "dose":
        words = f"dosed {DOSES.get(entry.what, entry.what)}"
    elif entry.kind == "filter":
        words += f" {CLEANED[entry.what]}" if entry.what in CLEANED else ""
    elif entry.what:
        words = f"{words}: {entry.what}"
    return Happened(days_since(cycle.start, row.at), words)


def odds_now(tended: Tended[Array], cycle: Begun, days: Array, today: float) -> float:
    """Share of the members that are done, or would be if they were asked today."""
    if not cycle.fishless:
        return float((days <= today).mean())
    # A full dose is gone in a day when both bacteria take it at the levels that it leaves: half saturated at the end.
    on_ammonia, on_nitrite = tended.hours["on_ammonia"], tended.hours["on_nitrite"]
    hour = min(int(today * HOURS), len(on_ammonia) - 1)
    dose, pace = cycle.asked.full_dose_mg_l_n, warm_at(cycle.asked.temp_c).pace
    # The mean of A/(0.5 + A) while a dose falls to a tenth of it.
    part = dose / (dose + 0.5 * math.log(10))
    able = (np.minimum(on_ammonia[hour], on_nitrite[hour]) * pace * part >= dose) | (days <= today)
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
    "soil": "what the soil gives off",
}


def told(cycle: Begun, found: Learned) -> Sentence | None:
    """What the readings taught, by what moved farthest from what is usual."""
    if not found.told:
        return None
    names = list(cycle.ranges)
    moved = {name: float(np.median(found.z[names.index(name)])) for name in LEARNED if name in names}
    name = max(moved, key=lambda key: abs(moved[key]))
    if abs(moved[name]) < LEAST_MOVED:
        return say("What was read is what is usual: nothing faster or slower stands out.")
    factor = float(np.median(factors_of(found.z, cycle.ranges)[name]))
    pace = "Faster" if moved[name] > 0 else "Slower"
    if name in ("load", "soil"):
        pace = "More" if moved[name] > 0 else "Less"
    text = "{pace} than usual: {what} at about {times} times the usual."
    return say(text, pace=pace, what=LEARNED[name], times=Term(round(factor, 2), "ratio"))


SOIL_READ_ON = 5
"""Day of a soil's first ammonia reading: enough has come off it, and few bacteria take it yet."""


def soil_gives(cycle: Begun, found: Learned, seen: Sequence[Seen], today: float) -> Sentence | None:
    """What readings of ammonia say of a bag of soil, or the one reading that would."""
    if cycle.asked.soil_ammonia_mg_l_n <= 0:
        return None
    low, middle, high = (
        Term(float(level), "ammonia")
        for level in np.quantile(
            cycle.asked.soil_ammonia_mg_l_n * factors_of(found.z, cycle.ranges)["soil"], [0.05, 0.5, 0.95]
        )
    )
    if any(one.what == "ammonia" for one in seen):
        return say(
            "By its readings this soil gives {middle} in all ({low} to {high}).", low=low, middle=middle, high=high
        )
    day = Term(max(SOIL_READ_ON, math.ceil(today)), "count")
    text = (
        "How much ammonia a bag of soil gives nobody knows beforehand: read it on day {day}, before any change, and this page "
        "goes by it. Until then anything from {low} to {high} is taken."
    )
    return say(text, day=day, low=low, high=high)


def asked_about(row: ReadAt) -> Sentence:
    """A reading that no member explains, with the likeliest reasons."""
    text = (
        "{what} read as “{value}” does not fit anything this water can do. Likeliest: another unit (ion or nitrogen), a kit "
        "past its date, or a change or dose that was not written down."
    )
    return say(text, what=row.read.what.capitalize(), value=row.read.value)


def nitrate_then(tended: Tended[Array], by_day: tuple[float, ...]) -> float:
    """Nitrate when it is done, mg/L N."""
    nitrate = tended.hours["nitrate"]
    hour = len(nitrate) - 1
    if math.isfinite(by_day[1]):
        hour = min(hour, round(by_day[1]) * HOURS)
    return float(np.median(nitrate[hour]))
