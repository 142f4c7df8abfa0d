"""Nitrate from the last reading onwards: the band, the day that the limit is passed, what the log says, experiments."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

import numpy as np
from numpy.typing import NDArray

from loquen.core.events.kinds.keeping import Tried
from loquen.core.events.kinds.water import Changed, Read
from loquen.core.events.ledger import Logged
from loquen.core.events.readings import ReadAt, change_share, days_since, kit_of, read_interval, readings
from loquen.core.fit import nitrate as fitting
from loquen.core.fit.nitrate import Fitted
from loquen.core.graph.keys import Missing
from loquen.core.graph.sheet import Sheet
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.roots.plan import Plan
from loquen.core.physics.elementwise import Array
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.system.changes.regime import WEEK, Corner
from loquen.core.system.nitrate.experiments import Experiment, experiments
from loquen.core.system.nitrate.levers import Lever, levers, saw_of
from loquen.core.timeline.process.net import Net
from loquen.core.timeline.run import HOURS, Turns, Undisturbed, run
from loquen.core.timeline.state import state_of
from loquen.core.timeline.surroundings import Surroundings
from loquen.core.timeline.tanks import ManyTanks
from loquen.core.timeline.tending.keeper import Changing, Source

PAST_D, AHEAD_D = 120, 120
MADE_RANGE, SOURCE_RANGE = 1.6, 1.3
MOST_PAST_D = 760
SAMPLES = 400
MOST_READ_MG_L = 200.0
FAR_APART = 2.0
"""Times past the log's own range, from which the plan's figure is told to be another."""
ENOUGH = 4
"""Entries of a log that say more than the plan does."""
UNMETERED_CHART = (0, 5, 10, 20, 40, 80, 160)


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
class Said:
    """What the log says of one figure beside what the plan has, each low, likely and high."""

    key: str
    label: str
    kind: str
    plan: float
    low: float
    likely: float
    high: float


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
    said: tuple[Said, ...]
    asks: tuple[Sentence, ...]
    experiments: tuple[Experiment, ...]
    levers: tuple[Lever, ...]
    saw: tuple[Corner, ...]


def page(sheet: Sheet[Plan], log: Sequence[Logged], now: datetime) -> NitratePage:
    """A plan's nitrate with what its log says."""
    rise, source = figure(sheet, "rise_nitrate_mg_l_d"), figure(sheet, "new_nitrate_mg_l")
    limit = sheet.root.changes.target_nitrate_mg_l
    volume = float(sheet.value("real_volume_l"))
    recent = [row for row in log if days_since(row.at, now) <= MOST_PAST_D and row.at <= now]
    entries = entries_of(recent, volume, now, sheet.library)
    prior = prior_of(rise, source, ongoing(recent, now))
    fitted = None
    if sum(entry["kind"] == "reading" for entry in entries) >= 1:
        fitted = fitting.fit(prior=prior, log=entries)
    start, course = ahead(sheet, entries, prior, now)
    net = course["net"]
    level = start[1] if fitted else sheet.root.changes.read_nitrate_mg_l
    told = fitted is not None and len(entries) >= ENOUGH
    basis = as_logged(sheet, net) if told else sheet
    passes = passing(course["still"], limit)
    from_here = basis if level is None else basis.changed({"changes.read_nitrate_mg_l": min(level, MOST_READ_MG_L)})
    settles = figure_or_none(from_here, "settles_in_d")
    return NitratePage(
        result=result(level, passes, limit, now, figure_or_none(basis, "peak_nitrate_mg_l"), told, settles),
        level=level,
        limit=limit,
        source=source,
        course=band(course["days"], course["regime"]),
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
        settled_peak=figure_or_none(basis, "peak_nitrate_mg_l"),
        settled_trough=figure_or_none(basis, "trough_nitrate_mg_l"),
        settles_d=settles,
        said=said(net, rise, source) if told else (),
        asks=(
            *(apart(net, rise, sheet) if told else ()),
            *(asks(fitted, recent, now, sheet.library) if fitted else ()),
        ),
        experiments=experiments(recent, prior, entries, now),
        levers=levers(basis),
        saw=saw_of(basis),
    )


def net_of(
    sheet: Sheet[Plan], entries: Sequence[dict[str, Any]], log: Sequence[Logged], now: datetime
) -> NDArray[np.float64]:
    """Samples of what is made a day less what is lost, as the ion, by what a log says."""
    prior = prior_of(figure(sheet, "rise_nitrate_mg_l_d"), figure(sheet, "new_nitrate_mg_l"), ongoing(log, now))
    return np.asarray(samples(sheet, entries, prior)[0])


def as_logged(sheet: Sheet[Plan], net: tuple[Any, Any]) -> Sheet[Plan]:
    """The plan with what is made as the log says: levers are tried on the tank as it is."""
    made = max(0.0, float(np.median(net[0])) / NITRATE_PER_N)
    return sheet.changed({"changes.logged_rise_nitrate_mg_l_d": made})


