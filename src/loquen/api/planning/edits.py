"""A plan's draft at every keystroke: what an edit changes, and what follows from it. Nothing here is saved."""

from typing import TYPE_CHECKING, Any

from fastapi import APIRouter, Request, Response
from pydantic import Field
from pydantic_core import to_json

from loquen.api.computing import computed, computed_while
from loquen.api.dependencies import COMPUTING, Asked
from loquen.api.wire.answers import sent
from loquen.house.sheet import view
from loquen.house.sheet.answers import Edited, More
from loquen.house.sheet.kept import SAME, KeptSheets, difference
from loquen.house.systems.root import SYSTEMS, AtASize

router = APIRouter(prefix="/api", tags=["sheets"], responses=dict(COMPUTING))


if TYPE_CHECKING:

    class Draft(AtASize):
        plan: Any

else:
    Draft = SYSTEMS.Draft


class Edit(Draft):
    """A draft, and the version of the answer that the page has."""

    known: str | None = Field(default=None, max_length=20)


@router.post("/edit", response_model=Edited)
async def edit(draft: Edit, request: Request, visit: Asked) -> Response:
    """What an edit changes: figures and checks without what takes longer, against the answer that the page has."""

    def whole() -> Response:
        kept: KeptSheets = request.app.state.sheets
        known = kept.answer(draft.known)
        sheet = kept.sheet(SYSTEMS.sensible(draft.plan, visit.library), visit.library, draft.months_ahead)
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
        return sent(
            view.more(kept.sheet(SYSTEMS.sensible(draft.plan, visit.library), visit.library, draft.months_ahead))
        )

    return await computed_while(request, whole)
