"""A week's rota for one system: on which day each group is given which food, and how much of it."""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from typing import get_args

from loquen.core.feeding.foods import GREEN_FRAC, at_hand, suitable, why_none
from loquen.core.feeding.means import how
from loquen.core.graph.asking import number
from loquen.core.graph.nodes import State
from loquen.core.graph.sheet import Sheet
from loquen.core.library.rows.animals import Species
from loquen.core.library.rows.keeping import Food
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.parts.running import Weekday
from loquen.core.model.records.feeding import Larder
from loquen.core.model.roots.plan import Plan

WEEK: tuple[Weekday, ...] = get_args(Weekday)
MOST_KINDS = 3
"""Foods that alternate for one group, beside hard and green ones."""
PROTEIN_NEAR = 0.08
"""Of the week's protein off what a kind wants, before it is told."""


@dataclass(frozen=True, slots=True)
class Meal:
    """What a group is given on one day in all, weighed as it is given; pieces where it comes in pieces."""

    day: Weekday
    food: Food
    grams: float
    pieces: float | None
    meals: int

    @property
    def dry_g(self) -> float:
        return self.grams * self.food.dry_frac


@dataclass(frozen=True, slots=True)
class Fed:
    """One group's week: meals on its days with food, or why there are none."""

    place: int
    kind: Species
    count: int
    meals: tuple[Meal, ...]
    dry_g_wk: float
    protein_frac: float
    plant_frac: float
    state: State
    told: tuple[Sentence, ...]
    how: tuple[Sentence, ...] = ()
    """How it is given, where a pinch at the surface does not feed them."""


@dataclass(frozen=True, slots=True)
class Rota:
    """The week of a system: by group, and what to mind between groups."""

    fed: tuple[Fed, ...]
    state: State
    minds: tuple[Sentence, ...]

    def on(self, day: Weekday) -> list[tuple[Fed, Meal]]:
        """What is given on a day, group by group."""
        return [(row, meal) for row in self.fed for meal in row.meals if meal.day == day]

    @property
    def protein(self) -> dict[int, float]:
        """Protein of the week's dry food, by the group's place in the plan."""
        return {row.place: row.protein_frac for row in self.fed if row.meals}


def rota(sheet: Sheet[Plan], larder: Larder, part: float = 1.0) -> Rota:
    """The week of a system from what is at hand: the dry food of its balance, times a part that what was left tells.

    Every day with food has the group's dry ration; grams as given are that over the food's dry matter, so that a week's
    sum is the balance's own. Hard days and green days are spread over the week, the rest alternates between the foods
    nearest to the kind's protein.
    """
    foods, groups = at_hand(larder, sheet.library), sheet.root.animals
    kinds = [sheet.library.species[group.species] for group in groups]
    above = any(kind.level != "bottom" for kind in kinds)
    rows = []
    for place, (group, kind) in enumerate(zip(groups, kinds, strict=True)):
        length = number(sheet, f"animals.{place}.length_now_cm") or kind.adult_length_cm
        ration = part * (number(sheet, f"animals.{place}.feed_now_g_d") or 0.0)
        ration /= sheet.value(f"animals.{place}.fed_frac")
        days = days_with_food(group.fasting_d_wk, sheet.root.changes.there)
        fit = suitable(foods, kind, length, not above, sheet.library)
        chosen = chosen_foods(fit, kind, len(days), sheet.library)
        meals = tuple(
            meal(day, food, ration, group.meals_d) for day, food in zip(days, chosen, strict=bool(chosen))
        )
        missing = () if fit else (why_none(foods, kind, length, not above, sheet.library),)
        row = fed(place, kind, group.number, meals, missing, sheet.library)
        mass = number(sheet, f"animals.{place}.mass_now_g") or 0.0
        given = {meal.food.key: (meal.food, meal.pieces) for meal in meals}
        rows.append(replace(row, how=tuple(how(kind, length, mass, len(meals), tuple(given.values())))))
    minds = tuple(minding(rows, sheet.library))
    order: tuple[State, ...] = ("short", "tight", "holds")
    states: list[State] = [row.state for row in rows] + (["tight"] if minds else [])
    return Rota(tuple(rows), min(states, key=order.index, default="holds"), minds)


