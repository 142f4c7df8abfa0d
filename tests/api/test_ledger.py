"""One ledger over the wire: what is written on one page is the same event on the others."""

import json
import sqlite3
from datetime import UTC, datetime, timedelta

import pytest

from loquen.core.events.kinds.lives import Died
from loquen.store.happened import ledger

NOW = datetime.now(UTC)
TODAY = NOW.date()
TUB_1, TUB_2 = 8, 9
WALK_A, HALL = 12, 1


def on(days=0):
    return (TODAY + timedelta(days=days)).isoformat()


def keep(client, system, ago_d=0.0, **entry):
    row = {"at": (NOW - timedelta(days=ago_d)).isoformat(), "entry": entry}
    return client.post(f"/api/systems/{system}/log", json={"now": NOW.isoformat(), "entries": [row]})


def log_of(client, system):
    return client.get(f"/api/systems/{system}/log").json()


def tub(client, number=TUB_1):
    rows = client.get("/api/quarantine", params={"today": on()}).json()["tubs"]
    return next(row for row in rows if row["system_id"] == number)


def about(client, system):
    return client.get(f"/api/systems/{system}/log/about").json()


def of_register(client, resident):
    homes = client.get("/api/register", params={"today": on()}).json()["homes"]
    return next(row for home in homes for row in home["residents"] if row["id"] == resident)


def care(client, system):
    rows = client.get(f"/api/systems/{system}/care", params={"today": on()}).json()["duties"]
    return {row["key"]: row["last"] for row in rows}


# A death has one home ----------------------------------------------------------------------------


def test_a_death_in_the_log_moves_the_release_and_the_heads_of_its_tub(client):
    [lives] = about(client, TUB_1)["animals"]
    assert (lives["name"], lives["here"]) == ("Threadfin rainbowfish", 8)
    assert tub(client)["release"] == on(8)
    kept = keep(client, TUB_1, kind="death", amount=2, resident=lives["id"], note="white grains").json()
    assert tub(client)["release"] == on(28)
    assert tub(client)["waits"][0]["count"] == 6
    found = of_register(client, lives["id"])
    assert found["happened"][-1]["happened"] == {
        "kind": "death", "day": on(), "count": 2, "system": TUB_1, "to": 0, "males": None, "length_cm": None,
        "money": None, "signs": "white grains",
    }  # fmt: skip
    # Taken out of the log it never was, brought back it was.
    numbers = {"ids": [kept[0]["id"]]}
    assert client.post("/api/log/delete", json=numbers).status_code == 204
    assert (tub(client)["release"], tub(client)["waits"][0]["count"]) == (on(8), 8)
    assert client.post("/api/log/restore", json=numbers).status_code == 204
    assert (tub(client)["release"], tub(client)["waits"][0]["count"]) == (on(28), 6)


def test_what_the_register_says_stands_in_the_log_of_both_systems(client):
    [lives] = about(client, TUB_1)["animals"]
    move = {"kind": "move", "day": on(), "count": 3, "system": TUB_1, "to": HALL}
    body = {"today": on(), "happened": move}
    assert client.post(f"/api/register/{lives['id']}/happened", json=body).status_code == 200
    for system in (TUB_1, HALL):
        row = next(row for row in log_of(client, system) if row["entry"]["kind"] == "move")
        assert (row["who"], row["left"], row["went_to"]) == ("Threadfin rainbowfish", "Tub 1", "Long Hall")
        assert (row["entry"]["amount"], row["whole_day"]) == (3, True)


def test_whose_death_it_was_is_asked_where_the_register_knows_who_lives_there(client):
    refused = keep(client, TUB_1, kind="death", amount=1)
    assert (refused.status_code, refused.json()["code"]) == (422, "whose")
    assert refused.json()["fields"][0]["path"] == "entries.0.resident"
    # In an empty tub nobody is known: it is written down as it is.
    assert keep(client, TUB_2, kind="death", amount=1).status_code == 201


