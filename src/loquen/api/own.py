"""The keeper's own rows of the library: copied or started, edited column by column, taken along with a plan."""

import json
import re
from collections.abc import Iterable, Mapping
from dataclasses import asdict, dataclass, fields
from typing import Any, get_type_hints

from fastapi import APIRouter, Request, Response
from pydantic import Field

from loquen.api.computing import computed
from loquen.api.dependencies import FAULTS, Kept, sensible
from loquen.api.library import whole_library
from loquen.api.systems.schema import SystemOut
from loquen.api.wire.answers import sent
from loquen.api.wire.documents import read_document
from loquen.api.wire.plan import PlanSchema, Strict
from loquen.core.data import library, own
from loquen.core.data.tables import toml
from loquen.core.model.documents import document, plain_data, upgraded
from loquen.core.model.plan import Plan
from loquen.core.model.quantity import kinds
from loquen.store import own as own_rows
from loquen.store import systems
from loquen.store.database import Database

router = APIRouter(prefix="/api/own", tags=["own"], responses=dict(FAULTS))
USED_IN = {
    "species": (("animals", "species"),),
    "plants": (("planting", "plant"),),
    "media": (("filters", "media"), ("sump", "sump_media")),
}
"""Fields of a plan that hold a key of each kind; a filter or pump is copied into the plan when it is chosen."""


@dataclass(frozen=True, slots=True)
class Column:
    """A column: what it is called, the unit it is in, and what may stand in it; any text without choices."""

    name: str
    label: str
    number: bool
    unit: str
    choices: list[str]
    empty: bool


@dataclass(frozen=True, slots=True)
class LibraryRow:
    key: str
    name: str
    own: bool
    cells: dict[str, str]


@dataclass(frozen=True, slots=True)
class KindShown:
    """One kind of rows with its columns, the keeper's own first."""

    kind: own.Kind
    label: str
    columns: list[Column]
    rows: list[LibraryRow]


@dataclass(frozen=True, slots=True)
class OwnLibrary:
    kinds: list[KindShown]


@dataclass(frozen=True, slots=True)
class TakenAlong:
    """A plan as a document, with the own rows that it uses by kind and key."""

    plan: dict[str, Any]
    own: dict[str, dict[str, dict[str, str]]]


class CellsIn(Strict):
    """The cells of a row, by column."""

    cells: dict[str, str] = Field(max_length=80)


class TakenAlongIn(Strict):
    """A plan's document with its own rows, as it was taken along."""

    plan: dict[str, Any]
    own: dict[str, dict[str, dict[str, str]]] = Field(default_factory=dict, max_length=len(own.KINDS))


@router.get("", response_model=OwnLibrary)
async def read_own() -> Response:
    """Every kind with its columns and all its rows."""
    return await computed(lambda: sent(OwnLibrary([shown(kind) for kind in own.KINDS])))


def shown(kind: own.Kind) -> KindShown:
    described = library.OWN_KINDS[kind]
    rows = [*own.kept[kind].items(), *described.shipped().items()]
    return KindShown(
        kind,
        described.label,
        [column_of(described.row_type, field.name) for field in fields(described.row_type) if field.name != "key"],
        [
            LibraryRow(key, getattr(row, described.name), key in own.kept[kind], own.cells_of(row))
            for key, row in rows
        ],
    )


def column_of(row_type: type[Any], name: str) -> Column:
    hint = get_type_hints(row_type)[name]
    unit, numeric = "", hint in (float, int, float | None)
    if numeric:
        ending = [(suffix, kind) for kind in kinds().values() for suffix in kind.suffixes if name.endswith(suffix)]
        if ending:
            _, kind = max(ending, key=lambda found: len(found[0]))
            # A cell is written in the unit that values are carried in; one that is only shown otherwise has none.
            unit = next((unit.label for unit in kind.units if unit.factor == 1), "")
    table = library.keyed(name)
    choices = list(table) if table is not None else ["yes", "no"] if hint is bool else list(literals(hint))
    words = toml("columns.toml").get(name, name.replace("_", " ").capitalize())
    return Column(name, words, numeric, unit, choices, hint in (str, tuple[str, ...], float | None))


