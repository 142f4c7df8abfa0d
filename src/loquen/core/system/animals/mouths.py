"""Who could swallow whom: gapes against lengths, today and as they grow."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import NamedTuple

from loquen.core.graph.nodes import State, step, worst
from loquen.core.library.rows.animals import Species
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.system.animals.findings import Finding
from loquen.core.system.animals.food import length_in

MONTHS_WATCHED = 24
Lengths = dict[str, tuple[float, float]]


HARD_TO_SWALLOW = 0.6
"""Of a gape, for what is deep-bodied or spiny."""
DEEP = ("disc", "globular")
TIGHT_GAPES, SLOW_GAPES = 1.5, 2.0
"""Up to so many gapes a prey is near the mouth; what is slow, or sleeps on the bottom, up to so many."""


def bulk_cm(prey: Species, prey_cm: float) -> float:
    """The length of a slender prey that is no easier to swallow than this one."""
    return prey_cm / HARD_TO_SWALLOW if prey.shape in DEEP or prey.armoured else prey_cm


class Meeting(NamedTuple):
    """The longest of one against the shortest of another, and whether it could be swallowed."""

    hunter: Species
    hunter_cm: float
    prey: Species
    prey_cm: float

    @property
    def state(self) -> State:
        gape_cm, bulk = self.hunter.gape_frac * self.hunter_cm, bulk_cm(self.prey, self.prey_cm)
        slow = not self.prey.armoured and (self.prey.level == "bottom" or self.prey.current == "still")
        near = SLOW_GAPES if slow else TIGHT_GAPES
        return "short" if bulk < gape_cm else "tight" if bulk < near * gape_cm else "holds"

    @property
    def finding(self) -> Finding:
        terms: dict[str, Term | str] = {
            "prey": self.prey.common,
            "length": Term(self.prey_cm, "length"),
            "gape": Term(self.hunter.gape_frac * self.hunter_cm, "length"),
            "hunter": self.hunter.common,
        }
        state = self.state
        text = (
            "{prey}, {length} long, fits in the mouth of {hunter}, which takes up to {gape}"
            if state == "short"
            else "{prey} outgrows the mouth of {hunter} by its {length} against {gape}; its young do not"
        )
        return Finding((self.hunter.common, self.prey.common), "mouth", state, say(text, **terms))


@dataclass(frozen=True, slots=True)
class Growing:
    """The shortest and the longest of every kind, in every month from today to when they are planned for."""

    months: tuple[Lengths, ...]

    @property
    def label(self) -> str:
        return f"{len(self.months) - 1} months"

    def worst(self, meeting: Callable[[Lengths], Meeting]) -> Finding:
        """What is found at the worst of all months, with the first month it stands so badly unless that is today."""
        met = [meeting(lengths) for lengths in self.months]
        states = [one.state for one in met]
        first = states.index(worst(states))
        found = met[first].finding
        if first == 0 or found.state == "holds":
            return found
        text = found.sentence.text + ", from about {when} on"
        return replace(found, sentence=Sentence(text, {**found.sentence.terms, "when": Term(first, "months")}))


def eaten(a: Species, b: Species, lengths: Lengths) -> Meeting:
    """Who could swallow whom, the longest of one against the shortest of the other."""
    (a_short, a_long), (b_short, b_long) = lengths[a.key], lengths[b.key]
    return Meeting(a, a_long, b, b_short) if a_long >= b_long else Meeting(b, b_long, a, a_short)


def lengths_of(animal: tuple[Species, ...], lengths_cm: list[float]) -> Lengths:
    """The shortest and the longest of every kind."""
    lengths: Lengths = {}
    for kind, length in zip(animal, lengths_cm, strict=True):
        low, high = lengths.get(kind.key, (length, length))
        lengths[kind.key] = (min(low, length), max(high, length))
    return lengths


@step()
def sizes_to_come(
    animal: tuple[Species, ...],
    length_now_cm: tuple[float, ...],
    length_then_cm: tuple[float, ...],
    adult_length_cm: tuple[float, ...],
    judged_months: float,
) -> Growing:
    """Month by month for two years, or as far as is planned, and then as long as they are planned for."""
    rows = list(zip(animal, length_now_cm, adult_length_cm, strict=True))
    grown = all(now >= then for now, then in zip(length_now_cm, length_then_cm, strict=True))
    ahead = 0 if grown else int(min(judged_months, MONTHS_WATCHED))
    monthly = [
        lengths_of(animal, [length_in(month, adult, now, kind) for kind, now, adult in rows])
        for month in range(ahead + 1)
    ]
    return Growing((*monthly, lengths_of(animal, list(length_then_cm))))


def among(kind: Species, lengths: Lengths) -> Meeting:
    """The longest of a kind against its shortest; nobody swallows its like of one size."""
    low, high = lengths[kind.key]
    return Meeting(kind, high if high > low else 0.0, kind, low)
