"""Hours of work with and without the changer, what it costs to run, and when it has paid for itself."""

from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.physics.heat import J_PER_KWH, WATER_HEAT_J_L_K
from loquen.core.rooms.labour import LabourWeek, labour_week
from loquen.core.rooms.stages.exchange import hose_l_wk
from loquen.core.rooms.stages.plumbing import ZoneFlow
from loquen.core.rooms.stages.racks import Tank

RANGE = (0.8, 1.0, 1.25)
"""What a year's running may be of what is likely."""


@figure(
    "Heat and pump of the changer a week in winter",
    formula="number of {run_days} × (4186 × ({street_l_d} × ({mixed_c} − {winter_c}) ÷ {hot_yield} + {pumped_l_d} × ({reservoir_c} − "
    "{winter_c})) ÷ 3.6e6 + {pump_w} ÷ 1000 × hours of the pumped of {zone_flows})",
    source="balance",
)
def changer_kwh(
    run_days: tuple[str, ...],
    street_l_d: float,
    pumped_l_d: float,
    mixed_c: float,
    reservoir_c: float,
    winter_c: float,
    hot_yield: float,
    pump_w: float,
    zone_flows: tuple[ZoneFlow, ...],
) -> float:
    pumped_h = sum(row.minutes for row in zone_flows if row.fed_from == "reservoir") / 60
    mixed = max(0.0, street_l_d * (mixed_c - winter_c)) / hot_yield
    stood = max(0.0, pumped_l_d * (reservoir_c - winter_c))
    return len(set(run_days)) * (WATER_HEAT_J_L_K * (mixed + stood) / J_PER_KWH + pump_w / 1000 * pumped_h)


@figure(
    "Cartridges a week",
    formula="{cartridge_money} × {through_l_wk} ÷ {cartridge_l}, at least 7 ÷ {cartridge_d}",
    source="balance",
)
def cartridges_money(cartridge_money: float, through_l_wk: float, cartridge_l: float, cartridge_d: float) -> float:
    return cartridge_money * max(through_l_wk / cartridge_l, 7 / cartridge_d)


@figure(
    "What hoses poured there before, a week",
    formula="sum of each plan's own changes over {automated_tanks}",
    source="balance",
)
def replaced_l_wk(automated_tanks: tuple[Tank, ...]) -> float:
    return sum(hose_l_wk(tank) for tank in automated_tanks)


@figure(
    "The changer's running a week in winter",
    formula="({changer_kwh} × {kwh_money} + {through_l_wk} ÷ 1000 × {water_money}) × (1 − {replaced_l_wk} ÷ {through_l_wk}), not below "
    "0, + {cartridges_money}",
    source="balance",
)
def running_money(
    changer_kwh: float,
    kwh_money: float,
    through_l_wk: float,
    water_money: float,
    replaced_l_wk: float,
    cartridges_money: float,
) -> float:
    more = max(0.0, 1 - replaced_l_wk / through_l_wk) if through_l_wk > 0 else 0.0
    return (changer_kwh * kwh_money + through_l_wk / 1000 * water_money) * more + cartridges_money


@step()
def work_week(
    automated_tanks: tuple[Tank, ...],
    tanks: tuple[Tank, ...],
    task_name: tuple[str, ...],
    task_min: tuple[float, ...],
    task_low_min: tuple[float, ...],
    task_high_min: tuple[float, ...],
    times_wk: tuple[float, ...],
    taken_frac: tuple[float, ...],
    upkeep_min: float,
    running_money: float,
    hour_low_money: float,
    hour_money: float,
    hour_high_money: float,
    built_low_money: float,
    built_money: float,
    built_high_money: float,
) -> LabourWeek:
    share = len(automated_tanks) / len(tanks)
    return labour_week(
        tasks=[
            {"task": name, "minutes": minutes, "per_week": times, "count": len(tanks), "share_saved": taken * share}
            for name, minutes, times, taken in zip(
                task_name,
                zip(task_low_min, task_min, task_high_min, strict=True),
                times_wk,
                taken_frac,
                strict=True,
            )
        ],
        upkeep_min_per_week=(upkeep_min / 2, upkeep_min, upkeep_min * 2),
        running_money_per_week=(running_money * RANGE[0], running_money, running_money * RANGE[2]),
        money_per_h=(hour_low_money, hour_money, hour_high_money),
        cost_money=(built_low_money, built_money, built_high_money),
    )


@step()
def automated_tanks(tanks: tuple[Tank, ...]) -> tuple[Tank, ...]:
    return tuple(tank for tank in tanks if tank.zone)


@figure("Hours a week by hand", formula="sum of minutes, of {work_week}", source="practice", kind="hours")
def hours_before(work_week: LabourWeek) -> float:
    return work_week.hours_before[1]


@figure(
    "Hours a week with the changer",
    formula="what it leaves, and its upkeep, of {work_week}",
    source="practice",
    kind="hours",
)
def hours_after(work_week: LabourWeek) -> float:
    return work_week.hours_after[1]


@figure("Minutes a tank and week", formula="{hours_after} × 60 ÷ {tank_number}", source="practice")
def tank_work_min(hours_after: float, tank_number: float) -> float:
    return hours_after * 60 / tank_number


@figure("Gained a week", formula="hours saved × {hour_money} − {running_money}, of {work_week}", source="balance")
def gained_money(work_week: LabourWeek, hour_money: float, running_money: float) -> float:
    return work_week.gain_per_week[1]


@check("It pays for itself", stage="hours", judges="gained_money")
def pays_back(work_week: LabourWeek, automated_tanks: tuple[Tank, ...]) -> Verdict:
    if not automated_tanks:
        raise NamedCase("no_zones")
    weeks = work_week.payback_weeks
    saved = Term(work_week.hours_saved[1], "hours")
    if weeks["likely"] is None:
        text = "It saves {saved} a week and costs more to run than they are worth: it is built for the animals, or not at all."
        return Verdict("tight", 0.0, say("never"), say(text, saved=saved))
    worst = f"{weeks['worst'] / 52:.1f} years" if weeks["worst"] else "never"
    text = "It saves {saved} a week and has paid for itself in {likely} weeks; at best {best}, at worst {worst}."
    terms = {"likely": f"{weeks['likely']:.0f}", "best": f"{weeks['best'] or 0:.0f}", "worst": worst}
    return Verdict("holds", 1.0, say("in {n} weeks", n=terms["likely"]), say(text, saved=saved, **terms))


@step()
def hours_result(hours_before: float, hours_after: float, running_money: float) -> Sentence:
    return say(
        "{before} of work a week by hand, {after} with the changer, which costs {money} a week to run in winter.",
        before=of(hours_before, "hours_before", "hours"),
        after=of(hours_after, "hours_after", "hours"),
        money=of(running_money, "running_money"),
    )
