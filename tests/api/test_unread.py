"""One damaged row hides nothing else: every page answers, the row is told in its place, and is put right or set aside."""

import json
import sqlite3
from datetime import UTC, datetime, timedelta

import pytest

from tests.api.test_api import text_of

NOW = datetime.now(UTC)
TODAY = NOW.date().isoformat()


@pytest.fixture
def damaged(client, database):
    """Changes rows of the file behind the server's back, as a failing disk would."""

    def run(sql, *values):
        with sqlite3.connect(database.path) as file:
            file.execute("PRAGMA foreign_keys=OFF")
            done = file.execute(sql, values)
            assert done.rowcount >= 1, sql
        file.close()

    return run


def stocked(client):
    """The demo's house with a row of every kind."""
    kept = {"amount": 12, "counted": TODAY, "lead_d": 7}
    key = client.get("/api/round/supplies", params={"today": TODAY}).json()["supplies"][0]["use"]["key"]
    assert client.put(f"/api/round/supplies/{key}", json=kept).status_code == 204
    assert (
        client.put("/api/systems/1/care/own.look", json={"words": "Look", "rhythm": {"every_d": 3}}).status_code
        == 204
    )
    helpers = {"helpers": [{"name": "Ada", "weekdays": ["Mon"], "hour": 18}]}
    assert client.put("/api/round/helpers", json=helpers).status_code == 204
    tick = {
        "id": "tick-one-1",
        "system_id": 1,
        "duty": "own.look",
        "due": TODAY,
        "at": NOW.isoformat(),
        "day": TODAY,
    }
    assert client.post("/api/round/ticks", json={"ticks": [tick]}).json()["kept"] == ["tick-one-1"]
    row = next(kind for kind in client.get("/api/own").json()["kinds"] if kind["kind"] == "media")["rows"][0]
    cells = {**row["cells"], "label": "Mat", "source": "mine"}
    assert client.post("/api/own/media", json={"cells": cells}).status_code == 201


def pages(client):
    """What every page asks, with its answer."""
    now = {"now": NOW.isoformat()}
    plan = client.get("/api/systems/1").json()["plan"]
    asked = {
        **{
            path: lambda path=path: client.get(path, params={"today": TODAY})
            for path in (
                "/api/systems", "/api/round", "/api/register", "/api/quarantine", "/api/feeding", "/api/breeding",
                "/api/round/supplies", "/api/register.csv", "/api/systems/1/care", "/api/round/calendar/everybody.ics",
            )
        },
        **{
            path: lambda path=path: client.get(path)
            for path in (
                "/api/log", "/api/systems/1/log", "/api/systems/1/log.csv", "/api/own", "/api/waters", "/api/library",
                "/api/systems/names", "/api/systems/1/variants", "/api/rooms", "/api/systems/deleted",
            )
        },
        "nitrate": lambda: client.post("/api/systems/1/nitrate", json={"plan": plan, **now}),
        "trends": lambda: client.post("/api/systems/1/trends", json={"plan": plan, **now}),
        "away": lambda: client.get("/api/round/away", params={"first": TODAY, "last": TODAY}),
        "rack": lambda: client.get("/api/breeding/rack", params={"today": TODAY}),
    }  # fmt: skip
    return {path: ask() for path, ask in asked.items()}


