"""What figures, inputs and constants are called, and what stands in a number's place where there is none."""

from dataclasses import dataclass
from typing import Any

from loquen.core.errors import NamedCase

Key = str
Argument = Key | tuple[Key, ...]
CONSTANT = "constant."
LIBRARY = "library"
"""What a node calls the library that its sheet goes by."""
PLACE = "place"
"""What a figure of a row calls the row's own number, from 1."""


@dataclass(frozen=True, slots=True)
class Missing:
    """A named case in place of a number, and the figure that it arose in.

    The case was never raised itself: a raised one holds on to all that stood around it, this sheet too.
    """

    case: NamedCase
    origin: Key

    def again(self) -> NamedCase:
        """The case to raise once more."""
        return NamedCase(self.case.code, **self.case.values)


def alike(one: Any, other: Any) -> bool:
    """Whether two values of a figure say the same; named cases do by what they tell, and arrays are never told to."""
    if type(one) is not type(other):
        return False
    if isinstance(one, Missing):
        a, b = one.case, other.case
        return one.origin == other.origin and a.code == b.code and alike(a.values, b.values)
    try:
        return bool(one == other)
    except ValueError:
        return False


def spared(value: Any) -> Any:
    """A value as a parameter typed `X | None` takes it: None where a named case stands, also in a list of rows."""
    if isinstance(value, tuple):
        return tuple([spared(row) for row in value])
    return None if isinstance(value, Missing) else value
