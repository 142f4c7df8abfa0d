"""When each zone of a room runs in a day, so that the hot store never falls under its reserve."""

import itertools
import math
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from loquen.core.errors import NamedCase
from loquen.core.physics.ranges import within
from loquen.core.rooms.stores import (
    Draw,
    hot_share_frac,
    longest_pulse_min,
    mixed_store_min,
    mixed_usable_frac,
    recovery_lph,
    rest_min,
    store_levels,
)

__all__ = [
    "Timetable",
    "hot_share_frac",
    "longest_pulse_min",
    "mixed_store_min",
    "mixed_usable_frac",
    "recovery_lph",
    "rest_min",
    "store_levels",
    "timetable",
]
MINUTE_H = 1 / 60
SLACK_L = 1e-6
SLACK_H = 1e-9
FEW_ZONES = 4
MOST_TRIED = 400
"""Rows of pulses that are tried for one number of starts."""
MOST_STARTS = 600


@dataclass(frozen=True, slots=True)
class Timetable:
    """A day of pulses, or why there is none. Litres are usable hot water; `schedule` has zone, start_h, end_h."""

    feasible: bool
    reason: str | None
    share_that_fits: float
    hot_share_frac: float
    recovery_lph: float
    usable_l: float
    hot_need_l: float
    schedule: list[dict[str, Any]]
    starts: int
    finish_h: float | None
    min_l: float | None


@dataclass(frozen=True, slots=True)
class Day:
    """What pulses are placed into: the windows, the store, the house's draws."""

    windows: tuple[tuple[float, float], ...]
    usable_l: float
    start_l: float
    inflow_lph: float
    house: tuple[Draw, ...]
    reserve_l: float
    gap_h: float

    def least_l(self, draws: Iterable[Draw], from_h: float = 0.0) -> float:
        """The least level of the day with these draws and the house's; less than nothing by what is short."""
        levels = store_levels(
            capacity_l=self.usable_l, inflow_lph=self.inflow_lph, draws=[*self.house, *draws], start_l=self.start_l
        )
        least = min((level for h, level in levels.points if h >= from_h), default=levels.min_l)
        return least - levels.short_l


@dataclass(frozen=True, slots=True)
class Pulse:
    zone: Any
    hours: float
    hot_l: float


def timetable(
    *,
    zones: Sequence[Mapping[str, Any]],
    windows_h: Sequence[tuple[float, float]],
    store: Mapping[str, Any],
    house: Sequence[Draw] = (),
    reserve_l: float = 0.0,
    gap_min: float = 1.0,
    longest_pulse_min: float | None = None,
    shortest_pulse_min: float = 2.0,
) -> Timetable:
    """Pulses that do every zone's minutes inside the hours allowed, with fewest starts and then the earliest finish.

    Pulses of a zone are equal, its k-th comes before the (k + 1)-th of any, none overlap, each starts on a whole minute
    and lies in one window. For a row of pulses the earliest start is best, since waiting only loses what a full store
    can not take; how many and in which order is tried out, over all orders while there are few zones.

    Equation: each pulse at the first minute from which the store, with the house's draws to come, keeps its reserve
    Parameters:
        zones: {"id", "flow_lph" L/h of mixed water, "minutes"}. In the order that rounds keep where there are many.
        windows_h: (h, h), each within 0 to 24. Allowed.
        store: {"capacity_l", "usable_frac" 0.7, "hot_c", "cold_c", "mix_c", "power_w", "efficiency_frac" 1,
            "standing_loss_w" 0, "start_l" usable L at 0 h, None for full}.
        house: (h, h, L of hot water). What else is drawn.
        reserve_l: L, scalar, 0 to 1e6. Never to be used.
        gap_min: min, scalar, 0 to 1440. Between two pulses.
        longest_pulse_min: min, scalar over 0, or None. For shock, gas, a failed mix.
        shortest_pulse_min: min, scalar, 0.1 to 1440. A shorter one only wets the pipe.
    Returns: Timetable; where it is not feasible the reason is not_enough_hours, not_enough_heat, house_alone_empties,
        no_room_for_pulses or mix_hotter_than_store.
    Raises: OutOfRange; NamedCase ends_before_it_begins, no_pulse_allowed.
    Source: balance
    """
    windows = checked_windows(windows_h)
    within("reserve_l", reserve_l, 0, 1e6, "L")
    within("gap_min", gap_min, 0, 1440, "min")
    within("shortest_pulse_min", shortest_pulse_min, 0.1, 1440, "min")
    if longest_pulse_min is not None and not longest_pulse_min > 0:
        raise NamedCase("no_pulse_allowed", longest=longest_pulse_min)
    usable = float(store["capacity_l"]) * store.get("usable_frac", 0.7)
    start = store.get("start_l")
    start = usable if start is None else min(float(start), usable)
    try:
        share = hot_share_frac(mix_c=store["mix_c"], cold_c=store["cold_c"], hot_c=store["hot_c"])
    except NamedCase:
        return refused("mix_hotter_than_store", 0.0, 1.0, 0.0, usable, 0.0)
    inflow = recovery_lph(
        power_w=store["power_w"],
        cold_c=store["cold_c"],
        hot_c=store["hot_c"],
        efficiency_frac=store.get("efficiency_frac", 1.0),
        standing_loss_w=store.get("standing_loss_w", 0.0),
    )
    day = Day(windows, usable, start, inflow, tuple((f, t, float(n)) for f, t, n in house), reserve_l, gap_min / 60)
    return placed_day(day, zones, share, longest_pulse_min, shortest_pulse_min)


