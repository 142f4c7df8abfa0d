"""One ledger: files of every released shape come forward with all that they held, and what is a tick is one event."""

import json
from collections import Counter
from datetime import UTC, datetime

import pytest

from loquen.checked import stored
from loquen.checked.stored import those_read
from loquen.core.events.kinds.keeping import Fed, Noted, Pulsed, Rinsed, SeenTo
from loquen.core.events.kinds.lives import Died, Moved
from loquen.core.events.kinds.water import Changed, Dosed, Read
from loquen.core.events.ledger import NAMES, kept_as
from loquen.store.database import open_database
from loquen.store.documents import systems
from loquen.store.happened import ledger, register, runs
from loquen.store.happened.ledger import NoSuchEntry
from loquen.store.routine import rounds
from tests.store.shapes import at_revision, insert

EVENING = "2026-03-04 18:30:00.000000"
BLANK = {
    "what": "", "value": "", "kit": "", "when": "", "litres": None, "share": None, "amount": None, "until": "", "note": "",
}  # fmt: skip
LINES = [
    {**BLANK, "kind": "reading", "what": "nitrate", "value": "20", "kit": "nitrate_drops", "when": "before"},
    {**BLANK, "kind": "change", "litres": 41.5, "note": "hose leaked"},
    {**BLANK, "kind": "change", "share": 0.25},
    {**BLANK, "kind": "dose", "what": "ammonia", "amount": 2.5},
    {**BLANK, "kind": "feed", "what": "some", "amount": 1.25},
    {**BLANK, "kind": "filter", "what": "tap", "share": 1.0, "note": "socks"},
    {**BLANK, "kind": "added", "what": "dry leaves", "amount": 3},
    {**BLANK, "kind": "taken", "what": "plants", "amount": 40},
    {**BLANK, "kind": "light", "what": "lamp replaced"},
    {**BLANK, "kind": "arrival", "amount": 6, "note": "from the club"},
    {**BLANK, "kind": "death", "amount": 1, "note": "found behind the rock"},
    {**BLANK, "kind": "source", "what": "rain"},
    {**BLANK, "kind": "experiment", "what": "gutter", "until": "2026-04-01"},
    {**BLANK, "kind": "note", "note": "left over from another kind", "litres": 7.0},
]
LIFE = {"count": 1, "system": 1, "to": 0, "males": None, "length_cm": None, "money": None, "signs": ""}
LIVES = [
    {**LIFE, "kind": "arrival", "day": "2026-01-02", "count": 9, "males": 3, "money": 4.5},
    {**LIFE, "kind": "birth", "day": "2026-01-20", "count": 12},
    {**LIFE, "kind": "measured", "day": "2026-02-01", "length_cm": 2.5},
    {**LIFE, "kind": "move", "day": "2026-02-03", "count": 4, "to": 2},
    {**LIFE, "kind": "sale", "day": "2026-02-04", "count": 2, "money": 6.0},
    {**LIFE, "kind": "death", "day": "2026-02-05", "count": 3, "signs": "white grains"},
    {**LIFE, "kind": "signs", "day": "2026-02-06", "signs": "clamped fins"},
]
DAMAGED = '{"kind": "chan'


def filled(path, revision):
    """An older file with a row of every kind that its Loquen knew, some of them changed, taken out or damaged."""
    database = at_revision(path, revision)
    rooms = int(revision) >= 6
    for number in (1, 2):
        extra = {"root": "system"} if rooms else {}
        insert(database, "system", id=number, created=EVENING, current=1, **extra)
        insert(
            database,
            "revision",
            system_id=number,
            number=1,
            saved=EVENING,
            plan=json.dumps({"name": f"Tank {number}"}),
        )
    for number, line in enumerate(LINES, 1):
        keep_entry(database, number, json.dumps(line))
    keep_entry(database, 90, DAMAGED)
    keep_entry(database, 91, json.dumps(LINES[1]), deleted=EVENING)
    with database.writing() as session:
        session.connection().exec_driver_sql("UPDATE entry SET revision = 2 WHERE id = 2")
    insert(
        database, "entry_revision", entry_id=2, number=2, saved=EVENING, at=EVENING, document=json.dumps(LINES[1])
    )
    if rooms:
        insert(database, "system", id=3, created=EVENING, current=1, root="room")
        insert(database, "revision", system_id=3, number=1, saved=EVENING, plan=json.dumps({"name": "Cellar"}))
        for number in (1, 2):
            insert(
                database, "run", room_id=3, begun="monday", number=number, zone=2, at=EVENING, clock_min=30.0 * number,
                minutes=1.5, planned_l=4.0, metered_l=3.5 + number, mixed_c=24.0, ended_by="timetable",
            )  # fmt: skip
    if int(revision) >= 9:
        tick = {"system_id": 1, "at": EVENING, "day": "2026-03-04", "done_by": "Noor"}
        insert(
            database, "tick", id="tick-with-entry", duty="change", due="2026-03-04", entry_id=2, skipped="", **tick
        )
        insert(database, "tick", id="tick-alone", duty="glass", due="2026-03-04", skipped="", **tick)
        insert(database, "tick", id="tick-skipped", duty="glass", due="2026-03-01", skipped="on holiday", **tick)
        insert(
            database, "tick", id="tick-entry-gone", duty="top_up", due="2026-03-04", entry_id=91, skipped="", **tick
        )
    if int(revision) >= 10:
        insert(database, "resident", id=7, document=json.dumps({"species": "boeseman_rainbowfish"}))
        for number, life in enumerate(LIVES, 1):
            insert(database, "happened", id=number, resident_id=7, written=EVENING, document=json.dumps(life))
        insert(database, "happened", id=50, resident_id=7, written=EVENING, document=DAMAGED)
    if int(revision) >= 13:
        aside = {"id": 50, "resident_id": 7, "written": EVENING, "document": DAMAGED, "deleted": None}
        insert(database, "set_aside", id=1, kept_in="happened", moment=EVENING, row=json.dumps(aside))
        lost = {
            "id": "tick-lost", "system_id": 1, "duty": "thin", "due": "soon", "at": EVENING, "day": "x", "done_by": "", "skipped": "",
            "entry_id": None,
        }  # fmt: skip
        insert(database, "set_aside", id=2, kept_in="tick", moment=EVENING, row=json.dumps(lost))
    database.close()


