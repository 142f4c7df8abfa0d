"""The log as a table: written out in one layout, read in from what people keep in a spreadsheet.

Written: a line an entry, in columns of their own names (docs/formats.md). Read: the same, or a line a day with a
column a measure; comma, semicolon or tab; decimal point or comma; dates in any common order, asked for where two fit.
"""

import csv
import io
import re
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field, fields
from datetime import date, datetime, time, tzinfo
from typing import Any, Literal

from loquen.core.data.measures import measures
from loquen.core.graph.giving_up import heed
from loquen.core.library.whole import Library
from loquen.core.model.records.calendar import day_in_reach, moment_in_reach
from loquen.core.model.records.log import KINDS, Entry, LogLine
from loquen.exchange.tables import RUNS_AS_FORMULA, Cell, as_csv

MOST_LINES = 50_000
MOST_FAULTS = 200
LINES_AT_ONCE = 500
"""After so many lines it is asked whether anybody still waits."""
DateOrder = Literal["day first", "month first"]
ChangesIn = Literal["percent", "share"]
"""What the numbers of a column of changes stand for: 1 is one per cent, or all of the water."""
OWN = ("at", *(item.name for item in fields(Entry)))

# What a heading is taken for: a measure with what its numbers stand for, or a part of an entry.
HEADINGS: dict[str, tuple[str, str]] = {
    "date": ("date", ""),
    "day": ("date", ""),
    "when": ("date", ""),
    "datum": ("date", ""),
    "tag": ("date", ""),
    "dato": ("date", ""),
    "fecha": ("date", ""),
    "data": ("date", ""),
    "time": ("time", ""),
    "zeit": ("time", ""),
    "uhrzeit": ("time", ""),
    "tijd": ("time", ""),
    "hora": ("time", ""),
    "heure": ("time", ""),
    "nitrat": ("nitrate", "ion"),
    "nitrato": ("nitrate", "ion"),
    "nitraat": ("nitrate", "ion"),
    "nitrit": ("nitrite", "ion"),
    "nitrito": ("nitrite", "ion"),
    "nitriet": ("nitrite", "ion"),
    "ammoniak": ("ammonia", "ion"),
    "temperatur": ("temperature", "plain"),
    "temperatuur": ("temperature", "plain"),
    "temperatura": ("temperature", "plain"),
    "leitwert": ("conductivity", "plain"),
    "wasserwechsel": ("change", ""),
    "waterverversing": ("change", ""),
    "notiz": ("note", ""),
    "bemerkung": ("note", ""),
    "notitie": ("note", ""),
    "nota": ("note", ""),
    "nitrate": ("nitrate", "ion"),
    "no3": ("nitrate", "ion"),
    "no3n": ("nitrate", "n"),
    "nitraten": ("nitrate", "n"),
    "nitrite": ("nitrite", "ion"),
    "no2": ("nitrite", "ion"),
    "no2n": ("nitrite", "n"),
    "nitriten": ("nitrite", "n"),
    "ammonia": ("ammonia", "ion"),
    "ammonium": ("ammonia", "ion"),
    "nh3": ("ammonia", "ion"),
    "nh4": ("ammonia", "ion"),
    "nh3nh4": ("ammonia", "ion"),
    "tan": ("ammonia", "n"),
    "ammonian": ("ammonia", "n"),
    "kh": ("kh", "plain"),
    "gh": ("gh", "plain"),
    "ph": ("ph", "plain"),
    "temp": ("temperature", "plain"),
    "temperature": ("temperature", "plain"),
    "c": ("temperature", "plain"),
    "conductivity": ("conductivity", "plain"),
    "ec": ("conductivity", "plain"),
    "uscm": ("conductivity", "plain"),
    "salinity": ("salinity", "plain"),
    "ppt": ("salinity", "plain"),
    "chlorine": ("chlorine", "plain"),
    "change": ("change", ""),
    "changed": ("change", ""),
    "waterchange": ("change", ""),
    "wc": ("change", ""),
    "note": ("note", ""),
    "notes": ("note", ""),
    "comment": ("note", ""),
    "remarks": ("note", ""),
}
READS = {"ion": "as the ion", "n": "as nitrogen", "plain": ""}


