"""Animals that grow while something is forecast: their waste in so many months, of today's."""

from loquen.core.graph.asking import number
from loquen.core.graph.sheet import Sheet
from loquen.core.model.roots.plan import Plan
from loquen.core.system.book import ASKED_MONTHS

DAYS_PER_MONTH = 365.25 / 12


def waste_times(sheet: Sheet[Plan], days: float) -> float:
    """Times today's waste that they make so many days on, inside their stay."""
    today = number(sheet, "load_now_mg_d")
    if not today or all(group.size_by == "adult" for group in sheet.root.animals):
        return 1.0
    then = number(sheet.changed({ASKED_MONTHS: days / DAYS_PER_MONTH}), "load_then_mg_d")
    return 1.0 if then is None else then / today
