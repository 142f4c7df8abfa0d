"""What it brings and costs in a steady week, a tank and an hour, and day by day from the start."""

from datetime import date, timedelta
from math import inf

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, at_most, no_harm
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.growout.dated import Brood, Run, Spends, Way, broods_from
from loquen.core.growout.dated import run as dated_run
from loquen.core.growout.homes import Home
from loquen.core.growout.stages.space import masses
from loquen.core.growout.young import Growth, Held
from loquen.core.library.rows.animals import Species
from loquen.core.model.inputs.quantity import Sentence, Term, of, say

WEEK = 7.0
WEEKS_A_YEAR = 365.25 / 7


@figure("Sales", formula="Σ {sold_money} + Σ {left_money}", source="balance")
def earned_money(sold_money: tuple[float, ...], left_money: tuple[float, ...]) -> float:
    return sum(sold_money) + sum(left_money)


@figure("Food", formula="({young_feed_g_d} + {colony_feed_g_d}) × 7 ÷ 1000 × {feed_kg_money}", source="balance")
def fed_money(young_feed_g_d: float, colony_feed_g_d: float, feed_kg_money: float) -> float:
    return (young_feed_g_d + colony_feed_g_d) * WEEK / 1000 * feed_kg_money


@figure(
    "Change water of one tank",
    formula="by its plan: {tank_there}",
    source="balance",
)
def tank_water_l_wk(tank_there: Home) -> float:
    return tank_there.change_l_wk


@figure("Tanks that the young have", formula="{tanks_needed} − {colony_tanks}", source="definition", kind="count")
def young_tanks(tanks_needed: float, colony_tanks: int) -> float:
    return tanks_needed - colony_tanks


@figure(
    "Change water a week",
    formula="{tank_water_l_wk} × {young_tanks} + that of {colony_tank} × {colony_tanks}",
    source="balance",
)
def all_water_l_wk(tank_water_l_wk: float, young_tanks: float, colony_tank: Home, colony_tanks: int) -> float:
    return tank_water_l_wk * young_tanks + colony_tank.change_l_wk * colony_tanks


@figure("Water", formula="{all_water_l_wk} ÷ 1000 × {water_money}", source="balance")
def poured_money(all_water_l_wk: float, water_money: float) -> float:
    return all_water_l_wk / 1000 * water_money


@figure(
    "Heat, pumps and light a week",
    formula="a year's of {tank_there} ÷ 52.18 × {young_tanks}, and of {colony_tank} × {colony_tanks}",
    source="balance",
)
def all_kwh(tank_there: Home, young_tanks: float, colony_tank: Home, colony_tanks: int) -> float:
    return tank_there.kwh_wk * young_tanks + colony_tank.kwh_wk * colony_tanks


@figure("Power", formula="{all_kwh} × {kwh_money}, or the plan's own price of {tank_there}", source="balance")
def power_money(all_kwh: float, kwh_money: float | None, tank_there: Home) -> float:
    return all_kwh * (tank_there.kwh_money if kwh_money is None else kwh_money)


@figure(
    "Work a week",
    formula="(({tank_min} + changes of {tank_there}) × {young_tanks} + ({tank_min} + changes of {colony_tank}) × {colony_tanks} + "
    "{sale_min} × {all_sold_per_wk}) ÷ 60 × {work_part}",
    source="practice",
)
def worked_h(
    tank_min: float,
    tank_there: Home,
    young_tanks: float,
    colony_tank: Home,
    colony_tanks: int,
    sale_min: float,
    all_sold_per_wk: float,
    work_part: float,
) -> float:
    on_tanks = (tank_min + tank_there.work_min_wk) * young_tanks + (
        tank_min + colony_tank.work_min_wk
    ) * colony_tanks
    return (on_tanks + sale_min * all_sold_per_wk) / 60 * work_part


@figure("Work", formula="{worked_h} × {hour_money}", source="balance")
def work_money(worked_h: float, hour_money: float) -> float:
    return worked_h * hour_money


@figure("Colony, as it is replaced", formula="{wanted_grown} × {grown_money} ÷ {breeds_weeks}", source="balance")
def renewed_money(wanted_grown: float, grown_money: float, breeds_weeks: float) -> float:
    return wanted_grown * grown_money / breeds_weeks


@figure(
    "Kept by who sells them on, and others",
    formula="Σ {sold_money} × {commission_frac} + {other_money}",
    source="balance",
)
def kept_back_money(sold_money: tuple[float, ...], commission_frac: float, other_money: float) -> float:
    return sum(sold_money) * commission_frac + other_money


