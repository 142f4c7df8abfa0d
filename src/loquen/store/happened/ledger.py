"""The ledger of everything that happened, event by event, each with what it was before; a log is a view of it."""

import json
from collections.abc import Collection, Iterable
from dataclasses import dataclass
from datetime import UTC, date, datetime, time
from typing import Any

from sqlalchemy import String, type_coerce
from sqlalchemy import select as select_columns
from sqlalchemy import update as sql_update
from sqlmodel import Session, col, func, select

from loquen.core.events.kinds.lives import Moved
from loquen.core.events.ledger import Event, LifeEvent, kept_as
from loquen.core.events.ledger import name_of as kind_of
from loquen.core.model.records.log import OF_ANIMALS
from loquen.store.documents.systems import MOST_ID, StaleRevision, existing
from loquen.store.tables import SYSTEM, EventRevisionRow, EventRow, kept_moment, now

Stamp = tuple[Any, ...]
FEW = 20
"""So many systems are looked for by number; of more, all are read."""
COLUMNS = (
    "id", "system_id", "to_id", "resident_id", "kind", "at", "duty", "due", "day", "done_by", "once", "written",
    "revision", "document",
)  # fmt: skip
NEW = f"INSERT INTO event ({', '.join(COLUMNS)}) VALUES ({', '.join('?' * len(COLUMNS))})"
NEW_REVISION = "INSERT INTO event_revision (event_id, number, at, saved, document) VALUES (?, 1, ?, ?, ?)"
NOT_OF_A_LOG = ("seen_to", "skipped", "pulsed")
"""Kinds that no log shows: ticks that leave nothing behind, and runs of a changer."""


class NoSuchEntry(LookupError):
    """There is no event under this number."""


@dataclass(frozen=True, slots=True)
class New:
    """An event as text that is to be kept: its kind and moment, where and to whom it happened.

    A tick says for which duty it was, on which of its days, and the day where the person was; `once` is the name under
    which it counts once.
    """

    kind: str
    at: datetime
    document: str
    to: int | None = None
    resident: int | None = None
    duty: str = ""
    due: str = ""
    day: str = ""
    done_by: str = ""
    once: str | None = None


def new(event: Event, at: datetime, **more: Any) -> New:
    """An event that is to be kept; `more` as in New."""
    to = event.to if isinstance(event, Moved) else None
    return New(kind_of(event), at, json.dumps(kept_as(event)), to=to, **more)


def noon(event: LifeEvent) -> datetime:
    """The moment by which what happened on a day stands among others."""
    return datetime.combine(date.fromisoformat(event.day), time(12), UTC)


@dataclass(frozen=True, slots=True)
class KeptEvent:
    """An event as text, its moment, whose it is, and how often it was changed."""

    id: int
    system_id: int | None
    resident_id: int | None
    at: datetime
    revision: int
    document: str
    duty: str = ""
    """Of a tick the duty that it sees to."""


def write(session: Session, system_id: int | None, new: Iterable[New], root: str = SYSTEM) -> list[KeptEvent]:
    """New events in a system, in a room, or in none; raise NoSuchSystem."""
    if system_id is not None:
        existing(session, system_id, root)
    first = (session.exec(select(func.max(EventRow.id))).one() or 0) + 1
    rows = [
        (KeptEvent(first + n, system_id, one.resident, one.at, 1, one.document, one.duty), one)
        for n, one in enumerate(new)
    ]
    written = kept_moment(now())
    # Row by row, or with each value looked at on its way, a long table would keep the turn to write for many seconds.
    made = [
        (
            row.id, system_id, one.to, row.resident_id, one.kind, kept_moment(row.at), one.duty, one.due, one.day,
            one.done_by, one.once, written, 1, row.document,
        )
        for row, one in rows
    ]  # fmt: skip
    connection = session.connection()
    if rows:
        connection.exec_driver_sql(NEW, made)
        connection.exec_driver_sql(
            NEW_REVISION, [(row.id, kept_moment(row.at), written, row.document) for row, _ in rows]
        )
    return [row for row, _ in rows]


def stamps(session: Session, system_ids: Collection[int]) -> dict[int, Stamp]:
    """By system what differs whenever its log does, also where it was damaged; nothing for one without entries."""
    counted = select_columns(
        col(EventRow.system_id), func.count(), func.max(EventRow.id), func.sum(EventRow.revision),
        func.count(col(EventRow.deleted)), func.sum(func.length(EventRow.document)), func.max(bare(EventRow.at)),
    )  # fmt: skip
    if len(system_ids) <= FEW:
        counted = counted.where(col(EventRow.system_id).in_(system_ids))
    rows = session.execute(counted.group_by(col(EventRow.system_id)))
    return {system_id: tuple(parts) for system_id, *parts in rows}


def bare(column: Any) -> Any:
    """A column as it is kept."""
    return type_coerce(column, String)


