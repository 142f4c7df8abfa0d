"""The day of each season: when every zone runs, and the level of the store that it draws from."""

from collections.abc import Callable
from dataclasses import asdict, dataclass, replace
from functools import lru_cache
from typing import Any

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.rooms.stages.changer import fed
from loquen.core.rooms.stages.hot import HotStore
from loquen.core.rooms.stages.plumbing import ZoneFlow
from loquen.core.rooms.stages.pulses import WHY, Bound
from loquen.core.rooms.stages.reservoir import ReservoirStore, ready_lph
from loquen.core.rooms.stores import store_levels
from loquen.core.rooms.timetable import Day, Timetable, checked_windows, placed_day, timetable, windows_left

DAYS_TRIED = 6
SAME_L = 0.5
MOST_DAYS = 256
REFUSALS = {
    "not_enough_hours": "The zones ask for more minutes than the hours allowed have.",
    "not_enough_heat": "The store and its heater make {fits} of the hot water that the zones ask for in these hours.",
    "house_alone_empties": "What the house draws alone takes the store under its reserve.",
    "no_room_for_pulses": "No row of pulses fits between the house's draws and the store's reserve.",
    "mix_hotter_than_store": "The mix is to be hotter than the store.",
}


Zones = tuple[tuple[int, float, float], ...]
"""Number, L/h, minutes a day."""


@dataclass(frozen=True, slots=True)
class Level:
    """What is in a store at an hour."""

    at_h: float
    litres: float


@dataclass(frozen=True, slots=True)
class StoreDay:
    """A day of one store: the pulses drawn from it, its level by the hour, and what is left at midnight."""

    table: Timetable
    levels: tuple[Level, ...]
    end_l: float


@dataclass(frozen=True, slots=True)
class Season:
    """A day at one temperature of the cold water: what is mixed from the hot store, and what the reservoir gives."""

    name: str
    cold_c: float
    hot: StoreDay
    reservoir: StoreDay | None

    @property
    def label(self) -> str:
        return self.name

    @property
    def feasible(self) -> bool:
        return all(day.table.feasible for day in self.days)

    @property
    def days(self) -> tuple[StoreDay, ...]:
        return (self.hot,) if self.reservoir is None else (self.hot, self.reservoir)

    @property
    def schedule(self) -> list[dict[str, Any]]:
        """Every pulse of the day, in order."""
        return sorted((row for day in self.days for row in day.table.schedule), key=lambda row: row["start_h"])

    @property
    def starts(self) -> int:
        return len(self.schedule)

    @property
    def finish_h(self) -> float | None:
        return max((row["end_h"] for row in self.schedule), default=None)

    def pulses_of(self, zone: int) -> int:
        """How often a zone runs in a day; once where there is no such day."""
        return max(1, len([row for row in self.schedule if row["zone"] == zone]))


@dataclass(frozen=True, slots=True)
class Placing:
    """What pulses are placed into beside a store: the hours, what else draws, and how long a pulse may be."""

    windows: tuple[tuple[float, float], ...]
    house: tuple[tuple[float, float, float], ...]
    reserve_l: float
    gap_min: float
    longest_min: float | None
    shortest_min: float


@lru_cache(MOST_DAYS)
def hot_day(cold_c: float, zones: Zones, store: HotStore, placing: Placing) -> StoreDay:
    """A day of the hot store that can be repeated. Zones: number, L/h, minutes."""

    def table(start_l: float) -> Timetable:
        return timetable(
            zones=[{"id": number, "flow_lph": lph, "minutes": minutes} for number, lph, minutes in zones],
            windows_h=placing.windows,
            store={**asdict(store), "cold_c": cold_c, "start_l": start_l},
            house=placing.house,
            reserve_l=placing.reserve_l,
            gap_min=placing.gap_min,
            longest_pulse_min=placing.longest_min,
            shortest_pulse_min=placing.shortest_min,
        )

    return repeated(table, zones, store.capacity_l * store.usable_frac, placing.house)


@lru_cache(MOST_DAYS)
def reservoir_day(cold_c: float, zones: Zones, store: ReservoirStore, placing: Placing) -> StoreDay:
    """A day of the reservoir that can be repeated: all of what its zones get is pumped from it."""
    usable = store.capacity_l * store.usable_frac
    inflow = ready_lph(store, cold_c)

    def table(start_l: float) -> Timetable:
        day = Day(placing.windows, usable, start_l, inflow, (), placing.reserve_l, placing.gap_min / 60)
        rows = [{"id": number, "flow_lph": lph, "minutes": minutes} for number, lph, minutes in zones]
        return placed_day(day, rows, 1.0, placing.longest_min, placing.shortest_min)

    return repeated(table, zones, usable, ())