def figure(sheet: Sheet[Plan], key: str) -> float:
    return figure_or_none(sheet, key) or 0.0


def figure_or_none(sheet: Sheet[Plan], key: str) -> float | None:
    found = sheet.look(key)
    return None if isinstance(found, Missing) else float(found)


def entries_of(log: Sequence[Logged], volume: float, now: datetime, library: Library) -> list[dict[str, Any]]:
    """A log as the fit takes it: days from its first entry, readings as the ion, changes as shares."""
    found: list[dict[str, Any]] = []
    for row in sorted(log, key=lambda row: row.at):
        day, event = -days_since(row.at, now), row.event
        if isinstance(event, Changed):
            found.append({"day": day, "kind": "change", "share": change_share(event, volume)})
        elif isinstance(event, Read) and event.what == "nitrate":
            read = read_interval(event, library).scaled(NITRATE_PER_N)
            value = f"over {read.low}" if math.isinf(read.high) else f"between {read.low} and {read.high}"
            when = {"before": "before the change", "after": "after the change"}.get(event.when)
            kit = kit_of(event, library)
            blur = {"blur": kit.blur_frac} if kit else {}
            found.append(
                {"day": day, "kind": "reading", "value": value, **blur, **({"when": when} if when else {})}
            )
    return found


def ongoing(log: Sequence[Logged], now: datetime) -> float | None:
    """Days from now since when something is tried that has not ended: the newest experiment."""
    running = [row.at for row in log if isinstance(row.event, Tried) and not ended(row.event, now)]
    return -days_since(running[-1], now) if running else None


def ended(tried: Tried, now: datetime) -> bool:
    return bool(tried.until) and tried.until <= now.date().isoformat()


def prior_of(rise: float, source: float, sink_day: float | None) -> dict[str, Any]:
    """What is believed before the log is read, as the ion."""
    return {
        "made_from_feed_mg_l_d": max(rise * NITRATE_PER_N, 0.02),
        "made_range_x": MADE_RANGE,
        "source_report_mg_l": source * NITRATE_PER_N,
        "source_range_x": SOURCE_RANGE,
        "sink_date_day": sink_day,
        "chart": UNMETERED_CHART,
        "kit_says": "ion",
    }


def ahead(
    sheet: Sheet[Plan], entries: Sequence[dict[str, Any]], prior: dict[str, Any], now: datetime
) -> tuple[tuple[float, float, float], dict[str, Any]]:
    """Level now and its course: back through the log where there is one, and on by the regime, or without a change."""
    made, source, level, past_days, past = samples(sheet, entries, prior)
    shares = due_shares(sheet, now)
    new = Source(nitrate_mg_l_n=source / NITRATE_PER_N, kh_dkh=0.0)
    regime = course_of(level, made, Changing(max(shares.values(), default=0.0), tuple(shares), new))
    still = course_of(level, made, Undisturbed())
    now_level = tuple(float(q) for q in np.quantile(level, [0.1, 0.5, 0.9]) / NITRATE_PER_N)
    whole_days = np.concatenate([past_days, np.arange(AHEAD_D + 1.0)])
    whole = np.concatenate([past / NITRATE_PER_N, regime])
    found = {"days": whole_days, "regime": whole, "still": still, "net": (made, source)}
    return now_level, found  # type: ignore[return-value]


def course_of(level: Array, made: Array, turns: Turns[Array]) -> Array:
    """Nitrate of samples on each of the days ahead, mg/L N, before what is changed that day."""
    water, net = state_of(nitrate=level / NITRATE_PER_N), Net(made / NITRATE_PER_N / HOURS)
    tanks = ManyTanks(made.size)
    return run(water, Surroundings(net=net), turns, AHEAD_D * HOURS, tanks, ("nitrate",)).hours["nitrate"][::HOURS]


def samples(
    sheet: Sheet[Plan], entries: Sequence[dict[str, Any]], prior: dict[str, Any]
) -> tuple[Any, Any, Any, NDArray[np.float64], NDArray[np.float64]]:
    """Made, source and level of samples (as the ion), and the days of the log with their levels."""
    chance = np.random.default_rng(3)
    read = [entry for entry in entries if entry["kind"] == "reading"]
    if not read:
        made = prior["made_from_feed_mg_l_d"] * np.exp(np.log(MADE_RANGE) / 1.645 * chance.standard_normal(SAMPLES))
        source = prior["source_report_mg_l"] * np.exp(
            np.log(SOURCE_RANGE) / 1.645 * chance.standard_normal(SAMPLES)
        )
        read_today = sheet.root.changes.read_nitrate_mg_l
        start = read_today if read_today is not None else figure(sheet, "trough_nitrate_mg_l")
        level = np.full(SAMPLES, start * NITRATE_PER_N)
        return made, source, level, np.empty(0), np.empty((0, SAMPLES))
    steps = fitting.steps_of(entries, UNMETERED_CHART, 1.0)
    found = fitting.posterior(prior, steps)
    picked = chance.choice(found.weights.size, SAMPLES, p=found.weights)
    drawn = found.samples[:, picked]
    made, source, _, effect = fitting.parameters(drawn, prior)
    if prior["sink_date_day"] is not None:
        made = made - effect
    shown = [step for step in steps if step.day >= -PAST_D]
    levels = list(fitting.levels(drawn, prior, steps))
    past = [level for step, level in zip(steps, levels, strict=True) if step.day >= -PAST_D]
    level = np.maximum(levels[-1] + made * -steps[-1].day, 0.0)
    days = np.array([step.day for step in shown])
    return made, source, level, days, np.array(past).reshape(len(days), SAMPLES)


