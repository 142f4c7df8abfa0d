"""The database in use: one file, write-ahead log, one writer at a time, one file again when it is closed."""

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from threading import Lock
from time import monotonic, sleep

from sqlalchemy import URL, Connection, QueuePool, event
from sqlalchemy.exc import SQLAlchemyError
from sqlmodel import Session, SQLModel, create_engine

from loquen.store.faults import Busy, CanNotWrite, UnusableFile, fault_of
from loquen.store.file import copies, files

PATIENCE_S, LOOK_S = 5.0, 0.01
"""How long a request waits for its turn to write, or for a connection, before it is told to come again."""
MOST_CONNECTIONS = 48
"""More than the server has threads, so that none waits for another to give one back."""


class Database:
    """One SQLite file. Reading and writing are transactions: all of it is kept, or none."""

    def __init__(self, path: Path) -> None:
        self.path = path
        self.writer = Lock()
        self.closed = False
        self.identity: tuple[int, int] | None = None
        self.engine = create_engine(
            URL.create("sqlite", database=str(path)),
            poolclass=QueuePool,
            pool_size=MOST_CONNECTIONS,
            max_overflow=0,
            pool_timeout=PATIENCE_S,
            connect_args={"check_same_thread": False, "timeout": PATIENCE_S},
        )
        event.listen(self.engine, "connect", prepare)
        event.listen(self.engine, "begin", begin)
        self.writing_engine = self.engine.execution_options(writes=True)

    @contextmanager
    def reading(self) -> Iterator[Session]:
        """One session that sees the same state throughout. Raises: StoreFault, also once it is closed."""
        if self.closed:
            raise Busy
        try:
            with Session(self.engine, expire_on_commit=False) as session, session.begin():
                yield session
        except SQLAlchemyError as error:
            raise fault_of(error) or error from error

    @contextmanager
    def writing(self) -> Iterator[Session]:
        """One session that holds the only turn to write from its first statement on. Raises: StoreFault."""
        if self.closed or not self.writer.acquire(timeout=PATIENCE_S):
            raise Busy
        try:
            if self.identity is not None and identity_of(self.path) != self.identity:
                raise CanNotWrite("gone")
            with Session(self.writing_engine, expire_on_commit=False) as session, session.begin():
                yield session
        except SQLAlchemyError as error:
            raise fault_of(error) or error from error
        finally:
            self.writer.release()

    def close(self) -> None:
        """Write the log back, so that the one file holds everything, and let go of it once nobody reads in it any more.

        Whoever came later would make the files beside it anew, and leave them there.
        """
        self.closed = True
        patience = monotonic() + PATIENCE_S
        while isinstance(self.engine.pool, QueuePool) and self.engine.pool.checkedout() and monotonic() < patience:
            sleep(LOOK_S)
        if self.identity is not None and identity_of(self.path) == self.identity:
            with self.engine.connect() as connection:
                connection.connection.cursor().execute("PRAGMA wal_checkpoint(TRUNCATE)")
        self.engine.dispose()


def identity_of(path: Path) -> tuple[int, int] | None:
    """Which file lies at a path; None when there is none."""
    try:
        found = path.stat()
    except OSError:
        return None
    return found.st_dev, found.st_ino


def prepare(connection: sqlite3.Connection, _record: object) -> None:
    """Nothing that was answered as saved may be lost: write-ahead log, synced at every commit."""
    # A file whose bytes are no text any more is read as far as it goes, and shown so.
    connection.text_factory = as_text
    connection.isolation_level = None  # transactions begin where `begin` says, not at the first write
    for pragma in ("journal_mode=WAL", "synchronous=FULL", "foreign_keys=ON"):
        connection.execute(f"PRAGMA {pragma}")


def as_text(found: bytes) -> str:
    return found.decode("utf-8", "replace")


def begin(connection: Connection) -> None:
    """A writer takes its turn before it reads what it will change."""
    writes = connection.get_execution_options().get("writes", False)
    connection.exec_driver_sql("BEGIN IMMEDIATE" if writes else "BEGIN")


def open_database(path: Path) -> Database:
    """A database file, looked at, made and migrated as needed. Raises: UnusableFile, with nothing written."""
    present = files.look_at(path)
    if present == files.NEWEST:
        files.look_for(path, SQLModel.metadata.tables)
    files.make_ready(path)
    database = Database(path)
    if present not in (None, files.NEWEST):
        target = copies.default_target(path, f"before-{files.NEWEST}")
        target.parent.mkdir(exist_ok=True)
        copies.backup(path, target)
    try:
        if present != files.NEWEST:
            migrate(database)
        # One connection stays open from here on: others can tell that the file is in use.
        with database.engine.connect() as connection:
            connection.exec_driver_sql("SELECT 1 FROM system LIMIT 1")
    except SQLAlchemyError as fault:
        database.engine.dispose()
        raise UnusableFile("not_writable", path=path, reason=getattr(fault, "orig", fault)) from fault
    database.identity = identity_of(path)
    return database


def migrate(database: Database) -> None:
    """Bring the tables to the newest shape, in one transaction."""
    from alembic import command
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(files.MIGRATIONS))
    with database.writing_engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "head")
