"""Variants of a system: named plans beside the one that stands."""

from dataclasses import dataclass
from datetime import datetime

from sqlmodel import Session, col, select

from loquen.store.documents.systems import MOST_ID, existing
from loquen.store.tables import VariantRow

MOST_VARIANTS = 20


class NoSuchVariant(LookupError):
    """The system has no variant under this number."""


class TooManyVariants(Exception):
    """A system keeps so many variants and no more."""


@dataclass(frozen=True, slots=True)
class Variant:
    id: int
    name: str
    saved: datetime
    document: str


def list_of(session: Session, system_id: int) -> list[Variant]:
    """The variants of a system, in the order in which they were kept; raise NoSuchSystem."""
    existing(session, system_id)
    rows = select(VariantRow).where(VariantRow.system_id == system_id).order_by(col(VariantRow.id))
    return [kept(row) for row in session.exec(rows)]


def add(session: Session, system_id: int, name: str, document: str) -> Variant:
    """Keep a variant; raise NoSuchSystem, or TooManyVariants."""
    if len(list_of(session, system_id)) >= MOST_VARIANTS:
        raise TooManyVariants(system_id)
    row = VariantRow(system_id=system_id, name=name, plan=document)
    session.add(row)
    session.flush()
    return kept(row)


def delete(session: Session, system_id: int, variant_id: int) -> None:
    """Let a variant go; raise NoSuchVariant."""
    session.delete(found(session, system_id, variant_id))


def rename(session: Session, system_id: int, variant_id: int, name: str) -> Variant:
    """Call a variant something else; raise NoSuchVariant."""
    row = found(session, system_id, variant_id)
    row.name = name
    session.add(row)
    session.flush()
    return kept(row)


def found(session: Session, system_id: int, variant_id: int) -> VariantRow:
    existing(session, system_id)
    row = session.get(VariantRow, variant_id) if 0 < variant_id <= MOST_ID else None
    if row is None or row.system_id != system_id:
        raise NoSuchVariant(variant_id)
    return row


def kept(row: VariantRow) -> Variant:
    assert row.id is not None
    return Variant(row.id, row.name, row.saved, row.plan)
