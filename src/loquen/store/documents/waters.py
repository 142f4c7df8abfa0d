"""Waters shared by all systems."""

from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import update as sql_update
from sqlmodel import Session, col, select

from loquen.store.documents.systems import MOST_ID, StaleRevision
from loquen.store.tables import WaterRow, now


class NoSuchWater(LookupError):
    """There is no water under this number, or it was deleted."""


@dataclass(frozen=True, slots=True)
class KeptWater:
    """A water as text, how often it was changed, and when it was put away if it was."""

    id: int
    revision: int
    document: str
    deleted: datetime | None


def create(session: Session, document: str) -> KeptWater:
    """A new water."""
    row = WaterRow(document=document)
    session.add(row)
    session.flush()
    return kept(row)


def list_all(session: Session) -> list[KeptWater]:
    """Every water that is not deleted, in the order in which they were entered."""
    present = session.exec(select(WaterRow).where(col(WaterRow.deleted).is_(None)).order_by(col(WaterRow.id)))
    return [kept(row) for row in present]


def list_deleted(session: Session) -> list[KeptWater]:
    """Every water that was put away, the last one first."""
    away = select(WaterRow).where(col(WaterRow.deleted).is_not(None)).order_by(col(WaterRow.deleted).desc())
    return [kept(row) for row in session.exec(away)]


def update(session: Session, water_id: int, base: int, document: str) -> KeptWater:
    """Keep what a water is now, in one statement; raise NoSuchWater, or StaleRevision when it was changed since."""
    swap = sql_update(WaterRow).where(col(WaterRow.id) == existing(session, water_id).id)
    swap = swap.where(col(WaterRow.revision) == base)
    values = {"document": document, "saved": now(), "revision": base + 1}
    changed = session.execute(swap.values(**values)).rowcount  # type: ignore[attr-defined]
    session.expire_all()
    row = existing(session, water_id)
    if changed != 1:
        raise StaleRevision(base, row.revision)
    return kept(row)


def delete(session: Session, water_id: int) -> None:
    """Put a water away; `restore` brings it back."""
    existing(session, water_id).deleted = now()


def restore(session: Session, water_id: int) -> None:
    """Bring a deleted water back; raise NoSuchWater."""
    row = session.get(WaterRow, water_id) if 0 < water_id <= MOST_ID else None
    if row is None:
        raise NoSuchWater(water_id)
    row.deleted = None


def existing(session: Session, water_id: int) -> WaterRow:
    row = session.get(WaterRow, water_id) if 0 < water_id <= MOST_ID else None
    if row is None or row.deleted is not None:
        raise NoSuchWater(water_id)
    return row


def kept(row: WaterRow) -> KeptWater:
    assert row.id is not None
    return KeptWater(row.id, row.revision, row.document, row.deleted)
