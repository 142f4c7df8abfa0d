"""Rows of the keeper's own beside the shipped ones, in the same columns. They never enter the shipped files, so that no
update overwrites them; their keys begin with OWN, so that none stands for a shipped row."""

import re
from collections.abc import Callable, Mapping
from dataclasses import MISSING, fields
from typing import Any, Literal, TypeVar, get_args, get_type_hints

from loquen.core.data.tables import Table, parsed
from loquen.core.errors import CoreError

Row = TypeVar("Row")
Kind = Literal["species", "plants", "media", "filters", "pumps", "kits"]
Cells = Mapping[str, str]
KINDS: tuple[Kind, ...] = get_args(Kind)
OWN = "own_"
MOST_TOLD = 400

Step = Callable[[dict[str, str]], dict[str, str]]
STEPS: dict[Kind, tuple[Step, ...]] = dict.fromkeys(KINDS, ())
"""By kind what brings the cells of a row forward, the oldest version's step first: a column that goes or is called otherwise.

A column that comes needs none: it has a default in its row type, which stands where a row has no such cell.
"""
VERSION = "version"
"""Beside the cells of a row that is kept or taken along; one without it was kept before rows had versions, and is of the first."""

kept: dict[str, dict[str, Any]] = {kind: {} for kind in KINDS}
together: dict[str, tuple[Table[Any], Table[Any]]] = {}
kept_as = {"time": 0}
"""How often other rows were adopted: what was reckoned with those before is told apart by it."""


class BadCells(CoreError, ValueError):
    """Cells of an own row that can not be used, each with why, by column."""

    def __init__(self, faults: dict[str, str]) -> None:
        super().__init__("bad_cells", **faults)
        self.faults = faults


def beside(kind: Kind, shipped: Table[Row]) -> Table[Row]:
    """The shipped rows and the keeper's own, as one table."""
    if not kept[kind]:
        return shipped
    found = together.get(kind)
    if found is None or found[0] is not shipped:
        found = (shipped, Table(shipped.name, [*shipped.items(), *kept[kind].items()]))
        together[kind] = found
    return found[1]


def adopt(rows: Mapping[str, Mapping[str, Any]]) -> None:
    """Take these as the keeper's own rows, by kind and key, in place of those before; what is the same stays as it was reckoned."""
    new: dict[str, dict[str, Any]] = {kind: dict(rows.get(kind, {})) for kind in KINDS}
    if new == kept:
        return
    kept.update(new)
    together.clear()
    kept_as["time"] += 1


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
