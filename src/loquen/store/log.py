"""The log of every system, entry by entry, each with what it was before."""

from collections.abc import Collection, Iterable
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import String, type_coerce
from sqlalchemy import select as select_columns
from sqlalchemy import update as sql_update
from sqlmodel import Session, col, func, select

from loquen.store.systems import MOST_ID, StaleRevision, existing
from loquen.store.tables import EntryRevisionRow, EntryRow, kept_moment, now

Stamp = tuple[Any, ...]
FEW = 20
"""So many systems are looked for by number; of more, all are read."""
NEW_ENTRY = "INSERT INTO entry (id, system_id, at, revision, document) VALUES (?, ?, ?, 1, ?)"
NEW_REVISION = "INSERT INTO entry_revision (entry_id, number, at, saved, document) VALUES (?, 1, ?, ?, ?)"


class NoSuchEntry(LookupError):
    """There is no entry under this number."""


@dataclass(frozen=True, slots=True)
class KeptEntry:
    """An entry as text, its moment, and how often it was changed."""

    id: int
    system_id: int
    at: datetime
    revision: int
    document: str


def create(session: Session, system_id: int, lines: Iterable[tuple[datetime, str]]) -> list[KeptEntry]:
    """New entries of a system; raise NoSuchSystem."""
    existing(session, system_id)
    first = (session.exec(select(func.max(EntryRow.id))).one() or 0) + 1
    rows = [KeptEntry(first + n, system_id, at, 1, document) for n, (at, document) in enumerate(lines)]
    # Row by row, or with each value looked at on its way, a long table would keep the turn to write for many seconds.
    made = [(row.id, system_id, kept_moment(row.at), row.document) for row in rows]
    noted = [(row_id, at, at_now, document) for at_now in [kept_moment(now())] for row_id, _, at, document in made]
    connection = session.connection()
    if rows:
        connection.exec_driver_sql(NEW_ENTRY, made)
        connection.exec_driver_sql(NEW_REVISION, noted)
    return rows


def stamps(session: Session, system_ids: Collection[int]) -> dict[int, Stamp]:
    """By system what differs whenever its log does, also where it was damaged; nothing for one without entries."""
    counted = select_columns(
        col(EntryRow.system_id), func.count(), func.max(EntryRow.id), func.sum(EntryRow.revision),
        func.count(col(EntryRow.deleted)), func.sum(func.length(EntryRow.document)), func.max(bare(EntryRow.at)),
    )  # fmt: skip
    if len(system_ids) <= FEW:
        counted = counted.where(col(EntryRow.system_id).in_(system_ids))
    rows = session.execute(counted.group_by(col(EntryRow.system_id)))
    return {system_id: tuple(parts) for system_id, *parts in rows}


def bare(column: Any) -> Any:
    """A column as it is kept."""
    return type_coerce(column, String)


def list_of(session: Session, system_id: int) -> list[KeptEntry]:
    """The entries of a system, oldest first; raise NoSuchSystem."""
    existing(session, system_id)
    rows = select(EntryRow).where(EntryRow.system_id == system_id, col(EntryRow.deleted).is_(None))
    return [kept(row) for row in session.exec(rows.order_by(col(EntryRow.at), col(EntryRow.id)))]


def list_latest(session: Session, count: int) -> list[KeptEntry]:
    """The newest entries of all systems that are not put away, the newest first."""
    rows = select(EntryRow).where(col(EntryRow.deleted).is_(None))
    found = session.exec(rows.order_by(col(EntryRow.at).desc(), col(EntryRow.id).desc()).limit(count))
    return [kept(row) for row in found]


def read(session: Session, entry_id: int) -> KeptEntry:
    """One entry; raise NoSuchEntry."""
    return kept(present(session, entry_id))


def update(session: Session, entry_id: int, base: int, at: datetime, document: str) -> KeptEntry:
    """Keep what an entry is now, in one statement; raise NoSuchEntry, or StaleRevision when it was changed since."""
    swap = sql_update(EntryRow).where(col(EntryRow.id) == present(session, entry_id).id)
    swap = swap.where(col(EntryRow.revision) == base)
    changed = session.execute(swap.values(at=at, document=document, revision=base + 1)).rowcount  # type: ignore[attr-defined]
    session.expire_all()
    row = present(session, entry_id)
    if changed != 1:
        raise StaleRevision(base, row.revision)
    session.add(noted(row))
    return kept(row)


def delete(session: Session, entry_ids: Iterable[int]) -> None:
    """Take entries out; `restore` brings them back. Raises: NoSuchEntry."""
    for entry_id in entry_ids:
        present(session, entry_id).deleted = now()


def delete_present(session: Session, entry_id: int) -> None:
    """Take an entry out, if it still is there."""
    row = session.get(EntryRow, entry_id)
    if row is not None and row.deleted is None:
        row.deleted = now()


def restore(session: Session, entry_ids: Iterable[int]) -> None:
    """Bring deleted entries back; raise NoSuchEntry."""
    for entry_id in entry_ids:
        row = session.get(EntryRow, entry_id) if 0 < entry_id <= MOST_ID else None
        if row is None:
            raise NoSuchEntry(entry_id)
        row.deleted = None


def history(session: Session, entry_id: int) -> list[EntryRevisionRow]:
    """What an entry was, the newest first; raise NoSuchEntry."""
    present(session, entry_id)
    rows = select(EntryRevisionRow).where(EntryRevisionRow.entry_id == entry_id)
    return list(session.exec(rows.order_by(col(EntryRevisionRow.number).desc())))


def present(session: Session, entry_id: int) -> EntryRow:
    row = session.get(EntryRow, entry_id) if 0 < entry_id <= MOST_ID else None
    if row is None or row.deleted is not None:
        raise NoSuchEntry(entry_id)
    return row


def noted(row: EntryRow) -> EntryRevisionRow:
    """The revision that an entry is at, to be kept beside it."""
    assert row.id is not None
    return EntryRevisionRow(entry_id=row.id, number=row.revision, at=row.at, document=row.document)


def kept(row: EntryRow) -> KeptEntry:
    assert row.id is not None
    return KeptEntry(row.id, row.system_id, row.at, row.revision, row.document)
