"""Rows as their columns hold them, whatever that is: to be shown, put right, or set aside whole where nothing else reads them."""

import base64
import json
from collections.abc import Iterator, Mapping
from typing import Any

from sqlalchemy import text
from sqlmodel import Session

from loquen.store.documents.systems import MOST_ID
from loquen.store.tables import SetAsideRow, kept_moment, now

KEYS = {
    "event": ("id",),
    "resident": ("id",),
    "arriving": ("id",),
    "course": ("id",),
    "tub": ("system_id",),
    "house": ("key",),
    "duty": ("system_id", "key"),
    "helper": ("name",),
    "stock": ("key",),
    "own_row": ("kind", "key"),
}
"""The tables of rows that are read one by one, and what tells their rows apart."""
PUT_AWAY = ("event", "resident", "arriving", "course")
"""Those whose rows are put away where they lie."""
REVISED = ("event",)


class NoSuchRaw(LookupError):
    """There is no such row, or nothing was set aside under this number."""


def rows(session: Session, table: str, only: str = "", **values: Any) -> Iterator[dict[str, Any]]:
    """The rows of a table that are not put away, of those that meet a condition, by column."""
    wanted = [only] if only else []
    wanted += ["deleted IS NULL"] if table in PUT_AWAY else []
    where = f" WHERE {' AND '.join(wanted)}" if wanted else ""
    for row in session.execute(text(f"SELECT * FROM {checked(table)}{where}"), values).mappings():
        yield {name: as_told(value) for name, value in row.items()}


def row_of(session: Session, table: str, key: str) -> dict[str, Any]:
    """One row; raise NoSuchRaw."""
    found = session.execute(
        text(f"SELECT * FROM {checked(table)} WHERE {where(table)}"), named(table, key)
    ).mappings()
    row = found.first()
    if row is None:
        raise NoSuchRaw(key)
    return {name: as_told(value) for name, value in row.items()}


def key_of(table: str, row: Mapping[str, Any]) -> str:
    """What tells a row apart, as one text."""
    return json.dumps([row[name] for name in KEYS[table]])


def put(session: Session, table: str, key: str, columns: Mapping[str, Any]) -> None:
    """Keep other values in some columns, and what they were beside it; raise NoSuchRaw."""
    whole = row_of(session, table, key)
    if not columns.keys() <= whole.keys():
        raise NoSuchRaw(key)
    session.add(SetAsideRow(kept_in=table, row=json.dumps(whole)))
    values = {f"new_{name}": value for name, value in columns.items()}
    # An event that was put right is another revision of it, so that whatever was made of its log is made anew.
    changes = [f"{name} = :new_{name}" for name in columns]
    changes += ["revision = revision + 1"] if table in REVISED else []
    session.execute(
        text(f"UPDATE {checked(table)} SET {', '.join(changes)} WHERE {where(table)}"),
        {**values, **named(table, key)},
    )


def set_aside(session: Session, table: str, key: str) -> int:
    """Take a row out of its table, and the number under which it is kept whole; raise NoSuchRaw."""
    kept = SetAsideRow(kept_in=table, row=json.dumps(row_of(session, table, key)))
    session.add(kept)
    session.flush()
    assert kept.id is not None
    away = "UPDATE {} SET deleted = :moment WHERE {}" if table in PUT_AWAY else "DELETE FROM {} WHERE {}"
    session.execute(
        text(away.format(checked(table), where(table))), {**named(table, key), "moment": kept_moment(now())}
    )
    return kept.id


def bring_back(session: Session, number: int) -> None:
    """Put a row back where it was set aside from, unless its place was taken; raise NoSuchRaw."""
    kept = session.get(SetAsideRow, number) if 0 < number <= MOST_ID else None
    if kept is None:
        raise NoSuchRaw(number)
    table, row = checked(kept.kept_in), json.loads(kept.row)
    if table in PUT_AWAY:
        back = text(f"UPDATE {table} SET deleted = NULL WHERE {where(table)}")
        session.execute(back, named(table, key_of(table, row)))
    else:
        names = list(row)
        values = ", ".join(f":{name}" for name in names)
        session.execute(text(f"INSERT OR IGNORE INTO {table} ({', '.join(names)}) VALUES ({values})"), row)
    session.delete(kept)


def checked(table: str) -> str:
    if table not in KEYS:
        raise NoSuchRaw(table)
    return table


def where(table: str) -> str:
    return " AND ".join(f"{name} = :{name}" for name in KEYS[checked(table)])


def named(table: str, key: str) -> dict[str, Any]:
    """The columns of a key; raise NoSuchRaw for what is none."""
    try:
        values = json.loads(key)
        return dict(zip(KEYS[checked(table)], values, strict=True))
    except (ValueError, TypeError):
        raise NoSuchRaw(key) from None


def as_told(value: Any) -> Any:
    """A value that can be written as JSON: bytes that are no text as their base64."""
    if not isinstance(value, bytes):
        return value
    try:
        return value.decode()
    except UnicodeDecodeError:
        return f"base64:{base64.b64encode(value).decode()}"
