"""The log of a system, as a keeper writes it: what was read, what was done, what happened."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Annotated, Literal, get_args

from loquen.core.data.kits import Kit, kits, measures
from loquen.core.errors import BadReading, CoreError
from loquen.core.model.quantity import Choice, Quantity
from loquen.core.model.readings import Interval, interval

Kind = Literal[
    "reading",
    "change",
    "dose",
    "feed",
    "filter",
    "added",
    "taken",
    "light",
    "arrival",
    "death",
    "source",
    "experiment",
    "note",
]
KINDS: tuple[Kind, ...] = get_args(Kind)
KIND_WORDS: dict[str, str] = {
    "reading": "reading",
    "change": "water changed",
    "dose": "dosed",
    "feed": "fed, or fasted",
    "filter": "filter cleaned",
    "added": "put in",
    "taken": "taken out",
    "light": "light changed",
    "arrival": "animals arrived",
    "death": "an animal died",
    "source": "other source water",
    "experiment": "experiment",
    "note": "note",
}
DOSES: dict[str, str] = {
    "ammonia": "ammonia",
    "bacteria": "bottled bacteria",
    "conditioner": "conditioner",
    "detoxifier": "detoxifier",
    "salt": "salt",
    "buffer": "sodium bicarbonate",
    "medicine": "medicine",
    "other": "something else",
}
CLEANED: dict[str, str] = {"tank": "in tank water", "tap": "under the tap", "replaced": "replaced"}
SOON = timedelta(minutes=10)
"""Clocks differ by so much."""


@dataclass(frozen=True, slots=True)
class Entry:
    """One line of the log. A reading has `what` (a measure), `value` as it was read and `kit`; the rest by its kind."""

    kind: Annotated[Kind, Choice("What happened", KIND_WORDS)]
    what: Annotated[str, Choice("Of what", table="text")] = ""
    value: Annotated[str, Choice("Read as", table="text")] = ""
    kit: Annotated[str, Choice("Read with", table="text")] = ""
    when: Annotated[
        Literal["", "before", "after"],
        Choice("When", {"": "", "before": "before the change", "after": "after the change"}),
    ] = ""
    litres: Annotated[float | None, Quantity("Litres", "volume", 0, 200_000)] = None
    share: Annotated[float | None, Quantity("Share", "share", 0, 1)] = None
    amount: Annotated[float | None, Quantity("Amount", "ratio", 0, 1_000_000)] = None
    until: Annotated[str, Choice("Until", table="date")] = ""
    note: Annotated[str, Choice("Note", table="text")] = ""


@dataclass(frozen=True, slots=True)
class Logged:
    """An entry and its moment."""

    at: datetime
    entry: Entry


class EntryFault(CoreError, ValueError):
    """What is wrong with an entry: a code, the field it is about, and values for its sentence."""

    def __init__(self, code: str, field: str, **values: object) -> None:
        super().__init__(code, **values)
        self.field = field


def kit_of(entry: Entry) -> Kit | None:
    """The kit that a reading was made with, None where it is not known (any more)."""
    return kits().get(entry.kit)


def read_interval(entry: Entry) -> Interval:
    """Where the level lay, in the unit that the core carries; raise BadReading for a value that is no reading."""
    kit = kit_of(entry)
    if kit is None:
        factor = measures()[entry.what].ion
        return interval(entry.value).scaled(1 / factor)
    return interval(entry.value, kit.chart).scaled(1 / kit.factor)


def faults(
    logged: Logged,
    *,
    now: datetime,
    began: datetime | None = None,
    volume_l: float | None = None,
    others: Iterable[Logged] = (),
) -> list[EntryFault]:
    """What is wrong with an entry beside those that are there; empty when it can be kept."""
    found: list[EntryFault] = []
    entry = logged.entry
    if logged.at > now + SOON:
        found.append(EntryFault("in_the_future", "at"))
    if began is not None and logged.at < began:
        found.append(EntryFault("before_it_began", "at", began=began.date().isoformat()))
    if entry.kind == "reading":
        found += reading_faults(logged, others)
    if entry.kind == "change":
        if entry.litres is None and entry.share is None:
            found.append(EntryFault("how_much", "litres"))
        if volume_l is not None and entry.litres is not None and entry.litres > 1.02 * volume_l:
            found.append(EntryFault("more_than_the_tank", "litres", most=volume_l))
    if entry.kind == "dose" and entry.what not in DOSES:
        found.append(EntryFault("dose_of_what", "what"))
    return found


def reading_faults(logged: Logged, others: Iterable[Logged]) -> list[EntryFault]:
    """What is wrong with a reading."""
    entry = logged.entry
    if entry.what not in measures():
        return [EntryFault("read_of_what", "what")]
    measure, kit = measures()[entry.what], kit_of(entry)
    if kit is not None and kit.measure != entry.what:
        return [EntryFault("kit_reads_another", "kit", kit=kit.label, measure=measures()[kit.measure].label)]
    if entry.value.strip().startswith(("-", "−")):
        return [EntryFault("negative", "value", value=entry.value.strip())]
    try:
        read = read_interval(entry)
    except BadReading as case:
        return [EntryFault(case.code, "value", value=entry.value)]
    highest = read.high if math.isfinite(read.high) else read.low
    if read.low < measure.low or highest > 1.06 * measure.high:
        return [EntryFault("no_such_level", "value", label=measure.label, low=measure.low, high=measure.high)]
    for other in others:
        same = other.entry.kind == "reading" and other.entry.what == entry.what and other.entry.kit == entry.kit
        minute = other.at.replace(second=0, microsecond=0) == logged.at.replace(second=0, microsecond=0)
        if same and minute and other.entry.when == entry.when and other.entry.value.strip() != entry.value.strip():
            return [EntryFault("read_twice", "value", other=other.entry.value)]
    return []


def change_share(entry: Entry, volume_l: float) -> float:
    """The part of the water that a change swapped."""
    if entry.share is not None:
        return entry.share
    return min(1.0, (entry.litres or 0.0) / volume_l)


def days_since(start: datetime, moment: datetime) -> float:
    """Days from a start to a moment."""
    return (moment - start).total_seconds() / 86_400


def readings(log: Sequence[Logged], what: str) -> list[Logged]:
    """The readings of one thing, oldest first."""
    return sorted(
        (row for row in log if row.entry.kind == "reading" and row.entry.what == what), key=lambda r: r.at
    )
