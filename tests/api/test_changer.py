"""A changer's controller: its timetable, its faults, what comes back to the logs; whom it answers, and what is believed of it."""

import json
import shutil
import socket
import threading
import time
from contextlib import contextmanager
from http.server import ThreadingHTTPServer

import httpx
import pytest
from fastapi.testclient import TestClient

from loquen.api.app import create_api
from loquen.core.rooms.diagnosis import RunSeen, ZoneKnown, suspects
from loquen.devices.changer import secret
from loquen.devices.changer.door import handler_of
from loquen.devices.changer.link import PATIENCE_S, ControllerLink
from loquen.devices.changer.machine import Controller, Limits
from loquen.house.house import House
from loquen.store.database import open_database
from loquen.store.happened import runs

TOKEN = "a token of this test"


@pytest.fixture
def database(tmp_path, demo_file):
    database = open_database(shutil.copy(demo_file, tmp_path / "rooms.db"))
    yield database
    database.close()


@pytest.fixture
def token(tmp_path):
    path = tmp_path / "controller-token"
    path.write_text(TOKEN)
    return path


@contextmanager
def listening(controller):
    server = ThreadingHTTPServer(("127.0.0.1", 0), handler_of(controller, TOKEN))
    threading.Thread(target=server.serve_forever, daemon=True).start()
    yield server.server_address[1]
    server.shutdown()
    server.server_close()


@pytest.fixture
def controlled(database, token):
    """The demo with a controller of its own."""
    controller = Controller(begun="test", seed=3)
    with listening(controller) as port:
        yield TestClient(create_api(House(database), ControllerLink(port, token))), controller


@pytest.fixture
def client(controlled):
    return controlled[0]


def the_room(client):
    (row,) = client.get("/api/rooms").json()
    return client.get(f"/api/rooms/{row['id']}").json()


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


def test_a_controller_that_is_away_is_said_so(database):
    for port, status, code in ((None, 404, "no_controller"), (9, 502, "controller_away")):
        answer = TestClient(create_api(House(database), ControllerLink(port))).get("/api/rooms/7/controller")
        assert answer.status_code == status
        assert answer.json()["code"] == code


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


# Who may ask ------------------------------------------------------------------------------------


def asks(port, method="POST", path="/master", content=b'{"open": true}', drop=(), **headers):
    """What the device says to a request as Loquen sends it, with some headers otherwise."""
    usual = {"Authorization": f"Bearer {TOKEN}", "Content-Type": "application/json"}
    given = {name: value for name, value in {**usual, **headers}.items() if name not in drop}
    with httpx.Client(trust_env=False) as ours:
        return ours.request(method, f"http://127.0.0.1:{port}{path}", content=content, headers=given).status_code


@pytest.mark.parametrize(
    ("status", "otherwise"),
    [
        (415, {"Content-Type": "text/plain"}),
        (403, {"Origin": "http://127.0.0.1:8640"}),
        (403, {"Origin": "null"}),
        (403, {"Sec-Fetch-Site": "same-site"}),
        (403, {"Host": "pages.example"}),
        (403, {"Host": "127.0.0.1:1"}),
        (401, {"Authorization": "Bearer guessed"}),
        (401, {"Authorization": ""}),
    ],
)
def test_the_device_answers_nobody_but_who_has_its_token(status, otherwise):
    controller = Controller(master_open=False)
    with listening(controller) as port:
        assert asks(port, **otherwise) == status
        assert not controller.master_open
        if status != 415:
            assert asks(port, "GET", "/state", b"", **otherwise) == status
        assert asks(port) == 200
        assert controller.master_open


