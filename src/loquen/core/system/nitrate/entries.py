"""A log as a fit of nitrate takes it: readings as the ion, changes as shares, what is believed before any of it is read."""

import math
from collections.abc import Sequence
from datetime import datetime
from typing import Any

from loquen.core.events.kinds.keeping import PutIn, TakenOut, Tried
from loquen.core.events.kinds.water import Changed, OtherSource, Read
from loquen.core.events.ledger import Logged
from loquen.core.events.readings import change_share, days_since, kit_of, read_interval
from loquen.core.graph.asking import number
from loquen.core.graph.sheet import Sheet
from loquen.core.library.whole import Library
from loquen.core.model.roots.plan import Plan
from loquen.core.physics.nitrogen import NITRATE_PER_N

MADE_RANGE, SOURCE_RANGE = 1.6, 1.3
LEAST_MADE_MG_L_D = 0.02
UNMETERED_CHART = (0, 5, 10, 20, 40, 80, 160)


def entries_of(log: Sequence[Logged], volume: float, now: datetime, library: Library) -> list[dict[str, Any]]:
    """A log's readings and changes, days from now."""
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


def turns_of(log: Sequence[Logged], now: datetime) -> list[float]:
    """Days from now at which something began or ended that may make more or less of what is made."""
    found = []
    for row in log:
        if isinstance(row.event, Tried | PutIn | TakenOut | OtherSource):
            found.append(-days_since(row.at, now))
        if isinstance(row.event, Tried) and (end := ended(row.event, now)) is not None:
            found.append(end)
    return sorted(day for day in found if day <= 0)


def ended(tried: Tried, now: datetime) -> float | None:
    """Days from now on which something that was tried ended; None while it goes on."""
    if not tried.until or tried.until > now.date().isoformat():
        return None
    return -days_since(datetime.fromisoformat(tried.until).replace(tzinfo=now.tzinfo), now)


def prior_of(sheet: Sheet[Plan], sink_day: float | None = None) -> dict[str, Any]:
    """What a sheet reckons before its log is read, as the ion."""
    return {
        "made_from_feed_mg_l_d": max(
            (number(sheet, "rise_nitrate_mg_l_d") or 0.0) * NITRATE_PER_N, LEAST_MADE_MG_L_D
        ),
        "made_range_x": MADE_RANGE,
        "source_report_mg_l": (number(sheet, "new_nitrate_mg_l") or 0.0) * NITRATE_PER_N,
        "source_range_x": SOURCE_RANGE,
        "sink_date_day": sink_day,
        "chart": UNMETERED_CHART,
        "kit_says": "ion",
    }


def readings_in(entries: Sequence[dict[str, Any]]) -> int:
    return sum(entry["kind"] == "reading" for entry in entries)
