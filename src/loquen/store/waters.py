"""Waters shared by all systems."""

from typing import Any

from sqlmodel import Session, col, select

from loquen.store.tables import WaterRow, now

WaterDocument = dict[str, Any]


class NoSuchWater(LookupError):
    """There is no water under this number, or it was deleted."""


def create(session: Session, document: WaterDocument) -> tuple[int, WaterDocument]:
    """A new water; its number and what was kept."""
    row = WaterRow(document=document)
    session.add(row)
    session.flush()
    return key(row), row.document


def list_all(session: Session) -> list[tuple[int, WaterDocument]]:
    """Every water that is not deleted, in the order in which they were entered."""
    kept = session.exec(select(WaterRow).where(col(WaterRow.deleted).is_(None)).order_by(col(WaterRow.id)))
    return [(key(row), row.document) for row in kept]


def update(session: Session, water_id: int, document: WaterDocument) -> tuple[int, WaterDocument]:
    """Keep what a water is now; raise NoSuchWater."""
    row = existing(session, water_id)
    row.document, row.saved = document, now()
    session.flush()
    return key(row), row.document


def delete(session: Session, water_id: int) -> None:
    """Put a water away; `restore` brings it back."""
    existing(session, water_id).deleted = now()


def restore(session: Session, water_id: int) -> None:
    """Bring a deleted water back; raise NoSuchWater."""
    row = session.get(WaterRow, water_id)
    if row is None:
        raise NoSuchWater(water_id)
    row.deleted = None


def existing(session: Session, water_id: int) -> WaterRow:
    row = session.get(WaterRow, water_id)
    if row is None or row.deleted is not None:
        raise NoSuchWater(water_id)
    return row


def key(row: WaterRow) -> int:
    """The number a stored water has."""
    assert row.id is not None
    return row.id
