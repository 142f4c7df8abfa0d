"""Quarantine over the wire: turns, arrivals into the register, waits, courses, waivers, and the round of a tub."""

from datetime import UTC, datetime, timedelta

import pytest

TODAY = datetime.now(UTC).date()
TUB_1, TUB_2, TUB_3, TUB_4 = 8, 9, 10, 11


def on(days=0):
    return (TODAY + timedelta(days=days)).isoformat()


def newcomers(client):
    return client.get("/api/quarantine", params={"today": on()}).json()


def tub(client, number=TUB_1):
    return next(row for row in newcomers(client)["tubs"] if row["system_id"] == number)


def expect(client, species="neon_tetra", **more):
    body = {"species": species, "number": 6, "goes_to": 1, "comes_on": on(3), "length_cm": 2.0, **more}
    return client.post("/api/quarantine/arriving", json=body)


def here(client, number, into=TUB_2, **more):
    body = {"today": on(), "day": on(), "count": 6, "tub": into, **more}
    return client.post(f"/api/quarantine/arriving/{number}/here", json=body)


def row_of(client, number):
    return next(row for row in newcomers(client)["arriving"] if row["id"] == number)


def course(client, number=TUB_3, **more):
    body = {"tub": number, "product": "Drops", "begun": on(), "dose_days": [1, 3], "per_l": 9, **more}
    return client.post("/api/quarantine/courses", json=body)


def test_the_demo_house_has_two_full_tubs_and_four_arrivals_in_turn(client):
    found = newcomers(client)
    assert [len(row["waits"]) for row in found["tubs"]] == [1, 0, 1, 0]
    # Put in 20 and 9 days ago, 28 days each.
    assert [row["release"] for row in found["tubs"]] == [on(8), None, on(19), None]
    turns = [(row["common"], row["tub"], row["enters"], row["leaves"]) for row in found["arriving"]]
    assert turns == [
        ("Boeseman's rainbowfish", TUB_2, on(2), on(30)),
        ("Celebes rainbowfish", TUB_2, on(2), on(30)),
        ("Crystal red shrimp", TUB_4, on(5), on(33)),
        ("Hillstream loach", TUB_1, on(12), on(54)),
    ]
    assert [row["together"] for row in found["arriving"]] == [2, 2, 1, 1]
    assert {one["tub"] for one in found["arriving"][2]["refused"]} == {"Tub 1", "Tub 2"}
    assert found["result"]["terms"]["tub"]["value"] == "Tub 2"
    assert (tub(client)["asks"]["state"], tub(client)["asks"]["change_l"]) == ("holds", 0)
    assert found["waived"][0]["exposed"] == ["Threadfin rainbowfish", "Boeseman's rainbowfish", "Hillstream loach"]
    assert found["waived"][0]["watch_until"] == on(24)


def test_an_arrival_goes_from_the_list_through_the_tub_home(client):
    number = expect(client, source="the club").json()["id"]
    assert row_of(client, number)["tub_name"].startswith("Tub")
    kept = here(client, number).json()
    assert tub(client, TUB_2)["waits"][0]["goes_to_name"] == "Long Hall"
    assert (tub(client, TUB_2)["release"], tub(client, TUB_2)["ready"]) == (on(28), False)
    assert number not in [row["id"] for row in newcomers(client)["arriving"]]
    assert here(client, number).json()["code"] == "here_already"
    move = {"kind": "move", "day": on(), "count": 6, "system": TUB_2, "to": 1}
    body = {"today": on(), "happened": move}
    assert client.post(f"/api/register/{kept['resident_id']}/happened", json=body).status_code == 200
    assert tub(client, TUB_2)["waits"] == []
    homes = client.get("/api/register", params={"today": on()}).json()["homes"]
    assert "Neon tetra" in [row["common"] for row in homes[0]["residents"]]


def test_a_newcomer_starts_the_wait_of_all_anew(client):
    number = expect(client).json()["id"]
    here(client, number, TUB_1)
    assert tub(client)["release"] == on(28)
    assert len(tub(client)["waits"]) == 2


def test_a_longer_wait_of_one_is_the_wait_of_the_tub(client):
    number = expect(client, wait_d=42).json()["id"]
    here(client, number)
    assert tub(client, TUB_2)["release"] == on(42)


def test_signs_begin_it_anew(client):
    who = tub(client)["waits"][0]["resident_id"]
    body = {"today": on(), "happened": {"kind": "signs", "day": on(), "system": TUB_1, "signs": "white grains"}}
    client.post(f"/api/register/{who}/happened", json=body)
    assert tub(client)["release"] == on(28)
    assert "signs" in tub(client)["because"]["text"]


