"""What is wrong with an event beside those that are written down already."""

import math
from collections.abc import Iterable
from datetime import datetime, timedelta

from loquen.core.data.measures import measures
from loquen.core.errors import BadReading
from loquen.core.events.kinds.water import Changed, Dosed, Read
from loquen.core.events.ledger import Logged
from loquen.core.events.readings import kit_of, read_interval
from loquen.core.library.whole import Library
from loquen.core.model.records.log import DOSES, EntryFault

SOON = timedelta(minutes=10)
"""Clocks differ by so much."""


def faults(
    logged: Logged,
    library: Library,
    *,
    now: datetime,
    began: datetime | None = None,
    volume_l: float | None = None,
    others: Iterable[Logged] = (),
) -> list[EntryFault]:
    """What is wrong with an event beside those that are there; empty when it can be kept."""
    found: list[EntryFault] = []
    event = logged.event
    if logged.at > now + SOON:
        found.append(EntryFault("in_the_future", "at"))
    if began is not None and logged.at < began:
        found.append(EntryFault("before_it_began", "at", began=began.date().isoformat()))
    if isinstance(event, Read):
        found += reading_faults(logged.at, event, others, library)
    if isinstance(event, Changed):
        if event.litres is None and event.share is None:
            found.append(EntryFault("how_much", "litres"))
        if volume_l is not None and event.litres is not None and event.litres > 1.02 * volume_l:
            found.append(EntryFault("more_than_the_tank", "litres", most=volume_l))
    if isinstance(event, Dosed) and event.what not in DOSES:
        found.append(EntryFault("dose_of_what", "what"))
    return found


def reading_faults(at: datetime, read: Read, others: Iterable[Logged], library: Library) -> list[EntryFault]:
    """What is wrong with a reading."""
    if read.what not in measures():
        return [EntryFault("read_of_what", "what")]
    measure, kit = measures()[read.what], kit_of(read, library)
    if kit is not None and kit.measure != read.what:
        return [EntryFault("kit_reads_another", "kit", kit=kit.label, measure=measures()[kit.measure].label)]
    if read.value.strip().startswith(("-", "−")):
        return [EntryFault("negative", "value", value=read.value.strip())]
    try:
        found = read_interval(read, library)
    except BadReading as case:
        return [EntryFault(case.code, "value", value=read.value)]
    highest = found.high if math.isfinite(found.high) else found.low
    if found.low < measure.low or highest > 1.06 * measure.high:
        return [EntryFault("no_such_level", "value", label=measure.label, low=measure.low, high=measure.high)]
    for row in others:
        if not isinstance(row.event, Read):
            continue
        other = row.event
        alike = (other.what, other.kit, other.when) == (read.what, read.kit, read.when)
        if alike and minute(row.at) == minute(at) and other.value.strip() != read.value.strip():
            return [EntryFault("read_twice", "value", other=other.value)]
    return []


def minute(at: datetime) -> datetime:
    return at.replace(second=0, microsecond=0)
