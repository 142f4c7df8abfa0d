"""The list of systems: in parts, found by words, ordered, with lines kept until a plan changes."""

from datetime import UTC, datetime

import pytest

from loquen.core.model.roots.documents import document
from loquen.demo import sluice_street
from loquen.house.kept import mosts
from loquen.house.systems import listing as module
from loquen.house.systems.listing import natural, part
from loquen.store.documents import systems
from loquen.store.documents.systems import Current

NOW = datetime(2026, 1, 1, tzinfo=UTC)
NAMES = [
    "Long Hall",
    "Tidal Corner",
    "Rope Walk B, tank 3",
    "Old Copper",
    "Bottle Shelf, tank 2",
    "Bottle Shelf, tank 1",
]


@pytest.fixture
def room(database, client):
    """The demo room and ten more tanks on two racks."""
    with database.writing() as session:
        for n in range(10):
            plan = document(sluice_street.rope_walk_b()).replace(
                "Rope Walk B, tank 3", f"Rack {'AB'[n % 2]}, tank {n}"
            )
            systems.create(session, plan)
    return client


def ask(client, **query):
    answer = client.get("/api/systems", params=query)
    assert answer.status_code == 200, answer.text
    return answer.json()


def names(part):
    return [line["name"] for line in part["lines"]]


def test_parts_follow_each_other_to_the_end(room):
    found, start = [], 0
    while start is not None:
        part = ask(room, start=start, count=4)
        found, start = found + names(part), part["next"]
    assert (found[:6], len(found), len(set(found)), part["total"]) == (NAMES, 21, 21, 21)


@pytest.mark.parametrize(
    ("find", "found"),
    [
        ("tidal", ["Tidal Corner"]),
        ("CHROMIDE", ["Tidal Corner"]),
        ("pseudetroplus", ["Tidal Corner"]),
        ("drain-down", ["Old Copper"]),
        ("rack a", [f"Rack A, tank {n}" for n in (0, 2, 4, 6, 8)]),
        ("tank 3 nitrate", ["Rope Walk B, tank 3", "Rack B, tank 3"]),
        ("unicorn", []),
    ],
)
def test_every_word_is_looked_for_in_name_animals_and_what_falls_short(room, find, found):
    part = ask(room, find=find)
    assert (names(part), part["found"], part["total"]) == (found, len(found), 21)


def test_orders(room):
    by_name = names(ask(room, order="name"))
    assert by_name == sorted(by_name, key=natural)
    assert natural("tank 2") < natural("Tank 10")
    sizes = [line["summary"]["terms"]["litres"]["value"] for line in ask(room, order="size")["lines"]]
    assert sizes == sorted(sizes, reverse=True)
    by_row = ask(room, order="row", count=100)
    assert by_row["headings"] == {
        "0": "Bottle Shelf",
        "2": "Rack A",
        "7": "Rack B",
        "12": "Rope Walk A",
        "13": "Rope Walk B",
        "14": "On their own",
    }
    by_state = ask(room, order="short", count=100)
    assert next(iter(by_state["headings"].values())) == "Falls short"
    assert by_state["short"] == 12  # eleven Rope Walk tanks for their nitrate, Old Copper for its drain-down
    assert list(by_state["headings"])[1] == "12"


def test_a_heading_is_not_said_again_in_the_next_part(room):
    assert ask(room, order="row", start=3, count=3)["headings"] == {}
    assert ask(room, order="row", start=7, count=3)["headings"] == {"0": "Rack B"}


def test_how_many_fall_short_is_told_once_all_are_known(house):
    visit = house.visited()
    one = [Current(1, NOW, 1, document(sluice_street.rope_walk_b()))]
    two = [*one, Current(2, NOW, 1, document(sluice_street.tidal_corner()))]
    monkey = [part(visit, two, "", "started", 0, 1).short, part(visit, two, "", "started", 0, 2).short]
    assert monkey == [None, 1]


def test_a_line_is_made_once_for_each_revision(room, monkeypatch):
    made = []
    real = module.view.line

    def noted(plan, library):
        made.append(plan.name)
        return real(plan, library)

    monkeypatch.setattr(module.view, "line", noted)
    ask(room, find="x")
    made.clear()
    ask(room, find="x")
    assert made == []
    plan = {**room.get("/api/systems/2").json()["plan"], "name": "Wider"}
    room.put("/api/systems/2", json={"base": 1, "plan": plan})
    assert "Wider" in names(ask(room, find="wider"))
    assert made == ["Wider"]


def test_lines_are_bounded(house, monkeypatch):
    monkeypatch.setitem(mosts, module.line_of, 3)
    visit = house.visited()
    text = document(sluice_street.bottle_shelf())
    rows = [Current(n, NOW, 1, text) for n in range(1, 6)]
    for row in rows:
        visit.kept(module.line_of, row)
    assert [visit.knows(module.line_of, row) for row in rows] == [False, False, True, True, True]


def test_a_part_refuses_what_is_none(room):
    for query in ({"start": -1}, {"count": 0}, {"count": 101}, {"order": "colour"}, {"find": "x" * 201}):
        assert room.get("/api/systems", params=query).status_code == 422
