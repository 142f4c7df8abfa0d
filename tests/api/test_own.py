"""Rows of one's own: copied, edited column by column, used everywhere at once, refused with the column, taken along."""

from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime, timedelta

import pytest

from loquen.house.house import House
from loquen.store.database import open_database
from tests.api.test_api import faults, text_of

TODAY = datetime.now(UTC).date()


def rows(client, kind):
    return next(shown for shown in client.get("/api/own").json()["kinds"] if shown["kind"] == kind)


def copied(client, kind, key, **cells):
    row = next(row for row in rows(client, kind)["rows"] if row["key"] == key)
    made = client.post(f"/api/own/{kind}", json={"cells": {**row["cells"], "source": "my own notes", **cells}})
    assert made.status_code == 201, made.text
    return made.json()


@pytest.fixture
def giant(client):
    """A zebra danio of twenty centimetres."""
    return copied(client, "species", "zebra_danio", common="Giant striped danio", adult_length_cm="20")


def sheet(client, species, number=10):
    plan = client.get("/api/systems/2").json()["plan"]
    plan["animals"] = [{"species": species, "number": number}]
    return client.post("/api/sheet", json={"plan": plan})


def test_every_kind_is_shown_with_its_columns(client):
    kinds = {shown["kind"]: shown for shown in client.get("/api/own").json()["kinds"]}
    assert set(kinds) == {"species", "plants", "media", "filters", "pumps", "kits"}
    columns = {column["name"]: column for column in kinds["species"]["columns"]}
    assert columns["temp_low_c"]["label"] == "Temperature from"
    assert columns["temp_low_c"]["unit"] == "°C"
    # A share is written as the number it is kept as.
    assert (columns["protein_frac"]["unit"], columns["protein_frac"]["number"]) == ("", True)
    assert "fusiform" in columns["shape"]["choices"]
    assert columns["jumper"]["choices"] == ["yes", "no"]
    assert columns["feeds_on"]["choices"] == ["herbivore", "omnivore", "carnivore", "shrimp", "reptile"]
    assert not any(row["own"] for row in kinds["species"]["rows"])


def test_a_copied_animal_counts_everywhere_at_once(client, giant):
    assert giant["key"] == "own_giant_striped_danio"
    found = next(row for row in client.get("/api/library").json()["species"] if row["key"] == giant["key"])
    assert found["adult_length_cm"] == 20
    assert found["source"] == "your own row: my own notes"
    figures = sheet(client, giant["key"]).json()["figures"]
    # An elongated body of 20 cm: 0.00389 x 20^3.12.
    assert figures["animals.0.mass_then_g"]["value"] == pytest.approx(44.58, rel=1e-3)
    assert [row["own"] for row in rows(client, "species")["rows"]][:2] == [True, False]


def test_an_edit_reaches_every_sheet_and_the_list(client, giant):
    started = client.post(
        "/api/systems/from-animals", json={"name": "Giants", "animals": [{"species": giant["key"], "number": 8}]}
    )
    assert started.status_code == 201
    before = sheet(client, giant["key"]).json()["figures"]["wanted_length_cm"]["value"]
    changed = client.put(
        f"/api/own/species/{giant['key']}", json={"cells": {**giant["cells"], "length_ratio": "20"}}
    )
    assert changed.status_code == 200
    assert sheet(client, giant["key"]).json()["figures"]["wanted_length_cm"]["value"] == 400 > before
    line = next(row for row in client.get("/api/systems").json()["lines"] if row["name"] == "Giants")
    space = next(glass for glass in line["glasses"] if glass["key"] == "space")
    assert space["state"] == "short"


@pytest.mark.parametrize(
    ("cells", "path", "words"),
    [
        ({"adult_length_cm": "long"}, "adult_length_cm", "is no number"),
        ({"adult_length_cm": ""}, "adult_length_cm", "is empty"),
        ({"adult_length_cm": "1e30"}, "adult_length_cm", "out of reach"),
        ({"adult_length_cm": "nan"}, "adult_length_cm", "out of reach"),
        ({"jumper": "perhaps"}, "jumper", "neither yes nor no"),
        ({"feeds_on": "stones"}, "feeds_on", "none of"),
        ({"shape": "cube"}, "shape", "none of"),
        ({"source": ""}, "source", "where are these values from"),
        ({"temp_low_c": "30"}, "", "temperature range is upside down"),
        ({"growth_per_year": "0"}, "", "growth"),
        ({"common": "x" * 500}, "common", "too long"),
    ],
)
def test_a_bad_cell_is_told_at_its_column_and_nothing_is_lost(client, giant, cells, path, words):
    answer = client.put(f"/api/own/species/{giant['key']}", json={"cells": {**giant["cells"], **cells}})
    assert answer.status_code == 422
    assert words in faults(answer)[path]
    assert rows(client, "species")["rows"][0]["cells"] == giant["cells"]


