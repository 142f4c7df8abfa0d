"""Quarantine as it is kept: which systems are tubs, who is to come, and courses of treatment."""

from collections.abc import Iterator
from typing import Any

from sqlmodel import Session, col, select

from loquen.store.documents.systems import MOST_ID, existing
from loquen.store.tables import ArrivingRow, CourseRow, TubRow, now

MOST_KEPT = 2000


class NotInQuarantine(LookupError):
    """Nothing of quarantine has this number."""


class TooManyKept(Exception):
    """So many are kept and no more."""


def tubs(session: Session) -> dict[int, str]:
    """What is set for each tub, as text, by system."""
    return {row.system_id: row.document for row in session.exec(select(TubRow).order_by(col(TubRow.system_id)))}


def put_tub(session: Session, system_id: int, document: str | None) -> None:
    """Make a system a tub or keep what is set for it; None makes it none. Raises: NoSuchSystem."""
    existing(session, system_id)
    row = session.get(TubRow, system_id)
    if row is not None:
        session.delete(row)
        session.flush()
    if document is not None:
        session.add(TubRow(system_id=system_id, document=document))
    session.flush()


class Documents:
    """A table of documents with numbers, which can be put away and brought back."""

    def __init__(self, table: Any) -> None:
        self.table = table

    def all(self, session: Session) -> Iterator[tuple[int, str]]:
        """Every one that is kept, in the order in which it was written down."""
        rows = select(self.table).where(col(self.table.deleted).is_(None)).order_by(col(self.table.id))
        for row in session.exec(rows):
            yield row.id or 0, row.document

    def read(self, session: Session, number: int) -> str:
        """One document; raise NotInQuarantine."""
        found: str = self.present(session, number).document
        return found

    def add(self, session: Session, document: str) -> int:
        """Keep one more, and its number; raise TooManyKept."""
        if sum(1 for _ in self.all(session)) >= MOST_KEPT:
            raise TooManyKept
        row = self.table(document=document)
        session.add(row)
        session.flush()
        return row.id or 0

    def put(self, session: Session, number: int, document: str) -> None:
        """Keep what it is now; raise NotInQuarantine."""
        row = self.present(session, number)
        row.document = document
        session.add(row)
        session.flush()

    def put_away(self, session: Session, number: int) -> None:
        """Take it out; `bring_back` undoes it. Raises: NotInQuarantine."""
        row = self.present(session, number)
        row.deleted = now()
        session.add(row)
        session.flush()

    def bring_back(self, session: Session, number: int) -> None:
        row = session.get(self.table, number) if 0 < number <= MOST_ID else None
        if row is None:
            raise NotInQuarantine(number)
        row.deleted = None
        session.add(row)
        session.flush()

    def present(self, session: Session, number: int) -> Any:
        row = session.get(self.table, number) if 0 < number <= MOST_ID else None
        if row is None or row.deleted is not None:
            raise NotInQuarantine(number)
        return row


arriving = Documents(ArrivingRow)
courses = Documents(CourseRow)