def days_with_food(fasting: int, there: Sequence[Weekday]) -> list[Weekday]:
    """The days with food: those without are days on which nobody is there, the rest as far apart as can be."""
    without = [day for day in WEEK if day not in there][:fasting]
    spread = [WEEK[round(turn * 7 / fasting) % 7] for turn in range(fasting)] if fasting else []
    for day in [*spread, *WEEK]:
        if len(without) < fasting and day not in without:
            without.append(day)
    return [day for day in WEEK if day not in without]


def meal(day: Weekday, food: Food, dry_g: float, meals: int) -> Meal:
    grams = dry_g / food.dry_frac
    return Meal(day, food, grams, grams / food.piece_g if food.piece_g else None, meals)


def chosen_foods(fit: Sequence[Food], kind: Species, days: int, library: Library) -> list[Food]:
    """A food for each day with food; empty where none suits."""
    if not fit or not days:
        return []
    hard = sorted((food for food in fit if food.hard), key=lambda food: nearness(food, kind))
    green = varied((food for food in fit if food.plant_frac >= GREEN_FRAC), kind)
    soft = varied((food for food in fit if food.plant_frac < GREEN_FRAC and not food.hard), kind)
    wants_hard = library.hard_foods[kind.family].hard_d_wk if kind.family in library.hard_foods else 0
    hard_days = min(days, wants_hard) if hard else 0
    green_days = days_of_green(green, soft, kind, days - hard_days, library)
    found: list[Food | None] = [None] * days
    place(found, hard[:1], hard_days)
    place(found, green, green_days)
    place(found, soft or green or hard, found.count(None))
    return [food for food in found if food is not None]


def varied(foods: Iterable[Food], kind: Species) -> list[Food]:
    """Foods in the order in which they alternate: the nearest every other time, between it those of other forms."""
    rows = sorted(foods, key=lambda food: nearness(food, kind))
    forms = {food.form: food for food in reversed(rows)}
    kinds = sorted(forms.values(), key=lambda food: nearness(food, kind))
    kinds += [food for food in rows if food not in kinds]
    kinds = kinds[:MOST_KINDS]
    return [kinds[0], kinds[1], kinds[0], kinds[2]] if len(kinds) == MOST_KINDS else kinds


def nearness(food: Food, kind: Species) -> tuple[bool, float]:
    """How near its protein is to what a kind wants: what is richer comes after what is as far below."""
    off = food.protein_frac - kind.protein_frac
    return food.form == food.key, abs(off) + (0.02 if off > 0 else 0.0)


def days_of_green(green: Sequence[Food], soft: Sequence[Food], kind: Species, days: int, library: Library) -> int:
    """On how many days a green food is given: within the plants that the kind thrives on, so that protein comes nearest."""
    if not green or not soft or days <= 0:
        return days if green else 0
    diet = library.diets[kind.feeds_on]

    def missed(count: int) -> tuple[float, float]:
        share = count / days
        plant = share * mean([food.plant_frac for food in green]) + (1 - share) * mean(
            [food.plant_frac for food in soft]
        )
        protein = share * mean([food.protein_frac for food in green]) + (1 - share) * mean(
            [food.protein_frac for food in soft]
        )
        outside = max(0.0, diet.plant_low_frac - plant, plant - diet.plant_high_frac)
        return round(outside, 6), abs(protein - kind.protein_frac)

    return min(range(days + 1), key=missed)


def mean(values: Sequence[float]) -> float:
    return sum(values) / len(values)


