"""A reading as the interval that it is: a step of a colour chart, “between 20 and 40”, “under 5”."""

import math
import re
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from loquen.core.errors import BadReading

SHOWN = 0.01
"""Of a number that a meter shows: half its last digit, about; how far the meter errs is its own affair."""
NUMBER = r"(\d+(?:[.,]\d+)?)"
WORDS = {
    "between": re.compile(rf"^(?:between\s+)?{NUMBER}\s*(?:and|to|-|–)\s*{NUMBER}$"),
    "under": re.compile(rf"^(?:under|below|<)\s*{NUMBER}$"),
    "over": re.compile(rf"^(?:over|above|more than|>)\s*{NUMBER}$"),
    "at": re.compile(rf"^{NUMBER}$"),
}


@dataclass(frozen=True, slots=True)
class Interval:
    """Where the level lay, in the unit of the reading; `high` is infinite at the top of a chart."""

    low: float
    high: float

    def scaled(self, factor: float) -> "Interval":
        return Interval(self.low * factor, self.high * factor)

    @property
    def middle(self) -> float:
        """A level to draw it at: the geometric middle, the lower end where it has no upper one."""
        if math.isinf(self.high):
            return self.low
        return math.sqrt(max(self.low, 0.05 * self.high) * self.high)


@lru_cache(4096)
def interval(value: str, chart: tuple[float, ...] = ()) -> Interval:
    """A reading as it is written, as an interval.

    Equation: on a chart half way to both neighbours; over its last step without end
    Parameters:
        value: text. A number, “between a and b”, “under a” or “over a”; comma or point.
        chart: the unit of the reading, rising steps. Of the kit's chart; empty for a meter.
    Returns: an Interval in the unit of the reading.
    Raises: BadReading "not_a_reading" for text that is none of these, "turned_round" when a is over b.
    Source: practice

    >>> interval("20", (0, 5, 10, 20, 40))
    Interval(low=15.0, high=30.0)
    """
    text = value.strip().lower()
    for word, pattern in WORDS.items():
        found = pattern.match(text)
        if not found:
            continue
        numbers = [float(number.replace(",", ".")) for number in found.groups()]
        if word == "between":
            if numbers[0] > numbers[1]:
                raise BadReading("turned_round", low=numbers[0], high=numbers[1])
            return Interval(*numbers)
        if word == "under":
            return Interval(0.0, numbers[0])
        if word == "over":
            return Interval(numbers[0], math.inf)
        return around(numbers[0], chart)
    raise BadReading("not_a_reading", value=value)


def around(number: float, chart: Sequence[float]) -> Interval:
    """A number read off a chart, or off a meter as it shows it."""
    if len(chart) < 2:
        return Interval((1 - SHOWN) * number, (1 + SHOWN) * number)
    below = [step for step in chart if step < number]
    above = [step for step in chart if step > number]
    low = (number + below[-1]) / 2 if below else 0.0
    high = (number + above[0]) / 2 if above else math.inf
    return Interval(low, high)
