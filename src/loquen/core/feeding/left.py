"""What was left five minutes after a meal moves the next: eaten, some left, much left."""

from collections.abc import Iterable
from typing import Literal

Left = Literal["eaten", "some", "much"]
IN_A_ROW = 3
"""So many meals eaten to the last one after the other before there is more."""
MORE, LESS, MUCH_LESS = 1.1, 0.9, 0.75
LEAST, MOST = 0.4, 1.6


def part_after(left: Iterable[str]) -> float:
    """The part of the reckoned food that is given after so many meals, oldest first.

    Some left: a tenth less; much left: a quarter less; three meals eaten in a row: a tenth more; within 0.4 to 1.6 of the
    balance. Keepers' practice, unverified.
    """
    part, eaten = 1.0, 0
    for word in left:
        eaten = eaten + 1 if word == "eaten" else 0
        if word == "some":
            part *= LESS
        elif word == "much":
            part *= MUCH_LESS
        elif eaten == IN_A_ROW:
            part, eaten = part * MORE, 0
        part = min(MOST, max(LEAST, part))
    return part
