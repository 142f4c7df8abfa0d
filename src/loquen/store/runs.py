"""Runs of a room's changer, as they were fetched from its controller, each once."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime

from sqlmodel import Session, col, func, select

from loquen.store.systems import existing
from loquen.store.tables import ROOM, RunRow

MOST_SHOWN = 200


@dataclass(frozen=True, slots=True)
class KeptRun:
    """One run: which start of the controller it belongs to, its number there, its end by that clock, what was metered."""

    begun: str
    number: int
    zone: int
    at: datetime
    clock_min: float
    minutes: float
    planned_l: float
    metered_l: float
    mixed_c: float
    ended_by: str


def add(session: Session, room_id: int, runs: Iterable[KeptRun]) -> list[KeptRun]:
    """Keep the runs that are new; raise NoSuchSystem."""
    existing(session, room_id, ROOM)
    known = set(session.exec(select(RunRow.begun, RunRow.number).where(RunRow.room_id == room_id)))
    fresh = [run for run in runs if (run.begun, run.number) not in known]
    session.add_all(
        RunRow(room_id=room_id, **{name: getattr(run, name) for name in KeptRun.__slots__}) for run in fresh
    )
    session.flush()
    return fresh


def last_number(session: Session, room_id: int, begun: str) -> int:
    """The highest number that is kept of one start of a controller; 0 for none."""
    highest = select(func.max(RunRow.number)).where(RunRow.room_id == room_id, RunRow.begun == begun)
    return session.exec(highest).one() or 0


def list_of(session: Session, room_id: int) -> list[KeptRun]:
    """The newest runs of a room, the oldest of them first; raise NoSuchSystem."""
    existing(session, room_id, ROOM)
    rows = select(RunRow).where(RunRow.room_id == room_id).order_by(col(RunRow.id).desc())
    found = [
        KeptRun(**{name: getattr(row, name) for name in KeptRun.__slots__})
        for row in session.exec(rows.limit(MOST_SHOWN))
    ]
    return found[::-1]
