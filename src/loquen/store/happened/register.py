"""The register as it is kept: residents, and what happened to each."""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime

from sqlmodel import Session, col, select
from sqlmodel.sql.expression import SelectOfScalar

from loquen.core.events.ledger import LifeEvent
from loquen.store.documents.systems import MOST_ID
from loquen.store.happened import ledger
from loquen.store.happened.ledger import KeptEvent
from loquen.store.tables import EventRow, ResidentRow, now

MOST_HAPPENED = 2000


class NoSuchResident(LookupError):
    """Nobody of the register has this number."""


class TooMuchHappened(Exception):
    """So much is kept of one resident and no more."""


@dataclass(frozen=True, slots=True)
class KeptResident:
    """A resident as text, and what happened by its numbers."""

    id: int
    document: str
    happened: tuple[tuple[int, str], ...]


def everybody(session: Session) -> list[KeptResident]:
    """All that are kept, in the order in which they were written down."""
    rows = session.exec(select(ResidentRow).where(col(ResidentRow.deleted).is_(None)).order_by(col(ResidentRow.id)))
    happened: dict[int, list[tuple[int, str]]] = defaultdict(list)
    for row in session.exec(present_events().where(col(EventRow.resident_id).is_not(None))):
        happened[row.resident_id or 0].append((row.id or 0, row.document))
    return [kept(row, happened[row.id or 0]) for row in rows]


def read(session: Session, resident_id: int) -> KeptResident:
    """One resident; raise NoSuchResident."""
    row = present(session, resident_id)
    found = present_events().where(EventRow.resident_id == row.id)
    return kept(row, [(one.id or 0, one.document) for one in session.exec(found)])


def present_events() -> SelectOfScalar[EventRow]:
    return select(EventRow).where(col(EventRow.deleted).is_(None)).order_by(col(EventRow.id))


def add(session: Session, document: str, happened: Iterable[LifeEvent]) -> KeptResident:
    """Write somebody down, with what happened first; raise NoSuchSystem."""
    row = ResidentRow(document=document)
    session.add(row)
    session.flush()
    assert row.id is not None
    for event in happened:
        write(session, row.id, event, ledger.noon(event))
    return read(session, row.id)


def write(session: Session, resident_id: int, event: LifeEvent, at: datetime) -> KeptEvent:
    """One event of a resident; raise NoSuchSystem."""
    [kept] = ledger.write(session, event.system or None, [ledger.new(event, at, resident=resident_id)])
    return kept


def documents(session: Session, residents: Iterable[int]) -> dict[int, str]:
    """Some residents as text, also those that were put away."""
    rows = session.exec(select(ResidentRow).where(col(ResidentRow.id).in_(list(residents))))
    return {row.id or 0: row.document for row in rows}


def update(session: Session, resident_id: int, document: str) -> KeptResident:
    """Keep what a resident is now; raise NoSuchResident."""
    row = present(session, resident_id)
    row.document = document
    session.add(row)
    session.flush()
    return read(session, resident_id)


def note(session: Session, resident_id: int, event: LifeEvent, at: datetime | None = None) -> KeptEvent:
    """Write down what happened, on its day or at a moment; raise NoSuchResident, TooMuchHappened, or NoSuchSystem."""
    if len(read(session, resident_id).happened) >= MOST_HAPPENED:
        raise TooMuchHappened(resident_id)
    return write(session, resident_id, event, at or ledger.noon(event))


def take_back(session: Session, happened_id: int) -> int:
    """Take out what was written down, and whose it was; raise NoSuchResident."""
    row = session.get(EventRow, happened_id) if 0 < happened_id <= MOST_ID else None
    if row is None or row.deleted is not None or row.resident_id is None:
        raise NoSuchResident(happened_id)
    row.deleted = now()
    session.add(row)
    session.flush()
    return row.resident_id


def put_away(session: Session, resident_id: int) -> None:
    """Take a resident out of the register; `bring_back` undoes it. Raises: NoSuchResident."""
    row = present(session, resident_id)
    row.deleted = now()
    session.add(row)
    session.flush()


def bring_back(session: Session, resident_id: int) -> None:
    row = session.get(ResidentRow, resident_id) if 0 < resident_id <= MOST_ID else None
    if row is None:
        raise NoSuchResident(resident_id)
    row.deleted = None
    session.add(row)
    session.flush()


def present(session: Session, resident_id: int) -> ResidentRow:
    row = session.get(ResidentRow, resident_id) if 0 < resident_id <= MOST_ID else None
    if row is None or row.deleted is not None:
        raise NoSuchResident(resident_id)
    return row


def kept(row: ResidentRow, happened: Iterable[tuple[int, str]]) -> KeptResident:
    assert row.id is not None
    return KeptResident(row.id, row.document, tuple(happened))
