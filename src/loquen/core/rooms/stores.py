"""Hot water and its store: shares, recovery, levels that are exact at their corners."""

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise

from loquen.core.errors import NamedCase
from loquen.core.physics.heat import WATER_HEAT_J_L_K
from loquen.core.physics.ranges import within

EMPTY_L = 1e-9
Draw = tuple[float, float, float]
"""From hour, to hour, litres, drawn evenly."""


def hot_share_frac(*, mix_c: float, cold_c: float, hot_c: float) -> float:
    """Share of hot water in a mix of a wanted temperature.

    Equation: (mix − cold)/(hot − cold), 0 when the cold is as warm as the mix
    Parameters:
        mix_c: °C, scalar, 0 to 95. Wanted.
        cold_c: °C, scalar, 0 to 60. Of the cold water.
        hot_c: °C, scalar, 0 to 95. Of the store.
    Returns: share, scalar.
    Raises: OutOfRange; NamedCase "mix_hotter_than_store".
    Source: balance

    >>> round(hot_share_frac(mix_c=25, cold_c=6, hot_c=60), 4)
    0.3519
    """
    within("mix_c", mix_c, 0, 95, "°C")
    within("cold_c", cold_c, 0, 60, "°C")
    within("hot_c", hot_c, 0, 95, "°C")
    if cold_c >= mix_c:
        return 0.0
    if mix_c > hot_c:
        raise NamedCase("mix_hotter_than_store", mix_c=mix_c, hot_c=hot_c)
    return (mix_c - cold_c) / (hot_c - cold_c)


def recovery_lph(
    *, power_w: float, cold_c: float, hot_c: float, efficiency_frac: float = 1.0, standing_loss_w: float = 0.0
) -> float:
    """Hot water that a heater makes from cold.

    Equation: 3600·(P·η − loss)/(4186·(hot − cold)), not under 0
    Parameters:
        power_w: W, scalar, 0 to 1e6. Of the heater.
        cold_c: °C, scalar, 0 to 60. That comes in.
        hot_c: °C, scalar, 0 to 95. Of the store; over cold_c.
        efficiency_frac: share, scalar, 0.1 to 5. Of the power that reaches the water; over 1 for a heat pump.
        standing_loss_w: W, scalar, 0 to 10000. That the store loses to the room.
    Returns: L/h, scalar.
    Raises: OutOfRange; NamedCase "nothing_to_heat" where the cold is as hot as the store.
    Source: balance

    >>> round(recovery_lph(power_w=3000, cold_c=8, hot_c=60), 2)
    49.62
    """
    within("power_w", power_w, 0, 1e6, "W")
    within("cold_c", cold_c, 0, 60, "°C")
    within("hot_c", hot_c, 0, 95, "°C")
    within("efficiency_frac", efficiency_frac, 0.1, 5, "share")
    within("standing_loss_w", standing_loss_w, 0, 10_000, "W")
    if hot_c <= cold_c:
        raise NamedCase("nothing_to_heat", cold_c=cold_c, hot_c=hot_c)
    return max(0.0, 3600 * (power_w * efficiency_frac - standing_loss_w) / (WATER_HEAT_J_L_K * (hot_c - cold_c)))


def mixed_usable_frac(*, hot_c: float, mix_c: float, cold_c: float, approach_k: float = 3.0) -> float:
    """Share of a store that serves when cold mixes into it instead of lying under the hot: the low figure.

    Equation: (hot − mix − approach)/(hot − cold), not under 0
    Parameters:
        hot_c: °C, scalar, 0 to 95. Of the store when full.
        mix_c: °C, scalar, 0 to 95. Wanted at the tanks.
        cold_c: °C, scalar, 0 to 60. That comes in; under hot_c.
        approach_k: K, scalar, 0 to 20. That a mixing valve needs between its hot side and its mix.
    Returns: share, scalar.
    Raises: OutOfRange; NamedCase "nothing_to_heat".
    Source: balance

    >>> round(mixed_usable_frac(hot_c=60, mix_c=25, cold_c=6), 3)
    0.593
    """
    within("hot_c", hot_c, 0, 95, "°C")
    within("mix_c", mix_c, 0, 95, "°C")
    within("cold_c", cold_c, 0, 60, "°C")
    within("approach_k", approach_k, 0, 20, "K")
    if hot_c <= cold_c:
        raise NamedCase("nothing_to_heat", cold_c=cold_c, hot_c=hot_c)
    return max(0.0, (hot_c - mix_c - approach_k) / (hot_c - cold_c))


