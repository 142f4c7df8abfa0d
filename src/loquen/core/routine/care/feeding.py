"""Food, each day with food."""

from collections.abc import Iterator

from loquen.core.data.tables import constants
from loquen.core.graph.asking import number
from loquen.core.graph.engine import Sheet
from loquen.core.model.log import Entry
from loquen.core.model.plan import Group, Plan
from loquen.core.model.quantity import Term, of, say
from loquen.core.routine.duty import Duty, animals_in
from loquen.core.routine.recurring import WEEK, Day, Rhythm, spread_weekdays

NEED_CALCIUM = ("turtle",)
CARRY_SALMONELLA = ("turtle", "frog")
HANDS = "Wash your hands afterwards: turtles and frogs carry salmonella."
VET = "A vet decides what they need."


def duties(sheet: Sheet[Plan]) -> Iterator[Duty]:
    """One duty for all that are fed on the same days, and calcium for those that need it."""
    if not animals_in(sheet.root):
        return
    rows = list(enumerate(sheet.root.animals))
    for fasting in sorted({group.fasting_d_wk for _, group in rows}):
        fed = [(i, group) for i, group in rows if group.fasting_d_wk == fasting]
        duty = fed_together(sheet, fasting, fed)
        if duty is not None:
            yield duty
    if any(shape_of(sheet, i) in NEED_CALCIUM for i, _ in rows):
        yield Duty(
            key="calcium",
            kind="feed",
            words=say("Offer calcium: a cuttlebone or block in the water, or dusted food."),
            why=say("Shell and bone take more than most food holds."),
            rhythm=Rhythm(every_d=round(constants("routine.toml")["calcium_d"].value)),
            minutes=constants("routine.toml")["feeding_min"].value,
            entry=Entry("note", note="calcium offered"),
            caution=VET,
        )


def shape_of(sheet: Sheet[Plan], place: int) -> str:
    shape: str = sheet.value(f"animals.{place}.animal").shape
    return shape


def fed_weekdays(fasting: int, there: tuple[Day, ...]) -> tuple[Day, ...]:
    """The days with food: the days without are spread, and moved to days on which nobody is there where there are such."""
    away = [day for day in WEEK if day not in there]
    without: list[Day] = [*away[:fasting]]
    for day in spread_weekdays(fasting) if fasting else ():
        if len(without) < fasting and day not in without:
            without.append(day)
    for day in WEEK:
        if len(without) < fasting and day not in without:
            without.append(day)
    return tuple(day for day in WEEK if day not in without)


def fed_together(sheet: Sheet[Plan], fasting: int, rows: list[tuple[int, Group]]) -> Duty | None:
    """What all with the same fasting days are given in a day: what is weighed out, kind by kind."""
    steps, total, meals = [], 0.0, set()
    for i, group in rows:
        meal = number(sheet, f"animals.{i}.meal_g")
        if not meal:
            continue
        meals.add(group.meals_d)
        total += meal * group.meals_d
        steps.append(
            say(
                "{who}: {amount} of {food} food in {meals}",
                who=sheet.value(f"animals.{i}.animal").common,
                amount=Term(meal * group.meals_d, "small_mass"),
                food=sheet.value(f"animals.{i}.food_row").label,
                meals=meals_words(group.meals_d),
            )
        )
    if not steps:
        return None
    often = meals_words(meals.pop()) if len(meals) == 1 else "the meals each is given"
    return Duty(
        key=f"feed.{fasting}",
        kind="feed",
        words=say("Feed {amount} in {meals}.", amount=Term(total, "small_mass"), meals=often),
        why=say(
            "{dry} of dry food on the week's mean make {waste} of waste.",
            dry=of(sheet.value("feed_total_g_d"), "feed_total_g_d"),
            waste=of(sheet.value("load_now_mg_d"), "load_now_mg_d"),
        ),
        rhythm=Rhythm(weekdays=fed_weekdays(fasting, sheet.root.changes.there)),
        minutes=constants("routine.toml")["feeding_min"].value * min(max(group.meals_d for _, group in rows), 3),
        steps=tuple(steps),
        entry=Entry("feed", amount=round(total, 3)),
        caution=HANDS if any(shape_of(sheet, i) in CARRY_SALMONELLA for i, _ in rows) else "",
    )


def meals_words(count: int) -> str:
    return "one meal" if count == 1 else f"{count} meals"