def test_a_row_in_use_is_kept_and_one_that_is_not_goes(client, giant):
    client.post(
        "/api/systems/from-animals", json={"name": "Giants", "animals": [{"species": giant["key"], "number": 8}]}
    )
    refused = client.delete(f"/api/own/species/{giant['key']}")
    assert refused.status_code == 409
    assert text_of(refused.json()["sentence"]) == "Giants uses it: take it out there first."
    other = copied(client, "media", "sponge_20", label="Blue mat", area_m2_l="0.4")
    assert client.delete(f"/api/own/media/{other['key']}").status_code == 204
    assert client.delete(f"/api/own/media/{other['key']}").status_code == 404
    assert client.put("/api/own/media/own_none", json={"cells": {}}).status_code == 404
    # The shipped rows can be neither changed nor deleted.
    assert client.delete("/api/own/species/zebra_danio").status_code == 404
    assert client.put("/api/own/species/zebra_danio", json={"cells": giant["cells"]}).status_code == 404


def test_two_of_one_name_are_two_rows(client, giant):
    again = copied(client, "species", "zebra_danio", common="Giant striped danio")
    assert again["key"] == "own_giant_striped_danio_2"


@pytest.mark.parametrize(
    ("kind", "key", "cells", "path", "value"),
    [
        ("media", "sponge_30", {"label": "Lava", "area_m2_l": "0.2"}, "filters.0.media", "own_lava"),
        ("plants", "java_fern", {"common": "Hall fern"}, "planting.0.plant", "own_hall_fern"),
    ],
)
def test_media_and_plants_too(client, kind, key, cells, path, value):
    assert copied(client, kind, key, **cells)["key"] == value
    plan = client.get("/api/systems/2").json()["plan"]
    section, _, name = path.split(".")
    row = plan[section][0] if plan[section] else {}
    plan[section] = [{**row, name: value}]
    assert client.post("/api/sheet", json={"plan": plan}).status_code == 200
    options = client.get("/api/library").json()["entries"][f"{section}.*.{name}"]["options"]
    assert value in options


def test_a_filter_and_a_pump_are_offered(client):
    copied(client, "filters", "canister_600", label="Hall canister", rated_lph="720")
    copied(client, "pumps", next(iter(r["key"] for r in rows(client, "pumps")["rows"])), label="Hall pump")
    library = client.get("/api/library").json()
    assert any(row["row"]["rated_lph"] == 720 for row in library["filters"] if row["label"] == "Hall canister")
    assert any(row["label"] == "Hall pump" for row in library["pumps"])


def taken(client, species):
    plan = client.get("/api/systems/2").json()["plan"]
    plan["animals"] = [{"species": species, "number": 3}]
    return client.post("/api/own/taken-along/plan", json={"plan": plan}).json()


def test_a_plan_takes_its_own_rows_along_and_brings_them_in(client, giant, database):
    along = taken(client, giant["key"])
    assert along["own"] == {"species": {giant["key"]: {"version": "1", **giant["cells"]}}}
    # Where the row is the same nothing is doubled; where another goes by its key it comes in beside it.
    same = client.post("/api/own/bring-in/plan", json=along)
    assert same.status_code == 201
    assert same.json()["plan"]["animals"][0]["species"] == giant["key"]
    client.put(f"/api/own/species/{giant['key']}", json={"cells": {**giant["cells"], "adult_length_cm": "30"}})
    beside = client.post("/api/own/bring-in/plan", json=along).json()
    assert beside["plan"]["animals"][0]["species"] == "own_giant_striped_danio_2"
    lengths = {row["key"]: row["cells"]["adult_length_cm"] for row in rows(client, "species")["rows"] if row["own"]}
    assert lengths == {"own_giant_striped_danio": "30", "own_giant_striped_danio_2": "20"}


@pytest.mark.parametrize("broken", [{"version": 99}, {"name": "x", "version": 3, "tank": {"pane_mm": "thick"}}])
def test_what_is_no_plan_is_refused_with_a_sentence(client, broken):
    answer = client.post("/api/own/bring-in/plan", json={"plan": broken, "own": {}})
    assert answer.status_code == 422
    assert answer.json()["sentence"]["text"]


