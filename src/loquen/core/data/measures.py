"""What is read of the water."""

from dataclasses import dataclass
from functools import cache

from loquen.core.data.tables import Table, toml


@dataclass(frozen=True, slots=True)
class Measure:
    """Something that is read. `ion` is what a kit shows of one mg of N; `low` to `high` is what any water may read."""

    key: str
    label: str
    kind: str
    low: float
    high: float
    ion: float = 1.0


@cache
def measures() -> Table[Measure]:
    return Table("measures.toml", ((key, Measure(key, **row)) for key, row in toml("measures.toml").items()))
