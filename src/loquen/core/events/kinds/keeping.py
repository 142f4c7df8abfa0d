"""What was done for a system, or left undone, besides its water."""

from dataclasses import dataclass
from typing import Annotated

from loquen.core.events.kinds.water import MOST_AMOUNT
from loquen.core.model.inputs.quantity import Choice, Quantity


@dataclass(frozen=True, slots=True)
class Fed:
    """A meal, in grams where they were told, and what was left of it."""

    grams: Annotated[float | None, Quantity("Grams", "mass", 0, MOST_AMOUNT)] = None
    left: Annotated[str, Choice("What was left", table="text")] = ""
    note: Annotated[str, Choice("Note", table="text")] = ""


@dataclass(frozen=True, slots=True)
class Rinsed:
    """Media rinsed or replaced: how, which part of them, and of which filter where it is not all."""

    how: Annotated[str, Choice("How", table="text")] = ""
    share: Annotated[float | None, Quantity("Share", "share", 0, 1)] = None
    filter: Annotated[str, Choice("Which filter", table="text")] = ""
    note: Annotated[str, Choice("Note", table="text")] = ""


@dataclass(frozen=True, slots=True)
class PutIn:
    """Something put into the system."""

    what: Annotated[str, Choice("Of what", table="text")] = ""
    amount: Annotated[float | None, Quantity("Amount", "ratio", 0, MOST_AMOUNT)] = None
    unit: Annotated[str, Choice("Unit", table="text")] = ""
    note: Annotated[str, Choice("Note", table="text")] = ""


@dataclass(frozen=True, slots=True)
class TakenOut:
    """Something taken out of it."""

    what: Annotated[str, Choice("Of what", table="text")] = ""
    amount: Annotated[float | None, Quantity("Amount", "ratio", 0, MOST_AMOUNT)] = None
    unit: Annotated[str, Choice("Unit", table="text")] = ""
    note: Annotated[str, Choice("Note", table="text")] = ""


@dataclass(frozen=True, slots=True)
class Lit:
    """Its light changed."""

    what: Annotated[str, Choice("How", table="text")] = ""
    note: Annotated[str, Choice("Note", table="text")] = ""


@dataclass(frozen=True, slots=True)
class Tried:
    """Something tried against nitrate, until a day where it is over."""

    what: Annotated[str, Choice("What is tried", table="text")] = ""
    until: Annotated[str, Choice("Until", table="date")] = ""
    note: Annotated[str, Choice("Note", table="text")] = ""


@dataclass(frozen=True, slots=True)
class Noted:
    """A note."""

    note: Annotated[str, Choice("Note", table="text")] = ""


@dataclass(frozen=True, slots=True)
class SeenTo:
    """A duty seen to that leaves nothing else behind."""

    note: Annotated[str, Choice("Note", table="text")] = ""


@dataclass(frozen=True, slots=True)
class Skipped:
    """A duty left out on one of its days, and why."""

    reason: Annotated[str, Choice("Why", table="text")] = ""


@dataclass(frozen=True, slots=True)
class Pulsed:
    """A run of a room's changer, as its controller told it: which start of it, its number there, by its clock."""

    begun: str
    number: int
    zone: int
    clock_min: float
    minutes: float
    planned_l: float
    metered_l: float
    mixed_c: float
    ended_by: str
