"""The database's file: what is opened and what is left alone, copies and putting them back, one file when closed."""

import json
import os
import sqlite3
import stat
import subprocess
import sys
import tempfile
from pathlib import Path

import pytest

from loquen.checked.documents import A_ROOM
from loquen.store.database import open_database
from loquen.store.documents import systems
from loquen.store.faults import Busy, CanNotWrite, UnusableFile
from loquen.store.file import copies, files
from loquen.store.routine import prices
from loquen.store.tables import ROOM
from tests.store.shapes import at_revision, insert


def plan(n):
    return f'{{"name": "plan {n}"}}'


@pytest.fixture
def path(tmp_path):
    """A closed database with one system."""
    path = tmp_path / "loquen.db"
    database = open_database(path)
    with database.writing() as session:
        systems.create(session, plan(1))
    database.close()
    return path


def names(path):
    database = open_database(path)
    with database.reading() as session:
        found = [row.document for row in systems.list_all(session)]
    database.close()
    return found


def refused(path):
    """Why opening a file is refused; nothing of it may change (its -shm is where its readers take turns)."""

    def contents():
        found = [file for file in path.parent.iterdir() if file.is_file() and not file.name.endswith("-shm")]
        return {file: file.read_bytes() for file in found}

    before = contents()
    with pytest.raises(UnusableFile) as caught:
        open_database(path)
    assert contents() == before
    return caught.value


def test_the_newest_tables_are_those_of_the_newest_migration():
    from alembic.config import Config
    from alembic.script import ScriptDirectory

    config = Config()
    config.set_main_option("script_location", str(files.MIGRATIONS))
    assert ScriptDirectory.from_config(config).get_current_head() == files.NEWEST


def test_a_closed_database_is_one_file(path):
    assert [file.name for file in path.parent.iterdir()] == ["loquen.db"]
    with sqlite3.connect(f"file:{path}?immutable=1", uri=True) as file:
        assert file.execute("SELECT count(*) FROM system").fetchone() == (1,)


def test_a_new_file_is_its_owners_alone_and_says_whose_it_is(path):
    assert stat.S_IMODE(path.stat().st_mode) == 0o600
    with sqlite3.connect(path) as file:
        assert file.execute("PRAGMA application_id").fetchone() == (files.APPLICATION_ID,)


def test_the_log_lies_beside_it_with_the_same_rights(path):
    database = open_database(path)
    with database.writing() as session:
        systems.create(session, plan(2))
    assert {stat.S_IMODE(file.stat().st_mode) for file in files.beside(path)} == {0o600}
    database.close()


def test_another_programs_database_is_left_as_it_is(tmp_path):
    path = tmp_path / "theirs.db"
    with sqlite3.connect(path) as file:
        file.execute("CREATE TABLE recipe (id INTEGER)")
    assert refused(path).code == "foreign"
    with sqlite3.connect(path) as file:
        file.execute("PRAGMA journal_mode = WAL")
        file.execute("DROP TABLE recipe")
        file.execute("PRAGMA application_id = 77")
    assert refused(path).code == "foreign"


def test_a_foreign_file_that_has_only_a_view_is_left_as_it_is(tmp_path):
    path = tmp_path / "view.db"
    with sqlite3.connect(path) as file:
        file.execute("CREATE VIEW now AS SELECT 1")
    file.close()
    assert refused(path).code == "foreign"


@pytest.mark.parametrize("table", ["event", "house", "set_aside"])
def test_a_missing_table_is_found_at_start_and_named(path, table):
    copy = copies.backup(path, None)
    with sqlite3.connect(path) as file:
        file.execute(f"DROP TABLE {table}")
    file.close()
    fault = refused(path)
    assert fault.code == "incomplete"
    assert table in fault.sentence
    assert str(copy) in fault.sentence


def test_an_empty_file_beside_copies_starts_nothing_new_without_a_word(path):
    copy = copies.backup(path, None)
    path.write_bytes(b"")
    fault = refused(path)
    assert fault.code == "emptied"
    assert str(copy) in fault.sentence
    path.unlink()
    assert names(path) == []


def test_a_file_that_is_no_database_is_left_as_it_is(tmp_path):
    path = tmp_path / "letter.db"
    path.write_text("Dear keeper,")
    assert refused(path).code == "foreign"
    path.unlink()
    path.mkdir()
    with pytest.raises(UnusableFile, match="not written by Loquen"):
        open_database(path)


def test_tables_of_a_newer_loquen_are_refused(path):
    with sqlite3.connect(path) as file:
        file.execute("UPDATE alembic_version SET version_num = '0099'")
    fault = refused(path)
    assert (fault.code, "0099" in fault.sentence) == ("newer", True)


