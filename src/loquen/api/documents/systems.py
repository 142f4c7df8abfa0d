"""Systems: listing, starting, copying, saving, undoing, deleting, and what is left when a plan can not be read."""

from dataclasses import replace
from typing import Annotated, Any

from fastapi import APIRouter, Query, Request, Response

from loquen.api.computing import aside, computed
from loquen.api.dependencies import FAULTS, Asked
from loquen.api.wire.answers import sent
from loquen.checked.documents import A_PLAN
from loquen.checked.plan import tank_there_is
from loquen.core.model.inputs.quantity import Sentence
from loquen.core.model.parts.animals import Group
from loquen.core.model.roots.documents import Unreadable, document, name_of
from loquen.core.model.roots.plan import Plan
from loquen.core.system.planner import first_plan
from loquen.house.ahead import make_ahead
from loquen.house.house import Visit
from loquen.house.systems import listing
from loquen.house.systems.listing import Order
from loquen.house.systems.root import SYSTEMS
from loquen.house.systems.schema import (
    HistoryOut,
    PutBack,
    RevisionOut,
    StartFromAnimals,
    StartFromGlass,
    StartFromPlan,
    SystemName,
    SystemsPart,
)
from loquen.store.documents import systems, variants
from loquen.store.tables import RevisionRow

router = APIRouter(prefix="/api/systems", tags=["systems"], responses=dict(FAULTS))
MOST_SHOWN = 40
"""Revisions shown of a history, the newest."""


@router.get("", response_model=SystemsPart)
async def list_systems(
    request: Request,
    visit: Asked,
    find: Annotated[str, Query(max_length=200)] = "",
    order: Order = "started",
    start: Annotated[int, Query(ge=0, le=100_000)] = 0,
    count: Annotated[int, Query(ge=1, le=100)] = 24,
) -> Response:
    """A part of the list; the lines of the others are made while nobody asks."""

    def part() -> Response:
        with visit.reading() as session:
            present = systems.list_all(session)
        answer = listing.part(visit, present, find, order, start, count)
        aside(lambda: make_ahead(visit, listing.line_of, present, aside))
        return sent(answer)

    return await computed(part)


@router.get("/names")
def list_names(visit: Asked) -> list[SystemName]:
    """Every system by number and name alone."""
    with visit.reading() as session:
        return [SystemName(id=row.id, name=name_of(row.document, row.id)) for row in systems.list_all(session)]


@router.post("", status_code=201, response_model=SYSTEMS.Out)
def start_from_plan(start: StartFromPlan, visit: Asked) -> Any:
    """A system of a plan that was chosen; those that were not stay as its variants."""
    plan = SYSTEMS.sensible(start.plan, visit.library)
    others = [(row.name, document(SYSTEMS.sensible(row.plan, visit.library))) for row in start.variants]
    with visit.writing() as session:
        saved = systems.create(session, document(plan))
        for name, text in others:
            variants.add(session, saved.id, name, text)
        return SYSTEMS.out(saved)


@router.post("/from-animals", status_code=201, response_model=SYSTEMS.Out)
def start_from_animals(start: StartFromAnimals, visit: Asked) -> Any:
    """The smallest stock tank with room for these animals, with filter, heat and water to match."""
    wanted = tuple(Group(row.species, row.number) for row in start.animals)
    SYSTEMS.sensible(Plan(name=start.name, animals=wanted), visit.library)
    return stored(visit, first_plan.from_animals(start.name, wanted, visit.library))


@router.post("/from-glass", status_code=201, response_model=SYSTEMS.Out)
def start_from_glass(start: StartFromGlass, visit: Asked) -> Any:
    """A plan around the tank a keeper has."""
    tank = tank_there_is(start.tank)
    SYSTEMS.sensible(Plan(name=start.name, tank=tank), visit.library)
    return stored(visit, first_plan.from_tank(start.name, tank, visit.library))


@router.get("/{system_id}/history")
def read_history(system_id: int, visit: Asked) -> HistoryOut:
    """The newest revisions of a system, with why those that can not be read can not."""
    with visit.reading() as session:
        current = systems.read(session, system_id)
        revisions = systems.history(session, system_id)
    return HistoryOut(
        id=system_id,
        name=name_of(current.document or (revisions[0].plan if revisions else None), system_id),
        current=current.revision,
        count=len(revisions),
        why=why_not(current.document),
        revisions=[revision_out(row) for row in revisions[:MOST_SHOWN]],
    )


def revision_out(row: RevisionRow) -> RevisionOut:
    return RevisionOut(number=row.number, previous=row.previous, saved=row.saved, why=why_not(row.plan))


def why_not(stored: str | None) -> Sentence | None:
    """Why a document can not be read; None where it can."""
    try:
        A_PLAN.read(stored)
    except Unreadable as fault:
        return fault.why
    return None


@router.get("/{system_id}/revisions/{number}", response_class=Response)
def export_revision(system_id: int, number: int, visit: Asked) -> Response:
    """One revision's document, just as it is stored."""
    with visit.reading() as session:
        text = systems.read_revision(session, system_id, number)
    disposition = f'attachment; filename="system-{system_id}-revision-{number}.json"'
    content = text.encode("utf-8", "replace")
    return Response(content, media_type="application/json", headers={"Content-Disposition": disposition})


@router.post("/{system_id}/put-back", response_model=SYSTEMS.Out)
def put_back(system_id: int, back: PutBack, visit: Asked) -> Any:
    """An earlier revision's plan, saved anew on top of the current one."""
    with visit.writing() as session:
        return SYSTEMS.out(systems.put_back(session, system_id, back.base, back.number))


@router.post("/{system_id}/copy", status_code=201, response_model=SYSTEMS.Out)
def copy_system(system_id: int, visit: Asked) -> Any:
    with visit.reading() as session:
        plan = A_PLAN.read(systems.read(session, system_id).document)
    return stored(visit, replace(plan, name=f"{plan.name[:70]}, copy"))


def stored(visit: Visit, plan: Plan) -> Any:
    with visit.writing() as session:
        return SYSTEMS.out(systems.create(session, document(plan)))