def placed_day(
    day: Day, zones: Sequence[Mapping[str, Any]], share: float, longest: float | None, shortest: float
) -> Timetable:
    """A day of pulses that take `share` of their water from a store, or why there is none."""
    wanted = [zone for zone in zones if zone["minutes"] > 0]
    need = sum(zone["flow_lph"] * zone["minutes"] / 60 * share for zone in wanted)
    known = (share, day.inflow_lph, day.usable_l, need)
    if sum(zone["minutes"] for zone in wanted) / 60 > sum(end - begin for begin, end in day.windows) + SLACK_H:
        return refused("not_enough_hours", 1.0, *known)
    if day.least_l(()) < day.reserve_l - SLACK_L:
        return refused("house_alone_empties", 0.0, *known)
    fits = heat_that_fits(day, need)
    if fits < 1 - SLACK_H:
        return refused("not_enough_heat", fits, *known)
    found = fewest_starts(day, wanted, share, longest, shortest)
    if found is None:
        return refused("no_room_for_pulses", fits, *known)
    schedule = [{"zone": pulse.zone, "start_h": at, "end_h": at + pulse.hours} for pulse, at in found]
    draws = [(at, at + pulse.hours, pulse.hot_l) for pulse, at in found]
    finish = max((row["end_h"] for row in schedule), default=None)
    return Timetable(True, None, 1.0, *known, schedule, len(schedule), finish, day.least_l(draws))


def windows_left(
    windows: Sequence[tuple[float, float]], taken: Iterable[tuple[float, float]], gap_h: float
) -> tuple[tuple[float, float], ...]:
    """What is left of some hours when others, with a gap on either side, are taken out."""
    left = list(windows)
    for start, end in taken:
        cut = []
        for begin, stop in left:
            cut += [(begin, min(stop, start - gap_h)), (max(begin, end + gap_h), stop)]
        left = [(begin, stop) for begin, stop in cut if stop - begin > SLACK_H]
    return tuple(left)


def refused(reason: str, fits: float, share: float, inflow: float, usable: float, need: float) -> Timetable:
    return Timetable(False, reason, fits, share, inflow, usable, need, [], 0, None, None)


def checked_windows(windows_h: Sequence[tuple[float, float]]) -> tuple[tuple[float, float], ...]:
    """The hours allowed, in order, those that touch joined; raise NamedCase for one that ends before it begins."""
    joined: list[tuple[float, float]] = []
    for begin, end in sorted(windows_h):
        within("windows_h", begin, 0, 24, "h")
        within("windows_h", end, 0, 24, "h")
        if end <= begin:
            raise NamedCase("ends_before_it_begins", from_h=begin, to_h=end)
        if joined and begin <= joined[-1][1]:
            joined[-1] = (joined[-1][0], max(end, joined[-1][1]))
        else:
            joined.append((begin, end))
    return tuple(joined)


def heat_that_fits(day: Day, need_l: float) -> float:
    """Share of the hot water needed that there can be before the last window ends, at the very most."""
    if need_l <= 0:
        return 1.0
    last = max((end for _, end in day.windows), default=0.0)
    house = sum(litres * overlap(start, end, last) for start, end, litres in day.house)
    there = day.start_l - day.reserve_l + day.inflow_lph * last - house
    return max(0.0, min(1.0, there / need_l))


def overlap(start: float, end: float, until: float) -> float:
    """Share of a span that lies before an hour."""
    if end <= until:
        return 1.0
    return 0.0 if start >= until else (until - start) / (end - start)


