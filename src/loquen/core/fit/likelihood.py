"""How likely a reading is at a level."""

import math
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

from loquen.core.model.records.readings import Interval

BLUR = 0.25
"""Standard deviation on the log scale of a kit, its water and the eye that reads it."""
ANYTHING = 0.02
"""Share of readings that may be anything: a wrong bottle, a wrong line."""
SPAN = 600.0
"""From the lowest to the highest level that is read of anything."""
FEWEST_STEPS = 7.0
LEAST = 1e-3
"""Of a level, so that its logarithm exists."""


def alternatives(read: Interval) -> float:
    """How many readings as wide as this one a kit could have shown: a narrow one is seldom hit by chance."""
    if math.isinf(read.high) or read.low <= 0:
        return FEWEST_STEPS
    return max(FEWEST_STEPS, math.log(SPAN) / math.log(max(read.high / read.low, 1.0001)))


def likelihood(level: Any, read: Interval, choices: float, blur: float = BLUR) -> NDArray[np.float64]:
    """Probability of reading this interval at a level: log-normal blur, and a few that may be anything.

    Equation: P = (1 − ε)·[Φ(ln(high/level)/σ) − Φ(ln(low/level)/σ)] + ε/choices
    Parameters:
        level: the unit of the reading, array, over 0. True levels.
        read: an Interval.
        choices: count, scalar, 1 to 1e5. What the kit could have shown instead.
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
