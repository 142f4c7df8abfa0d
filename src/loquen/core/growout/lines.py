"""How fast a closed line loses its breadth: the effective number by sexes, as a guide."""

from collections.abc import Sequence

from loquen.core.physics.ranges import within


def effective_number(males: float, females: float) -> float:
    """Animals of an ideal population that would lose as much in a generation as these breeders do.

    Equation: Ne = 4·M·F/(M + F)
    Parameters:
        males, females: 1, scalar, 0 to 1e5. That breed.
    Returns: 1, scalar; 0 where a sex is missing.
    Raises: OutOfRange.
    Source: wright1931

    >>> effective_number(males=2, females=4)
    5.333333333333333
    """
    within("males", males, 0, 1e5, "1")
    within("females", females, 0, 1e5, "1")
    return 4 * males * females / (males + females) if males and females else 0.0


def lost_frac(effective: Sequence[float]) -> float:
    """Part of a line's breadth that is lost over generations, each with its effective number.

    Equation: 1 − Π (1 − 1/(2·Ne))
    Parameters:
        effective: 1, scalars, 0.5 to 1e6. One for each generation that bred.
    Returns: share, scalar; nothing for no generation.
    Raises: OutOfRange.
    Source: wright1931

    >>> round(lost_frac([10, 10, 10, 10, 10]), 4)
    0.2262
    """
    left = 1.0
    for number in effective:
        within("effective number", number, 0.5, 1e6, "1")
        left *= 1 - 1 / (2 * number)
    return 1 - left
