"""Planning over HTTP: first plans, settling, variants; and what they refuse."""

import asyncio
import time

import pytest
from fastapi import Request, Response

from loquen.api import computing
from loquen.core.library.whole import shipped
from loquen.core.system.book import sheet_of
from loquen.demo.sluice_street import old_copper
from loquen.store.documents.variants import MOST_VARIANTS
from tests.core.companies import companies


def first(client, **more):
    return client.post(
        "/api/plan/first", json={"name": "x", "animals": [{"species": "discus", "number": 6}], **more}
    )


def short_on(client, plan):
    sheet = client.post("/api/sheet", json={"plan": plan}).json()
    return {check["key"] for check in sheet["checks"] if check["state"] == "short"}


def test_first_plans_hold_on_the_sheet_that_the_page_asks(client):
    for proposal in first(client).json()["proposals"]:
        assert short_on(client, proposal["plan"]) == set()
        assert proposal["section"]["length_cm"] == proposal["plan"]["tank"]["tank_length_cm"]
        assert proposal["parts"] >= 5
        assert proposal["moves"][0]["lever"] == "tank"


@pytest.mark.parametrize("company", companies(6, seed=3), ids=str)
def test_any_company_over_the_wire(client, company):
    animals = [{"species": group.species, "number": group.number} for group in company]
    answer = first(client, animals=animals).json()
    for proposal in answer["proposals"]:
        assert short_on(client, proposal["plan"]) == {row["check"] for row in proposal["left"]}


def test_a_plan_on_one_of_the_waters_of_the_house(client):
    hard = {"sources": [{"src_name": "Well", "src_gh_dgh": 22, "src_kh_dkh": 14, "src_us_cm": 900}]}
    number = client.post("/api/waters", json=hard).json()["id"]
    (one, *_) = first(client, water=number).json()["proposals"]
    names = [row["src_name"] for row in one["plan"]["sources"]]
    assert names == ["Well", "Reverse osmosis"]
    assert any("purified" in note["text"] for note in one["notes"])
    assert first(client, water=999).status_code == 404


def test_the_room_and_the_want_are_taken(client):
    room = {"cold_c": 10, "warm_c": 34, "mean_c": 22}
    (one, *_) = first(client, room=room, least="power").json()["proposals"]
    assert one["plan"]["heat"]["room_warm_c"] == 34
    assert "power" in one["least"]
    assert first(client, room={**room, "warm_c": 60}).status_code == 422
    assert first(client, least="money").status_code == 422


@pytest.mark.parametrize(
    ("animals", "status"),
    [([], 422), ([{"species": "discus", "number": 0}], 422), ([{"species": "unicorn", "number": 1}], 422)],
)
def test_companies_that_can_not_be(client, animals, status):
    assert first(client, animals=animals).status_code == status


def test_those_whom_no_water_suits_get_a_sentence(client):
    animals = [{"species": "white_cloud", "number": 8}, {"species": "discus", "number": 6}]
    answer = first(client, animals=animals).json()
    assert answer["proposals"] == []
    assert answer["why"][0]["text"].startswith("No one water suits")


def test_settling_keeps_pins_and_says_what_they_stand_against(client):
    plan = client.get("/api/systems/3").json()["plan"]
    found = client.post("/api/plan/settle", json={"plan": plan, "pins": ["tank", "animals"]}).json()
    assert found["plan"]["tank"] == plan["tank"]
    assert found["plan"]["animals"] == plan["animals"]
    assert {row["check"] for row in found["left"]} == {"litres_enough", "length_enough"}
    assert short_on(client, found["plan"]) == {"litres_enough", "length_enough"}
    free = client.post("/api/plan/settle", json={"plan": plan, "pins": ["tank", "nonsense"]}).json()
    assert free["left"] == []
    assert short_on(client, free["plan"]) == set()
    worn = {**plan, "tank": {**plan["tank"], "tank_height_cm": 30, "freeboard_cm": 40}}
    assert client.post("/api/plan/settle", json={"plan": worn}).status_code == 422


