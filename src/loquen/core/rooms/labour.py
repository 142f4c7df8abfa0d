"""Hours of work with and without a changer, and when it has paid for itself."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from loquen.core.physics.ranges import within

Ranged = tuple[float, float, float]
"""Low, likely, high."""
LOW, LIKELY, HIGH = range(3)


@dataclass(frozen=True, slots=True)
class LabourWeek:
    """Hours a week as (low, likely, high), money gained a week likewise, weeks to pay back (None: never)."""

    hours_before: Ranged
    hours_after: Ranged
    hours_saved: Ranged
    gain_per_week: Ranged
    payback_weeks: dict[str, float | None]


def labour_week(
    *,
    tasks: Sequence[Mapping[str, Any]],
    upkeep_min_per_week: Ranged,
    running_money_per_week: Ranged,
    money_per_h: Ranged,
    cost_money: Ranged,
) -> LabourWeek:
    """What a changer saves in a week.

    Equation: hours = Σ minutes × times × count/60; saved = Σ hours × share saved − upkeep; gain = saved × money −
        running; pay-back = cost/gain. Low gain: little saved, much upkeep, cheap hours, dear running; worst pay-back: that
        and a dear changer
    Parameters:
        tasks: {"task", "minutes" (low, likely, high), "per_week", "count", "share_saved" 0 to 1}.
        upkeep_min_per_week: min, (low, likely, high), each 0 to 10080. That the changer asks for itself.
        running_money_per_week: money, (low, likely, high), each 0 to 1e6. Water, power, cartridges.
        money_per_h: money, (low, likely, high), each 0 to 1e6. What an hour is worth.
        cost_money: money, (low, likely, high), each 0 to 1e9. Of the changer.
    Returns: LabourWeek.
    Raises: OutOfRange.
    Source: balance
    """
    for name, ranged, most in [
        ("upkeep_min_per_week", upkeep_min_per_week, 10_080),
        ("running_money_per_week", running_money_per_week, 1e6),
        ("money_per_h", money_per_h, 1e6),
        ("cost_money", cost_money, 1e9),
    ]:
        for value in ranged:
            within(name, value, 0, most, "")
    for task in tasks:
        within("share_saved", task["share_saved"], 0, 1, "share")
    before = three(lambda i: sum(hours_of(task, i) for task in tasks))
    freed = three(lambda i: sum(hours_of(task, i) * task["share_saved"] for task in tasks))
    upkeep = three(lambda i: upkeep_min_per_week[i] / 60)
    turned = (HIGH, LIKELY, LOW)
    saved = three(lambda i: freed[i] - upkeep[turned[i]])
    gain = three(lambda i: saved[i] * money_per_h[i] - running_money_per_week[turned[i]])
    pays = three(lambda i: cost_money[turned[i]] / gain[i] if gain[i] > 0 else None)
    return LabourWeek(
        hours_before=before,
        hours_after=three(lambda i: before[i] - freed[i] + upkeep[i]),
        hours_saved=saved,
        gain_per_week=gain,
        payback_weeks=dict(zip(("worst", "likely", "best"), pays, strict=True)),
    )


def three(made: Any) -> Any:
    """Low, likely, high of something made from its place among them."""
    return tuple(made(i) for i in (LOW, LIKELY, HIGH))


def hours_of(task: Mapping[str, Any], at: int) -> float:
    """Hours a week of a task, before anything is saved."""
    minutes: float = task["minutes"][at]
    within("minutes", minutes, 0, 10_080, "min")
    return minutes * float(task["per_week"]) * float(task["count"]) / 60
