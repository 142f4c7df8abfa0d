"""The logs of a whole room: the last reading of everything in every tank, and how one thing went in several of them."""

import math
from collections.abc import Iterable, Mapping, Sequence
from datetime import datetime
from typing import Literal

from pydantic import BaseModel
from sqlmodel import Session

from loquen.checked.documents import A_PLAN
from loquen.core.data.measures import measures
from loquen.core.data.tables import constants
from loquen.core.errors import BadReading
from loquen.core.events.kinds.water import Read
from loquen.core.events.readings import ReadAt, read_interval
from loquen.core.library.rows.animals import Species
from loquen.core.model.records.readings import Interval
from loquen.core.model.roots.documents import Unreadable, name_of
from loquen.house.house import Visit
from loquen.house.kept import at_most
from loquen.house.log.deeds import LogAsItStands
from loquen.house.log.reading import readable
from loquen.store.documents.systems import Current
from loquen.store.happened import ledger

MOST_LOGS, MOST_POINTS = 2000, 2000
Beyond = Literal["", "over", "under"]


class LastReading(BaseModel):
    """The newest reading of something in a system, in the core's unit, and whether it lies outside what is wanted there."""

    measure: str
    at: datetime
    value: str
    kit: str
    low: float
    high: float | None
    beyond: Beyond


class LastOf(BaseModel):
    """What was read last in a system."""

    system_id: int
    name: str
    readings: list[LastReading]


class LastReadings(BaseModel):
    """What was read last in every system, and of what anything was read anywhere."""

    measures: list[str]
    rows: list[LastOf]


class Point(BaseModel):
    """A reading on a chart, without an upper end at the top of its kit's."""

    at: datetime
    low: float
    high: float | None


class Series(BaseModel):
    """The readings of one thing in a system, oldest first."""

    system_id: int
    name: str
    points: list[Point]


class AllSeries(BaseModel):
    """The readings of one thing in several systems."""

    rows: list[Series]


@at_most(MOST_LOGS)
def readings_in(visit: Visit, log: LogAsItStands) -> tuple[tuple[ReadAt, Interval], ...]:
    """All that was read in a system, oldest first; what is no reading is passed over."""
    found = []
    for row, known in readable(ledger.list_of(log.session, log.system_id)):
        if isinstance(known.event, Read) and row.system_id == log.system_id:
            try:
                found.append((ReadAt(row.at, known.event), read_interval(known.event, visit.library)))
            except (BadReading, KeyError):
                continue
    return tuple(found)


def read_in(
    visit: Visit, session: Session, systems: Sequence[Current]
) -> Mapping[int, tuple[tuple[ReadAt, Interval], ...]]:
    """By system; only the logs that changed since are read again."""
    ids = [system.id for system in systems]
    stamps = ledger.stamps(session, ids)
    return {
        number: visit.kept(readings_in, LogAsItStands(session, number, stamps.get(number, ()))) for number in ids
    }


def last_readings(visit: Visit, session: Session, systems: Sequence[Current]) -> LastReadings:
    """The newest reading of everything in every system, in their order."""
    rows: list[LastOf] = []
    anywhere: set[str] = set()
    for system, known in zip(systems, read_in(visit, session, systems).values(), strict=True):
        newest = {one.read.what: (one, interval) for one, interval in known}
        anywhere |= newest.keys()
        wanted = visit.kept(wanted_in, system)
        rows.append(
            LastOf(
                system_id=system.id,
                name=name_of(system.document, system.id),
                readings=[last(one, interval, wanted.get(what)) for what, (one, interval) in newest.items()],
            )
        )
    return LastReadings(measures=[key for key in measures() if key in anywhere], rows=rows)


def last(one: ReadAt, interval: Interval, wanted: tuple[float, float] | None) -> LastReading:
    return LastReading(
        measure=one.read.what,
        at=one.at,
        value=one.read.value,
        kit=one.read.kit,
        low=interval.low,
        high=end(interval),
        beyond=beyond(interval, wanted),
    )


def end(interval: Interval) -> float | None:
    return None if math.isinf(interval.high) else interval.high


def beyond(interval: Interval, wanted: tuple[float, float] | None) -> Beyond:
    """Whether all that a reading may mean lies outside what is wanted."""
    if wanted is None:
        return ""
    if interval.low > wanted[1]:
        return "over"
    return "under" if interval.high < wanted[0] else ""


@at_most(MOST_LOGS)
def wanted_in(visit: Visit, system: Current) -> Mapping[str, tuple[float, float]]:
    """Between which levels things are wanted in a system, by what it is kept for; nothing where its plan can not be read."""
    try:
        plan = A_PLAN.read(system.document)
    except Unreadable:
        return {}
    values = constants()
    found = {
        "nitrate": (0.0, plan.changes.target_nitrate_mg_l),
        "ammonia": (0.0, values["ammonia_limit_mg_l"].value),
        "free_ammonia": (0.0, values["unionised_limit_mg_l"].value),
        "nitrite": (0.0, values["nitrite_limit_mg_l"].value),
    }
    return {
        **found,
        **borne(
            [visit.library.species[row.species] for row in plan.animals if row.species in visit.library.species]
        ),
    }


def borne(kinds: Iterable[Species]) -> dict[str, tuple[float, float]]:
    """What all animals of a system bear."""
    kinds = list(kinds)
    if not kinds:
        return {}
    return {
        "temperature": (max(kind.temp_low_c for kind in kinds), min(kind.temp_high_c for kind in kinds)),
        "ph": (max(kind.ph_low for kind in kinds), min(kind.ph_high for kind in kinds)),
        "gh": (max(kind.gh_low_dgh for kind in kinds), min(kind.gh_high_dgh for kind in kinds)),
    }


def series(visit: Visit, session: Session, systems: Sequence[Current], what: str, since: datetime) -> AllSeries:
    """How one thing went in some systems since a moment."""
    found = [
        Series(
            system_id=system.id,
            name=name_of(system.document, system.id),
            points=[
                Point(at=one.at, low=interval.low, high=end(interval))
                for one, interval in known
                if one.read.what == what and one.at >= since
            ][-MOST_POINTS:],
        )
        for system, known in zip(systems, read_in(visit, session, systems).values(), strict=True)
    ]
    return AllSeries(rows=found)