def test_what_differs_between_two_plans_in_words(client):
    plan = client.get("/api/systems/3").json()["plan"]
    other = {**plan, "heat": {**plan["heat"], "target_c": 23.5}, "filters": plan["filters"][:1]}
    rows = client.post("/api/plan/difference", json={"before": plan, "after": other}).json()["rows"]
    assert {row["path"] for row in rows} == {"heat.target_c", "filters"}
    assert client.post("/api/plan/difference", json={"before": plan, "after": plan}).json()["rows"] == []


def test_variants_are_kept_renamed_and_let_go(client):
    plan = client.get("/api/systems/3").json()["plan"]
    base = "/api/systems/3/variants"
    (one,) = client.post(base, json={"name": "A", "plan": plan}).json()["rows"]
    assert (one["name"], one["plan"]) == ("A", plan)
    (renamed,) = client.put(f"{base}/{one['id']}", json={"name": "B"}).json()["rows"]
    assert renamed["name"] == "B"
    assert client.get("/api/systems/2/variants").json()["rows"] == []
    assert client.delete(f"/api/systems/2/variants/{one['id']}").status_code == 404
    assert client.delete(f"{base}/{one['id']}").json()["rows"] == []
    assert client.delete(f"{base}/{one['id']}").status_code == 404
    assert client.get("/api/systems/99/variants").status_code == 404


def test_a_system_keeps_so_many_variants(client):
    plan = client.get("/api/systems/3").json()["plan"]
    for number in range(MOST_VARIANTS):
        assert client.post("/api/systems/3/variants", json={"name": str(number), "plan": plan}).status_code == 201
    refused = client.post("/api/systems/3/variants", json={"name": "more", "plan": plan})
    assert refused.status_code == 409
    assert "let one go" in refused.json()["sentence"]["text"]
    assert len(client.get("/api/systems/3/variants").json()["rows"]) == MOST_VARIANTS


def test_a_system_is_started_with_a_plan_and_its_variants(client):
    one, *others = first(client).json()["proposals"]
    variants = [{"name": "other", "plan": row["plan"]} for row in others]
    made = client.post("/api/systems", json={"plan": one["plan"], "variants": variants}).json()
    assert made["plan"] == one["plan"]
    kept = client.get(f"/api/systems/{made['id']}/variants").json()["rows"]
    assert [row["plan"] for row in kept] == [row["plan"] for row in others]


class Asking:
    """Whoever asked, with the answers to whether they have gone."""

    def __init__(self, *gone):
        self.gone = list(gone)

    async def is_disconnected(self):
        return self.gone.pop(0) if self.gone else False


def test_work_that_a_page_has_let_go_of_ends_at_its_next_step():
    sheet, made = sheet_of(old_copper(), shipped()), []

    def long_work():
        for _ in range(100_000):
            made.append(sheet.changed({"tank.freeboard_cm": 1.0 + len(made) % 5}).value("pane_needed_mm"))
        return Response("all of it")

    answer = asyncio.run(computing.computed_while(Asking(False, True), long_work))
    assert answer.status_code == computing.NOBODY_THERE
    assert 0 < len(made) < 100_000


def test_work_that_is_waited_for_is_done():
    def work():
        time.sleep(3 * computing.ASKED_EVERY_S)
        return Response(
            f"{sheet_of(old_copper(), shipped()).changed({'tank.freeboard_cm': 2.0}).value('pane_needed_mm'):.2f}"
        )

    answer = asyncio.run(computing.computed_while(Asking(), work))
    assert float(answer.body) > 1


def test_a_page_that_is_gone_gets_nothing_designed(client, monkeypatch):
    async def gone(_):
        return True

    monkeypatch.setattr(Request, "is_disconnected", gone)
    plan = client.get("/api/systems/2").json()["plan"]
    assert first(client).status_code == computing.NOBODY_THERE
    crowd = [{**plan["animals"][0], "number": 90}]
    wanted = {"plan": plan | {"animals": crowd, "filters": []}, "pins": ["animals"]}
    assert client.post("/api/plan/settle", json=wanted).status_code == computing.NOBODY_THERE
    monkeypatch.undo()
    assert first(client).status_code == 200
