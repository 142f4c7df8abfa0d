"""Hot water over a day: what each season asks, when each zone runs, and what would mend a day that does not fit."""

from dataclasses import asdict, dataclass, replace
from functools import lru_cache
from typing import Any

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, by_practice
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.model.quantity import Sentence, Term, of, say
from loquen.core.physics.chemistry import gas_saturation_frac
from loquen.core.rooms.stages.plumbing import ZoneFlow
from loquen.core.rooms.stages.racks import Tank
from loquen.core.rooms.stores import recovery_lph, store_levels
from loquen.core.rooms.timetable import Timetable, hot_share_frac, longest_pulse_min, timetable
from loquen.core.rooms.zones import exchanged_frac, failed_mix_c

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


@dataclass(frozen=True, slots=True)
class Level:
    """What is in a store at an hour."""

    at_h: float
    litres: float


@dataclass(frozen=True, slots=True)
class Season:
    """A day at one temperature of the cold water: its timetable, and the store's level by the hour."""

    name: str
    cold_c: float
    table: Timetable
    levels: tuple[Level, ...]
    end_l: float

    @property
    def label(self) -> str:
        return self.name


@dataclass(frozen=True, slots=True)
class HotStore:
    """The hot store as a timetable takes it."""

    capacity_l: float
    usable_frac: float
    hot_c: float
    mix_c: float
    power_w: float
    efficiency_frac: float
    standing_loss_w: float


@step()
def hot_store(
    store_l: float,
    usable_frac: float,
    hot_c: float,
    mixed_c: float,
    hot_w: float,
    hot_yield: float,
    standing_w: float,
) -> HotStore:
    return HotStore(store_l, usable_frac, hot_c, mixed_c, hot_w, hot_yield, standing_w)


@step()
def house_draws(
    house_from_h: tuple[float, ...], house_to_h: tuple[float, ...], house_hot_l: tuple[float, ...]
) -> tuple[tuple[float, float, float], ...]:
    return tuple(zip(house_from_h, house_to_h, house_hot_l, strict=True))


@step()
def allowed_h(window_from_h: tuple[float, ...], window_to_h: tuple[float, ...]) -> tuple[tuple[float, float], ...]:
    if not window_from_h:
        raise NamedCase("no_hours_allowed")
    return tuple(zip(window_from_h, window_to_h, strict=True))


@figure(
    "Winter's hot share of the mix",
    formula="({mixed_c} − {winter_c}) ÷ ({hot_c} − {winter_c})",
    source="balance",
)
def winter_hot_frac(mixed_c: float, winter_c: float, hot_c: float) -> float:
    return hot_share_frac(mix_c=mixed_c, cold_c=winter_c, hot_c=hot_c)


@figure(
    "Hot water made in winter",
    formula="3600 × ({hot_w} × {hot_yield} − {standing_w}) ÷ (4186 × ({hot_c} − {winter_c}))",
    source="balance",
)
def winter_recovery_lph(hot_w: float, hot_yield: float, standing_w: float, hot_c: float, winter_c: float) -> float:
    return recovery_lph(
        power_w=hot_w, cold_c=winter_c, hot_c=hot_c, efficiency_frac=hot_yield, standing_loss_w=standing_w
    )


@figure("The store serves", formula="{store_l} × {usable_frac}", source="practice")
def usable_l(store_l: float, usable_frac: float) -> float:
    return store_l * usable_frac


@figure(
    "Longest pulse by the store",
    formula="60 × ({usable_l} − {reserve_l}) ÷ ({largest_zone_lph} × {winter_hot_frac} − {winter_recovery_lph})",
    source="balance",
)
def store_pulse_min(
    usable_l: float,
    reserve_l: float,
    largest_zone_lph: float,
    winter_hot_frac: float,
    winter_recovery_lph: float,
) -> float:
    found = longest_pulse_min(
        usable_l=usable_l,
        reserve_l=reserve_l,
        hot_lph=largest_zone_lph * winter_hot_frac,
        recovery_lph=winter_recovery_lph,
    )
    if found is None:
        raise NamedCase("store_keeps_up")
    return found


@dataclass(frozen=True, slots=True)
class Bound:
    """How long one pulse may be in a zone, by what, and for whose sake."""

    zone: int
    minutes: float
    why: str
    tank: str