def test_those_of_one_source_part_where_no_tub_has_room_for_both(client):
    # Twelve grown rainbowfish and shrimps from one sale: no water suits both.
    fish = expect(client, "boeseman_rainbowfish", source="a sale", length_cm=3.0, number=2).json()["id"]
    shrimps = expect(client, "crystal_shrimp", source="a sale", length_cm=1.5).json()["id"]
    assert (row_of(client, fish)["together"], row_of(client, shrimps)["together"]) == (1, 1)
    assert row_of(client, fish)["tub"] in (TUB_1, TUB_2)
    assert row_of(client, shrimps)["tub"] in (TUB_3, TUB_4)


def test_who_fits_no_tub_is_told_why(client):
    number = expect(client, "axolotl", length_cm=20.0).json()["id"]
    row = row_of(client, number)
    assert (row["tub"], row["enters"]) == (None, None)
    assert len(row["refused"]) == 4
    assert newcomers(client)["result"]["text"] == "No tub takes {who} when they come."


def test_a_tub_that_can_not_hold_them_is_the_first_thing_said(client):
    number = expect(client, "boeseman_rainbowfish", length_cm=None).json()["id"]
    here(client, number, TUB_4, length_cm=9.0, count=40)
    asked = tub(client, TUB_4)["asks"]
    assert (asked["state"], asked["hours"] < 12) == ("short", True)
    assert "of sponge from a healthy tank" in asked["ways"][0]["text"]
    assert "can not hold" in newcomers(client)["result"]["text"]


def test_a_chosen_tub_is_waited_for(client):
    number = expect(client, tub=TUB_1, comes_on=on()).json()["id"]
    row = row_of(client, number)
    assert (row["tub"], row["enters"], row["hold_d"]) == (TUB_1, on(8), 8)


def test_a_tub_is_set_up_as_a_system_with_anothers_water(client):
    body = {"name": "Bucket", "litres": 30, "sponge_l": 0.5, "like": 2}
    number = client.post("/api/quarantine/tubs", json=body).json()["id"]
    plan = client.get(f"/api/systems/{number}").json()["plan"]
    assert (plan["name"], plan["filters"][0]["media_l"]) == ("Bucket", 0.5)
    assert plan["water"]["salinity_ppt"] == client.get("/api/systems/2").json()["plan"]["water"]["salinity_ppt"]
    assert tub(client, number)["litres"] == pytest.approx(30, rel=0.01)
    assert client.delete(f"/api/quarantine/tubs/{number}").status_code == 204
    assert number not in [row["system_id"] for row in newcomers(client)["tubs"]]
    assert client.put(f"/api/quarantine/tubs/{number}", json={"wait_d": 14}).status_code == 204
    assert tub(client, number)["tub"]["wait_d"] == 14


def test_a_course_doses_real_litres_and_ends_up_in_the_round(client):
    number = course(client).json()["id"]
    found = tub(client, TUB_3)
    kept = next(row for row in found["courses"] if row["id"] == number)
    assert kept["label_dose"] == pytest.approx(found["litres"] / 9)
    share = found["asks"]["change_frac"]
    assert kept["days"][2]["given"] == pytest.approx(found["litres"] / 9 * (1 + share))
    stops = client.get("/api/round", params={"today": on()}).json()["stops"]
    lines = {row["key"]: row for stop in stops if stop["system_id"] == TUB_3 for row in stop["lines"]}
    assert {"look", "change", f"dose.{number}.1"} <= set(lines)
    assert lines["change"]["litres"] == pytest.approx(found["asks"]["change_l"], abs=0.06)
    tick = {"id": "dose-tick-1", "system_id": TUB_3, "duty": f"dose.{number}.1", "due": on(), "day": on()}
    client.post("/api/round/ticks", json={"ticks": [{**tick, "at": datetime.now(UTC).isoformat()}]})
    entry = client.get(f"/api/systems/{TUB_3}/log").json()[-1]["entry"]
    assert (entry["kind"], entry["what"], entry["product"]) == ("dose", "medicine", "Drops")
    assert (entry["amount"], entry["unit"]) == (pytest.approx(kept["days"][0]["given"], abs=1e-3), "mL")


def test_an_empty_tub_wants_nothing(client):
    stops = client.get("/api/round", params={"today": on()}).json()["stops"]
    assert {TUB_1, TUB_3} <= {stop["system_id"] for stop in stops}
    assert not {TUB_2, TUB_4} & {stop["system_id"] for stop in stops}


