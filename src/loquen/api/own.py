"""The keeper's own rows of the library: copied or started, edited column by column, taken along with a plan."""

import json
from collections.abc import Iterable, Mapping
from copy import deepcopy
from dataclasses import asdict, dataclass, fields
from typing import Any, get_type_hints

from fastapi import APIRouter, Request, Response
from pydantic import Field
from sqlmodel import Session

from loquen.api.computing import computed
from loquen.api.dependencies import FAULTS, Kept, sensible
from loquen.api.library import whole_library
from loquen.api.systems.schema import SystemOut
from loquen.api.wire.answers import sent
from loquen.api.wire.documents import read_document
from loquen.api.wire.plan import PlanSchema, Strict
from loquen.core.data import library, own
from loquen.core.data.tables import toml
from loquen.core.model.inputs.quantity import kinds
from loquen.core.model.roots.documents import document, plain_data, upgraded
from loquen.core.model.roots.plan import Plan
from loquen.store.database import Database
from loquen.store.documents import own as own_rows
from loquen.store.documents import systems

router = APIRouter(prefix="/api/own", tags=["own"], responses=dict(FAULTS))
USED_IN: dict[own.Kind, tuple[tuple[str, str], ...]] = {
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
    with database.writing() as session:
        key = own_rows.add(session, kind, row.cells)
    return renewed(database, request, kind, key)


@router.put("/{kind}/{key}")
def change(kind: own.Kind, key: str, row: CellsIn, database: Kept, request: Request) -> LibraryRow:
    with database.writing() as session:
        own_rows.change(session, kind, key, row.cells)
    return renewed(database, request, kind, key)


@router.delete("/{kind}/{key}", status_code=204)
def delete(kind: own.Kind, key: str, database: Kept, request: Request) -> None:
    """Take a row out; 409 says where it is used."""
    with database.writing() as session:
        own_rows.delete(session, kind, key)
    adopted(database, request)


def renewed(database: Database, request: Request, kind: own.Kind, key: str) -> LibraryRow:
    """The row as it is now used everywhere."""
    adopted(database, request)
    row = own.kept[kind][key]
    return LibraryRow(key, getattr(row, library.OWN_KINDS[kind].name), True, own.cells_of(row))


def adopted(database: Database, request: Request) -> None:
    """Everything that was made with the rows before is made anew."""
    with own_rows.adopting, database.reading() as session:
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
                    found.setdefault(kind, {})[key] = own.versioned(kind, own.cells_of(own.kept[kind][key]))
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
    """A system from a document that was taken along; own rows that differ from those here come in beside them.

    All of it or none; what is here already, row or system, is not made again.
    """
    found = upgraded(taken.plan)
    rows = {
        kind: {key: row_in(kind, key, cells) for key, cells in taken.own.get(kind, {}).items()}
        for kind in own.KINDS
    }
    try:
        with database.writing() as session:
            renamed = {kind: {key: brought(session, kind, row) for key, row in rows[kind].items()} for kind in rows}
            with own_rows.adopting:
                own_rows.adopt(session)
            text = document(sensible(read_document(json.dumps(with_keys(found, renamed)))))
            for row in systems.list_all(session):
                if row.document is not None and systems.equal(row.document, text):
                    return SystemOut.of(systems.read(session, row.id))
            return SystemOut.of(systems.create(session, text))
    finally:
        # Also where it was refused: what was looked at on the way is forgotten.
        adopted(database, request)


def row_in(kind: own.Kind, key: str, cells: Mapping[str, str]) -> Any:
    """A row of a bundle; raise BadCells that names it."""
    try:
        return library.kept_own_row(kind, {**cells, "key": key})
    except own.BadCells as fault:
        raise own.BadCells({f"own.{kind}.{key}.{column}": why for column, why in fault.faults.items()}) from None


def brought(session: Session, kind: own.Kind, row: Any) -> str:
    """The key under which a row that was brought in is kept here: that of one which is the same, or a new one."""
    cells = own.cells_of(row)
    for key, present in own.kept[kind].items():
        if own.cells_of(present) == {**cells, "key": key}:
            return key
    if row.key not in own_rows.keys(session, kind):
        own_rows.keep(session, kind, row.key, cells)
        return str(row.key)
    return own_rows.add(session, kind, cells)


def with_keys(plan: dict[str, Any], renamed: Mapping[own.Kind, Mapping[str, str]]) -> dict[str, Any]:
    """A plan's document whose rows are called as they are here, and nothing else of it."""
    found = deepcopy(plan)
    for kind, places in USED_IN.items():
        for section, name in places:
            part = found.get(section)
            for row in part if isinstance(part, list) else [part]:
                if isinstance(row, dict) and row.get(name) in renamed.get(kind, {}):
                    row[name] = renamed[kind][row[name]]
    return found
