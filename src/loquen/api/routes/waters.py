"""Waters shared by all systems: entered, read from a report, or asked of the report service."""

from typing import Any

from fastapi import APIRouter
from sqlmodel import Session

from loquen.api import sheets
from loquen.api.dependencies import FAULTS, OpenSession
from loquen.api.reading import listed
from loquen.api.schemas.plan import SourceSchema, rebuilt
from loquen.api.schemas.water import AreaOut, ReportIn, WaterIn, WaterOut, plain
from loquen.core.model.plan import Plan, Source
from loquen.core.sheet.book import sheet_of
from loquen.devices import water_reports
from loquen.exchange.reports import LineFault, UnreadReport, read_report
from loquen.store import waters

router = APIRouter(prefix="/api/waters", tags=["waters"], responses=dict(FAULTS))


def shown(water_id: int, document: dict[str, Any]) -> WaterOut:
    """A water with the figures that follow from it alone."""
    water = SourceSchema.model_validate(document)
    source: Source = rebuilt(Source, water.model_dump())
    sheet = sheet_of(Plan(name="water", sources=(source,)))
    figures = [figure for figure in sheets.figures_of(sheet) if figure.key.startswith("sources.0.")]
    questions = sheets.findings(listed(sheet, "sources.0.src_questions"))
    return WaterOut(id=water_id, water=water, figures=figures, questions=questions)


@router.get("")
def list_waters(session: OpenSession) -> list[WaterOut]:
    return [shown(*row) for row in waters.list_all(session)]


@router.post("", status_code=201)
def create_water(water: WaterIn, session: OpenSession) -> WaterOut:
    return kept(session, plain(water.sources[0]))


@router.put("/{water_id}")
def update_water(water_id: int, water: WaterIn, session: OpenSession) -> WaterOut:
    return shown(*waters.update(session, water_id, plain(water.sources[0])))


@router.delete("/{water_id}", status_code=204)
def delete_water(water_id: int, session: OpenSession) -> None:
    waters.delete(session, water_id)


@router.post("/{water_id}/restore", status_code=204)
def restore_water(water_id: int, session: OpenSession) -> None:
    waters.restore(session, water_id)


@router.post("/from-report", status_code=201)
def create_from_report(report: ReportIn, session: OpenSession) -> WaterOut:
    """A water from a report in the open layout; 422 names every line that can not be read."""
    return kept(session, read_report(report.text))


@router.get("/areas")
def list_areas() -> list[AreaOut]:
    """The places that the report service knows. It is a stand-in that ships with Loquen."""
    return [AreaOut(key=key, label=label) for key, label in water_reports.areas().items()]


@router.post("/from-area/{area}", status_code=201)
def create_from_area(area: str, session: OpenSession) -> WaterOut:
    """A water from the report service's report of one place."""
    if area not in water_reports.areas():
        raise UnreadReport([LineFault(1, "the report service does not know this place")])
    return kept(session, read_report(water_reports.report(area)))


def kept(session: Session, fields: dict[str, Any]) -> WaterOut:
    return shown(*waters.create(session, plain(SourceSchema.model_validate(fields))))
