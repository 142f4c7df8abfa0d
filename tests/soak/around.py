"""Devices that answer strangely, strangers at a device, damaged rows, rows and tables and long work beside quick work."""

import json
import sqlite3
import time
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing
from datetime import UTC, datetime, timedelta
from functools import partial

from fastapi.testclient import TestClient

from loquen.api.app import create_api
from loquen.demo import sluice_street
from loquen.devices.changer.link import ControllerLink
from loquen.devices.changer.machine import Controller
from loquen.house.house import House
from loquen.store.database import open_database
from loquen.store.happened import runs
from tests.api.test_changer import ODD, TOKEN, asks, listening, saying
from tests.api.test_unread import ROWS, pages, stocked, unread
from tests.soak.telling import at_once, client, ms, said


def demo_at(path):
    database = open_database(path)
    sluice_street.fill(database)
    return database


def strange_answers(folder):
    database, good, kept = demo_at(folder / "device.db"), 0, 0
    token = folder / "token"
    token.write_text(TOKEN)
    for odd in ODD.values():
        with saying(*odd) as port:
            answer = TestClient(create_api(House(database), ControllerLink(port, token))).get(
                "/api/rooms/7/controller"
            )
        good += answer.json().get("code") == "controller_nonsense"
        with database.reading() as session:
            kept += len(runs.list_of(session, 7))
    database.close()
    said(
        f"{len(ODD)} strange answers of a device", "26 of 45 a 500; −1e9 L a run", f"{good} told, {kept} runs kept"
    )


def strangers_at_the_valves():
    controller = Controller(master_open=False)
    strangers = (
        {"Content-Type": "text/plain"}, {"Origin": "http://127.0.0.1:8640"}, {"Sec-Fetch-Site": "same-site"},
        {"Host": "pages.example"}, {"Authorization": "Bearer guessed"},
    )  # fmt: skip
    with listening(controller) as port:
        let_in = sum(asks(port, **stranger) == 200 for stranger in strangers)
    said("strangers at the master valve", "opened by any web page", f"{let_in} of {len(strangers)} let in")


def damaged_rows(folder):
    down = shown = 0
    for n, (table, place, sql, value) in enumerate(ROWS):
        path = folder / f"row{n}.db"
        database = demo_at(path)
        house = House(database)
        ours = TestClient(create_api(house), raise_server_exceptions=False)
        stocked(ours)
        with closing(sqlite3.connect(path)) as file, file:
            file.execute("PRAGMA foreign_keys=OFF")
            file.execute(sql, (value,))
        if table == "own_row":
            house.adopt()
        down += any(answer.status_code != 200 for answer in pages(ours).values())
        shown += any(row["table"] == table for row in unread(ours, place))
        database.close()
    said(f"{len(ROWS)} damaged rows", "13 of 20 took pages down", f"{down} did; {shown} shown in their place")


def own_rows_at_once(server, rounds=10):
    kinds = server.http.get("/api/own").json()["kinds"]
    cells = next(kind for kind in kinds if kind["kind"] == "media")["rows"][0]["cells"]
    lost = made = 0
    for n in range(rounds):
        body = {"cells": {**cells, "label": f"Mat {n}", "source": "soak"}}
        came = at_once([partial(client(server).post, "/api/own/media", json=body) for _ in range(8)])
        keys = [answer.json()["key"] for answer in came]
        there = next(kind for kind in server.http.get("/api/own").json()["kinds"] if kind["kind"] == "media")[
            "rows"
        ]
        made += len(keys)
        lost += len(keys) - len(set(keys) & {row["key"] for row in there})
    said("own rows, eight at once of one name", "6 of 8 acknowledged lost", f"{lost} of {made} lost")


def table_of(lines):
    now = datetime.now(UTC)
    rows = ["date,time,nitrate,ph,kh"]
    rows += [
        f"{now - timedelta(hours=6 * n + 1):%Y-%m-%d,%H:%M},{10 + n % 20},7.{n % 5},{4 + n % 3}"
        for n in range(lines)
    ]
    return {"text": "\n".join(rows), "zone_min": 0, "now": (now + timedelta(days=1)).isoformat()}


def table_while_saving(server, lines=8000):
    number, body = server.copy_of(2), table_of(lines)
    slowest, refused, saves = 0.0, 0, 0
    with ThreadPoolExecutor(1) as pool:
        began = time.monotonic()
        brought = pool.submit(client(server).post, f"/api/systems/{number}/log/table", json=body)
        while not brought.done():
            sent = time.monotonic()
            answer = server.http.post("/api/systems/2/copy")
            slowest, saves = max(slowest, time.monotonic() - sent), saves + 1
            refused += answer.status_code == 503
            time.sleep(0.05)
        took = time.monotonic() - began
    kept = brought.result().json()["new"]
    said(
        f"{lines} lines brought in ({kept} entries, {took:.1f} s), saves meanwhile",
        "held for 27 s, every save 503",
        f"slowest of {saves} {ms(slowest)}, {refused} refused",
    )


def quick_beside_long(server, seconds=6):
    plan = server.plan(1)
    wanted = {"plan": {**plan, "tank": {**plan["tank"], "tank_height_cm": 30}}, "pins": [], "months_ahead": 0}
    first = {"name": "x", "animals": [{"species": "discus", "number": 9}, {"species": "neon_tetra", "number": 30}]}
    edits = []
    with ThreadPoolExecutor(2) as pool:
        long = [
            pool.submit(client(server).post, "/api/plan/settle", json=wanted),
            pool.submit(client(server).post, "/api/plan/first", json=first),
        ]
        until = time.monotonic() + seconds
        while time.monotonic() < until and not all(one.done() for one in long):
            sent = time.monotonic()
            server.http.post("/api/sheet", json={"plan": plan})
            edits.append(time.monotonic() - sent)
            time.sleep(0.1)
        answered = [one.result().status_code for one in long]
    edits.sort()
    said(
        f"a sheet while two searches run ({answered})",
        "5.6 s",
        f"median {ms(edits[len(edits) // 2])}, slowest {ms(edits[-1])}",
    )


def log_out_and_in(server):
    notes = ["'=1+1", "  two blanks", "a\nb", "=1", "'"]
    now = datetime.now(UTC)
    entries = [
        {"at": (now - timedelta(days=1, microseconds=7 * n)).isoformat(), "entry": {"kind": "note", "note": note}}
        for n, note in enumerate(notes)
    ]
    number = server.copy_of(2)
    server.http.post(f"/api/systems/{number}/log", json={"now": now.isoformat(), "entries": entries})
    new = 0
    for system in (1, number):
        text = server.http.get(f"/api/systems/{system}/log.csv").text
        body = {"text": text, "zone_min": 0, "now": (now + timedelta(days=1)).isoformat()}
        new += json.loads(server.http.post(f"/api/systems/{system}/log/preview", json=body).text)["new"]
    said("a log taken out and brought in", "moments, breaks and blanks were new", f"{new} entries new")
