"""What is used up, by the plans' own numbers: how much a week, when it runs out, when to order; and spares to keep."""

import math
from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import date, timedelta

from loquen.core.data.measures import measures
from loquen.core.data.minerals import mineral_salts
from loquen.core.feeding.rota import Rota, week_of_foods
from loquen.core.graph.asking import number
from loquen.core.graph.sheet import Sheet
from loquen.core.model.roots.phase import animals_in
from loquen.core.model.roots.plan import Plan
from loquen.core.routine.duty import Duty
from loquen.core.system.build.buying import parts

DAYS_PER_WEEK = 7
LONGEST_D = 3650
CONDITIONER, SALT = "conditioner", "salt"


@dataclass(frozen=True, slots=True)
class Use:
    """Something that is used up: its words, the kind of quantity it is counted in, and how much a week."""

    key: str
    label: str
    kind: str
    a_week: float


@dataclass(frozen=True, slots=True)
class Spare:
    """A part whose failure can not wait: how many of it are in use, and how many to keep beside."""

    label: str
    in_use: int
    keep: int


@dataclass(frozen=True, slots=True)
class Stock:
    """What was counted of something on a day, and how long an order takes."""

    amount: float
    counted: date
    lead_d: int


@dataclass(frozen=True, slots=True)
class RunsOut:
    """How much should be left today, when it is used up, and by when to order."""

    left: float
    on: date | None
    order_by: date | None


def uses_of(sheet: Sheet[Plan], duties: Iterable[Duty]) -> list[Use]:
    """What one system uses up in a week: food, conditioner, salts, readings, carbon."""
    return [*food(sheet), *water(sheet), *from_duties(sheet, duties)]


def food(sheet: Sheet[Plan]) -> list[Use]:
    """Each kind of food as it is given, over the week's days with food."""
    found: dict[str, float] = defaultdict(float)
    if not animals_in(sheet.root):
        return []
    for i, group in enumerate(sheet.root.animals):
        meal = number(sheet, f"animals.{i}.meal_g") or 0.0
        found[group.food] += meal * group.meals_d * (DAYS_PER_WEEK - group.fasting_d_wk)
    foods = sheet.library.foods
    return [
        Use(f"food.{key}", f"{foods[key].label.capitalize()} food", "small_mass", grams)
        for key, grams in found.items()
        if grams
    ]


def foods_of(week: Rota) -> list[Use]:
    """Each food of a rota, as it is given over the week."""
    return [
        Use(f"food.{key}", food.label.capitalize(), "small_mass", grams)
        for key, (food, grams) in week_of_foods([week]).items()
    ]


def water(sheet: Sheet[Plan]) -> list[Use]:
    """Conditioner and salts of the changes; conditioner for what is topped up too."""
    each, weekly = number(sheet, "change_l"), number(sheet, "change_l_wk")
    changes = weekly / each if each and weekly else 0.0
    recipe, salts = sheet.root.recipe, mineral_salts()
    conditioner = (number(sheet, "dose_ml") or 0.0) * changes + (number(sheet, "topup_dose_ml") or 0.0)
    rows = [
        Use(CONDITIONER, "Conditioner", "dose", conditioner),
        Use(SALT, "Salt", "small_mass", (number(sheet, "change_salt_g") or 0.0) * changes),
    ]
    for key, salt in (
        ("calcium_g", recipe.calcium_salt),
        ("magnesium_g", recipe.magnesium_salt),
        ("carbonate_g", recipe.carbonate_salt),
    ):
        rows.append(Use(f"salt.{salt}", salts[salt].label, "small_mass", (number(sheet, key) or 0.0) * changes))
    return [row for row in rows if row.a_week > 0]


def from_duties(sheet: Sheet[Plan], duties: Iterable[Duty]) -> list[Use]:
    """Readings, and the carbon of a cartridge by how long it lasts."""
    found = []
    for duty in duties:
        a_week = DAYS_PER_WEEK / duty.rhythm.days
        if duty.measure and duty.measure != "temperature":
            label = f"{measures()[duty.measure].label.split(',')[0]} tests"
            found.append(Use(f"test.{duty.measure}", label, "count", a_week))
        if duty.key == "carbon":
            found.append(Use("carbon", "Carbon", "volume", sheet.root.water.carbon_l * a_week))
    return found


def together(uses: Iterable[Use]) -> list[Use]:
    """The uses of a whole house, each once."""
    found: dict[str, Use] = {}
    for use in uses:
        known = found.get(use.key)
        found[use.key] = Use(use.key, use.label, use.kind, use.a_week + (known.a_week if known else 0.0))
    return sorted(found.values(), key=lambda use: use.label.lower())


def runs_out(use: Use, stock: Stock, today: date) -> RunsOut:
    """When a stock that was counted is used up, and by when to order so that it comes in time."""
    a_day = use.a_week / DAYS_PER_WEEK
    left = max(0.0, stock.amount - a_day * max(0, (today - stock.counted).days))
    days = math.floor(stock.amount / a_day) if a_day else LONGEST_D
    if days >= LONGEST_D:
        return RunsOut(left, None, None)
    on = stock.counted + timedelta(days=days)
    return RunsOut(left, on, on - timedelta(days=stock.lead_d))


def spared_parts(sheet: Sheet[Plan]) -> dict[str, int]:
    """How many of each part that is kept in spare a system has in use."""
    found: dict[str, int] = defaultdict(int)
    for line in parts(sheet):
        if line.spare:
            found[line.label] += math.ceil(line.quantity)
    return dict(found)


def spares(in_use: Iterable[Mapping[str, int]], one_for: int) -> list[Spare]:
    """Spares of a whole house: of each part one for up to so many in use."""
    found: dict[str, int] = defaultdict(int)
    for row in in_use:
        for label, count in row.items():
            found[label] += count
    return [Spare(label, count, math.ceil(count / one_for)) for label, count in sorted(found.items())]
