"""The graph on a small root of its own: a wall of shelves, which knows nothing of water."""

import gc
import weakref
from dataclasses import dataclass, field, replace
from typing import Annotated

import numpy as np
import pytest

from loquen.core.data.tables import Constant
from loquen.core.errors import NamedCase, OutOfRange, UnknownKey
from loquen.core.graph import asking
from loquen.core.graph import sheet as sheets
from loquen.core.graph.book import Book
from loquen.core.graph.domain import Domain
from loquen.core.graph.judging import at_most
from loquen.core.graph.keys import Missing, alike
from loquen.core.graph.nodes import Node, attach, check, figure, step
from loquen.core.graph.sheet import Sheet
from loquen.core.library.whole import shipped
from loquen.core.model.inputs.quantity import Choice, Most, Quantity, say
from loquen.core.model.inputs.shape import Shape


@dataclass(frozen=True)
class Board:
    length_cm: Annotated[float, Quantity("Length", "length", 10, 300)] = 100.0
    books: Annotated[int, Quantity("Books", "count", 0, 500, whole=True)] = 10
    wood: Annotated[str, Choice("Wood", {"pine": "pine", "oak": "oak"})] = "pine"


@dataclass(frozen=True)
class Wall:
    length_cm: Annotated[float, Quantity("Length", "length", 10, 1000)] = 400.0
    plugs: Annotated[tuple[float, ...] | None, Quantity("Plugs", "ratio", 0, 9), Most(3)] = None


@dataclass(frozen=True)
class Shelves:
    name: str = "hall"
    boards: Annotated[tuple[Board, ...], Most(4)] = ()
    wall: Wall = field(default_factory=Wall)


SHAPE = Shape(Shelves)
CONSTANTS = {
    "book_kg": Constant(0.5, "kg", "practice", low=0.3, high=0.9),
    "most_kg": Constant(20.0, "kg", "practice"),
}


@figure("Load", formula="{books} × {book_kg}", source="practice", row="boards")
def load_kg(books: int, book_kg: float) -> float:
    if books == 13:
        raise NamedCase("no_animals")
    return books * book_kg


@figure("Overhang", formula="{length_cm} − {wall_length_cm}", source="practice", row="boards")
def over_cm(length_cm: float, wall_length_cm: float) -> float:
    return max(0.0, length_cm - wall_length_cm)


@figure("All", formula="Σ {load_kg}", source="practice")
def all_kg(load_kg: tuple[float, ...]) -> float:
    return sum(load_kg)


@step("boards")
def spoken(load_kg: float | None, place: int) -> str:
    return f"{place}: nothing known" if load_kg is None else f"{place}: {load_kg:g}"


@step()
def known(load_kg: tuple[float | None, ...]) -> int:
    return sum(load is not None for load in load_kg)


@figure("Faulty", formula="1 ÷ 0", source="practice", kind="ratio")
def faulty(all_kg: float) -> float:
    return all_kg / 0


@figure("Refused", formula="beyond", source="practice", kind="ratio")
def refused(all_kg: float) -> float:
    raise OutOfRange("all_kg", all_kg, 0, 1, "kg")


@check("It bears them", stage="boards", judges="all_kg", mends=("boards.*.books", "boards.*.wood"))
def bears(all_kg: float, most_kg: float, wood: tuple[str, ...]) -> object:
    return at_most(all_kg, most_kg * (3 if "oak" in wood else 1), "mass", say("{kg}", kg="so much"))


NODES = {
    function.__name__: function.node
    for function in (load_kg, over_cm, all_kg, spoken, known, faulty, refused, bears)
}


def book(**more):
    return Book(NODES, SHAPE, CONSTANTS, {"years": 1.0}, **more)


def sheet(*boards, calibration=None, **more):
    return Sheet(book(**more), Shelves(boards=boards), shipped(), calibration)


