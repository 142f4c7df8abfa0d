"""Which revisions are kept for good: everything that undo and redo can reach soon, and of what is older one an hour."""

from collections.abc import Iterable
from datetime import datetime

from sqlalchemy import delete
from sqlmodel import Session, col, select

from loquen.store.tables import RevisionRow

STEPS_KEPT = 200
"""Steps back from the current revision that are kept one by one, and newest revisions of any branch."""
MOST_REVISIONS = 400
"""Thinning waits until a system has more than this, and then again."""

Revision = tuple[int, int | None, datetime]
"""Number, the number it was made from, and when it was saved."""


def thin(session: Session, system_id: int, current: int) -> int:
    """Let go of old revisions between the hours; undo passes over them as if they had never been. How many went."""
    rows = session.exec(
        select(RevisionRow.number, RevisionRow.previous, RevisionRow.saved)
        .where(RevisionRow.system_id == system_id)
        .order_by(col(RevisionRow.number))
    ).all()
    if len(rows) <= MOST_REVISIONS:
        return 0
    previous = {number: before for number, before, _ in rows}
    keeps = kept(rows, current)
    for number in keeps:
        before = nearest(previous[number], previous, keeps)
        if before != previous[number]:
            revision = session.exec(
                select(RevisionRow).where(RevisionRow.system_id == system_id, RevisionRow.number == number)
            ).one()
            revision.previous = before
    session.flush()
    gone = [number for number, _, _ in rows if number not in keeps]
    session.execute(
        delete(RevisionRow).where(col(RevisionRow.system_id) == system_id, col(RevisionRow.number).in_(gone))
    )
    return len(gone)


def kept(rows: Iterable[Revision], current: int) -> set[int]:
    """The revisions to keep: the way to redo, the last steps to undo, the newest of all, and one an hour before."""
    rows = list(rows)
    previous = {number: before for number, before, _ in rows}
    hour = {number: saved.replace(minute=0, second=0, microsecond=0) for number, _, saved in rows}
    back = chain(current, previous)
    keeps = set(back[:STEPS_KEPT]) | set(back[-1:]) | set(sorted(previous)[-STEPS_KEPT:])
    keeps |= set(forward(current, previous))
    last_of_hour = {hour[number]: number for number in reversed(back[STEPS_KEPT:])}
    return keeps | set(last_of_hour.values())


def chain(number: int | None, previous: dict[int, int | None]) -> list[int]:
    """A revision and those it was made from, nearest first."""
    found: dict[int, None] = {}
    while number in previous and number not in found:
        found[number] = None
        number = previous[number]
    return list(found)


def forward(number: int, previous: dict[int, int | None]) -> list[int]:
    """Where redo goes from a revision, step by step: each time to the newest made from the last."""
    following: dict[int | None, int] = {}
    for revision in sorted(previous):
        following[previous[revision]] = revision
    found = []
    while following.get(number, number) > number:
        number = following[number]
        found.append(number)
    return found


def nearest(number: int | None, previous: dict[int, int | None], keeps: set[int]) -> int | None:
    """The nearest kept revision on the way back from one; itself when it is kept."""
    while number is not None and number not in keeps:
        number = previous.get(number)
    return number
