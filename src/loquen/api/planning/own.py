"""The keeper's own rows of the library: copied or started, edited column by column, taken along with a plan."""

import json
from collections.abc import Iterable, Mapping
from copy import deepcopy
from dataclasses import asdict, dataclass, fields
from typing import Any, get_type_hints

from fastapi import APIRouter, Response
from pydantic import Field
from sqlmodel import Session

from loquen.api.computing import computed
from loquen.api.dependencies import FAULTS, Asked
from loquen.api.wire.answers import sent
from loquen.checked.documents import A_PLAN
from loquen.checked.plan import PlanSchema, Strict
from loquen.core.data.tables import toml
from loquen.core.library import own
from loquen.core.library.kinds import KINDS, Kind
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import kinds
from loquen.core.model.roots.documents import document, plain_data, upgraded
from loquen.core.model.roots.plan import Plan
from loquen.house.house import Visit
from loquen.house.systems.root import SYSTEMS
from loquen.store.documents import own as own_rows
from loquen.store.documents import systems

router = APIRouter(prefix="/api/own", tags=["own"], responses=dict(FAULTS))
USED_IN: dict[Kind, tuple[tuple[str, str], ...]] = {
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

    kind: Kind
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
    own: dict[str, dict[str, dict[str, str]]] = Field(default_factory=dict, max_length=len(KINDS))


@router.get("", response_model=OwnLibrary)
async def read_own(visit: Asked) -> Response:
    """Every kind with its columns and all its rows."""
    return await computed(lambda: sent(OwnLibrary([shown(kind, visit.library) for kind in KINDS])))


def shown(kind: Kind, library: Library) -> KindShown:
    described = own.OWN_KINDS[kind]
    mine, table = library.own[kind], getattr(library, KINDS[kind])
    rows = [*mine.items(), *((key, row) for key, row in table.items() if key not in mine)]
    return KindShown(
        kind,
        described.label,
        [
            column_of(described.row_type, field.name, library)
            for field in fields(described.row_type)
            if field.name != "key"
        ],
        [
            LibraryRow(key, getattr(row, described.name), key in library.own[kind], own.cells_of(row))
            for key, row in rows
        ],
    )


def column_of(row_type: type[Any], name: str, library: Library) -> Column:
    hint = get_type_hints(row_type)[name]
    unit, numeric = "", hint in (float, int, float | None)
    if numeric:
        ending = [(suffix, kind) for kind in kinds().values() for suffix in kind.suffixes if name.endswith(suffix)]
        if ending:
            _, kind = max(ending, key=lambda found: len(found[0]))
            # A cell is written in the unit that values are carried in; one that is only shown otherwise has none.
            unit = next((unit.label for unit in kind.units if unit.factor == 1), "")
    table = own.keyed(name, library)
    choices = list(table) if table is not None else ["yes", "no"] if hint is bool else list(literals(hint))
    words = toml("columns.toml").get(name, name.replace("_", " ").capitalize())
    may_be_empty = name in own.MAY_BE_EMPTY or (not choices and hint in (str, tuple[str, ...], float | None))
    return Column(name, words, numeric, unit, choices, may_be_empty)


def literals(hint: Any) -> Iterable[str]:
    return (value for value in getattr(hint, "__args__", ()) if isinstance(value, str))


@router.post("/{kind}", status_code=201)
def create(kind: Kind, row: CellsIn, visit: Asked) -> LibraryRow:
    """A new row of one's own; 422 names every column that can not be read."""
    with visit.writing() as session:
        key = own_rows.add(session, kind, row.cells, visit.library)
    return renewed(visit, kind, key)


@router.put("/{kind}/{key}")
def change(kind: Kind, key: str, row: CellsIn, visit: Asked) -> LibraryRow:
    with visit.writing() as session:
        own_rows.change(session, kind, key, row.cells, visit.library)
    return renewed(visit, kind, key)


@router.delete("/{kind}/{key}", status_code=204)
def delete(kind: Kind, key: str, visit: Asked) -> None:
    """Take a row out; 409 says where it is used."""
    with visit.writing() as session:
        own_rows.delete(session, kind, key)
    visit.house.adopt()


def renewed(visit: Visit, kind: Kind, key: str) -> LibraryRow:
    """The row as it is now used everywhere."""
    visit.house.adopt()
    row = visit.house.library.own[kind][key]
    return LibraryRow(key, getattr(row, own.OWN_KINDS[kind].name), True, own.cells_of(row))


# Taken along with a plan ------------------------------------------------------------------------


def used(plan: Plan, library: Library) -> dict[str, dict[str, dict[str, str]]]:
    """The own rows that a plan uses, by kind and key, as cells."""
    found: dict[str, dict[str, dict[str, str]]] = {}
    for kind, places in USED_IN.items():
        for section, name in places:
            part = getattr(plan, section)
            for row in part if isinstance(part, tuple) else (part,):
                key = getattr(row, name)
                if key in library.own[kind]:
                    found.setdefault(kind, {})[key] = own.versioned(kind, own.cells_of(library.own[kind][key]))
    return found


class DraftPlan(Strict):
    """A plan that is not saved."""

    plan: PlanSchema


@router.post("/taken-along/plan", response_model=TakenAlong)
async def take_along(draft: DraftPlan, visit: Asked) -> Response:
    """A draft as a document that another Loquen can bring in, with the own rows that it uses."""

    def document_of() -> Response:
        plan = SYSTEMS.sensible(draft.plan, visit.library)
        return sent(TakenAlong(plain_data(asdict(plan)), used(plan, visit.library)))

    return await computed(document_of)


@router.post("/bring-in/plan", status_code=201, response_model=SYSTEMS.Out)
def bring_in(taken: TakenAlongIn, visit: Asked) -> Any:
    """A system from a document that was taken along; own rows that differ from those here come in beside them.

    All of it or none; what is here already, row or system, is not made again.
    """
    found = upgraded(taken.plan)
    rows = {
        kind: {key: row_in(kind, key, cells, visit.library) for key, cells in taken.own.get(kind, {}).items()}
        for kind in KINDS
    }
    with visit.writing() as session:
        renamed = {
            kind: {key: brought(session, kind, row, visit.library) for key, row in rows[kind].items()}
            for kind in rows
        }
        with_them = own_rows.library_of(session, visit.house.base)
        text = document(SYSTEMS.sensible(A_PLAN.read(json.dumps(with_keys(found, renamed))), with_them))
        there = [row.id for row in systems.list_all(session) if row.document and systems.equal(row.document, text)]
        system = systems.read(session, there[0]) if there else systems.create(session, text)
    visit.house.adopt()
    return SYSTEMS.out(system)


def row_in(kind: Kind, key: str, cells: Mapping[str, str], library: Library) -> Any:
    """A row of a bundle; raise BadCells that names it."""
    try:
        return own.kept_own_row(kind, {**cells, "key": key}, library)
    except own.BadCells as fault:
        raise own.BadCells({f"own.{kind}.{key}.{column}": why for column, why in fault.faults.items()}) from None


def brought(session: Session, kind: Kind, row: Any, library: Library) -> str:
    """The key under which a row that was brought in is kept here: that of one which is the same, or a new one."""
    cells = own.cells_of(row)
    for key, present in library.own[kind].items():
        if own.cells_of(present) == {**cells, "key": key}:
            return key
    if row.key not in own_rows.keys(session, kind):
        own_rows.keep(session, kind, row.key, cells, library)
        return str(row.key)
    return own_rows.add(session, kind, cells, library)


def with_keys(plan: dict[str, Any], renamed: Mapping[Kind, Mapping[str, str]]) -> dict[str, Any]:
    """A plan's document whose rows are called as they are here, and nothing else of it."""
    found = deepcopy(plan)
    for kind, places in USED_IN.items():
        for section, name in places:
            part = found.get(section)
            for row in part if isinstance(part, list) else [part]:
                if isinstance(row, dict) and row.get(name) in renamed.get(kind, {}):
                    row[name] = renamed[kind][row[name]]
    return found