@step()
def pulse_bounds(
    zone_flows: tuple[ZoneFlow, ...],
    tanks: tuple[Tank, ...],
    mixed_c: float,
    winter_c: float,
    hot_c: float,
    straight_frac: float,
    gas_most_frac: float,
    thermostatic: bool,
    winter_hot_frac: float | None,
) -> tuple[Bound, ...]:
    """The longest pulse of each zone that shocks nobody, over-fills nothing with gas and that a failed mix lets them live."""
    found = []
    gas = float(gas_saturation_frac(winter_c, mixed_c)) if winter_hot_frac else 1.0
    for row in zone_flows:
        for flow in row.tanks:
            tank = tanks[flow.tank]
            line = tank.line
            if row.minutes <= 0 or flow.ratio <= 0:
                continue
            per_min = flow.ratio / row.minutes
            bounds: list[tuple[float | None, str]] = [(ratio_of(gas_most_frac - 1, gas - 1), "gas")]
            if line and line.borne_k is not None:
                bounds.append((ratio_of(line.borne_k, abs(mixed_c - line.water_c)), "step"))
            if line and not thermostatic and line.high_c is not None and line.low_c is not None:
                bounds.append((ratio_of(line.high_c - line.water_c, hot_c - line.water_c), "hot"))
                bounds.append((ratio_of(line.water_c - line.low_c, line.water_c - winter_c), "cold"))
            found += [
                Bound(row.number, ratio / per_min, why, tank.name) for ratio, why in bounds if ratio is not None
            ]
    return tuple(found)


def ratio_of(allowed: float, whole: float) -> float | None:
    """The ratio after which a step has come to what is allowed of it; None where the whole step is."""
    import math

    if whole <= allowed or whole <= 0:
        return None
    return -math.log1p(-max(0.0, allowed) / whole)


WHY = {
    "store": "the store",
    "step": "the step in temperature",
    "gas": "gas in warmed water",
    "hot": "the mixing valve failing hot",
    "cold": "the hot water running out",
    "own": "your own limit",
}


@step()
def pulse_bound(
    pulse_bounds: tuple[Bound, ...], store_pulse_min: float | None, longest_min: float | None
) -> Bound | None:
    """The shortest of all limits of a pulse; None where there is none."""
    bounds = list(pulse_bounds)
    if store_pulse_min is not None:
        bounds.append(Bound(0, store_pulse_min, "store", ""))
    if longest_min is not None:
        bounds.append(Bound(0, longest_min, "own", ""))
    return min(bounds, key=lambda b: b.minutes, default=None)


@lru_cache(MOST_DAYS)
def season_of(
    name: str,
    cold_c: float,
    zones: tuple[tuple[int, float, float], ...],
    windows: tuple[tuple[float, float], ...],
    store: HotStore,
    house: tuple[tuple[float, float, float], ...],
    reserve_l: float,
    gap_min: float,
    longest_min: float | None,
    shortest_min: float,
) -> Season:
    """The day that can be repeated: the store begins it as full as it ended the last one. Zones: number, L/h, minutes."""
    rows = [{"id": number, "flow_lph": lph, "minutes": minutes} for number, lph, minutes in zones]
    start = store.capacity_l * store.usable_frac
    usable = start
    table: Timetable | None = None
    levels: tuple[tuple[float, float], ...] = ()
    end = start
    for _ in range(DAYS_TRIED):
        table = timetable(
            zones=rows,
            windows_h=windows,
            store={**asdict(store), "cold_c": cold_c, "start_l": start},
            house=house,
            reserve_l=reserve_l,
            gap_min=gap_min,
            longest_pulse_min=longest_min,
            shortest_pulse_min=shortest_min,
        )
        hot = {number: lph * table.hot_share_frac for number, lph, _ in zones}
        draws = [
            (row["start_h"], row["end_h"], hot[row["zone"]] * (row["end_h"] - row["start_h"]))
            for row in table.schedule
        ]
        day = store_levels(capacity_l=usable, inflow_lph=table.recovery_lph, draws=[*house, *draws], start_l=start)
        levels, end = day.points, day.end_l
        if not table.feasible or end >= start - SAME_L:
            break
        start = end
    assert table is not None
    return Season(name, cold_c, table, tuple(Level(*point) for point in levels), end)


def sendable(season: Season | None) -> Season:
    """A day that a controller may be sent; raise NamedCase no_zones, or store_would_empty for one that is none."""
    if season is None:
        raise NamedCase("no_zones")
    if not season.table.feasible:
        raise NamedCase("store_would_empty")
    return season