def test_a_slow_or_odd_request_does_not_hold_the_device_up():
    with listening(Controller()) as port:
        with socket.create_connection(("127.0.0.1", port)) as slow:
            head = f"POST /master HTTP/1.1\r\nHost: 127.0.0.1:{port}\r\nAuthorization: Bearer {TOKEN}\r\n"
            slow.sendall((head + "Content-Type: application/json\r\nContent-Length: 9\r\n\r\n{").encode())
            began = time.monotonic()
            assert asks(port) == 200
            assert time.monotonic() - began < 3
        assert asks(port, "GET", "/runs?since=many", b"") == 400
        assert asks(port, content=b"[" * 100_000) == 400
        assert asks(port, content=b"[]") == 400


def one_pulse(lph=100.0, minutes=10.0, fed_c=24.0):
    zones = [{"zone": 1, "name": "x", "flow_lph": lph, "emitters": 4, "fed_c": fed_c}]
    return {"id": "a", "mixed_c": 24, "zones": zones, "pulses": [{"zone": 1, "start_min": 0, "end_min": minutes}]}


@pytest.mark.parametrize(
    "beyond",
    [
        one_pulse(lph=1e9),
        one_pulse(fed_c=60),
        one_pulse(fed_c=-3),
        one_pulse(minutes=300),
        one_pulse(lph=float("nan")),
        one_pulse(lph="100"),
        {**one_pulse(), "mixed_c": 60},
        {
            **one_pulse(lph=1200),
            "pulses": [{"zone": 1, "start_min": 240 * n, "end_min": 240 * n + 60} for n in range(5)],
        },
    ],
)
def test_the_device_keeps_its_own_limits(beyond):
    """Limits: 1 000 L a pulse, 5 000 L a day, 240 min, 4 to 34 °C; the last plan is 5 pulses of 1 200 L."""
    controller = Controller(limits=Limits(pulse_l=1000, day_l=5000))
    controller.hold(one_pulse())
    with pytest.raises(ValueError, match=r"entered at it|are a number"):
        controller.hold(beyond)
    assert controller.timetable == one_pulse()


def test_a_refusal_of_the_device_is_told_in_its_words(controlled):
    client, controller = controlled
    controller.limits = Limits(pulse_min=1)
    answer = send(client)
    assert (answer.status_code, answer.json()["code"]) == (422, "controller_refused")
    assert "it takes 1, as entered at it" in answer.json()["sentence"]["terms"]["what"]["value"]


def test_the_token_is_for_its_owner_alone_and_new_each_time(tmp_path):
    path = tmp_path / "deep" / "token"
    first = secret.made(path)
    assert path.stat().st_mode & 0o777 == 0o600
    assert secret.read(path) == first
    assert secret.made(path) != first
    assert secret.read(tmp_path / "none") == ""


# What is believed of it -------------------------------------------------------------------------

STATE = {
    "begun": "b", "clock_min": 100.0, "timetable": None, "master_open": True, "meter_l": 5.0,
    "store_full": True, "leak": False, "power": True, "runs": 1, "faults": [], "knows": {},
}  # fmt: skip
RUN = {
    "n": 1, "zone": 1, "start_min": 10.0, "end_min": 20.0, "planned_l": 60.0, "metered_l": 59.0,
    "mixed_c": 24.0, "ended_by": "timetable",
}  # fmt: skip


def ok(body):
    text = body if isinstance(body, bytes) else json.dumps(body).encode()
    return b"HTTP/1.1 200 OK\r\nContent-Length: %d\r\n\r\n%s" % (len(text), text)


@contextmanager
def saying(state, told):
    """A device that answers with these bytes whatever it is asked."""
    server = socket.create_server(("127.0.0.1", 0))

    def answer():
        while True:
            try:
                line, _ = server.accept()
            except OSError:
                return
            with line:
                asked = line.recv(65_536)
                try:
                    for part in told if b"/runs" in asked else state:
                        line.sendall(part)
                        time.sleep(0.2 if len(part) == 1 else 0)
                except OSError:
                    continue

    threading.Thread(target=answer, daemon=True).start()
    yield server.getsockname()[1]
    server.close()


def states(**other):
    return [ok({**STATE, **other})], [ok({"runs": [RUN]})]


