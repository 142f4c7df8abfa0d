"""What a prior and a likelihood leave: weighted samples, drawn anew in rounds until they lie where the weight is."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.special import gammaln

from loquen.core.fit.weights import carried
from loquen.core.graph.giving_up import heed

Array = NDArray[np.float64]
ROUNDS = 3
SAMPLES = 3000
TAILS = 5.0
"""Degrees of freedom of the t distribution that samples are drawn from."""


@dataclass(frozen=True, slots=True)
class Posterior:
    """Samples (parameters × count) with weights that add up to one, and the logarithm of the evidence."""

    samples: Array
    weights: Array
    log_evidence: float

    def quantiles(self, of: Array, at: tuple[float, ...] = (0.05, 0.5, 0.95)) -> tuple[float, ...]:
        """Quantiles of a quantity of the samples."""
        order = np.argsort(of)
        reached = np.cumsum(self.weights[order]) - 0.5 * self.weights[order]
        return tuple(float(np.interp(q, reached, of[order])) for q in at)

    def mean(self, of: NDArray[Any]) -> float:
        return float(np.sum(self.weights * of))


def sampled(first: Array, log_first: Array, log_target: Callable[[Array], Array], seed: int = 1) -> Posterior:
    """Samples of a density that is known up to a factor, by adaptive importance sampling.

    Equation: w = target(x)/proposal(x); each round draws from a t distribution fitted to the last, weights tempered
        until a tenth of the samples carry them
    Parameters:
        first: parameters × count, array. Samples of a wide start, such as the prior.
        log_first: 1, array. Logarithm of the density that they were drawn from.
        log_target: function of samples: the logarithm of prior times likelihood.
        seed: count, scalar. Of the draws.
    Returns: a Posterior.
    Raises: nothing.
    Source: cappe2004
    """
    chance = np.random.default_rng(seed)
    samples, log_density = first, log_first
    log_weight = log_target(samples) - log_density
    for _ in range(ROUNDS):
        heed()
        soft = tempered(log_weight)
        middle = samples @ soft
        apart = samples - middle[:, None]
        spread = (apart * soft) @ apart.T + 1e-10 * np.eye(len(samples))
        samples, log_density = students(middle, spread, chance)
        log_weight = log_target(samples) - log_density
    top = log_weight.max()
    weights = np.exp(log_weight - top)
    return Posterior(samples, weights / weights.sum(), float(top + np.log(weights.mean())))


def tempered(log_weight: Array) -> Array:
    """Weights that add up to one, flattened until a tenth of the samples carry them."""
    low, high = 0.0, 1.0
    if carried(weighed(log_weight, 1.0)) >= 0.1 * log_weight.size:
        return weighed(log_weight, 1.0)
    for _ in range(30):
        middle = (low + high) / 2
        low, high = (
            (middle, high) if carried(weighed(log_weight, middle)) > 0.1 * log_weight.size else (low, middle)
        )
    return weighed(log_weight, low)


def weighed(log_weight: Array, power: float) -> Array:
    finite = np.where(np.isfinite(log_weight), log_weight, -1e300)
    found = np.exp(power * np.maximum(finite - finite.max(), -1e5))
    return np.asarray(found / found.sum())


def students(middle: Array, spread: Array, chance: np.random.Generator) -> tuple[Array, Array]:
    """Samples of a t distribution a fifth wider than what it was fitted to, with the logarithm of its density."""
    size = len(middle)
    root = np.linalg.cholesky(1.4 * spread)
    z = chance.standard_normal((size, SAMPLES))
    scale = np.sqrt(TAILS / chance.chisquare(TAILS, SAMPLES))
    apart = z * scale

    log_density = (
        gammaln((TAILS + size) / 2)
        - gammaln(TAILS / 2)
        - size / 2 * np.log(TAILS * np.pi)
        - np.log(np.diag(root)).sum()
        - (TAILS + size) / 2 * np.log1p((apart**2).sum(axis=0) / TAILS)
    )
    return middle[:, None] + root @ apart, log_density
