"""A first venture for a kind and a tank: what the library and practice say, with no more broods raised than fit."""

from dataclasses import replace

from loquen.core.errors import NamedCase
from loquen.core.growout.book import Placing, placing, sheet_of
from loquen.core.library.whole import Library
from loquen.core.model.roots.plan import Plan
from loquen.core.model.roots.venture import Broods, Colony, Raising, Sale, Stand, Venture

TAKEN_MONTH = (None, 4.0, 2.0, 1.0, 0.5, 0.25)
"""Batches raised a month that are tried, all of them first."""
OF_A_BATCH = (None, 200.0, 100.0, 60.0, 40.0, 25.0, 15.0, 10.0, 5.0)
"""Young raised of a batch that are tried, all of them first."""
MOVED_BY_FRAC = 0.35
"""Of the way from birth to the size they are sold at, where they leave the raising tank."""
FIRST_D, THEN_D = 30.0, 150.0


def first_venture(species: str, system: int, purpose: str, plan: Plan | None, library: Library) -> Venture:
    """A colony by the library's numbers, everybody sold at its usual size; prices are left to enter.

    Raises: UnknownKey.
    """
    kind = library.species[species]
    breeds = library.breeds(species)
    females = breeds.females_least if breeds else max(2, kind.females_per_male)
    males = max(1, int(females / breeds.pairs_ratio)) if breeds else 1
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
    return with_fitting_broods(made, plan, library)


def with_fitting_broods(venture: Venture, plan: Plan | None, library: Library) -> Venture:
    """The venture with as many batches, and of each as many young raised, as its tanks hold also on the fullest day.

    Batches first, until no more raising tanks are wanted than leave one to grow on in; then fewer of each.
    """
    if plan is None:
        return venture
    placed = placing(venture, plan, library)

    def raising(month: float | None, young: float | None) -> Venture:
        broods = replace(venture.broods, taken_month=month, most_of_batch=young)
        return replace(venture, broods=broods)

    spare = max(1, (venture.stand.all_tanks - venture.stand.colony_tanks) // 2)
    try:
        month = next(
            (
                month
                for month in TAKEN_MONTH
                if wants(raising(month, None), placed, "raising_tanks", library) <= spare
            ),
            TAKEN_MONTH[-1],
        )
        for young in OF_A_BATCH:
            found = raising(month, young)
            if wants(found, placed, "tanks_peak", library) <= venture.stand.all_tanks:
                break
    except NamedCase:
        return venture
    return found


def wants(venture: Venture, placed: Placing, figure: str, library: Library) -> float:
    """Tanks of a venture, by a figure of its sheet; raise NamedCase where it has none."""
    found: float = sheet_of(venture, library, placed).value(figure)
    return found
