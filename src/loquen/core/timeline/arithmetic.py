"""One tank in plain floats or many at once in arrays: the same relations run in both.

What runs through time is written once over an `Arithmetic`. Plain floats are ten times faster for one tank, arrays a
hundred times for two hundred.
"""

import math
from collections.abc import Sequence
from dataclasses import fields, replace
from functools import cache
from typing import Any, TypeVar

import numpy as np
from numpy.typing import NDArray

Part = TypeVar("Part")
State = Any
"""The quantities of a step in their order: a tuple of floats, or rows of an array."""


Arithmetic = Any
"""`One` or `Many`: what a relation does with its numbers is the same in both."""


class One:
    """A single tank, in floats."""

    sqrt = staticmethod(math.sqrt)
    exp = staticmethod(math.exp)
    most = staticmethod(max)
    least = staticmethod(min)

    @staticmethod
    def where(case: bool, yes: Any, no: Any) -> Any:
        return yes if case else no

    @staticmethod
    def both(a: bool, b: bool) -> bool:
        return a and b

    any = all = staticmethod(bool)
    top = staticmethod(float)

    @staticmethod
    def full(value: Any) -> Any:
        return value

    @staticmethod
    def state(parts: Sequence[float]) -> tuple[float, ...]:
        return tuple(parts)

    @staticmethod
    def moved(state: Sequence[float], step: float, rates: Sequence[float], floor: Sequence[float]) -> list[float]:
        return [
            low if (y := x + step * rate) < low else y for x, rate, low in zip(state, rates, floor, strict=True)
        ]

    @staticmethod
    def mean(a: Sequence[float], b: Sequence[float]) -> list[float]:
        return [(x + y) / 2 for x, y in zip(a, b, strict=True)]

    @staticmethod
    def only(part: Part, case: bool) -> Part:
        return part


@cache
def column(floor: tuple[float, ...]) -> NDArray[np.float64]:
    """The floors of a state as a column."""
    return np.array(floor)[:, None]


class Many:
    """As many tanks as there are members, in arrays."""

    sqrt = staticmethod(np.sqrt)
    exp = staticmethod(np.exp)
    most = staticmethod(np.maximum)
    least = staticmethod(np.minimum)
    where = staticmethod(np.where)
    both = staticmethod(np.logical_and)

    def __init__(self, members: int) -> None:
        self.members = members

    any = staticmethod(np.any)
    all = staticmethod(np.all)
    top = staticmethod(np.max)

    def full(self, value: Any) -> NDArray[Any]:
        return np.full(self.members, value)

    def state(self, parts: Sequence[Any]) -> NDArray[np.float64]:
        rows = np.empty((len(parts), self.members))
        for row, part in zip(rows, parts, strict=True):
            row[:] = part
        return rows

    def moved(
        self, state: NDArray[np.float64], step: float, rates: Any, floor: Sequence[float]
    ) -> NDArray[np.float64]:
        found = self.state(rates)
        found *= step
        found += state
        return np.maximum(found, column(floor), out=found)

    def mean(self, a: Sequence[Any], b: Sequence[Any]) -> NDArray[np.float64]:
        found = self.state(a)
        found += self.state(b)
        found *= 0.5
        return found

    def only(self, part: Part, case: NDArray[np.bool_]) -> Part:
        """What belongs to some members alone: of an array of members, or of a record of such arrays."""
        if isinstance(part, np.ndarray):
            return part[..., case]  # type: ignore[return-value]
        held = {f.name: getattr(part, f.name) for f in fields(part)}  # type: ignore[arg-type]
        return replace(part, **{k: v[case] for k, v in held.items() if isinstance(v, np.ndarray)})  # type: ignore[type-var]