@dataclass(frozen=True, slots=True)
class ColumnTaken:
    """A heading, and what it is taken for; nothing where it is not known."""

    heading: str
    taken_for: str


@dataclass(frozen=True, slots=True)
class BadCell:
    """A line and a column that can not be read, both counted from one, and why."""

    line: int
    column: str
    what: str


@dataclass(slots=True)
class ReadTable:
    """What a table says."""

    columns: list[ColumnTaken] = field(default_factory=list)
    rows: list[tuple[int, LogLine]] = field(default_factory=list)
    faults: list[BadCell] = field(default_factory=list)
    either_order: bool = False
    """Whether every date could be read day first and month first alike."""
    either_change: bool = False
    """Whether the changes could be per cent and shares alike: every one of them is 1, or nothing."""


class UnreadTable(Exception):
    """A text that is no table of a log, and why."""


def write_table(log: Iterable[LogLine]) -> str:
    """A log as CSV, oldest first, each moment and each text to its last sign; no cell runs as a formula."""
    rows = [
        (row.at.isoformat(), *(shielded("" if (c := getattr(row.entry, name)) is None else c) for name in OWN[1:]))
        for row in log
    ]
    return as_csv(OWN, rows)


def shielded(cell: Cell) -> Cell:
    """A cell that no spreadsheet runs, in a way that `unshielded` takes back, whatever stood in it."""
    return "'" + cell if isinstance(cell, str) and cell.startswith((*RUNS_AS_FORMULA, "'")) else cell


def unshielded(cell: str) -> str:
    return cell[1:] if cell[:1] == "'" and cell[1:2] in ("'", *RUNS_AS_FORMULA) else cell


def read_table(
    text: str,
    zone: tzinfo,
    library: Library,
    order: DateOrder | None = None,
    changes: ChangesIn | None = None,
    tell: Callable[[float], None] = lambda share: None,
) -> ReadTable:
    """A table of readings and changes; what can be read is, what can not is named by line and column.

    `tell` is called with the share that was read. Raises: UnreadTable for a text without headings that are known, or too long.
    """
    rows = rows_of(text)
    headings = [cell.strip() for cell in rows[0][1]]
    if "at" in headings and "kind" in headings:
        return read_own(headings, rows[1:], zone)
    taken = [heading_of(heading) for heading in headings]
    if not any(t and t[0] == "date" for t in taken):
        raise UnreadTable("No column is headed “date”: each line needs its day.")
    if not any(t and t[0] not in ("date", "time") for t in taken):
        raise UnreadTable(
            "No column is one that Loquen knows: nitrate, nitrite, ammonia, pH, KH, GH, temperature, change, note."
        )
    found = ReadTable()
    for place, known in enumerate(taken):
        if known == ("change", ""):
            cells = [row[place].strip() for _, row in rows[1:] if len(row) > place]
            usual, either = changes_in(cells)
            found.either_change = found.either_change or (either and changes is None)
            taken[place] = ("change", changes or usual)
    found.columns = [ColumnTaken(h, told(t)) for h, t in zip(headings, taken, strict=True)]
    at = {t[0]: place for place, t in enumerate(taken) if t and t[0] in ("date", "time")}
    cells = [row[at["date"]].strip() for _, row in rows[1:] if len(row) > at["date"]]
    day_first, month_first = (all_read(cells, way) for way in ("day first", "month first"))
    found.either_order = order is None and day_first and month_first and any(swaps(cell) for cell in cells)
    way: DateOrder = order or ("month first" if month_first and not day_first else "day first")
    for count, (number, row) in enumerate(rows[1:]):
        if count % LINES_AT_ONCE == 0:
            heed()
            tell(count / len(rows))
        if any(cell.strip() for cell in row):
            read_line(found, number, row, headings, taken, at, zone, way, library)
    return found


