"""The list of systems: a line for each, kept by system and revision, found by words, ordered, and given in parts."""

import logging
import re
from collections import OrderedDict
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from itertools import pairwise
from threading import Lock
from typing import Any, Literal

from loquen.api.computing import aside
from loquen.api.sheet import view
from loquen.api.systems.schema import SystemLine, SystemsPart
from loquen.api.wire.documents import read_document
from loquen.api.wire.words import conflict_sentence
from loquen.core.data import library
from loquen.core.graph.nodes import worst
from loquen.core.model.inputs.quantity import Sentence, say
from loquen.core.model.roots.consistency import conflicts
from loquen.core.model.roots.documents import Unreadable, name_of
from loquen.core.model.roots.plan import Plan
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


class Listing:
    """Every line that was made, until its system has another revision."""

    def __init__(self) -> None:
        self.lines: OrderedDict[tuple[int, int], Listed] = OrderedDict()
        self.lock = Lock()

    def forget(self) -> None:
        """Let go of every line: what they were made with has changed."""
        with self.lock:
            self.lines.clear()

    def known(self, system: Current) -> Listed | None:
        with self.lock:
            found = self.lines.get((system.id, system.revision))
            if found is not None:
                self.lines.move_to_end((system.id, system.revision))
            return found

    def line(self, system: Current) -> Listed:
        """A system's line, made when it is not known."""
        found = self.known(system)
        if found is None:
            found = line_of(system)
            with self.lock:
                self.lines[system.id, system.revision] = found
                while len(self.lines) > MOST_LINES:
                    self.lines.popitem(last=False)
        return found

    def make_next(self, systems: list[Current]) -> None:
        """Make one line that is not known, and see to the next when a worker is free again."""
        unknown = [system for system in systems if self.known(system) is None]
        if unknown:
            self.line(unknown[0])
            aside(lambda: self.make_next(unknown[1:]))

    def part(self, systems: list[Current], find: str, order: Order, start: int, count: int) -> SystemsPart:
        """The lines from one place on, of those in which every word is found."""
        wanted = [word_pattern(word) for word in find.lower().split()]
        if wanted or order != "started":
            rows = [self.line(system) for system in systems]
            rows = sorted(
                (row for row in rows if all(word.search(row.words) for word in wanted)), key=ORDERS[order]
            )
            found, shown = len(rows), rows[start : start + count]
        else:
            found, shown = len(systems), [self.line(system) for system in systems[start : start + count]]
            known = [self.known(system) for system in systems]
            rows = [] if None in known else [row for row in known if row is not None]
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


def line_of(system: Current) -> Listed:
    """The line of one system; where its plan can not be read or computed, why."""
    name = name_of(system.document, system.id)
    try:
        plan = read_document(system.document)
    except Unreadable as fault:
        return without_sheet(system, name, fault.why, readable=False)
    found = conflicts(plan)
    if found:
        return without_sheet(system, name, conflict_sentence(found[0]), readable=True)
    try:
        summary, to_measure, glasses, section = view.line(plan)
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
    return Listed(line, words_of(plan, short), worst(glass.state for glass in glasses), litres)


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


def words_of(plan: Plan, short: list[str]) -> str:
    """What a system is found by: its name, its animals, what falls short."""
    rows = [library.species()[group.species] for group in plan.animals]
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