@step()
def seasons(
    zone_flows: tuple[ZoneFlow, ...],
    allowed_h: tuple[tuple[float, float], ...],
    hot_store: HotStore,
    house_draws: tuple[tuple[float, float, float], ...],
    reserve_l: float,
    gap_min: float,
    pulse_bound: Bound | None,
    shortest_min: float,
    winter_c: float,
    summer_c: float,
    summer_mixed_c: float | None,
) -> tuple[Season, ...]:
    longest = max(pulse_bound.minutes, 0.01) if pulse_bound else None
    zones = tuple((row.number, row.lph, row.minutes) for row in zone_flows)
    return tuple(
        season_of(
            name,
            cold,
            zones,
            allowed_h,
            store,
            house_draws,
            reserve_l,
            gap_min,
            longest,
            min(shortest_min, longest) if longest else shortest_min,
        )
        for name, cold, store in (
            ("winter", winter_c, hot_store),
            (
                "summer",
                summer_c,
                replace(hot_store, mix_c=hot_store.mix_c if summer_mixed_c is None else summer_mixed_c),
            ),
        )
    )


@figure(
    "Hot water a day in winter",
    formula="{changer_l_d} × {winter_hot_frac}",
    source="balance",
    kind="volume_per_day",
)
def winter_hot_l_d(changer_l_d: float, winter_hot_frac: float) -> float:
    return changer_l_d * winter_hot_frac


@figure("Least in the store in winter", formula="least of the day in {seasons}", source="balance")
def least_store_l(seasons: tuple[Season, ...]) -> float:
    table = seasons[0].table
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
    table = seasons[0].table
    terms: dict[str, Term | str] = {
        "hot": of(winter_hot_l_d, "winter_hot_l_d", "volume_per_day"),
        "recovery": Term(table.recovery_lph, "flow"),
        "fits": Term(table.share_that_fits, "share"),
        "starts": Term(float(table.starts), "count"),
        "reserve": Term(reserve_l, "volume"),
        "least": Term(table.min_l or 0.0, "volume"),
    }
    if not table.feasible:
        text = REFUSALS[str(table.reason)] + " It asks for {hot} of hot water, and {recovery} are made."
        return Verdict("short", -(1 - table.share_that_fits) or -1.0, say("no such day"), say(text, **terms))
    text = "In {starts} starts the store falls to {least} and keeps its {reserve}; {hot} of hot water at {recovery} made."
    verdict = at_least(table.min_l or 0.0, reserve_l, "volume", say(text, **terms), scale=max(usable_l, 1.0))
    # A reserve is there to be kept: only what falls under it is short.
    return Verdict("holds", verdict.margin, verdict.headline, verdict.reason, verdict.gauge)


@figure(
    "Longest step in temperature of a run", formula="worst over tanks of one pulse of {seasons}", source="balance"
)
def run_step_k(
    seasons: tuple[Season, ...], zone_flows: tuple[ZoneFlow, ...], tanks: tuple[Tank, ...], mixed_c: float
) -> float:
    return max(
        (step_of(seasons[0].table, row, flow.ratio, tanks[flow.tank], mixed_c) for row, flow in pairs(zone_flows)),
        default=0.0,
    )


def pairs(zone_flows: tuple[ZoneFlow, ...]) -> list[tuple[ZoneFlow, Any]]:
    return [(row, flow) for row in zone_flows for flow in row.tanks]


def pulses_in(table: Timetable, zone: int) -> int:
    """How often a zone runs in a day; once where there is no timetable."""
    return max(1, len([row for row in table.schedule if row["zone"] == zone]))


def step_of(table: Timetable, row: ZoneFlow, ratio: float, tank: Tank, mixed_c: float) -> float:
    """How far one pulse moves a tank's temperature, K; 0 where its own is not known."""
    if tank.kept_c is None:
        return 0.0
    return exchanged_frac(ratios=[ratio / pulses_in(table, row.number)]) * abs(mixed_c - tank.kept_c)


