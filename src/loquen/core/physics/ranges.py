"""Range checks shared by the relations, and the word list of their keyed choices."""

import math
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


def expm1(value: Number) -> Number:
    """e to the value, less one: a plain float for a plain float; else elementwise."""
    return math.expm1(value) if type(value) is float else np.expm1(value)


def at_least(value: Number, least: float) -> Number:
    """The value, or what it is at least: a plain float for a plain float; else elementwise."""
    return max(value, least) if type(value) is float else np.maximum(value, least)


def exp(value: Number) -> Number:
    """e to the value: a plain float for a plain float, which keeps what follows quick; else elementwise."""
    return math.exp(value) if type(value) is float else np.exp(value)
