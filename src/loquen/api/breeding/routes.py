"""Breeding: ventures listed, started, saved, undone and deleted; drafts computed; compared in a tank, assigned to a rack."""

from collections.abc import Callable
from typing import Any, Literal

from fastapi import APIRouter, Request, Response

from loquen.api.computing import LONG, PAGE, computed, computed_while
from loquen.api.dependencies import COMPUTING, FAULTS, Asked
from loquen.api.wire.answers import sent
from loquen.api.wire.days import Today
from loquen.api.wire.faults import InconsistentPlan
from loquen.checked.days import day_of
from loquen.checked.plan import venture_to_core
from loquen.core.growout.first import first_venture
from loquen.core.library.whole import Library
from loquen.core.model.roots.documents import document, name_of
from loquen.core.model.roots.venture import Venture
from loquen.core.model.roots.venture_conflicts import conflicts
from loquen.house.breeding import view
from loquen.house.breeding.schema import (
    Breeding,
    DeletedVenture,
    RackAnswer,
    RackWanted,
    VentureAnswer,
    VentureDraft,
    VentureOut,
    VentureQuestion,
    VentureStart,
    VentureUpdate,
)
from loquen.house.sheet.working import Working, working
from loquen.house.systems.schema import Base
from loquen.store.documents import systems
from loquen.store.routine import house
from loquen.store.tables import VENTURE

router = APIRouter(prefix="/api/ventures", tags=["breeding"], responses=dict(FAULTS))
drafts = APIRouter(prefix="/api/breeding", tags=["breeding"], responses=dict(COMPUTING))
"""Nothing asked here is saved but the rack as it was last asked for."""


def sensible(schema: Any, library: Library) -> Venture:
    """A venture of the core; raise InconsistentPlan when its parts contradict each other."""
    venture = venture_to_core(schema)
    found = conflicts(venture, library)
    if found:
        raise InconsistentPlan(found)
    return venture


@router.get("/deleted")
def list_deleted(visit: Asked) -> list[DeletedVenture]:
    """Ventures that were put away, the last one first."""
    with visit.reading() as session:
        return [
            DeletedVenture(id=row.id, name=name_of(row.document, row.id), deleted=row.deleted)
            for row in systems.list_deleted(session, VENTURE)
        ]


@router.post("", status_code=201)
def start_venture(start: VentureStart, visit: Asked) -> VentureOut:
    """A first venture of a kind in a tank, as the library says."""
    with visit.writing() as session:
        plan = view.kept(visit, session).plans.get(start.system)
        made = first_venture(start.species, start.system if plan else 0, start.purpose, plan, visit.library)
        return VentureOut.of(systems.create(session, document(made), VENTURE))


@router.get("/{venture_id}")
def read_one(venture_id: int, visit: Asked) -> VentureOut:
    with visit.reading() as session:
        return VentureOut.of(systems.read(session, venture_id, VENTURE))


@router.put("/{venture_id}")
def save_venture(venture_id: int, update: VentureUpdate, visit: Asked) -> VentureOut:
    """Save a venture on the revision it was made from; 409 when that is no longer the current one."""
    text = document(sensible(update.venture, visit.library))
    with visit.writing() as session:
        return VentureOut.of(systems.update(session, venture_id, update.base, text, VENTURE))


@router.post("/{venture_id}/undo")
def undo_venture(venture_id: int, base: Base, visit: Asked) -> VentureOut:
    with visit.writing() as session:
        return VentureOut.of(systems.undo(session, venture_id, base.base, VENTURE))


@router.post("/{venture_id}/redo")
def redo_venture(venture_id: int, base: Base, visit: Asked) -> VentureOut:
    with visit.writing() as session:
        return VentureOut.of(systems.redo(session, venture_id, base.base, VENTURE))


@router.delete("/{venture_id}", status_code=204)
def delete_venture(venture_id: int, visit: Asked) -> None:
    with visit.writing() as session:
        systems.delete(session, venture_id, VENTURE)