@figure(
    "Costs",
    formula="{fed_money} + {poured_money} + {power_money} + {work_money} + {renewed_money} + {kept_back_money}",
    source="balance",
)
def spent_money(
    fed_money: float,
    poured_money: float,
    power_money: float,
    work_money: float,
    renewed_money: float,
    kept_back_money: float,
) -> float:
    return fed_money + poured_money + power_money + work_money + renewed_money + kept_back_money


@figure("Left a week", formula="{earned_money} − {spent_money}", source="balance")
def margin_money(earned_money: float, spent_money: float) -> float:
    return earned_money - spent_money


@figure("Left for a tank and week", formula="{margin_money} ÷ {tanks_needed}", source="balance")
def tank_margin_money(margin_money: float, tanks_needed: float) -> float:
    return margin_money / tanks_needed


@figure(
    "The same with hours for nothing",
    formula="({margin_money} + {work_money}) ÷ {tanks_needed}",
    source="balance",
)
def unpaid_margin_money(margin_money: float, work_money: float, tanks_needed: float) -> float:
    return (margin_money + work_money) / tanks_needed


@figure("Left for an hour of work", formula="({margin_money} + {work_money}) ÷ {worked_h}", source="balance")
def hour_margin_money(margin_money: float, work_money: float, worked_h: float) -> float:
    if worked_h <= 0:
        raise NamedCase("no_work")
    return (margin_money + work_money) / worked_h


@figure(
    "Prices at which nothing is left, of those entered",
    formula="({spent_money} − Σ {sold_money} × {commission_frac} − Σ {left_money}) ÷ (Σ {sold_money} × (1 − {commission_frac}))",
    source="balance",
    kind="share",
)
def break_even_frac(
    spent_money: float, sold_money: tuple[float, ...], left_money: tuple[float, ...], commission_frac: float
) -> float:
    sold = sum(sold_money)
    if sold * (1 - commission_frac) <= 0:
        raise NamedCase("nothing_sold")
    return (spent_money - sold * commission_frac - sum(left_money)) / (sold * (1 - commission_frac))


@figure(
    "Dearest way breaks even at",
    formula="dearest of {price_money} × {break_even_frac}",
    source="balance",
)
def break_even_money(break_even_frac: float, price_money: tuple[float | None, ...]) -> float:
    return max((price or 0.0) for price in price_money) * max(0.0, break_even_frac)


@figure("The line costs a year", formula="−{margin_money} × 52.18", source="balance")
def line_year_money(margin_money: float, purpose: str) -> float:
    if purpose != "line":
        raise NamedCase("not_needed")
    return -margin_money * WEEKS_A_YEAR


