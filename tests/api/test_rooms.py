"""Rooms over HTTP: kept, computed, laid out; their controller, its faults and what comes back to the logs."""

import io
import threading
from http.server import BaseHTTPRequestHandler, HTTPServer, ThreadingHTTPServer

import pytest
from fastapi.testclient import TestClient
from pypdf import PdfReader

from loquen.api.app import create_api
from loquen.core.rooms.diagnosis import RunSeen, ZoneKnown, suspects
from loquen.demo import sluice_street
from loquen.devices.controller import Controller, handler_of
from loquen.store.database import open_database


@pytest.fixture
def controlled(tmp_path):
    """The demo with a controller of its own."""
    controller = Controller(begun="test", seed=3)
    server = ThreadingHTTPServer(("127.0.0.1", 0), handler_of(controller))
    threading.Thread(target=server.serve_forever, daemon=True).start()
    database = open_database(tmp_path / "rooms.db")
    sluice_street.fill(database)
    client = TestClient(create_api(database, server.server_address[1]))
    yield client, controller
    server.shutdown()
    server.server_close()
    database.close()


@pytest.fixture
def client(controlled):
    return controlled[0]


def the_room(client):
    (row,) = client.get("/api/rooms").json()
    return client.get(f"/api/rooms/{row['id']}").json()


def test_a_room_is_listed_with_what_stands_in_it(client):
    assert client.get("/api/rooms").json() == [{"id": 7, "name": "Sluice Street", "racks": 3, "tanks": 29}]
    # A room is no system, nor the other way round.
    assert client.get("/api/systems/7").status_code == 404
    fault = client.get("/api/rooms/1")
    assert fault.status_code == 404
    assert fault.json()["code"] == "no_such_room"


def test_saved_undone_redone_and_put_away(client):
    kept = the_room(client)
    room = {**kept["room"], "name": "Rope works"}
    saved = client.put("/api/rooms/7", json={"base": 1, "room": room}).json()
    assert (saved["revision"], saved["room"]["name"], saved["can_undo"]) == (2, "Rope works", True)
    assert client.put("/api/rooms/7", json={"base": 1, "room": room}).status_code == 409
    assert client.post("/api/rooms/7/undo", json={"base": 2}).json()["room"]["name"] == "Sluice Street"
    assert client.post("/api/rooms/7/redo", json={"base": 1}).json()["room"]["name"] == "Rope works"
    assert client.delete("/api/rooms/7").status_code == 204
    assert client.get("/api/rooms").json() == []
    assert [row["name"] for row in client.get("/api/rooms/deleted").json()] == ["Rope works"]
    assert client.post("/api/rooms/7/restore").status_code == 204
    assert len(client.get("/api/rooms").json()) == 1
    assert len(client.get("/api/systems/names").json()) == 11


def test_a_draft_is_computed_with_the_systems_that_stand_in_it(client):
    room = the_room(client)["room"]
    sheet = client.post("/api/room/sheet", json={"room": room}).json()
    assert sheet["figures"]["tank_number"]["value"] == 29
    assert {zone["name"] for zone in sheet["zones"]} == {"Rope Walk A", "Rope Walk B"}
    b = next(row for row in sheet["exchanged"] if row["name"] == "B1")
    system = client.post("/api/sheet", json={"plan": client.get("/api/systems/3").json()["plan"]}).json()
    rise = system["figures"]["rise_nitrate_mg_l_d"]["value"]
    source = room["supply"]["supply_nitrate_mg_l"]
    assert b["nitrate"] == pytest.approx(source + rise / b["exchanged_frac"], rel=1e-6)
    assert [season["name"] for season in sheet["seasons"]] == ["winter", "summer"]
    assert sheet["parts"]
    assert sheet["commissioning"]


def test_the_room_follows_an_edit_of_a_system(client):
    room = the_room(client)["room"]

    def nitrate():
        rows = client.post("/api/room/sheet", json={"room": room}).json()["exchanged"]
        return next(row["nitrate"] for row in rows if row["name"] == "B1")

    before = nitrate()
    kept = client.get("/api/systems/3").json()
    kept["plan"]["changes"]["logged_rise_nitrate_mg_l_d"] = 3.0
    assert client.put("/api/systems/3", json={"base": kept["revision"], "plan": kept["plan"]}).status_code == 200
    assert nitrate() > before * 1.3


def test_a_system_that_is_gone_leaves_its_tank(client):
    room = the_room(client)["room"]
    client.delete("/api/systems/3")
    sheet = client.post("/api/room/sheet", json={"room": room}).json()
    b = next(tank for tank in sheet["tanks"] if tank["name"] == "B1")
    assert (b["system"], b["system_name"]) == (3, "")


