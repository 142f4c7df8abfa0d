"""A reading as the interval that it is: a step of a colour chart, “between 20 and 40”, “under 5”."""

import math
import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

from loquen.core.errors import NamedCase

BLUR = 0.25
"""Standard deviation on the log scale of a kit, its water and the eye that reads it."""
ANYTHING = 0.02
"""Share of readings that may be anything: a wrong bottle, a wrong line."""
LEAST = 1e-3
"""Of a level, so that its logarithm exists."""

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


def interval(value: str, chart: Sequence[float] = ()) -> Interval:
    """A reading as it is written, as an interval.

    Equation: on a chart half way to both neighbours; over its last step without end
    Parameters:
        value: text. A number, “between a and b”, “under a” or “over a”; comma or point.
        chart: the unit of the reading, rising steps. Of the kit's chart; empty for a meter.
    Returns: an Interval in the unit of the reading.
    Raises: NamedCase "not_a_reading" for text that is none of these, "turned_round" when a is over b.
    Source: practice

    >>> interval("20", [0, 5, 10, 20, 40])
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
                raise NamedCase("turned_round", low=numbers[0], high=numbers[1])
            return Interval(*numbers)
        if word == "under":
            return Interval(0.0, numbers[0])
        if word == "over":
            return Interval(numbers[0], math.inf)
        return around(numbers[0], chart)
    raise NamedCase("not_a_reading", value=value)


def around(number: float, chart: Sequence[float]) -> Interval:
    """A number read off a chart, or off a meter that shows it within a tenth."""
    if len(chart) < 2:
        return Interval(0.95 * number, 1.05 * number)
    below = [step for step in chart if step < number]
    above = [step for step in chart if step > number]
    low = (number + below[-1]) / 2 if below else 0.0
    high = (number + above[0]) / 2 if above else math.inf
    return Interval(low, high)


def likelihood(level: Any, read: Interval, choices: int, blur: float = BLUR) -> NDArray[np.float64]:
    """Probability of reading this interval at a level: log-normal blur, and a few that may be anything.

    Equation: P = (1 − ε)·[Φ(ln(high/level)/σ) − Φ(ln(low/level)/σ)] + ε/choices
    Parameters:
        level: the unit of the reading, array, over 0. True levels.
        read: an Interval.
        choices: count, scalar, 1 to 1000. Steps that the kit can show.
        blur: 1, scalar, 0.01 to 2. Standard deviation on the log scale.
    Returns: share, as level.
    Raises: nothing.
    Source: practice
    """
    return (1 - ANYTHING) * within(level, read, blur) + ANYTHING / choices


def within(level: Any, read: Interval, blur: float = BLUR) -> NDArray[np.float64]:
    """Probability that a blurred level falls into the interval."""
    log = np.log(np.maximum(level, LEAST))
    top = np.ones_like(log) if math.isinf(read.high) else ndtr((math.log(max(read.high, LEAST)) - log) / blur)
    bottom = ndtr((math.log(read.low) - log) / blur) if read.low > 0 else 0.0
    return np.asarray(np.maximum(top - bottom, 0.0))
