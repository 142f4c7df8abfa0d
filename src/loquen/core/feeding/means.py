"""How food is given to those whom a pinch at the surface does not feed: sifters, the young, hunters, who feeds by night."""

from collections.abc import Iterator, Sequence

from loquen.core.library.rows.animals import Species
from loquen.core.library.rows.keeping import Food
from loquen.core.model.inputs.quantity import Sentence, Term, say

SIFTERS = ("Atyopsis", "Atya")
"""Shrimps that hold fans into the current, and pick up nothing."""
POWDER_MM = 0.5
YOUNG_FRAC = 0.3
"""Of grown length, below which dry food is crushed for them."""
CRUSHED_OF_GAPE = 0.4
GULPS_FROM_FRAC = 0.5
PREY_FRAC = (0.10, 0.15)
"""Of its own mass that a hunter which gulps is given at once, every third to seventh day."""
NIGHT = ("Mastacembelidae", "Muraenidae", "Sirenidae")
"""Families that come for their food in the dark."""
HALF, FEW_DAYS = 0.5, 2.0
"""Of a piece that is thawed, and days of food in it from which that is told: less of one is weighed by nobody."""
FROG_DAYS, GULP_DAYS = 4, 2
"""Days a week with food, at most."""


def sifts(kind: Species) -> bool:
    """Whether it takes what drifts past, and nothing else."""
    return kind.scientific.split()[0] in SIFTERS


def young(kind: Species, length_cm: float) -> bool:
    return length_cm < YOUNG_FRAC * kind.adult_length_cm


def crushed_for(food: Food, kind: Species, length_cm: float) -> bool:
    """Whether it is crushed before it is given: dry food that is too large for the young."""
    most_mm = CRUSHED_OF_GAPE * kind.gape_frac * length_cm * 10
    return food.form == "dry" and not food.bitten and young(kind, length_cm) and food.piece_mm > most_mm


def gulps(kind: Species) -> bool:
    """Whether it swallows few large pieces whole."""
    return kind.temper == "hunter" and kind.gape_frac >= GULPS_FROM_FRAC


def how(
    kind: Species, length_cm: float, mass_g: float, days: int, given: Sequence[tuple[Food, float | None]]
) -> Iterator[Sentence]:
    """How a kind of that length and mass, fed on so many days a week, is given these foods, each with its pieces for all of a
    group on a day with it.

    Source: practice
    """
    terms: dict[str, Term | str] = {"who": kind.common, "days": Term(days, "count")}
    too_often = " It is planned on {days} days: give it days without food on its stage."
    if sifts(kind):
        yield say(
            "{who}: powder into the current, a little two to five times a day; they hold their fans into it.",
            **terms,
        )
    if any(crushed_for(food, kind, length_cm) for food, _ in given):
        size = Term(CRUSHED_OF_GAPE * kind.gape_frac * length_cm * 10, "thickness")
        yield say("{who}: crush dry food to under {size} for mouths so small.", size=size, **terms)
    if gulps(kind):
        low, high = (Term(part * mass_g, "small_mass") for part in PREY_FRAC)
        text = "{who}: whole prey, {low} to {high} for each, every third to seventh day."
        yield say(text + (too_often if days > GULP_DAYS else ""), low=low, high=high, **terms)
    elif kind.family in NIGHT:
        yield say("{who}: after the lamps are out, meat in pieces, from tongs or into a dish.", **terms)
    elif kind.shape == "frog" and kind.feeds_on == "carnivore":
        text = "{who}: worms or meat from tongs, two to four times a week."
        yield say(text + (too_often if days > FROG_DAYS else ""), **terms)
    for food, pieces in given:
        if food.form == "frozen" and food.piece_g > 0 and pieces is not None and 0 < pieces <= HALF / FEW_DAYS:
            text = "{food}: half a piece is as much as {lasts} of this. Give a half that seldom and something else between; nothing thawed keeps over a day."
            yield say(text, food=food.label[:1].upper() + food.label[1:], lasts=Term(HALF / pieces, "days"))
