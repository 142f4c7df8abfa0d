"""The systems that stand in a room, each as one line of values."""

import logging

from sqlmodel import Session

from loquen.checked.documents import A_PLAN
from loquen.core.errors import NamedCase
from loquen.core.model.roots.consistency import conflicts
from loquen.core.model.roots.documents import Unreadable
from loquen.core.model.roots.room import NO_SYSTEM, Room
from loquen.core.rooms.lines import Line, line_of
from loquen.core.system.book import sheet_of
from loquen.house.house import Visit
from loquen.house.kept import at_most
from loquen.store.documents import systems
from loquen.store.documents.systems import Current, NoSuchSystem

MOST_LINES = 2000
log = logging.getLogger("loquen")


def lines_of(visit: Visit, session: Session, room: Room) -> dict[int, Line]:
    """The lines of a room's systems; what can not be read or computed has none."""
    wanted = sorted({place.system for place in room.places if place.system != NO_SYSTEM})
    found = {}
    for system_id in wanted:
        try:
            found_line = visit.kept(line, systems.read(session, system_id))
        except NoSuchSystem:
            continue
        if found_line is not None:
            found[system_id] = found_line
    return found


@at_most(MOST_LINES)
def line(visit: Visit, system: Current) -> Line | None:
    try:
        plan = A_PLAN.read(system.document)
        return None if conflicts(plan, visit.library) else line_of(system.id, sheet_of(plan, visit.library))
    except (Unreadable, NamedCase):
        return None
    except Exception:
        log.exception("the line of system %s can not be made", system.id)
        return None
