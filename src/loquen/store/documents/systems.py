"""Systems and rooms and their documents, revision by revision. Undo and redo move along what was saved."""

import json
from collections.abc import Iterable
from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime
from functools import cached_property
from hashlib import blake2b

from sqlalchemy import desc, func
from sqlalchemy import update as sql_update
from sqlmodel import Session, col, select

from loquen.store.documents import thinning
from loquen.store.tables import SYSTEM, RevisionRow, SystemRow, now

MOST_ID = 2**63 - 1
"""The largest number that a row can have."""


class NoSuchSystem(LookupError):
    """There is no system (or room) under this number, or it was deleted."""

    def __init__(self, system_id: int, root: str = SYSTEM) -> None:
        super().__init__(system_id)
        self.system_id = system_id
        self.root = root


class NoSuchRevision(LookupError):
    """A system has no revision of this number (any more)."""


class StaleRevision(Exception):
    """The document was changed elsewhere since the caller read it."""

    def __init__(self, base: int, current: int) -> None:
        super().__init__(f"based on {base}, now at {current}")
        self.base = base
        self.current = current


class NothingToUndo(Exception):
    """There is no earlier (or later) revision to go to."""


@dataclass(frozen=True)
class Current:
    """A system and its current plan, as text; None where that revision is missing."""

    id: int
    created: datetime
    revision: int
    document: str | None

    @cached_property
    def mark(self) -> tuple[int, datetime, int, bytes]:
        """What tells a system as it stands from every other, and from itself at another time."""
        text = "" if self.document is None else f"={self.document}"
        return self.id, self.created, self.revision, blake2b(text.encode(), digest_size=12).digest()


@dataclass(frozen=True)
class Saved(Current):
    """A system with its current plan, and whether it can be undone or redone."""

    saved: datetime
    can_undo: bool
    can_redo: bool


@dataclass(frozen=True, slots=True)
class Deleted:
    """A system that was put away, and when."""

    id: int
    document: str | None
    deleted: datetime


def create(session: Session, document: str, root: str = SYSTEM) -> Saved:
    """A new system (or room) with a first revision."""
    system = SystemRow(current=1, root=root)
    session.add(system)
    session.flush()
    session.add(RevisionRow(system_id=key(system), number=1, plan=document))
    session.flush()
    return read(session, key(system), root)


def read(session: Session, system_id: int, root: str = SYSTEM) -> Saved:
    """One system (or room); raise NoSuchSystem."""
    system = existing(session, system_id, root)
    revision = revision_of(session, system_id, system.current)
    return Saved(
        id=system_id,
        created=system.created,
        revision=system.current,
        document=revision.plan if revision else None,
        saved=revision.saved if revision else system.created,
        can_undo=revision is not None and revision.previous is not None,
        can_redo=next_of(session, system_id, system.current) is not None,
    )


def list_all(session: Session, root: str = SYSTEM) -> list[Current]:
    """Every system (or room) that is not deleted, in the order in which they were made."""
    return [
        Current(key(system), system.created, system.current, revision.plan if revision else None)
        for system, revision in with_plans(session, True, root)
    ]


def list_some(session: Session, system_ids: Iterable[int]) -> list[Current]:
    """Those of some systems that are not deleted."""
    found = []
    for system_id in system_ids:
        with suppress(NoSuchSystem):
            found.append(read(session, system_id))
    return list(found)


def list_deleted(session: Session, root: str = SYSTEM) -> list[Deleted]:
    """Every system (or room) that was put away, the last one first."""
    rows = [
        Deleted(key(system), revision.plan if revision else None, system.deleted)
        for system, revision in with_plans(session, False, root)
        if system.deleted is not None
    ]
    return sorted(rows, key=lambda row: row.deleted, reverse=True)


def history(session: Session, system_id: int) -> list[RevisionRow]:
    """Every kept revision of a system, the newest first; raise NoSuchSystem."""
    existing(session, system_id)
    rows = select(RevisionRow).where(RevisionRow.system_id == system_id).order_by(desc(col(RevisionRow.number)))
    return list(session.exec(rows))


def read_revision(session: Session, system_id: int, number: int) -> str:
    """The plan of one revision, as text; raise NoSuchSystem or NoSuchRevision."""
    existing(session, system_id)
    revision = revision_of(session, system_id, number) if 0 < number <= MOST_ID else None
    if revision is None:
        raise NoSuchRevision(number)
    return revision.plan


