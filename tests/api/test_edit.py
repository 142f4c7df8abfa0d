"""An edit is answered with what it changes: patches that lead to the whole, what follows them, how much is sent."""

import json
from dataclasses import replace

import pytest

from loquen.core.library.whole import shipped
from loquen.core.model.parts.animals import Group
from loquen.core.model.roots.plan import Plan
from loquen.core.system.book import sheet_of
from loquen.demo.sluice_street import long_hall
from loquen.house.sheet.kept import SAME, KeptSheets, difference

FOLLOWS = ("outgrown", "settlings", "failures", "least_regime", "regimes", "salt_days", "saw_tooth", "assumed")


def patched(old, patch):
    """What a page makes of a patch."""
    if patch is None:
        return old
    if "v" in patch:
        return patch["v"]
    made = list(old) if isinstance(old, list) else dict(old)
    for name, part in patch["p"].items():
        at = int(name) if isinstance(old, list) else name
        made[at] = patched(made[at], part)
    return made


def edited(client, plan, known=None):
    return client.post("/api/edit", json={"plan": plan, "known": known})


def at_once(sheet):
    """A whole answer without what follows it."""
    figures = {key: {**figure, "low": None, "high": None} for key, figure in sheet["figures"].items()}
    checks = [{**check, "remedies": []} for check in sheet["checks"]]
    rest = {name: value for name, value in sheet.items() if name not in FOLLOWS}
    return {**rest, "figures": figures, "checks": checks}


EDITS = {
    "a length": lambda plan: plan["tank"].update(tank_length_cm=plan["tank"]["tank_length_cm"] + 7),
    "a lid": lambda plan: plan["heat"].update(lid="open"),
    "one animal more": lambda plan: plan["animals"][0].update(number=plan["animals"][0]["number"] + 1),
    "a kind": lambda plan: plan["animals"].append({"species": "guppy", "number": 6}),
    "a filter less": lambda plan: plan.update(filters=plan["filters"][:-1]),
    "a name": lambda plan: plan.update(name="Other"),
    "nothing": lambda _: None,
}


@pytest.mark.parametrize("number", [1, 3, 5])
def test_patches_lead_to_what_the_whole_sheet_says(client, number):
    plan = client.get(f"/api/systems/{number}").json()["plan"]
    first = edited(client, plan).json()
    page, version = first["whole"], first["version"]
    for name, edit in EDITS.items():
        edit(plan)
        answer = edited(client, plan, version).json()
        assert answer["whole"] is None
        page, version = patched(page, answer["patch"]), answer["version"]
        whole = at_once(client.post("/api/sheet", json={"plan": plan}).json())
        told = at_once(page)
        # A longer reason of oxygen follows with the rest.
        for check in (*whole["checks"], *told["checks"]):
            if check["key"] == "dawn_breathes":
                check["reason"] = None
        assert told == whole, name


def test_what_follows_is_what_the_whole_sheet_has(client):
    plan = client.get("/api/systems/3").json()["plan"]
    whole = client.post("/api/sheet", json={"plan": plan}).json()
    more = client.post("/api/more", json={"plan": plan}).json()
    short = {check["key"]: check["remedies"] for check in whole["checks"] if check["state"] == "short"}
    assert more["remedies"] == short
    assert any(short.values())
    for name in FOLLOWS:
        assert more[name] == whole[name]
    for key, ends in more["ranges"].items():
        assert (ends["low"], ends["high"]) == (whole["figures"][key]["low"], whole["figures"][key]["high"])
    assert more["ranges"]


def test_a_version_that_nobody_knows_is_answered_whole(client):
    plan = client.get("/api/systems/2").json()["plan"]
    assert edited(client, plan, "nonsense").json()["whole"]["figures"]
    assert edited(client, plan, "9" * 40).status_code == 422


def test_an_edit_is_small(client):
    """The design's budget: an edit's answer stays under fifteen kilobytes."""
    plan = client.get("/api/systems/1").json()["plan"]
    version = edited(client, plan).json()["version"]
    for length in range(170, 178):
        plan["tank"]["tank_length_cm"] = length
        answer = edited(client, plan, version)
        version = answer.json()["version"]
        assert len(answer.content) < 15_000


def test_an_edit_that_contradicts_itself_is_told_and_the_next_one_works(client):
    plan = client.get("/api/systems/1").json()["plan"]
    version = edited(client, plan).json()["version"]
    bad = json.loads(json.dumps(plan))
    bad["tank"]["freeboard_cm"] = 90
    assert edited(client, bad, version).status_code == 422
    plan["tank"]["tank_length_cm"] = 190
    assert edited(client, plan, version).json()["patch"]


def test_a_kept_sheet_is_moved_on_and_says_the_same_as_a_fresh_one():
    kept, plan = KeptSheets(), long_hall()
    kept.sheet(plan, shipped(), None)
    for length in (150.0, 151.0, 120.0):
        other = replace(plan, tank=replace(plan.tank, tank_length_cm=length))
        moved, fresh = kept.sheet(other, shipped(), None), sheet_of(other, shipped())
        fresh.all()
        assert moved.root == other
        shown = [key for key in fresh.wiring.shown if isinstance(fresh.known[key], float)]
        assert {key: moved.known[key] for key in shown} == {key: fresh.known[key] for key in shown}


def test_a_kept_sheet_is_not_used_for_other_months_nor_by_another_library():
    kept, plan = KeptSheets(), long_hall()
    grown, today = kept.sheet(plan, shipped(), None), kept.sheet(plan, shipped(), 0.0)
    assert today.value("wanted_low_l") <= grown.value("wanted_low_l")
    assert len(kept.sheets) == 2
    # Another library moves the sheet that is there on: its figures are those of a fresh one.
    coarse = replace(shipped().species["zebra_danio"], key="own_danio", adult_length_cm=12.0)
    other = shipped().with_own({"species": {"own_danio": coarse}})
    plan = replace(plan, animals=(Group("own_danio", 6),))
    with_own = kept.sheet(plan, other, None)
    finer = other.with_own({"species": {"own_danio": replace(coarse, adult_length_cm=6.0)}})
    moved, fresh = kept.sheet(plan, finer, None), sheet_of(plan, finer)
    assert (
        moved.value("wanted_length_cm") == fresh.value("wanted_length_cm") == with_own.value("wanted_length_cm") / 2
    )


def test_differences_of_plain_things():
    assert difference({"a": [1, 2]}, {"a": [1, 2]}) is SAME
    assert difference({"a": [1, 2]}, {"a": [1, 3]}) == {"p": {"a": {"p": {"1": {"v": 3}}}}}
    assert difference({"a": [1]}, {"a": [1, 3]}) == {"p": {"a": {"v": [1, 3]}}}
    assert difference({"a": 1}, {"b": 1}) == {"v": {"b": 1}}
    assert difference(1, 1.0) is SAME
    one, other = Plan(name="a"), Plan(name="b")
    assert difference(one, other) == {"p": {"name": {"v": "b"}}}
