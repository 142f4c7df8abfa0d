"""Data files as an older Loquen left them: brought to one of its shapes, row by row."""

from alembic import command
from alembic.config import Config

from loquen.store.database import Database
from loquen.store.file import files


def at_revision(path, revision):
    """A new file with the tables of an older Loquen; closed by whoever asked."""
    files.make_ready(path)
    database = Database(path)
    config = Config()
    config.set_main_option("script_location", str(files.MIGRATIONS))
    with database.writing_engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, revision)
    return database


def insert(database, table, **row):
    names = ", ".join(row)
    marks = ", ".join(f":{name}" for name in row)
    with database.writing() as session:
        return (
            session.connection().exec_driver_sql(f"INSERT INTO {table} ({names}) VALUES ({marks})", row).lastrowid
        )
