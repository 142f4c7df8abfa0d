"""Systems as a root."""

from typing import Any

from pydantic import Field

from loquen.checked.documents import A_PLAN
from loquen.checked.plan import Strict
from loquen.core.graph.sheet import Sheet
from loquen.core.model.roots.consistency import conflicts
from loquen.core.model.roots.plan import Plan
from loquen.core.system.book import sheet_of
from loquen.house.documents.root import Root
from loquen.house.house import Visit
from loquen.house.sheet import view
from loquen.house.sheet.answers import SheetAnswer
from loquen.store.tables import SYSTEM


class AtASize(Strict):
    """The size that its animals are planned for: in so many months, full grown when left out."""

    months_ahead: float | None = Field(default=None, ge=0, le=1200)


def sheet(visit: Visit, plan: Plan, asked: Any) -> Sheet[Plan]:
    return sheet_of(plan, visit.library, asked.months_ahead)


def answer(visit: Visit, plan: Plan, asked: Any) -> SheetAnswer:
    return view.view(plan, visit.library, asked.months_ahead)


SYSTEMS: Root[Plan] = Root(
    SYSTEM, "plan", "/api/systems", "/api", A_PLAN, conflicts, sheet, answer, SheetAnswer, AtASize
)
