"""More of those who want company, or fewer animals."""

import math
from collections.abc import Iterator
from dataclasses import replace
from itertools import combinations

from loquen.core.graph.keys import Key
from loquen.core.model.parts.animals import Group
from loquen.core.model.roots.plan import Plan
from loquen.core.system.planner.standing import Standing

PARTS_KEPT = (0.9, 0.75, 0.6, 0.45, 0.3)


def company(now: Standing, _: Key) -> Iterator[Plan]:
    """More of those who want company, one more at a time."""
    for i, group in enumerate(now.plan.animals):
        kind = now.library.species[group.species]
        if not kind.alone and group.number < kind.group_least:
            yield with_group(now.plan, i, replace(group, number=kind.group_least, males=None))


def fewer(now: Standing, _: Key) -> Iterator[Plan]:
    """Fewer of one kind, as many as stay in company; the least fewer first."""
    tried: set[tuple[float, int, int]] = set()
    for i, group in enumerate(now.plan.animals):
        kind = now.library.species[group.species]
        least = 1 if kind.alone else max(1, kind.group_least)
        for kept in PARTS_KEPT:
            left = max(least, math.floor(group.number * kept))
            if left < group.number:
                tried.add((1 - left / group.number, i, left))
    for _part, i, left in sorted(tried):
        yield with_group(now.plan, i, replace(now.plan.animals[i], number=left, males=None))


def with_group(plan: Plan, at: int, group: Group) -> Plan:
    return replace(plan, animals=(*plan.animals[:at], group, *plan.animals[at + 1 :]))


def left_out(now: Standing, _: Key) -> Iterator[Plan]:
    """One kind less, then two; the fewest animals first."""
    animals = now.plan.animals
    for count in range(1, min(3, len(animals))):
        for out in sorted(
            combinations(range(len(animals)), count), key=lambda out: sum(animals[i].number for i in out)
        ):
            yield replace(now.plan, animals=tuple(group for i, group in enumerate(animals) if i not in out))
