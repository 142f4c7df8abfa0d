"""Feeding over the wire: rotas from what is at hand, the round that gives them, what is left, the plan that takes it."""

from datetime import UTC, datetime, timedelta

import pytest

TODAY = datetime.now(UTC).date()
DAY = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")[TODAY.weekday()]


def feeding(client):
    return client.get("/api/feeding", params={"today": TODAY.isoformat()}).json()


def week(client, system=1):
    return next(row for row in feeding(client)["systems"] if row["system_id"] == system)


def larder(client, **more):
    body = {"foods": ["flakes", "green_pellets", "algae_wafers"], "mixes": [], "cultures": [], **more}
    return client.put("/api/feeding/larder", json=body)


def lines(client, system=1):
    stops = client.get("/api/round", params={"today": TODAY.isoformat()}).json()["stops"]
    rows = [row for stop in stops if stop["system_id"] == system for row in stop["lines"]]
    return {row["key"]: row for row in rows if row["kind"] == "feed"}


def eat(client, system, left, number=1, grams=None):
    key = next(iter(lines(client, system)))
    tick = {"id": f"feed-tick-{number}", "system_id": system, "duty": key, "due": TODAY.isoformat()}
    more = {"day": TODAY.isoformat(), "at": datetime.now(UTC).isoformat(), "left": left, "grams": grams}
    return client.post("/api/round/ticks", json={"ticks": [{**tick, **more}]})


def test_the_demo_house_is_fed_from_its_shelf(client):
    found = feeding(client)
    assert [row["system_id"] for row in found["systems"]] == [1, 2, 3, 4, 5, 12]
    assert found["result"]["terms"]["count"]["value"] == 6
    loaches = week(client)["groups"][2]
    assert (loaches["common"], loaches["state"]) == ("Hillstream loach", "holds")
    assert {meal["label"] for meal in loaches["meals"]} == {"green cake", "green wafers", "scalded courgette"}
    # 60 g at 0.92, 200 g at 0.06 and 120 g at 0.2 dry, with 120 g of water: 91.2 of 500 g.
    assert found["mixes"][0]["dry_frac"] == pytest.approx(0.1824)
    boxes = next(row for row in found["cultures"] if row["key"] == "grindal_box")
    assert (boxes["count"], boxes["yield_g_wk"]) == (2, 14)
    assert 0 < boxes["wanted_g_wk"] < 14
    # Eaten twice, some left, eaten, much left, some left: 0.9 × 0.75 × 0.9.
    assert week(client, 3)["fed"]["part"] == pytest.approx(0.6075)


def test_the_round_gives_todays_meal_of_the_rota(client):
    given = lines(client)
    [row] = given.values()
    today = [meal for group in week(client)["groups"] for meal in group["meals"] if meal["day"] == DAY]
    assert row["grams"] == pytest.approx(sum(meal["grams"] for meal in today), abs=1e-3)
    assert len(row["steps"]) == 3
    stock = client.get("/api/round/supplies", params={"today": TODAY.isoformat()}).json()["supplies"]
    uses = {one["use"]["key"]: one["use"]["a_week"] for one in stock}
    shelf = {one["food"]["key"]: one["grams_wk"] for one in feeding(client)["foods"]}
    assert uses["food.frozen_daphnia"] == pytest.approx(shelf["frozen_daphnia"])


def test_an_empty_larder_leaves_every_plan_its_own_food(client):
    client.put("/api/feeding/larder", json={"foods": [], "mixes": [], "cultures": []})
    assert feeding(client)["systems"] == []
    assert list(lines(client)) == ["feed.0"]


def test_what_nobody_can_eat_is_the_first_thing_said(client):
    larder(client, foods=["flakes"])
    found = feeding(client)
    assert found["result"]["text"] == "Nothing at hand suits {who}."
    assert "Hillstream loach" in found["result"]["terms"]["who"]["value"]


def test_what_was_left_is_logged_and_moves_the_rota(client):
    before = week(client)["groups"][1]["dry_g_wk"]
    eat(client, 1, "much")
    entry = next(row["entry"] for row in client.get("/api/systems/1/log").json() if row["entry"]["kind"] == "feed")
    assert entry["what"] == "much"
    after = week(client)
    assert after["fed"]["meals"] == {"eaten": 0, "some": 0, "much": 1}
    assert after["groups"][1]["dry_g_wk"] == pytest.approx(0.75 * before)
    assert lines(client)[next(iter(lines(client)))]["tick"] == "feed-tick-1"


