"""Sheets of drafts: nothing here is saved."""

from typing import Annotated

from fastapi import APIRouter, Request, Response
from pydantic import Field
from pydantic_core import to_json

from loquen.api.computing import computed, computed_while
from loquen.api.dependencies import COMPUTING, Asked, sensible
from loquen.api.wire.answers import sent
from loquen.checked.plan import PlanSchema, Strict
from loquen.core.system.book import sheet_of
from loquen.house.sheet import view
from loquen.house.sheet.answers import Edited, More, SheetAnswer
from loquen.house.sheet.kept import SAME, KeptSheets, difference
from loquen.house.sheet.working import Working, working

router = APIRouter(prefix="/api", tags=["sheets"], responses=dict(COMPUTING))


class Draft(Strict):
    """A plan, and the size its animals are planned for: in so many months, full grown when left out."""

    plan: PlanSchema
    months_ahead: float | None = Field(default=None, ge=0, le=1200)


class Edit(Draft):
    """A draft, and the version of the answer that the page has."""

    known: str | None = Field(default=None, max_length=20)


class Question(Draft):
    """A figure to explain; with a target, also what it would take, for the named inputs or those that move it most."""

    figure: str = Field(max_length=80)
    target: float | None = Field(default=None, ge=-1e6, le=1e9)
    paths: list[Annotated[str, Field(max_length=80)]] | None = Field(default=None, max_length=8)


@router.post("/sheet", response_model=SheetAnswer)
async def sheet(draft: Draft, visit: Asked) -> Response:
    """All figures and checks of a draft, asked at every keystroke."""
    return await computed(
        lambda: sent(view.view(sensible(draft.plan, visit.library), visit.library, draft.months_ahead))
    )


@router.post("/edit", response_model=Edited)
async def edit(draft: Edit, request: Request, visit: Asked) -> Response:
    """What an edit changes: figures and checks without what takes longer, against the answer that the page has."""

    def whole() -> Response:
        kept: KeptSheets = request.app.state.sheets
        known = kept.answer(draft.known)
        sheet = kept.sheet(sensible(draft.plan, visit.library), visit.library, draft.months_ahead)
        answer = view.at_once(sheet, known.told if known else None)
        version = kept.keep(sheet, answer)
        if known is None:
            return sent(Edited(version, answer, None))
        patch = difference(known.answer, answer)
        body = {"version": version, "whole": None, "patch": None if patch is SAME else patch}
        return Response(to_json(body), media_type="application/json")

    return await computed(whole)


@router.post("/more", response_model=More)
async def what_follows(draft: Draft, request: Request, visit: Asked) -> Response:
    """Ways out of what falls short, ranges and what is outgrown: asked when the keys rest."""

    def whole() -> Response:
        kept: KeptSheets = request.app.state.sheets
        return sent(view.more(kept.sheet(sensible(draft.plan, visit.library), visit.library, draft.months_ahead)))

    return await computed_while(request, whole)


@router.post("/working", response_model=Working)
async def worked(question: Question, visit: Asked) -> Response:
    """The working of one figure of a draft."""

    def whole() -> Response:
        sheet = sheet_of(sensible(question.plan, visit.library), visit.library, question.months_ahead)
        return sent(working(sheet, question.figure, question.target, question.paths))

    return await computed(whole)
