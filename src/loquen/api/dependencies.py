"""What routes are given: the visit, a plan that makes sense."""

from http import HTTPStatus
from typing import Annotated, Any

from fastapi import Depends, Request

from loquen.api.wire.faults import Fault
from loquen.house.house import House, Visit

FAULT_SHAPE = {"application/json": {"schema": {"$ref": "#/components/schemas/Fault"}}}
Responses = dict[int | str, dict[str, Any]]


def faults_of(*codes: int) -> Responses:
    """Faults told by reference: with a model of its own for each, the first request for a route builds a thousand of them."""
    return {code: {"description": HTTPStatus(code).phrase, "content": FAULT_SHAPE} for code in codes}


FAULTS = faults_of(404, 409, 422, 500, 503, 507)
FAULT: Responses = {500: {"model": Fault}}
"""Where the shape itself is described, once."""
COMPUTING = faults_of(422, 500, 503)


async def visit_of(request: Request) -> Visit:
    house: House = request.app.state.house
    return house.visited()


# A route opens its transaction itself and ends it before it answers: a session that a dependency held would wait
# for the route's turn of a thread while it keeps the turn to write.
Asked = Annotated[Visit, Depends(visit_of)]