def test_copper_bars_shrimps_from_a_tub_until_it_is_renewed(client):
    course(client, TUB_4, copper=True, lasts_d=3, begun=on(-9), equipment="the blue net")
    number = expect(client, "crystal_shrimp", length_cm=1.5).json()["id"]
    refused = {one["tub"]: one["why"]["text"] for one in row_of(client, number)["refused"]}
    assert "copper lingers" in refused["Tub 4"]
    assert tub(client, TUB_4)["copper"] == "Drops"
    assert newcomers(client)["marked"][0] == {
        "equipment": "the blue net",
        "product": "Drops",
        "tub": "Tub 4",
        "until": on(-7),
        "copper": True,
    }
    client.put(f"/api/quarantine/tubs/{TUB_4}", json={"wait_d": 28, "renewed": on(-1)})
    assert "Tub 4" not in {one["tub"] for one in row_of(client, number)["refused"]}


def test_who_must_not_be_in_a_course_is_said_and_a_stopped_one_ends(client):
    number = course(client, copper=True).json()["id"]
    kept = next(row for row in tub(client, TUB_3)["courses"] if row["id"] == number)
    assert kept["endangered"][0]["terms"]["who"]["value"] == "Crystal red shrimp"
    body = {**kept["course"], "stopped": on(1)}
    assert client.put(f"/api/quarantine/courses/{number}", json=body).status_code == 204
    kept = next(row for row in tub(client, TUB_3)["courses"] if row["id"] == number)
    assert (kept["ends"], len(kept["days"])) == (on(), 1)
    assert client.delete(f"/api/quarantine/courses/{number}").status_code == 204
    assert number not in [row["id"] for row in tub(client, TUB_3)["courses"]]
    client.post(f"/api/quarantine/courses/{number}/restore")
    assert number in [row["id"] for row in tub(client, TUB_3)["courses"]]


def test_a_waiver_keeps_its_reason_and_goes_straight_home(client):
    number = expect(client, waived="from my own other tank").json()["id"]
    assert number not in [row["id"] for row in newcomers(client)["arriving"]]
    here(client, number, 0)
    row = next(row for row in newcomers(client)["waived"] if row["id"] == number)
    assert (row["here"], row["arriving"]["waived"], row["watch_until"]) == (True, "from my own other tank", on(28))
    homes = client.get("/api/register", params={"today": on()}).json()["homes"]
    assert "Neon tetra" in [one["common"] for one in homes[0]["residents"]]


def test_an_arrival_is_changed_taken_off_and_put_back(client):
    number = expect(client).json()["id"]
    body = {**row_of(client, number)["arriving"], "number": 9}
    assert client.put(f"/api/quarantine/arriving/{number}", json=body).status_code == 204
    assert row_of(client, number)["arriving"]["number"] == 9
    client.delete(f"/api/quarantine/arriving/{number}")
    assert number not in [row["id"] for row in newcomers(client)["arriving"]]
    client.post(f"/api/quarantine/arriving/{number}/restore")
    assert row_of(client, number)["arriving"]["number"] == 9


@pytest.mark.parametrize(
    ("path", "body", "code"),
    [
        ("arriving", {"species": "neon_tetra", "comes_on": "2026-12-01"}, "for_whom"),
        ("arriving", {"species": "neon_tetra", "goes_to": 1}, "from_when"),
        ("arriving", {"species": "neon_tetra", "goes_to": 1, "comes_on": "2026-02-30"}, "invalid"),
        ("arriving", {"species": "unicorn", "goes_to": 1, "comes_on": "2026-12-01"}, "unknown_key"),
        ("arriving", {"species": "neon_tetra", "goes_to": 99, "comes_on": "2026-12-01"}, "no_such_system"),
        ("courses", {"tub": 8, "product": "", "begun": "2026-12-01", "dose_days": [1]}, "which_label"),
        ("courses", {"tub": 8, "product": "X", "begun": "2026-12-01"}, "no_dose_day"),
        ("courses", {"tub": 8, "product": "X", "begun": "2026-12-01", "dose_days": [9]}, "dosed_after_its_end"),
        ("courses", {"tub": 99, "product": "X", "begun": "2026-12-01", "dose_days": [1]}, "no_such_system"),
    ],
)
def test_what_can_not_be_is_said_and_nothing_is_lost(client, path, body, code):
    before = newcomers(client)
    assert client.post(f"/api/quarantine/{path}", json=body).json()["code"] == code
    assert newcomers(client) == before


def test_here_needs_a_tub_and_nothing_is_kept_under_a_number_that_there_is_not(client):
    number = expect(client).json()["id"]
    assert here(client, number, 0).json()["code"] == "which_tub"
    assert here(client, 99).json()["code"] == "not_in_quarantine"
    assert client.delete("/api/quarantine/courses/99").json()["code"] == "not_in_quarantine"


def test_a_tub_whose_system_is_deleted_is_none(client):
    client.delete(f"/api/systems/{TUB_2}")
    assert [row["system_id"] for row in newcomers(client)["tubs"]] == [TUB_1, TUB_3, TUB_4]
