"""Made-up companies of the library's kinds, seeded, of which one water suits all."""

import random
from itertools import combinations

from loquen.core.library.whole import shipped
from loquen.core.model.parts.animals import Group
from loquen.core.system.animals.company import RANGES


def share_water(kinds) -> bool:
    return all(
        max(getattr(one, low), getattr(other, low)) <= min(getattr(one, high), getattr(other, high))
        for one, other in combinations(kinds, 2)
        for _, _, low, high in RANGES
    )


def companies(count, seed=14):
    """Groups of one to four kinds, each as many as are at ease together."""
    chance, found = random.Random(seed), []
    kinds = list(shipped().species.values())
    while len(found) < count:
        chosen = chance.sample(kinds, chance.choice([1, 1, 2, 2, 3, 4]))
        if share_water(chosen):
            found.append(tuple(Group(kind.key, 1 if kind.alone else max(1, kind.group_least)) for kind in chosen))
    return found
