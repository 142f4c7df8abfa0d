"""Systems on the wire."""

from dataclasses import dataclass
from datetime import datetime

from pydantic import BaseModel, Field

from loquen.checked.plan import PlanSchema, Strict, TankSchema
from loquen.core.model.inputs.quantity import Sentence
from loquen.core.model.roots.plan import PLAN
from loquen.house.documents.wire import Base
from loquen.house.sheet.answers import Glass
from loquen.house.sheet.drawing import Section
from loquen.store.documents.systems import MOST_ID


@dataclass(frozen=True, slots=True)
class SystemLine:
    """A system in the list: its section, its glasses, its size in a sentence, how much has to be measured or asked; or why
    there are none."""

    id: int
    created: datetime
    revision: int
    name: str
    summary: Sentence
    to_measure: int
    glasses: list[Glass]
    section: Section | None
    readable: bool


@dataclass(frozen=True, slots=True)
class SystemsPart:
    """A part of the list: how many there are and were found, and from which one the next part starts.

    `short` is how many of the found fall short, `to_measure` in how many something has to be measured or asked, None while
    that is not known yet. Headings stand before the line of
    their place in `lines`.
    """

    total: int
    found: int
    short: int | None
    to_measure: int | None
    lines: list[SystemLine]
    headings: dict[int, str]
    next: int | None


class SystemName(BaseModel):
    id: int
    name: str


class RevisionOut(BaseModel):
    """One kept revision of a plan; `why` says why it can not be read, None where it can."""

    number: int
    previous: int | None
    saved: datetime
    why: Sentence | None


class HistoryOut(BaseModel):
    """The newest revisions of a system, the newest first, and how many there are."""

    id: int
    name: str
    current: int
    count: int
    why: Sentence | None
    revisions: list[RevisionOut]


class AnimalsWanted(Strict):
    species: str = Field(max_length=80)
    number: int = Field(ge=1, le=2000)


class StartFromAnimals(Strict):
    name: str = Field(min_length=1, max_length=80)
    animals: list[AnimalsWanted] = Field(min_length=1, max_length=PLAN.limits["animals"])


class NamedPlan(Strict):
    """A plan under a name of its own, beside the system it is a variant of."""

    name: str = Field(min_length=1, max_length=80)
    plan: PlanSchema


class StartFromPlan(Strict):
    """A plan to start a system with, and the variants that stay beside it."""

    plan: PlanSchema
    variants: list[NamedPlan] = Field(default_factory=list, max_length=4)


class StartFromGlass(Strict):
    name: str = Field(min_length=1, max_length=80)
    tank: TankSchema


class PutBack(Base):
    """An earlier revision to save anew on top of the current one."""

    number: int = Field(ge=1, le=MOST_ID)
