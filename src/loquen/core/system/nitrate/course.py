"""Where nitrate stands and where it goes: followed through the log to today, and on by the plan's changes, or without."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from typing import Any

import numpy as np

from loquen.core.events.ledger import Logged
from loquen.core.fit.followed import followed
from loquen.core.fit.nitrate import steps_of
from loquen.core.graph.asking import number
from loquen.core.graph.keys import Missing
from loquen.core.graph.sheet import Sheet
from loquen.core.model.roots.plan import Plan
from loquen.core.physics.elementwise import Array
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.system.changes.regime import WEEK
from loquen.core.system.growing import waste_times
from loquen.core.system.nitrate.entries import (
    MADE_RANGE,
    SOURCE_RANGE,
    UNMETERED_CHART,
    prior_of,
    readings_in,
    turns_of,
)
from loquen.core.timeline.process.net import Net
from loquen.core.timeline.run import HOURS, Turns, Undisturbed, run
from loquen.core.timeline.state import state_of
from loquen.core.timeline.surroundings import Surroundings
from loquen.core.timeline.tanks import ManyTanks
from loquen.core.timeline.tending.keeper import Changing, Source

AHEAD_D, MONTH_D = 120, 30
SAMPLES = 400
STIRS_A_MONTH = 0.12
"""By how much what is made wanders in a month ahead: as it did in the past."""


@dataclass(frozen=True, slots=True)
class Known:
    """Possible tanks today, nitrate as the ion: what they make a day, their change water, their level; their past at the
    log's steps; which readings are strange; and how much likelier the log is if its kit shows nitrogen, as a logarithm."""

    made: Array
    source: Array
    level: Array
    days: Array
    past: Array
    strange: tuple[float, ...]
    as_nitrogen: float
    read: bool


@dataclass(frozen=True, slots=True)
class Ahead:
    """Days from the log's first on, and nitrate of possible tanks on them, mg/L N: by the regime, and without a change
    from today on."""

    days: Array
    regime: Array
    still: Array


def known(sheet: Sheet[Plan], entries: Sequence[dict[str, Any]], log: Sequence[Logged], now: datetime) -> Known:
    """What the log leaves possible; without a reading what the plan reckons."""
    prior = prior_of(sheet)
    if not readings_in(entries):
        return as_reckoned(sheet, prior)
    turns = turns_of(log, now)
    found, other = (
        followed(prior, steps_of(entries, UNMETERED_CHART, factor), 0.0, turns, drip_per_d=dripped(sheet))
        for factor in (1.0, NITRATE_PER_N)
    )
    return Known(
        found.made,
        found.source,
        found.level,
        found.days,
        found.levels,
        found.strange,
        other.log_evidence - found.log_evidence,
        read=True,
    )


def as_reckoned(sheet: Sheet[Plan], prior: dict[str, Any]) -> Known:
    """Possible tanks of a plan without a reading in its log."""
    chance = np.random.default_rng(3)

    def drawn(middle: float, times: float) -> Array:
        return np.asarray(middle * np.exp(np.log(times) / 1.645 * chance.standard_normal(SAMPLES)))

    made, source = (
        drawn(prior["made_from_feed_mg_l_d"], MADE_RANGE),
        drawn(prior["source_report_mg_l"], SOURCE_RANGE),
    )
    told = sheet.root.changes.read_nitrate_mg_l
    level = told if told is not None else number(sheet, "trough_nitrate_mg_l") or 0.0
    return Known(
        made,
        source,
        np.full(SAMPLES, level * NITRATE_PER_N),
        np.empty(0),
        np.empty((0, SAMPLES)),
        (),
        0.0,
        read=False,
    )


def ahead(sheet: Sheet[Plan], tanks: Known, now: datetime, past_d: float) -> Ahead:
    """Their course: as far back as is looked at, and on."""
    shares = due_shares(sheet, now)
    new = Source(nitrate_mg_l_n=tanks.source / NITRATE_PER_N, kh_dkh=0.0)
    share = max(shares.values(), default=0.0)
    by_month = made_by_month(sheet, tanks.made)
    drip: Net[Array] = Net(np.zeros(tanks.level.size), dripped(sheet) / HOURS, tanks.source / NITRATE_PER_N)
    regime = course_of(
        tanks.level, by_month, lambda first: Changing(share, [day - first for day in shares], new), drip
    )
    still = course_of(tanks.level, by_month, lambda first: Undisturbed(), drip)
    shown = tanks.days >= -past_d
    days = np.concatenate([tanks.days[shown], np.arange(AHEAD_D + 1.0)])
    return Ahead(days, np.concatenate([tanks.past[shown] / NITRATE_PER_N, regime]), still)


def made_by_month(sheet: Sheet[Plan], made: Array) -> list[Array]:
    """What is made in each of the months ahead: as it wanders, and as today's animals grow by as large a part as shows of
    what they make today, plants' share included."""
    chance = np.random.default_rng(7)
    found, wanders = [], np.ones(made.size)
    volume, load = number(sheet, "real_volume_l") or 0.0, number(sheet, "load_now_mg_d") or 0.0
    today = load / volume * NITRATE_PER_N if volume else 0.0
    taken = min(number(sheet, "plants_mg_d") or 0.0, load) / volume * NITRATE_PER_N if volume else 0.0
    part = np.clip((made + taken) / today, 0.0, 1.0) if today else np.ones(made.size)
    for month in range(AHEAD_D // MONTH_D):
        more = (waste_times(sheet, (month + 0.5) * MONTH_D) - 1) * today
        found.append(made * wanders + part * more)
        wanders = wanders * np.exp(STIRS_A_MONTH * chance.standard_normal(made.size))
    return found


def dripped(sheet: Sheet[Plan]) -> float:
    """The share of its water that a drip beside the changes exchanges a day."""
    return number(sheet, "drip_per_d") or 0.0


def course_of(
    level: Array, by_month: Sequence[Array], turns_from: Callable[[int], Turns[Array]], drip: Net[Array]
) -> Array:
    """Nitrate of possible tanks on each of the days ahead, mg/L N, before what is changed that day."""
    water, tanks, found = state_of(nitrate=level / NITRATE_PER_N), ManyTanks(level.size), []
    for month, made in enumerate(by_month):
        around = Surroundings(net=replace(drip, nitrate=made / NITRATE_PER_N / HOURS))
        went = run(water, around, turns_from(month * MONTH_D), MONTH_D * HOURS, tanks, ("nitrate",))
        found.append(went.hours["nitrate"][(0 if month == 0 else HOURS) :: HOURS])
        water = went.end
    return np.concatenate(found)


def due_shares(sheet: Sheet[Plan], now: datetime) -> dict[int, float]:
    """The share that is changed so many days from now, by the plan's regime; the same on each of them."""
    changes, share, days = sheet.root.changes, number(sheet, "swapped_frac") or 0.0, range(1, AHEAD_D + 1)
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
