"""Shapes of bodies: numbers of biology, the same in every library."""

from dataclasses import dataclass
from functools import cache

from loquen.core.data.tables import Table, read_csv


@dataclass(frozen=True, slots=True)
class BodyShape:
    key: str
    label: str
    a: float
    b: float
    depth_frac: float
    source: str


@cache
def body_shapes() -> Table[BodyShape]:
    return read_csv("body_shapes.csv", BodyShape)