def meals_on(client, day, system=1):
    stops = client.get("/api/round", params={"today": day.isoformat()}).json()["stops"]
    lines = [row for stop in stops if stop["system_id"] == system for row in stop["lines"]]
    return [row for row in lines if row["kind"] == "feed"]


def test_any_meal_of_the_rota_counts_as_fed_and_tomorrows_is_due_all_the_same(client):
    """What is given on one weekday only is not settled by the meal of the day before."""
    days = [TODAY + timedelta(days=ahead) for ahead in range(1, 8)]
    before = [meals_on(client, day)[0]["key"] for day in days]
    eat(client, 1, "")
    after = [meals_on(client, day) for day in days]
    assert [row["key"] for [row] in after] == before
    assert len(set(before)) == 4
    assert after[0][0]["cost"] is None


def test_the_plan_takes_the_rotas_food_and_counts_anew(client):
    assert not week(client, 3)["same"]
    before = client.get("/api/systems/3").json()["plan"]
    sheet = client.post("/api/sheet", json={"plan": before}).json()
    dry = sheet["figures"]["animals.0.feed_now_g_d"]["value"]
    base = {"base": week(client, 3)["revision"], "today": TODAY.isoformat()}
    plan = client.post("/api/feeding/take/3", json=base).json()["plan"]
    group = plan["animals"][0]
    assert (group["feed_by"], group["food_protein_frac"]) == (
        "weighed",
        pytest.approx(week(client, 3)["groups"][0]["protein_frac"], abs=1e-3),
    )
    assert group["weighed_g_d"] == pytest.approx(0.6075 * dry, rel=0.01)
    after = week(client, 3)
    assert (after["same"], after["fed"]["part"], after["fed"]["meals"]["eaten"]) == (True, 1, 0)
    assert client.post("/api/feeding/take/3", json=base).status_code == 409
    undone = client.post("/api/systems/3/undo", json={"base": after["revision"]})
    assert undone.json()["plan"]["animals"] == before["animals"]


def test_grams_of_the_log_stand_against_the_rotas(client):
    planned = {meal["day"]: 0.0 for group in week(client)["groups"] for meal in group["meals"]}
    for group in week(client)["groups"]:
        for meal in group["meals"]:
            planned[meal["day"]] += meal["grams"]
    for ago in (1, 2, 3, 4):
        at = datetime.now(UTC) - timedelta(days=ago)
        grams = 1.5 * planned[("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")[at.date().weekday()]]
        entry = {"at": at.isoformat(), "entry": {"kind": "feed", "amount": grams}}
        body = {"now": datetime.now(UTC).isoformat(), "entries": [entry]}
        assert client.post("/api/systems/1/log", json=body).status_code == 201
    fed = week(client)["fed"]
    assert (fed["days"], fed["of_rota"]) == (4, pytest.approx(1.5))


def test_tubs_are_fed_by_their_own_plan(client):
    assert 8 not in [row["system_id"] for row in feeding(client)["systems"]]
    assert list(lines(client, 8)) == ["feed.0"]


@pytest.mark.parametrize(
    ("body", "code"),
    [
        ({"foods": ["moon_cheese"]}, "unknown_key"),
        ({"cultures": [{"culture": "moon_cheese", "count": 1}]}, "unknown_key"),
        ({"mixes": [{"name": "", "parts": [{"food": "peas", "grams": 10}]}]}, "mix_without_name"),
        ({"mixes": [{"name": "cake", "parts": []}]}, "mix_of_nothing"),
        ({"mixes": [{"name": "cake", "parts": [{"food": "peas", "grams": 10}]}] * 2}, "mix_twice"),
    ],
)
def test_a_larder_that_can_not_be_is_refused_and_the_old_one_kept(client, body, code):
    before = feeding(client)["larder"]
    assert larder(client, **body).json()["code"] == code
    assert feeding(client)["larder"] == before
