"""What routes are given: a session in one transaction, a plan that makes sense."""

from collections.abc import Iterator
from typing import Annotated, Any

from fastapi import Depends, Request
from sqlmodel import Session

from loquen.api.errors import Fault, InconsistentPlan
from loquen.core.model.consistency import conflicts
from loquen.core.model.plan import Plan
from loquen.store.database import transaction

FAULTS: dict[int | str, dict[str, Any]] = {code: {"model": Fault} for code in (404, 409, 422)}


def session_of(request: Request) -> Iterator[Session]:
    with transaction(request.app.state.engine) as session:
        yield session


# "function": the transaction ends before the answer goes out, so that "saved" is said of what is kept.
OpenSession = Annotated[Session, Depends(session_of, scope="function")]


def sensible(plan: Plan) -> Plan:
    """The plan itself; raise InconsistentPlan when its parts contradict each other."""
    found = conflicts(plan)
    if found:
        raise InconsistentPlan(found)
    return plan