@pytest.mark.parametrize(
    ("path", "value", "words"),
    [
        (("places", 0, "rack"), 9, "It stands on no rack"),
        (("windows", 0, "window_to_h"), 0.0, "It ends before it begins"),
        (("zones", 0, "header_mm"), 0, "Its bore is below what is possible"),
        (("supply", "tested_kpa"), 500, "With water running it can not stay"),
    ],
)
def test_what_is_wrong_is_said_where_it_is(client, path, value, words):
    room = the_room(client)["room"]
    part = room
    for key in path[:-1]:
        part = part[key]
    part[path[-1]] = value
    answer = client.post("/api/room/sheet", json={"room": room})
    assert answer.status_code == 422
    (fault,) = answer.json()["fields"]
    assert fault["path"] == ".".join(map(str, path))
    text = fault["sentence"]["text"].format(**{k: t["value"] for k, t in fault["sentence"]["terms"].items()})
    assert words in text


def test_racks_zones_trials_and_workings(client):
    room = {"name": "New"}
    made = client.post(
        "/api/room/rack",
        json={"room": room, "name": "Wall", "tanks": 12, "shelves": 3, "litres": 54, "system": 0},
    ).json()["room"]
    assert len(made["places"]) == 12
    zones = client.post("/api/room/zones", json={"room": made, "share": 0.2}).json()
    assert zones["zones"][0]["tanks"] == 12
    rows = client.post("/api/room/trials", json={"room": zones["room"], "zone": 1}).json()["rows"]
    assert rows[0]["key"] == "as_is"
    working = client.post("/api/room/working", json={"room": zones["room"], "figure": "changer_l_d"}).json()
    assert working["nodes"]["changer_l_d"]["formula"]
    assert client.post("/api/room/zones", json={"room": room, "share": 0.2}).status_code == 422


def test_a_rack_of_one_system_takes_its_litres(client):
    made = client.post(
        "/api/room/rack",
        json={"room": {"name": "New"}, "name": "B", "tanks": 4, "shelves": 2, "litres": 54, "system": 3},
    ).json()["room"]
    assert {place["system"] for place in made["places"]} == {3}
    sheet = client.post("/api/room/sheet", json={"room": made}).json()
    assert sheet["tanks"][0]["litres"] == pytest.approx(91.2, abs=0.1)


def test_a_rooms_book_and_parts_are_taken_away(client):
    room = the_room(client)["room"]
    client.put("/api/prices", json={"part": "Strainer", "money": 12.5})
    book = client.post("/api/room/book/book.pdf", json={"room": room, "units": {"flow": "gal/h"}})
    text = "\n".join(page.extract_text() for page in PdfReader(io.BytesIO(book.content)).pages)
    for words in (
        "Sluice Street",
        "A12",
        "gal/h",
        "Strainer",
        "12.5",
        "licensed person",
        "Even along each zone",
        "00:00:00",
    ):
        assert words in text
    table = client.post("/api/room/book/parts.csv", json={"room": room}).text.splitlines()
    assert table[0] == "part,quantity,unit,spare,for,price of one,together"
    assert "Strainer,1,pieces,1,tap,12.5,25.0" in table
    empty = client.post("/api/room/book/book.pdf", json={"room": {"name": "New"}})
    assert empty.status_code == 422


# The controller ---------------------------------------------------------------------------------


def send(client):
    return client.post("/api/rooms/7/controller/timetable", json={"season": "winter"})


def a_day(client):
    return client.post("/api/rooms/7/controller/clock", json={"minutes": 1440}).json()


def test_a_timetable_is_sent_read_back_and_verified(controlled):
    client, controller = controlled
    before = client.get("/api/rooms/7/controller").json()
    assert before["sent"] == {"timetable": "", "verified": False, "current": False}
    after = send(client).json()
    assert after["sent"]["verified"]
    assert after["sent"]["current"]
    sheet = client.post("/api/room/sheet", json={"room": the_room(client)["room"]}).json()
    planned = sheet["seasons"][0]["hot"]["table"]["schedule"]
    assert [row["zone"] for row in controller.timetable["pulses"]] == [row["zone"] for row in planned]
    room = the_room(client)["room"]
    room["zones"][0]["zone_min"] = 30
    client.put("/api/rooms/7", json={"base": 1, "room": room})
    assert not client.get("/api/rooms/7/controller").json()["sent"]["current"]


def test_runs_come_back_to_the_logs_once(client):
    send(client)
    day = a_day(client)
    assert len(day["runs"]) == 6
    logs = client.get("/api/systems/3/log").json()
    changes = [row for row in logs if "changer" in row["entry"]["note"]]
    assert len(changes) == 4
    shares = [row["entry"]["share"] for row in changes]
    kept = 1.0
    for share in shares:
        kept *= 1 - share
    sheet = client.post("/api/room/sheet", json={"room": the_room(client)["room"]}).json()
    b = next(row["exchanged_frac"] for row in sheet["exchanged"] if row["name"] == "B6")
    assert 1 - kept == pytest.approx(b, rel=0.06)
    again = client.get("/api/rooms/7/controller").json()
    assert again["fetched"] == 0
    assert len(client.get("/api/systems/3/log").json()) == len(logs)


