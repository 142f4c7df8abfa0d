"""The pantry as a house keeps it."""

from dataclasses import dataclass
from functools import cache

from loquen.checked.documents import Written
from loquen.core.graph.sheet import Sheet
from loquen.house.documents.root import Root
from loquen.house.sheet.answers import Check, Figure
from loquen.house.sheet.judged import checks_of, figures_of
from tests.house.pantry.book import PANTRY, Pantry, book, conflicts

the_book = cache(book)


@dataclass(frozen=True)
class PantryAnswer:
    """Everything a pantry's page shows."""

    figures: dict[str, Figure]
    checks: list[Check]
    foods: tuple[str, ...]


def sheet(visit, pantry, _):
    return Sheet(the_book(), pantry, visit.library)


def answer(visit, pantry, asked):
    made = sheet(visit, pantry, asked)
    foods = tuple(visit.library.foods[jar.food].label for jar in pantry.jars)
    return PantryAnswer(figures_of(made), list(checks_of(made)), foods)


PANTRIES: Root[Pantry] = Root(
    "pantry", "pantry", "/api/pantries", "/api/pantry", Written(PANTRY), conflicts, sheet, answer, PantryAnswer,
    begun_as_sent=True,
)  # fmt: skip