def update(session: Session, system_id: int, base: int, document: str, root: str = SYSTEM) -> Saved:
    """Save a plan as the next revision after `base`; raise StaleRevision when `base` is no longer current."""
    current_at(session, system_id, base, root)
    present = revision_of(session, system_id, base)
    if present is not None and equal(present.plan, document):
        return read(session, system_id, root)
    newest = session.exec(select(func.max(RevisionRow.number)).where(RevisionRow.system_id == system_id)).one()
    number = max(int(newest or 0), base) + 1
    move(session, system_id, base, number, root)
    session.add(RevisionRow(system_id=system_id, number=number, previous=base, plan=document))
    session.flush()
    thinning.thin(session, system_id, number)
    return read(session, system_id, root)


def put_back(session: Session, system_id: int, base: int, number: int) -> Saved:
    """Save an earlier revision's plan anew, on top of the current one; raise NoSuchRevision or StaleRevision."""
    return update(session, system_id, base, read_revision(session, system_id, number))


def undo(session: Session, system_id: int, base: int, root: str = SYSTEM) -> Saved:
    """Go back to the revision that the current one was made from."""
    current_at(session, system_id, base, root)
    revision = revision_of(session, system_id, base)
    return stepped(session, system_id, base, revision.previous if revision else None, root)


def redo(session: Session, system_id: int, base: int, root: str = SYSTEM) -> Saved:
    """Go forward to the newest revision that was made from the current one."""
    current_at(session, system_id, base, root)
    following = next_of(session, system_id, base)
    return stepped(session, system_id, base, following.number if following else None, root)


def delete(session: Session, system_id: int, root: str = SYSTEM) -> None:
    """Put a system (or room) away; `restore` brings it back."""
    existing(session, system_id, root).deleted = now()


def restore(session: Session, system_id: int, root: str = SYSTEM) -> Saved:
    """Bring a deleted system (or room) back."""
    system = session.get(SystemRow, system_id) if 0 < system_id <= MOST_ID else None
    if system is None or system.root != root:
        raise NoSuchSystem(system_id, root)
    system.deleted = None
    session.flush()
    return read(session, system_id, root)


def key(system: SystemRow) -> int:
    """The number a stored system has."""
    assert system.id is not None
    return system.id


def equal(one: str, other: str) -> bool:
    """Whether two documents say the same, however they are written."""
    try:
        return one == other or bool(json.loads(one) == json.loads(other))
    except ValueError:
        return False


def with_plans(session: Session, kept: bool, root: str) -> list[tuple[SystemRow, RevisionRow | None]]:
    """Every system (or room) that is kept (or put away) with its current revision, None where that is missing."""
    away = col(SystemRow.deleted)
    current = (RevisionRow.system_id == SystemRow.id) & (RevisionRow.number == SystemRow.current)
    rows = (
        select(SystemRow, RevisionRow)
        .outerjoin(RevisionRow, current)  # type: ignore[arg-type]
        .where(away.is_(None) if kept else away.is_not(None), col(SystemRow.root) == root)
        .order_by(col(SystemRow.id))
    )
    return [(system, revision) for system, revision in session.exec(rows)]


def existing(session: Session, system_id: int, root: str = SYSTEM) -> SystemRow:
    system = session.get(SystemRow, system_id) if 0 < system_id <= MOST_ID else None
    if system is None or system.deleted is not None or system.root != root:
        raise NoSuchSystem(system_id, root)
    return system


def current_at(session: Session, system_id: int, base: int, root: str = SYSTEM) -> None:
    current = existing(session, system_id, root).current
    if current != base:
        raise StaleRevision(base, current)


def revision_of(session: Session, system_id: int, number: int) -> RevisionRow | None:
    return session.exec(
        select(RevisionRow).where(RevisionRow.system_id == system_id, RevisionRow.number == number)
    ).first()


def next_of(session: Session, system_id: int, number: int) -> RevisionRow | None:
    made_from = select(RevisionRow).where(RevisionRow.system_id == system_id, RevisionRow.previous == number)
    return session.exec(made_from.order_by(desc(col(RevisionRow.number)))).first()


def stepped(session: Session, system_id: int, base: int, number: int | None, root: str) -> Saved:
    if number is None:
        raise NothingToUndo
    move(session, system_id, base, number, root)
    return read(session, system_id, root)


def move(session: Session, system_id: int, base: int, number: int, root: str) -> None:
    """Compare and swap, in one statement: current becomes `number` only while it is `base`."""
    swap = sql_update(SystemRow).where(col(SystemRow.id) == system_id, col(SystemRow.current) == base)
    if session.execute(swap.values(current=number)).rowcount != 1:  # type: ignore[attr-defined]
        session.expire_all()
        raise StaleRevision(base, existing(session, system_id, root).current)
    session.expire_all()
