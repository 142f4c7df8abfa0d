"""Finding where a rising function passes zero."""

from collections.abc import Callable


def root(rising: Callable[[float], float], low: float, high: float) -> float:
    """Where a rising function passes zero between low and high (Brent's method)."""
    from scipy.optimize import brentq

    return float(brentq(rising, low, high, xtol=1e-7, rtol=1e-7))
