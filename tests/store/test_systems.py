"""Revisions, undo and redo, conflicts, deletion, migration and backup, on a real file."""

import json
import time
from datetime import UTC, datetime, timedelta
from threading import Thread

import pytest
from sqlalchemy import inspect
from sqlmodel import SQLModel

from loquen.store.database import open_database
from loquen.store.documents import systems
from loquen.store.faults import Busy


def plan(n):
    return json.dumps({"name": f"plan {n}"})


@pytest.fixture
def saved(database):
    with database.writing() as session:
        return systems.create(session, plan(0))


def test_each_save_is_a_revision_and_an_equal_one_is_not(database, saved):
    with database.writing() as session:
        second = systems.update(session, saved.id, 1, plan(1))
        same = systems.update(session, saved.id, 2, plan(1))
    assert (second.revision, same.revision) == (2, 2)


def test_undo_and_redo_walk_what_was_saved(database, saved):
    with database.writing() as session:
        systems.update(session, saved.id, 1, plan(1))
        systems.update(session, saved.id, 2, plan(2))
        back = systems.undo(session, saved.id, 3)
        first = systems.undo(session, saved.id, back.revision)
        assert (back.document, first.document, first.can_undo) == (plan(1), plan(0), False)
        with pytest.raises(systems.NothingToUndo):
            systems.undo(session, saved.id, 1)
        again = systems.redo(session, saved.id, 1)
        assert systems.redo(session, saved.id, again.revision).document == plan(2)
        with pytest.raises(systems.NothingToUndo):
            systems.redo(session, saved.id, 3)


def test_an_edit_after_undo_leads_where_redo_goes(database, saved):
    with database.writing() as session:
        systems.update(session, saved.id, 1, plan(1))
        systems.undo(session, saved.id, 2)
        systems.update(session, saved.id, 1, plan("other"))
        systems.undo(session, saved.id, 3)
        assert systems.redo(session, saved.id, 1).document == plan("other")


def test_a_stale_base_is_refused_and_changes_nothing(database, saved):
    with database.writing() as session:
        systems.update(session, saved.id, 1, plan(1))
    for act in (systems.undo, systems.redo, lambda s, i, b: systems.update(s, i, b, plan(9))):
        with pytest.raises(systems.StaleRevision) as caught, database.writing() as session:
            act(session, saved.id, 1)
        assert caught.value.current == 2
    with database.writing() as session:
        assert systems.read(session, saved.id).document == plan(1)


def test_deleted_systems_are_away_until_restored(database, saved):
    with database.writing() as session:
        systems.delete(session, saved.id)
        assert systems.list_all(session) == []
        with pytest.raises(systems.NoSuchSystem):
            systems.read(session, saved.id)
        assert systems.restore(session, saved.id).document == plan(0)
        with pytest.raises(systems.NoSuchSystem):
            systems.restore(session, 99)


def test_moments_are_told_with_their_time_zone(database, saved):
    before = datetime.now(UTC)
    with database.writing() as session:
        systems.update(session, saved.id, 1, plan(1))
        systems.delete(session, saved.id)
    with database.reading() as session:
        (away,) = systems.list_deleted(session)
    with database.writing() as session:
        back = systems.restore(session, saved.id)
    for moment in (away.deleted, back.saved):
        assert before <= moment <= datetime.now(UTC)
        assert moment.utcoffset() == timedelta(0)


def test_a_failed_transaction_keeps_nothing(database, saved):
    with pytest.raises(RuntimeError), database.writing() as session:
        systems.update(session, saved.id, 1, plan(1))
        raise RuntimeError
    with database.writing() as session:
        assert systems.read(session, saved.id).revision == 1


def test_what_was_saved_is_there_for_the_next_process(tmp_path):
    path = tmp_path / "kept.db"
    database = open_database(path)
    with database.writing() as session:
        systems.create(session, plan(7))
    database.close()
    database = open_database(path)
    with database.reading() as session:
        assert [row.document for row in systems.list_all(session)] == [plan(7)]
    database.close()


def test_the_log_is_written_ahead_and_synced(database):
    with database.engine.connect() as connection:
        assert connection.exec_driver_sql("PRAGMA journal_mode").scalar() == "wal"
        assert connection.exec_driver_sql("PRAGMA synchronous").scalar() == 2


def test_migrations_make_the_tables_that_the_code_knows(database):
    found = inspect(database.engine)
    for name, table in SQLModel.metadata.tables.items():
        assert {c["name"] for c in found.get_columns(name)} == {c.name for c in table.columns}


def test_who_comes_after_the_end_leaves_no_files_beside(tmp_path):
    database = open_database(tmp_path / "loquen.db")
    slow = Thread(target=lambda: reads_for(database, 0.3))
    slow.start()
    time.sleep(0.1)
    database.close()
    # Whoever read was waited for; whoever comes now is turned away.
    with pytest.raises(Busy), database.reading():
        pass
    with pytest.raises(Busy), database.writing():
        pass
    slow.join()
    assert [file.name for file in tmp_path.iterdir()] == ["loquen.db"]


def reads_for(database, seconds):
    with database.reading() as session:
        systems.list_all(session)
        time.sleep(seconds)
