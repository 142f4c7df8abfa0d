"""The cycle of a system: forecast from a draft of its plan and what its log says."""

from fastapi import APIRouter
from pydantic import AwareDatetime
from starlette.responses import Response

from loquen.api.computing import computed
from loquen.api.dependencies import COMPUTING, FAULTS, Kept, sensible
from loquen.api.log.routes import logged
from loquen.api.wire.answers import sent
from loquen.api.wire.plan import PlanSchema, Strict
from loquen.core.system.book import sheet_of
from loquen.core.system.cycle.forecast import Forecast, forecast
from loquen.store import log

router = APIRouter(prefix="/api/systems", tags=["cycle"], responses={**COMPUTING, 404: FAULTS[404]})


class CycleAsked(Strict):
    """A draft of the plan, and the moment that is now where the keeper is."""

    plan: PlanSchema
    now: AwareDatetime


@router.post("/{system_id}/cycle", response_model=Forecast)
async def read_cycle(system_id: int, asked: CycleAsked, database: Kept) -> Response:
    """The forecast of a cycle; 422 "not_begun" for a filter that has long been running."""

    def whole() -> Response:
        with database.reading() as session:
            entries = [logged(row) for row in log.list_of(session, system_id)]
        return sent(forecast(sheet_of(sensible(asked.plan)), entries, asked.now))

    return await computed(whole)