def literals(hint: Any) -> Iterable[str]:
    return (value for value in getattr(hint, "__args__", ()) if isinstance(value, str))


@router.post("/{kind}", status_code=201)
def create(kind: own.Kind, row: CellsIn, database: Kept, request: Request) -> LibraryRow:
    """A new row of one's own; 422 names every column that can not be read."""
    name = row.cells.get(library.OWN_KINDS[kind].name, "")
    return kept(database, request, kind, own.key_of(name, own.kept[kind].__contains__), row.cells)


@router.put("/{kind}/{key}")
def change(kind: own.Kind, key: str, row: CellsIn, database: Kept, request: Request) -> LibraryRow:
    if key not in own.kept[kind]:
        raise own_rows.NoSuchRow(kind, key)
    return kept(database, request, kind, key, row.cells)


@router.delete("/{kind}/{key}", status_code=204)
def delete(kind: own.Kind, key: str, database: Kept, request: Request) -> None:
    """Take a row out; 409 while a system uses it."""
    with database.writing() as session:
        for row in systems.list_all(session):
            if row.document and re.search(rf'"{re.escape(key)}"', row.document):
                raise own_rows.InUse(json.loads(row.document).get("name", ""))
        own_rows.delete(session, kind, key)
    renewed(database, request)


def kept(database: Database, request: Request, kind: own.Kind, key: str, cells: Mapping[str, str]) -> LibraryRow:
    row = library.own_row(kind, {**cells, "key": key})
    written = own.cells_of(row)
    with database.writing() as session:
        own_rows.keep(session, kind, key, json.dumps(written))
    renewed(database, request)
    return LibraryRow(key, getattr(row, library.OWN_KINDS[kind].name), True, written)


def renewed(database: Database, request: Request) -> None:
    """Everything that was made with the rows before is made anew."""
    with database.reading() as session:
        own_rows.adopt(session)
    whole_library.cache_clear()
    request.app.state.listing.forget()


# Taken along with a plan ------------------------------------------------------------------------


def used(plan: Plan) -> dict[str, dict[str, dict[str, str]]]:
    """The own rows that a plan uses, by kind and key, as cells."""
    found: dict[str, dict[str, dict[str, str]]] = {}
    for kind, places in USED_IN.items():
        for section, name in places:
            part = getattr(plan, section)
            for row in part if isinstance(part, tuple) else (part,):
                key = getattr(row, name)
                if key in own.kept[kind]:
                    found.setdefault(kind, {})[key] = own.cells_of(own.kept[kind][key])
    return found


class DraftPlan(Strict):
    """A plan that is not saved."""

    plan: PlanSchema


@router.post("/taken-along/plan", response_model=TakenAlong)
async def take_along(draft: DraftPlan) -> Response:
    """A draft as a document that another Loquen can bring in, with the own rows that it uses."""

    def document_of() -> Response:
        plan = sensible(draft.plan)
        return sent(TakenAlong(plain_data(asdict(plan)), used(plan)))

    return await computed(document_of)


@router.post("/bring-in/plan", status_code=201)
def bring_in(taken: TakenAlongIn, database: Kept, request: Request) -> SystemOut:
    """A system from a document that was taken along; own rows that differ from those here come in beside them."""
    found = upgraded(taken.plan)
    text = json.dumps(found)
    for kind in own.KINDS:
        for key, cells in taken.own.get(kind, {}).items():
            row = library.own_row(kind, {**cells, "key": key})
            present = own.kept[kind].get(key)
            if present == row:
                continue
            name = getattr(row, library.OWN_KINDS[kind].name)
            named = own.key_of(name, own.kept[kind].__contains__)
            kept(database, request, kind, named, cells)
            text = text.replace(json.dumps(key), json.dumps(named))
    plan = sensible(read_document(text))
    with database.writing() as session:
        return SystemOut.of(systems.create(session, document(plan)))
