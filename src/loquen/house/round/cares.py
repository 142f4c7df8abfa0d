"""What each system wants done: a round asks all of them."""

import logging
from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date

from loquen.checked.documents import A_PLAN
from loquen.core.model.parts.animals import Group
from loquen.core.model.roots.consistency import conflicts
from loquen.core.model.roots.documents import Unreadable, name_of
from loquen.core.routine.care.whole import care_of
from loquen.core.routine.consumables import Use, spared_parts, uses_of
from loquen.core.routine.costs import LONG_D, Ahead, ahead_of
from loquen.core.routine.duty import Duty
from loquen.house.house import Visit
from loquen.house.kept import at_most
from loquen.house.register.lived import as_lived
from loquen.house.sheet.drawing import Section, section_of
from loquen.house.sheet.todays import todays_sheet
from loquen.store.documents.systems import Current

MOST_KEPT = 2000
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


@at_most(MOST_KEPT)
def care(visit: Visit, system: Current, lives: tuple[Group, ...] = ()) -> Care:
    """A system's duties for its animals as they are today: those who live there where any are written down."""
    began = system.created.date()
    try:
        plan = A_PLAN.read(system.document)
        if not conflicts(plan, visit.library):
            sheet = todays_sheet(visit, as_lived(visit, plan, lives))
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
