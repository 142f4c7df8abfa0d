"""The book of one system: every figure and check, in the order of the job's stages."""

from functools import cache

from loquen.core.model.plan import Plan
from loquen.core.sheet import (
    air,
    animals,
    arrival,
    changes,
    clarifier,
    company,
    disinfect,
    energy,
    filter,  # noqa: A004
    flooding,
    flow,
    heat,
    heat_failures,
    heaters,
    light,
    overflow,
    recipe,
    regimes,
    schools,
    source,
    sump,
    tank,
    water,
)
from loquen.core.sheet.engine import Book, Sheet
from loquen.core.sheet.nodes import collected

STAGES = {
    "animals": "Animals",
    "tank": "Tank",
    "filter": "Filter",
    "flow": "Flow",
    "heat": "Heat and light",
    "source": "Source",
    "changes": "Changes",
    "arrivals": "Arrivals",
}
RESULTS_OF = {stage: f"{stage}_result" for stage in STAGES}
GLASSES = {
    "space": "Space",
    "waste": "Waste",
    "oxygen": "Oxygen",
    "flow": "Flow",
    "heat": "Heat",
    "drain": "Drain-down",
    "buffer": "Buffer",
    "nitrate": "Nitrate",
}


@cache
def system_book() -> Book:
    """All nodes of a single system, wired once."""
    return Book(
        collected(
            [
                animals,
                tank,
                filter,
                flooding,
                overflow,
                sump,
                flow,
                clarifier,
                heat,
                heaters,
                heat_failures,
                energy,
                air,
                light,
                changes,
                regimes,
                source,
                recipe,
                disinfect,
                water,
                arrival,
                company,
                schools,
            ]
        )
    )


def sheet_of(plan: Plan, **asked: float) -> Sheet:
    """A fresh sheet of a plan; `months_ahead` asks for the animals at that size, full grown when left out."""
    return Sheet(system_book(), plan, **asked)
