"""From larder, plans and logs to rotas."""

from collections import defaultdict
from collections.abc import Callable, Iterable, Mapping
from dataclasses import asdict, dataclass, replace
from datetime import UTC, date, datetime, time, timedelta

from sqlmodel import Session

from loquen.checked import stored
from loquen.checked.stored import or_none, those_read
from loquen.core.errors import NamedCase
from loquen.core.feeding.cultures import grown
from loquen.core.feeding.foods import mixed
from loquen.core.feeding.left import part_after
from loquen.core.feeding.rota import WEEK, Fed, Rota, rota, week_of_foods
from loquen.core.graph.giving_up import heed
from loquen.core.library.rows.keeping import Food
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.records.calendar import moment_in_reach
from loquen.core.model.records.feeding import Larder
from loquen.core.model.records.log import LEFT_WORDS
from loquen.core.model.roots.consistency import conflicts
from loquen.core.model.roots.documents import plain_data
from loquen.core.model.roots.phase import animals_in
from loquen.core.model.roots.plan import Plan
from loquen.core.routine.care.feeding import rota_duties
from loquen.core.routine.consumables import Use, foods_of
from loquen.core.routine.duty import Duty
from loquen.house.feeding.schema import (
    AsFed,
    DayMeal,
    Fodder,
    GroupWeek,
    LarderSchema,
    MixOut,
    SystemWeek,
    WeekFood,
)
from loquen.house.house import Visit
from loquen.house.kept import at_most
from loquen.house.log.deeds import Deeds, Meal, deeds_of
from loquen.house.register.view import MOST_READ, readable
from loquen.house.sheet.drawing import Section, section_of
from loquen.house.sheet.todays import todays_sheet
from loquen.store.documents.systems import Current
from loquen.store.routine import house, quarantine

LOGGED_D = 28
FEWEST_DAYS = 3
"""Days with food in the log before it says how much is fed."""
NEAR = 0.02


@dataclass(frozen=True, slots=True)
class Week:
    """A system's rota at today's size, with what the round and the stock take of it."""

    rota: Rota
    section: Section
    duties: tuple[Duty, ...]
    uses: tuple[Use, ...]


@at_most(600)
def week_of(visit: Visit, plan: Plan, larder: Larder, part: float) -> Week:
    sheet = todays_sheet(visit, plan)
    found = rota(sheet, larder, part)
    return Week(found, section_of(sheet, "length_now_cm"), tuple(rota_duties(sheet, found)), tuple(foods_of(found)))


def read_larder(session: Session) -> Larder:
    """What the house has; an empty larder where nothing was kept."""
    text = house.read(session, house.LARDER)
    return (or_none(text, stored.larder) if text else None) or Larder()


def logged_meals(session: Session, logs: Mapping[int, Deeds], today: date) -> dict[int, list[Meal]]:
    """The meals of the log by system, oldest first, of the last weeks and since their food was last put into the plan."""
    since = fed_since(session)
    first = datetime.combine(today - timedelta(days=LOGGED_D), time(), UTC)
    return {
        system_id: [
            meal if meal.left in LEFT_WORDS else replace(meal, left="")
            for meal in known.meals
            if meal.at >= max(first, since.get(system_id, first))
        ]
        for system_id, known in logs.items()
    }


def fed_since(session: Session) -> dict[int, datetime]:
    """Since when each system's meals are counted, as far as that can be read."""
    kept = house.under(session, house.FED_SINCE).items()
    found = those_read(kept, since_of)
    return {int(key): moment for key, moment in found.items() if key.isdecimal()}


def since_of(text: str) -> datetime:
    """A moment as it was kept; raise ValueError."""
    return moment_in_reach(datetime.fromisoformat(text).astimezone(UTC))


def part_of(meals: Iterable[Meal]) -> float:
    return part_after(row.left for row in meals if row.left)


@at_most(MOST_READ)
def fed_plan(visit: Visit, system: Current) -> Plan | None:
    """A system's plan with animals that are there to be fed; None for any other."""
    plan = readable(visit, system)
    fed = plan is not None and plan.animals and not conflicts(plan, visit.library) and animals_in(plan)
    return plan if fed else None


def feeder(
    visit: Visit, session: Session, logs: Mapping[int, Deeds], today: date
) -> Callable[[Current], Week | None]:
    """What makes the week of a system whose animals are fed from the larder; None for others, and while it is empty."""
    larder = read_larder(session)
    meals = logged_meals(session, logs, today) if larder.foods or larder.mixes else {}
    tubs = quarantine.tubs(session)

    def week(system: Current) -> Week | None:
        if system.id in tubs or not (larder.foods or larder.mixes):
            return None
        heed()
        plan = visit.kept(fed_plan, system)
        if plan is None:
            return None
        try:
            return visit.kept(week_of, plan, larder, part_of(meals.get(system.id, ())))
        except NamedCase:
            return None

    return week


# What a page shows ------------------------------------------------------------------------------