def keep_entry(database, number, document, **more):
    insert(database, "entry", id=number, system_id=1, at=EVENING, revision=1, document=document, **more)
    insert(database, "entry_revision", entry_id=number, number=1, saved=EVENING, at=EVENING, document=document)


@pytest.fixture(params=["0005", "0006", "0009", "0010", "0013"])
def old(request, tmp_path):
    path = tmp_path / "old.db"
    filled(path, request.param)
    database = open_database(path)
    yield int(request.param), database
    database.close()


def all_events(database, where="1"):
    with database.reading() as session:
        return [
            dict(row)
            for row in session.connection().exec_driver_sql(f"SELECT * FROM event WHERE {where}").mappings()
        ]


def test_everything_of_an_older_file_comes_along(old):
    revision, database = old
    rows = all_events(database)
    read = those_read(((row["id"], row["document"]) for row in rows), stored.event)
    kinds = Counter(NAMES[type(event)] for event in read.values())
    lines = Counter(line["kind"] for line in LINES) + Counter({"change": 1})  # and the one that was taken out
    lives = Counter(life["kind"] for life in LIVES) if revision >= 10 else Counter()
    ticks = Counter({"seen_to": 2, "skipped": 1}) if revision >= 9 else Counter()
    ticks += Counter({"seen_to": 1}) if revision >= 13 else Counter()
    assert kinds == lines + lives + ticks + (Counter({"pulsed": 2}) if revision >= 6 else Counter())
    # Sums: litres, amounts and heads are what they were, and so is what can not be read.
    events = list(read.values())
    assert sum(one.litres or 0 for one in events if isinstance(one, Changed)) == 2 * 41.5
    assert sum(one.share or 0 for one in events if isinstance(one, Changed | Rinsed)) == 0.25 + 1.0
    assert sum(one.amount or 0 for one in events if isinstance(one, Dosed)) == 2.5
    assert sum(one.grams or 0 for one in events if isinstance(one, Fed)) == 1.25
    died = sum(one.count for one in events if isinstance(one, Died))
    assert died == 1 + (3 if revision >= 10 else 0)
    assert sum(one.metered_l for one in events if isinstance(one, Pulsed)) == (4.5 + 5.5 if revision >= 6 else 0)
    assert sum(row["document"] == DAMAGED for row in rows) == (1 if revision < 10 else 2)
    assert [row["deleted"] for row in rows if row["id"] == 91] == [EVENING]


def test_an_entry_of_an_older_log_is_the_event_that_it_told_of(old):
    _, database = old
    with database.reading() as session:
        kept = those_read(((row.id, row.document) for row in ledger.list_of(session, 1)), stored.event)
        history = [row.number for row in ledger.history(session, 2)]
    assert kept[1] == Read("nitrate", "20", "nitrate_drops", "before")
    assert kept[2] == Changed(41.5, note="hose leaked")
    assert kept[5] == Fed(1.25, "some")
    assert kept[6] == Rinsed("tap", 1.0, note="socks")
    # What a note has no use for is not lost.
    assert kept[14] == Noted("left over from another kind; litres: 7.0")
    assert (kept[11].count, kept[11].signs) == (1, "found behind the rock")
    assert history == [2, 1]


def test_lives_of_an_older_register_are_events_of_their_resident(old):
    revision, database = old
    if revision < 10:
        return
    with database.reading() as session:
        resident = register.read(session, 7)
        there = ledger.list_of(session, 2)
    lives = those_read(resident.happened, stored.happened)
    assert [kept_as(one) for one in lives.values()] == [
        {**{k: v for k, v in life.items() if k != "to" or life["kind"] == "move"}, "version": 1} for life in LIVES
    ]
    # Whoever moved is seen where they went, too.
    [moved] = [stored.event(row.document) for row in there]
    assert moved == Moved("2026-02-03", 4, 1, to=2)


