"""What lies ahead of a system: its cycle and its nitrate, from a draft of its plan and what its log says."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Any

from fastapi import APIRouter, Query, Request
from starlette.responses import Response

from loquen.api.computing import PAGE, computed_while
from loquen.api.dependencies import COMPUTING, FAULTS, Asked
from loquen.api.wire.answers import sent
from loquen.checked.days import Moment
from loquen.checked.documents import A_PLAN
from loquen.checked.plan import PlanSchema, Strict
from loquen.core.events.ledger import Logged
from loquen.core.graph.sheet import Sheet
from loquen.core.model.parts.animals import Group
from loquen.core.model.roots.documents import Unreadable
from loquen.core.model.roots.plan import Plan
from loquen.core.system.book import sheet_of
from loquen.core.system.cycle.donors import Donor, donor
from loquen.core.system.cycle.forecast import Forecast, forecast
from loquen.core.system.nitrate.against import Against, against
from loquen.core.system.nitrate.forecast import NitratePage, page
from loquen.core.system.trends import Creep, trends
from loquen.house.house import Visit
from loquen.house.log.reading import log_of
from loquen.house.register.lived import as_lived, living
from loquen.house.systems.root import SYSTEMS
from loquen.store.documents import systems

router = APIRouter(prefix="/api/systems", tags=["forecasts"], responses={**COMPUTING, 404: FAULTS[404]})


@dataclass(frozen=True, slots=True)
class Trends:
    """What creeps, by measure."""

    rows: tuple[Creep, ...]


@dataclass(frozen=True, slots=True)
class DonorOut:
    """A system that could give media, by its number and name."""

    id: int
    name: str
    donor: Donor


@dataclass(frozen=True, slots=True)
class Donors:
    """The systems that could give media to a new one."""

    rows: tuple[DonorOut, ...]


class Ahead(Strict):
    """A draft of the plan, and the moment that is now where the keeper is."""

    plan: PlanSchema
    now: Moment


async def answered(
    request: Request,
    system_id: int,
    asked: Ahead,
    visit: Visit,
    work: Callable[[Sheet[Plan], Sequence[Logged], datetime], Any],
) -> Response:
    def whole() -> Response:
        with visit.reading() as session:
            entries, lives = log_of(session, system_id), living(visit, session, asked.now.date())
        plan = SYSTEMS.sensible(asked.plan, visit.library)
        return sent(work(todays(visit, plan, lives.get(system_id, ())), entries, asked.now))

    return await computed_while(request, whole, PAGE)


def todays(visit: Visit, plan: Plan, lives: tuple[Group, ...]) -> Sheet[Plan]:
    """The sheet of a draft for the animals as they are today."""
    return sheet_of(as_lived(visit, plan, lives), visit.library, 0.0)


@router.post("/{system_id}/cycle", response_model=Forecast)
async def read_cycle(request: Request, system_id: int, asked: Ahead, visit: Asked) -> Response:
    """The forecast of a cycle; 422 "not_begun" for a filter that has long been running."""
    return await answered(request, system_id, asked, visit, forecast)


@router.post("/{system_id}/nitrate", response_model=NitratePage)
async def read_nitrate(request: Request, system_id: int, asked: Ahead, visit: Asked) -> Response:
    """The forecast of nitrate, what each lever is worth, and what the log says."""
    return await answered(request, system_id, asked, visit, page)


@router.post("/{system_id}/trends", response_model=Trends)
async def read_trends(request: Request, system_id: int, asked: Ahead, visit: Asked) -> Response:
    """Where KH, pH, hardness, conductivity, temperature and salt are heading."""
    return await answered(request, system_id, asked, visit, lambda *known: Trends(trends(*known)))


@router.post("/{system_id}/nitrate/against/{other_id}", response_model=Against)
async def read_against(request: Request, system_id: int, other_id: int, asked: Ahead, visit: Asked) -> Response:
    """This tank against another; 422 "nothing_read" where a log is too short."""

    def whole() -> Response:
        with visit.reading() as session:
            logs = [log_of(session, number) for number in (system_id, other_id)]
            other = A_PLAN.read(systems.read(session, other_id).document)
            lives = living(visit, session, asked.now.date())
        here = todays(visit, SYSTEMS.sensible(asked.plan, visit.library), lives.get(system_id, ()))
        there = todays(visit, other, lives.get(other_id, ()))
        return sent(against((here, logs[0]), (there, logs[1]), asked.now))

    return await computed_while(request, whole, PAGE)


@router.get("/{system_id}/donors", response_model=Donors)
async def read_donors(
    request: Request, system_id: int, visit: Asked, share: Annotated[float, Query(ge=0, le=1)] = 0.3
) -> Response:
    """The other systems, and how each would stand without a share of its media."""

    def whole() -> Response:
        with visit.reading() as session:
            others = [row for row in systems.list_all(session) if row.id != system_id]
        found = []
        for row in others:
            try:
                plan = A_PLAN.read(row.document)
            except Unreadable:
                continue
            giver = donor(sheet_of(plan, visit.library), share) if plan.cycle.begun_by == "running" else None
            if giver is not None:
                found.append(DonorOut(row.id, plan.name, giver))
        return sent(Donors(tuple(found)))

    return await computed_while(request, whole, PAGE)
