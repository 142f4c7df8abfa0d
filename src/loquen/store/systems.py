"""Systems and their plans, revision by revision. Undo and redo move along what was saved."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import desc, func
from sqlmodel import Session, col, select

from loquen.store.tables import RevisionRow, SystemRow, now

PlanDocument = dict[str, Any]


class NoSuchSystem(LookupError):
    """There is no system under this number, or it was deleted."""

    def __init__(self, system_id: int) -> None:
        super().__init__(system_id)
        self.system_id = system_id


class StaleRevision(Exception):
    """The plan was changed elsewhere since the caller read it."""

    def __init__(self, base: int, current: int) -> None:
        super().__init__(f"based on {base}, now at {current}")
        self.base = base
        self.current = current


class NothingToUndo(Exception):
    """There is no earlier (or later) revision to go to."""


@dataclass(frozen=True, slots=True)
class Saved:
    """A system with its current plan."""

    id: int
    revision: int
    saved: datetime
    plan: PlanDocument
    can_undo: bool
    can_redo: bool


def create(session: Session, plan: PlanDocument) -> Saved:
    """A new system with a first revision."""
    system = SystemRow(current=1)
    session.add(system)
    session.flush()
    session.add(RevisionRow(system_id=key(system), number=1, plan=plan))
    session.flush()
    return read(session, key(system))


def read(session: Session, system_id: int) -> Saved:
    """One system; raise NoSuchSystem."""
    system = existing(session, system_id)
    revision = revision_of(session, system_id, system.current)
    return Saved(
        id=system_id,
        revision=revision.number,
        saved=revision.saved,
        plan=revision.plan,
        can_undo=revision.previous is not None,
        can_redo=next_of(session, system_id, system.current) is not None,
    )


def list_all(session: Session) -> list[Saved]:
    """Every system that is not deleted, in the order in which they were made."""
    kept = session.exec(select(SystemRow).where(col(SystemRow.deleted).is_(None)).order_by(col(SystemRow.id)))
    return [read(session, key(system)) for system in kept]


def update(session: Session, system_id: int, base: int, plan: PlanDocument) -> Saved:
    """Save a plan as the next revision after `base`; raise StaleRevision when `base` is no longer current."""
    system = current_at(session, system_id, base)
    if revision_of(session, system_id, base).plan == plan:
        return read(session, system_id)
    newest = session.exec(select(func.max(RevisionRow.number)).where(RevisionRow.system_id == system_id)).one()
    number = int(newest or 0) + 1
    session.add(RevisionRow(system_id=system_id, number=number, previous=base, plan=plan))
    system.current = number
    session.flush()
    return read(session, system_id)


def undo(session: Session, system_id: int, base: int) -> Saved:
    """Go back to the revision that the current one was made from."""
    system = current_at(session, system_id, base)
    previous = revision_of(session, system_id, system.current).previous
    return move(session, system, previous)


def redo(session: Session, system_id: int, base: int) -> Saved:
    """Go forward to the newest revision that was made from the current one."""
    system = current_at(session, system_id, base)
    following = next_of(session, system_id, system.current)
    return move(session, system, following.number if following else None)


def delete(session: Session, system_id: int) -> None:
    """Put a system away; `restore` brings it back."""
    existing(session, system_id).deleted = now()


def restore(session: Session, system_id: int) -> Saved:
    """Bring a deleted system back."""
    system = session.get(SystemRow, system_id)
    if system is None:
        raise NoSuchSystem(system_id)
    system.deleted = None
    session.flush()
    return read(session, system_id)


def key(system: SystemRow) -> int:
    """The number a stored system has."""
    assert system.id is not None
    return system.id


def existing(session: Session, system_id: int) -> SystemRow:
    system = session.get(SystemRow, system_id)
    if system is None or system.deleted is not None:
        raise NoSuchSystem(system_id)
    return system


def current_at(session: Session, system_id: int, base: int) -> SystemRow:
    system = existing(session, system_id)
    if system.current != base:
        raise StaleRevision(base, system.current)
    return system


def revision_of(session: Session, system_id: int, number: int) -> RevisionRow:
    return session.exec(
        select(RevisionRow).where(RevisionRow.system_id == system_id, RevisionRow.number == number)
    ).one()


def next_of(session: Session, system_id: int, number: int) -> RevisionRow | None:
    made_from = select(RevisionRow).where(RevisionRow.system_id == system_id, RevisionRow.previous == number)
    return session.exec(made_from.order_by(desc(col(RevisionRow.number)))).first()


def move(session: Session, system: SystemRow, number: int | None) -> Saved:
    if number is None:
        raise NothingToUndo
    system.current = number
    session.flush()
    return read(session, key(system))