def rows_of(text: str) -> list[tuple[int, list[str]]]:
    """The rows of a table with the number of the line that each begins in, its headings first. Raises: UnreadTable."""
    text = text.removeprefix("\ufeff")
    before = len(re.findall(r"\r\n|\r|\n", text[: len(text) - len(text.lstrip("\r\n"))]))
    text = text.lstrip("\r\n")
    mark = re.match(r"sep=([\t;,])[ \t]*(\r\n|\r|\n)", text, re.IGNORECASE)
    body = text[mark.end() :] if mark else text
    head = next((line for line in body.splitlines() if line.strip()), "")
    reader = csv.reader(io.StringIO(body, newline=""), delimiter=mark[1] if mark else max("\t;,", key=head.count))
    before += 1 if mark else 0
    rows: list[tuple[int, list[str]]] = []
    began = before + 1
    try:
        for row in reader:
            if row and (rows or any(cell.strip() for cell in row)):
                rows.append((began, row))
            if len(rows) > MOST_LINES + 1:
                raise UnreadTable(f"It has more than {MOST_LINES} lines at a time: split it by years.")
            began = before + reader.line_num + 1
    except csv.Error as fault:
        raise UnreadTable(f"Line {began} can not be read: {fault}.") from None
    if not rows:
        raise UnreadTable("There is nothing in it.")
    return rows


def heading_of(heading: str) -> tuple[str, str] | None:
    """What a heading is taken for, and what its numbers stand for; None where it is not known."""
    plain = heading.lower()
    known = HEADINGS.get(re.sub(r"[^a-z0-9]", "", re.sub(r"\(.*?\)|mg/?l|%|°", "", plain)))
    if known == ("change", ""):
        return "change", "percent" if "%" in plain else "litres" if re.search(
            r"\b(l|liters?|litres?)\b", plain
        ) else ""
    return known


def changes_in(cells: Iterable[str]) -> tuple[ChangesIn, bool]:
    """What bare numbers of a column of changes stand for, and whether it could be either.

    A number over 1 is per cent, and so are all beside it; one between 0 and 1 is a share, and a 1 beside it is all of the water.
    """
    numbers = [float(cell.replace(",", ".")) for cell in cells if re.fullmatch(r"\d+(?:[.,]\d+)?", cell)]
    if any(number > 1 for number in numbers):
        return "percent", False
    if any(0 < number < 1 for number in numbers):
        return "share", False
    return "percent", 1.0 in numbers


def told(taken: tuple[str, str] | None) -> str:
    """What a heading is taken for, in words."""
    if taken is None:
        return ""
    what, reads = taken
    if what == "change":
        return {"percent": "change, in %", "share": "change, 1 is all of the water", "litres": "change, in litres"}[
            reads
        ]
    label = measures()[what].label if what in measures() else what
    return f"{label} {READS.get(reads, '')}".strip()


def read_line(
    found: ReadTable,
    number: int,
    row: list[str],
    headings: list[str],
    taken: list[tuple[str, str] | None],
    at: Mapping[str, int],
    zone: tzinfo,
    way: DateOrder,
    library: Library,
) -> None:
    """Every entry of one line."""

    def bad(column: int, what: str) -> None:
        if len(found.faults) < MOST_FAULTS:
            found.faults.append(BadCell(number, headings[column], what))

    try:
        day = read_date(row[at["date"]].strip(), way)
    except (ValueError, IndexError):
        return bad(at["date"], "is no date")
    clock = time(12)
    if "time" in at and len(row) > at["time"] and row[at["time"]].strip():
        try:
            clock = time.fromisoformat(row[at["time"]].strip().zfill(5))
        except ValueError:
            bad(at["time"], "is no time of day")
    moment = datetime.combine(day, clock, zone)
    for column, (cell, known) in enumerate(zip(row, taken, strict=False)):
        if known is None or known[0] in ("date", "time") or not cell.strip():
            continue
        try:
            found.rows.append((number, LogLine(moment, entry_of(known, cell.strip(), library))))
        except ValueError as fault:
            bad(column, str(fault))
    return None


