"""A first venture for a kind and a tank: what the library and practice say, with no more broods raised than fit."""

from dataclasses import replace

from loquen.core.data import library
from loquen.core.errors import NamedCase
from loquen.core.growout.book import placing, sheet_of
from loquen.core.model.plan import Plan
from loquen.core.model.venture import Broods, Colony, Raising, Sale, Stand, Venture

FEWER_A_MONTH = (None, 8.0, 4.0, 2.0, 1.0, 0.5, 0.25, 0.1, 0.05)
"""Batches raised a month that are tried, all of them first."""
MOVED_BY_FRAC = 0.35
"""Of the way from birth to the size they are sold at, where they leave the raising tank."""
FIRST_D, THEN_D = 30.0, 150.0


def first_venture(species: str, system: int, purpose: str, plan: Plan | None) -> Venture:
    """A colony by the library's numbers, everybody sold at its usual size; prices are left to enter.

    Raises: UnknownKey.
    """
    kind = library.species()[species]
    breeds = library.breeding().get(species)
    females = breeds.females_least if breeds else max(2, kind.females_per_male)
    males = max(1, round(females / breeds.pairs_ratio)) if breeds else 1
    sale_cm = breeds.sale_cm if breeds else round(kind.adult_length_cm * 0.6, 1)
    start_cm = breeds.start_cm if breeds else kind.adult_length_cm * 0.1
    made = Venture(
        name=kind.common,
        colony=Colony(species, "line" if purpose == "line" else "sale", females=females, males=males),
        stand=Stand(system=system),
        broods=Broods(
            raised="raising" if breeds is None or breeds.eats_young else "parents",
            move_cm=round(start_cm + MOVED_BY_FRAC * (sale_cm - start_cm), 1),
        ),
        raising=(Raising("First food", FIRST_D, 0.7), Raising("Growing on", THEN_D, 0.95)),
        sales=(
            Sale(
                "Young",
                "any",
                "club" if purpose == "line" else "shop",
                sale_cm=sale_cm,
                colour_d=breeds.colour_d if breeds else 0.0,
            ),
        ),
    )
    return with_fitting_broods(made, plan)


def with_fitting_broods(venture: Venture, plan: Plan | None) -> Venture:
    """The venture with as many batches raised as its tanks hold, also on the fullest day."""
    if plan is None:
        return venture
    placed = placing(venture, plan)
    found = venture
    for month in FEWER_A_MONTH:
        found = replace(venture, broods=replace(venture.broods, taken_month=month))
        try:
            peak = sheet_of(found, placed).value("tanks_peak")
        except NamedCase:
            return venture
        if peak <= venture.stand.all_tanks:
            break
    return found
