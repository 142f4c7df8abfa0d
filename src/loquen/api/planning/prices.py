"""Prices of parts, entered once for the house, and what a system comes to with them."""

from fastapi import APIRouter, Response
from pydantic import Field

from loquen.api.computing import computed
from loquen.api.dependencies import COMPUTING, Asked
from loquen.api.wire.answers import sent
from loquen.checked.plan import PlanSchema, Strict
from loquen.core.system.book import sheet_of
from loquen.core.system.build.quoting import Quote, system_quote
from loquen.house.systems.root import SYSTEMS
from loquen.store.routine import prices

router = APIRouter(prefix="/api", tags=["prices"], responses=dict(COMPUTING))


class PriceIn(Strict):
    """The price of one of a part; none forgets it."""

    part: str = Field(min_length=1, max_length=200)
    money: float | None = Field(ge=0, le=1_000_000, allow_inf_nan=False)


class QuotedPlan(Strict):
    """A system to quote for."""

    plan: PlanSchema


@router.put("/prices", status_code=204)
async def put_price(price: PriceIn, visit: Asked) -> Response:
    """Keep or forget a price for every room and system."""

    def whole() -> Response:
        with visit.writing() as session:
            prices.put(session, price.part, price.money)
        return Response(status_code=204)

    return await computed(whole)


@router.post("/plan/quote", response_model=Quote)
async def quote_plan(draft: QuotedPlan, visit: Asked) -> Response:
    """What a system comes to, part by part."""

    def whole() -> Response:
        sheet = sheet_of(SYSTEMS.sensible(draft.plan, visit.library), visit.library)
        with visit.reading() as session:
            return sent(system_quote(sheet, prices.everything(session)))

    return await computed(whole)
