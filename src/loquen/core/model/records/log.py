"""A line of the log, as pages and tables show it: the fields of every kind of event beside each other."""

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Literal, get_args

from loquen.core.errors import CoreError
from loquen.core.model.inputs.quantity import Choice, Quantity

Kind = Literal[
    "reading",
    "change",
    "dose",
    "feed",
    "filter",
    "added",
    "taken",
    "light",
    "arrival",
    "death",
    "source",
    "experiment",
    "note",
    "birth",
    "measured",
    "move",
    "sale",
    "signs",
]
KINDS: tuple[Kind, ...] = get_args(Kind)
KIND_WORDS: dict[str, str] = {
    "reading": "reading",
    "change": "water changed",
    "dose": "dosed",
    "feed": "fed, or fasted",
    "filter": "filter cleaned",
    "added": "put in",
    "taken": "taken out",
    "light": "light changed",
    "arrival": "animals arrived",
    "death": "an animal died",
    "source": "other source water",
    "experiment": "experiment",
    "note": "note",
    "birth": "born here",
    "measured": "measured",
    "move": "moved",
    "sale": "sold or given away",
    "signs": "signs seen",
}
OF_ANIMALS = ("arrival", "birth", "measured", "move", "sale", "death", "signs")
IN_THE_REGISTER_ALONE = ("birth", "measured", "move")
"""What a line of the log says too little of to be written there."""
DOSES: dict[str, str] = {
    "ammonia": "ammonia",
    "bacteria": "bottled bacteria",
    "conditioner": "conditioner",
    "detoxifier": "detoxifier",
    "salt": "salt",
    "buffer": "sodium bicarbonate",
    "medicine": "medicine",
    "other": "something else",
}
UNITS: dict[str, str] = {
    "salt": "g",
    "buffer": "g",
    "bacteria": "mL",
    "conditioner": "mL",
    "detoxifier": "mL",
    "medicine": "mL",
    "other": "mL",
}
"""What each is usually measured in; ammonia by what it is made of."""
LEFT_WORDS: dict[str, str] = {"eaten": "all eaten", "some": "some left", "much": "much left"}
"""What was left of a meal."""
CLEANED: dict[str, str] = {"tank": "in tank water", "tap": "under the tap", "replaced": "replaced"}


@dataclass(frozen=True, slots=True)
class Entry:
    """One line of the log. A reading has `what` (a measure), `value` as it was read and `kit`; the rest by its kind."""

    kind: Annotated[Kind, Choice("What happened", KIND_WORDS)]
    what: Annotated[str, Choice("Of what", table="text")] = ""
    value: Annotated[str, Choice("Read as", table="text")] = ""
    kit: Annotated[str, Choice("Read with", table="text")] = ""
    when: Annotated[
        Literal["", "before", "after"],
        Choice("When", {"": "", "before": "before the change", "after": "after the change"}),
    ] = ""
    litres: Annotated[float | None, Quantity("Litres", "volume", 0, 200_000)] = None
    share: Annotated[float | None, Quantity("Share", "share", 0, 1)] = None
    amount: Annotated[float | None, Quantity("Amount", "ratio", 0, 1_000_000)] = None
    until: Annotated[str, Choice("Until", table="date")] = ""
    note: Annotated[str, Choice("Note", table="text")] = ""
    unit: Annotated[str, Choice("Unit of the amount", table="text")] = ""
    product: Annotated[str, Choice("Product", table="text")] = ""
    filter: Annotated[str, Choice("Which filter", table="text")] = ""
    resident: Annotated[int | None, Quantity("Which animals", "count", 0, 1e9, whole=True)] = None
    """Whose line of the register it is too, by its number there."""


@dataclass(frozen=True, slots=True)
class LogLine:
    """A line and its moment."""

    at: datetime
    entry: Entry


class EntryFault(CoreError, ValueError):
    """What is wrong with an entry: a code, the field it is about, and values for its sentence."""

    def __init__(self, code: str, field: str, **values: object) -> None:
        super().__init__(code, **values)
        self.field = field
