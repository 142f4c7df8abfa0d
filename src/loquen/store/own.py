"""Rows of the keeper's own library."""

import json
from contextlib import suppress
from typing import Any

from sqlmodel import Session, col, select

from loquen.core.data import library, own
from loquen.core.errors import CoreError
from loquen.store.tables import OwnRow, now


class NoSuchRow(LookupError):
    """There is no own row under this kind and key."""


class InUse(Exception):
    """An own row that a system still uses, and that system's name."""

    def __init__(self, system: str) -> None:
        super().__init__(system)
        self.system = system


def list_all(session: Session) -> list[tuple[str, str, str]]:
    """Every own row as kind, key and cells, in the order of their keys."""
    rows = session.exec(select(OwnRow).order_by(col(OwnRow.kind), col(OwnRow.key)))
    return [(row.kind, row.key, row.cells) for row in rows]


def adopt(session: Session) -> None:
    """Put the kept rows beside the shipped ones; one that this release can not read is left where it is, unused."""
    found: dict[str, dict[str, Any]] = {}
    for kind, key, cells in list_all(session):
        for known in own.KINDS:
            if kind == known:
                with suppress(CoreError, ValueError):
                    found.setdefault(kind, {})[key] = library.own_row(known, {**json.loads(cells), "key": key})
    own.adopt(found)


def keep(session: Session, kind: str, key: str, cells: str) -> None:
    """A row as it is now, new or changed."""
    row = session.get(OwnRow, (kind, key))
    if row is None:
        session.add(OwnRow(kind=kind, key=key, cells=cells))
    else:
        row.cells, row.saved = cells, now()


def delete(session: Session, kind: str, key: str) -> None:
    """Take a row out; raise NoSuchRow."""
    row = session.get(OwnRow, (kind, key))
    if row is None:
        raise NoSuchRow(kind, key)
    session.delete(row)