def repeated(
    table_from: Callable[[float], Timetable],
    zones: Zones,
    usable_l: float,
    house: tuple[tuple[float, float, float], ...],
) -> StoreDay:
    """The day that begins with the store as full as the last one ended."""
    start = usable_l
    for _ in range(DAYS_TRIED):
        table = table_from(start)
        drawn = {number: lph * table.hot_share_frac for number, lph, _ in zones}
        draws = [
            (row["start_h"], row["end_h"], drawn[row["zone"]] * (row["end_h"] - row["start_h"]))
            for row in table.schedule
        ]
        day = store_levels(
            capacity_l=usable_l, inflow_lph=table.recovery_lph, draws=[*house, *draws], start_l=start
        )
        if not table.feasible or day.end_l >= start - SAME_L:
            break
        start = day.end_l
    return StoreDay(table, tuple(Level(*point) for point in day.points), day.end_l)


def sendable(season: Season | None) -> Season:
    """A day that a controller may be sent; raise NamedCase no_zones, or store_would_empty for one that is none."""
    if season is None:
        raise NamedCase("no_zones")
    if not season.feasible:
        raise NamedCase("store_would_empty")
    return season


@step()
def seasons(
    zone_flows: tuple[ZoneFlow, ...],
    allowed_h: tuple[tuple[float, float], ...],
    hot_store: HotStore,
    reservoir_store: ReservoirStore,
    house_draws: tuple[tuple[float, float, float], ...],
    reserve_l: float,
    gap_min: float,
    pulse_bound: Bound | None,
    pumped_bound: Bound | None,
    shortest_min: float,
    winter_c: float,
    summer_c: float,
    summer_mixed_c: float | None,
) -> tuple[Season, ...]:
    checked = checked_windows(allowed_h)
    summer = replace(hot_store, mix_c=hot_store.mix_c if summer_mixed_c is None else summer_mixed_c)
    found = []
    for name, cold, store in (("winter", winter_c, hot_store), ("summer", summer_c, summer)):
        street = asked(fed(zone_flows, "street"))
        house, kept = (house_draws, reserve_l) if street else ((), 0.0)
        placing = placing_of(allowed_h, house, kept, gap_min, pulse_bound, shortest_min)
        hot = hot_day(cold, street, store, placing)
        pumped = asked(fed(zone_flows, "reservoir"))
        # One zone at a time, whichever store it draws from: the drain and the eye are made for one.
        busy = [(row["start_h"], row["end_h"]) for row in hot.table.schedule]
        left = windows_left(checked, busy, gap_min / 60)
        own = placing_of(left, (), reservoir_store.reserve_l, gap_min, pumped_bound, shortest_min)
        found.append(Season(name, cold, hot, reservoir_day(cold, pumped, reservoir_store, own) if pumped else None))
    return tuple(found)


def asked(rows: tuple[ZoneFlow, ...]) -> Zones:
    return tuple((row.number, row.lph, row.minutes) for row in rows)


def placing_of(
    windows: tuple[tuple[float, float], ...],
    house: tuple[tuple[float, float, float], ...],
    reserve_l: float,
    gap_min: float,
    bound: Bound | None,
    shortest_min: float,
) -> Placing:
    longest = max(bound.minutes, 0.01) if bound else None
    return Placing(
        windows, house, reserve_l, gap_min, longest, min(shortest_min, longest) if longest else shortest_min
    )


@figure("Least in the store in winter", formula="least of the day in {seasons}", source="balance")
def least_store_l(seasons: tuple[Season, ...]) -> float:
    table = seasons[0].hot.table
    if table.min_l is None:
        raise NamedCase("no_timetable", why=table.reason)
    return table.min_l


@check(
    "The day fits in winter",
    stage="timetable",
    judges="least_store_l",
    glass="hot",
    mends=("store.hot_w", "store.store_l", "store.mixed_c", "windows.window_to_h", "zones.zone_min"),
    caution="Keep the store at 60 °C or more, against Legionella, and dead legs short; scalding is prevented by a "
    "thermostatic mixing valve that shuts when either side fails. A licensed plumber decides.",
)
def day_fits(
    seasons: tuple[Season, ...], winter_hot_l_d: float, reserve_l: float, pulse_bound: Bound | None, usable_l: float
) -> Verdict:
    table = seasons[0].hot.table
    terms: dict[str, Term | str] = {
        "hot": of(winter_hot_l_d, "winter_hot_l_d", "volume_per_day"),
        "recovery": Term(table.recovery_lph, "flow"),
        "fits": Term(table.share_that_fits, "share"),
        "starts": Term(float(table.starts), "count"),
        "reserve": Term(reserve_l, "volume"),
        "least": Term(table.min_l or 0.0, "volume"),
    }
    if winter_hot_l_d <= 0 and not seasons[0].hot.table.schedule and seasons[0].reservoir:
        raise NamedCase("none_on_the_street")
    if not table.feasible:
        text = REFUSALS[str(table.reason)] + " It asks for {hot} of hot water, and {recovery} are made."
        return Verdict("short", -(1 - table.share_that_fits) or -1.0, say("no such day"), say(text, **terms))
    text = "In {starts} starts the store falls to {least} and keeps its {reserve}; {hot} of hot water at {recovery} made."
    verdict = at_least(table.min_l or 0.0, reserve_l, "volume", say(text, **terms), scale=max(usable_l, 1.0))
    # A reserve is there to be kept: only what falls under it is short.
    return Verdict("holds", verdict.margin, verdict.headline, verdict.reason, verdict.gauge)


