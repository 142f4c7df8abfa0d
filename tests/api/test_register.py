"""The register over the wire: written down, refused, taken back, taken into a plan, asked before buying."""

import csv
import io
from datetime import UTC, datetime, timedelta

import pytest

TODAY = datetime.now(UTC).date()


def on(days_ago=0):
    return (TODAY - timedelta(days=days_ago)).isoformat()


def register(client):
    return client.get("/api/register", params={"today": on()}).json()


def home(client, system=1):
    return next(row for row in register(client)["homes"] if row["system_id"] == system)


def write(client, happened=None, **resident):
    body = {
        "today": on(),
        "resident": {"species": "boeseman_rainbowfish", **resident},
        "happened": happened or [{"kind": "arrival", "day": on(5), "count": 4, "system": 1}],
    }
    return client.post("/api/register", json=body)


def note(client, resident, **event):
    body = {"today": on(), "happened": {"day": on(), "count": 1, "system": 1, **event}}
    return client.post(f"/api/register/{resident}/happened", json=body)


def test_the_demo_house_is_written_down_and_drawn_at_todays_size(client):
    found = register(client)
    assert found["result"]["terms"]["animals"]["value"] == 222
    assert home(client)["follows"]
    walk = home(client, 3)
    assert (walk["lives"], walk["planned"], walk["follows"]) == (24, 18, False)
    assert {row["check"] for row in walk["differs"] if row["lives"] == "short"} >= {"media_carry"}
    assert walk["today"]["animals"][0]["length_cm"] < walk["grown"]["animals"][0]["length_cm"] == 10
    assert walk["outgrows"][0]["day"] > on()
    assert sum(row["died"] for row in found["survival"]) == 4


def test_an_arrival_changes_the_home_and_leaves_the_plan_alone(client):
    before = client.get("/api/systems/1").json()
    assert write(client, source="the club").status_code == 200
    assert (home(client)["lives"], home(client)["planned"], home(client)["follows"]) == (40, 36, False)
    assert client.get("/api/systems/1").json()["plan"] == before["plan"]


def test_the_plan_takes_those_that_live_there_as_one_step_back(client):
    write(client)
    base = home(client)["revision"]
    taken = client.post("/api/register/take/1", json={"base": base, "today": on()}).json()
    assert sum(row["number"] for row in taken["plan"]["animals"]) == 40
    assert home(client)["follows"]
    assert client.post("/api/register/take/1", json={"base": base, "today": on()}).status_code == 409
    undone = client.post("/api/systems/1/undo", json={"base": taken["revision"]}).json()
    assert sum(row["number"] for row in undone["plan"]["animals"]) == 36


def test_a_move_is_kept_and_told_where_checks_refuse_it(client):
    resident = write(client).json()["resident_id"]
    answer = note(client, resident, kind="move", count=2, to=2).json()
    assert "would fall short" in answer["told"]["text"]
    assert home(client, 2)["lives"] == 13
    assert note(client, resident, kind="move", count=1, to=99).status_code == 404


@pytest.mark.parametrize(
    ("event", "code"),
    [
        ({"kind": "sale", "count": 5}, "more_than_live"),
        ({"kind": "measured"}, "how_long"),
        ({"kind": "death", "day": on(9)}, "not_here_yet"),
        ({"kind": "move", "count": 1}, "where_to"),
        ({"kind": "sale", "system": 0}, "where"),
        ({"kind": "sale", "day": "2026-02-30"}, "invalid"),
    ],
)
def test_what_can_not_be_is_said_and_loses_nothing(client, event, code):
    resident = write(client).json()["resident_id"]
    assert note(client, resident, **event).json()["code"] == code
    assert home(client)["lives"] == 40


def test_two_animals_of_one_name_are_refused(client):
    one = [{"kind": "arrival", "day": on(5), "count": 1, "system": 1}]
    assert write(client, one, name="Otto").status_code == 200
    assert write(client, one, name="otto").json()["code"] == "same_name"
    assert write(client, name="Ada").json()["code"] == "one_of_a_name"


def test_what_was_written_down_is_taken_back_unless_more_hangs_on_it(client):
    resident = write(client).json()["resident_id"]
    sold = note(client, resident, kind="sale", count=3).json()["happened_id"]
    arrived = min(row["id"] for row in home(client)["residents"][-1]["happened"])
    assert client.delete(f"/api/register/happened/{arrived}").json()["code"] == "others_hang_on_it"
    assert client.delete(f"/api/register/happened/{sold}").status_code == 204
    assert home(client)["lives"] == 40
    assert client.delete(f"/api/register/{resident}").status_code == 204
    assert home(client)["lives"] == 36
    assert client.post(f"/api/register/{resident}/restore").status_code == 204
    assert home(client)["lives"] == 40
    assert client.delete("/api/register/9999").json()["code"] == "no_such_resident"


def test_a_stay_and_a_long_life_are_brought_to_mind(client):
    write(client, stays_until=(TODAY + timedelta(days=10)).isoformat())
    assert home(client)["residents"][-1]["notes"][0]["terms"]["days"]["value"] == 10
    turtle = [{"kind": "arrival", "day": on(5), "count": 1, "system": 2}]
    write(client, turtle, species="common_musk_turtle", name="Moss")
    told = " ".join(row["text"] for row in home(client, 2)["residents"][-1]["notes"])
    assert "who has it after you" in told
    assert "authority" in told


def test_those_of_a_deleted_system_are_not_forgotten(client):
    client.delete("/api/systems/2")
    assert sorted(row["common"] for row in register(client)["homeless"]) == ["Bumblebee goby", "Orange chromide"]
    client.post("/api/systems/2/restore")
    assert register(client)["homeless"] == []


def test_a_resident_is_put_right(client):
    resident = write(client).json()["resident_id"]
    body = {"today": on(), "resident": {"species": "boeseman_rainbowfish", "line": "B 2", "born": on(2)}}
    assert client.put(f"/api/register/{resident}", json=body).json()["code"] == "before_birth"
    body["resident"]["born"] = on(90)
    assert client.put(f"/api/register/{resident}", json=body).status_code == 200
    assert home(client)["residents"][-1]["resident"]["line"] == "B 2"


def test_where_they_could_go(client):
    resident = home(client, 3)["residents"][-1]["id"]
    found = client.get(f"/api/register/{resident}/places", params={"today": on(), "system": 3}).json()["places"]
    assert found[0]["name"] == "Long Hall"
    assert found[0]["place"]["takes"]
    assert "Rope Walk B, tank 3" not in [row["name"] for row in found]


def test_young_or_grown(client):
    found = client.post("/api/register/buy", json={"males": 1, "females": 1, "survive_frac": 1}).json()
    assert found["number"] == 6
    never = client.post("/api/register/buy", json={"males": 1, "females": 1, "male_frac": 1}).json()
    assert never["code"] == "never_both"


def test_cards_and_the_table(client):
    cards = client.get("/api/register/cards").json()["cards"]
    assert [row["key"] for row in cards] == ["fish", "shrimp", "snail", "turtle", "frog"]
    write(client, source="=SUM(A1)")
    rows = list(csv.DictReader(io.StringIO(client.get("/api/register.csv", params={"today": on()}).text)))
    assert sum(int(row["alive here"]) for row in rows if row["system"] == "Long Hall") == 40
    assert "'=SUM(A1)" in {row["from"] for row in rows}
