"""A water report as CSV, one parameter a line: parameter, value, unit. docs/formats.md describes it."""

import csv
import re
import unicodedata
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from loquen.core.model.inputs.typed import Ambiguous, NotANumber, read_number
from loquen.core.physics.nitrogen import CACO3_MG_L_PER_DKH, NITRATE_PER_N

MOST_LINES = 200
MOST_NAME = 80
PARAMETER, VALUE, UNIT = range(3)
SEPARATORS = (";", "\t", ",")
"""A file is separated by the first of these that stands in it outside quotes."""
HARD = {"": 1.0, "dgh": 1.0, "dkh": 1.0, "mg/l caco3": 1 / CACO3_MG_L_PER_DKH, "ppm": 1 / CACO3_MG_L_PER_DKH}
PLAIN = {"": 1.0, "mg/l": 1.0}
NUMBERS: dict[str, tuple[str, dict[str, float]]] = {
    "total hardness": ("src_gh_dgh", HARD),
    "carbonate hardness": ("src_kh_dkh", HARD),
    "ph": ("src_ph", {"": 1.0}),
    "conductivity": ("src_us_cm", {"": 1.0, "us/cm": 1.0, "μs/cm": 1.0, "ms/m": 10.0}),
    "nitrate": ("src_nitrate_mg_l", {"": 1 / NITRATE_PER_N, "mg/l no3": 1 / NITRATE_PER_N, "mg/l n": 1.0}),
    "sodium": ("src_sodium_mg_l", PLAIN),
    "chloride": ("src_chloride_mg_l", PLAIN),
    "temperature": ("src_c", {"": 1.0, "c": 1.0, "°c": 1.0}),
    "summer temperature": ("src_summer_c", {"": 1.0, "c": 1.0, "°c": 1.0}),
    "disinfectant strength": ("src_chlorine_mg_l", PLAIN),
}
WORDS = {
    "name": ("src_name", None),
    "kind": ("src_kind", ("tap", "well", "rain", "osmosis", "stored")),
    "disinfectant": ("src_disinfectant", ("unknown", "none", "chlorine", "chloramine")),
    "softened": ("src_softened", ("none", "hot", "all")),
}


@dataclass(frozen=True, slots=True)
class LineFault:
    """A place that could not be read: its line, its column (both from 1), and what is wrong there."""

    line: int
    column: int
    what: str


class UnreadReport(ValueError):
    """A report with lines that can not be read."""

    def __init__(self, faults: list[LineFault]) -> None:
        super().__init__(f"{len(faults)} lines")
        self.faults = faults


class CellFault(ValueError):
    """One cell of a line that can not be read: which one, and why."""

    def __init__(self, cell: int, what: str) -> None:
        super().__init__(what)
        self.cell = cell


def read_report(text: str) -> dict[str, Any]:
    """A water's fields from a report; what is not named keeps its default. Raises: UnreadReport naming every place."""
    lines = re.split(r"\r\n|\n|\r", text.removeprefix("\ufeff"))
    if len(lines) > MOST_LINES + 1:
        raise UnreadReport([LineFault(MOST_LINES + 1, 1, f"a report has at most {MOST_LINES} lines")])
    separator = separator_of(lines)
    grouped_by_dots = separator == ";"
    found: dict[str, Any] = {}
    first_at: dict[str, int] = {}
    faults = []
    for number, line in meaningful(lines):
        starts = [1]
        try:
            cells, starts = cells_of(line, separator)
            if any(cells[UNIT + 1 :]):
                what = "more than parameter, value and unit: put a decimal comma into quotation marks"
                raise CellFault(VALUE, what)
            if plain(cells[PARAMETER]) == "parameter":
                continue
            field, value = read_line(cells, grouped_by_dots)
            if field in first_at:
                raise CellFault(PARAMETER, f"{plain(cells[PARAMETER])} stands twice: in line {first_at[field]} too")
        except CellFault as fault:
            at = starts[min(fault.cell, len(starts) - 1)]
            faults.append(LineFault(number, at, str(fault)))
        else:
            first_at[field] = number
            found[field] = value
    if faults:
        raise UnreadReport(faults)
    if not found:
        raise UnreadReport([LineFault(1, 1, "no line says anything about a water: parameter, value, unit")])
    return found


def plain(words: str) -> str:
    """Words as they are compared: in one writing of the signs that look alike, without case."""
    return unicodedata.normalize("NFKC", words).strip().lower()


def meaningful(lines: list[str]) -> Iterator[tuple[int, str]]:
    """The lines that say something, with their numbers."""
    for number, line in enumerate(lines, start=1):
        if line.strip(" ,;\t") and not line.lstrip().startswith("#"):
            yield number, line


def separator_of(lines: list[str]) -> str:
    bare = [re.sub(r'"[^"]*"', "", line) for _, line in meaningful(lines)]
    return next((sign for sign in SEPARATORS if any(sign in line for line in bare)), ",")


def cells_of(line: str, separator: str) -> tuple[list[str], list[int]]:
    """A line's cells, at least three, and the column at which each begins."""
    if any(unicodedata.category(sign) == "Cc" and sign != "\t" for sign in line):
        raise CellFault(PARAMETER, "it holds signs that are no text")
    try:
        (cells,) = csv.reader([line], delimiter=separator, strict=True)
    except (csv.Error, ValueError):
        raise CellFault(PARAMETER, "a quotation mark is opened and not closed, or stands inside a cell") from None
    starts, at = [], 1
    for cell in cells:
        starts.append(at)
        quoted = line[at - 1 : at] == '"'
        at += len(cell) + (2 + cell.count('"') if quoted else 0) + 1
    return [cell.strip() for cell in cells] + [""] * max(0, 3 - len(cells)), starts


def read_line(cells: list[str], grouped_by_dots: bool) -> tuple[str, Any]:
    name, value, unit = plain(cells[PARAMETER]), cells[VALUE], plain(cells[UNIT])
    if name in WORDS:
        return read_words(name, value)
    if name not in NUMBERS:
        known = ", ".join([*WORDS, *NUMBERS])
        raise CellFault(PARAMETER, f"“{cells[PARAMETER][:40]}” is not known; known are {known}")
    field, units = NUMBERS[name]
    if unit not in units:
        raise CellFault(UNIT, f"{name} in “{cells[UNIT][:40]}”; it may be in {', '.join(filter(None, units))}")
    try:
        return field, read_number(value, grouped_by_dots) * units[unit]
    except Ambiguous as two:
        what = f"“{value}” may be {two.thousands} or {two.decimals}: write it without the comma or dot"
        raise CellFault(VALUE, what) from None
    except NotANumber:
        raise CellFault(VALUE, f"“{value[:40]}” is not a number") from None


def read_words(name: str, value: str) -> tuple[str, str]:
    field, options = WORDS[name]
    if options is not None and plain(value) not in options:
        raise CellFault(VALUE, f"“{value[:40]}” is none of {', '.join(options)}")
    if options is None and not 0 < len(value) <= MOST_NAME:
        raise CellFault(VALUE, f"a {name} has 1 to {MOST_NAME} letters")
    return field, plain(value) if options else value