def fodder(visit: Visit, session: Session, known: list[Current], today: date) -> Fodder:
    """The whole house: rotas first, then what is at hand."""
    larder = read_larder(session)
    known_logs = deeds_of(visit, session, [system.id for system in known])
    week_for = feeder(visit, session, known_logs, today)
    weeks = {system.id: week for system in known if (week := week_for(system)) is not None}
    meals = logged_meals(session, known_logs, today)
    rotas = [week.rota for week in weeks.values()]
    wanted = week_of_foods(rotas)
    foods = [food for food in visit.library.foods.values() if food.key != food.form]
    names = {system.id: (readable(visit, system), system.revision) for system in known}
    rows = [
        system_week(visit, number, names[number], week, meals.get(number, []), larder)
        for number, week in weeks.items()
    ]
    return Fodder(
        result=result_of(larder, rows),
        larder=LarderSchema.model_validate(plain_data(asdict(larder))),
        foods=[
            WeekFood(food, food.key in larder.foods, wanted[food.key][1] if food.key in wanted else 0.0)
            for food in foods
        ],
        mixes=[mix_out(mix.name, mixed(mix, visit.library)) for mix in larder.mixes if mix.parts],
        cultures=grown(larder, rotas, visit.library),
        kinds_of_culture={row.key: row.label for row in visit.library.cultures.values()},
        systems=rows,
    )


def mix_out(name: str, food: Food) -> MixOut:
    return MixOut(name, food.dry_frac, food.protein_frac, food.plant_frac)


def result_of(larder: Larder, rows: list[SystemWeek]) -> Sentence:
    """Who lacks something, in a sentence."""
    if not larder.foods and not larder.mixes:
        return say("Say what is at hand: then every system has its week.")
    short = [group for row in rows for group in row.groups if group.state == "short"]
    tight = [group for row in rows for group in row.groups if group.state == "tight"]
    if short:
        return say("Nothing at hand suits {who}.", who=", ".join(dict.fromkeys(group.common for group in short)))
    if tight:
        who = ", ".join(dict.fromkeys(group.common for group in tight))
        return say("Everybody is fed from what is at hand; {who} lack something.", who=who)
    return say("What is at hand feeds all {count} systems as they want it.", count=Term(len(rows), "count"))


def system_week(
    visit: Visit, number: int, known: tuple[Plan | None, int], week: Week, meals: list[Meal], larder: Larder
) -> SystemWeek:
    plan, revision = known
    assert plan is not None
    fed = as_fed(week.rota, meals)
    return SystemWeek(
        system_id=number,
        name=plan.name,
        revision=revision,
        section=week.section,
        state=week.rota.state,
        minds=week.rota.minds,
        groups=tuple(group_week(row) for row in week.rota.fed),
        fed=fed,
        same=plan == with_food(visit, plan, larder, meals),
    )


def group_week(row: Fed) -> GroupWeek:
    return GroupWeek(
        common=row.kind.common,
        count=row.count,
        state=row.state,
        dry_g_wk=row.dry_g_wk,
        protein_frac=row.protein_frac,
        wanted_frac=row.kind.protein_frac,
        plant_frac=row.plant_frac,
        meals=tuple(
            DayMeal(
                meal.day,
                meal.food.key,
                meal.food.label,
                meal.grams,
                meal.pieces,
                meal.meals,
                meal.food.hard,
                meal.food.coloured,
            )
            for meal in row.meals
        ),
        told=row.told,
        how=row.how,
    )


def as_fed(week: Rota, meals: list[Meal]) -> AsFed:
    """Grams of the log against the rota's of the same days, where they were written down."""
    counts = {word: sum(row.left == word for row in meals) for word in LEFT_WORDS}
    by_day: Mapping[date, float] = summed(meals)
    planned = {day: sum(meal.grams for _, meal in week.on(WEEK[day.weekday()])) for day in by_day}
    both = [day for day in by_day if planned[day] > 0]
    of_rota = None
    if len(both) >= FEWEST_DAYS:
        of_rota = sum(by_day[day] for day in both) / sum(planned[day] for day in both)
    return AsFed(part_of(meals), counts, len(both), of_rota)


def summed(meals: Iterable[Meal]) -> dict[date, float]:
    found: dict[date, float] = defaultdict(float)
    for row in meals:
        if row.grams is not None:
            found[row.at.astimezone(UTC).date()] += row.grams
    return dict(found)


def with_food(visit: Visit, plan: Plan, larder: Larder, meals: list[Meal]) -> Plan:
    """The plan with the rota's protein, and as much food as the log says they get: weighed where that is another amount."""
    week = visit.kept(week_of, plan, larder, part_of(meals)).rota
    fed = as_fed(week, meals)
    part = fed.part * (fed.of_rota if fed.of_rota is not None else 1.0)
    sheet = todays_sheet(visit, plan)
    groups = list(plan.animals)
    for row in week.fed:
        if not row.meals:
            continue
        group = replace(groups[row.place], food_protein_frac=round(row.protein_frac, 3))
        if abs(part - 1) > NEAR:
            at = f"animals.{row.place}."
            ration = sheet.value(at + "feed_now_g_d") / sheet.value(at + "fed_frac")
            grams = part * ration / sheet.value(at + "food_row").dry_frac
            group = replace(group, feed_by="weighed", weighed_g_d=float(f"{grams:.3g}"))
        groups[row.place] = group
    return replace(plan, animals=tuple(groups))
