"""Parts of a venture that can not both be true, each named with the field it is typed in."""

from loquen.core.errors import PlanConflict
from loquen.core.library.whole import Library
from loquen.core.model.roots.venture import VENTURE, Venture

SHORTER_FRAC = 0.98
"""Of the adult length, the longest that is ever waited for."""


def conflicts(venture: Venture, library: Library) -> list[PlanConflict]:
    """Every contradiction in a venture, with the nearest value that works; empty when it makes sense."""
    return [*lists(venture), *colony(venture), *sizes(venture, library), *sales(venture)]


def lists(venture: Venture) -> list[PlanConflict]:
    return [
        PlanConflict("too_many_rows", path, most=most, rows=len(rows))
        for path, most in VENTURE.limits.items()
        if "." not in path and len(rows := getattr(venture, path)) > most
    ]


def colony(venture: Venture) -> list[PlanConflict]:
    found = []
    if venture.colony.females < 1:
        found.append(PlanConflict("no_female", "colony.females", 1))
    if venture.stand.all_tanks < venture.stand.colony_tanks:
        found.append(
            PlanConflict(
                "fewer_tanks_than_colony",
                "stand.all_tanks",
                venture.stand.colony_tanks,
                colony=venture.stand.colony_tanks,
            )
        )
    return found


def sizes(venture: Venture, library: Library) -> list[PlanConflict]:
    kind = library.species[venture.colony.species]
    longest = round(SHORTER_FRAC * kind.adult_length_cm, 1)
    paths = [("broods.move_cm", venture.broods.move_cm)]
    paths += [(f"sales.{i}.sale_cm", row.sale_cm) for i, row in enumerate(venture.sales) if row.sale_cm is not None]
    return [
        PlanConflict("beyond_adult", path, longest, kind=kind.common, adult=kind.adult_length_cm)
        for path, length in paths
        if length >= kind.adult_length_cm
    ]


def sales(venture: Venture) -> list[PlanConflict]:
    found = []
    for i, row in enumerate(venture.sales):
        if row.sale_cm is None:
            code = "price_without_size" if row.price_money is not None else "sale_without_size"
            found.append(PlanConflict(code, f"sales.{i}.sale_cm"))
    for sex in ("male", "female"):
        at = [i for i, row in enumerate(venture.sales) if row.sex in (sex, "any")]
        parts = sum(venture.sales[i].part_frac for i in at)
        if parts > 1 + 1e-9:
            last = at[-1]
            nearest = max(0.0, round(venture.sales[last].part_frac - (parts - 1), 4))
            found.append(PlanConflict("sold_twice", f"sales.{last}.part_frac", nearest, sex=f"{sex}s", parts=parts))
            break
    return found
