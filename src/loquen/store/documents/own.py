"""Rows of the keeper's own library."""

import json
from collections.abc import Iterator
from contextlib import suppress
from threading import Lock
from typing import Any

from sqlmodel import Session, col, select

from loquen.core.data import library, own
from loquen.core.errors import CoreError
from loquen.store.tables import (
    ArrivingRow,
    CourseRow,
    EventRow,
    HouseRow,
    OwnRow,
    ResidentRow,
    RevisionRow,
    SystemRow,
    TubRow,
    VariantRow,
    now,
)

adopting = Lock()
"""Rows are read and taken as one step, so that no older reading is taken after a newer one."""


class NoSuchRow(LookupError):
    """There is no own row under this kind and key."""


class InUse(Exception):
    """An own row that something still uses: what that is (`system`, `register` …), and its document."""

    def __init__(self, what: str, document: str) -> None:
        super().__init__(what)
        self.what = what
        self.document = document


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
                with suppress(CoreError, ValueError, AttributeError, TypeError):
                    found.setdefault(kind, {})[key] = library.kept_own_row(known, {**json.loads(cells), "key": key})
    own.adopt(found)


def keys(session: Session, kind: str) -> set[str]:
    """The keys that own rows of a kind have, also of those that can not be read."""
    return set(session.exec(select(OwnRow.key).where(OwnRow.kind == kind)))


def add(session: Session, kind: own.Kind, cells: own.Cells) -> str:
    """One more row under a key that no other has, chosen inside the turn to write; raise BadCells."""
    name = cells.get(library.OWN_KINDS[kind].name, "")
    key = own.key_of(name, keys(session, kind).__contains__)
    keep(session, kind, key, cells)
    return key


def change(session: Session, kind: own.Kind, key: str, cells: own.Cells) -> None:
    """What a row is now; raise NoSuchRow, or BadCells."""
    if key not in keys(session, kind):
        raise NoSuchRow(kind, key)
    keep(session, kind, key, cells)


def keep(session: Session, kind: own.Kind, key: str, cells: own.Cells) -> None:
    written = json.dumps(own.versioned(kind, own.cells_of(library.own_row(kind, {**cells, "key": key}))))
    row = session.get(OwnRow, (kind, key))
    if row is None:
        session.add(OwnRow(kind=kind, key=key, cells=written))
    else:
        row.cells, row.saved = written, now()
    session.flush()


def delete(session: Session, kind: str, key: str) -> None:
    """Take a row out; raise NoSuchRow, or InUse while anything needs it."""
    row = session.get(OwnRow, (kind, key))
    if row is None:
        raise NoSuchRow(kind, key)
    for what, document in users(session, key):
        raise InUse(what, document)
    session.delete(row)


def users(session: Session, key: str) -> Iterator[tuple[str, str]]:
    """What holds a key in its document, kept or put away where it can be brought back."""
    quoted = json.dumps(key)
    current = (RevisionRow.system_id == SystemRow.id) & (RevisionRow.number == SystemRow.current)
    plans = select(SystemRow.root, RevisionRow.plan).join(RevisionRow, current)  # type: ignore[arg-type]
    yield from session.exec(plans.where(col(RevisionRow.plan).contains(quoted, autoescape=True)))
    for what, column in (
        ("variant", VariantRow.plan),
        ("register", ResidentRow.document),
        ("quarantine", ArrivingRow.document),
        ("quarantine", CourseRow.document),
        ("quarantine", TubRow.document),
        ("larder", HouseRow.document),
        ("log", EventRow.document),
    ):
        found = select(column).where(col(column).contains(quoted, autoescape=True)).limit(1)
        yield from ((what, text) for text in session.exec(found))
