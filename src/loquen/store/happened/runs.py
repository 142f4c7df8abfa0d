"""Runs of a room's changer, as they were fetched from its controller, each once."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import case
from sqlmodel import Session, col, func, select

from loquen.core.events.kinds.keeping import Pulsed
from loquen.core.events.ledger import NAMES
from loquen.store.documents.systems import existing
from loquen.store.happened import ledger
from loquen.store.happened.ledger import KeptEvent
from loquen.store.tables import ROOM, EventRow

MOST_SHOWN = 200
PULSED = NAMES[Pulsed]


@dataclass(frozen=True, slots=True)
class Run:
    """A run and the moment of its end."""

    at: datetime
    pulsed: Pulsed


def add(session: Session, room_id: int, runs: Iterable[Run]) -> list[Run]:
    """Keep the runs that are new; raise NoSuchSystem."""
    known: set[str] = set(session.exec(of_room(room_id, select(EventRow.once))))
    fresh = [run for run in runs if name_of(room_id, run) not in known]
    ledger.write(
        session,
        room_id,
        [ledger.new(run.pulsed, run.at, once=name_of(room_id, run)) for run in fresh],
        ROOM,
    )
    return fresh


def name_of(room_id: int, run: Run) -> str:
    """The name under which a run counts once."""
    return f"run {room_id} {run.pulsed.begun} {run.pulsed.number}"


def last_number(session: Session, room_id: int, begun: str) -> int:
    """The highest number that is kept of one start of a controller; 0 for none."""
    text = case((func.json_valid(EventRow.document) == 1, EventRow.document), else_="{}")
    highest = select(func.max(func.json_extract(text, "$.number")))
    found = session.exec(of_room(room_id, highest).where(func.json_extract(text, "$.begun") == begun)).one()
    return found if isinstance(found, int) else 0


def list_of(session: Session, room_id: int) -> list[KeptEvent]:
    """The newest runs of a room, the oldest of them first; raise NoSuchSystem."""
    existing(session, room_id, ROOM)
    rows = of_room(room_id, select(EventRow)).order_by(col(EventRow.id).desc())
    return [ledger.kept(row) for row in session.exec(rows.limit(MOST_SHOWN))][::-1]


def of_room(room_id: int, rows: Any) -> Any:
    return rows.where(EventRow.system_id == room_id, EventRow.kind == PULSED)
