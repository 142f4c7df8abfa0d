"""A grow-out tank at its fullest, as animals of a plan: what the tank's own sheet is asked about."""

import numpy as np

from loquen.core.graph.sheet import Sheet
from loquen.core.growout.young import FEED_POWER, days_between, survivors
from loquen.core.model.parts.animals import Group
from loquen.core.model.roots.venture import Venture
from loquen.core.system.animals.food import masses_of

SIZES_TOLD = 8
"""Sizes of growing young that stand for all of them."""


def fullest(sheet: Sheet[Venture], count: int) -> tuple[Group, ...]:
    """So many growing young in as many sizes as stand for all, each with as many as are of it, fed to grow.

    Raises: NamedCase where the venture has no such young.
    """
    moved, grows, ways = sheet.value("moved_d"), sheet.value("grows"), sheet.value("ways")
    oldest = max(way.leaves_d + way.kept_d * (way.unsold_part > 0) for way in ways)
    ages, widths = days_between(min(moved, oldest), oldest)
    there = np.zeros(len(ages))
    for way in ways:
        staying = (ages >= way.leaves_d) & (ages < way.leaves_d + way.kept_d)
        there += way.part * ((ages < way.leaves_d) + way.unsold_part * staying)
    there = there * widths * survivors(ages, sheet.value("lives"))
    if not there.sum():
        return ()
    upto = np.cumsum(there) / there.sum()
    parts = [ages_in for ages_in in np.array_split(np.arange(len(ages)), SIZES_TOLD) if len(ages_in)]
    lengths = grows.length_cm(ages)
    mass = masses_of(sheet.value("kind"), lengths)
    found, told = [], 0
    for part in parts:
        many = int(np.floor(upto[part[-1]] * count + 0.5)) - told
        told += many
        # Of a size at which as many eat as much as all of these do.
        eaten = np.average(mass[part] ** FEED_POWER, weights=there[part]) if there[part].sum() else 0.0
        length = float(np.interp(eaten ** (1 / FEED_POWER), mass, lengths))
        if many > 0:
            found.append(
                Group(
                    sheet.root.colony.species, many, size_by="length", length_cm=round(length, 2), feed_by="growing"
                )
            )
    return tuple(found)
