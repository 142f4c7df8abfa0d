"""Jars on a shelf: what they weigh, and whether the shelf bears them."""

from dataclasses import dataclass, field
from typing import Annotated

from loquen.core.data.tables import Constant
from loquen.core.errors import PlanConflict
from loquen.core.graph.book import Book
from loquen.core.graph.domain import Domain
from loquen.core.graph.judging import at_most
from loquen.core.graph.nodes import Verdict, check, collected, figure
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Choice, Most, Quantity, Term, say
from loquen.core.model.inputs.shape import Shape


@dataclass(frozen=True)
class Jar:
    food: Annotated[str, Choice("Food", table="foods")] = "dry"
    jar_g: Annotated[float, Quantity("Full weight", "mass", 1, 5000)] = 500.0


@dataclass(frozen=True)
class Shelf:
    bears_g: Annotated[float, Quantity("The shelf bears", "mass", 100, 50_000)] = 2000.0


@dataclass(frozen=True)
class Pantry:
    name: Annotated[str, Choice("Name", table="text")]
    version: int = 1
    shelf: Shelf = field(default_factory=Shelf)
    jars: Annotated[tuple[Jar, ...], Most(20)] = ()


PANTRY = Shape(Pantry)


def conflicts(pantry: Pantry, library: Library) -> list[PlanConflict]:
    return [
        PlanConflict("unknown_in_library", f"jars.{i}.food", key=jar.food, table=library.foods.name)
        for i, jar in enumerate(pantry.jars)
        if jar.food not in library.foods
    ]


@figure("Dry matter in it", formula="{jar_g} × what is dry of {food}", source="practice", row="jars")
def dry_g(jar_g: float, food: str, library: Library) -> float:
    return jar_g * library.foods[food].dry_frac


@figure("All of it weighs", formula="Σ {jar_g}", source="practice")
def all_g(jar_g: tuple[float, ...]) -> float:
    return sum(jar_g)


@check("The shelf bears it", stage="shelf", judges="all_g", mends=("shelf.bears_g",))
def shelf_bears(all_g: float, bears_g: float) -> Verdict:
    return at_most(all_g, bears_g, "mass", say("They weigh {all}.", all=Term(all_g, "mass")))


def book() -> Book:
    import sys

    none: dict[str, Constant] = {}
    domain = Domain(contradicts=lambda pantry, library: bool(conflicts(pantry, library)))
    return Book(collected([sys.modules[__name__]]), PANTRY, none, domain=domain)