@pytest.mark.parametrize("size", [8, 50, 5000, 20_000])
def test_a_truncated_file_is_told_with_the_newest_good_copy(path, size):
    good = copies.backup(path)
    later = copies.backup(path, good.with_name("loquen-later.db"))
    later.write_bytes(b"broken")
    os.utime(later, (2e9, 2e9))
    path.write_bytes(path.read_bytes()[:size])
    fault = refused(path)
    assert fault.code == "damaged"
    assert f"./run restore {good}" in fault.sentence


def test_damage_inside_is_found_before_it_is_served(path):
    content = bytearray(path.read_bytes())
    content[4096:12_288] = os.urandom(8192)
    path.write_bytes(bytes(content))
    assert refused(path).code == "damaged"


def test_a_database_of_an_earlier_release_is_copied_and_upgraded_with_its_rows(tmp_path):
    path = tmp_path / "old.db"
    with sqlite3.connect(path) as file:
        file.executescript("""
            CREATE TABLE alembic_version (version_num VARCHAR(32) NOT NULL PRIMARY KEY);
            INSERT INTO alembic_version VALUES ('0002');
            CREATE TABLE system (id INTEGER PRIMARY KEY, created DATETIME NOT NULL, current INTEGER NOT NULL, deleted DATETIME);
            CREATE TABLE revision (id INTEGER PRIMARY KEY, system_id INTEGER NOT NULL REFERENCES system (id),
                number INTEGER NOT NULL, previous INTEGER, saved DATETIME NOT NULL, plan JSON NOT NULL, UNIQUE (system_id, number));
            CREATE TABLE water (id INTEGER PRIMARY KEY, saved DATETIME NOT NULL, document JSON NOT NULL, deleted DATETIME);
            INSERT INTO system VALUES (1, '2026-01-01 00:00:00', 1, NULL);
            INSERT INTO revision VALUES (1, 1, 1, NULL, '2026-01-01 00:00:00', '{"name": "old"}');
            INSERT INTO water VALUES (1, '2026-01-01 00:00:00', '{"src_name": "Tap"}', NULL);
        """)
    assert names(path) == ['{"name": "old"}']
    assert files.look_at(path) == files.NEWEST
    assert files.look_at(tmp_path / "backups" / f"old-before-{files.NEWEST}.db") == "0002"
    with sqlite3.connect(path) as file:
        assert file.execute("SELECT revision FROM water").fetchone() == (1,)


AS_NOBODY = """
import os, sys
from pathlib import Path
from loquen.store.database import open_database
from loquen.store.faults import UnusableFile
os.setgid(65534), os.setuid(65534)
try:
    open_database(Path(sys.argv[1]))
except UnusableFile as fault:
    sys.exit(f"{fault.code}: {fault}")
"""


@pytest.mark.skipif(os.name != "posix" or os.geteuid() != 0, reason="rights bind only who is not root")
def test_a_file_that_can_not_be_written_is_told_and_not_touched():
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        folder.chmod(0o755)
        database = open_database(folder / "theirs.db")
        database.close()
        (folder / "theirs.db").chmod(0o644)
        for wanted in ("theirs.db", "new.db"):
            told = subprocess.run(
                [sys.executable, "-c", AS_NOBODY, str(folder / wanted)],
                check=False,
                capture_output=True,
                text=True,
                env={**os.environ, "PYTHONPATH": "src"},
            )
            assert told.stderr.startswith("not_writable: "), told.stderr
        assert [file.name for file in folder.iterdir()] == ["theirs.db"]


# Copies -----------------------------------------------------------------------------------------


def test_a_copy_holds_what_the_log_holds_and_is_whole(path, tmp_path):
    database = open_database(path)
    with database.writing() as session:
        systems.create(session, plan(2))
    copy = copies.backup(path, tmp_path / "copy.db")
    assert (names(copy), stat.S_IMODE(copy.stat().st_mode)) == ([plan(1), plan(2)], 0o600)
    database.close()


@pytest.mark.parametrize("target", ["loquen.db", "./loquen.db", "loquen.db-wal", "link.db"])
def test_the_live_file_is_never_the_copys_target(path, target):
    (path.parent / "link.db").hardlink_to(path)
    before = path.read_bytes()
    with pytest.raises(UnusableFile) as caught:
        copies.backup(path, path.parent / target)
    assert (caught.value.code, path.read_bytes()) == ("same_file", before)


def test_what_lies_where_a_copy_would_go_stays(path, tmp_path):
    other, partial = tmp_path / "copy.db", tmp_path / "copy.partial"
    for file in (other, partial):
        file.write_text("mine")
    with pytest.raises(UnusableFile, match="not overwritten"):
        copies.backup(path, other)
    copies.backup(path, tmp_path / "copy2.db")
    assert (other.read_text(), partial.read_text()) == ("mine", "mine")
    assert not list(tmp_path.glob(".*"))