@router.post("/{venture_id}/restore", status_code=204)
def restore_venture(venture_id: int, visit: Asked) -> None:
    with visit.writing() as session:
        systems.restore(session, venture_id, VENTURE)


@drafts.get("", response_model=Breeding)
async def read_breeding(request: Request, visit: Asked, today: Today, system: int | None = None) -> Response:
    """All ventures, compared in one tank with leaving it as it is."""

    def whole() -> Response:
        with visit.reading() as session:
            return sent(view.breeding(session, view.kept(visit, session), system, day_of(today), visit.library))

    return await computed_while(request, whole, PAGE)


@drafts.post("/sheet", response_model=VentureAnswer)
async def venture_sheet(draft: VentureDraft, visit: Asked) -> Response:
    """All figures and checks of a venture's draft, asked at every keystroke."""

    def whole() -> Response:
        venture = sensible(draft.venture, visit.library)
        with visit.reading() as session:
            known = view.kept(visit, session)
        return sent(view.view(known, venture, day_of(draft.today), visit.library))

    return await computed(whole)


@drafts.post("/working", response_model=Working)
async def venture_working(question: VentureQuestion, visit: Asked) -> Response:
    """The working of one figure of a venture's draft."""

    def whole() -> Response:
        venture = sensible(question.venture, visit.library)
        with visit.reading() as session:
            known = view.kept(visit, session)
        sheet = view.whole_sheet(known, venture, day_of(question.today), visit.library)
        return sent(working(sheet, question.figure, question.target, question.paths))

    return await computed(whole)


@drafts.get("/rack", response_model=RackAnswer)
async def read_rack(request: Request, visit: Asked, today: Today) -> Response:
    """The rack as it was last asked for, and its best use."""

    def whole() -> Response:
        with visit.reading() as session:
            known = view.kept(visit, session)
            return sent(
                view.rack_of(session, known, view.rack_wanted(session, known), day_of(today), visit.library)
            )

    return await computed_while(request, whole, PAGE)


@drafts.put("/rack", response_model=RackAnswer)
async def plan_rack(request: Request, wanted: RackWanted, visit: Asked, today: Today) -> Response:
    """Keep what is asked for, and answer its best use."""

    def whole() -> Response:
        with visit.writing() as session:
            house.put(session, view.RACK, wanted.model_dump_json())
        with visit.reading() as session:
            return sent(view.rack_of(session, view.kept(visit, session), wanted, day_of(today), visit.library))

    return await computed_while(request, whole, LONG)


Form = Literal["worth.csv", "worth.xlsx", "rack.csv", "rack.xlsx"]
MEDIA = {
    "csv": "text/csv",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
}


@drafts.get("/out/{form}", response_class=Response)
async def take_away(
    request: Request, form: Form, visit: Asked, today: Today, system: int | None = None
) -> Response:
    """The comparison, or the rack, as a table to take away."""

    def whole() -> Response:
        from loquen.exchange import breeding_tables

        with visit.reading() as session:
            known = view.kept(visit, session)
            if form.startswith("worth"):
                side = view.breeding(session, known, system, day_of(today), visit.library).side
                pages = breeding_tables.worth_pages(side.rows if side else ())
            else:
                wanted = view.rack_wanted(session, known)
                plan = view.rack_of(session, known, wanted, day_of(today), visit.library).plan
                pages = breeding_tables.rack_pages(plan)
        return written(form, pages)

    return await computed_while(request, whole, LONG)


def written(form: str, pages: Any) -> Response:
    """The first page as text, or all of them as a spreadsheet."""
    from loquen.exchange import tables

    ending = form.rpartition(".")[2]
    makes: dict[str, Callable[[Any], bytes | str]] = {
        "csv": lambda pages: tables.as_csv(pages[0][1], pages[0][2]),
        "xlsx": tables.as_pages,
    }
    return Response(
        makes[ending](pages),
        media_type=MEDIA[ending],
        headers={"Content-Disposition": f'attachment; filename="{form}"'},
    )
