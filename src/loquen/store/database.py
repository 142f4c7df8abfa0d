"""Opening the database: one file, write-ahead log, migrated before use with a backup made first."""

import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import platformdirs
from alembic import command
from alembic.config import Config
from alembic.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import Engine, event
from sqlmodel import Session, create_engine


def default_path(demo: bool = False) -> Path:
    """Where a person's database lies; the demo has a file of its own."""
    return Path(platformdirs.user_data_dir("loquen")) / ("demo.db" if demo else "loquen.db")


def open_database(path: Path) -> Engine:
    """The engine on a database file, made and migrated when needed."""
    path.parent.mkdir(parents=True, exist_ok=True)
    engine = create_engine(f"sqlite:///{path}", connect_args={"check_same_thread": False, "timeout": 10})
    event.listen(engine, "connect", set_pragmas)
    migrate(engine, path)
    return engine


def set_pragmas(connection: sqlite3.Connection, _record: object) -> None:
    """Nothing that was answered as saved may be lost: write-ahead log, synced at every commit."""
    for pragma in ("journal_mode=WAL", "synchronous=FULL", "foreign_keys=ON", "busy_timeout=10000"):
        connection.execute(f"PRAGMA {pragma}")


def migrate(engine: Engine, path: Path) -> None:
    """Bring the tables to the newest shape; an existing file is copied aside first."""
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    newest = ScriptDirectory.from_config(config).get_current_head()
    with engine.begin() as connection:
        present = MigrationContext.configure(connection).get_current_revision()
    if present == newest:
        return
    if present is not None:
        backup(engine, path.with_name(f"{path.stem}-before-{newest}{path.suffix}"))
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "head")


def backup(engine: Engine, target: Path) -> None:
    """A whole copy of the database, made while it is in use."""
    partial = target.with_suffix(".partial")
    partial.unlink(missing_ok=True)
    with engine.connect() as connection:
        connection.exec_driver_sql("VACUUM INTO ?", (str(partial),))
    shutil.move(partial, target)


@contextmanager
def transaction(engine: Engine) -> Iterator[Session]:
    """One session, one transaction: all of it is kept, or none."""
    with Session(engine, expire_on_commit=False) as session, session.begin():
        yield session