ROWS = [
    ("event", "log", "UPDATE event SET document = ? WHERE id = (SELECT min(id) FROM event WHERE system_id = 1 AND kind = 'change')", '{"kind": "rea'),
    ("event", "log", "UPDATE event SET document = ? WHERE id = (SELECT min(id) FROM event WHERE system_id = 1 AND kind = 'change')", '{"kind": "flood"}'),
    ("event", "log", "UPDATE event SET document = ? WHERE id = (SELECT min(id) FROM event WHERE system_id = 1 AND kind = 'change')", '{"kind": "change", "litres": -1e9}'),
    ("event", "log", "UPDATE event SET document = ? WHERE id = (SELECT min(id) FROM event WHERE system_id = 1 AND kind = 'change')", b"\xff\xfe\x00"),
    ("event", "log", "UPDATE event SET at = ? WHERE id = (SELECT min(id) FROM event WHERE system_id = 1 AND kind = 'change')", "yesterday"),
    ("resident", "register", "UPDATE resident SET document = ? WHERE id = (SELECT min(id) FROM resident)", "[]"),
    ("resident", "register", "UPDATE resident SET document = ? WHERE id = (SELECT min(id) FROM resident)", '{"species": "neon_tetra", "stays_until": "2026-02-30"}'),
    ("event", "register", "UPDATE event SET document = ? WHERE id = (SELECT min(id) FROM event WHERE resident_id = 1)", '{"kind": "arrival", "day": ""}'),
    ("event", "register", "UPDATE event SET document = ? WHERE id = (SELECT min(id) FROM event WHERE resident_id = 1)", '{"kind": "arrival", "day": "2026-01-01", "count": "many"}'),
    ("arriving", "quarantine", "UPDATE arriving SET document = ? WHERE id = (SELECT min(id) FROM arriving)", '{"species": "neon_tetra", "goes_to": 1, "comes_on": ""}'),
    ("course", "quarantine", "UPDATE course SET document = ? WHERE id = (SELECT min(id) FROM course)", '{"tub": 9, "product": "x", "begun": "soon"}'),
    ("tub", "quarantine", "UPDATE tub SET document = ? WHERE system_id = (SELECT min(system_id) FROM tub)", '{"wait_d": "long"}'),
    ("house", "feeding", "UPDATE house SET document = ? WHERE key = 'larder'", "{"),
    ("duty", "round", "UPDATE duty SET document = ? WHERE key = 'own.look'", '{"rhythm": 3}'),
    ("event", "round", "UPDATE event SET due = ? WHERE once = 'tick-one-1'", "2026-02-30"),
    ("event", "round", "UPDATE event SET day = ? WHERE once = 'tick-one-1'", "zzz"),
    ("helper", "round", "UPDATE helper SET weekdays = ? WHERE name = 'Ada'", "Someday"),
    ("helper", "round", "UPDATE helper SET hour = ? WHERE name = 'Ada'", "late"),
    ("stock", "stock", "UPDATE stock SET counted = ? WHERE key = (SELECT min(key) FROM stock)", "the other day"),
    ("stock", "stock", "UPDATE stock SET amount = ? WHERE key = (SELECT min(key) FROM stock)", "a lot"),
    ("own_row", "library", "UPDATE own_row SET cells = ? WHERE kind = 'media'", '{"label": "Mat"}'),
]  # fmt: skip


def unread(client, place):
    return client.get("/api/unread", params={"place": place}).json()["rows"]


@pytest.mark.parametrize(("table", "place", "sql", "value"), ROWS)
def test_one_damaged_row_hides_nothing_else(client, damaged, house, table, place, sql, value):
    stocked(client)
    damaged(sql, value)
    if table == "own_row":
        house.adopt()
    failed = {path: answer.text for path, answer in pages(client).items() if answer.status_code != 200}
    assert failed == {}
    [row] = [row for row in unread(client, place) if row["table"] == table]
    assert text_of(row["why"])
    # What is in no other place is told nowhere else.
    others = {"log", "register", "quarantine", "feeding", "round", "stock", "library"} - {place}
    assert [found for other in others for found in unread(client, other)] == []
    # Set aside and brought back it is as it was.
    at = {"table": table, "key": row["key"]}
    number = client.post("/api/unread/aside", json=at).json()["number"]
    assert [found for found in unread(client, place) if found["table"] == table] == []
    assert client.post(f"/api/unread/aside/{number}/restore").status_code == 204
    assert [found for found in unread(client, place) if found["table"] == table] == [row]
    assert client.post(f"/api/unread/aside/{number}/restore").status_code == 404


@pytest.mark.parametrize(
    ("table", "sql", "value", "right"),
    [
        (ROWS[0][0], ROWS[0][2], ROWS[0][3], {"document": json.dumps({"kind": "note", "note": "found again"})}),
        (ROWS[4][0], ROWS[4][2], ROWS[4][3], {"at": "2026-02-03 10:00:00"}),
        (ROWS[14][0], ROWS[14][2], ROWS[14][3], {"due": TODAY}),
        (ROWS[19][0], ROWS[19][2], ROWS[19][3], {"amount": "12.5"}),
        (ROWS[17][0], ROWS[17][2], ROWS[17][3], {"hour": "18"}),
    ],
)
def test_a_row_is_put_right_or_refused_with_why(client, damaged, table, sql, value, right):
    stocked(client)
    damaged(sql, value)
    place = next(row[1] for row in ROWS if row[2] == sql)
    [row] = [row for row in unread(client, place) if row["table"] == table]
    at = {"table": table, "key": row["key"]}
    wrong = dict.fromkeys(right, "neither this")
    refused = client.put("/api/unread", json={**at, "columns": wrong})
    assert refused.status_code == 422
    assert text_of(refused.json()["sentence"])
    assert client.put("/api/unread", json={**at, "columns": right}).status_code == 204
    assert unread(client, place) == []
    if place == "log":
        assert len(client.get("/api/systems/1/log").json()) > 0
        notes = [row["entry"]["note"] for row in client.get("/api/systems/1/log").json()]
        assert "document" not in right or "found again" in notes