@pytest.mark.parametrize(
    ("entry", "code"),
    [
        ({"kind": "death", "amount": 9}, "more_than_live"),
        ({"kind": "sale", "amount": 9}, "more_than_live"),
        ({"kind": "death", "amount": 1, "resident": 9_999}, "no_such_resident"),
    ],
)
def test_a_line_that_can_not_have_been_is_refused_as_the_register_would(client, entry, code):
    [lives] = about(client, TUB_1)["animals"]
    before = log_of(client, TUB_1)
    refused = keep(client, TUB_1, **{"resident": lives["id"], **entry})
    assert refused.json()["code"] == code
    assert log_of(client, TUB_1) == before


def test_an_arrival_that_others_hang_on_is_not_taken_out(client):
    [lives] = about(client, TUB_1)["animals"]
    keep(client, TUB_1, kind="death", amount=2, resident=lives["id"])
    arrival = next(row for row in log_of(client, TUB_1) if row["entry"]["kind"] == "arrival")
    refused = client.post("/api/log/delete", json={"ids": [arrival["id"]]})
    assert (refused.status_code, refused.json()["code"]) == (422, "others_hang_on_it")
    assert arrival in log_of(client, TUB_1)


def test_a_line_put_right_keeps_what_the_log_does_not_show(client, database):
    arrival = next(row for row in log_of(client, TUB_1) if row["entry"]["kind"] == "arrival")
    change = {
        "now": NOW.isoformat(), "base": 1, "at": arrival["at"], "entry": {**arrival["entry"], "amount": 7, "note": "one less"},
    }  # fmt: skip
    assert client.put(f"/api/log/{arrival['id']}", json=change).json()["entry"]["amount"] == 7
    happened = of_register(client, arrival["entry"]["resident"])["happened"][0]["happened"]
    assert (happened["count"], happened["length_cm"], happened["money"]) == (7, 2.8, 4.0)
    was = client.get(f"/api/log/{arrival['id']}/history").json()
    assert [row["entry"]["amount"] for row in was] == [7, 8]
    # It stays what happened to them.
    other = {**change, "base": 2, "entry": {**arrival["entry"], "kind": "note"}}
    assert client.put(f"/api/log/{arrival['id']}", json=other).json()["code"] == "stays_theirs"


@pytest.mark.parametrize(
    "document", [{"kind": "death", "amount": 1, "note": "old"}, {"kind": "signs", "version": 1}]
)
def test_what_a_log_says_of_nobody_begins_the_wait_of_a_tub_anew(client, database, document):
    with database.writing() as session:
        new = ledger.new(Died(count=1), NOW - timedelta(days=3))
        ledger.write(session, TUB_1, [new])
    with sqlite3.connect(database.path) as file:
        file.execute(
            "UPDATE event SET document = ?, kind = ? WHERE id = (SELECT max(id) FROM event)",
            (json.dumps(document), document["kind"]),
        )
    # Three days ago: 28 days from then.
    assert tub(client)["release"] == on(25)
    assert tub(client)["waits"][0]["count"] == 8


def test_the_last_of_a_kind_that_dies_begins_the_wait_of_the_others_anew(client):
    body = {"species": "neon_tetra", "number": 2, "goes_to": 1, "comes_on": on(-30), "length_cm": 2.0}
    number = client.post("/api/quarantine/arriving", json=body).json()["id"]
    came = {"today": on(), "day": on(-25), "count": 2, "tub": TUB_1}
    resident = client.post(f"/api/quarantine/arriving/{number}/here", json=came).json()["resident_id"]
    assert tub(client)["release"] == on(8)
    keep(client, TUB_1, ago_d=4, kind="death", amount=2, resident=resident)
    assert len(tub(client)["waits"]) == 1
    assert tub(client)["release"] == on(24)


# A rinse is of a filter, a dose of a product -----------------------------------------------------


def filters_of_two(client):
    """A system with several beds."""
    for row in client.get("/api/systems/names").json():
        if len(found := about(client, row["id"])["filters"]) > 1:
            return row["id"], list(found)
    raise AssertionError


