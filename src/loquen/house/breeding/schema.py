"""Breeding on the wire."""

from dataclasses import dataclass

from pydantic import BaseModel, Field

from loquen.checked.days import IsoDay
from loquen.checked.plan import Strict
from loquen.core.graph.nodes import State
from loquen.core.growout.births import LineKept
from loquen.core.growout.compare import Compared, OneWay, Swing
from loquen.core.growout.rack import RackPlan
from loquen.core.model.inputs.quantity import Sentence
from loquen.house.sheet.answers import Check, Figure, Glass, Stage
from loquen.house.sheet.drawing import Section
from loquen.store.documents.systems import MOST_ID

MOST_TANKS = 300


class VentureName(BaseModel):
    """A venture in the list; one that can not be read has its name alone."""

    id: int
    name: str
    species: str
    common: str
    purpose: str
    system: int


class VentureStart(Strict):
    """A kind to breed, in tanks like those of a system; the rest begins as the library and practice say."""

    species: str = Field(min_length=1, max_length=80)
    system: int = Field(default=0, ge=0, le=MOST_ID)
    purpose: str = Field(default="sale", pattern="^(sale|line)$")


class OnADay(Strict):
    """The day on which a draft is looked at."""

    today: IsoDay


@dataclass(frozen=True, slots=True)
class RunCourse:
    """A venture week by week from its start: young, tanks in use, money in hand without and with hours paid."""

    start: str
    today_d: float
    days: tuple[float, ...]
    young: tuple[float, ...]
    tanks: tuple[float, ...]
    cash: tuple[float, ...]
    cash_low: tuple[float, ...]
    cash_high: tuple[float, ...]
    cash_worked: tuple[float, ...]
    mean_young: float
    peak_tanks: int


@dataclass(frozen=True, slots=True)
class TankSpan:
    """A tank in use from one day to another, counted from the start."""

    tank: str
    from_d: float
    to_d: float


@dataclass(frozen=True, slots=True)
class FreeTank:
    """A tank and the next day on which it is free, and until when."""

    tank: str
    free_on: str
    until: str


@dataclass(frozen=True, slots=True)
class GrowthMark:
    """Where on its growth a way to sell lies."""

    sale: int
    name: str
    day: float
    length_cm: float


@dataclass(frozen=True, slots=True)
class GrowthCurve:
    """Length by age, likely and at the slow and the quick end."""

    days: tuple[float, ...]
    low_cm: tuple[float, ...]
    likely_cm: tuple[float, ...]
    high_cm: tuple[float, ...]
    marks: tuple[GrowthMark, ...]


@dataclass(frozen=True, slots=True)
class YoungHoused:
    """What the tank's own sheet says of a grow-out tank at its fullest: the worst verdict and what stands against it."""

    state: State
    count: int
    against: tuple[Sentence, ...]


@dataclass(frozen=True, slots=True)
class CostPart:
    """A part of a week's money: what it is, its figure, and how much."""

    label: str
    figure: str
    money: float


@dataclass(frozen=True, slots=True)
class VentureAnswer:
    """Everything a venture's page shows."""

    figures: dict[str, Figure]
    checks: list[Check]
    glasses: list[Glass]
    stages: list[Stage]
    home: str
    colony_home: str
    section: Section | None
    refused: tuple[Sentence, ...]
    wants: str
    known_broods: bool
    buy_from_each: tuple[int, ...]
    lines: tuple[LineKept, ...]
    young_housed: YoungHoused | None
    course: RunCourse | None
    spans: tuple[TankSpan, ...]
    free: tuple[FreeTank, ...]
    growth: GrowthCurve | None
    low_money: float | None
    high_money: float | None
    swings: tuple[Swing, ...]
    one_ways: tuple[OneWay, ...]
    costs: tuple[CostPart, ...]
    first_sale: str
    low_first_sale: str
    high_first_sale: str


@dataclass(frozen=True, slots=True)
class TankLine:
    """A system that tanks can be like."""

    id: int
    name: str
    litres: float


@dataclass(frozen=True, slots=True)
class Side:
    """Ventures compared in one tank."""

    system: int
    name: str
    litres: float
    water_c: float
    rows: tuple[Compared, ...]
    result: Sentence


@dataclass(frozen=True, slots=True)
class Breeding:
    """The page of ventures: those that are kept, the tanks they could be compared in, and the comparison in one."""

    ventures: list[VentureName]
    tanks: list[TankLine]
    side: Side | None


class RackTanks(Strict):
    """So many tanks like those of a system."""

    system: int = Field(ge=1, le=MOST_ID)
    count: int = Field(ge=1, le=MOST_TANKS)


class Cap(Strict):
    """At most so many tanks for a venture."""

    venture: int = Field(ge=1, le=MOST_ID)
    tanks: int = Field(ge=0, le=MOST_TANKS)


class RackWanted(Strict):
    """A rack to plan: its tanks, who may go on it, and what there is of hours and power a week."""

    tanks: list[RackTanks] = Field(default_factory=list, max_length=60)
    ventures: list[int] = Field(default_factory=list, max_length=40)
    caps: list[Cap] = Field(default_factory=list, max_length=40)
    hours_wk: float | None = Field(default=None, ge=0, le=1000)
    kwh_wk: float | None = Field(default=None, ge=0, le=100_000)
    hour_money: float | None = Field(default=None, ge=0, le=1000)


@dataclass(frozen=True, slots=True)
class RackAnswer:
    """The rack as it was asked for and as it is best used; None while it has no tank or nobody may go on it."""

    wanted: RackWanted
    ventures: list[VentureName]
    tanks: list[TankLine]
    plan: RackPlan | None
    unread: tuple[str, ...]
