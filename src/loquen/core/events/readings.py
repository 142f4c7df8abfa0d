"""What readings say: where the level lay, by the kit that it was read with."""

import math
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime

from loquen.core.data.measures import measures
from loquen.core.events.kinds.water import Changed, Read
from loquen.core.events.ledger import Logged
from loquen.core.library.rows.kits import Kit
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import kinds
from loquen.core.model.records.readings import Interval, interval


@dataclass(frozen=True, slots=True)
class ReadAt:
    """A reading and its moment."""

    at: datetime
    read: Read


def kit_of(read: Read, library: Library) -> Kit | None:
    """The kit that a reading was made with, None where it is not known (any more)."""
    return library.kits.get(read.kit)


def read_interval(read: Read, library: Library) -> Interval:
    """Where the level lay, in the unit that the core carries; raise BadReading for a value that is no reading."""
    kit = kit_of(read, library)
    if kit is None:
        factor = measures()[read.what].ion
        return interval(read.value).scaled(1 / factor)
    return interval(read.value, kit.chart).scaled(1 / kit.factor)


def unit_read_in(kind: str, factor: float) -> str:
    """The unit in which a kit shows a level, by what it shows of one of the core's unit."""
    known = kinds()[kind].units
    return next((unit.label for unit in known if math.isclose(unit.factor, factor, rel_tol=1e-6)), known[0].label)


def readings(log: Iterable[Logged], what: str) -> list[ReadAt]:
    """The readings of one thing, oldest first."""
    found = [ReadAt(row.at, row.event) for row in log if isinstance(row.event, Read) and row.event.what == what]
    return sorted(found, key=lambda row: row.at)


LEAST_TOLD_MG_L = 0.05
"""Ammonia and nitrite, mg/L N, that no photometer of a keeper tells from nothing; keepers' practice, unverified."""


def is_zero(read: Read, library: Library) -> bool:
    """Whether a reading of ammonia or nitrite can not be told from nothing on its kit: the first step of a chart, or less
    than a photometer tells. The second step of a chart is something, however little."""
    found, kit = read_interval(read, library), kit_of(read, library)
    if found.high <= LEAST_TOLD_MG_L and not (kit and kit.steps):
        return True
    first_step = (
        interval(kit.steps[0], kit.chart).scaled(1 / kit.factor).high if kit and kit.steps else LEAST_TOLD_MG_L
    )
    return found.low <= 0 and found.high <= first_step * 1.001


def change_share(changed: Changed, volume_l: float) -> float:
    """The part of the water that a change swapped."""
    if changed.share is not None:
        return changed.share
    return min(1.0, (changed.litres or 0.0) / volume_l)


def days_since(start: datetime, moment: datetime) -> float:
    """Days from a start to a moment."""
    return (moment - start).total_seconds() / 86_400
