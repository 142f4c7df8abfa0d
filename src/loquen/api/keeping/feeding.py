"""Feeding: what is at hand, the week of every system, and the plan that takes it."""

from datetime import UTC, datetime
from typing import Any

from fastapi import APIRouter, Request, Response

from loquen.api.computing import PAGE, computed_while
from loquen.api.dependencies import FAULTS, Asked
from loquen.api.wire.answers import sent
from loquen.api.wire.days import Today
from loquen.checked.days import day_of
from loquen.checked.documents import A_PLAN
from loquen.core.errors import UnknownKey
from loquen.core.library.whole import Library
from loquen.core.model.records.feeding import Larder, larder_faults
from loquen.core.model.roots.documents import document, rebuilt
from loquen.house.feeding import view
from loquen.house.feeding.schema import Fodder, LarderSchema, TakeFood
from loquen.house.log.deeds import deeds_of
from loquen.house.systems.root import SYSTEMS
from loquen.store.documents import systems
from loquen.store.routine import house

router = APIRouter(prefix="/api/feeding", tags=["feeding"], responses=dict(FAULTS))


@router.get("", response_model=Fodder)
async def read_feeding(request: Request, visit: Asked, today: Today) -> Response:
    """Every system's week from what is at hand."""

    def whole() -> Response:
        with visit.reading() as session:
            return sent(view.fodder(visit, session, systems.list_all(session), day_of(today)))

    return await computed_while(request, whole, PAGE)


@router.put("/larder", status_code=204)
def keep_larder(given: LarderSchema, visit: Asked) -> None:  # type: ignore[valid-type]
    """What the house has to feed with."""
    larder = larder_in(given, visit.library)
    with visit.writing() as session:
        house.put(session, house.LARDER, document(larder))


@router.post("/take/{system_id}", response_model=SYSTEMS.Out)
def take_into_plan(system_id: int, given: TakeFood, visit: Asked) -> Any:
    """The plan with the food of its rota, as one step that can be undone; meals are counted anew from then on."""
    with visit.writing() as session:
        plan = A_PLAN.read(systems.read(session, system_id).document)
        larder = view.read_larder(session)
        meals = view.logged_meals(session, deeds_of(visit, session, [system_id]), day_of(given.today))[system_id]
        saved = systems.update(session, system_id, given.base, document(view.with_food(visit, plan, larder, meals)))
        house.put(session, f"{house.FED_SINCE}{system_id}", datetime.now(UTC).isoformat())
        return SYSTEMS.out(saved)


def larder_in(schema: Any, library: Library) -> Larder:
    """Raises: RegisterFault, UnknownKey."""
    found: Larder = rebuilt(Larder, schema.model_dump())
    keys = [*found.foods, *(part.food for mix in found.mixes for part in mix.parts)]
    for key in keys:
        if key not in library.foods:
            raise UnknownKey("foods", key)
    for row in found.cultures:
        if row.culture not in library.cultures:
            raise UnknownKey("cultures", row.culture)
    faults = larder_faults(found)
    if faults:
        raise faults[0]
    return found