@check("No run shocks them", stage="timetable", judges="run_step_k", mends=("store.mixed_c", "zones.zone_min"))
def runs_borne(
    seasons: tuple[Season, ...], zone_flows: tuple[ZoneFlow, ...], tanks: tuple[Tank, ...], mixed_c: float
) -> Verdict:
    worst_share, told = 0.0, None
    for row, flow in pairs(zone_flows):
        tank = tanks[flow.tank]
        if tank.line is None or not tank.line.borne_k:
            continue
        moved = step_of(seasons[0].table, row, flow.ratio, tank, mixed_c)
        if told is None or moved / tank.line.borne_k > worst_share:
            worst_share, told = moved / tank.line.borne_k, (tank, moved)
    if told is None:
        raise NamedCase("no_animals")
    tank, moved = told
    assert tank.line is not None
    reason = say(
        "One pulse of {mix} moves {tank}, kept at {kept}, by {moved}; the most delicate there bear {borne} at once.",
        mix=Term(mixed_c, "temperature"),
        tank=tank.name,
        kept=Term(tank.line.water_c, "temperature"),
        moved=Term(moved, "temperature_difference"),
        borne=Term(tank.line.borne_k or 0.0, "temperature_difference"),
    )
    from loquen.core.graph.judging import at_most

    return by_practice(
        at_most(moved, tank.line.borne_k or 0.0, "temperature_difference", reason), tank.line.borne_k or 0.0
    )


@dataclass(frozen=True, slots=True)
class Failing:
    """What a pulse does to a tank: its step as planned (K), and where it ends when the mix fails either way or the valve sticks."""

    tank: str
    step_k: float
    scalded_c: float
    chilled_c: float
    stuck_c: float


STUCK_H = 8.0


@step()
def failing(
    seasons: tuple[Season, ...],
    zone_flows: tuple[ZoneFlow, ...],
    tanks: tuple[Tank, ...],
    mixed_c: float,
    winter_c: float,
    hot_c: float,
) -> tuple[Failing, ...]:
    """What a run does to each tank when the cold side fails, the hot runs out, or the valve sticks open on cold water."""
    found = []
    for row, flow in pairs(zone_flows):
        kept = tanks[flow.tank].kept_c
        if kept is None or row.minutes <= 0:
            continue
        ratio = flow.ratio / pulses_in(seasons[0].table, row.number)
        stuck = flow.ratio / row.minutes * 60 * STUCK_H
        found.append(
            Failing(
                tanks[flow.tank].name,
                step_of(seasons[0].table, row, flow.ratio, tanks[flow.tank], mixed_c),
                failed_mix_c(tank_c=kept, fed_c=hot_c, ratio=ratio),
                failed_mix_c(tank_c=kept, fed_c=winter_c, ratio=ratio),
                failed_mix_c(tank_c=kept, fed_c=winter_c, ratio=stuck),
            )
        )
    return tuple(found)


@check("A failed mix is lived through", stage="timetable", judges="")
def mix_failure_borne(failing: tuple[Failing, ...], thermostatic: bool, tanks: tuple[Tank, ...]) -> Verdict:
    if not failing:
        raise NamedCase("no_animals")
    by_name = {tank.name: tank.line for tank in tanks}
    harmed = []
    for row in failing:
        line = by_name[row.tank]
        if line and line.high_c is not None and line.low_c is not None:
            over, under = row.scalded_c - line.high_c, line.low_c - row.chilled_c
            if max(over, under) > 0:
                harmed.append((max(over, under), row))
    hottest, coldest = max(failing, key=lambda r: r.scalded_c), min(failing, key=lambda r: r.chilled_c)
    terms: dict[str, Term | str] = {
        "hot": Term(hottest.scalded_c, "temperature"),
        "at": hottest.tank,
        "cold": Term(coldest.chilled_c, "temperature"),
        "there": coldest.tank,
        "stuck": Term(min(row.stuck_c for row in failing), "temperature"),
    }
    text = (
        "One pulse with the cold side failed brings {at} to {hot}, with no hot left {there} to {cold}; a valve stuck open for "
        "eight hours on cold water, {stuck}."
    )
    if not harmed:
        return Verdict("holds", 1.0, say("borne"), say(text, **terms))
    if thermostatic:
        text += " The thermostatic valve that shuts when either side fails is what stands before that: try it each month."
        return Verdict("tight", 0.0, say("by the valve alone"), say(text, **terms))
    text += (
        " Nothing stands before that: a thermostatic valve that shuts when either side fails, or shorter pulses."
    )
    return Verdict("short", -1.0, say("nothing stands before it"), say(text, **terms))


@step()
def timetable_result(seasons: tuple[Season, ...], pulse_bound: Bound | None, mixed_c: float) -> Sentence:
    winter, summer = (season.table for season in seasons)
    if not winter.feasible:
        return say(
            "In winter there is no such day: " + REFUSALS[str(winter.reason)].lower(),
            fits=Term(winter.share_that_fits, "share"),
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