def mixed_store_min(
    *,
    store_l: float,
    hot_c: float,
    mix_c: float,
    cold_c: float,
    flow_lph: float,
    power_w: float,
    approach_k: float = 3.0,
) -> float | None:
    """Minutes until a store that mixes is too cool for the mix, its heater on.

    Equation: V·4186·(hot − mix − approach)/(Q/3600·4186·(mix − cold) − P)/60
    Parameters:
        store_l: L, scalar, 0 to 1e6. Of the store.
        hot_c: °C, scalar, 0 to 95. At the start.
        mix_c: °C, scalar, 0 to 95. Wanted.
        cold_c: °C, scalar, 0 to 60. That comes in.
        flow_lph: L/h, scalar, 0 to 1e6. Of mixed water.
        power_w: W, scalar, 0 to 1e6. Of the heater.
        approach_k: K, scalar, 0 to 20. As for mixed_usable_frac.
    Returns: min, scalar; None where the heater keeps up.
    Raises: OutOfRange.
    Source: balance

    >>> round(mixed_store_min(store_l=200, hot_c=60, mix_c=25, cold_c=6, flow_lph=1000, power_w=6000), 1)
    27.7
    """
    within("store_l", store_l, 0, 1e6, "L")
    within("hot_c", hot_c, 0, 95, "°C")
    within("mix_c", mix_c, 0, 95, "°C")
    within("cold_c", cold_c, 0, 60, "°C")
    within("flow_lph", flow_lph, 0, 1e6, "L/h")
    within("power_w", power_w, 0, 1e6, "W")
    within("approach_k", approach_k, 0, 20, "K")
    falls_w = flow_lph / 3600 * WATER_HEAT_J_L_K * (mix_c - cold_c) - power_w
    if falls_w <= 0:
        return None
    return max(0.0, store_l * WATER_HEAT_J_L_K * (hot_c - mix_c - approach_k) / falls_w / 60)


def longest_pulse_min(*, usable_l: float, reserve_l: float, hot_lph: float, recovery_lph: float) -> float | None:
    """Minutes of one pulse from a full store down to its reserve.

    Equation: 60·(U − R)/(hot − recovery)
    Parameters:
        usable_l: L, scalar, 0 to 1e6. Hot water that a full store serves.
        reserve_l: L, scalar, 0 to 1e6. To be left.
        hot_lph: L/h, scalar, 0 to 1e6. Hot water drawn meanwhile.
        recovery_lph: L/h, scalar, 0 to 1e6. Hot water made meanwhile.
    Returns: min, scalar; None where no pulse is too long.
    Raises: OutOfRange.
    Source: balance

    >>> round(longest_pulse_min(usable_l=133, reserve_l=20, hot_lph=586, recovery_lph=160), 1)
    15.9
    """
    within("usable_l", usable_l, 0, 1e6, "L")
    within("reserve_l", reserve_l, 0, 1e6, "L")
    within("hot_lph", hot_lph, 0, 1e6, "L/h")
    within("recovery_lph", recovery_lph, 0, 1e6, "L/h")
    if hot_lph <= recovery_lph:
        return None
    return max(0.0, 60 * (usable_l - reserve_l) / (hot_lph - recovery_lph))


def rest_min(*, pulse_min: float, hot_lph: float, recovery_lph: float) -> float:
    """Minutes after a pulse until the store is where it was before it.

    Equation: pulse·(hot − recovery)/recovery, not under 0
    Parameters:
        pulse_min: min, scalar, 0 to 10080. Of the pulse.
        hot_lph: L/h, scalar, 0 to 1e6. Hot water drawn meanwhile.
        recovery_lph: L/h, scalar, 0.001 to 1e6. Hot water made, in the pulse and after.
    Returns: min, scalar.
    Raises: OutOfRange.
    Source: balance

    >>> round(rest_min(pulse_min=12, hot_lph=586, recovery_lph=160), 2)
    31.95
    """
    within("pulse_min", pulse_min, 0, 10_080, "min")
    within("hot_lph", hot_lph, 0, 1e6, "L/h")
    within("recovery_lph", recovery_lph, 0.001, 1e6, "L/h")
    return max(0.0, pulse_min * (hot_lph - recovery_lph) / recovery_lph)


