"""The register on the wire."""

from dataclasses import dataclass
from datetime import date
from typing import Annotated

from pydantic import Field

from loquen.checked.days import IsoDay
from loquen.checked.plan import Strict, mirror
from loquen.core.model.inputs.quantity import Sentence
from loquen.core.model.records.register import LifeLine, Resident
from loquen.core.register.growth import GrowthPoint
from loquen.core.register.homes import Differs, OtherHome, OutgrowsOn
from loquen.house.sheet.drawing import Section

ResidentSchema = mirror(Resident)
LifeLineSchema = mirror(LifeLine)


@dataclass(frozen=True, slots=True)
class HappenedOut:
    """Something that happened, with its number."""

    id: int
    happened: LifeLineSchema  # type: ignore[valid-type]


@dataclass(frozen=True, slots=True)
class ResidentOut:
    """A resident today: how many live here, how long they are and how that is known, and their life line."""

    id: int
    resident: ResidentSchema  # type: ignore[valid-type]
    common: str
    here: int
    alive: int
    males: int | None
    length_cm: float
    adult_cm: float
    known_by: str
    pace: float | None
    expected_cm: float | None
    since: date | None
    notes: tuple[Sentence, ...]
    happened: tuple[HappenedOut, ...]
    course: tuple[GrowthPoint, ...]


@dataclass(frozen=True, slots=True)
class Home:
    """A system as it lives: its residents, drawn at today's size and full grown, and what differs from its plan."""

    system_id: int
    name: str
    revision: int
    today: Section | None
    grown: Section | None
    residents: tuple[ResidentOut, ...]
    planned: int
    lives: int
    follows: bool
    """Whether the plan has just the animals that live here."""
    differs: tuple[Differs, ...]
    outgrows: tuple[OutgrowsOn, ...]


@dataclass(frozen=True, slots=True)
class SurvivedOut:
    source: str
    came: int
    died: int
    frac: float


@dataclass(frozen=True, slots=True)
class Register:
    """Everybody, by home; who is gone; and how many of each source live on."""

    result: Sentence
    homes: list[Home]
    gone: list[ResidentOut]
    homeless: list[ResidentOut]
    """Alive in a system that was deleted."""
    survival: list[SurvivedOut]


@dataclass(frozen=True, slots=True)
class NamedPlace:
    """A place that some animals could go to, with its name."""

    name: str
    place: OtherHome


@dataclass(frozen=True, slots=True)
class Places:
    places: list[NamedPlace]


@dataclass(frozen=True, slots=True)
class Written:
    """What was written down, and what a system's checks say to it where it is a move."""

    resident_id: int
    happened_id: int
    told: Sentence | None


@dataclass(frozen=True, slots=True)
class Card:
    """What to look at before an animal of a group is bought."""

    key: str
    label: str
    look: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Cards:
    cards: list[Card]


class ResidentIn(Strict):
    """Somebody new, with what happened first; today where the person is."""

    today: IsoDay
    resident: ResidentSchema  # type: ignore[valid-type]
    happened: list[LifeLineSchema] = Field(min_length=1, max_length=20)  # type: ignore[valid-type]


class ResidentUpdate(Strict):
    today: IsoDay
    resident: ResidentSchema  # type: ignore[valid-type]


class HappenedIn(Strict):
    today: IsoDay
    happened: LifeLineSchema  # type: ignore[valid-type]


class Taken(Strict):
    """The plan's revision that the animals that live there are put into."""

    base: int = Field(ge=0)
    today: IsoDay


Share = Annotated[float, Field(ge=0, le=1)]
Money = Annotated[float, Field(ge=0, le=1_000_000)]


class BuyIn(Strict):
    """Grown males and females wanted, with which chance, and what young, raising one and a grown one cost."""

    males: int = Field(default=1, ge=0, le=100)
    females: int = Field(default=3, ge=0, le=100)
    wanted_frac: float = Field(default=0.95, ge=0.01, le=0.999)
    male_frac: Share = 0.5
    survive_frac: float = Field(default=0.9, ge=0.01, le=1)
    young_price: Money = 5.0
    raising_price: Money = 2.0
    grown_price: Money = 15.0
