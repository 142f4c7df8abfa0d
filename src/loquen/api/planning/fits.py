"""What would fit a draft as it stands."""

from fastapi import APIRouter, Request, Response

from loquen.api.computing import PAGE, computed_while
from loquen.api.dependencies import COMPUTING, Asked
from loquen.api.planning.edits import Draft
from loquen.api.wire.answers import sent
from loquen.core.system.propose.what_fits import WhatFits, what_fits
from loquen.house.systems.root import SYSTEMS

router = APIRouter(prefix="/api", tags=["sheets"], responses=dict(COMPUTING))


@router.post("/fits", response_model=WhatFits)
async def fits(request: Request, draft: Draft, visit: Asked) -> Response:
    """Every kind that could join, from how many up to how many, and what keeps out the rest: some seconds."""
    return await computed_while(
        request,
        lambda: sent(what_fits(SYSTEMS.sensible(draft.plan, visit.library), visit.library, draft.months_ahead)),
        PAGE,
    )
