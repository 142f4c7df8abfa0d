"""Food, each day with food."""

from collections.abc import Iterator

from loquen.core.data.tables import constants
from loquen.core.events.kinds import keeping
from loquen.core.events.kinds.keeping import Noted
from loquen.core.feeding.rota import Fed, Meal, Rota, days_with_food
from loquen.core.graph.asking import number
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.running import Weekday
from loquen.core.model.roots.phase import animals_in
from loquen.core.model.roots.plan import Plan
from loquen.core.routine.duty import ROTA, Duty
from loquen.core.routine.recurring import WEEK, Rhythm

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
            event=Noted("calcium offered"),
            caution=VET,
        )


def rota_duties(sheet: Sheet[Plan], week: Rota) -> Iterator[Duty]:
    """One duty for all days of a rota on which the same is given; none for who has no food at hand."""
    days: dict[tuple[tuple[int, str], ...], list[Weekday]] = {}
    for day in WEEK:
        given = tuple((row.place, meal.food.key) for row, meal in week.on(day))
        if given:
            days.setdefault(given, []).append(day)
    for place, weekdays in enumerate(days.values()):
        rows = week.on(weekdays[0])
        carriers = any(row.kind.shape in CARRY_SALMONELLA for row, _ in rows)
        yield Duty(
            key=f"{ROTA}{place}",
            kind="feed",
            words=say(
                "Feed {foods}, {amount} in {meals}.",
                foods=", ".join(dict.fromkeys(meal.food.label for _, meal in rows)),
                amount=Term(sum(meal.grams for _, meal in rows), "small_mass"),
                meals=meals_words(max(meal.meals for _, meal in rows)),
            ),
            why=say(
                "The week’s rota: {dry} of dry food a day on the mean, {waste} of waste.",
                dry=of(sheet.value("feed_total_g_d"), "feed_total_g_d"),
                waste=of(sheet.value("load_now_mg_d"), "load_now_mg_d"),
            ),
            rhythm=Rhythm(weekdays=tuple(weekdays)),
            minutes=constants("routine.toml")["feeding_min"].value * min(max(meal.meals for _, meal in rows), 3),
            steps=(*(meal_words(row, meal) for row, meal in rows), *(step for row, _ in rows for step in row.how)),
            event=keeping.Fed(round(sum(meal.grams for _, meal in rows), 3)),
            caution=HANDS if carriers else "",
        )


def meal_words(row: Fed, meal: Meal) -> Sentence:
    """What one group is given on a day, in pieces where it comes in pieces."""
    text = "{who}: {amount} of {food} in {meals}"
    if meal.pieces is not None:
        text = "{who}: {amount} of {food}, pieces: {pieces}, in {meals}"
    return say(
        text,
        who=row.kind.common,
        amount=Term(meal.grams, "small_mass"),
        food=meal.food.label,
        pieces=Term(round(meal.pieces, 1) if meal.pieces is not None else 0, "ratio"),
        meals=meals_words(meal.meals),
    )


def shape_of(sheet: Sheet[Plan], place: int) -> str:
    shape: str = sheet.value(f"animals.{place}.animal").shape
    return shape


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
        rhythm=Rhythm(weekdays=tuple(days_with_food(fasting, sheet.root.changes.there))),
        minutes=constants("routine.toml")["feeding_min"].value * min(max(group.meals_d for _, group in rows), 3),
        steps=tuple(steps),
        event=keeping.Fed(round(total, 3)),
        caution=HANDS if any(shape_of(sheet, i) in CARRY_SALMONELLA for i, _ in rows) else "",
    )


def meals_words(count: int) -> str:
    return "one meal" if count == 1 else f"{count} meals"