def list_of(session: Session, system_id: int) -> list[KeptEvent]:
    """The log of a system, oldest first, with those who moved in; raise NoSuchSystem."""
    existing(session, system_id)
    here = col(EventRow.system_id) == system_id
    moved_in = col(EventRow.to_id) == system_id
    rows = in_logs().where(here | moved_in)
    return [kept(row) for row in session.exec(rows.order_by(col(EventRow.at), col(EventRow.id)))]


def list_latest(
    session: Session,
    count: int,
    system_ids: Collection[int] = (),
    since: datetime | None = None,
    until: datetime | None = None,
) -> list[KeptEvent]:
    """The newest of all logs or of some, between two moments where they are given, the newest first."""
    rows = in_logs().where(col(EventRow.system_id).is_not(None))
    if system_ids:
        rows = rows.where(col(EventRow.system_id).in_(system_ids))
    if since is not None:
        rows = rows.where(col(EventRow.at) >= since)
    if until is not None:
        rows = rows.where(col(EventRow.at) < until)
    found = session.exec(rows.order_by(col(EventRow.at).desc(), col(EventRow.id).desc()).limit(count))
    return [kept(row) for row in found]


def of_nobody(session: Session, system_ids: Iterable[int]) -> list[KeptEvent]:
    """What some logs say of animals without saying whose: the register knows nothing of it."""
    rows = in_logs().where(
        col(EventRow.system_id).in_(list(system_ids)),
        col(EventRow.resident_id).is_(None),
        col(EventRow.kind).in_(OF_ANIMALS),
    )
    return [kept(row) for row in session.exec(rows.order_by(col(EventRow.at)))]


def in_logs() -> Any:
    return select(EventRow).where(col(EventRow.deleted).is_(None), col(EventRow.kind).not_in(NOT_OF_A_LOG))


def read(session: Session, entry_id: int) -> KeptEvent:
    """One event; raise NoSuchEntry."""
    return kept(present(session, entry_id))


def update(session: Session, entry_id: int, base: int, new: New) -> KeptEvent:
    """Keep what an event is now, in one statement; raise NoSuchEntry, or StaleRevision when it was changed since."""
    swap = sql_update(EventRow).where(col(EventRow.id) == present(session, entry_id).id)
    swap = swap.where(col(EventRow.revision) == base)
    now_is = {
        "at": new.at,
        "kind": new.kind,
        "document": new.document,
        "to_id": new.to,
        "resident_id": new.resident,
    }
    changed = session.execute(swap.values(revision=base + 1, **now_is)).rowcount  # type: ignore[attr-defined]
    session.expire_all()
    row = present(session, entry_id)
    if changed != 1:
        raise StaleRevision(base, row.revision)
    session.add(noted(row))
    return kept(row)


def delete(session: Session, entry_ids: Iterable[int]) -> None:
    """Take events out; `restore` brings them back. Raises: NoSuchEntry."""
    for entry_id in entry_ids:
        present(session, entry_id).deleted = now()


def restore(session: Session, entry_ids: Iterable[int]) -> None:
    """Bring back what was taken out; a duty that was ticked anew since keeps the new tick. Raises: NoSuchEntry."""
    for entry_id in entry_ids:
        row = session.get(EventRow, entry_id) if 0 < entry_id <= MOST_ID else None
        if row is None:
            raise NoSuchEntry(entry_id)
        if row.duty and row.deleted is not None and ticked(session, row.system_id, row.duty, row.due) is not None:
            row.duty, row.due, row.day = "", "", ""
        row.deleted = None
        session.flush()


def ticked(session: Session, system_id: int | None, duty: str, due: str) -> EventRow | None:
    """The tick of a duty on one of its days."""
    rows = select(EventRow).where(
        EventRow.system_id == system_id, EventRow.duty == duty, EventRow.due == due, col(EventRow.deleted).is_(None)
    )
    return session.exec(rows).first()


def history(session: Session, entry_id: int) -> list[EventRevisionRow]:
    """What an event was, the newest first; raise NoSuchEntry."""
    present(session, entry_id)
    rows = select(EventRevisionRow).where(EventRevisionRow.event_id == entry_id)
    return list(session.exec(rows.order_by(col(EventRevisionRow.number).desc())))


def present(session: Session, entry_id: int) -> EventRow:
    row = session.get(EventRow, entry_id) if 0 < entry_id <= MOST_ID else None
    if row is None or row.deleted is not None:
        raise NoSuchEntry(entry_id)
    return row


def noted(row: EventRow) -> EventRevisionRow:
    """The revision that an event is at, to be kept beside it."""
    assert row.id is not None
    return EventRevisionRow(event_id=row.id, number=row.revision, at=row.at, document=row.document)


def kept(row: EventRow) -> KeptEvent:
    assert row.id is not None
    return KeptEvent(row.id, row.system_id, row.resident_id, row.at, row.revision, row.document, row.duty)
