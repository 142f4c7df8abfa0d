"""How many young of unknown sex to buy for so many of each, and what an adult costs either way."""

from dataclasses import dataclass
from functools import lru_cache
from math import comb

from loquen.core.errors import NamedCase
from loquen.core.physics.ranges import within

MOST = 400


def chance_of_both(number: int, males: int, females: int, male_frac: float = 0.5) -> float:
    """Chance that so many young hold at least so many males and females.

    Equation: P = Σ C(n, k)·p^k·(1 − p)^(n − k) over k from males to n − females
    Parameters:
        number: 1, scalar, 0 to 400. Young bought.
        males: 1, scalar, 0 to 400. Males wanted at least.
        females: 1, scalar, 0 to 400. Females wanted at least.
        male_frac: share, scalar, 0 to 1. Males among them on the mean.
    Returns: share, scalar.
    Raises: OutOfRange.
    Source: definition

    >>> round(chance_of_both(number=6, males=1, females=2), 4)
    0.875
    """
    within("number", number, 0, MOST, "1")
    within("males", males, 0, MOST, "1")
    within("females", females, 0, MOST, "1")
    within("male_frac", male_frac, 0, 1, "share")
    if number < males + females:
        return 0.0
    return at_most(number - females, number, male_frac) - at_most(males - 1, number, male_frac)


@lru_cache(1024)
def to_buy(males: int, females: int, wanted_frac: float, male_frac: float = 0.5, survive_frac: float = 1.0) -> int:
    """The fewest young with which the chance of so many grown males and females reaches what is wanted.

    Equation: as chance_of_both, each young a male with p·s, a female with (1 − p)·s, lost otherwise
    Parameters:
        males: 1, scalar, 0 to 400. Males wanted at least.
        females: 1, scalar, 0 to 400. Females wanted at least.
        wanted_frac: share, scalar, 0.01 to 0.999. Chance wanted.
        male_frac: share, scalar, 0 to 1. Males among them on the mean.
        survive_frac: share, scalar, 0.01 to 1. Of them that grow up.
    Returns: 1, scalar.
    Raises: OutOfRange; NamedCase "never_both" when no number up to 400 reaches it.
    Source: definition

    >>> to_buy(males=1, females=1, wanted_frac=0.95)
    6
    """
    within("wanted_frac", wanted_frac, 0.01, 0.999, "share")
    within("survive_frac", survive_frac, 0.01, 1, "share")
    least, most = max(1, males + females), MOST
    if least > MOST or chance_grown(MOST, males, females, male_frac, survive_frac) < wanted_frac:
        raise NamedCase("never_both")
    # More young never make it less likely.
    while least < most:
        middle = (least + most) // 2
        if chance_grown(middle, males, females, male_frac, survive_frac) >= wanted_frac:
            most = middle
        else:
            least = middle + 1
    return most


def chance_grown(number: int, males: int, females: int, male_frac: float, survive_frac: float) -> float:
    """Chance that so many young become at least so many of each, each grown a male, grown a female, or lost.

    P(M ≥ m, F ≥ f) = 1 − P(M < m) − P(F < f) + P(M < m, F < f)
    """
    male, female = male_frac * survive_frac, (1 - male_frac) * survive_frac
    of_the_rest = female / (1 - male) if male < 1 else 0.0
    both_few = sum(
        comb(number, few)
        * male**few
        * (1 - male) ** (number - few)
        * at_most(females - 1, number - few, of_the_rest)
        for few in range(males)
    )
    return 1 - at_most(males - 1, number, male) - at_most(females - 1, number, female) + both_few


def at_most(count: int, number: int, chance: float) -> float:
    """Chance of no more than so many of a number, each with a chance."""
    from scipy.special import bdtr

    return float(bdtr(min(count, number), number, chance)) if count >= 0 else 0.0


@dataclass(frozen=True, slots=True)
class Bought:
    """Young against grown: how many young, with what chance, and what the wanted ones cost either way."""

    number: int
    chance_frac: float
    young_money: float
    grown_money: float
    over: int
    """Young that grow up and are not wanted: they need a home."""


def bought(
    males: int,
    females: int,
    wanted_frac: float,
    male_frac: float,
    survive_frac: float,
    young_price: float,
    raising_price: float,
    grown_price: float,
) -> Bought:
    """What so many grown males and females cost bought young, with a price for raising each survivor, and bought grown."""
    number = to_buy(males, females, wanted_frac, male_frac, survive_frac)
    raised = number * survive_frac
    return Bought(
        number=number,
        chance_frac=chance_grown(number, males, females, male_frac, survive_frac),
        young_money=number * young_price + raised * raising_price,
        grown_money=(males + females) * grown_price,
        over=max(0, round(raised) - males - females),
    )
