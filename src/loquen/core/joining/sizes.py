"""How large newcomers may be beside those who hold ground there: three schools, each in centimetres."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from loquen.core.data.tables import constants
from loquen.core.library.rows.animals import Species
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.system.animals.mouths import bulk_cm

School = Literal["alike", "larger", "smaller"]


@dataclass(frozen=True, slots=True)
class SizeWindow:
    """A school's window for one newcomer: from, to (None: no upper end), or why it can not be."""

    school: School
    low_cm: float
    high_cm: float | None
    possible: bool
    words: Sentence


def windows(newcomer: Species, residents: Iterable[tuple[Species, float]]) -> list[SizeWindow]:
    """The three schools against the largest who holds ground there; empty where nobody does.

    All alike: a newcomer is no rival to be chased and no prey. Larger: it is not chased. Much smaller: it is overlooked,
    if it is larger than what fits in a mouth.
    """
    holding = [(kind, length) for kind, length in residents if kind.temper in ("territorial", "fierce", "hunter")]
    if not holding:
        return []
    rules = constants("joining.toml")
    holder, length = max(holding, key=lambda row: row[1])
    swallowed = max(kind.gape_frac * size for kind, size in holding)
    # A deep body is swallowed at less length than a slender one.
    prey = swallowed / (bulk_cm(newcomer, 1.0))
    adult = newcomer.adult_length_cm
    alike = (rules["alike_low_frac"].value * length, rules["alike_high_frac"].value * length)
    larger = rules["larger_frac"].value * length
    smaller = rules["smaller_frac"].value * length
    return [
        window("alike", max(alike[0], prey), alike[1], adult, prey, holder),
        window("larger", larger, None, adult, prey, holder),
        window("smaller", prey, smaller, adult, prey, holder),
    ]


WORDS: dict[School, str] = {
    "alike": "all alike: {low} to {high}, beside {holder} of today",
    "larger": "larger: from {low}, so that {holder} does not chase them",
    "smaller": "much smaller: {low} to {high}, overlooked by {holder} and over what it swallows",
}


def window(
    school: School, low: float, high: float | None, adult: float, prey: float, holder: Species
) -> SizeWindow:
    terms: dict[str, Term | str] = {
        "low": Term(low, "length"),
        "high": Term(high or 0.0, "length"),
        "adult": Term(adult, "length"),
        "prey": Term(prey, "length"),
        "holder": holder.common,
    }
    if low > adult:
        return SizeWindow(school, low, high, False, say(f"{school}: they grow to {{adult}} only", **terms))
    if high is not None and low >= high:
        return SizeWindow(
            school, low, high, False, say(f"{school}: up to {{prey}} they are food to {{holder}}", **terms)
        )
    return SizeWindow(school, low, high, True, say(WORDS[school], **terms))
