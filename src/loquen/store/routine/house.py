"""What is kept of the whole house: the larder, and since when a system's meals are counted."""

from sqlmodel import Session, col, select

from loquen.store.tables import HouseRow

LARDER = "larder"
FED_SINCE = "fed_since."


def read(session: Session, key: str) -> str | None:
    """What is kept under a key, as text; None for nothing."""
    row = session.get(HouseRow, key)
    return row.document if row else None


def under(session: Session, prefix: str) -> dict[str, str]:
    """All that is kept under keys that begin so, by the rest of the key."""
    rows = session.exec(select(HouseRow).where(col(HouseRow.key).startswith(prefix)))
    return {row.key.removeprefix(prefix): row.document for row in rows}


def put(session: Session, key: str, document: str) -> None:
    """Keep it in the place of what was there."""
    row = session.get(HouseRow, key) or HouseRow(key=key, document=document)
    row.document = document
    session.add(row)
    session.flush()