def place(found: list[Food | None], foods: Sequence[Food], count: int) -> None:
    """Put foods in turn on so many of the days that are free, as far apart as can be."""
    free = [at for at, food in enumerate(found) if food is None]
    if not foods or not free:
        return
    for turn in range(min(count, len(free))):
        found[free[turn * len(free) // count]] = foods[turn % len(foods)]


def fed(
    place: int, kind: Species, count: int, meals: tuple[Meal, ...], missing: tuple[Sentence, ...], library: Library
) -> Fed:
    """A group's week with what is to be said of it."""
    dry = sum(row.dry_g for row in meals)
    protein = sum(row.dry_g * row.food.protein_frac for row in meals) / dry if dry else 0.0
    plant = sum(row.dry_g * row.food.plant_frac for row in meals) / dry if dry else 0.0
    told = [*missing, *(told_of(kind, meals, protein, plant, library) if meals else ())]
    state: State = "short" if missing else "tight" if told else "holds"
    return Fed(place, kind, count, meals, dry, protein, plant, state, tuple(told))


def told_of(
    kind: Species, meals: Sequence[Meal], protein: float, plant: float, library: Library
) -> Iterable[Sentence]:
    """What a week lacks: protein, plants, something hard."""
    diet = library.diets[kind.feeds_on]
    terms: dict[str, Term | str] = {
        "who": kind.common,
        "protein": Term(protein, "share"),
        "wanted": Term(kind.protein_frac, "share"),
        "plant": Term(plant, "share"),
        "low": Term(diet.plant_low_frac, "share"),
        "high": Term(diet.plant_high_frac, "share"),
    }
    if protein < kind.protein_frac - PROTEIN_NEAR:
        yield say("{who}: {protein} of the dry food is protein, they want {wanted}.", **terms)
    elif protein > kind.protein_frac + max(PROTEIN_NEAR, diet.protein_over_frac / 2):
        yield say("{who}: {protein} of the dry food is protein, richer than the {wanted} they want.", **terms)
    if plant < diet.plant_low_frac - 1e-9:
        yield say("{who}: {plant} of it is plant, at least {low} is wanted.", **terms)
    elif plant > diet.plant_high_frac + 1e-9:
        yield say("{who}: {plant} of it is plant, {high} is the most they thrive on.", **terms)
    wants = library.hard_foods[kind.family].hard_d_wk if kind.family in library.hard_foods else 0
    given = sum(row.food.hard for row in meals)
    if given < min(wants, len(meals)):
        yield say(
            "{who}: their teeth want something hard on {days} days a week; nothing hard at hand suits.",
            who=kind.common,
            days=str(wants),
        )


def minding(rows: Sequence[Fed], library: Library) -> Iterable[Sentence]:
    """What to mind between groups: who feeds below others, and grazers beside meat."""
    fed_rows = [row for row in rows if row.meals]
    above = [row for row in fed_rows if row.kind.level != "bottom"]
    below = [row for row in fed_rows if row.kind.level == "bottom"]
    if above and below:
        sinks = sum(meal.dry_g for row in below for meal in row.meals)
        whole = sum(meal.dry_g for row in fed_rows for meal in row.meals)
        yield say(
            "{who} feed at the bottom, below others: what sinks, {share} of the week’s dry food, goes in last, after dark or "
            "at the other end.",
            who=names(below),
            share=Term(sinks / whole, "share"),
        )
    grazers = [row for row in fed_rows if row.kind.feeds_on == "herbivore"]
    rich = [
        row
        for row in fed_rows
        for meal in row.meals
        if row not in grazers
        and meal.food.plant_frac < GREEN_FRAC
        and any(over(meal.food, one.kind, library) for one in grazers)
    ]
    if grazers and rich:
        yield say(
            "{grazers} graze: the rich food of {others} makes them fat and ill. Give the green first, and the rest where they "
            "do not reach it.",
            grazers=names(grazers),
            others=names(rich),
        )


def over(food: Food, kind: Species, library: Library) -> bool:
    return food.protein_frac > kind.protein_frac + library.diets[kind.feeds_on].protein_over_frac


def names(rows: Iterable[Fed]) -> str:
    return ", ".join(dict.fromkeys(row.kind.common for row in rows))


def week_of_foods(rotas: Iterable[Rota]) -> dict[str, tuple[Food, float]]:
    """Grams of each food that some systems are given in a week, by its key."""
    grams: dict[str, float] = defaultdict(float)
    foods: dict[str, Food] = {}
    for one in rotas:
        for row in one.fed:
            for meal in row.meals:
                grams[meal.food.key] += meal.grams
                foods[meal.food.key] = meal.food
    return {key: (foods[key], grams[key]) for key in grams}
