"""Where a reading is heading: a straight line through intervals, with the range that they leave it."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from loquen.core.fit.likelihood import likelihood
from loquen.core.fit.posterior import SAMPLES, sampled
from loquen.core.model.records.readings import Interval

CHOICES = 20
FEWEST = 4
WIDEST = 3.0
"""Of the readings' own spread over their span: how steep a line may be."""


@dataclass(frozen=True, slots=True)
class Trend:
    """A line: level at the last reading and slope a day, each 5, 50 and 95 %, and the odds that it rises."""

    level: tuple[float, float, float]
    per_d: tuple[float, float, float]
    rising_odds: float

    @property
    def sure(self) -> bool:
        """Whether it surely goes one way."""
        return self.per_d[0] > 0 or self.per_d[2] < 0


def trend(days: Sequence[float], reads: Sequence[Interval], blurs: Sequence[float]) -> Trend | None:
    """The line through readings; None for fewer than FEWEST of them, or all on one day.

    Equation: level = a + b·day, censored log-normal readings, samples of the posterior
    Parameters:
        days: d, as reads. Of each reading.
        reads: Intervals, in the unit that the line is wanted in.
        blurs: 1, as reads. Standard deviation of each kit on the log scale.
    Returns: a Trend, or None.
    Raises: nothing.
    Source: cappe2004
    """
    if len(days) < FEWEST or max(days) - min(days) < 1:
        return None
    at = np.array(days) - max(days)
    middles = np.array([read.middle for read in reads])
    typical = max(float(np.median(middles)), 1e-3)
    slope, level = np.polyfit(at, middles, 1)
    wide = max(float(np.ptp(middles)), 0.1 * typical)
    deviation = np.array([wide, WIDEST * wide / -at.min()])
    start = np.array([max(level, 0.1 * typical), slope])
    z = np.random.default_rng(4).standard_normal((2, SAMPLES))
    log_first = -0.5 * (z**2).sum(axis=0) - np.log(deviation).sum() - math.log(2 * math.pi)

    def target(samples: NDArray[np.float64]) -> NDArray[np.float64]:
        total = np.where(samples[0] > 0, 0.0, -np.inf)
        for day, read, blur in zip(at, reads, blurs, strict=True):
            found = samples[0] + samples[1] * day
            total = total + np.log(likelihood(np.maximum(found, 1e-3), read, CHOICES, max(blur, 0.005)))
        return np.asarray(total)

    found = sampled(start[:, None] + deviation[:, None] * z, log_first, target)
    low, middle, high = found.quantiles(found.samples[1])
    return Trend(
        level=found.quantiles(found.samples[0]),  # type: ignore[arg-type]
        per_d=(low, middle, high),
        rising_odds=found.mean(found.samples[1] > 0),
    )
