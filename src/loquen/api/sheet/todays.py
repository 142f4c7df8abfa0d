"""The sheet of a plan for its animals at today's size, shared by those who ask it one after the other."""

from functools import lru_cache
from threading import get_ident

from loquen.core.data import own
from loquen.core.graph.engine import Sheet
from loquen.core.model.roots.plan import Plan
from loquen.core.system.book import sheet_of

FEW = 8


def todays_sheet(plan: Plan) -> Sheet[Plan]:
    """The sheet, the same one again for the same plan soon after, to one thread."""
    return made(plan, own.kept_as["time"], get_ident())


@lru_cache(maxsize=FEW)
def made(plan: Plan, library_time: float, thread: int) -> Sheet[Plan]:
    return sheet_of(plan, 0.0)
