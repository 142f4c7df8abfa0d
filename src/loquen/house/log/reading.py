"""The log as the core's, event by event; one that can not be read is passed over here, and shown by `house/unread`."""

from collections.abc import Iterable

from sqlmodel import Session

from loquen.checked.stored import event, or_none
from loquen.core.events.ledger import Logged
from loquen.store.happened import ledger
from loquen.store.happened.ledger import KeptEvent
from loquen.store.tables import LOST


def readable(rows: Iterable[KeptEvent]) -> list[tuple[KeptEvent, Logged]]:
    """Those that can be read, each with what it says."""
    found = []
    for row in rows:
        known = or_none(row.document, event)
        if known is not None and row.at != LOST:
            found.append((row, Logged(row.at, known)))
    return found


def log_of(session: Session, system_id: int) -> list[Logged]:
    """The log of a system, oldest first; raise NoSuchSystem."""
    return [known for _, known in readable(ledger.list_of(session, system_id))]
