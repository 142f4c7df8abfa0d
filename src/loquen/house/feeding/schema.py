"""Feeding on the wire."""

from dataclasses import dataclass

from pydantic import Field

from loquen.checked.days import IsoDay
from loquen.checked.plan import Strict, mirror
from loquen.core.feeding.cultures import Grown
from loquen.core.graph.nodes import State
from loquen.core.library.rows.keeping import Food
from loquen.core.model.inputs.quantity import Sentence
from loquen.core.model.parts.running import Weekday
from loquen.core.model.records.feeding import Larder
from loquen.house.sheet.drawing import Section

LarderSchema = mirror(Larder)


@dataclass(frozen=True, slots=True)
class DayMeal:
    """What a group is given on a day."""

    day: Weekday
    food: str
    label: str
    grams: float
    pieces: float | None
    meals: int
    hard: bool
    coloured: bool


@dataclass(frozen=True, slots=True)
class GroupWeek:
    """A group's week, and what it lacks."""

    common: str
    count: int
    state: State
    dry_g_wk: float
    protein_frac: float
    wanted_frac: float
    plant_frac: float
    meals: tuple[DayMeal, ...]
    told: tuple[Sentence, ...]
    how: tuple[Sentence, ...]


@dataclass(frozen=True, slots=True)
class AsFed:
    """What the log says of the last weeks: meals by what was left, and grams against the rota's."""

    part: float
    meals: dict[str, int]
    days: int
    of_rota: float | None


@dataclass(frozen=True, slots=True)
class SystemWeek:
    """The rota of one system."""

    system_id: int
    name: str
    revision: int
    section: Section | None
    state: State
    minds: tuple[Sentence, ...]
    groups: tuple[GroupWeek, ...]
    fed: AsFed
    same: bool
    """Whether the plan reckons with just this food."""


@dataclass(frozen=True, slots=True)
class MixOut:
    """A mix as a food."""

    name: str
    dry_frac: float
    protein_frac: float
    plant_frac: float


@dataclass(frozen=True, slots=True)
class WeekFood:
    """A food, whether it is at hand, and how much of it all rotas want in a week."""

    food: Food
    here: bool
    grams_wk: float


@dataclass(frozen=True, slots=True)
class Fodder:
    """Feeding of the whole house."""

    result: Sentence
    larder: LarderSchema  # type: ignore[valid-type]
    foods: list[WeekFood]
    mixes: list[MixOut]
    cultures: list[Grown]
    kinds_of_culture: dict[str, str]
    systems: list[SystemWeek]


class TakeFood(Strict):
    """The plan's revision that the rota's food is put into."""

    base: int = Field(ge=0)
    today: IsoDay