def test_a_shape_is_read_off_the_type_hints():
    root = Shelves(boards=(Board(), Board(wood="oak")))
    assert (list(SHAPE.sections), SHAPE.rows) == (["boards", "wall"], ("boards",))
    assert SHAPE.limits == {"boards": 4, "wall.plugs": 3}
    assert dict(SHAPE.leaves(root))["boards.1.wood"] == "oak"
    assert SHAPE.entry_at("boards.1.books").label == "Books"
    assert SHAPE.entry_at("wall.plugs.2").label == "Plugs"
    assert [SHAPE.entry_at(path) for path in ("boards", "boards.1", "wall.none", "x.y", "")] == [None] * 5
    assert [SHAPE.is_list(path) for path in ("wall.plugs", "wall.length_cm", "boards.0.books", "x.y")] == [
        True,
        False,
        False,
        False,
    ]
    changed = SHAPE.changed(root, {"boards.0.books": 3, "wall.length_cm": 50})
    assert (changed.boards[0].books, changed.boards[1], changed.wall.length_cm) == (3, root.boards[1], 50)


def test_figures_of_rows_and_of_the_whole():
    made = sheet(Board(books=4), Board(books=6))
    assert (made.value("boards.1.load_kg"), made.value("all_kg"), made.value("known")) == (3.0, 5.0, 2)
    assert made.changed({"boards.0.books": 10}).value("all_kg") == 8.0
    with pytest.raises(UnknownKey):
        made.changed({"boards.0.load_kg": 1})
    with pytest.raises(UnknownKey):
        made.look("boards.2.load_kg")


def test_fields_of_one_name_are_told_apart_by_their_section():
    assert sheet(Board(length_cm=450)).value("boards.0.over_cm") == 50

    @step()
    def plain(length_cm: float) -> float:
        return length_cm

    with pytest.raises(UnknownKey):
        Book({**NODES, "plain": plain.node}, SHAPE, CONSTANTS).wiring((("boards", 1),))


@pytest.mark.parametrize("name", ["books", "length_cm", "wall_length_cm"])
def test_no_name_stands_for_two_things(name):
    with pytest.raises(ValueError, match="two things"):
        Book({**NODES, name: Node(name, lambda: 0, ())}, SHAPE, CONSTANTS)


def test_a_parameter_that_may_be_none_is_given_none_for_a_missing_value():
    made = sheet(Board(books=13), Board(books=4))
    assert (made.value("boards.0.spoken"), made.value("boards.1.spoken")) == ("1: nothing known", "2: 2")
    assert made.value("known") == 1
    # Without it the case is carried on, from where it arose.
    assert made.look("all_kg") == Missing(made.look("boards.0.load_kg").case, "boards.0.load_kg")
    assert made.changed({"boards.0.books": 2}).value("boards.0.spoken") == "1: 1"


def test_what_comes_out_as_it_was_moves_nothing_further():
    asked = []

    @step()
    def hangs(over_cm: tuple[float, ...]) -> float:
        asked.append(over_cm)
        return sum(over_cm)

    wall = Book({**NODES, "hangs": hangs.node}, SHAPE, CONSTANTS, {"years": 1.0})
    made = Sheet(wall, Shelves(boards=(Board(length_cm=90), Board(length_cm=120))), shipped())
    assert made.value("hangs") == 0.0
    longer = made.changed({"wall.length_cm": 500.0})
    assert (longer.value("hangs"), longer.value("boards.1.over_cm")) == (0.0, 0.0)
    assert asked == [(0.0, 0.0)]
    shorter = longer.changed({"wall.length_cm": 100.0})
    assert shorter.value("hangs") == 20.0
    # Back again, from what was never asked for in between.
    assert shorter.changed({"wall.length_cm": 110.0}).changed({"wall.length_cm": 80.0}).value("hangs") == 50.0
    assert asked == [(0.0, 0.0), (0.0, 20.0), (10.0, 40.0)]