def test_a_story_that_contradicts_itself_is_told(client, damaged):
    damaged(
        "UPDATE event SET document = json_set(document, '$.kind', 'death') WHERE id = (SELECT min(id) FROM event WHERE resident_id = 1)"
    )
    rows = unread(client, "register")
    assert [row["table"] for row in rows] == ["resident"]
    assert "contradicts" in text_of(rows[0]["why"])
    assert client.get("/api/register", params={"today": TODAY}).status_code == 200


def test_a_plan_whose_bytes_are_no_text_opens_as_far_as_it_goes(client, damaged):
    damaged("UPDATE revision SET plan = CAST(x'7b226e616d65223a22ff' AS TEXT) WHERE system_id = 3")
    assert all(answer.status_code == 200 for answer in pages(client).values())
    lines = {line["id"]: line for line in client.get("/api/systems").json()["lines"]}
    assert not lines[3]["readable"]
    assert client.get("/api/systems/3/history").status_code == 200


def test_a_place_or_a_price_that_is_no_number_counts_as_none(client, damaged):
    assert client.put("/api/round/order", json={"systems": [2, 1]}).status_code == 204
    part = {"part": "Pump", "money": 12.0}
    assert client.put("/api/prices", json=part).status_code == 204
    damaged("UPDATE walk SET place = 'first' WHERE system_id = 2")
    damaged("UPDATE price SET money = 'dear'")
    assert {path: a.status_code for path, a in pages(client).items() if a.status_code != 200} == {}
    plan = client.get("/api/systems/1").json()["plan"]
    assert client.post("/api/build/parts.csv", json={"plan": plan, "units": {}}).status_code == 200


@pytest.mark.parametrize("column", ["created", "current"])
def test_a_system_whose_row_is_damaged_is_told_in_the_list(client, damaged, column):
    damaged(f"UPDATE system SET {column} = 'x' WHERE id = 3")
    assert {path: a.status_code for path, a in pages(client).items() if a.status_code != 200} == {}


@pytest.mark.parametrize("key", ["[]", "nothing", '["a", "b"]', "{}"])
def test_what_is_no_row_is_not_found(client, key):
    for at in ({"table": "event", "key": key}, {"table": "sqlite_master", "key": key}):
        assert client.post("/api/unread/aside", json=at).status_code == 404
        assert client.put("/api/unread", json={**at, "columns": {"document": "{}"}}).status_code == 404


# Days at the door -------------------------------------------------------------------------------

NEVER = ["2026-02-30", "0001-01-01", "9999-12-31", "2026-13-01"]


@pytest.mark.parametrize("day", NEVER)
def test_what_is_no_day_of_ours_is_refused_where_it_comes_in(client, day):
    resident = {"species": "neon_tetra", "stays_until": day}
    event = {"kind": "arrival", "day": TODAY, "count": 2, "system": 1}
    written = {"today": TODAY, "resident": resident, "happened": [event]}
    entry = {"kind": "experiment", "what": "light", "until": day}
    kept = client.get("/api/systems/2").json()
    plan = {**kept["plan"], "cycle": {**kept["plan"]["cycle"], "begun_on": day}}
    for answer in (
        client.post("/api/register", json=written),
        client.post(
            "/api/systems/1/log",
            json={"now": NOW.isoformat(), "entries": [{"at": NOW.isoformat(), "entry": entry}]},
        ),
        client.put("/api/systems/2", json={"base": kept["revision"], "plan": plan}),
        client.get("/api/round", params={"today": day}),
        client.get("/api/register", params={"today": day}),
    ):
        assert answer.status_code == 422, answer.text
        assert answer.json()["fields"][0]["sentence"]["text"]


@pytest.mark.parametrize("at", ["0001-01-01T00:00:00+14:00", "9999-12-31T23:59:59-14:00", "1899-12-31T00:00:00Z"])
def test_moments_at_the_ends_of_the_calendar_get_a_sentence(client, at):
    note = {"kind": "note", "note": "x"}
    entries = {"now": NOW.isoformat(), "entries": [{"at": at, "entry": note}]}
    plan = client.get("/api/systems/1").json()["plan"]
    tick = {"id": "tick-nine", "system_id": 1, "duty": "change", "due": TODAY, "at": at, "day": TODAY}
    for answer in (
        client.post("/api/systems/1/log", json=entries),
        client.post("/api/systems/1/log", json={**entries, "now": at}),
        client.post("/api/systems/1/nitrate", json={"plan": plan, "now": at}),
        client.post("/api/round/ticks", json={"ticks": [tick]}),
    ):
        assert answer.status_code == 422, answer.text


def test_a_moment_of_long_ago_is_no_fault(client):
    at = (NOW - timedelta(days=20_000)).isoformat()
    entries = {"now": NOW.isoformat(), "entries": [{"at": at, "entry": {"kind": "note", "note": "x"}}]}
    assert client.post("/api/systems/2/log", json=entries).status_code in (201, 422)
