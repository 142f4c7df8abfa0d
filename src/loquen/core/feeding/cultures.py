"""Live food that the house grows, against what its rotas want."""

import math
from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from loquen.core.feeding.rota import Rota, week_of_foods
from loquen.core.library.rows.keeping import Food
from loquen.core.library.whole import Library
from loquen.core.model.records.feeding import Larder


@dataclass(frozen=True, slots=True)
class Grown:
    """One culture: how much of its food a week it gives and the rotas want, and how many of it would do."""

    key: str
    label: str
    food: str
    count: int
    yield_g_wk: float
    wanted_g_wk: float
    enough: int
    ready_d: int
    tended_d: int

    @property
    def lacks(self) -> bool:
        return self.wanted_g_wk > self.yield_g_wk


def grown(larder: Larder, rotas: Iterable[Rota], library: Library) -> list[Grown]:
    """Every culture that is kept, or whose food a rota wants."""
    wanted: Mapping[str, tuple[Food, float]] = week_of_foods(rotas)
    kept: dict[str, int] = defaultdict(int)
    for row in larder.cultures:
        kept[row.culture] += row.count
    found = []
    for culture in library.cultures.values():
        grams = wanted[culture.food][1] if culture.food in wanted else 0.0
        if not kept[culture.key] and not grams:
            continue
        found.append(
            Grown(
                key=culture.key,
                label=culture.label,
                food=library.foods[culture.food].label,
                count=kept[culture.key],
                yield_g_wk=kept[culture.key] * culture.yield_g_wk,
                wanted_g_wk=grams,
                enough=math.ceil(grams / culture.yield_g_wk - 1e-9),
                ready_d=culture.ready_d,
                tended_d=culture.tended_d,
            )
        )
    return found
