"""The ledger: every kind of event by its name, and an event as it is kept."""

from dataclasses import asdict, dataclass
from datetime import datetime
from typing import Any

from loquen.core.events.kinds.keeping import (
    Fed,
    Lit,
    Noted,
    Pulsed,
    PutIn,
    Rinsed,
    SeenTo,
    Skipped,
    TakenOut,
    Tried,
)
from loquen.core.events.kinds.lives import Arrived, Born, Died, Measured, Moved, SignsSeen, Sold
from loquen.core.events.kinds.water import Changed, Dosed, OtherSource, Read
from loquen.core.events.upgrades import from_line
from loquen.core.model.inputs.quantity import quoted, say
from loquen.core.model.roots.documents import Unreadable, upgraded

LifeEvent = Arrived | Born | Measured | Moved | Sold | Died | SignsSeen
Event = (
    Read | Changed | Dosed | OtherSource | Fed | Rinsed | PutIn | TakenOut | Lit | Tried | Noted
    | LifeEvent | SeenTo | Skipped | Pulsed
)  # fmt: skip
VERSION = 1
NAMES: dict[type, str] = {
    Read: "reading",
    Changed: "change",
    Dosed: "dose",
    OtherSource: "source",
    Fed: "feed",
    Rinsed: "filter",
    PutIn: "added",
    TakenOut: "taken",
    Lit: "light",
    Tried: "experiment",
    Noted: "note",
    Arrived: "arrival",
    Born: "birth",
    Measured: "measured",
    Moved: "move",
    Sold: "sale",
    Died: "death",
    SignsSeen: "signs",
    SeenTo: "seen_to",
    Skipped: "skipped",
    Pulsed: "pulsed",
}
"""What each kind is called where it is kept."""
KINDS = {name: kind for kind, name in NAMES.items()}
STEPS: dict[int, Any] = {0: from_line}
"""What brings an event of an older version forward."""


@dataclass(frozen=True, slots=True)
class Logged:
    """An event and its moment."""

    at: datetime
    event: Event


def name_of(event: Event) -> str:
    """What its kind is called."""
    return NAMES[type(event)]


def kept_as(event: Event) -> dict[str, Any]:
    """An event as plain data, with its kind and version."""
    return {"kind": name_of(event), "version": VERSION, **asdict(event)}


def read_back(found: dict[str, Any]) -> tuple[type, dict[str, Any]]:
    """The kind and the fields of what was kept, brought forward; raise Unreadable."""
    fields = upgraded(found, VERSION, STEPS)
    kind = KINDS.get(str(fields.get("kind")))
    if kind is None:
        raise Unreadable(say("Nothing that happens is called “{kind}”.", kind=quoted(fields.get("kind", ""))))
    return kind, {name: value for name, value in fields.items() if name not in ("kind", "version")}
