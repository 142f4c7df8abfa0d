"""A database file before it is used: whether it is Loquen's own, whole, writable, and which tables it has."""

import os
import sqlite3
from collections.abc import Iterable, Iterator
from contextlib import closing, contextmanager
from pathlib import Path

import platformdirs

from loquen.store.faults import UnusableFile

APPLICATION_ID = 0x4C6F_716E
"""“Loqn”, at its place in the head of every file that Loquen made."""
MIGRATIONS = Path(__file__).parents[1] / "migrations"
KNOWN = tuple(sorted(path.name[:4] for path in (MIGRATIONS / "versions").glob("[0-9]*.py")))
NEWEST = KNOWN[-1]
MAGIC = b"SQLite format 3\0"
OWN_TABLES = {"system", "revision", "alembic_version"}
"""What files made before the application's number was written have in common."""
BESIDE = ("-wal", "-shm")
ONLY_OWNER = 0o600


def default_path(demo: bool = False) -> Path:
    """Where a person's database lies; the demo has a file of its own."""
    return Path(platformdirs.user_data_dir("loquen")) / ("demo.db" if demo else "loquen.db")


def beside(path: Path) -> list[Path]:
    """The files that SQLite keeps beside one in use: together they are the database."""
    return [path.with_name(path.name + ending) for ending in BESIDE]


def look_at(path: Path) -> str | None:
    """The tables' revision that a file has, None for one that is new or empty. Nothing is written.

    Raises: UnusableFile for one that is foreign, damaged, newer, or no file at all.
    """
    log = beside(path)[0]
    logged = log.exists() and log.stat().st_size > 0
    if path.is_dir():
        raise UnusableFile("foreign", path=path)
    if not path.exists():
        return None
    if path.stat().st_size == 0 and not logged:
        copy = newest_good_copy(path)
        if copy is not None:
            raise UnusableFile("emptied", path=path, copy=copy)
        return None
    with path.open("rb") as file:
        head = file.read(len(MAGIC))
    if head != MAGIC:
        raise damaged(path) if MAGIC.startswith(head) else UnusableFile("foreign", path=path)
    try:
        with only_read(path, logged) as connection:
            revision = revision_in(connection, path)
            (sound,) = connection.execute("PRAGMA quick_check(1)").fetchone()
    except sqlite3.DatabaseError as fault:
        raise damaged(path) from fault
    if sound != "ok":
        raise damaged(path)
    return revision


@contextmanager
def only_read(path: Path, logged: bool) -> Iterator[sqlite3.Connection]:
    """A connection that writes nothing, not even the files beside: those are only read where they have something."""
    way = "mode=ro" if logged else "mode=ro&immutable=1"
    with closing(sqlite3.connect(f"{path.absolute().as_uri()}?{way}", uri=True)) as connection:
        yield connection


def revision_in(connection: sqlite3.Connection, path: Path) -> str | None:
    (number,) = connection.execute("PRAGMA application_id").fetchone()
    tables = tables_in(connection)
    (things,) = connection.execute("SELECT count(*) FROM sqlite_master").fetchone()
    if number not in (0, APPLICATION_ID) or (number == 0 and things and not tables >= OWN_TABLES):
        raise UnusableFile("foreign", path=path)
    if "alembic_version" not in tables:
        return None
    row = connection.execute("SELECT version_num FROM alembic_version").fetchone()
    found = str(row[0]) if row else None
    if found is not None and found not in KNOWN:
        raise UnusableFile("newer", path=path, found=found, known=NEWEST)
    return found


def tables_in(connection: sqlite3.Connection) -> set[str]:
    return {name for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}


def look_for(path: Path, tables: Iterable[str]) -> None:
    """Raise UnusableFile for a file of the newest tables that lacks one of them."""
    log = beside(path)[0]
    with only_read(path, log.exists() and log.stat().st_size > 0) as connection:
        missing = sorted(set(tables) - tables_in(connection))
    if missing:
        raise UnusableFile("incomplete", path=path, tables=", ".join(missing), remedy=remedy_for(path))


def remedy_for(path: Path) -> str:
    copy = newest_good_copy(path)
    return f"./run restore {copy} puts back the newest good copy." if copy else "No copy of it lies beside it."


def damaged(path: Path) -> UnusableFile:
    """That a file is damaged, with the newest good copy of it by name."""
    return UnusableFile("damaged", path=path, remedy=remedy_for(path))


def copies_of(path: Path) -> list[Path]:
    """Where copies of a file are kept: in `backups` beside it, the newest first."""
    found = (path.parent / "backups").glob(f"{path.stem}-*{path.suffix}")
    return sorted(found, key=lambda copy: copy.stat().st_mtime, reverse=True)


def newest_good_copy(path: Path) -> Path | None:
    for copy in copies_of(path):
        try:
            if look_at(copy) is not None:
                return copy
        except UnusableFile:
            continue
    return None


def make_ready(path: Path) -> None:
    """See that a file and those beside it can be written; a new one is made for its owner alone.

    Raises: UnusableFile.
    """
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        if not path.exists():
            os.close(os.open(path, os.O_RDWR | os.O_CREAT, ONLY_OWNER))
    except OSError as fault:
        raise UnusableFile("not_writable", path=path, reason=fault.strerror) from fault
    for needed in (path.parent, path, *beside(path)):
        if needed.exists() and not os.access(needed, os.W_OK):
            raise UnusableFile("not_writable", path=path, reason=f"{needed} is read-only")
