"""What was read of the water, and what was done to it."""

from dataclasses import dataclass
from typing import Annotated, Literal

from loquen.core.model.inputs.quantity import Choice, Quantity

MOST_LITRES, MOST_AMOUNT = 200_000, 1_000_000
WHEN = {"": "", "before": "before the change", "after": "after the change"}


@dataclass(frozen=True, slots=True)
class Read:
    """A level, as it was read off a kit or a meter."""

    what: Annotated[str, Choice("Of what", table="text")]
    value: Annotated[str, Choice("Read as", table="text")] = ""
    kit: Annotated[str, Choice("Read with", table="text")] = ""
    when: Annotated[Literal["", "before", "after"], Choice("When", WHEN)] = ""
    note: Annotated[str, Choice("Note", table="text")] = ""


@dataclass(frozen=True, slots=True)
class Changed:
    """Water changed: litres, or a share of all of it."""

    litres: Annotated[float | None, Quantity("Litres", "volume", 0, MOST_LITRES)] = None
    share: Annotated[float | None, Quantity("Share", "share", 0, 1)] = None
    note: Annotated[str, Choice("Note", table="text")] = ""


@dataclass(frozen=True, slots=True)
class Dosed:
    """Something dosed: how much of which product, in the unit that it was measured in."""

    what: Annotated[str, Choice("Of what", table="text")] = ""
    amount: Annotated[float | None, Quantity("Amount", "ratio", 0, MOST_AMOUNT)] = None
    unit: Annotated[str, Choice("Unit", table="text")] = ""
    product: Annotated[str, Choice("Product", table="text")] = ""
    note: Annotated[str, Choice("Note", table="text")] = ""


@dataclass(frozen=True, slots=True)
class OtherSource:
    """Changes are made with another water from here on."""

    what: Annotated[str, Choice("Which water", table="text")] = ""
    note: Annotated[str, Choice("Note", table="text")] = ""
