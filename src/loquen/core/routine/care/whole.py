"""Everything that a system wants done, in the order in which one stands before it."""

from loquen.core.errors import NamedCase
from loquen.core.graph.sheet import Sheet
from loquen.core.model.roots.phase import phase
from loquen.core.model.roots.plan import Plan
from loquen.core.routine.care import feeding, filters, glass, living, safety, water, zeolite
from loquen.core.routine.care.asked import asked
from loquen.core.routine.care.setting_up import setting_up
from loquen.core.routine.duty import Duty

PARTS = (feeding, water, filters, zeolite, glass, living, safety)


def care_of(sheet: Sheet[Plan]) -> tuple[Duty, ...]:
    """The duties of a system; where a number is missing, those that hang on it are left out. Of a planned one, to set it up."""
    if phase(sheet.root) == "planned":
        return setting_up(sheet)
    found: list[Duty] = list(asked(sheet))
    for part in PARTS:
        try:
            found += part.duties(sheet)
        except NamedCase:
            continue
    return tuple(found)