@figure(
    "Until the first sale", formula="{settle_d} + soonest of {ready_d} that sells, rounded up", source="balance"
)
def first_sale_d(settle_d: float, ready_d: tuple[float, ...], sold_per_wk: tuple[float, ...]) -> float:
    selling = [ready for ready, sold in zip(ready_d, sold_per_wk, strict=True) if sold > 0]
    if not selling:
        raise NamedCase("nothing_sold")
    whole = settle_d + min(selling)
    return float(-(-whole // 1))


@step()
def begins_on(set_on: str, today: str) -> str:
    """When the colony is set on: as entered, else today."""
    return set_on or today


@step()
def first_sale(begins_on: str, first_sale_d: float) -> str:
    if not begins_on:
        raise NamedCase("not_needed")
    return (date.fromisoformat(begins_on) + timedelta(days=int(first_sale_d))).isoformat()


@step()
def brood_days(
    births: tuple[tuple[str, int], ...],
    begins_on: str,
    today: str,
    settle_d: float,
    taken_per_day: float,
    raised_of_batch: float,
    most_of_batch: float | None,
    culled_frac: float,
) -> tuple[Brood, ...]:
    """Broods as they came, by the register, and as they will come from then on."""
    if not begins_on:
        return broods_from(settle_d, taken_per_day, raised_of_batch)
    start = date.fromisoformat(begins_on)
    most = inf if most_of_batch is None else most_of_batch
    known = [
        Brood(float((date.fromisoformat(day) - start).days), min(count, most) * (1 - culled_frac))
        for day, count in births
    ]
    known = sorted((brood for brood in known if brood.day >= 0), key=lambda brood: brood.day)
    if not known or taken_per_day <= 0:
        return (*known, *broods_from(settle_d, taken_per_day, raised_of_batch))
    lately = float((date.fromisoformat(today) - start).days) if today else known[-1].day
    return (*known, *broods_from(max(known[-1].day + 1 / taken_per_day, lately), taken_per_day, raised_of_batch))


@step()
def spends(
    tank_there: Home,
    colony_tank: Home,
    colony_tanks: int,
    kwh_money: float | None,
    water_money: float,
    feed_kg_money: float,
    colony_money: float,
    set_up_money: float,
    renewed_money: float,
    other_money: float,
    tank_min: float,
    sale_min: float,
    hour_money: float,
    work_part: float,
    colony_feed_g_d: float,
    one_gram_g_d: float,
) -> Spends:
    a_minute = hour_money / 60 * work_part

    def kept(tank: Home) -> float:
        power = tank.kwh_wk * (tank_there.kwh_money if kwh_money is None else kwh_money)
        return (power + tank.change_l_wk / 1000 * water_money) / WEEK

    def worked(tank: Home) -> float:
        return (tank_min + tank.work_min_wk) * a_minute / WEEK

    return Spends(
        at_first=colony_money + set_up_money,
        a_day=(renewed_money + other_money) / WEEK + kept(colony_tank) * colony_tanks,
        a_day_worked=worked(colony_tank) * colony_tanks,
        a_tank_day=kept(tank_there),
        a_tank_day_worked=worked(tank_there),
        a_gram=feed_kg_money / 1000,
        a_sale_worked=sale_min * a_minute,
        feed_of_colony_g_d=colony_feed_g_d,
        one_gram_g_d=one_gram_g_d,
    )


@step()
def run(
    brood_days: tuple[Brood, ...],
    ways: tuple[Way, ...],
    lives: tuple[tuple[float, float], ...],
    grows: Growth,
    kind: Species,
    moved_d: float,
    apart_d: float,
    holding_d: float,
    raised: str,
    growing_held: Held,
    kept_per_day: float,
    growing_mean: float,
    colony_tanks: int,
    spends: Spends,
) -> Run:
    """Five years, day by day."""
    full = kept_per_day * growing_held.mass_g / growing_mean if growing_mean > 0 else 0.0
    before = holding_d if raised == "holding" else 0.0
    return dated_run(
        brood_days, ways, lives, grows, masses(kind), moved_d, apart_d, before, full, colony_tanks, spends
    )


@figure("Most that is laid out", formula="lowest of the money in hand of {run}, hours unpaid", source="balance")
def laid_out_money(run: Run) -> float:
    return max(0.0, -run.lowest_cash)


@check("Worth its place", stage="worth", glass="margin", judges="tank_margin_money", mends=("sales.*.price_money",))
def worth_it(tank_margin_money: float, unpaid_margin_money: float, purpose: str) -> Verdict:
    terms = {
        "margin": of(tank_margin_money, "tank_margin_money"),
        "unpaid": of(unpaid_margin_money, "unpaid_margin_money"),
    }
    if purpose == "line":
        raise NamedCase("kept_for_the_line")
    reason = say("A tank brings {margin} a week with hours paid, {unpaid} with hours for nothing.", **terms)
    return no_harm(at_least(tank_margin_money, 0.0, "money", reason, scale=abs(unpaid_margin_money) or 1.0))


@check("Prices have room to fall", stage="worth", judges="break_even_frac")
def prices_hold(break_even_frac: float | None, purpose: str) -> Verdict:
    if purpose == "line":
        raise NamedCase("kept_for_the_line")
    if break_even_frac is None:
        raise NamedCase("nothing_sold")
    reason = say(
        "Nothing is left at {part} of the prices entered.", part=of(break_even_frac, "break_even_frac", "share")
    )
    return no_harm(at_most(break_even_frac, 1.0, "share", reason))


@step()
def worth_result(
    tank_margin_money: float,
    margin_money: float,
    purpose: str,
    line_year_money: float | None,
    tanks_needed: float,
    kind: Species,
    price_money: tuple[float | None, ...],
    spent_money: float,
) -> Sentence:
    terms: dict[str, Term | str] = {
        "tank": of(tank_margin_money, "tank_margin_money"),
        "week": of(margin_money, "margin_money"),
        "tanks": of(tanks_needed, "tanks_needed", "count"),
        "kind": kind.common,
    }
    if purpose == "line" and line_year_money is not None:
        terms["year"] = of(line_year_money, "line_year_money")
        terms["cost"] = Term(-margin_money, "money", "margin_money")
        return say("Keeping this line of {kind} costs {cost} a week, {year} a year, in {tanks} tanks.", **terms)
    if not any(price_money):
        terms["spent"] = of(spent_money, "spent_money")
        return say("No price is entered yet: {kind} cost {spent} a week in {tanks} tanks.", **terms)
    if tank_margin_money < 0:
        return say("{kind} bring {tank} a tank and week: less than they cost.", **terms)
    return say("{kind} bring {tank} a tank and week, {week} from {tanks} tanks.", **terms)
