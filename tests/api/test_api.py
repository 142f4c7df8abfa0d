"""Every route: what it does, and what it refuses with which sentence."""

import pytest


@pytest.fixture
def system(client):
    return client.get("/api/systems/1").json()


def text_of(sentence):
    text = sentence["text"]
    for name, term in sentence["terms"].items():
        text = text.replace("{" + name + "}", str(term["value"]))
    return text


def faults(answer):
    return {field["path"]: text_of(field["sentence"]) for field in answer.json()["fields"]}


# Systems ----------------------------------------------------------------------------------------


def test_the_list_shows_sections_and_glasses(client):
    lines = client.get("/api/systems").json()["lines"]
    assert [line["name"] for line in lines] == [
        "Long Hall",
        "Tidal Corner",
        "Rope Walk B, tank 3",
        "Old Copper",
        "Bottle Shelf, tank 2",
        "Bottle Shelf, tank 1",
        *(f"Tub {n}" for n in (1, 2, 3, 4)),
        "Rope Walk A, tank 4",
    ]
    for line in lines:
        labels = [glass["label"] for glass in line["glasses"]]
        usual = ["Space", "Waste", "Oxygen", "Flow", "Heat", "Buffer", "Nitrate"]
        assert [label for label in labels if label not in ("Drain-down", "Tap")] == usual
        # Purified water alone carries no disinfectant.
        if not line["name"].startswith("Tub"):
            assert ("Tap" in labels) == (not line["name"].startswith("Bottle Shelf"))
        assert ("Drain-down" in labels) == (line["name"] in ("Long Hall", "Old Copper"))
        assert line["section"]["length_cm"] > 0
    short = {line["name"]: [g["key"] for g in line["glasses"] if g["state"] == "short"] for line in lines}
    assert short["Long Hall"] == []
    assert "nitrate" in short["Rope Walk B, tank 3"]


def test_save_undo_redo(client, system):
    plan = {**system["plan"], "name": "Longer Hall"}
    saved = client.put("/api/systems/1", json={"base": 1, "plan": plan}).json()
    assert (saved["revision"], saved["can_undo"]) == (2, True)
    undone = client.post("/api/systems/1/undo", json={"base": 2}).json()
    assert (undone["plan"]["name"], undone["can_redo"]) == ("Long Hall", True)
    redone = client.post("/api/systems/1/redo", json={"base": 1}).json()
    assert redone["plan"]["name"] == "Longer Hall"


def test_a_stale_save_is_a_conflict(client, system):
    client.put("/api/systems/1", json={"base": 1, "plan": {**system["plan"], "name": "mine"}})
    late = client.put("/api/systems/1", json={"base": 1, "plan": {**system["plan"], "name": "theirs"}})
    assert (late.status_code, late.json()["code"], late.json()["current"]) == (409, "stale_revision", 2)
    assert client.get("/api/systems/1").json()["plan"]["name"] == "mine"


def test_nothing_to_undo(client):
    for way in ("undo", "redo"):
        answer = client.post(f"/api/systems/1/{way}", json={"base": 1})
        assert (answer.status_code, answer.json()["code"]) == (409, "nothing_to_undo")


def test_copy_delete_restore(client):
    copy = client.post("/api/systems/1/copy").json()
    assert copy["plan"]["name"] == "Long Hall, copy"
    assert client.delete(f"/api/systems/{copy['id']}").status_code == 204
    assert client.get("/api/systems").json()["total"] == 11
    (away,) = client.get("/api/systems/deleted").json()
    assert (away["id"], away["name"]) == (copy["id"], "Long Hall, copy")
    assert client.post(f"/api/systems/{copy['id']}/restore").status_code == 204
    assert client.get(f"/api/systems/{copy['id']}").json()["plan"]["name"] == "Long Hall, copy"
    assert client.get("/api/systems/deleted").json() == []


@pytest.mark.parametrize(
    ("method", "path", "body"),
    [
        ("get", "/api/systems/99", None),
        ("put", "/api/systems/99", {"base": 1, "plan": {"name": "x"}}),
        ("post", "/api/systems/99/undo", {"base": 1}),
        ("post", "/api/systems/99/redo", {"base": 1}),
        ("post", "/api/systems/99/copy", None),
        ("delete", "/api/systems/99", None),
        ("post", "/api/systems/99/restore", None),
    ],
)
def test_no_such_system(client, method, path, body):
    answer = client.request(method, path, json=body)
    assert (answer.status_code, answer.json()["code"]) == (404, "no_such_system")


def test_start_from_animals(client):
    started = client.post(
        "/api/systems/from-animals", json={"name": "Six", "animals": [{"species": "discus", "number": 6}]}
    )
    assert started.status_code == 201
    assert started.json()["plan"]["tank"]["tank_length_cm"] >= 105  # seven lengths of 15 cm


