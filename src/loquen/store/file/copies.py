"""Copies of the database: made while it is in use, checked before they count, put back with nothing overwritten."""

import os
import sqlite3
import tempfile
from contextlib import closing
from datetime import datetime
from pathlib import Path

from loquen.store.faults import UnusableFile
from loquen.store.file.files import beside, damaged, look_at


def default_target(path: Path, words: str = "") -> Path:
    """A name in `backups` beside a file that nothing has yet."""
    stem = f"{path.stem}-{words or datetime.now().strftime('%Y-%m-%d-%H%M%S')}"
    folder = path.parent / "backups"
    names = (folder / f"{stem}{again}{path.suffix}" for again in ["", *(f"-{n}" for n in range(2, 1000))])
    return next(name for name in names if not name.exists())


def backup(path: Path, target: Path | None = None) -> Path:
    """A whole, checked copy of a database that may be in use; where it lies.

    Raises: UnusableFile when there is nothing to copy, or something stands where the copy would go.
    """
    if not path.exists():
        raise UnusableFile("missing", path=path)
    if look_at(path) is None:
        raise UnusableFile("foreign", path=path)
    if target is None:
        target = default_target(path)
        target.parent.mkdir(exist_ok=True)
    if target.resolve() in {own.resolve() for own in (path, *beside(path))} or same(path, target):
        raise UnusableFile("same_file", path=target)
    if target.exists():
        raise UnusableFile("target_exists", path=target)
    copy = whole_copy(path, target.parent)
    try:
        os.link(copy, target)  # unlike a rename, never over something that is there
    except FileExistsError:
        raise UnusableFile("target_exists", path=target) from None
    except OSError:
        copy.rename(target)
    finally:
        copy.unlink(missing_ok=True)
    synced(target.parent)
    return target


def restore(copy: Path, path: Path) -> Path | None:
    """Put a copy in a database's place; where the present file was set aside, None when there was none.

    Raises: UnusableFile when the copy is not good, or the database is in use.
    """
    if not copy.exists():
        raise UnusableFile("missing", path=copy)
    if same(copy, path):
        raise UnusableFile("same_file", path=copy)
    if look_at(copy) is None:
        raise UnusableFile("foreign", path=copy)
    path.parent.mkdir(parents=True, exist_ok=True)
    refuse_in_use(path)
    fresh = whole_copy(copy, path.parent)
    aside = default_target(path, f"aside-{datetime.now().strftime('%Y-%m-%d-%H%M%S')}")
    was = set_aside(path, aside)
    fresh.rename(path)
    synced(path.parent)
    return aside if was else None


def set_aside(path: Path, aside: Path) -> bool:
    """Move a database with the files beside it, which belong to it alone; whether there was one."""
    moved = False
    for old, new in zip((path, *beside(path)), (aside, *beside(aside)), strict=True):
        if old.exists():
            aside.parent.mkdir(exist_ok=True)
            old.rename(new)
            moved = True
    return moved


def refuse_in_use(path: Path) -> None:
    """Only a file that nobody else has open can leave write-ahead mode."""
    if not path.exists():
        return
    try:
        with closing(sqlite3.connect(path, timeout=0.2)) as connection:
            connection.execute("PRAGMA journal_mode=DELETE")
    except sqlite3.OperationalError as fault:
        if fault.sqlite_errorcode & 0xFF in (sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED):
            raise UnusableFile("in_use", path=path) from None
    except sqlite3.DatabaseError:
        return  # damaged: it is set aside as it is


def whole_copy(path: Path, folder: Path) -> Path:
    """A synced and checked copy under a name that nobody else has."""
    try:
        handle, name = tempfile.mkstemp(dir=folder, prefix=f".{path.stem}-", suffix=".part")
    except OSError as fault:
        raise UnusableFile("not_writable", path=folder, reason=fault.strerror) from fault
    os.close(handle)
    copy = Path(name)
    try:
        with closing(sqlite3.connect(f"{path.absolute().as_uri()}?mode=rw", uri=True, timeout=10)) as connection:
            connection.execute("VACUUM INTO ?", (name,))
        synced(copy)
        with closing(sqlite3.connect(copy)) as connection:
            if connection.execute("PRAGMA integrity_check(1)").fetchone() != ("ok",):
                raise damaged(path)
        look_at(copy)
    except sqlite3.OperationalError as fault:
        copy.unlink()
        raise UnusableFile("not_writable", path=folder, reason=str(fault)) from fault
    except sqlite3.DatabaseError as fault:
        copy.unlink()
        raise damaged(path) from fault
    except UnusableFile:
        copy.unlink()
        raise
    return copy


def same(one: Path, other: Path) -> bool:
    return one.exists() and other.exists() and one.samefile(other)


def synced(path: Path) -> None:
    """Have the disk hold what was written: a file's contents, or a folder's names."""
    handle = os.open(path, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)
