"""What a missed day costs, by the plan's own numbers."""

import math
from dataclasses import dataclass, replace
from datetime import date, timedelta

from loquen.core.data.tables import constants
from loquen.core.graph.asking import number
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.roots.plan import Plan
from loquen.core.routine.due import Due

REPTILES = ("turtle", "frog", "salamander")
LONG_D = 120


@dataclass(frozen=True, slots=True)
class Ahead:
    """How nitrate goes on without a change, and how long the animals go without food."""

    after_change_mg_l: float | None
    rise_mg_l_d: float | None
    most_mg_l: float
    new_mg_l: float
    swapped_frac: float
    planned_gap_d: float
    fast_d: int
    fasting: str
    """Who of them goes without food for the shortest time."""


def ahead_of(sheet: Sheet[Plan]) -> Ahead:
    gaps = sheet.look("gaps_d")
    fast, who = fast_of(sheet)
    return Ahead(
        after_change_mg_l=number(sheet, "trough_nitrate_mg_l"),
        rise_mg_l_d=number(sheet, "rise_nitrate_mg_l_d"),
        most_mg_l=sheet.root.changes.target_nitrate_mg_l,
        new_mg_l=number(sheet, "new_nitrate_mg_l") or 0.0,
        swapped_frac=number(sheet, "swapped_frac") or 0.0,
        planned_gap_d=max(gaps) if isinstance(gaps, tuple) and gaps else 7.0,
        fast_d=fast,
        fasting=who,
    )


@dataclass(frozen=True, slots=True)
class NitrateRead:
    """Where nitrate was last read, mg/L N; whether that was before the day's change."""

    level: float
    day: date
    before_change: bool


def as_read(ahead: Ahead, read: NitrateRead, changed: date) -> Ahead:
    """The same from the last reading, which goes before what the plan reckons stands after a change."""
    if ahead.rise_mg_l_d is None:
        return ahead
    if read.day > changed or (read.day == changed and not read.before_change):
        after = read.level - ahead.rise_mg_l_d * (read.day - changed).days
    else:
        stood = read.level + ahead.rise_mg_l_d * (changed - read.day).days
        after = stood + ahead.swapped_frac * (ahead.new_mg_l - stood)
    return replace(ahead, after_change_mg_l=max(0.0, after))


def fast_of(sheet: Sheet[Plan]) -> tuple[int, str]:
    """Days that the least patient aboard go without food, and who they are."""
    table = constants("routine.toml")
    found = []
    for i in range(len(sheet.root.animals)):
        kind = sheet.value(f"animals.{i}.animal")
        young = sheet.value(f"animals.{i}.length_now_cm") < table["grown_frac"].value * kind.adult_length_cm
        which = "young" if young else "reptile" if kind.shape in REPTILES else "grown"
        found.append((round(table[f"fast_{which}_d"].value), kind.common))
    return min(found) if found else (LONG_D, "")


def nitrate_on(ahead: Ahead, changed: date, day: date) -> float | None:
    """Nitrate (mg/L N) on a day, when water was last changed on another."""
    if ahead.after_change_mg_l is None or ahead.rise_mg_l_d is None:
        return None
    return ahead.after_change_mg_l + ahead.rise_mg_l_d * (day - changed).days


def passes_on(ahead: Ahead, changed: date) -> date | None:
    """The day on which nitrate passes its limit without another change; None where it does not within months."""
    if ahead.after_change_mg_l is None or not ahead.rise_mg_l_d or ahead.rise_mg_l_d <= 0:
        return None
    days = math.ceil((ahead.most_mg_l - ahead.after_change_mg_l) / ahead.rise_mg_l_d)
    return changed + timedelta(days=max(0, days)) if days <= LONG_D else None


def day_words(day: date, today: date) -> str:
    """A day as one says it: within a week by its weekday."""
    apart = (day - today).days
    near = {0: "today", 1: "tomorrow", -1: "yesterday"}
    if apart in near:
        return near[apart]
    return day.strftime("%A") if 0 < apart < 7 else f"{day.day} {day.strftime('%B')}"


def cost(due: Due, ahead: Ahead, changed: date | None, last: date | None, today: date) -> Sentence | None:
    """What waiting does; None where it does nothing that a number says."""
    if due.duty.key == "change":
        since = changed or due.day - timedelta(days=round(ahead.planned_gap_d))
        return nitrate_cost(ahead, since, today)
    if due.duty.kind == "feed" and due.duty.key != "calcium" and last is not None:
        return hunger(ahead, last, today)
    if due.duty.kind == "read" and last is not None and due.late_d > 0:
        return say("last read {days} ago", days=Term((today - last).days, "days"))
    return None


def nitrate_cost(ahead: Ahead, changed: date, today: date) -> Sentence | None:
    day = passes_on(ahead, changed)
    if day is None:
        return None
    most = Term(ahead.most_mg_l, "nitrate")
    if day <= today:
        now = nitrate_on(ahead, changed, today)
        return say("nitrate is past {most}, near {now}", most=most, now=Term(now or 0.0, "nitrate"))
    return say("nitrate passes {most} {on}", most=most, on=with_on(day_words(day, today)))


def with_on(words: str) -> str:
    return words if words in ("today", "tomorrow", "yesterday") else f"on {words}"


def hunger(ahead: Ahead, last: date, today: date) -> Sentence | None:
    """How long they have been without food, once that is longer than they go without."""
    without = (today - last).days
    if without <= ahead.fast_d:
        return None
    days, most = Term(without, "days"), Term(ahead.fast_d, "days")
    return say("{days} without food; {who} goes {most} at most", days=days, who=ahead.fasting, most=most)
