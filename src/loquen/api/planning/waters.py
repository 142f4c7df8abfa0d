"""Waters shared by all systems: entered, read from a report, or asked of the report service."""

from typing import Any

from fastapi import APIRouter

from loquen.api.dependencies import FAULTS, Asked
from loquen.checked.documents import read_water
from loquen.checked.plan import SourceSchema, water_from_core, water_to_core
from loquen.core.library.whole import Library
from loquen.core.model.roots.documents import Unreadable, document
from loquen.core.model.roots.plan import Plan
from loquen.core.system.book import sheet_of
from loquen.core.system.told import rows_of
from loquen.devices import water_reports
from loquen.exchange.reports import LineFault, UnreadReport, read_report
from loquen.house.house import Visit
from loquen.house.sheet.judged import figures_of
from loquen.house.waters import AreaOut, DeletedWater, ReportIn, WaterIn, WaterOut, WaterUpdate
from loquen.store.documents import waters
from loquen.store.documents.waters import KeptWater

router = APIRouter(prefix="/api/waters", tags=["waters"], responses=dict(FAULTS))


def shown(kept: KeptWater, library: Library) -> WaterOut:
    """A water with the figures that follow from it alone; why, where it can not be read."""
    try:
        water = read_water(kept.document)
    except Unreadable as fault:
        return WaterOut(id=kept.id, revision=kept.revision, water=None, figures=[], questions=[], why=fault.why)
    sheet = sheet_of(Plan(name="water", sources=(water,)), library)
    figures = [figure for figure in figures_of(sheet).values() if figure.key.startswith("sources.0.")]
    questions = list(rows_of(sheet, "sources.0.src_questions"))
    return WaterOut(
        id=kept.id, revision=kept.revision, water=water_from_core(water), figures=figures, questions=questions
    )


@router.get("")
def list_waters(visit: Asked) -> list[WaterOut]:
    with visit.reading() as session:
        rows = waters.list_all(session)
    return [shown(row, visit.library) for row in rows]


@router.get("/deleted")
def list_deleted(visit: Asked) -> list[DeletedWater]:
    """Waters that were put away, the last one first."""
    with visit.reading() as session:
        rows = waters.list_deleted(session)
    return [DeletedWater(id=row.id, name=name_of(row), deleted=row.deleted) for row in rows if row.deleted]


def name_of(row: KeptWater) -> str:
    try:
        return read_water(row.document).src_name
    except Unreadable:
        return f"Water {row.id}"


@router.post("", status_code=201)
def create_water(water: WaterIn, visit: Asked) -> WaterOut:
    return stored(visit, water.sources[0])


@router.put("/{water_id}")
def update_water(water_id: int, update: WaterUpdate, visit: Asked) -> WaterOut:
    """Keep what a water is now; 409 when it was changed since the revision that the change was made from."""
    with visit.writing() as session:
        row = waters.update(session, water_id, update.base, document(water_to_core(update.sources[0])))
    return shown(row, visit.library)


@router.delete("/{water_id}", status_code=204)
def delete_water(water_id: int, visit: Asked) -> None:
    with visit.writing() as session:
        waters.delete(session, water_id)


@router.post("/{water_id}/restore", status_code=204)
def restore_water(water_id: int, visit: Asked) -> None:
    with visit.writing() as session:
        waters.restore(session, water_id)


@router.post("/from-report", status_code=201)
def create_from_report(report: ReportIn, visit: Asked) -> WaterOut:
    """A water from a report in the open layout; 422 names every place that can not be read."""
    return from_fields(visit, read_report(report.text))


@router.get("/areas")
def list_areas() -> list[AreaOut]:
    """The places that the report service knows. It is a stand-in that ships with Loquen."""
    return [AreaOut(key=key, label=label) for key, label in water_reports.areas().items()]


@router.post("/from-area/{area}", status_code=201)
def create_from_area(area: str, visit: Asked) -> WaterOut:
    """A water from the report service's report of one place."""
    if area not in water_reports.areas():
        raise UnreadReport([LineFault(1, 1, "the report service does not know this place")])
    return from_fields(visit, read_report(water_reports.report(area)))


def from_fields(visit: Visit, fields: dict[str, Any]) -> WaterOut:
    return stored(visit, SourceSchema.model_validate(fields))


def stored(visit: Visit, water: SourceSchema) -> WaterOut:
    with visit.writing() as session:
        row = waters.create(session, document(water_to_core(water)))
    return shown(row, visit.library)