def test_rows_are_read_again_when_the_file_is_opened(client, giant, database):
    assert sheet(client, giant["key"]).status_code == 200
    again = open_database(database.path)
    assert giant["key"] in House(again).library.species
    again.close()


def test_eight_at_once_with_one_name_are_eight_rows(client, giant):
    with ThreadPoolExecutor(8) as pool:
        made = list(
            pool.map(lambda n: copied(client, "species", "zebra_danio", adult_length_cm=str(n)), range(3, 11))
        )
    lengths = {row["key"]: row["cells"]["adult_length_cm"] for row in rows(client, "species")["rows"] if row["own"]}
    assert len({row["key"] for row in made}) == 8
    assert {row["key"]: row["cells"]["adult_length_cm"] for row in made}.items() <= lengths.items()


def in_a_variant(client, key):
    plan = client.get("/api/systems/2").json()["plan"]
    plan["animals"] = [{"species": key, "number": 3}]
    assert client.post("/api/systems/2/variants", json={"name": "later", "plan": plan}).status_code == 201


def in_the_register(client, key):
    event = {"kind": "arrival", "day": (TODAY - timedelta(days=20)).isoformat(), "count": 4, "system": 2}
    body = {"resident": {"species": key}, "happened": [event], "today": TODAY.isoformat()}
    assert client.post("/api/register", json=body).status_code == 200


def in_quarantine(client, key):
    row = {"species": key, "number": 6, "goes_to": 1, "comes_on": TODAY.isoformat(), "length_cm": 2.0}
    assert client.post("/api/quarantine/arriving", json=row).status_code == 200


def in_a_venture(client, key):
    today = {"today": TODAY.isoformat()}
    number = client.get("/api/breeding", params=today).json()["ventures"][0]["id"]
    kept = client.get(f"/api/ventures/{number}").json()
    venture = {**kept["venture"], "colony": {**kept["venture"]["colony"], "species": key}}
    body = {"base": kept["revision"], "venture": venture}
    assert client.put(f"/api/ventures/{number}", json=body).status_code == 200


def put_away(client, key):
    started = {"name": "Giants", "animals": [{"species": key, "number": 8}]}
    number = client.post("/api/systems/from-animals", json=started).json()["id"]
    assert client.delete(f"/api/systems/{number}").status_code == 204


@pytest.mark.parametrize(
    ("used", "words"),
    [
        (in_a_variant, "kept as a variant, uses it"),
        (in_the_register, "The register uses it"),
        (in_quarantine, "Quarantine uses it"),
        (in_a_venture, "uses it"),
        (put_away, "Giants uses it"),
    ],
)
def test_a_row_is_kept_wherever_it_is_used_and_that_is_told(client, giant, used, words):
    used(client, giant["key"])
    refused = client.delete(f"/api/own/species/{giant['key']}")
    assert refused.status_code == 409
    assert words in text_of(refused.json()["sentence"])


def test_a_bundle_brought_in_twice_adds_nothing(client, giant):
    along = taken(client, giant["key"])
    client.put(f"/api/own/species/{giant['key']}", json={"cells": {**giant["cells"], "adult_length_cm": "30"}})
    first = client.post("/api/own/bring-in/plan", json=along).json()
    known = rows(client, "species")["rows"], client.get("/api/systems").json()["total"]
    again = client.post("/api/own/bring-in/plan", json=along).json()
    assert again["id"] == first["id"]
    assert (rows(client, "species")["rows"], client.get("/api/systems").json()["total"]) == known


def test_a_bundle_is_all_or_nothing(client, giant):
    along = taken(client, giant["key"])
    client.put(f"/api/own/species/{giant['key']}", json={"cells": {**giant["cells"], "adult_length_cm": "30"}})
    known = rows(client, "species")["rows"], client.get("/api/systems").json()["total"]
    bad_plan = {**along, "plan": {**along["plan"], "tank": {**along["plan"]["tank"], "pane_mm": "thick"}}}
    bad_row = {**along, "own": {"species": {**along["own"]["species"], "own_b": {"common": "b"}}}}
    unknown = {**along, "plan": {**along["plan"], "animals": [{"species": "own_nobody", "number": 1}]}}
    for bad in (bad_plan, bad_row, unknown):
        refused = client.post("/api/own/bring-in/plan", json=bad)
        assert refused.status_code == 422
        # Of many rows it is said which.
        assert bad is not bad_row or refused.json()["fields"][0]["path"].startswith("own.species.own_b.")
        assert (rows(client, "species")["rows"], client.get("/api/systems").json()["total"]) == known


