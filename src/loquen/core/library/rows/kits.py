"""Kits and meters that water is read with."""

from dataclasses import dataclass
from typing import Literal

from loquen.core.data.measures import measures


@dataclass(frozen=True, slots=True)
class Kit:
    """A kit or meter: steps of its chart in what it reads as (none for a meter), and how far it errs."""

    key: str
    label: str
    measure: str
    steps: tuple[str, ...]
    reads: Literal["ion", "n", "plain"]
    blur_frac: float
    interferes: str
    source: str
    expires: str = ""

    @property
    def chart(self) -> tuple[float, ...]:
        return tuple(float(step) for step in self.steps)

    @property
    def factor(self) -> float:
        """What it shows of one of the measure's own unit."""
        return measures()[self.measure].ion if self.reads == "ion" else 1.0


def contradictions(row: Kit) -> dict[str, bool]:
    """What can not be true of a kit, by how it is said."""
    numbers = [float(step) for step in row.steps if is_number(step)]
    return {
        "a step of its chart is no number": len(numbers) != len(row.steps),
        "the steps of its chart do not rise": numbers != sorted(set(numbers)),
        "one step is no chart": len(row.steps) == 1,
        "it errs by nothing, or by more than itself": not 0 < row.blur_frac <= 1,
    }


def is_number(text: str) -> bool:
    try:
        float(text)
    except ValueError:
        return False
    return True
