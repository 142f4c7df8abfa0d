"""The book of one system: every figure and check, in the order of the job's stages."""

from collections.abc import Mapping
from functools import cache
from math import inf
from typing import Any

from loquen.core.data.tables import Constant, constants
from loquen.core.graph.book import Book
from loquen.core.graph.domain import Domain
from loquen.core.graph.nodes import collected
from loquen.core.graph.sheet import Sheet
from loquen.core.library.whole import Library
from loquen.core.model.roots.consistency import conflicts
from loquen.core.model.roots.plan import PLAN, Plan
from loquen.core.system.animals import aggression, company, food, leaving, mouths, schools
from loquen.core.system.arrivals import bags, moving, tubs
from loquen.core.system.changes import regime, reserve, shock, side_by_side
from loquen.core.system.filter import ammonia, clarifier, media, oxygen, turnover
from loquen.core.system.flow import flooding, overflow, returns, sump
from loquen.core.system.heat import cooling, energy, failures, heaters, light, losses, weather
from loquen.core.system.source import disinfectant, osmosis, recipe, salt, settled, waters
from loquen.core.system.tank import bed, depth, glass, land, plants

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
GLASSES = {
    "space": "Space",
    "waste": "Waste",
    "oxygen": "Oxygen",
    "flow": "Flow",
    "heat": "Heat",
    "drain": "Drain-down",
    "tap": "Tap",
    "buffer": "Buffer",
    "nitrate": "Nitrate",
}


ROW_NAMES = {
    "patches": "part of the floor",
    "planting": "plant",
    "lamps": "lamp",
    "filters": "filter",
    "run": "part",
    "returns": "return",
    "chambers": "chamber",
    "sources": "water",
    "bags": "arrival",
}
ASKED = {"months_ahead": inf}
ASKED_MONTHS = "asked.months_ahead"
"""What a sheet is asked about that is no part of the plan, and what is meant when nothing is said."""


@cache
def system_book() -> Book:
    """All nodes of a single system, wired once."""
    nodes = collected(
        [
            *(food, mouths, company, aggression, leaving, schools),
            *(glass, bed, land, depth, plants),
            *(media, turnover, ammonia, oxygen, clarifier),
            *(returns, overflow, sump, flooding),
            *(losses, heaters, weather, cooling, failures, energy, light),
            *(waters, recipe, disinfectant, osmosis, salt, settled),
            *(regime, reserve, shock, side_by_side),
            *(bags, moving, tubs),
        ]
    )
    return Book(
        nodes,
        PLAN,
        constants(),
        ASKED,
        Domain(row_label, pipe_order, lambda plan, library: bool(conflicts(plan, library)), matters),
    )


def sheet_of(
    plan: Plan,
    library: Library,
    months_ahead: float | None = None,
    calibration: Mapping[str, Constant] | None = None,
) -> Sheet[Plan]:
    """A fresh sheet of a plan by a library, its animals at their size in so many months, full grown when left out."""
    asked = {} if months_ahead is None else {"months_ahead": months_ahead}
    return Sheet(system_book(), plan, library, calibration, **asked)


def row_label(sheet: Sheet[Plan], section: str, at: int, label: str) -> str:
    """What an input of a row is called: with the animal it belongs to, or its number where there are several."""
    if section == "animals":
        return f"{label}: {sheet.value(f'animals.{at}.animal').common}"
    several = len(getattr(sheet.root, section)) > 1
    return f"{label}, {ROW_NAMES[section]} {at + 1}" if several else label


def matters(sheet: Sheet[Plan], path: str) -> bool:
    """Whether an input that nobody told bears on anything: of waters, those that the change water is mixed from."""
    section, *rest = path.split(".")
    if path == "land.land_kind":
        # Nearly all hangs on the water that a bank displaces: only the check of the land itself waits for it.
        return False
    if path == "water.disinfectant":
        return not sheet.root.sources
    if section == "sources":
        row = f"sources.{rest[0]}."
        return waters.asked_about(sheet.known[row + "src_kind"], sheet.known[row + "src_parts"])
    return True


def pipe_order(sheet: Sheet[Plan], option: Any, present: Any) -> tuple[bool, float]:
    """Pipes of the present one's kind first (waste pipe when there is none), by bore; other options as they stand."""
    pipes = sheet.library.pipes
    if option not in pipes:
        return (False, 0.0)
    system = pipes[present].system if present in pipes else "waste"
    return (pipes[option].system != system, pipes[option].bore_mm)
