"""The round on the wire."""

from dataclasses import dataclass
from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from loquen.checked.days import IsoDay, Moment
from loquen.checked.plan import Strict, mirror
from loquen.core.model.inputs.quantity import Sentence
from loquen.core.model.roots.documents import rebuilt
from loquen.core.routine.away import Errand
from loquen.core.routine.consumables import Spare, Use
from loquen.core.routine.due import Helper
from loquen.core.routine.duty import Set
from loquen.core.routine.recurring import Day, Rhythm
from loquen.house.sheet.drawing import Section
from loquen.store.documents.systems import MOST_ID

MOST_TICKS, MOST_HELPERS, MOST_SYSTEMS = 500, 40, 2000
RhythmSchema = mirror(Rhythm)
Name = Annotated[str, Field(max_length=60)]


@dataclass(frozen=True, slots=True)
class RoundLine:
    """One thing to do: since when it is due, what waiting costs; or, ticked, how and by whom."""

    key: str
    kind: str
    words: Sentence
    steps: tuple[Sentence, ...]
    why: Sentence
    often: Sentence
    minutes: float
    due: date
    late_d: int
    again: date | None
    cost: Sentence | None
    caution: str
    measure: str
    page: str
    litres: float | None
    grams: float | None
    tick: str | None
    done_by: str
    skipped: str


@dataclass(frozen=True, slots=True)
class Stop:
    """A system on the round, with what it wants today and what was done."""

    system_id: int
    name: str
    section: Section | None
    lines: list[RoundLine]


@dataclass(frozen=True, slots=True)
class Round:
    """Today's round: its result in a sentence, who is there, and the systems in the order of the walk."""

    today: date
    result: Sentence
    here: list[str]
    helpers: list[Helper]
    stops: list[Stop]
    quiet: list[str]
    """Systems that want nothing today."""


@dataclass(frozen=True, slots=True)
class Cared:
    """A duty of one system as it is set: how often, why, and when next."""

    key: str
    kind: str
    words: Sentence
    why: Sentence
    often: Sentence
    rhythm: RhythmSchema  # type: ignore[valid-type]
    days_between: float
    usual: RhythmSchema | None  # type: ignore[valid-type]
    """As the plan has it, where it is set otherwise."""
    off: bool
    own: bool
    minutes: float
    next: date | None
    last: date | None


@dataclass(frozen=True, slots=True)
class CareOfSystem:
    """The care calendar of one system."""

    duties: list[Cared]


@dataclass(frozen=True, slots=True)
class AwaySystem:
    """One system over a holiday."""

    system_id: int
    name: str
    section: Section | None
    before: tuple[Errand, ...]
    stand_in: tuple[Errand, ...]
    waits: tuple[Sentence, ...]


@dataclass(frozen=True, slots=True)
class AwaySheet:
    """A holiday over the whole house: the visits that a stand-in makes, and system by system what is done."""

    first: date
    last: date
    result: Sentence
    visits: list[date]
    systems: list[AwaySystem]


@dataclass(frozen=True, slots=True)
class Consumable:
    """Something that is used up: how much a week, what was counted, how much should be left, when it runs out."""

    use: Use
    counted: float | None
    counted_on: date | None
    lead_d: int
    left: float | None
    runs_out: date | None
    order_by: date | None
    late: bool
    """Whether an order made today comes too late."""


@dataclass(frozen=True, slots=True)
class Supplies:
    """What the whole house uses up, what is to be ordered first, and spares to keep."""

    result: Sentence
    supplies: list[Consumable]
    spares: list[Spare]
    one_for: int


class StockIn(Strict):
    """What was counted of something today, and how many days an order takes; nothing counted forgets it."""

    amount: float | None = Field(default=None, ge=0, le=10_000_000)
    counted: IsoDay
    lead_d: int = Field(default=7, ge=0, le=365)


class TickIn(Strict):
    """A duty that was seen to on one of its days, or skipped; `id` is the page's own, sent again until it is answered.

    `litres` or `grams` where it was another amount than asked, `left` of food after five minutes; `log` is false where the page wrote the entry itself.
    """

    id: str = Field(min_length=8, max_length=64, pattern=r"^[\w-]+$")
    system_id: int = Field(ge=1, le=MOST_ID)
    duty: str = Field(min_length=1, max_length=80)
    due: IsoDay
    at: Moment
    day: IsoDay
    done_by: Name = ""
    skipped: str = Field(default="", max_length=200)
    litres: float | None = Field(default=None, ge=0, le=200_000)
    grams: float | None = Field(default=None, ge=0, le=1_000_000)
    left: Literal["", "eaten", "some", "much"] = ""
    note: str = Field(default="", max_length=400)
    log: bool = True


class Ticks(Strict):
    """Ticks in the order in which they were made."""

    ticks: list[TickIn] = Field(min_length=1, max_length=MOST_TICKS)


@dataclass(frozen=True, slots=True)
class Ticked:
    """Which ticks are kept now, and which of them were there already."""

    kept: list[str]
    there: list[str]
    refused: dict[str, Sentence]
    """Those that can not be kept, with why: their system is gone."""


class DutySet(Strict):
    """What is set for a duty of a system: its rhythm, that it is off, or a duty of one's own; nothing forgets it."""

    rhythm: RhythmSchema | None = None  # type: ignore[valid-type]
    off: bool = False
    words: str = Field(default="", max_length=200)
    minutes: float = Field(default=5.0, ge=0, le=600)


class HelperIn(Strict):
    """Somebody who does the round; without weekdays, always."""

    name: str = Field(min_length=1, max_length=60)
    weekdays: list[Day] = Field(default=[], max_length=7)
    hour: float = Field(default=18.0, ge=0, lt=24)


class HelpersIn(Strict):
    helpers: list[HelperIn] = Field(max_length=MOST_HELPERS)


class WalkIn(Strict):
    """Systems in the order of the walk."""

    systems: list[Annotated[int, Field(ge=1, le=MOST_ID)]] = Field(max_length=MOST_SYSTEMS)


def set_of(text: str) -> Set:
    """What is kept of a duty as the core's; raise ValueError."""
    found: Set = rebuilt(Set, DutySet.model_validate_json(text).model_dump())
    return found
