"""A library that is passed: nothing inside a figure looks one up, and two in one process know nothing of each other."""

from dataclasses import replace
from pathlib import Path

import pytest

from loquen.core import growout
from loquen.core.growout.book import sheet_of as venture_sheet
from loquen.core.growout.first import first_venture
from loquen.core.library import whole
from loquen.core.library.whole import Library, shipped
from loquen.core.model.parts.animals import Group
from loquen.core.model.roots.plan import Plan
from loquen.core.system.book import sheet_of
from loquen.core.system.planner.first_plan import from_animals

CORE = Path(growout.__file__).parent.parent


def with_danio(**changed) -> Library:
    """The shipped library with a danio of the keeper's own in it."""
    row = replace(shipped().species["zebra_danio"], key="own_danio", **changed)
    return shipped().with_own({"species": {row.key: row}})


def test_nothing_in_the_core_looks_a_library_up():
    asks = [path for path in CORE.rglob("*.py") if "shipped()" in path.read_text(encoding="utf-8")]
    assert [path.name for path in asks] == ["whole.py"]  # where it is made


def test_figures_are_made_by_the_sheets_own_library(monkeypatch):
    library = with_danio(adult_length_cm=15.0)
    plan = from_animals("x", (Group("own_danio", 8),), library)

    def looked_up():
        raise AssertionError("a figure looked up the shipped library")

    monkeypatch.setattr(whole, "shipped", looked_up)
    sheet = sheet_of(plan, library)
    assert sheet.value("animals.0.adult_length_cm") == 15
    assert all(sheet.look(key) is not None for key in sheet.wiring.shown)


def test_two_libraries_in_one_process():
    plan = Plan(name="x", animals=(Group("own_danio", 10),))
    small, large = (sheet_of(plan, with_danio(adult_length_cm=cm)) for cm in (4.0, 16.0))
    # Twice the length twice over, by the same rule in its own lengths.
    assert large.value("wanted_length_cm") == pytest.approx(4 * small.value("wanted_length_cm"))


def test_a_sheet_moves_on_to_another_library_and_keeps_what_does_not_hang_on_it():
    plan = Plan(name="x", animals=(Group("own_danio", 10),))
    before, after = with_danio(adult_length_cm=4.0), with_danio(adult_length_cm=16.0)
    sheet = sheet_of(plan, before)
    sheet.all()
    moved, fresh = sheet.moved_to(plan, after), sheet_of(plan, after)
    assert moved.all().keys() == fresh.all().keys()
    shown = [key for key in fresh.wiring.shown if isinstance(fresh.known[key], float)]
    assert {key: moved.known[key] for key in shown} == {key: fresh.known[key] for key in shown}
    assert moved.known["pane_stock_mm"] is sheet.known["pane_stock_mm"]


def test_the_same_rows_have_the_same_stamp_in_any_order_and_others_another():
    a, b = (replace(shipped().media["sponge_20"], key=f"own_{name}") for name in "ab")
    one = shipped().with_own({"media": {"own_a": a, "own_b": b}})
    other = shipped().with_own({"media": {"own_b": b}}).with_own({"media": {"own_b": b, "own_a": a}})
    assert one.stamp == other.stamp != shipped().stamp == ""
    assert one.with_own({"media": {"own_a": a, "own_b": b}}) is one
    assert one.with_own({"media": {"own_a": replace(a, area_m2_l=9.0), "own_b": b}}).stamp != one.stamp
    gone = one.with_own({})
    assert (gone.stamp, list(gone.media)) == ("", list(shipped().media))


def test_an_own_animal_breeds_as_the_kind_that_it_is_said_to_breed_as():
    own = with_danio(breeds_as="guppy")
    plain = with_danio(breeds_as="")
    assert own.breeds("own_danio") is shipped().breeding["guppy"]
    assert plain.breeds("own_danio") is None
    # A copy of a shipped kind goes on breeding as that kind.
    assert with_danio().breeds("own_danio") is shipped().breeding["zebra_danio"]
    known = venture_sheet(first_venture("own_danio", 1, "sale", None, own), own)
    assert known.value("breeds").key == "guppy"
