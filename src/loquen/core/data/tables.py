"""Reading a shipped table: typed rows from CSV and TOML, each fault named by row and column."""

import csv
import tomllib
import types
import typing
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import MISSING, dataclass, fields
from functools import cache
from importlib.resources import files
from typing import Any, TypeVar

from loquen.core.errors import BrokenData, UnknownKey

Row = TypeVar("Row")


def text(name: str) -> str:
    """The contents of one shipped data file."""
    return files("loquen.core.data").joinpath(name).read_text(encoding="utf-8")


@cache
def toml(name: str) -> dict[str, Any]:
    """One shipped TOML file."""
    return tomllib.loads(text(name))


class Table(Mapping[str, Row]):
    """Rows by key; an unknown key is named together with the table."""

    def __init__(self, name: str, rows: Iterable[tuple[str, Row]]) -> None:
        self.name = name
        self.rows: dict[str, Row] = {}
        for key, row in rows:
            if key in self.rows:
                raise BrokenData(name, key, "stands twice")
            self.rows[key] = row

    def __getitem__(self, key: str) -> Row:
        if key not in self.rows:
            raise UnknownKey(self.name, key)
        return self.rows[key]

    def __iter__(self) -> Iterator[str]:
        return iter(self.rows)

    def __len__(self) -> int:
        return len(self.rows)

    def __hash__(self) -> int:
        return id(self)


def parsed(cell: str, kind: Any) -> Any:
    """One CSV cell as `kind`: str, int, float, bool, a Literal, tuple of str, or X | None when empty."""
    if isinstance(kind, types.UnionType):
        return None if cell == "" else parsed(cell, next(k for k in kind.__args__ if k is not type(None)))
    if typing.get_origin(kind) is tuple:
        return tuple(part for part in cell.split("|") if part)
    if typing.get_origin(kind) is typing.Literal:
        if cell not in typing.get_args(kind):
            raise ValueError(f"“{cell}” is none of {', '.join(typing.get_args(kind))}")
        return cell
    if kind is bool:
        return {"yes": True, "no": False}[cell]
    if cell == "" and kind is not str:
        raise ValueError("is empty")
    return kind(cell)


def read_csv(name: str, row_type: type[Row], content: str | None = None) -> Table[Row]:
    """A CSV file of the shipped data as a table of `row_type`, keyed by its `key` column; a column that it lacks has its default.

    Raises: BrokenData naming table, row and column when a cell can not be read.
    """
    hints = typing.get_type_hints(row_type)
    wanted = [field.name for field in fields(row_type)]  # type: ignore[arg-type]
    spared = {field.name for field in fields(row_type) if field.default is not MISSING}  # type: ignore[arg-type]

    def rows() -> Iterator[tuple[str, Row]]:
        for line in csv.DictReader((content or text(name)).splitlines()):
            cells = {}
            for column in wanted:
                if column not in line and column in spared:
                    continue
                try:
                    cells[column] = parsed((line[column] or "").strip(), hints[column])
                except (ValueError, KeyError) as fault:
                    raise BrokenData(name, line.get("key") or "?", f"{column} {fault}") from None
            yield cells["key"], row_type(**cells)

    return Table(name, rows())


@dataclass(frozen=True, slots=True)
class Constant:
    """A number of physics or husbandry with its range and where it comes from."""

    value: float
    unit: str
    source: str
    note: str = ""
    low: float | None = None
    high: float | None = None


@cache
def constants(name: str = "constants.toml") -> Table[Constant]:
    """Every constant of one file by name: those of a sheet, or of cycle.toml and nitrate.toml."""
    return Table(name, ((k, Constant(**v)) for k, v in toml(name).items()))


def constant(name: str) -> float:
    """The likely value of one constant."""
    return constants()[name].value


@cache
def sources() -> Table[str]:
    """Citations by key."""
    return Table("sources.toml", toml("sources.toml").items())
