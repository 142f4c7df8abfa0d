"""Odd input never ends in a fault of the server: numbers no row has, text no text is, plans at every limit."""

import json
import logging
import random

import pytest

from loquen.core.graph import sheet as sheets
from loquen.core.graph.book import MOST_NODES, Book
from loquen.core.graph.nodes import Node
from loquen.core.graph.sheet import Sheet
from loquen.core.library.whole import shipped
from loquen.core.model.roots.documents import document
from loquen.core.model.roots.plan import PLAN
from loquen.core.system.book import sheet_of, system_book
from loquen.demo import sluice_street
from loquen.house.sheet import working
from tests.at_limits import odd_change, odd_plan

PLANS = 60
BASES = (sluice_street.long_hall(), sluice_street.old_copper(), sluice_street.bottle_shelf())


def fields(answer):
    return [field["path"] for field in answer.json()["fields"]]


@pytest.fixture
def plan(client):
    return client.get("/api/systems/2").json()["plan"]


@pytest.mark.parametrize("number", [0, -1, 2**63 - 1, 2**63, 10**30])
def test_numbers_that_no_row_has(client, plan, number):
    for method, path, body in [
        ("GET", "", None),
        ("PUT", "", {"base": 1, "plan": plan}),
        ("POST", "/undo", {"base": 1}),
        ("POST", "/copy", None),
        ("DELETE", "", None),
        ("POST", "/restore", None),
        ("GET", "/history", None),
        ("GET", "/revisions/1", None),
    ]:
        assert client.request(method, f"/api/systems/{number}{path}", json=body).status_code in (404, 422)
    assert client.get(f"/api/systems/1/revisions/{number}").status_code in (404, 422)
    assert client.delete(f"/api/waters/{number}").status_code in (404, 422)


@pytest.mark.parametrize("base", [-1, 2**63, 10**30, "x", None])
def test_a_base_that_no_revision_has(client, plan, base):
    assert client.put("/api/systems/2", json={"base": base, "plan": plan}).status_code == 422
    assert client.post("/api/systems/2/undo", json={"base": base}).status_code == 422


@pytest.mark.parametrize("version", [-1, 0, 1, 2, 3, 99, 10**30, True, "4"])
def test_only_todays_version_is_taken(client, plan, version):
    answer = client.post("/api/sheet", json={"plan": {**plan, "version": version}})
    if version == "4":
        assert answer.status_code == 200
    else:
        assert fields(answer) == ["version"]


@pytest.mark.parametrize(
    "body",
    [
        b'{"plan": {"name": "\\ud800"}}',
        b'{"plan": {"name": "x", "\\ud800": 1}}',
        b'{"plan": {"name": "x", "heat": {"target_c": "\\ud800"}}}',
        b'{"plan": {"name": "x", "animals": [{"species": "\\ud800", "number": 1}]}}',
        b'{"plan": {"name": "x", "heat": {"target_c": NaN}}}',
        b'{"plan": {"name": "x", "heat": {"target_c": 1e999}}}',
        b'{"plan": {"name": "\\u0000"',
        b"\xff\xfe",
        b"[" * 5000,
        b"",
    ],
)
def test_text_that_is_none_is_told(client, body):
    answer = client.post("/api/sheet", content=body, headers={"content-type": "application/json"})
    assert answer.status_code in (400, 422)
    assert answer.json()["sentence"]["text"]


def test_questions_about_figures_that_are_not_there(client, plan):
    for figure in (
        "turnover_holds",
        "in_balance",
        "pairs",
        "animals.9.length_now_cm",
        "tank.shape",
        "filters.0.media",
    ):
        asked = client.post("/api/working", json={"plan": plan, "figure": figure, "target": 1.0})
        assert (asked.status_code, asked.json()["code"]) == (422, "unknown_key"), figure
    for path in ("animals.9.number", "tank.shape", "heat.room_months_c", "x" * 80):
        question = {"plan": plan, "figure": "real_volume_l", "target": 1.0, "paths": [path]}
        assert client.post("/api/working", json=question).status_code == 422, path
    question = {"plan": plan, "figure": "real_volume_l", "paths": ["x" * 81]}
    assert client.post("/api/working", json=question).status_code == 422


# Bounds -----------------------------------------------------------------------------------------


@pytest.mark.parametrize("path", list(PLAN.limits))
def test_every_list_has_a_limit(client, plan, path):
    section, _, name = path.partition(".")
    row = {
        "animals": {"species": "guppy", "number": 1},
        "patches": {"patch_frac": 0.01},
    }.get(section, {})
    day_or_number = "Mon" if name in ("weekdays", "there", "pulse_days") else 20.0
    if name:
        plan[section][name] = [day_or_number] * (PLAN.limits[path] + 1)
    else:
        plan[section] = [row] * (PLAN.limits[path] + 1)
    answer = client.post("/api/sheet", json={"plan": plan})
    assert set(fields(answer)) == {path}
    assert answer.json()["fields"][0]["sentence"]["terms"]["most"]["value"] == PLAN.limits[path]
    # What is longer than any older plan could be is not even read.
    part, name = (plan[section], name) if name else (plan, section)
    part[name] = part[name][:1] * 201
    assert client.post("/api/sheet", json={"plan": plan}).json()["code"] == "invalid"


def test_every_rows_list_has_one():
    assert set(PLAN.rows) <= set(PLAN.limits)


