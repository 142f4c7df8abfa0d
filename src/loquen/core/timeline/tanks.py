"""How a run holds its numbers: one tank as a list of floats, many as rows of an array. Relations know neither."""

from collections.abc import Sequence
from dataclasses import fields, is_dataclass, replace
from typing import Any, Generic, Protocol, TypeVar, cast

import numpy as np

from loquen.core.physics.elementwise import Array, Q, Truth
from loquen.core.timeline.state import PARTS, State

Part = TypeVar("Part")


class Tanks(Protocol[Q]):
    """Vectors of a run: the quantities that move, one after the other."""

    members: int | None

    def vector(self, state: State[Q], places: Sequence[int]) -> Sequence[Q]:
        """The quantities that stand at these places of a state."""
        ...

    def each(self, numbers: Sequence[float]) -> Sequence[Q]:
        """A number for every quantity, as a vector."""
        ...

    def plus(
        self, start: Sequence[Q], terms: Sequence[tuple[float, Sequence[Q]]], least: Sequence[Q]
    ) -> Sequence[Q]:
        """A vector and multiples of others, none of its quantities under its least."""
        ...

    def error(
        self,
        terms: Sequence[tuple[float, Sequence[Q]]],
        start: Sequence[Q],
        end: Sequence[Q],
        absolute: Sequence[Q],
        relative: Sequence[Q],
    ) -> float:
        """The greatest error of a step over all quantities and tanks, 1 for just what it may err by."""
        ...

    def without(self, part: Part, ended: Truth) -> Part:
        """What belongs to the tanks whose run goes on."""
        ...

    def smaller(self, ended: Truth) -> "Tanks[Q]":
        """Those alone."""
        ...

    def full(self, value: float) -> Q: ...

    def all(self, value: bool) -> Truth: ...

    def plain(self, found: Array) -> Q:
        """What was found over the hours of a run, as a quantity of one tank or of each."""
        ...


class OneTank:
    """A single tank."""

    members: int | None = None

    def vector(self, state: State[float], places: Sequence[int]) -> list[float]:
        parts = PARTS(state)
        return [parts[place] for place in places]

    def each(self, numbers: Sequence[float]) -> Sequence[float]:
        return numbers

    def plus(
        self, start: Sequence[float], terms: Sequence[tuple[float, Sequence[float]]], least: Sequence[float]
    ) -> list[float]:
        if len(terms) == 1:
            ((a, first),) = terms
            return [low if (v := y + a * p) < low else v for y, p, low in zip(start, first, least, strict=True)]
        (a, first), (b, second), (c, third) = terms
        return [
            low if (v := y + a * p + b * q + c * r) < low else v
            for y, p, q, r, low in zip(start, first, second, third, least, strict=True)
        ]

    def error(
        self,
        terms: Sequence[tuple[float, Sequence[float]]],
        start: Sequence[float],
        end: Sequence[float],
        absolute: Sequence[float],
        relative: Sequence[float],
    ) -> float:
        (a, k1), (b, k2), (c, k3) = terms
        errors = [
            abs(a * p + b * q + c * r) / (may + part * (y if y > z else z))
            for p, q, r, y, z, may, part in zip(k1, k2, k3, start, end, absolute, relative, strict=True)
        ]
        return max(errors, default=0.0)

    def without(self, part: Part, ended: Truth) -> Part:
        return part

    def smaller(self, ended: Truth) -> "OneTank":
        return self

    def full(self, value: float) -> float:
        return value

    def all(self, value: bool) -> Truth:
        return value

    def plain(self, found: Array) -> float:
        return float(found)


class ManyTanks:
    """As many tanks as there are members."""

    def __init__(self, members: int) -> None:
        self.members: int | None = members

    def vector(self, state: State[Array], places: Sequence[int]) -> Sequence[Array]:
        parts = PARTS(state)
        rows = np.empty((len(places), self.members or 0))
        for row, place in zip(rows, places, strict=True):
            row[:] = parts[place]
        return cast("Sequence[Array]", rows)

    def each(self, numbers: Sequence[float]) -> Sequence[Array]:
        return cast("Sequence[Array]", np.array(numbers)[:, None])

    def plus(
        self, start: Sequence[Array], terms: Sequence[tuple[float, Sequence[Array]]], least: Sequence[Array]
    ) -> Sequence[Array]:
        found = summed(terms)
        found += start
        return cast("Sequence[Array]", np.maximum(found, least, out=found))

    def error(
        self,
        terms: Sequence[tuple[float, Sequence[Array]]],
        start: Sequence[Array],
        end: Sequence[Array],
        absolute: Sequence[Array],
        relative: Sequence[Array],
    ) -> float:
        may = np.maximum(cast("Array", start), cast("Array", end))
        may *= relative
        may += absolute
        found = summed(terms)
        found /= may
        np.abs(found, out=found)
        return float(found.max(initial=0.0))

    def without(self, part: Part, ended: Truth) -> Part:
        """Of an array of members, or of a record of such arrays, however deep."""
        if isinstance(part, np.ndarray):
            return cast("Part", part[..., ~np.asarray(ended)])
        if is_dataclass(part) and not isinstance(part, type):
            held = {f.name: getattr(part, f.name) for f in fields(part)}
            changed = {name: self.without(value, ended) for name, value in held.items()}
            moved = {name: value for name, value in changed.items() if value is not held[name]}
            return replace(part, **moved) if moved else part
        return part

    def smaller(self, ended: Truth) -> "ManyTanks":
        return ManyTanks(int(np.count_nonzero(~np.asarray(ended))))

    def full(self, value: float) -> Array:
        return np.full(self.members or 0, value)

    def all(self, value: bool) -> Truth:
        return np.full(self.members or 0, value)

    def plain(self, found: Array) -> Array:
        return found


def summed(terms: Sequence[tuple[float, Sequence[Array]]]) -> Array:
    """Multiples of vectors, added up."""
    (a, first), *rest = terms
    found = np.multiply(cast("Array", first), a)
    for b, more in rest:
        found += np.multiply(cast("Array", more), b)
    return found


def tanks_of(members: int | None) -> Tanks[Any]:
    """The tanks of one tank, or of as many as there are members."""
    if members is None:
        return OneTank()
    return ManyTanks(members)


class PutAway(Generic[Part]):
    """Records of members as each leaves its run, until all have."""

    def __init__(self, members: int | None) -> None:
        self.going = None if members is None else np.arange(members)
        self.parts: dict[str, Array] = {}
        self.one: Part | None = None
        self.kind: type[Part]

    def put(self, part: Part, ended: Truth) -> None:
        """Those that leave; `part` is a dataclass of numbers, or of arrays over those that are still there."""
        self.kind = type(part)
        if self.going is None:
            self.one = part
            return
        gone = np.asarray(ended)
        for field in fields(part):  # type: ignore[arg-type]
            rows = self.parts.setdefault(field.name, np.full(self.going.size, np.nan))
            rows[self.going[gone]] = np.broadcast_to(getattr(part, field.name), self.going.shape)[gone]
        self.going = self.going[~gone]

    @property
    def complete(self) -> bool:
        return self.one is not None or (self.going is not None and self.going.size == 0)

    @property
    def whole(self) -> Part:
        return self.one if self.one is not None else self.kind(**self.parts)
