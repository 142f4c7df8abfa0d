"""What can go wrong with the file that everything is kept in: a code and its values, and the one sentence for each."""

import sqlite3
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from sqlalchemy.exc import SQLAlchemyError

SENTENCES = {
    # A file that can not be opened, copied or put back.
    "foreign": "{path} was not written by Loquen. It is left as it is: give another file with --db.",
    "newer": "{path} was written by a newer Loquen (tables {found}, this one knows {known}). Start the newer one.",
    "damaged": "{path} is damaged and can not be read. {remedy}",
    "incomplete": "{path} lacks what Loquen keeps in it: {tables}. Nothing was changed. {remedy}",
    "emptied": "{path} is empty, though copies of it lie beside it: ./run restore {copy} puts the newest back. To start anew, take the empty file away.",
    "not_writable": "{path} can not be written here: {reason}.",
    "missing": "There is no {path}.",
    "no_system": "There is no system {system} in {path}.",
    "no_plan": "The plan of system {system} in {path} can not be read. {why}",
    "same_file": "{path} is the file in use itself: name another place for the copy.",
    "target_exists": "{path} is there already and is not overwritten: name another place for the copy.",
    "in_use": "{path} is in use: stop the Loquen that serves it, then restore.",
    # A file in use that can not be written, or not now.
    "busy": "Too much is asked at once. Nothing was changed; try again in a moment.",
    "full": "The disk is full: nothing can be saved until there is room. What you typed stays in the page.",
    "read_only": "The data file can not be written: its disk or its rights are read-only. What you typed stays in the page.",
    "gone": "The data file was removed or replaced while Loquen was running, so nothing is saved. Put it back or restart Loquen; what you typed stays in the page.",
    "unreadable_file": "The data file can not be read: its disk fails, or it is damaged. ./run restore puts a copy back.",
}


class StoreFault(Exception):
    """Base of the store's faults about its file."""

    def __init__(self, code: str, **values: Any) -> None:
        super().__init__(SENTENCES[code].format(**values))
        self.code = code

    @property
    def sentence(self) -> str:
        """What a person reads."""
        return str(self)


class UnusableFile(StoreFault):
    """A file that can not be opened, copied or put back; nothing was written."""


class Busy(StoreFault):
    """Others write, or more is asked than can be served: the same may go through in a moment."""

    def __init__(self) -> None:
        super().__init__("busy")


class CanNotWrite(StoreFault):
    """Nothing can be kept: the disk is full, read-only, failing, or the file is gone."""


CODES = {
    sqlite3.SQLITE_FULL: "full",
    sqlite3.SQLITE_READONLY: "read_only",
    sqlite3.SQLITE_CANTOPEN: "read_only",
    sqlite3.SQLITE_IOERR: "unreadable_file",
    sqlite3.SQLITE_CORRUPT: "unreadable_file",
    sqlite3.SQLITE_NOTADB: "unreadable_file",
}


def fault_of(error: "SQLAlchemyError") -> StoreFault | None:
    """What an error of the database means for a person; None for one that is a mistake of the program."""
    from sqlalchemy.exc import TimeoutError as NoConnection

    if isinstance(error, NoConnection):
        return Busy()
    primary = getattr(getattr(error, "orig", None), "sqlite_errorcode", 0) & 0xFF
    if primary in (sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED):
        return Busy()
    return CanNotWrite(CODES[primary]) if primary in CODES else None
