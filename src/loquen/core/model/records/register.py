"""Who lives where, as a keeper writes it down: groups and named individuals, and what happened to them."""

from dataclasses import dataclass
from typing import Annotated, Literal, get_args

from loquen.core.errors import CoreError
from loquen.core.model.inputs.quantity import Choice, Quantity

HappenedKind = Literal["arrival", "birth", "measured", "move", "sale", "death", "signs"]
HAPPENED: tuple[HappenedKind, ...] = get_args(HappenedKind)
HAPPENED_WORDS: dict[str, str] = {
    "arrival": "arrived",
    "birth": "born here",
    "measured": "measured",
    "move": "moved",
    "sale": "sold or given away",
    "death": "died",
    "signs": "signs seen",
}
MOST_NUMBER = 100_000
GONE, NOWHERE = 0, 0


@dataclass(frozen=True, slots=True)
class Resident:
    """A group of one kind and origin, or one animal with a name."""

    species: Annotated[str, Choice("Animal", table="species")]
    name: Annotated[str, Choice("Name", table="text")] = ""
    sex: Annotated[
        Literal["unknown", "mixed", "male", "female"],
        Choice("Sex", {"unknown": "not known", "mixed": "both", "male": "male", "female": "female"}),
    ] = "unknown"
    line: Annotated[str, Choice("Line", table="text")] = ""
    source: Annotated[str, Choice("From", table="text")] = ""
    born: Annotated[str, Choice("Born on", table="date")] = ""
    stays_until: Annotated[str, Choice("Stays until", table="date")] = ""
    note: Annotated[str, Choice("Note", table="text")] = ""
    generation: Annotated[int, Quantity("Generation bred here", "count", 0, 500, whole=True)] = 0


@dataclass(frozen=True, slots=True)
class LifeLine:
    """A line of the register. Something on a day: so many arrived in a system, moved from it to another, were sold from it or died in it.

    `males` of them where it is known; `length_cm` as measured, one of them or their mean.
    """

    kind: Annotated[HappenedKind, Choice("What happened", HAPPENED_WORDS)]
    day: Annotated[str, Choice("On", table="date")]
    count: Annotated[int, Quantity("How many", "count", 0, 2000, whole=True)] = 1
    system: Annotated[int, Quantity("Where", "count", 0, 1e9, whole=True)] = NOWHERE
    to: Annotated[int, Quantity("To", "count", 0, 1e9, whole=True)] = NOWHERE
    males: Annotated[int | None, Quantity("Males among them", "count", 0, 2000, whole=True)] = None
    length_cm: Annotated[float | None, Quantity("Length", "length", 0.2, 200)] = None
    money: Annotated[float | None, Quantity("Price of one", "money", 0, 100_000)] = None
    signs: Annotated[str, Choice("Signs seen", table="text")] = ""


class RegisterFault(CoreError, ValueError):
    """What is wrong with an entry of the register: a code, the field it is about, and values for its sentence."""

    def __init__(self, code: str, field: str, **values: object) -> None:
        super().__init__(code, **values)
        self.field = field