def test_a_rinse_of_one_filter_settles_that_one_and_a_note_is_no_hindrance(client):
    system, (first, second, *_) = filters_of_two(client)
    before = care(client, system)
    kept = keep(client, system, kind="filter", what="tank", filter=first, note="smelled").json()[0]["entry"]
    assert 0 < kept["share"] < 1  # its part of all media
    after = care(client, system)
    assert after[f"rinse.{first}"] == on()
    assert after[f"rinse.{second}"] == before[f"rinse.{second}"] != on()
    keep(client, system, kind="filter", what="tank", note="all of it, in a hurry")
    assert care(client, system)[f"rinse.{second}"] == on()


def test_a_rinse_of_some_media_settles_the_only_filter_and_of_several_none(client):
    system, _ = filters_of_two(client)
    before = care(client, system)
    keep(client, system, kind="filter", what="tank", share=0.3)
    assert care(client, system) == before
    single = next(
        row["id"]
        for row in client.get("/api/systems/names").json()
        if len(about(client, row["id"])["filters"]) == 1
    )
    [only] = about(client, single)["filters"]
    keep(client, single, kind="filter", what="tank", share=0.3)
    assert care(client, single)[f"rinse.{only}"] == on()


def test_a_tick_of_one_rinse_leaves_the_others_waiting(client):
    system, (first, second, *_) = filters_of_two(client)
    before = care(client, system)
    tick = {
        "id": "rinse-tick", "system_id": system, "duty": f"rinse.{first}", "due": on(), "day": on(), "at": NOW.isoformat(),
    }  # fmt: skip
    assert client.post("/api/round/ticks", json={"ticks": [tick]}).json()["kept"] == ["rinse-tick"]
    entry = log_of(client, system)[-1]["entry"]
    assert (entry["kind"], entry["filter"]) == ("filter", first)
    after = care(client, system)
    assert (after[f"rinse.{first}"], after[f"rinse.{second}"]) == (on(), before[f"rinse.{second}"])


def test_a_dose_of_ammonia_is_written_with_its_product(client):
    told = about(client, HALL)
    entry = keep(client, HALL, kind="dose", what="ammonia", amount=2.0).json()[0]["entry"]
    assert (entry["unit"], entry["product"]) == (told["ammonia_unit"], told["ammonia_product"])
    assert (entry["unit"], entry["product"]) == ("g", "ammonium chloride")
    own = keep(client, HALL, kind="dose", what="ammonia", amount=2.0, unit="mL", product="strong, 25 %")
    assert own.json()[0]["entry"]["product"] == "strong, 25 %"


# A tick is one event -----------------------------------------------------------------------------


def test_a_tick_that_is_taken_out_of_the_log_waits_again(client):
    def waits():
        stops = client.get("/api/round", params={"today": on()}).json()["stops"]
        return [
            row["tick"]
            for stop in stops
            for row in stop["lines"]
            if stop["system_id"] == HALL and row["key"] == key
        ]

    stops = client.get("/api/round", params={"today": on()}).json()["stops"]
    line = next(row for stop in stops for row in stop["lines"] if stop["system_id"] == HALL and row["tick"] is None)
    key = line["key"]
    before = log_of(client, HALL)
    tick = {
        "id": "tick-one",
        "system_id": HALL,
        "duty": key,
        "due": line["due"],
        "day": on(),
        "at": NOW.isoformat(),
    }
    client.post("/api/round/ticks", json={"ticks": [tick]})
    assert waits() == ["tick-one"]
    new = [row["id"] for row in log_of(client, HALL) if row not in before]
    assert len(new) == 1
    client.post("/api/log/delete", json={"ids": new})
    assert waits() == [None]
    client.post("/api/log/restore", json={"ids": new})
    assert waits() == ["tick-one"]
    assert client.delete("/api/round/ticks/tick-one").status_code == 204
    assert waits() == [None]
    assert log_of(client, HALL) == before