@dataclass(frozen=True, slots=True)
class Levels:
    """A store's level over some hours. `points` are (h, L) at its corners; `made_l` is what came in, none while full."""

    min_l: float
    min_at_h: float
    end_l: float
    short_l: float
    first_short_h: float | None
    made_l: float
    points: tuple[tuple[float, float], ...]


def store_levels(
    *,
    capacity_l: float,
    inflow_lph: float,
    draws: Iterable[Draw],
    start_l: float | None = None,
    from_h: float = 0.0,
    end_h: float = 24.0,
) -> Levels:
    """The level of a store that fills evenly and is drawn from, exact at its corners.

    Equation: dL/dt = inflow − Σ draws, capped at the capacity; at 0 what is not there is not drawn
    Parameters:
        capacity_l: L, scalar, 0 to 1e7. Of the store, or what of it serves.
        inflow_lph: L/h, scalar, 0 to 1e6. While it is not full.
        draws: (h, h, L), each from and to within -1e6 to 1e6, litres 0 to 1e7. Each drawn evenly over its span.
        start_l: L, scalar, 0 to capacity_l, or None for full. At from_h.
        from_h: h, scalar. Where it begins.
        end_h: h, scalar, over from_h. Where it ends.
    Returns: Levels, hours as the draws'.
    Raises: OutOfRange; NamedCase "ends_before_it_begins".
    Source: balance

    >>> store_levels(capacity_l=100, inflow_lph=40, draws=[(1, 1.5, 90), (2, 2.5, 80)]).short_l
    10.0
    """
    within("capacity_l", capacity_l, 0, 1e7, "L")
    within("inflow_lph", inflow_lph, 0, 1e6, "L/h")
    if end_h <= from_h:
        raise NamedCase("ends_before_it_begins", from_h=from_h, to_h=end_h)
    drawn = sorted(draws)
    for start, end, litres in drawn:
        within("litres", litres, 0, 1e7, "L")
        if end < start:
            raise NamedCase("ends_before_it_begins", from_h=start, to_h=end)
    level = capacity_l if start_l is None else start_l
    within("start_l", level, 0, capacity_l, "L")
    corners = sorted({from_h, end_h, *(h for start, end, _ in drawn for h in (start, end) if from_h < h < end_h)})
    points, short, first_short, made = [(from_h, level)], 0.0, None, 0.0
    least, least_at = level, from_h

    def fell(to: float, at: float) -> None:
        nonlocal least, least_at
        if to < least - EMPTY_L:
            least, least_at = to, at

    for here, there in pairwise(corners):
        for start, end, litres in drawn:
            if start == end == here:
                short += max(0.0, litres - level)
                first_short = here if litres > level + EMPTY_L and first_short is None else first_short
                level = max(0.0, level - litres)
                points.append((here, level))
                fell(level, here)
        out = sum(litres / (end - start) for start, end, litres in drawn if start <= here and end >= there > start)
        rate, hours = inflow_lph - out, there - here
        if rate >= 0:
            full_in = (capacity_l - level) / rate if rate > 0 else (hours if level < capacity_l else 0.0)
            rising = min(hours, full_in)
            made += inflow_lph * rising + out * (hours - rising)
            if 0 < rising < hours:
                points.append((here + rising, capacity_l))
            level = min(capacity_l, level + rate * hours)
        else:
            lasts = min(hours, level / -rate)
            made += inflow_lph * hours
            if lasts < hours:
                empty_at = here + lasts
                points.append((empty_at, 0.0))
                fell(0.0, empty_at)
                missed = -rate * (hours - lasts)
                if missed > EMPTY_L:
                    short += missed
                    first_short = empty_at if first_short is None else first_short
                level = 0.0
            else:
                level += rate * hours
        points.append((there, level))
        fell(level, there)
    return Levels(least, least_at, level, round(short, 9), first_short, made, tuple(points))
