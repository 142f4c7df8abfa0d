"""What a zone's emitters do to its tanks: litres to shares, and what a failed mixing valve would do."""

import math
from collections.abc import Sequence

from loquen.core.physics.dilution import after_flow_through
from loquen.core.physics.ranges import within


def flow_ratio(*, emitter_lph: float, minutes: float, volume_l: float, short_circuit_frac: float = 0.1) -> float:
    """Litres that really pass through a tank in one run, per litre of it.

    Equation: r = q·t/60/V·(1 − s)
    Parameters:
        emitter_lph: L/h, scalar, 0 to 1e5. Of the tank's emitter.
        minutes: min, scalar, 0 to 10080. Of the run.
        volume_l: L, scalar, 0.1 to 1e6. Real water of the tank.
        short_circuit_frac: share, scalar, 0 to 0.9. That leaves by the overflow before it mixes; 0 to 0.3.
    Returns: 1, scalar.
    Raises: OutOfRange.
    Source: balance

    >>> round(flow_ratio(emitter_lph=40, minutes=30, volume_l=60), 4)
    0.3
    """
    within("emitter_lph", emitter_lph, 0, 1e5, "L/h")
    within("minutes", minutes, 0, 10_080, "min")
    within("volume_l", volume_l, 0.1, 1e6, "L")
    within("short_circuit_frac", short_circuit_frac, 0, 0.9, "share")
    return emitter_lph * minutes / 60 / volume_l * (1 - short_circuit_frac)


def exchanged_frac(*, ratios: Sequence[float]) -> float:
    """Share of a tank's water that pulses of these ratios exchange together.

    Equation: x = 1 − e^(−Σr)
    Parameters:
        ratios: 1, one per pulse, each 0 to 1000. As from flow_ratio.
    Returns: share, scalar.
    Raises: OutOfRange.
    Source: balance

    >>> round(exchanged_frac(ratios=[1 / 3]), 3)
    0.283
    """
    total = sum(ratios)
    within("ratios", total, 0, 1000, "1")
    return -math.expm1(-total)


def failed_mix_c(*, tank_c: float, fed_c: float, ratio: float) -> float:
    """Temperature of a tank after a run of water that is not mixed as it should be.

    Equation: T = fed + (tank − fed)·e^(−r)
    Parameters:
        tank_c: °C, scalar, 0 to 60. Before.
        fed_c: °C, scalar, 0 to 95. Of the store when the cold side fails, of the cold water when hot runs out.
        ratio: 1, scalar, 0 to 1000. As from flow_ratio.
    Returns: °C, scalar.
    Raises: OutOfRange.
    Source: balance

    >>> round(failed_mix_c(tank_c=25, fed_c=60, ratio=1 / 3), 1)
    34.9
    """
    within("tank_c", tank_c, 0, 60, "°C")
    within("fed_c", fed_c, 0, 95, "°C")
    return float(after_flow_through(tank_c, fed_c, ratio))
