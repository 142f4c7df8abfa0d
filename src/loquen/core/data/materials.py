"""What panes and walls are made of: numbers of physics, the same in every library."""

from dataclasses import dataclass
from functools import cache

from loquen.core.data.tables import Table, read_csv


@dataclass(frozen=True, slots=True)
class Material:
    key: str
    label: str
    conductivity_w_mk: float
    density_kg_l: float
    source: str


@cache
def materials() -> Table[Material]:
    return read_csv("materials.csv", Material)