@figure("Least in the reservoir in winter", formula="least of the day in {seasons}", source="balance")
def least_reservoir_l(seasons: tuple[Season, ...]) -> float:
    day = seasons[0].reservoir
    if day is None:
        raise NamedCase("none_pumped")
    if day.table.min_l is None:
        raise NamedCase("no_timetable", why=day.table.reason)
    return day.table.min_l


RESERVOIR_REFUSALS = REFUSALS | {
    "not_enough_hours": "The hours that the other zones leave are too few for those of the reservoir.",
    "not_enough_heat": "It and its refill hold {fits} of what its zones ask for in these hours.",
    "no_room_for_pulses": "No row of pulses keeps its reserve.",
}


@check(
    "The reservoir lasts the day",
    stage="timetable",
    judges="least_reservoir_l",
    glass="hot",
    mends=("reservoir.reservoir_l", "reservoir.refill_lph", "reservoir.reservoir_w", "windows.window_to_h"),
    caution="A heater in a reservoir needs a cut-out of its own and a low-level switch that takes it and the pump off: dry, "
    "it burns. Fill over the rim, through an air gap; a residual-current device before both.",
)
def reservoir_lasts(
    seasons: tuple[Season, ...],
    pumped_l_d: float,
    ready_winter_lph: float,
    reservoir_store: ReservoirStore,
    reservoir_serves_l: float,
) -> Verdict:
    day = seasons[0].reservoir
    if day is None:
        raise NamedCase("none_pumped")
    table, reserve = day.table, reservoir_store.reserve_l
    terms: dict[str, Term | str] = {
        "asked": of(pumped_l_d, "pumped_l_d", "volume_per_day"),
        "ready": of(ready_winter_lph, "ready_winter_lph"),
        "fits": Term(table.share_that_fits, "share"),
        "starts": Term(float(table.starts), "count"),
        "reserve": Term(reserve, "volume"),
        "least": Term(table.min_l or 0.0, "volume"),
    }
    slow = ready_winter_lph < reservoir_store.refill_lph
    throttled = " Throttle its refill to that: faster, it cools what stands ready." if slow else ""
    if not table.feasible:
        text = RESERVOIR_REFUSALS[str(table.reason)] + " {asked} are pumped, and {ready} are ready again in winter."
        return Verdict("short", -(1 - table.share_that_fits) or -1.0, say("no such day"), say(text, **terms))
    text = "In {starts} starts {asked} are pumped; the reservoir falls to {least} and keeps its {reserve}, {ready} are ready again in winter."
    verdict = at_least(
        table.min_l or 0.0, reserve, "volume", say(text + throttled, **terms), scale=max(reservoir_serves_l, 1.0)
    )
    return Verdict("holds", verdict.margin, verdict.headline, verdict.reason, verdict.gauge)


@step()
def timetable_result(seasons: tuple[Season, ...], pulse_bound: Bound | None, mixed_c: float) -> Sentence:
    winter, summer = seasons
    failed = next((day.table for day in winter.days if not day.table.feasible), None)
    if failed:
        return say(
            "In winter there is no such day: " + REFUSALS[str(failed.reason)].lower(),
            fits=Term(failed.share_that_fits, "share"),
        )
    bound = (
        f", none over {pulse_bound.minutes:.0f} minutes because of {WHY[pulse_bound.why]}" if pulse_bound else ""
    )
    return say(
        "In winter {starts} starts mixed to {mix} are done by {finish}{bound}; in summer {fewer}.",
        starts=Term(float(winter.starts), "count"),
        mix=Term(mixed_c, "temperature"),
        finish=clock(winter.finish_h),
        bound=bound,
        fewer=f"{summer.starts}, by {clock(summer.finish_h)}" if summer.feasible else "there is none",
    )


def clock(hours: float | None) -> str:
    """An hour of the day as a clock shows it."""
    if hours is None:
        return "no time"
    minutes = round(hours * 60)
    return f"{minutes // 60:02d}:{minutes % 60:02d}"
