"""What water changes do to a concentration, and how animals are brought across."""

import numpy as np

from loquen.core.physics.ranges import Number, within


def after_batch(conc: Number, source: Number, frac: Number) -> Number:
    """Concentration after part of the water is drained and refilled.

    Equation: c = conc·(1 − f) + source·f
    Parameters:
        conc: any concentration, scalar or array, 0 to 1e9. Before.
        source: as conc, scalar or array, 0 to 1e9. Of the new water.
        frac: share, scalar or array, 0 to 1. Changed.
    Returns: as conc, broadcast.
    Raises: OutOfRange.
    Source: balance

    >>> round(after_batch(conc=40, source=5, frac=0.5), 2)
    22.5
    """
    within("conc", conc, 0, 1e9, "mg/L")
    within("source", source, 0, 1e9, "mg/L")
    within("frac", frac, 0, 1, "share")
    return conc * (1 - frac) + source * frac


def after_flow_through(conc: Number, source: Number, ratio: Number) -> Number:
    """Concentration after new water has passed through a well-mixed tank.

    Equation: c = source + (conc − source)·e^(−ratio)
    Parameters:
        conc: any concentration, scalar or array, 0 to 1e9. Before.
        source: as conc, scalar or array, 0 to 1e9. Of the new water.
        ratio: 1, scalar or array, 0 to 1000. Litres passed per litre of system.
    Returns: as conc, broadcast.
    Raises: OutOfRange.
    Source: balance

    >>> round(float(after_flow_through(conc=40, source=5, ratio=0.5)), 2)
    26.23
    """
    within("conc", conc, 0, 1e9, "mg/L")
    within("source", source, 0, 1e9, "mg/L")
    within("ratio", ratio, 0, 1000, "1")
    return source + (conc - source) * np.exp(-ratio)


def flow_through_efficiency(ratio: Number) -> Number:
    """Share of the water passed through that really replaces old water.

    Equation: η = (1 − e^(−r))/r, 1 at r = 0
    Parameters:
        ratio: 1, scalar or array, 0 to 1000. Litres passed per litre of system.
    Returns: share, as ratio.
    Raises: OutOfRange.
    Source: balance

    >>> round(flow_through_efficiency(ratio=0.25), 4)
    0.8848
    """
    within("ratio", ratio, 0, 1000, "1")
    safe = np.where(np.asarray(ratio) == 0, 1.0, ratio)
    share = np.where(np.asarray(ratio) == 0, 1.0, -np.expm1(-safe) / safe)
    return float(share) if np.ndim(share) == 0 else share


def settled_peak(rise: Number, source: Number, frac: Number) -> Number:
    """Concentration just before each change once a regime has settled.

    Equation: peak = source + rise/f
    Parameters:
        rise: any concentration, scalar or array, 0 to 1e9. Made between two changes.
        source: as rise, scalar or array, 0 to 1e9. Of the new water.
        frac: share, scalar or array, 0.001 to 1. Changed each time.
    Returns: as rise, broadcast.
    Raises: OutOfRange.
    Source: balance

    >>> round(settled_peak(rise=10, source=5, frac=0.25), 2)
    45.0
    """
    within("rise", rise, 0, 1e9, "mg/L")
    within("source", source, 0, 1e9, "mg/L")
    within("frac", frac, 0.001, 1, "share")
    return source + rise / frac


def settled_cycle(
    rise_per_d: float, source: float, gaps_d: tuple[float, ...], fracs: tuple[float, ...]
) -> tuple[tuple[float, ...], tuple[float, ...]]:
    """Peaks and troughs of a repeating cycle of uneven changes, at its fixed point.

    Equation: c ← (c + rise·gap)·(1 − f) + source·f over one cycle, solved for c returning to itself
    Parameters:
        rise_per_d: mg/L/d, scalar, 0 to 1e6. Made a day.
        source: mg/L, scalar, 0 to 1e9. Of the new water.
        gaps_d: d, one per change, each 0 to 366. Days before each change.
        fracs: share, one per change, each 0.001 to 1. Changed each time.
    Returns: mg/L just before each change, and mg/L just after each change.
    Raises: OutOfRange.
    Source: balance
    """
    within("rise_per_d", rise_per_d, 0, 1e6, "mg/L/d")
    within("source", source, 0, 1e9, "mg/L")
    within("gaps_d", np.asarray(gaps_d), 0, 366, "d")
    within("fracs", np.asarray(fracs), 0.001, 1, "share")
    kept, added = 1.0, 0.0
    for gap, frac in zip(gaps_d, fracs, strict=True):
        kept, added = kept * (1 - frac), (added + rise_per_d * gap) * (1 - frac) + source * frac
    level = added / (1 - kept)
    peaks, troughs = [], []
    for gap, frac in zip(gaps_d, fracs, strict=True):
        peaks.append(level + rise_per_d * gap)
        level = peaks[-1] * (1 - frac) + source * frac
        troughs.append(level)
    return tuple(peaks), tuple(troughs)


