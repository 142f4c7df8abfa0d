"""Foods at hand and whom they suit: by mouth, by where they are eaten, by what they are made of."""

from collections.abc import Iterable

from loquen.core.feeding.means import POWDER_MM, crushed_for, sifts
from loquen.core.library.rows.animals import Species
from loquen.core.library.rows.keeping import Food
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.records.feeding import Larder, Mix

MIX = "mix."
GREEN_FRAC = 0.5
"""A food of which at least so much is plant counts as green."""
TOO_FINE = 0.05
"""Of what it can swallow: finer is dust to it; keepers' practice, unverified."""
PELLET = 0.5
"""A pellet is as wide as it is long, prey is not: of the longest prey; keepers' practice, unverified."""
REACHED = {
    "top": ("floats", "slow"),
    "middle": ("floats", "slow"),
    "bottom": ("sinks",),
    "all": ("floats", "slow", "sinks"),
}
"""How a food must fall to be had where an animal feeds: what sinks fast passes those above, what floats never comes down."""


def mixed(mix: Mix, library: Library) -> Food:
    """A mix as a food: dry matter, protein and plants by weight of its parts, water and binder in its weight.

    dry = Σ m·d ÷ (Σ m + water); protein = Σ m·d·p ÷ Σ m·d, plants alike. Source: definition
    """
    rows = [(part.grams, library.foods[part.food]) for part in mix.parts]
    dry = sum(grams * food.dry_frac for grams, food in rows)
    whole = sum(grams for grams, _ in rows) + mix.water_g
    return Food(
        key=MIX + mix.name.strip().lower(),
        label=mix.name.strip(),
        form="frozen",
        dry_frac=dry / whole,
        protein_frac=sum(grams * food.dry_frac * food.protein_frac for grams, food in rows) / dry,
        plant_frac=sum(grams * food.dry_frac * food.plant_frac for grams, food in rows) / dry,
        piece_mm=10.0,
        bitten=True,
        sinking="sinks",
        hard=False,
        coloured=any(food.coloured for _, food in rows),
        piece_g=mix.piece_g,
        source="definition",
        note="",
    )


def at_hand(larder: Larder, library: Library) -> list[Food]:
    """The foods of a larder with its own mixes; a key that the library has no more is left out."""
    known = library.foods
    return [known[key] for key in dict.fromkeys(larder.foods) if key in known] + [
        mixed(mix, library) for mix in larder.mixes if mix.parts
    ]


def gape_cm(kind: Species, length_cm: float) -> float:
    """The longest piece that it swallows at this length."""
    return kind.gape_frac * length_cm


def fits_mouth(food: Food, kind: Species, length_cm: float) -> bool:
    """Whether it is bitten off, or swallowed: neither too large for the mouth nor so fine that it is not worth picking up; dry
    food is crushed for the young, and sifters take powder alone."""
    if sifts(kind):
        return food.form == "dry" and food.piece_mm <= POWDER_MM
    if crushed_for(food, kind, length_cm):
        return True
    gape = gape_cm(kind, length_cm)
    largest = gape * (PELLET if food.form == "dry" else 1.0)
    return food.bitten or TOO_FINE * gape <= food.piece_mm / 10 <= largest


def reaches(food: Food, kind: Species, alone_at_bottom: bool) -> bool:
    """Whether it gets where the animal feeds.

    What lives or is hard is looked for at any level, turtles come up for what floats, and in a tank without others above
    what falls slowly comes down to those at the bottom.
    """
    if sifts(kind):
        return True
    if food.sinking in REACHED[kind.level] or (alone_at_bottom and food.sinking == "slow"):
        return True
    if kind.feeds_on == "reptile":
        return food.sinking == "floats"
    return food.sinking != "floats" and (food.hard or food.form == "live")


def nourishes(food: Food, kind: Species, library: Library) -> bool:
    """Whether it is what the kind eats: nothing green for a meat-eater, nothing much richer than its own food."""
    diet = library.diets[kind.feeds_on]
    green = food.plant_frac >= GREEN_FRAC
    if green:
        return diet.plant_high_frac >= GREEN_FRAC
    return food.protein_frac <= kind.protein_frac + diet.protein_over_frac


def suitable(
    foods: Iterable[Food], kind: Species, length_cm: float, alone_at_bottom: bool, library: Library
) -> list[Food]:
    """The foods that a kind can eat, and should."""
    return [
        food
        for food in foods
        if fits_mouth(food, kind, length_cm)
        and reaches(food, kind, alone_at_bottom)
        and nourishes(food, kind, library)
    ]


def why_none(
    foods: Iterable[Food], kind: Species, length_cm: float, alone_at_bottom: bool, library: Library
) -> Sentence:
    """Why nothing at hand suits: the first reason that leaves none."""
    rows = list(foods)
    gape = Term(gape_cm(kind, length_cm), "length")
    if sifts(kind) and not any(fits_mouth(food, kind, length_cm) for food in rows):
        return say(
            "{who} sift the current: nothing at hand is fine powder, and they can eat nothing else.",
            who=kind.common,
        )
    small = [food for food in rows if fits_mouth(food, kind, length_cm)]
    if not small:
        return say("{who}: nothing at hand is small enough; they swallow up to {gape}.", who=kind.common, gape=gape)
    got = [food for food in small if reaches(food, kind, alone_at_bottom)]
    if not got:
        where = {"bottom": "sinks to the bottom", "top": "stays at the surface"}.get(kind.level, "stays in reach")
        return say("{who}: nothing at hand that they can swallow {where}.", who=kind.common, where=where)
    diet = library.diets[kind.feeds_on].label
    return say("{who} {eat}: nothing at hand that reaches them is their food.", who=kind.common, eat=diet)
