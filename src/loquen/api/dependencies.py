"""What routes are given: the database, a plan that makes sense."""

from http import HTTPStatus
from typing import Annotated, Any

from fastapi import Depends, Request

from loquen.api.wire.faults import Fault, InconsistentPlan
from loquen.api.wire.plan import to_core
from loquen.core.model.roots.consistency import conflicts
from loquen.core.model.roots.plan import Plan
from loquen.store.database import Database

FAULT_SHAPE = {"application/json": {"schema": {"$ref": "#/components/schemas/Fault"}}}
Responses = dict[int | str, dict[str, Any]]


def faults_of(*codes: int) -> Responses:
    """Faults told by reference: with a model of its own for each, the first request for a route builds a thousand of them."""
    return {code: {"description": HTTPStatus(code).phrase, "content": FAULT_SHAPE} for code in codes}


FAULTS = faults_of(404, 409, 422, 500, 503, 507)
FAULT: Responses = {500: {"model": Fault}}
"""Where the shape itself is described, once."""
COMPUTING = faults_of(422, 500, 503)


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
