"""The systems that stand in a room, each as one line of values, kept by system and revision."""

import logging
from collections import OrderedDict
from threading import Lock

from sqlmodel import Session

from loquen.api.wire.documents import read_document
from loquen.core.data import own
from loquen.core.errors import NamedCase
from loquen.core.model.roots.consistency import conflicts
from loquen.core.model.roots.documents import Unreadable
from loquen.core.model.roots.room import NO_SYSTEM, Room
from loquen.core.rooms.lines import Line, line_of
from loquen.core.system.book import sheet_of
from loquen.store.documents import systems
from loquen.store.documents.systems import Current, NoSuchSystem

MOST_LINES = 2000
log = logging.getLogger("loquen")


class Lines:
    """Lines that were made; one whose system changed is made anew."""

    def __init__(self) -> None:
        self.made: OrderedDict[tuple[int, int, float], Line | None] = OrderedDict()
        self.lock = Lock()

    def of(self, session: Session, room: Room) -> dict[int, Line]:
        """The lines of a room's systems; what can not be read or computed has none."""
        wanted = sorted({place.system for place in room.places if place.system != NO_SYSTEM})
        found = {}
        for system_id in wanted:
            try:
                line = self.line(systems.read(session, system_id))
            except NoSuchSystem:
                continue
            if line is not None:
                found[system_id] = line
        return found

    def line(self, system: Current) -> Line | None:
        key = (system.id, system.revision, own.kept_as["time"])
        with self.lock:
            if key in self.made:
                self.made.move_to_end(key)
                return self.made[key]
        made = made_line(system)
        with self.lock:
            self.made[key] = made
            while len(self.made) > MOST_LINES:
                self.made.popitem(last=False)
        return made


def made_line(system: Current) -> Line | None:
    try:
        plan = read_document(system.document)
        return None if conflicts(plan) else line_of(system.id, sheet_of(plan))
    except (Unreadable, NamedCase):
        return None
    except Exception:
        log.exception("the line of system %s can not be made", system.id)
        return None
