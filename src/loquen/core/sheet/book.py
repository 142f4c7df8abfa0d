"""The book of one system: every figure and check, in the order of the job's stages."""

from functools import cache

from loquen.core.model.plan import Plan
from loquen.core.sheet import animals, changes, company, filter, heat, schools, tank  # noqa: A004
from loquen.core.sheet.engine import Book, Sheet
from loquen.core.sheet.nodes import collected

STAGES = {
    "animals": "Animals",
    "tank": "Tank",
    "filter": "Filter",
    "heat": "Heat and light",
    "changes": "Changes",
}
RESULTS_OF = {stage: f"{stage}_result" for stage in STAGES}
GLASSES = {"space": "Space", "waste": "Waste", "flow": "Flow", "heat": "Heat", "nitrate": "Nitrate"}


@cache
def system_book() -> Book:
    """All nodes of a single system, wired once."""
    return Book(collected([animals, tank, filter, heat, changes, company, schools]))


def sheet_of(plan: Plan) -> Sheet:
    """A fresh sheet of a plan."""
    return Sheet(system_book(), plan)