def due_shares(sheet: Sheet[Plan], now: datetime) -> dict[int, float]:
    """The share that is changed so many days from now, by the plan's regime; the same on each of them."""
    changes, share, days = sheet.root.changes, figure(sheet, "swapped_frac"), range(1, AHEAD_D + 1)
    if changes.regime == "weekdays":
        return {day: share for day in days if WEEK[(now + timedelta(days=day)).weekday()] in changes.weekdays}
    if changes.regime == "every":
        return {day: share for day in days if day % changes.every_d == 0}
    gaps = sheet.look("gaps_d")
    if isinstance(gaps, Missing):
        return {}
    mean = sum(gaps) / len(gaps)
    if mean >= 1:
        return {day: share for day in days if day % round(mean) == 0}
    return dict.fromkeys(days, float(1 - (1 - share) ** (1 / mean)))


def band(days: NDArray[np.float64], levels: NDArray[np.float64]) -> Course:
    low, middle, high = np.quantile(levels, [0.1, 0.5, 0.9], axis=1)
    return Course(*(tuple(np.round(row, 4).tolist()) for row in (days, low, middle, high)))


def passing(still: NDArray[np.float64], limit: float) -> tuple[float | None, float | None, float | None]:
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
    return say("About {level} now; without a change it passes {limit} about {date}" + span + settled + ".", **terms)


def bar(row: ReadAt, now: datetime, library: Library) -> Bar:
    read = read_interval(row.read, library)
    return Bar(-days_since(row.at, now), read.low, None if math.isinf(read.high) else read.high)


def said(net: tuple[Any, Any], rise: float, source: float) -> tuple[Said, ...]:
    """What the log says beside what the plan has."""
    made, brought = (tuple(np.quantile(values, [0.05, 0.5, 0.95])) for values in net)
    rows = (
        (
            "changes.logged_rise_nitrate_mg_l_d",
            "Nitrate made a day, less what is lost",
            "nitrate_rate",
            rise,
            made,
        ),
        ("water.source_nitrate_mg_l", "Nitrate of the change water", "nitrate", source, brought),
    )
    return tuple(
        Said(key, label, kind, plan, *(float(value) / NITRATE_PER_N for value in values))
        for key, label, kind, plan, values in rows
    )


def apart(net: tuple[Any, Any], rise: float, sheet: Sheet[Plan]) -> Iterator[Sentence]:
    """Where the log and the plan say quite different things of what is made: both, which is judged, what it could become."""
    low, likely, high = (float(value) / NITRATE_PER_N for value in np.quantile(net[0], [0.05, 0.5, 0.95]))
    if low / FAR_APART <= rise <= high * FAR_APART or sheet.root.changes.logged_rise_nitrate_mg_l_d is not None:
        return
    terms = {"logged": Term(max(0.0, likely), "nitrate_rate"), "reckoned": Term(rise, "nitrate_rate")}
    text = "Your readings make it {logged} where the plan reckons {reckoned} from its feed. This page goes by your readings"
    peak = figure_or_none(sheet, "peak_nitrate_mg_l")
    if peak is not None and rise > likely:
        terms["peak"] = Term(peak, "nitrate")
        text += "; fed as planned, with no plant or sink that takes it, it could become {peak} before a change"
    yield say(text + ".", **terms)


def asks(fitted: Fitted, log: Sequence[Logged], now: datetime, library: Library) -> tuple[Sentence, ...]:
    """Readings that physics forbids, and a kit that shows nitrogen, asked about with the likeliest reasons."""
    found = []
    for ask in fitted.asks:
        if ask["about"] == "as_n":
            text = (
                "These readings fit far better if the kit shows nitrogen, not the ion: a “10” would be 44 mg/L NO₃. What "
                "does its leaflet say?"
            )
            found.append(say(text))
        if ask["about"] == "reading":
            row = min(readings(log, "nitrate"), key=lambda row: abs(-days_since(row.at, now) - ask["day"]))
            kit = kit_of(row.read, library)
            text = (
                "“{value}” on {date} is more, or less, than this water can have come to. Likeliest: a change that was not "
                "written down, a wrong unit, or {kit} past its date."
            )
            what = kit.label.lower() if kit else "a kit"
            found.append(say(text, value=row.read.value, date=row.at.strftime("%-d %B"), kit=what))
    return tuple(found)
