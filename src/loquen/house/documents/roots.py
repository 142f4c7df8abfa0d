"""Several roots, and what their documents have in common."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from loquen.core.model.inputs.shape import Shape
from loquen.house.documents.root import Root


@dataclass(frozen=True, eq=False)
class Roots:
    """The roots that one API knows."""

    known: tuple[Root[Any], ...]

    @cached_property
    def shapes(self) -> tuple[Shape, ...]:
        return tuple(root.written.shape for root in self.known)

    @cached_property
    def parts(self) -> frozenset[str]:
        """What their documents are called where they are sent."""
        return frozenset(root.part for root in self.known)

    def beside(self, more: Iterable[Root[Any]]) -> "Roots":
        return Roots((*self.known, *more))
