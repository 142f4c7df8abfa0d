"""Sheets of drafts: nothing here is saved."""

from typing import Annotated

from fastapi import APIRouter, Response
from pydantic import Field

from loquen.api.computing import computed
from loquen.api.dependencies import COMPUTING, sensible
from loquen.api.sheet import view
from loquen.api.sheet.answers import SheetAnswer
from loquen.api.sheet.working import Working, working
from loquen.api.wire.answers import sent
from loquen.api.wire.plan import PlanSchema, Strict
from loquen.core.system.book import sheet_of

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


@router.post("/sheet", response_model=SheetAnswer)
async def sheet(draft: Draft) -> Response:
    """All figures and checks of a draft, asked at every keystroke."""
    return await computed(lambda: sent(view.view(sensible(draft.plan), draft.months_ahead)))


@router.post("/working", response_model=Working)
async def worked(question: Question) -> Response:
    """The working of one figure of a draft."""

    def whole() -> Response:
        sheet = sheet_of(sensible(question.plan), question.months_ahead)
        return sent(working(sheet, question.figure, question.target, question.paths))

    return await computed(whole)
