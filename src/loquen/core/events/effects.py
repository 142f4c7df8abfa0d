"""What events mean to duties: which of them each sees to. A kind that is forgotten here fails the type checker."""

from typing import assert_never

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
from loquen.core.events.ledger import Event

FED, RINSED = "feed.", "rinse."
"""How the keys of duties begin that any meal, and a rinse of all media, sees to."""
RINSED_SOME = "rinse.?"
"""A rinse of some of the media, nobody said of which: it sees to the only filter, and of several to none."""
ALL = 0.999


def sees_to(event: Event) -> str:
    """The duty of its system that an event sees to by itself, or how the keys of those begin; "" for none. A tick names its
    own."""
    match event:
        case Changed():
            return "change"
        case Read():
            return f"read.{event.what}"
        case Fed():
            return FED
        case Rinsed():
            return f"{RINSED}{event.filter}" if event.filter or rinses_all(event) else RINSED_SOME
        case Dosed() | OtherSource() | PutIn() | TakenOut() | Lit() | Tried() | Noted() | SeenTo() | Skipped():
            return ""
        case Arrived() | Born() | Measured() | Moved() | Sold() | Died() | SignsSeen() | Pulsed():
            return ""
        case _ as never:
            assert_never(never)


def rinses_all(event: Rinsed) -> bool:
    return event.share is None or event.share >= ALL
