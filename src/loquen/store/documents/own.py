"""Rows of the keeper's own library."""

import json
from collections.abc import Iterator
from contextlib import suppress
from typing import Any

from sqlmodel import Session, col, select

from loquen.core.errors import CoreError
from loquen.core.library import own
from loquen.core.library.kinds import KINDS, Kind
from loquen.core.library.whole import Library
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


def library_of(session: Session, base: Library) -> Library:
    """A library with the kept rows beside its own; one that this release can not read is left where it is, unused."""
    kept = list_all(session)
    found: dict[str, dict[str, Any]] = {}
    library = base
    for kind in KINDS:
        for of_kind, key, cells in kept:
            if of_kind == kind:
                with suppress(CoreError, ValueError, AttributeError, TypeError):
                    row = own.kept_own_row(kind, {**json.loads(cells), "key": key}, library)
                    found.setdefault(kind, {})[key] = row
        # What is read next may name rows of this kind.
        library = base.with_own(found)
    return library


def keys(session: Session, kind: str) -> set[str]:
    """The keys that own rows of a kind have, also of those that can not be read."""
    return set(session.exec(select(OwnRow.key).where(OwnRow.kind == kind)))


def add(session: Session, kind: Kind, cells: own.Cells, library: Library) -> str:
    """One more row under a key that no other has, chosen inside the turn to write; raise BadCells."""
    name = cells.get(own.OWN_KINDS[kind].name, "")
    key = own.key_of(name, keys(session, kind).__contains__)
    keep(session, kind, key, cells, library)
    return key


def change(session: Session, kind: Kind, key: str, cells: own.Cells, library: Library) -> None:
    """What a row is now; raise NoSuchRow, or BadCells."""
    if key not in keys(session, kind):
        raise NoSuchRow(kind, key)
    keep(session, kind, key, cells, library)


def keep(session: Session, kind: Kind, key: str, cells: own.Cells, library: Library) -> None:
    written = json.dumps(own.versioned(kind, own.cells_of(own.own_row(kind, {**cells, "key": key}, library))))
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
