"""Something that has to be done for a system again and again."""

from dataclasses import dataclass, field
from datetime import date
from typing import Literal

from loquen.core.events.ledger import Event
from loquen.core.model.inputs.quantity import Sentence
from loquen.core.routine.recurring import Rhythm

ROTA = "feed.rota"
"""How the keys of a week's meals begin."""
DutyKind = Literal["feed", "change", "read", "filter", "clean", "plants", "lamp", "supply", "safety", "own"]


@dataclass(frozen=True, slots=True)
class Duty:
    """What is done, with amounts and steps, how often and why; what its tick writes into the log.

    `offset_d` is when it is first due, in days from when the system was started in Loquen.
    """

    key: str
    kind: DutyKind
    words: Sentence
    why: Sentence
    rhythm: Rhythm
    minutes: float
    steps: tuple[Sentence, ...] = ()
    event: Event | None = None
    measure: str = ""
    """What is read, where the tick is a reading."""
    offset_d: int = 0
    caution: str = ""
    page: str = ""
    """The stage of the system's page on which it is done, where a tick alone does not do it."""
    until: date | None = None
    """After this day it is not seen coming, as those it is done for are gone."""


@dataclass(frozen=True, slots=True)
class Set:
    """What a keeper set otherwise for one duty of a system, or a duty of their own (with words)."""

    rhythm: Rhythm | None = None
    off: bool = False
    words: str = ""
    since: str = ""
    minutes: float = field(default=5.0)
