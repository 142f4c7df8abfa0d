"""Waters shared by all systems: kept, read from reports, asked of the stand-in service."""

import pytest

from loquen.devices import water_reports
from loquen.exchange.reports import UnreadReport, read_report


def water(**more):
    return {"sources": [{"src_name": "Well", "src_gh_dgh": 14, **more}]}


def test_waters_are_kept_changed_deleted_and_brought_back(client):
    names = [row["water"]["src_name"] for row in client.get("/api/waters").json()]
    assert names == ["Marrow Bridge tap", "Rain tank", "Reverse osmosis"]
    made = client.post("/api/waters", json=water())
    assert made.status_code == 201
    number = made.json()["id"]
    changed = client.put(f"/api/waters/{number}", json={"base": 1, **water(src_kh_dkh=11)}).json()
    assert changed["water"]["src_kh_dkh"] == 11
    assert client.delete(f"/api/waters/{number}").status_code == 204
    assert len(client.get("/api/waters").json()) == 3
    assert [row["name"] for row in client.get("/api/waters/deleted").json()] == ["Well"]
    assert client.post(f"/api/waters/{number}/restore").status_code == 204
    assert len(client.get("/api/waters").json()) == 4


def test_what_follows_from_a_water_is_shown(client):
    tap = client.get("/api/waters").json()[0]
    figures = {figure["key"].rsplit(".", 1)[1]: figure["value"] for figure in tap["figures"]}
    assert figures["src_aired_ph"] == pytest.approx(8.42, abs=0.02)
    assert figures["src_solids"] == pytest.approx(455 * 0.64)
    odd = client.post("/api/waters", json=water(src_kh_dkh=1, src_ph=9.5, src_us_cm=800)).json()
    assert "pH" in [question["what"] for question in odd["questions"]]


@pytest.mark.parametrize(
    ("more", "path"),
    [({"src_gh_dgh": 999}, "src_gh_dgh"), ({"src_c": "warm"}, "src_c"), ({"src_ph": -1}, "src_ph")],
)
def test_bad_values_are_told_at_their_field(client, more, path):
    answer = client.post("/api/waters", json=water(**more))
    assert answer.status_code == 422
    assert [fault["path"] for fault in answer.json()["fields"]] == [f"sources.0.{path}"]


def test_a_water_that_is_not_there(client):
    assert client.put("/api/waters/99", json={"base": 1, **water()}).status_code == 404
    assert client.post("/api/waters/99/restore").status_code == 404


def test_a_report_is_read_in_other_units(client):
    text = "parameter,value,unit\nname,Upland,\ntotal hardness,178.48,mg/L CaCO3\nnitrate,1,mg/L N\nconductivity,45,mS/m\n"
    made = client.post("/api/waters/from-report", json={"text": text}).json()["water"]
    assert made["src_gh_dgh"] == pytest.approx(10)
    assert made["src_nitrate_mg_l"] == 1
    assert made["src_us_cm"] == 450


def test_every_line_that_can_not_be_read_is_named(client):
    text = "parameter,value,unit\nnitrate,lots,mg/L NO3\nhappiness,3,\nnitrate,1,furlongs\n"
    answer = client.post("/api/waters/from-report", json={"text": text})
    assert answer.status_code == 422
    assert [fault["path"] for fault in answer.json()["fields"]] == [
        "line 2, column 9",
        "line 3, column 1",
        "line 4, column 11",
    ]


def test_a_report_with_impossible_values_is_told_at_the_field(client):
    answer = client.post("/api/waters/from-report", json={"text": "nitrate,90000,mg/L N"})
    assert answer.status_code == 422
    assert answer.json()["fields"][0]["path"] == "sources.0.src_nitrate_mg_l"


def test_the_report_service_is_a_stand_in(client):
    areas = [area["key"] for area in client.get("/api/waters/areas").json()]
    assert "marrow_bridge_summer" in areas
    for area in areas:
        assert client.post(f"/api/waters/from-area/{area}").status_code == 201
    assert client.post("/api/waters/from-area/atlantis").status_code == 422


@pytest.mark.parametrize("area", water_reports.areas())
def test_every_shipped_report_can_be_read(area):
    assert read_report(water_reports.report(area))["src_name"]


@pytest.mark.parametrize("text", ["", "parameter,value,unit\n", "a\n" * 500])
def test_an_empty_or_endless_report_is_refused(text):
    with pytest.raises(UnreadReport):
        read_report(text)
