"""A plan that can not be read hides no other, keeps its history, and can be put right."""

import json

import pytest
from sqlalchemy import text

from loquen.demo import sluice_street
from tests.api.test_api import text_of

BROKEN = {
    "no JSON": ('{"name": "Tidal Corner", "tank": {', "no JSON"),
    "no document": ("[]", "not a document"),
    "a newer version": ('{"name": "Tidal Corner", "version": 7}', "A newer Loquen wrote it: version 7"),
    "no version": ('{"name": "Tidal Corner", "version": -1}', "“-1”, which is none"),
    "a shape that is gone": (
        '{"name": "Tidal Corner", "tank": {"shape": "blob"}}',
        "tank.shape: “blob” can not be chosen",
    ),
    "a field that is gone": ('{"name": "Tidal Corner", "tank": {"colour": 1}}', "tank.colour"),
}


@pytest.fixture
def store(database):
    """Writes what is stored of a system's first revision, as damage would."""

    def write(system_id, document):
        with database.writing() as session:
            where = "WHERE system_id = :id AND number = 1"
            session.execute(text(f"UPDATE revision SET plan = :plan {where}"), {"plan": document, "id": system_id})

    return write


def line(client, name):
    return next(row for row in client.get("/api/systems").json()["lines"] if row["name"] == name)


@pytest.mark.parametrize("name", list(BROKEN))
def test_the_rest_stand_and_the_reason_is_told(client, store, name):
    stored, why = BROKEN[name]
    store(2, stored)
    listing = client.get("/api/systems").json()
    assert listing["total"] == len(listing["lines"]) == 11
    broken = listing["lines"][1]
    assert (broken["readable"], broken["section"], broken["glasses"]) == (False, None, [])
    assert why in text_of(broken["summary"])
    if name != "no document":
        assert broken["name"] == "Tidal Corner"
    answer = client.get("/api/systems/2")
    assert (answer.status_code, answer.json()["code"]) == (422, "unreadable")
    assert client.post("/api/systems/2/copy").json()["code"] == "unreadable"
    assert client.get("/api/systems/names").json()[1]["id"] == 2
    assert client.get("/api/systems/2/revisions/1").text == stored
    assert client.delete("/api/systems/2").status_code == 204
    assert client.post("/api/systems/2/restore").status_code == 204


def test_a_missing_revision(client, database):
    with database.writing() as session:
        session.execute(text("DELETE FROM revision WHERE system_id = 2"))
    assert "missing from the data file" in text_of(client.get("/api/systems").json()["lines"][1]["summary"])
    history = client.get("/api/systems/2/history").json()
    assert (history["revisions"], "missing" in history["why"]["text"]) == ([], True)


def test_a_species_that_is_gone_can_be_mended_in_the_page(client, store):
    plan = json.loads(json.dumps(client.get("/api/systems/2").json()["plan"]))
    plan["animals"][0]["species"] = "gone_fish"
    store(2, json.dumps(plan))
    broken = line(client, "Tidal Corner")
    assert broken["readable"]
    assert text_of(broken["summary"]) == "“gone_fish” is not in the library."
    assert client.get("/api/systems/2").json()["plan"]["animals"][0]["species"] == "gone_fish"
    assert client.post("/api/sheet", json={"plan": plan}).json()["fields"][0]["path"] == "animals.0.species"


def test_a_longer_list_of_an_older_release_opens_and_says_so(client, store):
    plan = client.get("/api/systems/2").json()["plan"]
    plan["bags"] = [{}] * 30
    store(2, json.dumps(plan))
    assert text_of(line(client, "Tidal Corner")["summary"]) == "At most 16 of them."
    assert len(client.get("/api/systems/2").json()["plan"]["bags"]) == 30


def test_an_earlier_revision_is_put_back_on_top_and_nothing_is_lost(client, database):
    plan = {**client.get("/api/systems/2").json()["plan"], "name": "Wider"}
    client.put("/api/systems/2", json={"base": 1, "plan": plan})
    with database.writing() as session:
        session.execute(text("UPDATE revision SET plan = 'x' WHERE system_id = 2 AND number = 2"))
    history = client.get("/api/systems/2/history").json()
    assert [(row["number"], row["why"] is None) for row in history["revisions"]] == [(2, False), (1, True)]
    assert history["current"] == 2
    refused = client.post("/api/systems/2/put-back", json={"base": 1, "number": 1})
    assert (refused.status_code, refused.json()["current"]) == (409, 2)
    assert (
        client.post("/api/systems/2/put-back", json={"base": 2, "number": 9}).json()["code"] == "no_such_revision"
    )
    back = client.post("/api/systems/2/put-back", json={"base": 2, "number": 1}).json()
    assert (back["revision"], back["plan"]["name"]) == (3, "Tidal Corner")
    assert client.get("/api/systems/2/revisions/2").text == "x"
    # One step back lies what can not be read: that is said, and the plan stays where it is.
    assert client.post("/api/systems/2/undo", json={"base": 3}).json()["code"] == "unreadable"
    assert client.get("/api/systems/2").json()["revision"] == 3


def test_a_water_that_can_not_be_read_hides_no_other(client, database):
    with database.writing() as session:
        session.execute(text("UPDATE water SET document = '{' WHERE id = 2"))
    waters = client.get("/api/waters").json()
    assert [row["water"] is None for row in waters] == [False, True, False]
    assert "no JSON" in waters[1]["why"]["text"]
    assert client.delete("/api/waters/2").status_code == 204
    assert client.get("/api/waters/deleted").json()[0]["name"] == "Water 2"


def test_a_stale_water_is_a_conflict(client):
    (tap, *_) = client.get("/api/waters").json()
    body = {"base": tap["revision"], "sources": [{**tap["water"], "src_kh_dkh": 6}]}
    assert client.put(f"/api/waters/{tap['id']}", json=body).json()["revision"] == 2
    late = client.put(f"/api/waters/{tap['id']}", json=body)
    assert (late.status_code, late.json()["code"], late.json()["current"]) == (409, "stale_revision", 2)


def test_a_full_disk_and_a_busy_store_are_told(client, monkeypatch):
    from loquen.store.faults import Busy, CanNotWrite

    plan = {**client.get("/api/systems/2").json()["plan"], "name": "Wider"}
    for fault, status in ((Busy(), 503), (CanNotWrite("full"), 507), (CanNotWrite("read_only"), 507)):

        def refuse(*_, fault=fault):
            raise fault

        monkeypatch.setattr("loquen.store.documents.systems.update", refuse)
        answer = client.put("/api/systems/2", json={"base": 1, "plan": plan})
        assert (answer.status_code, answer.json()["code"]) == (status, fault.code)
        assert text_of(answer.json()["sentence"]) == fault.sentence
        # Whoever may come again is told when.
        assert ("Retry-After" in answer.headers) == (status == 503)


def test_the_demo_keeps_its_readings_of_names():
    assert [plan.name for plan in (sluice_street.long_hall(), sluice_street.tidal_corner())] == [
        "Long Hall",
        "Tidal Corner",
    ]
