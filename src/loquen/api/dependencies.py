"""What routes are given: the database, a plan that makes sense."""

from typing import Annotated, Any

from fastapi import Depends, Request

from loquen.api.wire.faults import Fault, InconsistentPlan
from loquen.api.wire.plan import to_core
from loquen.core.model.consistency import conflicts
from loquen.core.model.plan import Plan
from loquen.store.database import Database

FAULTS: dict[int | str, dict[str, Any]] = {code: {"model": Fault} for code in (404, 409, 422, 500, 503, 507)}
COMPUTING: dict[int | str, dict[str, Any]] = {code: FAULTS[code] for code in (422, 500, 503)}


async def database_of(request: Request) -> Database:
    database: Database = request.app.state.database
    return database


# A route opens its transaction itself and ends it before it answers: a session that a dependency held would wait
# for the route's turn of a thread while it keeps the turn to write.
Kept = Annotated[Database, Depends(database_of)]


def sensible(plan: Any) -> Plan:
    """A plan of the core, from the wire or as it is; raise InconsistentPlan when its parts contradict each other."""
    core = plan if isinstance(plan, Plan) else to_core(plan)
    found = conflicts(core)
    if found:
        raise InconsistentPlan(found)
    return core