def fewest_starts(
    day: Day, zones: Sequence[Mapping[str, Any]], share: float, longest: float | None, shortest: float
) -> list[tuple[Pulse, float]] | None:
    """The row of pulses with fewest starts that fits, and of those the one that ends first."""
    least = [max(1, math.ceil(zone["minutes"] / longest - SLACK_H)) if longest else 1 for zone in zones]
    most = [
        max(least_n, int(zone["minutes"] / shortest + SLACK_H)) for zone, least_n in zip(zones, least, strict=True)
    ]
    if not zones:
        return []
    cuts = list(least)
    for starts in range(sum(least), min(sum(most), MOST_STARTS) + 1):
        best: list[tuple[Pulse, float]] | None = None
        for counts, order in itertools.islice(rows_to_try(zones, cuts, least, most, starts), MOST_TRIED):
            placed = placed_row(day, pulses_of(zones, counts, order, share))
            if placed and (best is None or ends_at(placed) < ends_at(best) - SLACK_H):
                best = placed
        if best is not None:
            return best
        spare = [i for i in range(len(zones)) if cuts[i] < most[i]]
        if not spare:
            return None
        cuts[max(spare, key=lambda i: net_draw_l(day, zones[i], cuts[i], share))] += 1
    return None


def ends_at(placed: list[tuple[Pulse, float]]) -> float:
    return placed[-1][1] + placed[-1][0].hours


def net_draw_l(day: Day, zone: Mapping[str, Any], count: int, share: float) -> float:
    """What one pulse takes from the store beyond what is made meanwhile."""
    return float(zone["minutes"]) / count / 60 * (float(zone["flow_lph"]) * share - day.inflow_lph)


def rows_to_try(
    zones: Sequence[Mapping[str, Any]], cuts: list[int], least: list[int], most: list[int], starts: int
) -> Iterator[tuple[list[int], tuple[int, ...]]]:
    """How often each zone runs, and the order in a round: the likeliest first, all of them while there are few."""
    count = len(zones)
    orders = [
        tuple(range(count)),
        tuple(sorted(range(count), key=lambda i: zones[i]["flow_lph"] * zones[i]["minutes"])),
        tuple(sorted(range(count), key=lambda i: -zones[i]["flow_lph"] * zones[i]["minutes"])),
    ]
    if count <= FEW_ZONES:
        orders = [orders[0], *itertools.permutations(range(count))]
    for order in orders:
        yield cuts, order
    if count > FEW_ZONES:
        return
    for counts in itertools.product(*(range(low, high + 1) for low, high in zip(least, most, strict=True))):
        if sum(counts) == starts and list(counts) != cuts:
            for order in orders:
                yield list(counts), order


def pulses_of(
    zones: Sequence[Mapping[str, Any]], counts: list[int], order: tuple[int, ...], share: float
) -> list[Pulse]:
    """The pulses round by round."""
    out = []
    for nth in range(max(counts)):
        for i in order:
            if nth < counts[i]:
                hours = zones[i]["minutes"] / counts[i] / 60
                out.append(Pulse(zones[i]["id"], hours, zones[i]["flow_lph"] * hours * share))
    return out


def placed_row(day: Day, pulses: list[Pulse]) -> list[tuple[Pulse, float]] | None:
    """Each pulse at the first minute that keeps the reserve; None when one does not fit."""
    placed: list[tuple[Pulse, float]] = []
    draws: list[Draw] = []
    free_from = 0.0
    for pulse in pulses:
        at = first_fit(day, draws, pulse, free_from)
        if at is None:
            return None
        placed.append((pulse, at))
        draws.append((at, at + pulse.hours, pulse.hot_l))
        free_from = at + pulse.hours + day.gap_h
    return placed


def first_fit(day: Day, draws: list[Draw], pulse: Pulse, free_from: float) -> float | None:
    for begin, end in day.windows:
        at = whole_minute(max(begin, free_from))
        while at + pulse.hours <= end + SLACK_H:
            lacks = day.reserve_l - day.least_l([*draws, (at, at + pulse.hours, pulse.hot_l)], at)
            if lacks <= SLACK_L:
                return at
            # Waiting gains no more than what is made meanwhile.
            waits = math.ceil(lacks / day.inflow_lph * 60 - SLACK_L) if day.inflow_lph > 0 else 24 * 60
            at = whole_minute(at + max(1, waits) * MINUTE_H)
    return None


def whole_minute(hours: float) -> float:
    return math.ceil(hours * 60 - 1e-6) / 60