def entry_of(known: tuple[str, str], cell: str, library: Library) -> Entry:
    """One cell as an entry; raise ValueError."""
    what, reads = known
    if what == "note":
        return Entry("note", note=cell[:2000])
    number = re.match(r"^(\d+(?:[.,]\d+)?)\s*(%|l|litres?)?$", cell.lower())
    if what == "change":
        if not number:
            raise ValueError("is no share and no litres")
        value = float(number.group(1).replace(",", "."))
        stands_for = "percent" if number.group(2) == "%" else "litres" if number.group(2) else reads
        if stands_for == "litres":
            return Entry("change", litres=value)
        share = value if stands_for == "share" else value / 100
        if share > 1:
            raise ValueError("is more than the whole tank")
        return Entry("change", share=share)
    if cell.startswith(("-", "−")):
        raise ValueError("is under nothing")
    level = UNIT.sub("", cell).replace(",", ".")
    return Entry("reading", what=what, value=level, kit=usual_kit(what, reads, library))


def usual_kit(what: str, reads: str, library: Library) -> str:
    """The first kit of the house that reads this so."""
    return next((key for key, kit in library.kits.items() if kit.measure == what and kit.reads == reads), "")


UNIT = re.compile(r"(?<=\d)\s*(mg/?l|ppm|°\s?[cd]|°?d[kg]h|µs(/cm)?|ppt)$", re.IGNORECASE)
DATES = re.compile(r"^(\d{1,4})[-./ ](\d{1,2})[-./ ](\d{2,4})$")


def read_date(cell: str, way: str) -> date:
    """A date, the year first or last; raise ValueError."""
    parts = DATES.match(cell.split("T", maxsplit=1)[0].strip())
    if not parts:
        raise ValueError(cell)
    a, b, c = (int(part) for part in parts.groups())
    if a > 31 or len(parts.group(1)) > 2:
        return day_in_reach(f"{a:04}-{b:02}-{c:02}")
    year = c + 2000 if c < 100 else c
    return day_in_reach(f"{year:04}-{b:02}-{a:02}" if way == "day first" else f"{year:04}-{a:02}-{b:02}")


def all_read(cells: list[str], way: str) -> bool:
    """Whether every date can be read in one order."""
    try:
        for cell in cells:
            if cell:
                read_date(cell, way)
    except ValueError:
        return False
    return True


def swaps(cell: str) -> bool:
    """Whether a date is another one in the other order."""
    try:
        return read_date(cell, "day first") != read_date(cell, "month first")
    except ValueError:
        return False


def read_own(headings: list[str], rows: list[tuple[int, list[str]]], zone: tzinfo) -> ReadTable:
    """A table that Loquen wrote, every text as it stood."""
    found = ReadTable(columns=[ColumnTaken(h, h if h in OWN else "") for h in headings])
    for count, (number, row) in enumerate(rows):
        if count % LINES_AT_ONCE == 0:
            heed()
        cells = {h: unshielded(c) for h, c in zip(headings, row, strict=False)}
        if not any(cell.strip() for cell in cells.values()):
            continue
        try:
            moment = moment_in_reach(datetime.fromisoformat(cells.get("at", "").strip()))
        except ValueError:
            found.faults.append(BadCell(number, "at", "is no moment"))
            continue
        try:
            found.rows.append(
                (number, LogLine(moment if moment.tzinfo else moment.replace(tzinfo=zone), own_entry(cells)))
            )
        except ValueError as fault:
            found.faults.append(BadCell(number, str(fault), "can not be read"))
    return found


def own_entry(cells: Mapping[str, str]) -> Entry:
    """An entry from the cells of its own columns; raise ValueError with the column's name."""
    values: dict[str, Any] = {}
    for name in OWN[1:]:
        cell = cells.get(name, "")
        if name == "resident":
            if cell.strip() and not cell.strip().isdigit():
                raise ValueError(name)
            values[name] = int(cell) if cell.strip() else None
        elif name in ("litres", "share", "amount"):
            try:
                values[name] = float(cell.replace(",", ".")) if cell.strip() else None
            except ValueError:
                raise ValueError(name) from None
        else:
            values[name] = cell
    if values["kind"] not in KINDS:
        raise ValueError("kind")
    if values["when"] not in ("", "before", "after"):
        raise ValueError("when")
    if values["share"] is not None and not 0 <= values["share"] <= 1:
        raise ValueError("share")
    return Entry(**values)
