"""Rooms over HTTP: kept, computed, laid out."""

import io

import pytest
from pypdf import PdfReader


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