def test_start_from_animals_refuses(client):
    def start(species, number):
        body = {"name": "x", "animals": [{"species": species, "number": number}]}
        return client.post("/api/systems/from-animals", json=body)

    assert faults(start("unicorn", 1)) == {"animals.0.species": "“unicorn” is not in the library."}
    assert faults(start("discus", 0))["animals.0.number"].startswith("How many is below what is possible")
    assert start("yellow_bellied_slider", 50).json()["code"] == "no_stock_tank"


def test_start_from_glass(client):
    tank = {"tank_length_cm": 70, "tank_width_cm": 40, "tank_height_cm": 40}
    started = client.post("/api/systems/from-glass", json={"name": "Box", "tank": tank})
    assert started.json()["plan"]["tank"]["tank_length_cm"] == 70
    # A tank of which nobody told the pane is its maker's; of one that was told, the pane is judged.
    assert started.json()["plan"]["tank"]["factory_built"] is True
    tall = {**tank, "tank_height_cm": 50}
    for pane, state in (({}, "tight"), ({"pane_mm": 8}, "short")):
        made = client.post("/api/systems/from-glass", json={"name": "Tall", "tank": {**tall, **pane}}).json()
        checks = client.post("/api/sheet", json={"plan": made["plan"]}).json()["checks"]
        assert [row["state"] for row in checks if row["key"] == "pane_holds"] == [state]
    refused = client.post(
        "/api/systems/from-glass", json={"name": "Box", "tank": {**tank, "tank_height_cm": "tall"}}
    )
    assert faults(refused) == {"tank.tank_height_cm": "“tall” is not a number: 10 to 200."}


# Sheets -----------------------------------------------------------------------------------------


def test_a_sheet_answers_everything_at_once(client, system):
    sheet = client.post("/api/sheet", json={"plan": system["plan"]}).json()
    # 514.8 L to the water line less 46.5 L of bed, rock and wood; 147.3 L in the sump and 2.0 in pipes.
    assert sheet["figures"]["real_volume_l"]["value"] == pytest.approx(617.7, abs=0.1)
    assert [stage["key"] for stage in sheet["stages"]] == [
        "animals",
        "tank",
        "filter",
        "flow",
        "heat",
        "source",
        "changes",
        "arrivals",
    ]
    assert len(sheet["schools"]) == 7
    assert sheet["saw_tooth"]["likely"][-1]["day"] == 56
    assert {animal["number"] for animal in sheet["section"]["animals"]} == {14, 10, 12}


def test_short_checks_come_with_remedies_that_mend(client):
    plan = client.get("/api/systems/3").json()["plan"]
    sheet = client.post("/api/sheet", json={"plan": plan}).json()
    nitrate = next(check for check in sheet["checks"] if check["key"] == "nitrate_held")
    assert nitrate["state"] == "short"
    changes = nitrate["remedies"][0]["changes"]
    for path, value in changes.items():
        section, name = path.split(".")
        plan[section][name] = value
    mended = client.post("/api/sheet", json={"plan": plan}).json()
    assert next(c for c in mended["checks"] if c["key"] == "nitrate_held")["state"] != "short"


@pytest.mark.parametrize(
    ("section", "name", "typed", "sentence"),
    [
        ("tank", "tank_length_cm", 1e9, "Length is above what is possible here: 10 to 1000."),
        ("tank", "tank_length_cm", "", "Length is empty: 10 to 1000."),
        ("tank", "tank_length_cm", None, "Length is empty: 10 to 1000."),
        ("tank", "pane_mm", "abc", "“abc” is not a number: 2 to 60."),
        ("heat", "target_c", 3, "Kept at is below what is possible here: 4 to 36."),
        ("changes", "every_d", 2.5, "Every is counted in whole numbers: 1 to 120, a whole number."),
        ("tank", "shape", "blob", "“blob” can not be chosen here."),
    ],
)
def test_bad_input_is_told_at_its_field(client, system, section, name, typed, sentence):
    system["plan"][section][name] = typed
    answer = client.post("/api/sheet", json={"plan": system["plan"]})
    assert answer.status_code == 422
    assert faults(answer) == {f"{section}.{name}": sentence}


def test_one_bad_month_is_told_at_that_month(client, system):
    system["plan"]["heat"]["room_months_c"] = [20.0] * 11 + ["warm"]
    assert list(faults(client.post("/api/sheet", json={"plan": system["plan"]}))) == ["heat.room_months_c.11"]


def test_contradictions_are_told_at_their_field(client, system):
    system["plan"]["tank"].update(fill_by="height", part_fill_cm=80)
    found = faults(client.post("/api/sheet", json={"plan": system["plan"]}))
    assert found == {"tank.part_fill_cm": "The water would stand above the glass: at most 55.0."}


def test_a_working_goes_down_to_what_was_entered(client, system):
    asked = {"plan": system["plan"], "figure": "peak_nitrate_mg_l"}
    working = client.post("/api/working", json=asked).json()
    nodes = working["nodes"]
    walked, waiting = set(), ["peak_nitrate_mg_l"]
    while waiting:
        key = waiting.pop()
        if key not in walked:
            walked.add(key)
            waiting += [part for parts in nodes[key]["parts"].values() for part in parts]
    assert {"changes.change_frac", "animals.1.number", "tank.tank_length_cm", "constant.kept_grown"} <= walked
    assert nodes["constant.kept_grown"]["source"].startswith("Timmons")
    assert working["low"] < nodes["peak_nitrate_mg_l"]["value"] < working["high"]
    assert working["movers"]


