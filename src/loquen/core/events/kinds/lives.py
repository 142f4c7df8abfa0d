"""What happened to animals: on a day, to so many of them, in a system."""

from dataclasses import dataclass
from typing import Annotated

from loquen.core.model.inputs.quantity import Choice, Quantity

NOWHERE = 0


@dataclass(frozen=True, slots=True)
class ToAnimals:
    """What all of these say: the day, how many, the system that it was in, `males` among them where that is known.

    `count` is None where nobody said it, `length_cm` as measured, one of them or their mean, `money` for one.
    """

    day: Annotated[str, Choice("On", table="date")] = ""
    count: Annotated[int | None, Quantity("How many", "count", 0, 2000, whole=True)] = 1
    system: Annotated[int, Quantity("Where", "count", 0, 1e9, whole=True)] = NOWHERE
    males: Annotated[int | None, Quantity("Males among them", "count", 0, 2000, whole=True)] = None
    length_cm: Annotated[float | None, Quantity("Length", "length", 0.2, 200)] = None
    money: Annotated[float | None, Quantity("Price of one", "money", 0, 100_000)] = None
    signs: Annotated[str, Choice("Signs seen", table="text")] = ""

    @property
    def number(self) -> int:
        """How many at least: one, where nobody said it."""
        return 1 if self.count is None else self.count


@dataclass(frozen=True, slots=True)
class Arrived(ToAnimals):
    """They came from outside."""


@dataclass(frozen=True, slots=True)
class Born(ToAnimals):
    """They were born here."""


@dataclass(frozen=True, slots=True)
class Measured(ToAnimals):
    """Their length was taken."""


@dataclass(frozen=True, slots=True)
class Moved(ToAnimals):
    """They went from one system to another."""

    to: Annotated[int, Quantity("To", "count", 0, 1e9, whole=True)] = NOWHERE


@dataclass(frozen=True, slots=True)
class Sold(ToAnimals):
    """They were sold or given away."""


@dataclass(frozen=True, slots=True)
class Died(ToAnimals):
    """They died."""


@dataclass(frozen=True, slots=True)
class SignsSeen(ToAnimals):
    """Signs of illness were seen."""
