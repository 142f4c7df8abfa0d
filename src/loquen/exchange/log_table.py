"""The log as a table: written out in one layout, read in from what people keep in a spreadsheet.

Written: a line an entry, in columns of their own names (docs/formats.md). Read: the same, or a line a day with a
column a measure; comma, semicolon or tab; decimal point or comma; dates in any common order, asked for where two fit.
"""

import csv
import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, fields
from datetime import date, datetime, time, tzinfo
from typing import Any, Literal

from loquen.core.data.kits import kits, measures
from loquen.core.model.log import KINDS, Entry, Logged
from loquen.exchange.tables import as_csv

MOST_LINES = 50_000
MOST_FAULTS = 200
DateOrder = Literal["day first", "month first"]
OWN = ("at", *(item.name for item in fields(Entry)))

# What a heading is taken for: a measure with what its numbers stand for, or a part of an entry.
HEADINGS: dict[str, tuple[str, str]] = {
    "date": ("date", ""),
    "day": ("date", ""),
    "when": ("date", ""),
    "time": ("time", ""),
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
    rows: list[tuple[int, Logged]] = field(default_factory=list)
    faults: list[BadCell] = field(default_factory=list)
    either_order: bool = False
    """Whether every date could be read day first and month first alike."""


class UnreadTable(Exception):
    """A text that is no table of a log, and why."""


def write_table(log: Iterable[Logged]) -> str:
    """A log as CSV, oldest first; no cell runs as a formula."""
    rows = [
        (
            row.at.isoformat(timespec="seconds"),
            *("" if (c := getattr(row.entry, name)) is None else c for name in OWN[1:]),
        )
        for row in log
    ]
    return as_csv(OWN, rows)


def read_table(text: str, zone: tzinfo, order: DateOrder | None = None) -> ReadTable:
    """A table of readings and changes; what can be read is, what can not is named by line and column.

    Raises: UnreadTable for a text without headings that are known, or too long.
    """
    lines = text.lstrip("﻿").splitlines()
    if len(lines) > MOST_LINES + 1:
        raise UnreadTable(f"It has {len(lines)} lines; {MOST_LINES} are the most at a time: split it by years.")
    head = next((line for line in lines if line.strip()), "")
    mark = max("\t;,", key=head.count)
    rows = list(csv.reader(lines, delimiter=mark))
    if not rows:
        raise UnreadTable("There is nothing in it.")
    headings = [cell.strip() for cell in rows[0]]
    if "at" in headings and "kind" in headings:
        return read_own(headings, rows[1:], zone)
    taken = [HEADINGS.get(re.sub(r"[^a-z0-9]", "", re.sub(r"\(.*?\)|mg/?l|%|°", "", h.lower()))) for h in headings]
    found = ReadTable(columns=[ColumnTaken(h, told(t)) for h, t in zip(headings, taken, strict=True)])
    if not any(t and t[0] == "date" for t in taken):
        raise UnreadTable("No column is headed “date”: each line needs its day.")
    if not any(t and t[0] not in ("date", "time") for t in taken):
        raise UnreadTable(
            "No column is one that Loquen knows: nitrate, nitrite, ammonia, pH, KH, GH, temperature, change, note."
        )
    at = {t[0]: place for place, t in enumerate(taken) if t and t[0] in ("date", "time")}
    cells = [row[at["date"]].strip() for row in rows[1:] if len(row) > at["date"]]
    day_first, month_first = (all_read(cells, way) for way in ("day first", "month first"))
    found.either_order = order is None and day_first and month_first and any(swaps(cell) for cell in cells)
    way: DateOrder = order or ("month first" if month_first and not day_first else "day first")
    for number, row in enumerate(rows[1:], 2):
        if any(cell.strip() for cell in row):
            read_line(found, number, row, headings, taken, at, zone, way)
    return found


def told(taken: tuple[str, str] | None) -> str:
    """What a heading is taken for, in words."""
    if taken is None:
        return ""
    what, reads = taken
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
            found.rows.append((number, Logged(moment, entry_of(known, cell.strip()))))
        except ValueError as fault:
            bad(column, str(fault))
    return None


def entry_of(known: tuple[str, str], cell: str) -> Entry:
    """One cell as an entry; raise ValueError."""
    what, reads = known
    if what == "note":
        return Entry("note", note=cell[:2000])
    number = re.match(r"^(\d+(?:[.,]\d+)?)\s*(%|l|litres?)?$", cell.lower())
    if what == "change":
        if not number:
            raise ValueError("is no share and no litres")
        value = float(number.group(1).replace(",", "."))
        if number.group(2) and number.group(2) != "%":
            return Entry("change", litres=value)
        share = value if value < 1 and number.group(2) != "%" else value / 100
        if share > 1:
            raise ValueError("is more than the whole tank")
        return Entry("change", share=share)
    if cell.startswith(("-", "−")):
        raise ValueError("is under nothing")
    return Entry("reading", what=what, value=cell.replace(",", "."), kit=usual_kit(what, reads))


def usual_kit(what: str, reads: str) -> str:
    """The first kit of the house that reads this so."""
    return next((key for key, kit in kits().items() if kit.measure == what and kit.reads == reads), "")


DATES = re.compile(r"^(\d{1,4})[-./ ](\d{1,2})[-./ ](\d{2,4})$")


def read_date(cell: str, way: str) -> date:
    """A date, the year first or last; raise ValueError."""
    parts = DATES.match(cell.split("T", maxsplit=1)[0].strip())
    if not parts:
        raise ValueError(cell)
    a, b, c = (int(part) for part in parts.groups())
    if a > 31:
        return date(a, b, c)
    year = c + 2000 if c < 100 else c
    return date(year, b, a) if way == "day first" else date(year, a, b)


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


def read_own(headings: list[str], rows: list[list[str]], zone: tzinfo) -> ReadTable:
    """A table that Loquen wrote."""
    found = ReadTable(columns=[ColumnTaken(h, h if h in OWN else "") for h in headings])
    for number, row in enumerate(rows, 2):
        cells = {h: unsafe(c.strip()) for h, c in zip(headings, row, strict=False)}
        if not any(cells.values()):
            continue
        try:
            moment = datetime.fromisoformat(cells["at"])
        except ValueError:
            found.faults.append(BadCell(number, "at", "is no moment"))
            continue
        try:
            found.rows.append(
                (number, Logged(moment if moment.tzinfo else moment.replace(tzinfo=zone), own_entry(cells)))
            )
        except ValueError as fault:
            found.faults.append(BadCell(number, str(fault), "can not be read"))
    return found


def own_entry(cells: Mapping[str, str]) -> Entry:
    """An entry from the cells of its own columns; raise ValueError with the column's name."""
    values: dict[str, Any] = {}
    for name in OWN[1:]:
        cell = cells.get(name, "")
        if name in ("litres", "share", "amount"):
            try:
                values[name] = float(cell.replace(",", ".")) if cell else None
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


def unsafe(cell: str) -> str:
    """A cell as it was before it was made safe."""
    return cell[1:] if cell[:1] == "'" and cell[1:2] in "=+-@\t" else cell