def test_a_named_case_that_arises_again_is_as_before_and_another_is_not():
    one, two = NamedCase("no_animals", count=1.0), NamedCase("no_animals", count=2.0)
    assert alike(Missing(one, "a"), Missing(NamedCase("no_animals", count=1.0), "a"))
    assert not alike(Missing(one, "a"), Missing(two, "a"))
    assert not alike(Missing(one, "a"), Missing(one, "b"))
    assert not alike(1.0, 1)
    assert not alike(np.zeros(2), np.zeros(2))


def test_a_sheet_is_let_go_when_nobody_holds_it_any_more():
    """A named case that was raised would hold the sheet by its frames, until the collector comes."""
    gc.disable()
    try:
        made = sheet(Board(books=13))
        with pytest.raises(NamedCase):
            made.value("all_kg")
        held = weakref.ref(made)
        del made
        assert held() is None
    finally:
        gc.enable()


def test_a_fault_and_a_refusal_are_named_cases_and_logged_once(monkeypatch, caplog):
    monkeypatch.setattr(sheets, "noted", set())
    for _ in range(2):
        made = sheet(Board(books=4))
        assert (made.look("faulty").case.code, made.look("refused").case.code) == (
            "fault_inside",
            "beyond_relation",
        )
    assert [record.levelname for record in caplog.records] == ["ERROR", "WARNING"]
    assert "Shelves" in caplog.text


def test_a_calibration_is_the_sheets_own_value_and_range():
    root = (Board(books=10),)
    assert asking.spread(sheet(*root), "all_kg") == pytest.approx((3.0, 9.0))
    narrow = {"book_kg": replace(CONSTANTS["book_kg"], value=0.6, low=0.55, high=0.65)}
    calibrated = sheet(*root, calibration=narrow)
    assert calibrated.value("all_kg") == 6.0
    assert asking.spread(calibrated, "all_kg") == pytest.approx((5.5, 6.5))
    assert sheet(*root).value("all_kg") == 5.0


def test_what_is_asked_is_no_part_of_the_root():
    @step()
    def aged(years: float) -> float:
        return years

    asked = Book({**NODES, "aged": aged.node}, SHAPE, CONSTANTS, {"years": 1.0})
    assert [Sheet(asked, Shelves(), shipped(), **more).value("aged") for more in ({}, {"years": 4.0})] == [1.0, 4.0]


def test_questions_know_of_the_root_only_what_its_domain_says():
    domain = Domain(
        row_label=lambda _sheet, section, at, label: f"{label} of {section} {at + 1}",
        option_order=lambda _sheet, option, _present: option != "oak",
        contradicts=lambda root, _library: root.boards[0].books > 30,
    )
    made = sheet(Board(books=10), Board(books=60), domain=domain)
    assert made.value("bears").state == "short"
    (fewer, oak) = asking.remedies(made, "bears")
    assert fewer.sentence.terms["label"].value == "Books of boards 2"
    assert (dict(fewer.changes), dict(oak.changes)) == ({"boards.1.books": 30}, {"boards.0.wood": "oak"})
    heavy = sheet(Board(books=60), Board(books=10), domain=domain)
    assert [dict(remedy.changes) for remedy in asking.remedies(heavy, "bears")] == [{"boards.0.books": 30}]
    assert asking.label_of(sheet(Board()), "boards.0.books") == "Books"


def test_movers_are_found_by_the_shape():
    found = asking.movers(sheet(Board(books=10), Board(books=20)), "all_kg")
    assert [(mover.path, mover.change) for mover in found] == [("boards.1.books", 1.0), ("boards.0.books", 0.5)]


def test_a_node_says_which_parameters_may_be_none():
    assert NODES["spoken"].optional == {"load_kg"}
    assert NODES["known"].optional == {"load_kg"}
    assert NODES["all_kg"].optional == frozenset()

    def plain(a, b: int | None, c: tuple[int, ...]):
        return a, b, c

    attach(plain, "", "", "", "", "")
    assert plain.node.optional == {"b"}
