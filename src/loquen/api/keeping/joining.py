"""In what order newcomers join a system, and the way back for one that is hunted."""

from typing import Annotated

from fastapi import APIRouter, Query, Request, Response

from loquen.api.computing import PAGE, computed_while
from loquen.api.dependencies import FAULTS, Asked
from loquen.api.wire.answers import sent
from loquen.api.wire.days import Today
from loquen.checked.days import day_of
from loquen.checked.documents import A_PLAN
from loquen.core.errors import UnknownKey
from loquen.core.register.homes import living_groups, places_for
from loquen.house.joining import JoinOrder, one_of, order_of
from loquen.house.quarantine.view import read_quarantine
from loquen.house.register.schema import NamedPlace, Places
from loquen.store.documents import systems
from loquen.store.documents.systems import existing

router = APIRouter(prefix="/api", tags=["joining"], responses=dict(FAULTS))


@router.get("/systems/{system_id}/joining", response_model=JoinOrder)
async def read_joining(request: Request, system_id: int, visit: Asked, today: Today) -> Response:
    """Batches from temper, group and the filter's growth, each with its sizes and the day's list."""

    def whole() -> Response:
        day = day_of(today)
        with visit.reading() as session:
            plan = A_PLAN.read(systems.read(session, system_id).document)
            kept = read_quarantine(visit, session, day)
        living = living_groups((row.life for row in kept.written), system_id, day, visit.library)
        return sent(order_of(plan, living, kept, day, visit.library))

    return await computed_while(request, whole, PAGE)


@router.get("/systems/{system_id}/joining/out", response_model=Places)
async def read_way_out(
    request: Request, system_id: int, visit: Asked, today: Today, animal: Annotated[str, Query(max_length=80)]
) -> Response:
    """Where one of a kind could go now that is hunted in a system: the other systems, those that take it first."""
    if animal not in visit.library.species:
        raise UnknownKey("animals", animal)

    def whole() -> Response:
        with visit.reading() as session:
            existing(session, system_id)
            kept = read_quarantine(visit, session, day_of(today))
        plans = {key: plan for key, plan in kept.plans.items() if key != system_id and key not in kept.tubs}
        one = one_of(kept.plans.get(system_id), animal, visit.library)
        found = places_for(one, plans, visit.library)
        return sent(Places([NamedPlace(kept.names[place.system_id], place) for place in found]))

    return await computed_while(request, whole, PAGE)
