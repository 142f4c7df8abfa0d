"""Quarantine on the wire."""

from dataclasses import dataclass
from datetime import date

from pydantic import Field

from loquen.checked.days import IsoDay
from loquen.checked.plan import Strict, mirror
from loquen.core.graph.nodes import State
from loquen.core.model.inputs.quantity import Sentence
from loquen.core.model.records.quarantine import Arriving, TreatmentCourse, Tub
from loquen.core.quarantine.courses import CourseDay
from loquen.house.sheet.drawing import Section

TubSchema = mirror(Tub)
ArrivingSchema = mirror(Arriving)
CourseSchema = mirror(TreatmentCourse)


@dataclass(frozen=True, slots=True)
class Waits:
    """Somebody in a tub, and the system they are meant for (0 where nobody said)."""

    resident_id: int
    common: str
    count: int
    since: date
    goes_to: int
    goes_to_name: str


@dataclass(frozen=True, slots=True)
class TubAsks:
    """What a tub asks each day."""

    state: State
    words: Sentence
    hours: float | None
    limit_mg_l: float
    made_mg_d: float
    taken_mg_d: float
    change_l: float
    change_frac: float
    against: tuple[Sentence, ...]
    shock: Sentence | None
    ways: tuple[Sentence, ...]


@dataclass(frozen=True, slots=True)
class CourseOut:
    """A course with its days, and who and what must not be in it; rinses until it is out again."""

    id: int
    course: CourseSchema  # type: ignore[valid-type]
    running: bool
    ends: date
    label_dose: float
    days: tuple[CourseDay, ...]
    endangered: tuple[Sentence, ...]
    rinses: int


@dataclass(frozen=True, slots=True)
class TubOut:
    """A tub with those in it, when they may leave, what they ask; `copper` names what it last held of it."""

    system_id: int
    name: str
    litres: float
    section: Section | None
    tub: TubSchema  # type: ignore[valid-type]
    waits: tuple[Waits, ...]
    release: date | None
    because: Sentence | None
    ready: bool
    asks: TubAsks | None
    courses: tuple[CourseOut, ...]
    copper: str


@dataclass(frozen=True, slots=True)
class Refusal:
    """A tub that can not take an arrival, and why."""

    tub: str
    why: Sentence


@dataclass(frozen=True, slots=True)
class ArrivingOut:
    """Somebody who is to come: their turn, or why there is none; `together` counts those who share the turn."""

    id: int
    arriving: ArrivingSchema  # type: ignore[valid-type]
    common: str
    goes_to_name: str
    tub: int | None
    tub_name: str
    enters: date | None
    leaves: date | None
    together: int
    hold_d: int
    refused: tuple[Refusal, ...]


@dataclass(frozen=True, slots=True)
class WaivedOut:
    """Somebody without quarantine: who is exposed, until when it is watched, and for what."""

    id: int
    arriving: ArrivingSchema  # type: ignore[valid-type]
    common: str
    goes_to_name: str
    here: bool
    exposed: tuple[str, ...]
    watch_until: date
    signs: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Marked:
    """Equipment that was in a course, what it met, and until when."""

    equipment: str
    product: str
    tub: str
    until: date
    copper: bool


@dataclass(frozen=True, slots=True)
class TubPlace:
    """A system by name, and whether newcomers wait in it."""

    system_id: int
    name: str
    is_tub: bool


@dataclass(frozen=True, slots=True)
class Newcomers:
    """Quarantine of the whole house."""

    today: date
    result: Sentence
    tubs: list[TubOut]
    arriving: list[ArrivingOut]
    waived: list[WaivedOut]
    marked: list[Marked]
    places: list[TubPlace]
    best: bool
    """Whether the turns are the best that there are, and not lot after lot."""


@dataclass(frozen=True, slots=True)
class Numbered:
    """The number under which something is kept."""

    id: int


class NewTub(Strict):
    """A bare tub of so many litres, with a seeded sponge or none, and the water of a system (0: none of them)."""

    name: str = Field(min_length=1, max_length=80)
    litres: float = Field(ge=1, le=2000)
    sponge_l: float = Field(default=0.0, ge=0, le=50)
    like: int = Field(default=0, ge=0)


class Here(Strict):
    """They are here: how many, put into which tub; a waived arrival goes where it was meant for."""

    today: IsoDay
    day: IsoDay
    count: int = Field(ge=1, le=2000)
    tub: int = Field(default=0, ge=0)
    length_cm: float | None = Field(default=None, ge=0.2, le=200)
    price: float | None = Field(default=None, ge=0, le=100_000)
