"""What a log taught of a tank's waste, and what goes by it: everything as reckoned beside everything as logged."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

import numpy as np

from loquen.core.events.ledger import Logged
from loquen.core.events.readings import ReadAt, days_since, is_zero, read_interval, readings
from loquen.core.graph.asking import number
from loquen.core.graph.nodes import State
from loquen.core.graph.sheet import Sheet
from loquen.core.library.whole import Library
from loquen.core.model.roots.plan import Plan
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.system.nitrate.course import Known
from loquen.core.system.nitrate.said import goes_by_log
from loquen.core.system.told import verdict_of

RISE, WASTE, HELD = "changes.logged_rise_nitrate_mg_l_d", "stocking.logged_waste_frac", "stocking.held_months"
LEAST_WASTE, MOST_WASTE = 0.05, 5.0
MOST_RISE = 50.0
ALIKE = 0.1
"""Of what is reckoned: a log that lies no farther from it says the same."""
SHOWN = (
    ("balance_frac", "Share of the balance used", "in_balance"),
    ("mature_ammonia_mg_l", "Ammonia that the filter settles at", "media_carry"),
    ("dawn_oxygen_mg_l", "Oxygen at dawn", "dawn_breathes"),
    ("peak_nitrate_mg_l", "Nitrate before a change", "nitrate_held"),
)
LEAST_READ, LONGEST_GAP_D = 4, 45
DAYS_PER_MONTH = 365.25 / 12


@dataclass(frozen=True, slots=True)
class Figure:
    """A figure by one way of reckoning, and how its check stands."""

    key: str
    label: str
    kind: str
    value: float | None
    state: State


@dataclass(frozen=True, slots=True)
class Way:
    """A way to reckon this tank: what it changes in the plan, and what comes of it."""

    key: str
    label: str
    changes: Mapping[str, float | None]
    figures: tuple[Figure, ...]


def ways(sheet: Sheet[Plan], tanks: Known, log: Sequence[Logged], now: datetime) -> tuple[Way, ...]:
    """As reckoned, and as logged: where less is made than reckoned because less reaches the water, or because it is taken."""
    held = held_months(log, sheet.root.changes.target_nitrate_mg_l, sheet.library, now)
    none: dict[str, float | None] = {RISE: None, WASTE: None, HELD: None}
    plain = sheet.changed(none)
    volume, reckoned = number(plain, "real_volume_l"), number(plain, "load_now_mg_d")
    rise = min(max(0.0, float(np.median(tanks.made)) / NITRATE_PER_N), MOST_RISE)
    found = [("reckoned", "as reckoned from the feed", none)]
    if volume and reckoned:
        part = (rise * volume + min(number(plain, "plants_mg_d") or 0.0, reckoned)) / reckoned
        if abs(part - 1) < ALIKE and not goes_by_log(sheet.root):
            return ()
        wasted = {**none, WASTE: round(min(max(part, LEAST_WASTE), MOST_WASTE), 3), HELD: held}
        less = part < 1
        found.append(
            ("waste", "as logged: less waste reaches the water" if less else "as logged: more waste", wasted)
        )
        if less:
            found.append(
                ("taken", "as logged: plants or the bed take it", {**none, RISE: round(rise, 4), HELD: held})
            )
    return tuple(Way(key, label, moved, figures(plain.changed(moved))) for key, label, moved in found)


def figures(sheet: Sheet[Plan]) -> tuple[Figure, ...]:
    """What a keeper looks at first, by one way."""
    found = []
    for key, label, check in SHOWN:
        verdict = verdict_of(sheet, check)
        kind = sheet.wiring.nodes[key].kind or ""
        found.append(Figure(key, label, kind, number(sheet, key), verdict.state if verdict else "unknown"))
    return tuple(found)


def held_months(log: Sequence[Logged], limit: float, library: Library, now: datetime) -> float | None:
    """Months back from now in which every reading held: nitrate under its limit, ammonia and nitrite none, and read often
    enough to say so. None where nothing was read, or too little."""
    rows = [
        (row, good(what, row, limit, library)) for what in WATCHED for row in readings(log, what) if row.at <= now
    ]
    newest_bad = max((row.at for row, fine in rows if not fine), default=None)
    since = [row for row, _ in rows if newest_bad is None or row.at > newest_bad]
    counts = {what: sum(row.read.what == what for row in since) for what in WATCHED}
    if min(counts.values()) < LEAST_READ // 2 or counts["nitrate"] < LEAST_READ:
        return None
    moments = sorted(row.at for row in since)
    # A gap in which nobody read says nothing of what it was like.
    first = now
    for moment in reversed(moments):
        if first - moment > timedelta(days=LONGEST_GAP_D):
            break
        first = moment
    months = days_since(first, now) / DAYS_PER_MONTH
    return round(months, 1) if months > 0 else None


WATCHED = ("nitrate", "ammonia", "nitrite")


def good(what: str, row: ReadAt, limit: float, library: Library) -> bool:
    if what == "nitrate":
        return read_interval(row.read, library).low <= limit
    return is_zero(row.read, library)
