"""What a page needs once: species, equipment, the table of units, and what may be entered where."""

from dataclasses import MISSING, asdict, fields, replace
from typing import Any

from fastapi import APIRouter, Request
from pydantic import BaseModel, Field

from loquen.api.dependencies import FAULT, Asked
from loquen.checked.plan import Strict
from loquen.core.data.tables import sources
from loquen.core.library.rows.animals import Species
from loquen.core.library.whole import Library
from loquen.core.model.inputs.fields import entries, optional
from loquen.core.model.inputs.options import options_of
from loquen.core.model.inputs.quantity import Choice, Quantity, Unit, kinds
from loquen.core.model.roots.documents import plain_data
from loquen.core.system.planner.steps.filters import filter_of
from loquen.core.system.propose import sump_sizing
from loquen.house.documents.roots import Roots
from loquen.house.house import Visit
from loquen.house.kept import at_most
from loquen.store.routine import currency
from loquen.store.routine.currency import Currency

UNREAD = "ranges, litres, ratios, company and growth: keepers’ practice, unverified"

router = APIRouter(prefix="/api", tags=["library"], responses=FAULT)
MONEY = "money"
"""What can be entered into; their sections have no name in common."""


class SpeciesOut(BaseModel):
    key: str
    common: str
    scientific: str
    family: str
    shape: str
    adult_length_cm: float
    temp_low_c: float
    temp_high_c: float
    ph_low: float
    ph_high: float
    gh_low_dgh: float
    gh_high_dgh: float
    salinity_high_ppt: float
    group_least: int
    confidence: str
    source: str
    aliases: tuple[str, ...]
    note: str


class FilterOut(BaseModel):
    """A generic filter, and the row of a plan that it is."""

    key: str
    label: str
    row: dict[str, Any]


class PumpOut(BaseModel):
    """A generic return pump, and what fitting it changes in a plan."""

    key: str
    label: str
    changes: dict[str, Any]


class KindOut(BaseModel):
    key: str
    label: str
    units: tuple[Unit, ...]


class EntryOut(BaseModel):
    """What may be entered at a path; rows are written animals.*.number."""

    label: str
    kind: str
    low: float | None
    high: float | None
    whole: bool
    optional: bool
    options: dict[str, str]
    given: str
    untold: str


class LibraryOut(BaseModel):
    species: list[SpeciesOut]
    filters: list[FilterOut]
    pumps: list[PumpOut]
    kinds: list[KindOut]
    entries: dict[str, EntryOut]
    new_rows: dict[str, dict[str, Any]]
    limits: dict[str, int]


@router.get("/library")
def read_library(visit: Asked, request: Request) -> LibraryOut:
    with visit.reading() as session:
        money = currency.read(session)
    found = visit.kept(whole_library, request.app.state.roots)
    kinds_shown = [with_currency(kind, money) if kind.key == MONEY else kind for kind in found.kinds]
    return found.model_copy(update={"kinds": kinds_shown})


def with_currency(kind: KindOut, money: Currency) -> KindOut:
    """Money as this house writes it."""
    unit = replace(kind.units[0], label=money.symbol, digits=money.digits, before=money.before)
    return KindOut(key=kind.key, label=kind.label, units=(unit,))


class CurrencyIn(Strict):
    """How money is written: nothing is looked up or converted."""

    symbol: str = Field(default="", max_length=6)
    before: bool = False
    digits: int = Field(default=2, ge=0, le=4)


@router.put("/currency", status_code=204)
def put_currency(given: CurrencyIn, visit: Asked) -> None:
    with visit.writing() as session:
        currency.put(session, Currency(given.symbol.strip(), given.before, given.digits))


@at_most(2)
def whole_library(visit: Visit, roots: Roots) -> LibraryOut:
    library = visit.library
    return LibraryOut(
        species=[species_out(row) for row in library.species.values()],
        filters=[
            FilterOut(key=key, label=model.label, row=asdict(filter_of(key, library)))
            for key, model in library.filter_models.items()
        ],
        pumps=[
            PumpOut(key=key, label=model.label, changes=sump_sizing.pump_changes(model))
            for key, model in library.pump_models.items()
        ],
        kinds=[KindOut(key=kind.key, label=kind.label, units=kind.units) for kind in kinds().values()],
        entries=dict(all_entries(library, roots)),
        new_rows={section: usual(shape.sections[section]) for shape in roots.shapes for section in shape.rows},
        limits={path: most for shape in roots.shapes for path, most in shape.limits.items()},
    )


def usual(model: type) -> dict[str, Any]:
    """What a new row starts with; a field that has no usual value is left out."""
    return {item.name: plain_data(item.default) for item in fields(model) if item.default is not MISSING}


def species_out(row: Species) -> SpeciesOut:
    values = {name: getattr(row, name) for name in SpeciesOut.model_fields}
    return SpeciesOut(**{**values, "source": told_source(row)})


def told_source(row: Species) -> str:
    """Where a kind's values are from: of a row of one's own, as its owner says."""
    if row.source not in sources():
        return f"your own row: {row.source}"
    return f"names and adult length: {sources()[row.source]}; {UNREAD}"


def all_entries(library: Library, roots: Roots) -> list[tuple[str, EntryOut]]:
    found = []
    for shape in roots.shapes:
        for section, model in shape.sections.items():
            prefix = f"{section}.*." if section in shape.rows else f"{section}."
            for name, entry in entries(model).items():
                found.append((prefix + name, entry_out(entry, optional(model, name), library)))
    return found


def entry_out(entry: Quantity | Choice, may_be_empty: bool, library: Library) -> EntryOut:
    if isinstance(entry, Quantity):
        return EntryOut(
            label=entry.label,
            kind=entry.kind,
            low=entry.low,
            high=entry.high,
            whole=entry.whole,
            optional=may_be_empty,
            options={},
            given=entry.given,
            untold=entry.untold.headline if entry.untold else "",
        )
    return EntryOut(
        label=entry.label,
        kind="",
        low=None,
        high=None,
        whole=False,
        optional=may_be_empty,
        options=dict(options_of(entry, library)),
        given=entry.given,
        untold=entry.untold.headline if entry.untold else "",
    )
