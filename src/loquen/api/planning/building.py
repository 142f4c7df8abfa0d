"""What a builder takes away: the build book, the section, cutting list and parts, of a draft."""

from collections.abc import Callable, Mapping
from typing import Literal

from fastapi import APIRouter, Request, Response
from pydantic import Field

from loquen.api.computing import LONG, computed_while
from loquen.api.dependencies import COMPUTING, Asked
from loquen.checked.plan import PlanSchema, Strict
from loquen.core.graph.sheet import Sheet
from loquen.core.system.book import sheet_of
from loquen.core.system.build import system_quote
from loquen.house.systems.root import SYSTEMS
from loquen.store.routine import prices as kept

router = APIRouter(prefix="/api/build", tags=["building"], responses=dict(COMPUTING))

Form = Literal["book.pdf", "section.svg", "cuts.dxf", "cuts.csv", "parts.csv", "parts.xlsx"]


class Order(Strict):
    """A plan to build, and the units to write it in, by kind."""

    plan: PlanSchema
    units: dict[str, str] = Field(default_factory=dict, max_length=60)


def makers(prices: Mapping[str, float]) -> dict[str, tuple[str, Callable[[Sheet, dict[str, str]], bytes | str]]]:
    """How each form is made, with its media type; the libraries are loaded when one is first asked for."""
    from loquen.exchange import build_book, drawing, tables

    return {
        "book.pdf": (
            "application/pdf",
            lambda sheet, units: build_book.build_book(sheet, system_quote(sheet, prices), units),
        ),
        "section.svg": ("image/svg+xml", lambda sheet, units: drawing.svg(drawing.section(sheet, units))),
        "cuts.dxf": ("image/vnd.dxf", lambda sheet, _: tables.as_dxf(sheet)),
        "cuts.csv": ("text/csv", lambda sheet, _: tables.as_csv(tables.CUTS, tables.cut_rows(sheet))),
        "parts.csv": (
            "text/csv",
            lambda sheet, _: tables.as_csv(tables.PARTS, tables.part_rows(system_quote(sheet, prices))),
        ),
        "parts.xlsx": (
            "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
            lambda sheet, _: tables.as_workbook(sheet, system_quote(sheet, prices)),
        ),
    }


@router.post("/{form}", response_class=Response)
async def build(request: Request, form: Form, order: Order, visit: Asked) -> Response:
    """One document of a draft."""

    def document() -> Response:
        with visit.reading() as session:
            media, make = makers(kept.everything(session))[form]
        content = make(sheet_of(SYSTEMS.sensible(order.plan, visit.library), visit.library), order.units)
        return Response(
            content, media_type=media, headers={"Content-Disposition": f'attachment; filename="{form}"'}
        )

    return await computed_while(request, document, LONG)