def test_a_mistyped_database_is_told_and_none_is_made(tmp_path):
    with pytest.raises(UnusableFile, match="There is no"):
        copies.backup(tmp_path / "nothing.db", tmp_path / "copy.db")
    assert list(tmp_path.iterdir()) == []


def test_restoring_sets_the_present_aside_with_its_log(path, tmp_path):
    copy = copies.backup(path, tmp_path / "copy.db")
    database = open_database(path)
    with database.writing() as session:
        systems.create(session, plan("later"))
    # As a killed server leaves it: everything later is in the log alone.
    kept = {file: file.read_bytes() for file in (path, *files.beside(path))}
    database.close()
    for file, content in kept.items():
        file.write_bytes(content)
    aside = copies.restore(copy, path)
    assert names(path) == [plan(1)]
    assert names(aside) == [plan(1), plan("later")]


def test_a_database_in_use_is_not_restored_over(path, tmp_path):
    copy = copies.backup(path, tmp_path / "copy.db")
    database = open_database(path)
    with pytest.raises(UnusableFile) as caught:
        copies.restore(copy, path)
    assert caught.value.code == "in_use"
    with database.writing() as session:
        systems.create(session, plan(2))
    database.close()
    assert names(path) == [plan(1), plan(2)]


def test_a_damaged_database_is_restored_over_and_kept(path, tmp_path):
    copy = copies.backup(path, tmp_path / "copy.db")
    path.write_bytes(b"SQLite format 3\0 and then nothing")
    aside = copies.restore(copy, path)
    assert (names(path), aside.read_bytes()[:15]) == ([plan(1)], b"SQLite format 3")


@pytest.mark.parametrize("content", [None, b"Dear keeper,", b"SQLite format 3\0xx", b""])
def test_only_a_good_copy_is_put_in_place(path, tmp_path, content):
    copy = tmp_path / "copy.db"
    if content is not None:
        copy.write_bytes(content)
    before = path.read_bytes()
    with pytest.raises(UnusableFile):
        copies.restore(copy, path)
    assert path.read_bytes() == before


# In use -----------------------------------------------------------------------------------------


def test_a_file_removed_or_replaced_while_in_use_is_noticed_at_the_next_write(path, tmp_path):
    database = open_database(path)
    path.rename(tmp_path / "moved.db")
    for replaced in (False, True):
        if replaced:
            path.write_bytes(b"another")
        with pytest.raises(CanNotWrite) as caught, database.writing() as session:
            systems.create(session, plan(2))
        assert caught.value.code == "gone"
    database.close()
    assert path.read_bytes() == b"another"


def test_a_full_disk_keeps_nothing_and_is_told(path):
    database = open_database(path)
    with database.reading() as session:
        pages = session.connection().exec_driver_sql("PRAGMA page_count").scalar()
    with pytest.raises(CanNotWrite) as caught, database.writing() as session:
        session.connection().exec_driver_sql(f"PRAGMA max_page_count = {pages}")
        systems.create(session, '{"name": "' + "x" * 100_000 + '"}')
    assert caught.value.code == "full"
    database.close()
    assert names(path) == [plan(1)]


def test_a_writer_that_waits_too_long_is_told_to_come_again(path, monkeypatch):
    monkeypatch.setattr("loquen.store.database.PATIENCE_S", 0.05)
    database = open_database(path)
    with database.writing(), pytest.raises(Busy), database.writing():
        pass
    # Another process that holds the turn is waited for just as long.
    with sqlite3.connect(path, isolation_level=None) as other:
        other.execute("BEGIN IMMEDIATE")
        with pytest.raises(Busy), database.writing() as session:
            systems.create(session, plan(2))
    database.close()


def test_prices_that_stood_in_rooms_become_the_houses(tmp_path):
    path = tmp_path / "loquen.db"
    old = at_revision(path, "0006")
    priced = {"name": "Room", "version": 1, "prices": [{"priced_part": "Strainer", "price_money": 12.5}]}
    saved = "2026-03-04 18:30:00.000000"
    kept = insert(old, "system", created=saved, current=1, root=ROOM)
    insert(old, "revision", system_id=kept, number=1, saved=saved, plan=json.dumps(priced))
    old.close()
    database = open_database(path)
    with database.reading() as session:
        assert prices.everything(session) == {"Strainer": 12.5}
        assert A_ROOM.read(systems.read(session, kept, ROOM).document).name == "Room"
    database.close()


def test_a_price_is_kept_changed_and_forgotten(tmp_path):
    database = open_database(tmp_path / "loquen.db")
    for money, stands in ((3.0, {"Strainer": 3.0}), (4.5, {"Strainer": 4.5}), (None, {}), (None, {})):
        with database.writing() as session:
            prices.put(session, "Strainer", money)
        with database.reading() as session:
            assert prices.everything(session) == stands
    database.close()
