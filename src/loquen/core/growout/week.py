"""A week of a venture that runs steadily: what is raised and sold, what it costs, what a tank brings."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any

from loquen.core.errors import NamedCase
from loquen.core.growout.broods import Stages, age_at_length_d, fry_per_day, survivors_frac
from loquen.core.growout.young import NOBODY, Growth, held
from loquen.core.physics.animals import body_mass_g, feed_g_d
from loquen.core.physics.heat import J_PER_KWH, WATER_HEAT_J_L_K
from loquen.core.physics.nitrogen import NITRATE_PER_N, ammonia_from_feed_mg_d
from loquen.core.physics.ranges import within

KEPT_FRAC, REMOVED_FRAC = 0.28, 0.20
WEEK = 7.0


@dataclass(frozen=True, slots=True)
class GrowoutWeek:
    """A steady week. Money is a week's; `feed_g_d` is of young and broodstock together, `present` and `biomass_g` of the
    young; `sale_age_d` is when those of a class leave, their wait for a buyer in it."""

    fry_per_day: float
    sale_age_d: dict[str, float]
    present: float
    biomass_g: float
    feed_g_d: float
    nitrogen_mg_d: float
    water_l_wk: float
    kwh_wk: float
    minutes_wk: float
    sold: dict[str, dict[str, float]]
    grow_tanks: int
    tanks: int
    revenue_wk: float
    cost_wk: dict[str, float]
    cost_total_wk: float
    margin_wk: float
    margin_per_tank_wk: float
    first_sale: str | None


@dataclass(frozen=True, slots=True)
class GrowoutRange:
    """Margin per tank and week with every ranged entry at its bad end, as likely, and at its good end."""

    low: float
    likely: float
    high: float


def sold_of(raised_per_week: float, sells_frac: float, buyers_per_week: float | None) -> float:
    """Sold a week of those raised: the share that finds a buyer, no more than there are buyers."""
    sold = raised_per_week * sells_frac
    return sold if buyers_per_week is None else min(sold, buyers_per_week)


def tanks_for(
    biomass_g: float, tank_l: float, stock_g_per_l: float, broods_a_day: float, broods_apart_d: float | None
) -> int:
    """Tanks to grow them in: by grams a litre, and one for each brood that is kept apart; one at least."""
    by_mass = math.ceil(biomass_g / (stock_g_per_l * tank_l) - 1e-9)
    apart = math.ceil(broods_a_day * broods_apart_d - 1e-9) if broods_apart_d else 0
    return max(by_mass, apart, 1)


def growout_week(
    *,
    females: float,
    males: float,
    brood_size: float,
    interval_d: float,
    fertile_frac: float,
    temp_c: float,
    shape: str,
    growth: Mapping[str, float],
    brood_length_cm: float,
    stages: Stages,
    classes: Sequence[Mapping[str, Any]],
    tank_l: float,
    stock_g_per_l: float,
    breeding_tanks: int,
    broodstock_price: float,
    broodstock_life_wk: float,
    settle_d: float,
    start: str,
    tap_c: float,
    price_kwh: float,
    water_price_m3: float,
    money_per_h: float,
    minutes_per_sale: float,
    minutes_per_tank_wk: float,
    tank_kwh_wk: float,
    nitrate_limit_mg_l: float,
    nitrate_source_mg_l: float,
    protein_frac: float,
    feed_price_kg: float,
    commission_frac: float = 0.0,
    least_change_frac_wk: float = 0.1,
    broods_apart_d: float | None = None,
) -> GrowoutWeek:
    """What a colony and its young come to in a steady week.

    Equation: margin = revenue − feed − water − heat − labour − broodstock ÷ its life − commission; ages by von
        Bertalanffy, young summed by day at the growing feed, nitrogen by feed and protein, litres = N·4.4268/(limit −
        source), at least the least change share of all tanks
    Parameters:
        females, males: 1, 0 to 1e5. The colony; no female is a named case.
        brood_size, interval_d, fertile_frac: as fry_per_day.
        temp_c, tap_c: °C, 0 to 45. Of the tanks, and of the water that fills them.
        shape: a key of body_shapes.csv.
        growth: {"adult_length_cm", "growth_per_year", "start_length_cm"}.
        brood_length_cm: cm, 0.2 to 300. Of the broodstock.
        stages: (days, survival) each, in order.
        classes: {"name", "share" 0 to 1 of all, "length_cm", "colour_age_d" 0, "price", "sells_frac", "buyers_per_week"
            None for no limit, "wait_d" 0, "unsold_price" 0 (below 0 where it costs)}.
        tank_l: L; stock_g_per_l: g/L; breeding_tanks: 1. Every tank alike.
        broodstock_price: money for one; broodstock_life_wk: weeks until it is replaced.
        settle_d: d before the first brood; start: ISO date.
        price_kwh, water_price_m3, money_per_h, feed_price_kg: money.
        minutes_per_sale, minutes_per_tank_wk: min; tank_kwh_wk: kWh a week of one tank, its change water not in it.
        nitrate_limit_mg_l, nitrate_source_mg_l: mg/L of the ion.
        protein_frac, commission_frac, least_change_frac_wk: share.
        broods_apart_d: d that each brood has a tank to itself; None: never.
    Returns: GrowoutWeek.
    Raises: OutOfRange; NamedCase "no_female", "never_so_long", "source_at_limit".
    Source: balance
    """
    if females < 1:
        raise NamedCase("no_female")
    for name, share in [("commission_frac", commission_frac), ("least_change_frac_wk", least_change_frac_wk)]:
        within(name, share, 0, 1, "share")
    for name, most in [
        ("tank_l", tank_l),
        ("stock_g_per_l", stock_g_per_l),
        ("broodstock_life_wk", broodstock_life_wk),
    ]:
        within(name, most, 1e-6, 1e6, "1")
    if nitrate_limit_mg_l <= nitrate_source_mg_l:
        raise NamedCase("source_at_limit")
    grows = Growth(growth["adult_length_cm"], growth["growth_per_year"], growth["start_length_cm"])
    a_day = fry_per_day(females, brood_size, interval_d, fertile_frac)
    young, ready, leaves, sold = NOBODY, {}, {}, {}
    revenue = taken = 0.0
    for row in classes:
        name = row["name"]
        for part in ("share", "sells_frac"):
            within(part, row[part], 0, 1, "share")
        long_enough = age_at_length_d(
            row["length_cm"], grows.adult_length_cm, grows.growth_per_year, grows.start_length_cm
        )
        ready[name] = max(long_enough, row.get("colour_age_d", 0))
        leaves[name] = ready[name] + row.get("wait_d", 0)
        kept = held(0, leaves[name], stages, grows, lambda length: body_mass_g(length, shape))
        young = young.plus(kept.times(a_day * row["share"]))
        raised = a_day * WEEK * row["share"] * survivors_frac(leaves[name], stages)
        gone = sold_of(raised, row["sells_frac"], row.get("buyers_per_week"))
        sold[name] = {"raised_per_week": raised, "sold_per_week": gone, "unsold_per_week": raised - gone}
        taken += gone * row["price"]
        revenue += gone * row["price"] + (raised - gone) * row.get("unsold_price", 0)
    of_one_gram = float(feed_g_d(1.0, temp_c, "growing"))
    adult_feed = float(feed_g_d(body_mass_g(brood_length_cm, shape), temp_c)) * (females + males)
    feed = young.eaten_g * of_one_gram + adult_feed
    nitrogen = float(ammonia_from_feed_mg_d(feed, protein_frac, KEPT_FRAC, REMOVED_FRAC))
    grow_tanks = tanks_for(young.mass_g, tank_l, stock_g_per_l, females * fertile_frac / interval_d, broods_apart_d)
    tanks = grow_tanks + breeding_tanks
    water = max(
        nitrogen * WEEK * NITRATE_PER_N / (nitrate_limit_mg_l - nitrate_source_mg_l),
        least_change_frac_wk * tanks * tank_l,
    )
    kwh = water * WATER_HEAT_J_L_K * max(0.0, temp_c - tap_c) / J_PER_KWH + tank_kwh_wk * tanks
    minutes = minutes_per_tank_wk * tanks + minutes_per_sale * sum(row["sold_per_week"] for row in sold.values())
    cost = {
        "feed": feed * WEEK / 1000 * feed_price_kg,
        "water": water / 1000 * water_price_m3,
        "heat": kwh * price_kwh,
        "labour": minutes / 60 * money_per_h,
        "broodstock": (females + males) * broodstock_price / broodstock_life_wk,
        "other": commission_frac * taken,
    }
    total = sum(cost.values())
    selling = [ready[row["name"]] for row in classes if sold[row["name"]]["sold_per_week"] > 0]
    return GrowoutWeek(
        fry_per_day=a_day,
        sale_age_d=leaves,
        present=young.present,
        biomass_g=young.mass_g,
        feed_g_d=feed,
        nitrogen_mg_d=nitrogen,
        water_l_wk=water,
        kwh_wk=kwh,
        minutes_wk=minutes,
        sold=sold,
        grow_tanks=grow_tanks,
        tanks=tanks,
        revenue_wk=revenue,
        cost_wk=cost,
        cost_total_wk=total,
        margin_wk=revenue - total,
        margin_per_tank_wk=(revenue - total) / tanks,
        first_sale=first_sale_date(start, settle_d, min(selling)) if selling else None,
    )


def first_sale_date(start: str, settle_d: float, ready_d: float) -> str:
    """The first day on which young can be sold: settling and growing, in whole days."""
    return (date.fromisoformat(start) + timedelta(days=math.ceil(settle_d + ready_d))).isoformat()


def at_end(given: Mapping[str, Any], moved: Mapping[str, Any]) -> dict[str, Any]:
    """The arguments of growout_week with those of one end of their ranges in them."""
    rest = {name: value for name, value in moved.items() if not name.endswith("_factor")}
    found = {**given, **rest}
    price, sells = moved.get("price_factor", 1.0), moved.get("sells_factor", 1.0)
    found["classes"] = [
        {**row, "price": row["price"] * price, "sells_frac": min(1.0, row["sells_frac"] * sells)}
        for row in found["classes"]
    ]
    lives = moved.get("survival_factor", 1.0)
    found["stages"] = [(days, min(1.0, share * lives)) for days, share in found["stages"]]
    return found


def growout_range(*, ranges: Mapping[str, Mapping[str, Any]], **given: Any) -> GrowoutRange:
    """Low, likely and high margin per tank and week: an outer range, all that is uncertain moved together.

    Parameters:
        ranges: {"low": {…}, "high": {…}}, each with price_factor, sells_factor (the share stays at 1 at most),
            survival_factor (so does each stage's) or any argument of growout_week.
        given: the arguments of growout_week.
    Returns: GrowoutRange.
    Raises: as growout_week.
    Source: balance
    """

    def margin(end: str) -> float:
        return growout_week(**at_end(given, ranges.get(end, {}))).margin_per_tank_wk

    return GrowoutRange(margin("low"), growout_week(**given).margin_per_tank_wk, margin("high"))