def test_only_keys_are_renamed_when_a_bundle_comes_in(client, giant):
    """A system may be called as a row is."""
    along = taken(client, giant["key"])
    along["plan"]["name"] = giant["key"]
    client.put(f"/api/own/species/{giant['key']}", json={"cells": {**giant["cells"], "adult_length_cm": "30"}})
    plan = client.post("/api/own/bring-in/plan", json=along).json()["plan"]
    assert (plan["name"], plan["animals"][0]["species"]) == (giant["key"], f"{giant['key']}_2")


def test_an_edit_of_an_own_animal_reaches_the_rooms(client, giant):
    room = client.get("/api/rooms/7").json()["room"]
    system = next(place["system"] for place in room["places"] if place["system"])
    kept = client.get(f"/api/systems/{system}").json()
    plan = {**kept["plan"], "animals": [{"species": giant["key"], "number": 10}]}
    assert client.put(f"/api/systems/{system}", json={"base": kept["revision"], "plan": plan}).status_code == 200
    before = client.post("/api/room/sheet", json={"room": room}).json()["exchanged"]
    client.put(f"/api/own/species/{giant['key']}", json={"cells": {**giant["cells"], "adult_length_cm": "2"}})
    assert client.post("/api/room/sheet", json={"room": room}).json()["exchanged"] != before


def test_a_cell_keeps_all_of_its_digits(client):
    row = copied(client, "media", "sponge_20", label="Exact", area_m2_l="0.123456789012")
    assert row["cells"]["area_m2_l"] == "0.123456789012"


def test_a_change_of_an_own_animal_moves_list_round_and_rooms_at_once(client):
    """The room's tank B1 is a system of its own animals: what they load is told by each page as the row is now."""
    made = copied(client, "species", "zebra_danio", common="Mine", adult_length_cm="4")
    kept = client.get("/api/systems/3").json()
    kept["plan"]["animals"] = [{"species": made["key"], "number": 40}]
    kept["plan"]["changes"]["logged_rise_nitrate_mg_l_d"] = None
    assert client.put("/api/systems/3", json={"base": kept["revision"], "plan": kept["plan"]}).status_code == 200

    def shown():
        room = client.get("/api/rooms/7").json()["room"]
        drawn = client.post("/api/room/sheet", json={"room": room}).json()["exchanged"]
        nitrate = next(row["nitrate"] for row in drawn if row["name"] == "B1")
        lines = client.get("/api/systems", params={"count": 100}).json()["lines"]
        line = next(line for line in lines if line["id"] == 3)
        waste = next(glass for glass in line["glasses"] if glass["label"] == "Waste")
        return nitrate, waste["state"], next(glass["label"] for glass in line["glasses"])

    small = shown()
    cells = {**made["cells"], "adult_length_cm": "14"}
    assert client.put(f"/api/own/species/{made['key']}", json={"cells": cells}).status_code == 200
    large = shown()
    assert large[0] > 2 * small[0]
    assert (small[1], large[1]) == ("holds", "short")
    # Put back, everything is as it was.
    client.put(f"/api/own/species/{made['key']}", json={"cells": made["cells"]})
    assert shown() == small


def test_an_own_animal_says_as_which_kind_it_breeds(client):
    made = copied(client, "species", "guppy", common="Mine")
    assert made["cells"]["breeds_as"] == "guppy"  # a copy goes on breeding as what it was copied from
    column = next(column for column in rows(client, "species")["columns"] if column["name"] == "breeds_as")
    assert column["empty"]
    assert {"guppy", "discus"} <= set(column["choices"])
    started = client.post("/api/ventures", json={"species": made["key"], "system": 3}).json()
    asked = {"venture": started["venture"], "today": TODAY.isoformat()}
    assert client.post("/api/breeding/sheet", json=asked).json()["known_broods"] is True
    for cell, status in (("", 200), ("unicorn", 422)):
        cells = {**made["cells"], "breeds_as": cell}
        assert client.put(f"/api/own/species/{made['key']}", json={"cells": cells}).status_code == status
    assert client.post("/api/breeding/sheet", json=asked).json()["known_broods"] is False
