"""Possible tanks that are weighed by what was read of them."""

from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.special import logsumexp

from loquen.core.physics.elementwise import Array


def shares(log_weight: Array) -> Array:
    """Weights that add up to one."""
    return np.asarray(np.exp(log_weight - logsumexp(log_weight)))


def carried(weights: NDArray[Any]) -> float:
    """How many of one weight would know as much."""
    return float(1 / np.sum(weights**2))


def evenly(weights: Array, number: int, chance: np.random.Generator) -> NDArray[np.intp]:
    """So many by their weights, drawn at even steps."""
    steps = (np.arange(number) + chance.random()) / number
    return np.minimum(np.searchsorted(np.cumsum(weights), steps), len(weights) - 1)