def test_ticks_and_runs_of_an_older_file_count_once(old):
    revision, database = old
    with database.reading() as session:
        ticks = {tick.id: tick for tick in rounds.ticks_on(session, "2026-03-04")}
        last = rounds.last_ticks(session, [1])
    if revision < 9:
        assert ticks == {}
        return
    assert ticks.keys() == {"tick-with-entry", "tick-alone", "tick-skipped", "tick-entry-gone"}
    assert ticks["tick-skipped"].skipped == "on holiday"
    assert last[1, "glass"] == ("2026-03-04", "2026-03-04", "2026-03-04")
    [both] = all_events(database, "once = 'tick-with-entry'")
    assert (both["id"], both["kind"], both["done_by"]) == (2, "change", "Noor")
    again = ledger.new(
        SeenTo(), datetime(2026, 3, 5, tzinfo=UTC), duty="glass", due="2026-03-04", once="another-one"
    )
    with database.writing() as session:
        assert rounds.add_tick(session, 1, again) == ("tick-alone", False)
        assert runs.last_number(session, 3, "monday") == 2
        assert runs.last_number(session, 3, "tuesday") == 0
        assert len(runs.list_of(session, 3)) == 2


def test_what_was_set_aside_is_brought_back_under_its_new_name(old):
    from loquen.store import raw

    revision, database = old
    if revision < 13:
        return
    with database.writing() as session:
        row = raw.row_of(session, "event", json.dumps([json.loads(aside(session, 1))["id"]]))
        assert (row["document"], row["resident_id"]) == (DAMAGED, 7)
        raw.bring_back(session, 1)
        raw.bring_back(session, 2)
    [lost] = all_events(database, "duty = 'thin'")
    assert (lost["due"], lost["deleted"]) == ("soon", None)


def aside(session, number):
    return session.connection().exec_driver_sql("SELECT row FROM set_aside WHERE id = ?", (number,)).scalar_one()


# As it is now ------------------------------------------------------------------------------------


@pytest.fixture
def database(tmp_path):
    database = open_database(tmp_path / "loquen.db")
    with database.writing() as session:
        systems.create(session, json.dumps({"name": "Tank"}))
    yield database
    database.close()


AT = datetime(2026, 3, 4, 18, tzinfo=UTC)


def ticked(session, once, duty="change", event=None):
    new = ledger.new(event or Changed(20.0), AT, duty=duty, due="2026-03-04", day="2026-03-04", once=once)
    return rounds.add_tick(session, 1, new)


def test_a_tick_is_one_event_with_what_it_did(database):
    with database.writing() as session:
        assert ticked(session, "tick-1") == ("tick-1", True)
        assert ticked(session, "tick-1") == ("tick-1", False)
        assert ticked(session, "tick-2") == ("tick-1", False)  # the same duty's same day
    with database.reading() as session:
        [row] = ledger.list_of(session, 1)
    # Taken out of the log it is no longer ticked; brought back it is.
    with database.writing() as session:
        ledger.delete(session, [row.id])
        assert rounds.last_ticks(session, [1]) == {}
        ledger.restore(session, [row.id])
        assert rounds.last_ticks(session, [1]) == {(1, "change"): ("2026-03-04",) * 3}


def test_a_tick_that_is_taken_back_takes_what_it_did_along_and_can_be_sent_again(database):
    with database.writing() as session:
        ticked(session, "tick-1")
        rounds.take_back(session, "tick-1")
        assert ledger.list_of(session, 1) == []
        with pytest.raises(rounds.NoSuchTick):
            rounds.take_back(session, "tick-1")
        assert ticked(session, "tick-1") == ("tick-1", True)


def test_what_is_brought_back_does_not_tick_a_day_twice(database):
    with database.writing() as session:
        ticked(session, "tick-1")
        [row] = ledger.list_of(session, 1)
        ledger.delete(session, [row.id])
        ticked(session, "tick-2")
        ledger.restore(session, [row.id])
        assert [tick.id for tick in rounds.ticks_on(session, "2026-03-04")] == ["tick-2"]
        assert len(ledger.list_of(session, 1)) == 2


def test_what_an_event_was_stays_known(database):
    with database.writing() as session:
        [kept] = ledger.write(session, 1, [ledger.new(Changed(20.0), AT)])
        ledger.update(session, kept.id, 1, ledger.new(Changed(25.0), AT))
        was = [stored.event(row.document).litres for row in ledger.history(session, kept.id)]
        assert was == [25.0, 20.0]
        with pytest.raises(systems.StaleRevision):
            ledger.update(session, kept.id, 1, ledger.new(Changed(30.0), AT))
        with pytest.raises(NoSuchEntry):
            ledger.read(session, 2**63)
