"""Range checks shared by the relations, and the word list of their keyed choices."""

from collections.abc import Mapping
from typing import Any, TypeVar

import numpy as np

from loquen.core.errors import OutOfRange, UnknownKey

T = TypeVar("T")
Number = Any  # float, or a numpy array where the docstring says so


def within(name: str, value: Number, low: float, high: float, unit: str) -> None:
    """Raise OutOfRange unless every element of `value` lies in low..high (NaN never does)."""
    if type(value) is float or type(value) is int:
        good = low <= value <= high
    else:
        array = np.asarray(value, dtype=float)
        good = bool(np.all((array >= low) & (array <= high)))
    if not good:
        raise OutOfRange(name, value, low, high, unit)


def choice(table: str, options: Mapping[str, T], key: str) -> T:
    """The entry of `options` under `key`; raise UnknownKey naming the table."""
    if key not in options:
        raise UnknownKey(table, key)
    return options[key]
