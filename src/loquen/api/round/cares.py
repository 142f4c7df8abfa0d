"""What each system wants done, kept by system and revision: a round asks all of them."""

import logging
from collections import OrderedDict
from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date, datetime
from threading import Lock

from loquen.api.computing import aside
from loquen.api.sheet.drawing import Section, section_of
from loquen.api.sheet.todays import todays_sheet
from loquen.api.wire.documents import read_document
from loquen.core.data import own
from loquen.core.model.roots.consistency import conflicts
from loquen.core.model.roots.documents import Unreadable, name_of
from loquen.core.routine.care.whole import care_of
from loquen.core.routine.consumables import Use, spared_parts, uses_of
from loquen.core.routine.costs import LONG_D, Ahead, ahead_of
from loquen.core.routine.duty import Duty
from loquen.store.documents.systems import Current

MOST_KEPT = 2000
Key = tuple[int, datetime, str | None, float]
NOTHING_AHEAD = Ahead(None, None, 0.0, 0.0, 0.0, 7.0, LONG_D, "")
log = logging.getLogger("loquen")


@dataclass(frozen=True, slots=True)
class Care:
    """A system as the round sees it; without a section where its plan can not be read or computed."""

    system_id: int
    name: str
    began: date
    duties: tuple[Duty, ...]
    ahead: Ahead
    section: Section | None
    uses: tuple[Use, ...] = ()
    spared: Mapping[str, int] = field(default_factory=dict)


class Cares:
    """Those that were made; one whose system or library changed is made anew."""

    def __init__(self) -> None:
        self.made: OrderedDict[Key, Care] = OrderedDict()
        self.lock = Lock()

    def known(self, system: Current) -> Care | None:
        key = key_of(system)
        with self.lock:
            if key in self.made:
                self.made.move_to_end(key)
            return self.made.get(key)

    def make_next(self, systems: list[Current]) -> None:
        """Make one that is not known, and see to the next when a worker is free again."""
        unknown = [system for system in systems if self.known(system) is None]
        if unknown:
            self.of(unknown[0])
            aside(lambda: self.make_next(unknown[1:]))

    def of(self, system: Current) -> Care:
        """A system's care, made when it is not known."""
        found = self.known(system)
        if found is not None:
            return found
        key = key_of(system)
        made = made_care(system)
        with self.lock:
            self.made[key] = made
            while len(self.made) > MOST_KEPT:
                self.made.popitem(last=False)
        return made


def key_of(system: Current) -> Key:
    """What a care hangs on: the system with its text and its beginning, and the library."""
    return system.id, system.created, system.document, own.kept_as["time"]


def made_care(system: Current) -> Care:
    """A system's duties for its animals at today's size."""
    began = system.created.date()
    try:
        plan = read_document(system.document)
        if not conflicts(plan):
            sheet = todays_sheet(plan)
            duties = care_of(sheet)
            return Care(
                system.id,
                plan.name,
                began,
                duties,
                ahead_of(sheet),
                section_of(sheet),
                tuple(uses_of(sheet, duties)),
                spared_parts(sheet),
            )
    except Unreadable:
        pass
    except Exception:
        log.exception("the care of system %s can not be made", system.id)
    return Care(system.id, name_of(system.document, system.id), began, (), NOTHING_AHEAD, None)