def drip_share(container_l: Number, drops_per_s: Number, minutes: Number, drop_ml: Number = 0.05) -> Number:
    """Share of tank water in a container that tank water drips into, nothing poured away.

    Equation: V_d = drops·60·minutes·ml/1000; share = V_d/(V + V_d)
    Parameters:
        container_l: L, scalar or array, 0.01 to 1000. Water that the animals came in.
        drops_per_s: 1/s, scalar or array, 0 to 100. Drops.
        minutes: min, scalar or array, 0 to 10000. Of dripping.
        drop_ml: mL, scalar or array, 0.01 to 1. One drop.
    Returns: share, as broadcast.
    Raises: OutOfRange.
    Source: balance

    >>> round(drip_share(container_l=1.5, drops_per_s=2, minutes=40), 4)
    0.1379
    """
    within("container_l", container_l, 0.01, 1000, "L")
    within("drops_per_s", drops_per_s, 0, 100, "1/s")
    within("minutes", minutes, 0, 10_000, "min")
    within("drop_ml", drop_ml, 0.01, 1, "mL")
    dripped = drops_per_s * 60 * minutes * drop_ml / 1000
    return dripped / (container_l + dripped)


def drip_minutes(container_l: Number, drops_per_s: Number, share: Number, drop_ml: Number = 0.05) -> Number:
    """Minutes of dripping until tank water makes up a share, nothing poured away.

    Equation: t = V·s/(1 − s)·1000/(drops·60·ml)
    Parameters:
        container_l: L, scalar or array, 0.01 to 1000. Water that the animals came in.
        drops_per_s: 1/s, scalar or array, 0.01 to 100. Drops.
        share: share, scalar or array, 0 to 0.99. Of tank water wanted.
        drop_ml: mL, scalar or array, 0.01 to 1. One drop.
    Returns: min, as broadcast.
    Raises: OutOfRange.
    Source: balance

    >>> round(drip_minutes(container_l=1.5, drops_per_s=2, share=0.8))
    1000
    """
    within("container_l", container_l, 0.01, 1000, "L")
    within("drops_per_s", drops_per_s, 0.01, 100, "1/s")
    within("share", share, 0, 0.99, "share")
    within("drop_ml", drop_ml, 0.01, 1, "mL")
    return container_l * share / (1 - share) * 1000 / (drops_per_s * 60 * drop_ml)


def float_minutes(gap_k: Number, container_l: Number, within_k: Number = 1.0, minutes_of_l: Number = 8.5) -> Number:
    """Minutes that a closed bag floats until it is near the tank's temperature.

    Equation: t = τ·ln(gap/within), τ = 8.5 min × (V/1 L)^(1/3): bags of like shape
    Parameters:
        gap_k: K, scalar or array, 0 to 40. Between bag and tank.
        container_l: L, scalar or array, 0.05 to 50. Water in the bag.
        within_k: K, scalar or array, 0.1 to 10. Wanted.
        minutes_of_l: min, scalar or array, 1 to 60. Time constant of one litre; 7 to 10 for thin bags.
    Returns: min, as broadcast; 0 when it is near enough.
    Raises: OutOfRange.
    Source: practice

    >>> round(float(float_minutes(gap_k=6, container_l=1)), 2)
    15.23
    """
    within("gap_k", gap_k, 0, 40, "K")
    within("container_l", container_l, 0.05, 50, "L")
    within("within_k", within_k, 0.1, 10, "K")
    within("minutes_of_l", minutes_of_l, 1, 60, "min")
    return minutes_of_l * np.cbrt(container_l) * np.log(np.maximum(gap_k / within_k, 1.0))


def bag_ammonia_mg_l(
    mass_g: Number, hours: Number, container_l: Number, rate_mg_g_h: Number = 0.035, fasted: bool = False
) -> Number:
    """Ammonia that animals have made in a closed bag.

    Equation: N = rate·m·t/V, half of it when they were fasted
    Parameters:
        mass_g: g, scalar or array, 0 to 100000. All animals in the bag.
        hours: h, scalar or array, 0 to 240. Since it was closed.
        container_l: L, scalar or array, 0.05 to 1000. Water in the bag.
        rate_mg_g_h: mg N/(g·h), scalar or array, 0.001 to 1. 0.02 to 0.05 at 24 °C.
        fasted: flag. Not fed for a day before.
    Returns: mg/L N, as broadcast.
    Raises: OutOfRange.
    Source: practice

    >>> round(bag_ammonia_mg_l(mass_g=20, hours=24, container_l=2), 3)
    8.4
    """
    within("mass_g", mass_g, 0, 100_000, "g")
    within("hours", hours, 0, 240, "h")
    within("container_l", container_l, 0.05, 1000, "L")
    within("rate_mg_g_h", rate_mg_g_h, 0.001, 1, "mg/(g·h)")
    return rate_mg_g_h * mass_g * hours / container_l * (0.5 if fasted else 1.0)


def dripped_level(source: Number, made_mg_d: Number, flow_l_d: Number) -> Number:
    """Concentration that a steady drip settles at.

    Equation: c = source + P/q
    Parameters:
        source: mg/L, scalar or array, 0 to 1e9. Of the new water.
        made_mg_d: mg/d, scalar or array, 0 to 1e9. Made in the system.
        flow_l_d: L/d, scalar or array, 0.001 to 1e7. Dripped in, as much leaving.
    Returns: mg/L, as broadcast.
    Raises: OutOfRange.
    Source: balance

    >>> round(dripped_level(source=5, made_mg_d=100, flow_l_d=10), 2)
    15.0
    """
    within("source", source, 0, 1e9, "mg/L")
    within("made_mg_d", made_mg_d, 0, 1e9, "mg/d")
    within("flow_l_d", flow_l_d, 0.001, 1e7, "L/d")
    return source + made_mg_d / flow_l_d