def told_runs(*rows):
    return [ok(STATE)], [ok({"runs": list(rows)})]


ODD = {
    "a page": ([ok(b"<html>")], []),
    "a list": ([ok(b"[]")], []),
    "nothing in it": ([ok(b"{}")], []),
    "deep": ([ok(b"[" * 200_000)], []),
    "no clock": states(clock_min=float("nan")),
    "a clock of words": states(clock_min="late"),
    "a clock without end": states(clock_min=1e300),
    "a clock under nothing": states(clock_min=-5.0),
    "a switch of words": states(master_open="yes"),
    "no start": states(begun=""),
    "a start with a line break": states(begun="a\nb"),
    "faults of another shape": states(faults=[1]),
    "a zone out of bounds": states(faults=[{"fault": "leak", "zone": 2**70}]),
    "no runs": ([ok(STATE)], [ok({"runs": None})]),
    "a run number over 2^63": told_runs({**RUN, "n": 2**63}),
    "a run number under one": told_runs({**RUN, "n": 0}),
    "twice the same run": told_runs(RUN, {**RUN, "metered_l": 3.0}),
    "litres under nothing": told_runs({**RUN, "metered_l": -1e9}),
    "litres without end": told_runs({**RUN, "metered_l": 1e12}),
    "litres that are no number": told_runs({**RUN, "planned_l": float("inf")}),
    "ends before it starts": told_runs({**RUN, "end_min": 5.0}),
    "ends in a year": told_runs({**RUN, "end_min": 500_000.0}),
    "ended by something else": told_runs({**RUN, "ended_by": "<b>"}),
    "one good run and a bad one": told_runs(RUN, {**RUN, "n": 2, "mixed_c": 900.0}),
    "elsewhere": ([b"HTTP/1.1 302 Found\r\nLocation: http://127.0.0.1:9/\r\nContent-Length: 0\r\n\r\n"], []),
    "fails": ([b"HTTP/1.1 500 No\r\nContent-Length: 0\r\n\r\n"], []),
    "no HTTP": ([b"hello\r\n\r\n"], []),
    "a bad chunk": ([b"HTTP/1.1 200 OK\r\nTransfer-Encoding: chunked\r\n\r\nzz\r\n{}"], []),
    "cut short": ([b"HTTP/1.1 200 OK\r\nContent-Length: 900\r\n\r\n{"], []),
    "heads without end": ([b"HTTP/1.1 200 OK\r\n" + b"X: y\r\n" * 200_000], []),
}


@pytest.mark.parametrize("odd", ODD)
def test_what_is_no_answer_is_told_and_nothing_of_it_is_kept(database, token, odd):
    with saying(*ODD[odd]) as port:
        answer = TestClient(create_api(House(database), ControllerLink(port, token))).get("/api/rooms/7/controller")
    assert (answer.status_code, answer.json()["code"]) == (502, "controller_nonsense"), answer.text
    with database.reading() as session:
        assert runs.list_of(session, 7) == []


def test_what_is_an_answer_is_kept_once(database, token):
    with saying(*told_runs(RUN)) as port:
        client = TestClient(create_api(House(database), ControllerLink(port, token)))
        assert [client.get("/api/rooms/7/controller").json()["fetched"] for _ in range(2)] == [1, 0]


def test_a_byte_now_and_then_is_late_and_holds_nobody_else_up(database, token):
    slow = [bytes([byte]) for byte in ok(STATE)]
    with saying(slow, []) as port, TestClient(create_api(House(database), ControllerLink(port, token))) as client:
        codes = []
        began = time.monotonic()
        waits = threading.Thread(target=lambda: codes.append(client.get("/api/rooms/7/controller").json()["code"]))
        waits.start()
        assert client.get("/api/systems").status_code == 200
        assert waits.is_alive()
        waits.join()
    assert codes == ["controller_late"]
    assert time.monotonic() - began >= PATIENCE_S