def test_a_working_solves_for_an_input(client):
    asked = {
        "plan": client.get("/api/systems/2").json()["plan"],
        "figure": "turnover_per_h",
        "target": 6.0,
        "paths": ["filters.0.measured_lph", "filters.0.rated_lph"],
    }
    answers = client.post("/api/working", json=asked).json()["answers"]
    # 170.1 L less 8.5 of bed and 5.4 of rock, 3.4 in the canister: 159.6 L six times an hour, over 0.65 as rated.
    assert answers[0]["needed"] == pytest.approx(159.6 * 6, rel=0.01)
    assert answers[1]["needed"] == pytest.approx(159.6 * 6 / 0.65, rel=0.01)


def test_a_short_figure_is_solved_for_its_limit_unasked(client):
    plan = client.get("/api/systems/3").json()["plan"]
    working = client.post("/api/working", json={"plan": plan, "figure": "peak_nitrate_mg_l"}).json()
    assert working["target"] == pytest.approx(40 / 4.4266, rel=1e-3)
    assert any(answer["needed"] is not None for answer in working["answers"])


@pytest.mark.parametrize(
    "extra", [{"figure": "no_such"}, {"figure": "peak_nitrate_mg_l", "target": 5, "paths": ["tank.bed"]}]
)
def test_a_working_refuses_what_is_not_there(client, system, extra):
    answer = client.post("/api/working", json={"plan": system["plan"], **extra})
    assert (answer.status_code, answer.json()["code"]) == (422, "unknown_key")


# Library, door and pages ------------------------------------------------------------------------


def test_questions_about_a_sump_are_answered_with_changes(client):
    plan = client.get("/api/systems/1").json()["plan"]

    def ask(question, plan=plan, **more):
        return client.post(f"/api/sump/{question}", json={"plan": plan, **more})

    smallest = ask("smallest").json()
    assert smallest["changes"]["sump.sump_length_cm"] < plan["sump"]["sump_length_cm"]
    assert smallest["sentence"]["terms"]["length"]["kind"] == "length"
    assert set(ask("deepest").json()["changes"]) == {"returns.0.outlet_depth_cm", "returns.1.outlet_depth_cm"}
    copper = ask("deepest", client.get("/api/systems/4").json()["plan"])
    assert (copper.status_code, copper.json()["code"]) == (422, "no_depth_holds")
    assert copper.json()["sentence"]["terms"]["down"]["kind"] == "volume"
    assert ask("widest").status_code == 422


def test_a_first_sump_is_proposed_for_a_draft(client):
    plan = client.get("/api/systems/2").json()["plan"]
    begun = client.post("/api/sump/first", json={"plan": plan, "way": "holes"}).json()
    assert (begun["flow"]["way"], begun["chambers"][-1]["chamber_kind"]) == ("holes", "return")
    states = {
        check["key"]: check["state"] for check in client.post("/api/sheet", json={"plan": begun}).json()["checks"]
    }
    assert states["drain_down_fits"] in ("holds", "tight")


def test_no_remedy_contradicts_something_else(client):
    plan = client.get("/api/systems/1").json()["plan"]
    # A top-up this large floods a blocked tank. Free board enough for it would leave the bed above the water.
    plan["sump"]["topper_l"] = 400
    plan["tank"]["bed_back_cm"] = 15
    checks = {check["key"]: check for check in client.post("/api/sheet", json={"plan": plan}).json()["checks"]}
    offered = [remedy["changes"] for remedy in checks["blocked_stays"]["remedies"]]
    assert [list(changes) for changes in offered] == [["sump.topper_l"]]


def test_a_conflict_is_told_with_the_nearest_value_that_works(client):
    plan = client.get("/api/systems/1").json()["plan"]
    plan["chambers"][1]["baffle_cm"] = 60
    (fault,) = client.post("/api/sheet", json={"plan": plan}).json()["fields"]
    assert (fault["path"], fault["nearest"]) == ("chambers.1.baffle_cm", 43)


def test_the_library_tells_what_may_be_entered(client):
    library = client.get("/api/library").json()
    assert len(library["species"]) >= 60
    length = library["entries"]["tank.tank_length_cm"]
    assert (length["kind"], length["low"], length["high"]) == ("length", 10, 1000)
    assert library["entries"]["tank.bed"]["options"]["sand"] == "Sand"
    assert library["new_rows"]["returns"]["outlet_depth_cm"] == 2.0
    assert "species" not in library["new_rows"]["animals"]
    assert {"filter_kind", "rated_lph", "measured_lph"} <= library["filters"][0]["row"].keys()
    assert {unit["key"] for kind in library["kinds"] if kind["key"] == "temperature" for unit in kind["units"]} == {
        "C",
        "F",
    }
