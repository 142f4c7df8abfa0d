"""Purified and softened water over a week, and how long cartridges last."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from loquen.core.physics.chemistry import permeate_lph
from loquen.core.physics.chemistry import softener_sodium_mg_l as sodium_mg_l
from loquen.core.physics.nitrogen import CACO3_MG_L_PER_DKH
from loquen.core.physics.ranges import within
from loquen.core.rooms.stores import Draw, Levels, store_levels

WEEK_H = 168.0
MOST_WEEKS = 2000
SETTLED_L = 1e-6
MG_PER_GRAIN = 64.79891


@dataclass(frozen=True, slots=True)
class OsmosisWeek:
    """The first week of a store of purified water, and whether weeks like it can follow for good."""

    permeate_lph: float
    fill_h: float
    made_l_wk: float
    waste_l_wk: float
    demand_l_wk: float
    min_l: float
    min_at_h: float
    end_l: float
    short_l: float
    first_short_h: float | None
    holds_for_good: bool
    first_short_week: int | None
    points: tuple[tuple[float, float], ...]


def osmosis_week(
    *,
    membranes: int,
    rated_l_d: float,
    feed_kpa: float,
    tds_mg_l: float,
    temp_c: float,
    waste_ratio: float,
    rejection_frac: float,
    store_l: float,
    demand: Sequence[Mapping[str, float]],
    rated_kpa: float = 345.0,
    rated_tds_mg_l: float = 250.0,
    back_kpa: float = 0.0,
    start_l: float | None = None,
) -> OsmosisWeek:
    """A week of making, storing and drawing purified water, repeated until its level does or it falls short.

    Equation: permeate as permeate_lph × membranes; dL/dt = permeate − draws, capped at full; waste = made × ratio
    Parameters:
        membranes: 1, whole, 1 to 50. In parallel.
        rated_l_d: L/d, scalar, 1 to 1e5. Of each, at its rating.
        feed_kpa: kPa, scalar, 0 to 2000. Before the membranes.
        tds_mg_l: mg/L, scalar, 0 to 20000. Dissolved solids of the feed.
        temp_c: °C, scalar, 0 to 45. Of the feed.
        waste_ratio: 1, scalar, 0 to 20. Litres let go for a litre made.
        rejection_frac: share, scalar, 0 to 1. Of solids kept back.
        store_l: L, scalar, 0 to 1e6. Of the store.
        demand: {"day" 0 to 6, "hour" 0 to 24, "minutes" 0 to 10080, "litres"}. Each drawn evenly over its minutes.
        rated_kpa: kPa, scalar, 100 to 2000. That the rating is for.
        rated_tds_mg_l: mg/L, scalar, 0 to 5000. That the rating is for.
        back_kpa: kPa, scalar, 0 to 1000. Against the permeate.
        start_l: L, scalar, 0 to store_l, or None for full. At the week's first hour.
    Returns: OsmosisWeek, its levels of the first week; hours from its beginning.
    Raises: OutOfRange; NamedCase "no_permeate".
    Source: osmosis
    """
    within("membranes", membranes, 1, 50, "1")
    within("rated_l_d", rated_l_d, 1, 1e5, "L/d")
    within("waste_ratio", waste_ratio, 0, 20, "1")
    within("rejection_frac", rejection_frac, 0, 1, "share")
    made_lph = membranes * permeate_lph(
        rated_l_d / 24, feed_kpa, tds_mg_l, temp_c, rated_kpa, rated_tds_mg_l, back_kpa
    )
    own, over = week_draws(demand)
    level = store_l if start_l is None else start_l
    weeks: list[Levels] = []
    first_short: int | None = None
    for number in range(1, MOST_WEEKS + 1):
        week = store_levels(
            capacity_l=store_l,
            inflow_lph=made_lph,
            draws=own if number == 1 else [*over, *own],
            start_l=level,
            end_h=WEEK_H,
        )
        weeks.append(week)
        if week.first_short_h is not None:
            first_short = number
            break
        if number > 1 and abs(week.end_l - level) < SETTLED_L:
            break
        level = week.end_l
    first = weeks[0]
    return OsmosisWeek(
        permeate_lph=made_lph,
        fill_h=store_l / made_lph,
        made_l_wk=first.made_l,
        waste_l_wk=first.made_l * waste_ratio,
        demand_l_wk=float(sum(row["litres"] for row in demand)),
        min_l=first.min_l,
        min_at_h=first.min_at_h,
        end_l=first.end_l,
        short_l=first.short_l,
        first_short_h=first.first_short_h,
        holds_for_good=first_short is None,
        first_short_week=first_short,
        points=first.points,
    )


def week_draws(demand: Sequence[Mapping[str, float]]) -> tuple[list[Draw], list[Draw]]:
    """Draws inside the week, and what of them runs over into the next one."""
    own: list[Draw] = []
    over: list[Draw] = []
    for row in demand:
        within("day", row["day"], 0, 6, "d")
        within("hour", row["hour"], 0, 24, "h")
        within("minutes", row["minutes"], 0, 10_080, "min")
        start = 24 * row["day"] + row["hour"]
        hours, litres = row["minutes"] / 60, float(row["litres"])
        if start + hours <= WEEK_H:
            own.append((start, start + hours, litres))
            continue
        inside = max(0.0, (WEEK_H - start) / hours)
        own.append((start, WEEK_H, litres * inside))
        over.append((max(0.0, start - WEEK_H), start + hours - WEEK_H, litres * (1 - inside)))
    return own, over


def softener_litres(*, capacity_grains: float, removed_dgh: float, usable_frac: float = 1.0) -> float:
    """Water softened between two regenerations.

    Equation: grains·64.79891·usable/(17.848·dGH)
    Parameters:
        capacity_grains: gr, scalar, 0 to 1e7. Of the resin, as CaCO3.
        removed_dgh: dGH, scalar, 0.01 to 100. Taken out.
        usable_frac: share, scalar, 0 to 1. At the salt it is given: 0.6 to 0.7 at a sparing dose.
    Returns: L, scalar.
    Raises: OutOfRange.
    Source: definition

    >>> round(softener_litres(capacity_grains=30000, removed_dgh=15))
    7261
    """
    within("capacity_grains", capacity_grains, 0, 1e7, "gr")
    within("removed_dgh", removed_dgh, 0.01, 100, "dGH")
    within("usable_frac", usable_frac, 0, 1, "share")
    return capacity_grains * MG_PER_GRAIN * usable_frac / (CACO3_MG_L_PER_DKH * removed_dgh)


def softener_sodium_mg_l(*, removed_dgh: float) -> float:
    """Sodium that a softener gives for the hardness it takes; see the relation of that name in chemistry.

    >>> round(softener_sodium_mg_l(removed_dgh=15))
    123
    """
    return float(sodium_mg_l(removed_dgh))


def cartridge_change_date(
    *, start: date, capacity_l: float, litres_by_weekday: Sequence[float], calendar_d: float | None = None
) -> date | None:
    """The day before whose run a cartridge is changed.

    Equation: the first day with Σ litres > capacity, or start + calendar days if that is sooner
    Parameters:
        start: date. Of the first day that it serves.
        capacity_l: L, scalar, 0 to 1e9. That it is good for.
        litres_by_weekday: L, seven, each 0 to 1e7, Monday first. Run through it.
        calendar_d: d, scalar, 1 to 3660, or None. After which it is changed in any case.
    Returns: date; None where nothing runs through it and no days are set.
    Raises: OutOfRange.
    Source: definition

    >>> week = [400, 0, 400, 0, 400, 0, 0]
    >>> str(cartridge_change_date(start=date(2026, 3, 2), capacity_l=5000, litres_by_weekday=week))
    '2026-03-30'
    """
    within("capacity_l", capacity_l, 0, 1e9, "L")
    if len(litres_by_weekday) != 7:
        within("litres_by_weekday", float(len(litres_by_weekday)), 7, 7, "days")
    for litres in litres_by_weekday:
        within("litres_by_weekday", litres, 0, 1e7, "L")
    if calendar_d is not None:
        within("calendar_d", calendar_d, 1, 3660, "d")
    by_calendar = None if calendar_d is None else start + timedelta(days=int(calendar_d))
    weekly = float(sum(litres_by_weekday))
    if weekly == 0:
        return by_calendar
    # Whole weeks that surely fit are skipped; the rest is counted day by day.
    weeks = max(0, math.floor(capacity_l / weekly) - 1)
    try:
        day = start + timedelta(weeks=weeks)
    except OverflowError:
        return by_calendar
    run = weeks * weekly
    while run + litres_by_weekday[day.weekday()] <= capacity_l:
        run += litres_by_weekday[day.weekday()]
        day += timedelta(days=1)
    return min(day, by_calendar) if by_calendar else day
