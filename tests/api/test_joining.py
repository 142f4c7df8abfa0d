"""Joining over the wire: the order less those who live there, and where one goes that is hunted."""

from datetime import UTC, datetime, timedelta

TODAY = datetime.now(UTC).date()


def on(days=0):
    return (TODAY + timedelta(days=days)).isoformat()


def joining(client, system=1):
    return client.get(f"/api/systems/{system}/joining", params={"today": on()}).json()


def test_all_who_are_planned_live_there_in_the_demo_house(client):
    found = joining(client)
    assert (found["written"], found["days"]) == (True, [])
    assert found["result"]["text"] == "All who are planned live there."


def test_who_is_not_there_yet_joins_by_temper_and_filter(client):
    plan = client.get("/api/systems/2").json()["plan"]
    plan["animals"].append({**plan["animals"][0], "species": "figure_eight_puffer", "number": 1, "males": None})
    client.put("/api/systems/2", json={"base": 1, "plan": plan})
    [day] = joining(client, 2)["days"]
    [row] = day["joins"]
    assert (row["species"], row["count"], day["day"]) == ("figure_eight_puffer", 1, on())
    # Beside orange chromides that hold ground.
    assert {one["school"] for one in row["sizes"]} == {"alike", "larger", "smaller"}
    # It lives in low salinity: the empty tubs hold fresh water.
    assert day["to_do"][0]["text"].startswith("No empty tub suits")


def test_a_new_system_takes_them_in_batches(client):
    copy = client.post("/api/systems/1/copy").json()
    found = joining(client, copy["id"])
    assert not found["written"]
    assert [row["day"] for row in found["days"]] == [on(), on(14), on(28)]
    assert [row["joins"][0]["common"] for row in found["days"]] == [
        "Threadfin rainbowfish",
        "Hillstream loach",
        "Boeseman's rainbowfish",
    ]
    assert found["result"]["terms"]["count"]["value"] == 3


def test_one_that_is_hunted_has_a_way_out_by_the_checks(client):
    path = "/api/systems/1/joining/out"
    found = client.get(path, params={"today": on(), "animal": "boeseman_rainbowfish"}).json()["places"]
    assert 1 not in [row["place"]["system_id"] for row in found]
    assert not {8, 9, 10, 11} & {row["place"]["system_id"] for row in found}
    shelf = next(row for row in found if row["name"].startswith("Bottle Shelf"))
    assert not shelf["place"]["takes"]
    assert client.get(path, params={"today": on(), "animal": "unicorn"}).json()["code"] == "unknown_key"
    assert client.get("/api/systems/99/joining", params={"today": on()}).json()["code"] == "no_such_system"
