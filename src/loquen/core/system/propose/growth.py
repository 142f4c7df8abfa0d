"""A sheet through time: which checks the animals outgrow, and when."""

import math
from dataclasses import dataclass
from functools import cache

from loquen.core.graph.keys import Key
from loquen.core.graph.sheet import Sheet
from loquen.core.system.book import ASKED_MONTHS
from loquen.core.system.told import is_short

NEARLY_GROWN = 0.99
LONGEST_MONTHS = 600.0
HALF_A_MONTH = 0.5


@dataclass(frozen=True, slots=True)
class Outgrown:
    """A check that holds today and falls short once the animals have grown so many months."""

    check: Key
    label: str
    months: float


def outgrown(sheet: Sheet) -> tuple[Outgrown, ...]:
    """Every check that growth alone will break, soonest first; empty when everything is grown or holds."""
    aged = cache(lambda months: sheet.changed({ASKED_MONTHS: months}))
    end = months_to_grow(aged(0.0))
    if end == 0:
        return ()
    found = []
    for key in sorted(sheet.wiring.users_of(ASKED_MONTHS)):
        node = sheet.wiring.nodes[key]
        if node.check is None or is_short(aged(0.0), key) or not is_short(aged(math.inf), key):
            continue
        low, high = 0.0, end
        while high - low > HALF_A_MONTH:
            middle = (low + high) / 2
            low, high = (low, middle) if is_short(aged(middle), key) else (middle, high)
        found.append(Outgrown(key, node.label, high))
    return tuple(sorted(found, key=lambda row: row.months))


def months_to_grow(today: Sheet) -> float:
    """Months until the slowest group is within a hundredth of its adult length; 0 when all are."""
    longest = 0.0
    for i in range(len(today.root.animals)):
        adult, now = today.value(f"animals.{i}.adult_length_cm"), today.value(f"animals.{i}.length_now_cm")
        missing, near = adult - now, (1 - NEARLY_GROWN) * adult
        if missing > near:
            growth = today.value(f"animals.{i}.animal").growth_per_year
            longest = max(longest, 12 * math.log(missing / near) / growth)
    return min(longest, LONGEST_MONTHS)
