"""Sheets of drafts: nothing here is saved."""

from typing import Annotated

from fastapi import APIRouter, Response
from pydantic import Field

from loquen.api import sheets, working
from loquen.api.computing import computed
from loquen.api.dependencies import COMPUTING, sensible
from loquen.api.schemas.plan import PlanSchema, Strict
from loquen.api.schemas.sheet import SheetOut, WorkingOut

router = APIRouter(prefix="/api", tags=["sheets"], responses=dict(COMPUTING))


class Draft(Strict):
    """A plan, and the size its animals are planned for: in so many months, full grown when left out."""

    plan: PlanSchema
    months_ahead: float | None = Field(default=None, ge=0, le=1200)


class Question(Draft):
    """A figure to explain; with a target, also what it would take, for the named inputs or those that move it most."""

    figure: str = Field(max_length=80)
    target: float | None = Field(default=None, ge=-1e6, le=1e9)
    paths: list[Annotated[str, Field(max_length=80)]] | None = Field(default=None, max_length=8)


@router.post("/sheet", response_model=SheetOut)
async def sheet(draft: Draft) -> Response:
    """All figures and checks of a draft. Asked at every keystroke, so it is written out without a second look."""

    def whole() -> Response:
        view = sheets.view(sensible(draft.plan), draft.months_ahead)
        return Response(view.model_dump_json(), media_type="application/json")

    return await computed(whole)


@router.post("/working")
async def worked(question: Question) -> WorkingOut:
    """The working of one figure of a draft."""

    def whole() -> WorkingOut:
        plan = sensible(question.plan)
        return working.working(plan, question.figure, question.target, question.paths, question.months_ahead)

    return await computed(whole)
