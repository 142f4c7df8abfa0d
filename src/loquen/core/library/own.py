"""Rows of the keeper's own beside the shipped ones, in the same columns. They never enter the shipped files, so that no
update overwrites them; their keys begin with OWN, so that none stands for a shipped row."""

import re
from collections.abc import Callable, Mapping
from dataclasses import MISSING, dataclass, fields
from typing import Any, TypeVar, get_type_hints

from loquen.core.data.bodies import body_shapes
from loquen.core.data.measures import measures
from loquen.core.data.tables import Table, parsed
from loquen.core.errors import CoreError
from loquen.core.library import whole
from loquen.core.library.kinds import KINDS, Kind
from loquen.core.library.rows import kits
from loquen.core.library.rows.animals import Species
from loquen.core.library.rows.keeping import Plant
from loquen.core.library.rows.machines import FilterModel, Media, PumpModel
from loquen.core.library.whole import Library

Row = TypeVar("Row")
Cells = Mapping[str, str]
OWN = "own_"
MOST_TOLD = 400

Step = Callable[[dict[str, str]], dict[str, str]]
STEPS: dict[Kind, tuple[Step, ...]] = dict.fromkeys(KINDS, ())
"""By kind what brings the cells of a row forward, the oldest version's step first: a column that goes or is called otherwise.

A column that comes needs none: it has a default in its row type, which stands where a row has no such cell.
"""
VERSION = "version"
"""Beside the cells of a row that is kept or taken along; one without it was kept before rows had versions, and is of the first."""


class BadCells(CoreError, ValueError):
    """Cells of an own row that can not be used, each with why, by column."""

    def __init__(self, faults: dict[str, str]) -> None:
        super().__init__("bad_cells", **faults)
        self.faults = faults


@dataclass(frozen=True, slots=True)
class OwnKind:
    """A kind of row that a keeper may have of their own: what it is called, its columns, the column of its name."""

    label: str
    row_type: type[Any]
    name: str
    contradictions: Callable[[Any, Library], Mapping[str, bool]] | None = None


OWN_KINDS: dict[Kind, OwnKind] = {
    "species": OwnKind("Animals", Species, "common", whole.contradictions),
    "plants": OwnKind("Plants", Plant, "common"),
    "media": OwnKind("Media", Media, "label"),
    "filters": OwnKind("Filters", FilterModel, "label"),
    "pumps": OwnKind("Pumps", PumpModel, "label"),
    "kits": OwnKind("Test kits", kits.Kit, "label", lambda row, _: kits.contradictions(row)),
}


def keyed(column: str, library: Library) -> Table[Any] | None:
    """The table that a column's cell is a key of."""
    tables: dict[str, Table[Any]] = {
        "shape": body_shapes(),
        "turnover": library.turnovers,
        "shock_class": library.shock_classes,
        "uptake": library.plant_covers,
        "kind": library.filter_kinds,
        "media_key": library.media,
        "measure": measures(),
        "breeds_as": library.breeding,
    }
    return tables.get(column)


MAY_BE_EMPTY = ("breeds_as",)
"""Columns of keys that need not have one."""


def own_row(kind: Kind, cells: Cells, library: Library) -> Any:
    """Cells as an own row of a kind, beside the rows of a library; raise BadCells."""
    described = OWN_KINDS[kind]
    columns = {field.name for field in fields(described.row_type)}
    faults = {
        column: f"“{cells.get(column, '')}” is none of {', '.join(table)}"
        for column in columns
        if (table := keyed(column, library)) is not None and cells.get(column) not in table
        if column not in MAY_BE_EMPTY or cells.get(column)
    }
    faults.pop("shape", None) if cells.get("adult_mass_g") else None
    if faults:
        raise BadCells(faults)
    check = described.contradictions
    return read(described.row_type, cells, (lambda row: check(row, library)) if check else None)


def kept_own_row(kind: Kind, cells: Cells, library: Library) -> Any:
    """Cells that were kept or taken along, by any release, as an own row of this one; raise BadCells."""
    return own_row(kind, brought_forward(kind, cells), library)


def versioned(kind: Kind, cells: Cells) -> dict[str, str]:
    """Cells as they are kept and taken along."""
    return {VERSION: str(len(STEPS[kind]) + 1), **cells}


def brought_forward(kind: Kind, cells: Cells) -> dict[str, str]:
    """Cells that were kept or taken along, as this release has them; raise BadCells for those of a newer one."""
    found = {column: cell for column, cell in cells.items() if column != VERSION}
    told = str(cells.get(VERSION, 1))
    if not told.isdigit() or not 1 <= int(told) <= len(STEPS[kind]) + 1:
        raise BadCells({VERSION: f"“{told}” is none that this Loquen knows: a newer one wrote it"})
    for step in STEPS[kind][int(told) - 1 :]:
        found = step(found)
    return found


def read(row_type: type[Row], cells: Cells, check: Callable[[Row], Mapping[str, bool]] | None = None) -> Row:
    """Cells as a row; raise BadCells naming every column that can not be read, or that contradicts another."""
    types_of, faults, values = get_type_hints(row_type), {}, {}
    for field in fields(row_type):  # type: ignore[arg-type]
        if field.name not in cells and field.default is not MISSING:
            values[field.name] = field.default
            continue
        cell = (cells.get(field.name) or "").strip()
        if len(cell) > MOST_TOLD:
            faults[field.name] = "is too long"
            continue
        try:
            values[field.name] = parsed(cell, types_of[field.name])
        except KeyError:
            faults[field.name] = "is neither yes nor no"
        except ValueError as fault:
            faults[field.name] = "is no number" if "could not convert" in str(fault) else str(fault)
    if not faults:
        number = (int, float)
        faults = {
            name: "is out of reach"
            for name, value in values.items()
            if isinstance(value, number) and not isinstance(value, bool) and not -100 <= value <= 1e6
        }
    if not faults and not str(values.get("source", "")):
        faults = {"source": "is empty: where are these values from?"}
    if faults:
        raise BadCells(faults)
    row = row_type(**values)
    contradictions = [why for why, found in (check(row) if check else {}).items() if found]
    if contradictions:
        raise BadCells({"": "; ".join(contradictions)})
    return row


def key_of(name: str, taken: Callable[[str], bool]) -> str:
    """A key for an own row by its name, that no other has."""
    plain = OWN + (re.sub(r"[^a-z0-9]+", "_", name.lower()).strip("_")[:60] or "row")
    key, number = plain, 2
    while taken(key):
        key, number = f"{plain}_{number}", number + 1
    return key


def cells_of(row: Any) -> dict[str, str]:
    """A row as the cells it is written in."""
    return {field.name: written(getattr(row, field.name)) for field in fields(row)}


def written(value: Any) -> str:
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, tuple):
        return "|".join(map(str, value))
    return f"{value:.15g}" if isinstance(value, float) else str(value)