@pytest.mark.parametrize(
    ("fault", "zone", "key"),
    [
        ("stuck_closed", 1, "stuck_closed"),
        ("stuck_open", 1, "stuck_open"),
        ("blocked", 2, "blocked"),
        ("empty_store", 0, "store"),
        ("leak", 0, "leak"),
        ("meter_drift", 0, "meter"),
    ],
)
def test_a_fault_is_found_by_its_litres(client, fault, zone, key):
    send(client)
    client.post("/api/rooms/7/controller/faults", json={"fault": fault, "on": True, "zone": zone})
    day = a_day(client)
    named = {row["key"] for row in day["suspects"] if row["odds"] > 0.3}
    assert key in named
    assert sum(row["odds"] for row in day["suspects"]) == pytest.approx(1, abs=0.2)


def test_nothing_wrong_is_said_so(client):
    send(client)
    day = a_day(client)
    assert day["suspects"][0]["key"] == "well"
    assert day["suspects"][0]["odds"] > 0.8


def test_a_leak_shuts_everything_until_it_is_dry(client):
    send(client)
    client.post("/api/rooms/7/controller/faults", json={"fault": "leak", "on": True})
    day = a_day(client)
    assert not day["master_open"]
    assert len(day["runs"]) == 1
    assert not client.post("/api/rooms/7/controller/master", json={"open": True}).json()["master_open"]
    client.post("/api/rooms/7/controller/faults", json={"fault": "leak", "on": False})
    assert client.post("/api/rooms/7/controller/master", json={"open": True}).json()["master_open"]
    assert len(a_day(client)["runs"]) == 1 + 6


def test_without_power_nothing_runs(client):
    send(client)
    client.post("/api/rooms/7/controller/faults", json={"fault": "power_cut", "on": True})
    assert a_day(client)["runs"] == []


def test_a_day_that_would_empty_the_store_is_not_sent(controlled):
    client, controller = controlled
    room = the_room(client)["room"]
    room["store"] |= {"store_l": 30, "hot_w": 100}
    client.put("/api/rooms/7", json={"base": 1, "room": room})
    refused = send(client)
    assert refused.status_code == 422
    assert refused.json()["code"] == "store_would_empty"
    assert controller.timetable is None


def test_a_controller_that_is_away_is_said_so(tmp_path):
    database = open_database(tmp_path / "x.db")
    sluice_street.fill(database)
    for port, code in ((None, "no_controller"), (9, "controller_away")):
        answer = TestClient(create_api(database, port)).get("/api/rooms/7/controller")
        assert answer.status_code == 503
        assert answer.json()["code"] == code
    database.close()


@pytest.mark.parametrize(
    ("says", "code"),
    [(b"<html>", "controller_nonsense"), (b"[]", "controller_nonsense"), (b"{}", "controller_nonsense")],
)
def test_a_controller_that_answers_nonsense_is_said_so(tmp_path, says, code):
    class Odd(BaseHTTPRequestHandler):
        def log_message(self, *_):
            return

        def do_GET(self):
            self.send_response(200)
            self.end_headers()
            self.wfile.write(says)

    server = HTTPServer(("127.0.0.1", 0), Odd)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    database = open_database(tmp_path / "x.db")
    sluice_street.fill(database)
    answer = TestClient(create_api(database, server.server_address[1])).get("/api/rooms/7/controller")
    assert answer.json()["code"] == code
    server.shutdown()
    server.server_close()
    database.close()


def test_the_controller_takes_no_timetable_that_is_none():
    controller = Controller()
    zones = [{"zone": 1, "name": "x", "flow_lph": 100, "emitters": 4}]
    good = {"id": "a", "mixed_c": 24, "zones": zones, "pulses": [{"zone": 1, "start_min": 0, "end_min": 10}]}
    for wrong in (
        {"id": "a"},
        {**good, "pulses": [{"zone": 2, "start_min": 0, "end_min": 10}]},
        {**good, "pulses": [{"zone": 1, "start_min": 10, "end_min": 5}]},
        {
            **good,
            "pulses": [{"zone": 1, "start_min": 0, "end_min": 10}, {"zone": 1, "start_min": 5, "end_min": 15}],
        },
    ):
        with pytest.raises(ValueError, match=r"."):
            controller.hold(wrong)
    controller.hold(good)
    controller.advance(2 * 1440)
    assert [run.start_min for run in controller.runs] == [0, 1440]
    assert controller.meter_l == pytest.approx(2 * 100 / 6, rel=0.05)


def test_one_zone_that_falls_is_an_emitter_and_all_that_fall_are_not():
    zones = [ZoneKnown(1, "One", 10), ZoneKnown(2, "Two", 10)]
    one = suspects(
        [RunSeen(1, 100, 91, "timetable"), RunSeen(1, 100, 91, "timetable"), RunSeen(2, 100, 100, "timetable")],
        zones,
    )
    assert (one[0].key, one[0].zone) == ("blocked", 1)
    every = suspects([RunSeen(1, 100, 80, "timetable"), RunSeen(2, 100, 81, "timetable")], zones)
    assert {row.key for row in every[:2]} == {"meter", "pressure"}