def test_a_day_stands_once(client, plan):
    plan["changes"]["weekdays"] = ["Mon", "Mon"]
    assert fields(client.post("/api/sheet", json={"plan": plan})) == ["changes.weekdays"]


def test_callers_paths_are_not_kept(client):
    for n in range(300):
        client.post("/api/sheet", json={"plan": {"name": "x", "tank": {f"made_up_{n}": 1}}})
    assert not hasattr(PLAN.entry_at, "cache_info")
    assert not any("made_up" in path for path in vars(PLAN)["limits"])


def test_wirings_are_bounded_by_what_they_hold():
    book = like(system_book())
    for n in range(60):
        book.wiring(
            (
                ("animals", n % 24),
                ("patches", n % 6),
                ("planting", n % 24),
                ("lamps", n % 8),
                ("filters", n % 8),
                ("run", n % 24),
                ("returns", n % 8),
                ("chambers", n % 10),
                ("sources", n % 8),
                ("bags", n % 16),
            )
        )
    assert sum(len(wiring.nodes) for wiring in book.wirings.values()) <= MOST_NODES


# A fault inside a figure ------------------------------------------------------------------------


def like(book, **nodes):
    """The same book, with some nodes in the place of others."""
    return Book({**book.nodes, **nodes}, book.shape, book.constants, book.asked, book.domain)


def failing(book, name):
    """The same book with a figure that fails as a fault of the program would."""

    def broken(tank_length_cm: float) -> float:
        return tank_length_cm / 0

    node = book.nodes[name]
    return like(book, **{name: Node(name, broken, ("tank_length_cm",), node.label, "x", "", node.kind)})


def test_a_fault_inside_a_figure_is_that_figures_own_and_logged_with_its_plan(monkeypatch, caplog):
    from loquen.core.system import book as books
    from loquen.house.sheet import view

    monkeypatch.setattr(sheets, "noted", set())
    broken = failing(books.system_book(), "peak_nitrate_mg_l")
    monkeypatch.setattr(books, "system_book", lambda: broken)
    with caplog.at_level(logging.ERROR):
        answer = view.view(sluice_street.tidal_corner(), shipped())
    figure = answer.figures["peak_nitrate_mg_l"]
    assert figure.value is None
    assert "Loquen failed to work this out" in figure.missing.text
    assert answer.figures["real_volume_l"].value == pytest.approx(160, abs=1)
    held = next(check for check in answer.checks if check.key == "nitrate_held")
    assert held.state == "unknown"
    assert ("ZeroDivisionError" in caplog.text, "Tidal Corner" in caplog.text) == (True, True)


def test_a_number_that_is_none_is_no_figure(monkeypatch):
    from loquen.core.system import book as books

    monkeypatch.setattr(sheets, "noted", set())
    book = books.system_book()
    nothing = Node("feed_total_g_d", lambda: float("nan"), (), "Feed", "x", "", "feed")
    sheet = Sheet(like(book, feed_total_g_d=nothing), sluice_street.tidal_corner(), shipped())
    assert sheet.look("feed_total_g_d").case.code == "fault_inside"


KNOWN_FAULTS = {
    "no animals, no nitrate, read today": {"animals": [], "water": {"source_nitrate_mg_l": 0}, "changes": {"read_nitrate_mg_l": 5}},
    "KH 40 and no calcium": {"water": {"source_kh_dkh": 40}, "recipe": {"calcium_frac": 0}},
    "a target next to nothing": {"recipe": {"target_gh_dgh": 1e-320}},
    "KH 40 and GH 0 in a water": {"sources": [{"src_kh_dkh": 40, "src_gh_dgh": 0}]},
    "a bow next to none": {"tank": {"shape": "bow_front", "bow_cm": 1e-320}},
    "a drip next to none": {"changes": {"side_drip_l_d": 1e-320}},
    "a lamp that hardly falls off": {"light": {"uvb_fitted": True, "uvb_near_uvi": 5, "uvb_far_uvi": 4.9999999}},
    "a corner cut from an outside measure": {
        "tank": {"shape": "l_shape", "measured": "outside", "pane_mm": 25, "tank_length_cm": 30, "tank_width_cm": 30,
                 "notch_length_cm": 21, "notch_width_cm": 21, "bed": "none"},
    },
}  # fmt: skip


@pytest.mark.parametrize("name", list(KNOWN_FAULTS))
def test_plans_that_once_locked_their_page(client, monkeypatch, name):
    failed = []
    monkeypatch.setattr(sheets, "note_fault", lambda key, plan: failed.append(key))
    body = {"plan": {"name": "x", **KNOWN_FAULTS[name]}}
    answer = client.post("/api/sheet", json=body)
    assert answer.status_code in (200, 422), answer.text
    assert failed == []
    if answer.status_code == 200:
        assert client.post("/api/systems/from-glass", json={"name": "x", "tank": {}}).status_code == 201


def test_plans_at_the_limits_of_every_field(monkeypatch, client):
    failed = []
    monkeypatch.setattr(sheets, "note_fault", lambda key, plan: failed.append((key, plan)))
    for n in range(PLANS):
        rng = random.Random(100_000 + n)
        plan = odd_plan(rng) if n % 3 == 0 else odd_change(rng, BASES[n % len(BASES)])
        answer = client.post("/api/sheet", json={"plan": json.loads(document(plan))})
        assert answer.status_code == 200, answer.text
        if n % 10 == 0:
            working.working(sheet_of(plan, shipped()), "dawn_oxygen_mg_l", 5.0)
    assert failed == []
