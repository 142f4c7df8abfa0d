"""Breeding: ventures listed, started, saved, undone and deleted; drafts computed; compared in a tank, assigned to a rack."""

from collections.abc import Callable
from typing import Any, Literal

from fastapi import APIRouter, Request, Response

from loquen.api.computing import LONG, PAGE, computed_while
from loquen.api.dependencies import COMPUTING, FAULTS, Asked
from loquen.api.wire.answers import sent
from loquen.api.wire.days import Today
from loquen.checked.days import day_of
from loquen.core.growout.first import first_venture
from loquen.core.model.roots.documents import document
from loquen.house.breeding import view
from loquen.house.breeding.root import VENTURES
from loquen.house.breeding.schema import (
    Breeding,
    RackAnswer,
    RackWanted,
    VentureStart,
)
from loquen.store.documents import systems
from loquen.store.routine import house
from loquen.store.tables import VENTURE

router = APIRouter(prefix="/api/ventures", tags=["breeding"], responses=dict(FAULTS))
drafts = APIRouter(prefix="/api/breeding", tags=["breeding"], responses=dict(COMPUTING))
"""Nothing asked here is saved but the rack as it was last asked for."""


@router.post("", status_code=201, response_model=VENTURES.Out)
def start_venture(start: VentureStart, visit: Asked) -> Any:
    """A first venture of a kind in a tank, as the library says."""
    with visit.writing() as session:
        plan = view.kept(visit, session).plans.get(start.system)
        made = first_venture(start.species, start.system if plan else 0, start.purpose, plan, visit.library)
        return VENTURES.out(systems.create(session, document(made), VENTURE))


@drafts.get("", response_model=Breeding)
async def read_breeding(request: Request, visit: Asked, today: Today, system: int | None = None) -> Response:
    """All ventures, compared in one tank with leaving it as it is."""

    def whole() -> Response:
        with visit.reading() as session:
            return sent(view.breeding(session, view.kept(visit, session), system, day_of(today), visit.library))

    return await computed_while(request, whole, PAGE)


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
