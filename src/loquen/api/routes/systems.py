"""Systems: listing, starting, copying, saving, undoing, deleting."""

from dataclasses import replace

from fastapi import APIRouter
from sqlmodel import Session

from loquen.api import sheets
from loquen.api.dependencies import FAULTS, OpenSession, sensible
from loquen.api.schemas.plan import document, read_document, rebuilt, to_core
from loquen.api.schemas.sheet import SentenceOut
from loquen.api.schemas.system import (
    Base,
    PlanUpdate,
    StartFromAnimals,
    StartFromGlass,
    SystemLine,
    SystemOut,
)
from loquen.core.model.plan import Group, Plan, Tank
from loquen.core.sheet import starting
from loquen.store import systems

router = APIRouter(prefix="/api/systems", tags=["systems"], responses=dict(FAULTS))


@router.get("")
def list_systems(session: OpenSession) -> list[SystemLine]:
    lines = []
    for saved in systems.list_all(session):
        plan = read_document(saved.plan)
        summary, glasses, section = sheets.line(plan)
        lines.append(
            SystemLine(
                id=saved.id, name=plan.name, summary=SentenceOut.of(summary), glasses=glasses, section=section
            )
        )
    return lines


@router.post("/from-animals", status_code=201)
def start_from_animals(start: StartFromAnimals, session: OpenSession) -> SystemOut:
    """The smallest stock tank with room for these animals, with filter, heat and water to match."""
    wanted = tuple(Group(row.species, row.number) for row in start.animals)
    sensible(Plan(name=start.name, animals=wanted))
    return kept(session, starting.from_animals(start.name, wanted))


@router.post("/from-glass", status_code=201)
def start_from_glass(start: StartFromGlass, session: OpenSession) -> SystemOut:
    """A plan around the tank a keeper has."""
    tank: Tank = rebuilt(Tank, start.tank.model_dump())
    sensible(Plan(name=start.name, tank=tank))
    return kept(session, starting.from_tank(start.name, tank))


@router.get("/{system_id}")
def read_system(system_id: int, session: OpenSession) -> SystemOut:
    return SystemOut.of(systems.read(session, system_id))


@router.put("/{system_id}")
def save_plan(system_id: int, update: PlanUpdate, session: OpenSession) -> SystemOut:
    """Save a plan on the revision it was made from; 409 when that is no longer the current one."""
    plan = sensible(to_core(update.plan))
    return SystemOut.of(systems.update(session, system_id, update.base, document(plan)))


@router.post("/{system_id}/undo")
def undo(system_id: int, base: Base, session: OpenSession) -> SystemOut:
    return SystemOut.of(systems.undo(session, system_id, base.base))


@router.post("/{system_id}/redo")
def redo(system_id: int, base: Base, session: OpenSession) -> SystemOut:
    return SystemOut.of(systems.redo(session, system_id, base.base))


@router.post("/{system_id}/copy", status_code=201)
def copy_system(system_id: int, session: OpenSession) -> SystemOut:
    plan = read_document(systems.read(session, system_id).plan)
    return kept(session, replace(plan, name=f"{plan.name[:70]}, copy"))


@router.delete("/{system_id}", status_code=204)
def delete_system(system_id: int, session: OpenSession) -> None:
    systems.delete(session, system_id)


@router.post("/{system_id}/restore")
def restore_system(system_id: int, session: OpenSession) -> SystemOut:
    return SystemOut.of(systems.restore(session, system_id))


def kept(session: Session, plan: Plan) -> SystemOut:
    return SystemOut.of(systems.create(session, document(plan)))
