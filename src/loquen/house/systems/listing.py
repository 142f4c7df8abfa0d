"""The list of systems: a line for each, found by words, ordered, and given in parts."""

import logging
import re
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from itertools import pairwise
from typing import Any, Literal

from loquen.checked.documents import A_PLAN
from loquen.checked.words import conflict_sentence
from loquen.core.graph.nodes import worst
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, say
from loquen.core.model.roots.consistency import conflicts
from loquen.core.model.roots.documents import Unreadable, name_of
from loquen.core.model.roots.plan import Plan
from loquen.house.house import Visit
from loquen.house.kept import at_most
from loquen.house.sheet import view
from loquen.house.systems.schema import SystemLine, SystemsPart
from loquen.store.documents.systems import Current

log = logging.getLogger("loquen")
SHORT_WORD = 2
MOST_LINES = 2000
"""Kept at once, of some four kilobytes each."""
Order = Literal["started", "name", "row", "short", "size"]
HEADINGS = {
    "short": "Falls short",
    "measure": "To measure or to ask",
    "tight": "Tight",
    "holds": "Holds",
    "unknown": "Not known yet",
}
NO_ROW = "On their own"


@dataclass(frozen=True, slots=True)
class Listed:
    """A line with what it is found and ordered by."""

    line: SystemLine
    words: str
    state: str
    litres: float


def part(visit: Visit, systems: list[Current], find: str, order: Order, start: int, count: int) -> SystemsPart:
    """The lines from one place on, of those in which every word is found."""
    wanted = [word_pattern(word) for word in find.lower().split()]
    if wanted or order != "started":
        rows = [visit.kept(line_of, system) for system in systems]
        rows = sorted((row for row in rows if all(word.search(row.words) for word in wanted)), key=ORDERS[order])
        found, shown = len(rows), rows[start : start + count]
    else:
        found = len(systems)
        shown = [visit.kept(line_of, system) for system in systems[start : start + count]]
        known = all(visit.knows(line_of, system) for system in systems)
        rows = [visit.kept(line_of, system) for system in systems] if known else []
    return SystemsPart(
        total=len(systems),
        found=found,
        short=sum(row.state == "short" for row in rows) if rows or not found else None,
        to_measure=sum(row.line.to_measure > 0 for row in rows) if rows or not found else None,
        lines=[row.line for row in shown],
        headings=headings(order, rows[start - 1 : start], shown),
        next=start + count if start + count < found else None,
    )


def word_pattern(word: str) -> re.Pattern[str]:
    """Finds a word, a part of one being enough; of one or two letters all of it: tank 3, rack a."""
    part = re.escape(word)
    return re.compile(rf"(?<!\w){part}(?!\w)" if len(word) <= SHORT_WORD else part)


def headings(order: Order, before: Iterable[Listed], shown: list[Listed]) -> dict[int, str]:
    """A heading where a row of lines begins, by its place among the shown."""
    if order not in HEADED:
        return {}
    of = HEADED[order]
    first = [None, *map(of, before)][-1]
    texts = [first, *map(of, shown)]
    return {place: text for place, (last, text) in enumerate(pairwise(texts)) if text is not None and text != last}


@at_most(MOST_LINES)
def line_of(visit: Visit, system: Current) -> Listed:
    """The line of one system; where its plan can not be read or computed, why."""
    name = name_of(system.document, system.id)
    try:
        plan = A_PLAN.read(system.document)
    except Unreadable as fault:
        return without_sheet(system, name, fault.why, readable=False)
    found = conflicts(plan, visit.library)
    if found:
        return without_sheet(system, name, conflict_sentence(found[0]), readable=True)
    try:
        summary, to_measure, glasses, section = view.line(plan, visit.library)
        litres = float(summary.terms["litres"].value)
    except Exception:
        log.exception("the line of system %s can not be made", system.id)
        return without_sheet(system, name, say("Loquen failed at this one, and has noted it in its log."), True)
    line = SystemLine(
        id=system.id,
        created=system.created,
        revision=system.revision,
        name=plan.name,
        summary=summary,
        to_measure=to_measure,
        glasses=glasses,
        section=section,
        readable=True,
    )
    short = [glass.label for glass in glasses if glass.state == "short"]
    return Listed(line, words_of(plan, visit.library, short), worst(glass.state for glass in glasses), litres)


def without_sheet(system: Current, name: str, why: Sentence, readable: bool) -> Listed:
    line = SystemLine(
        id=system.id,
        created=system.created,
        revision=system.revision,
        name=name,
        summary=why,
        to_measure=0,
        glasses=[],
        section=None,
        readable=readable,
    )
    return Listed(line, name.lower(), "unknown", 0.0)


def words_of(plan: Plan, library: Library, short: list[str]) -> str:
    """What a system is found by: its name, its animals, what falls short."""
    rows = [library.species[group.species] for group in plan.animals]
    names = [plan.name, *(f"{row.common} {row.scientific}" for row in rows), *short, "short" if short else ""]
    return "\n".join(names).lower()


def natural(name: str) -> list[tuple[int, str]]:
    """A key by which tank 2 comes before tank 10."""
    return [(int(part), "") if part.isdecimal() else (-1, part) for part in re.split(r"(\d{1,9})", name.lower())]


def row_of(listed: Listed) -> str:
    """The room, rack or row that a name begins with; empty for a system on its own."""
    row, comma, _ = listed.line.name.partition(",")
    return row.strip() if comma else ""


STATES = list(HEADINGS)
ORDERS: dict[Order, Callable[[Listed], Any]] = {
    "started": lambda row: row.line.id,
    "name": lambda row: natural(row.line.name),
    "row": lambda row: (row_of(row) == "", natural(row_of(row)), natural(row.line.name)),
    "short": lambda row: (STATES.index(row.state), natural(row.line.name)),
    "size": lambda row: -row.litres,
}
HEADED: dict[str, Callable[[Listed], str]] = {
    "row": lambda row: row_of(row) or NO_ROW,
    "short": lambda row: HEADINGS[row.state],
}
