"""The sheet of a plan for its animals at today's size, shared by those who ask it one after the other."""

from threading import get_ident

from loquen.core.graph.sheet import Sheet
from loquen.core.model.roots.plan import Plan
from loquen.core.system.book import sheet_of
from loquen.house.house import Visit
from loquen.house.kept import at_most

FEW = 8


def todays_sheet(visit: Visit, plan: Plan) -> Sheet[Plan]:
    """The sheet, the same one again for the same plan soon after, to one thread."""
    return visit.kept(made, plan, get_ident())


@at_most(FEW)
def made(visit: Visit, plan: Plan, _thread: int) -> Sheet[Plan]:
    return sheet_of(plan, visit.library, 0.0)
