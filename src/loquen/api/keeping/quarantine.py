"""Quarantine: the house's tubs, who is to come and is here, courses of treatment."""

from dataclasses import replace
from typing import Any

from fastapi import APIRouter, Request, Response

from loquen.api.computing import PAGE, computed_while
from loquen.api.dependencies import FAULTS, Asked
from loquen.api.keeping.register import refuse
from loquen.api.wire.answers import sent
from loquen.api.wire.days import Today
from loquen.checked import stored
from loquen.checked.days import day_of
from loquen.checked.documents import A_PLAN
from loquen.core.errors import UnknownKey
from loquen.core.events.kinds.lives import Arrived
from loquen.core.library.whole import Library
from loquen.core.model.records.quarantine import Arriving, TreatmentCourse, Tub, arriving_faults, course_faults
from loquen.core.model.records.register import RegisterFault, Resident
from loquen.core.model.roots.documents import document, rebuilt
from loquen.core.quarantine.tubs import new_tub
from loquen.house.quarantine import view
from loquen.house.quarantine.schema import (
    ArrivingSchema,
    CourseSchema,
    Here,
    Newcomers,
    NewTub,
    Numbered,
    TubSchema,
)
from loquen.house.register.schema import Written
from loquen.store.documents import systems
from loquen.store.documents.systems import existing
from loquen.store.happened import register
from loquen.store.routine import quarantine

router = APIRouter(prefix="/api/quarantine", tags=["quarantine"], responses=dict(FAULTS))


@router.get("", response_model=Newcomers)
async def read_quarantine(request: Request, visit: Asked, today: Today) -> Response:
    """Tubs with those in them, whose turn it is, waivers, courses."""

    def whole() -> Response:
        with visit.reading() as session:
            kept = view.read_quarantine(visit, session, day_of(today))
        return sent(view.newcomers(kept, visit.library))

    return await computed_while(request, whole, PAGE)


@router.post("/tubs", response_model=Numbered)
def set_up_tub(given: NewTub, visit: Asked) -> Response:
    """A tub as a system of its own."""
    with visit.writing() as session:
        like = A_PLAN.read(systems.read(session, given.like).document) if given.like else None
        made = systems.create(session, document(new_tub(given.name, given.litres, given.sponge_l, like)))
        quarantine.put_tub(session, made.id, document(Tub()))
    return sent(Numbered(made.id))


@router.put("/tubs/{system_id}", status_code=204)
def set_tub(system_id: int, given: TubSchema, visit: Asked) -> None:  # type: ignore[valid-type]
    """Newcomers wait in this system: how long, and since when it is free of copper."""
    tub: Tub = rebuilt(Tub, model_data(given))
    if tub.renewed:
        day_of(tub.renewed)
    with visit.writing() as session:
        quarantine.put_tub(session, system_id, document(tub))


@router.delete("/tubs/{system_id}", status_code=204)
def end_tub(system_id: int, visit: Asked) -> None:
    """Nobody waits in this system any more; it stays a system."""
    with visit.writing() as session:
        quarantine.put_tub(session, system_id, None)


@router.post("/arriving", response_model=Numbered)
def expect(given: ArrivingSchema, visit: Asked) -> Response:  # type: ignore[valid-type]
    """Somebody is to come."""
    arriving = arriving_in(given, visit.library)
    with visit.writing() as session:
        existing(session, arriving.goes_to)
        return sent(Numbered(quarantine.arriving.add(session, document(arriving))))


@router.put("/arriving/{number}", status_code=204)
def change_arrival(number: int, given: ArrivingSchema, visit: Asked) -> None:  # type: ignore[valid-type]
    arriving = arriving_in(given, visit.library)
    with visit.writing() as session:
        existing(session, arriving.goes_to)
        quarantine.arriving.put(session, number, document(arriving))


@router.delete("/arriving/{number}", status_code=204)
def expect_no_more(number: int, visit: Asked) -> None:
    with visit.writing() as session:
        quarantine.arriving.put_away(session, number)


@router.post("/arriving/{number}/restore", status_code=204)
def expect_again(number: int, visit: Asked) -> None:
    with visit.writing() as session:
        quarantine.arriving.bring_back(session, number)


@router.post("/arriving/{number}/here", response_model=Written)
def they_are_here(number: int, given: Here, visit: Asked) -> Response:
    """Write them into the register, in the tub; without quarantine in the system that they were meant for."""
    with visit.writing() as session:
        arriving = stored.arriving(quarantine.arriving.read(session, number))
        if arriving.resident:
            raise RegisterFault("here_already", "count")
        into = arriving.goes_to if arriving.waived else given.tub
        if not into:
            raise RegisterFault("which_tub", "tub")
        resident = Resident(arriving.species, source=arriving.source)
        came = Arrived(
            given.day,
            given.count,
            into,
            length_cm=given.length_cm or arriving.length_cm,
            money=given.price,
        )
        refuse(session, None, resident, [came], day_of(given.today), visit.library)
        made = register.add(session, document(resident), [came])
        kept = replace(arriving, resident=made.id, number=given.count)
        quarantine.arriving.put(session, number, document(kept))
    return sent(Written(made.id, made.happened[0][0], None))


@router.post("/courses", response_model=Numbered)
def begin_course(given: CourseSchema, visit: Asked) -> Response:  # type: ignore[valid-type]
    """A course of treatment in a tub, by its label."""
    course = course_in(given)
    with visit.writing() as session:
        existing(session, course.tub)
        return sent(Numbered(quarantine.courses.add(session, document(course))))


@router.put("/courses/{number}", status_code=204)
def change_course(number: int, given: CourseSchema, visit: Asked) -> None:  # type: ignore[valid-type]
    course = course_in(given)
    with visit.writing() as session:
        existing(session, course.tub)
        quarantine.courses.put(session, number, document(course))


@router.delete("/courses/{number}", status_code=204)
def forget_course(number: int, visit: Asked) -> None:
    """A course that was written down by mistake; one that was stopped is kept."""
    with visit.writing() as session:
        quarantine.courses.put_away(session, number)


@router.post("/courses/{number}/restore", status_code=204)
def remember_course(number: int, visit: Asked) -> None:
    with visit.writing() as session:
        quarantine.courses.bring_back(session, number)


def model_data(schema: Any) -> dict[str, Any]:
    found: dict[str, Any] = schema.model_dump()
    return found


def arriving_in(schema: Any, library: Library) -> Arriving:
    """Raises: RegisterFault, UnknownKey, NamedCase for a day that there is not."""
    found: Arriving = rebuilt(Arriving, model_data(schema))
    if found.species not in library.species:
        raise UnknownKey("animals", found.species)
    faults = arriving_faults(found)
    if faults:
        raise faults[0]
    day_of(found.comes_on)
    return found


def course_in(schema: Any) -> TreatmentCourse:
    found: TreatmentCourse = rebuilt(TreatmentCourse, model_data(schema))
    for day in (found.begun, found.stopped):
        if day:
            day_of(day)
    faults = course_faults(found)
    if faults:
        raise faults[0]
    return found
