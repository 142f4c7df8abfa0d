"""The log as the core's, entry by entry; one that can not be read is passed over here, and shown by `api/unread`."""

from collections.abc import Iterable

from sqlmodel import Session

from loquen.api.wire.stored import entry, or_none
from loquen.core.model.documents import Unreadable
from loquen.core.model.log import Logged
from loquen.core.model.quantity import say
from loquen.store import log
from loquen.store.log import KeptEntry
from loquen.store.tables import LOST


def logged(row: KeptEntry) -> Logged:
    """A kept entry as the core's; raise Unreadable."""
    if row.at == LOST:
        raise Unreadable(say("Its moment is none."))
    return Logged(row.at, entry(row.document))


def readable(rows: Iterable[KeptEntry]) -> list[tuple[KeptEntry, Logged]]:
    """Those that can be read, each with what it says."""
    found = []
    for row in rows:
        known = or_none(row.document, entry)
        if known is not None and row.at != LOST:
            found.append((row, Logged(row.at, known)))
    return found


def log_of(session: Session, system_id: int) -> list[Logged]:
    """The log of a system, oldest first; raise NoSuchSystem."""
    return [known for _, known in readable(log.list_of(session, system_id))]
