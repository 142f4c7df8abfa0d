"""Documents of any root: read, saved, undone, put away and brought back; their drafts computed and explained."""

from typing import Any

from fastapi import APIRouter, Response

from loquen.api.computing import computed
from loquen.api.dependencies import COMPUTING, FAULTS, Asked
from loquen.api.wire.answers import sent
from loquen.core.model.roots.documents import document, name_of
from loquen.house.documents.root import Root
from loquen.house.documents.wire import Base, PutAway
from loquen.house.sheet.working import Working, working
from loquen.store.documents import systems


def kept(root: Root[Any]) -> APIRouter:
    """The routes of documents as they are kept; what is listed and how one is begun, each root says itself."""
    router = APIRouter(prefix=root.at, tags=[root.name], responses=dict(FAULTS))
    Out, Update, Begun = root.Out, root.Update, root.Begun  # noqa: N806

    @router.get("/deleted")
    def list_deleted(visit: Asked) -> list[PutAway]:
        """Those that were put away, the last one first."""
        with visit.reading() as session:
            return [
                PutAway(id=row.id, name=name_of(row.document, row.id), deleted=row.deleted)
                for row in systems.list_deleted(session, root.name)
            ]

    if root.begun_as_sent:

        @router.post("", status_code=201, response_model=Out)
        def begin(start: Begun, visit: Asked) -> Any:  # type: ignore[valid-type]
            """One more, of a document that makes sense."""
            text = document(root.sensible(root.document_of(start), visit.library))
            with visit.writing() as session:
                return root.out(systems.create(session, text, root.name))

    @router.get("/{number}", response_model=Out)
    def read(number: int, visit: Asked) -> Any:
        """One with its document; 422 when that can not be read."""
        with visit.reading() as session:
            return root.out(systems.read(session, number, root.name))

    @router.put("/{number}", response_model=Out)
    def save(number: int, update: Update, visit: Asked) -> Any:  # type: ignore[valid-type]
        """Save a document on the revision it was made from; 409 when that is no longer the current one."""
        text = document(root.sensible(root.document_of(update), visit.library))
        with visit.writing() as session:
            return root.out(systems.update(session, number, update.base, text, root.name))  # type: ignore[attr-defined]

    @router.post("/{number}/undo", response_model=Out)
    def undo(number: int, base: Base, visit: Asked) -> Any:
        with visit.writing() as session:
            return root.out(systems.undo(session, number, base.base, root.name))

    @router.post("/{number}/redo", response_model=Out)
    def redo(number: int, base: Base, visit: Asked) -> Any:
        with visit.writing() as session:
            return root.out(systems.redo(session, number, base.base, root.name))

    @router.delete("/{number}", status_code=204)
    def put_away(number: int, visit: Asked) -> None:
        with visit.writing() as session:
            systems.delete(session, number, root.name)

    @router.post("/{number}/restore", status_code=204)
    def bring_back(number: int, visit: Asked) -> None:
        with visit.writing() as session:
            systems.restore(session, number, root.name)

    return router


def drafts(root: Root[Any]) -> APIRouter:
    """The routes of drafts: nothing that is asked here is saved."""
    router = APIRouter(prefix=root.drafts_at, tags=[root.name], responses=dict(COMPUTING))
    Draft, Question = root.Draft, root.Question  # noqa: N806

    @router.post("/sheet", response_model=root.answers)
    async def sheet(draft: Draft, visit: Asked) -> Response:  # type: ignore[valid-type]
        """All figures and checks of a draft, asked at every keystroke."""

        def whole() -> Response:
            core = root.sensible(root.document_of(draft), visit.library)
            return sent(root.answer(visit, core, draft))

        return await computed(whole)

    @router.post("/working", response_model=Working)
    async def explain(question: Question, visit: Asked) -> Response:  # type: ignore[valid-type]
        """The working of one figure of a draft."""

        def whole() -> Response:
            asked: Any = question
            core = root.sensible(root.document_of(asked), visit.library)
            made = root.sheet(visit, core, asked)
            return sent(working(made, asked.figure, asked.target, asked.paths))

        return await computed(whole)

    return router
