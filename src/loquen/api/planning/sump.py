"""Questions about the sump of a draft, answered by changes that a person may take."""

from typing import Literal

from fastapi import APIRouter, Request, Response

from loquen.api.computing import LONG, computed, computed_while
from loquen.api.dependencies import COMPUTING, Asked
from loquen.api.wire.answers import sent
from loquen.checked.documents import A_PLAN
from loquen.checked.plan import PlanSchema, Strict
from loquen.core.graph.nodes import Remedy
from loquen.core.system.book import sheet_of
from loquen.core.system.propose import sump_sizing
from loquen.house.systems.root import SYSTEMS

router = APIRouter(prefix="/api/sump", tags=["sump"], responses=dict(COMPUTING))

QUESTIONS = {
    "smallest": sump_sizing.smallest_sump,
    "deepest": sump_sizing.deepest_returns,
    "points": sump_sizing.curve_points,
}


class OfAPlan(Strict):
    """The plan that is asked about."""

    plan: PlanSchema


class Started(OfAPlan):
    """A plan that is to get a sump, and by which way water leaves its tank."""

    way: Literal["weir", "holes"]


@router.post("/first")
async def first_sump(start: Started, visit: Asked) -> PlanSchema:
    """The draft with a sump, its pump, pipes and drains, as far as they can be made to hold."""
    return await computed(
        lambda: A_PLAN.to_wire(
            sump_sizing.with_sump(SYSTEMS.sensible(start.plan, visit.library), start.way, visit.library)
        )
    )


@router.post("/{question}", response_model=Remedy)
async def answer(
    request: Request, question: Literal["smallest", "deepest", "points"], asked: OfAPlan, visit: Asked
) -> Response:
    """The smallest sump that holds, the deepest returns with which it does, or points of the pump's curve."""
    return await computed_while(
        request,
        lambda: sent(QUESTIONS[question](sheet_of(SYSTEMS.sensible(asked.plan, visit.library), visit.library))),
        LONG,
    )
