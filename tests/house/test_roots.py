"""A root is one description: a fourth one, from a folder of its own, is kept, computed and explained by one registration."""

import pytest
from fastapi.testclient import TestClient

from loquen.api.app import create_api
from loquen.house.roots import ROOTS
from tests.house.pantry.root import PANTRIES

JARS = [{"food": "dry", "jar_g": 800}, {"food": "frozen", "jar_g": 900}]


@pytest.fixture
def pantry(house):
    """Loquen with a pantry registered beside what it keeps."""
    return TestClient(create_api(house, roots=ROOTS.beside([PANTRIES])))


def filled(client, **more):
    made = client.post("/api/pantries", json={"pantry": {"name": "Cellar", "jars": JARS, **more}})
    assert made.status_code == 201, made.text
    return made.json()


def sheet(client, status=200, **pantry):
    answer = client.post("/api/pantry/sheet", json={"pantry": {"name": "Cellar", **pantry}})
    assert answer.status_code == status, answer.text
    return answer.json()


def test_it_is_kept_with_a_history_like_any_other(pantry):
    kept = filled(pantry)
    at = f"/api/pantries/{kept['id']}"
    changed = {**kept["pantry"], "name": "Attic"}
    saved = pantry.put(at, json={"base": 1, "pantry": changed}).json()
    assert (saved["revision"], saved["can_undo"], saved["pantry"]["name"]) == (2, True, "Attic")
    assert pantry.put(at, json={"base": 1, "pantry": changed}).status_code == 409
    undone = pantry.post(f"{at}/undo", json={"base": 2}).json()
    assert (undone["pantry"]["name"], undone["can_redo"]) == ("Cellar", True)
    assert pantry.post(f"{at}/redo", json={"base": undone["revision"]}).json()["pantry"]["name"] == "Attic"
    assert pantry.delete(at).status_code == 204
    assert pantry.get(at).json()["code"] == "no_such_pantry"
    assert [row["name"] for row in pantry.get("/api/pantries/deleted").json()] == ["Attic"]
    assert pantry.post(f"{at}/restore").status_code == 204
    assert pantry.get(at).json()["pantry"]["jars"] == JARS
    # It is no system, and no system is one of it.
    assert pantry.get(f"/api/systems/{kept['id']}").status_code == 404


def test_its_page_is_computed_and_explained(pantry):
    answer = sheet(pantry, jars=JARS)
    # Of 900 g of frozen food 15 % are dry, by the library's row.
    assert answer["figures"]["jars.1.dry_g"]["value"] == pytest.approx(0.15 * 900)
    assert answer["figures"]["all_g"]["value"] == 1700
    assert [check["state"] for check in answer["checks"]] == ["holds"]
    assert sheet(pantry, jars=JARS, shelf={"bears_g": 1500})["checks"][0]["state"] == "short"
    question = {"pantry": {"name": "Cellar", "jars": JARS}, "figure": "all_g", "target": 1200.0}
    told = pantry.post("/api/pantry/working", json=question).json()
    assert {"jars.0.jar_g", "jars.1.jar_g"} <= told["nodes"].keys()
    assert {row["path"]: row["needed"] for row in told["answers"]}["jars.0.jar_g"] == pytest.approx(300, abs=2)


def test_its_fields_are_told_and_what_is_wrong_with_them(pantry):
    entries = pantry.get("/api/library").json()["entries"]
    assert (entries["jars.*.jar_g"]["label"], entries["jars.*.jar_g"]["high"]) == ("Full weight", 5000)
    assert "dry" in entries["jars.*.food"]["options"]
    [fault] = sheet(pantry, 422, jars=[{"jar_g": 9000}])["fields"]
    assert (fault["path"], fault["sentence"]["terms"]["label"]["value"]) == ("jars.0.jar_g", "Full weight")
    [fault] = sheet(pantry, 422, jars=[{"food": "stone"}])["fields"]
    assert (fault["path"], fault["sentence"]["terms"]["key"]["value"]) == ("jars.0.food", "stone")


def test_it_is_unknown_where_nobody_registered_it(client):
    assert client.post("/api/pantry/sheet", json={"pantry": {"name": "x"}}).status_code == 404
    assert client.get("/api/pantries/1").status_code == 404
