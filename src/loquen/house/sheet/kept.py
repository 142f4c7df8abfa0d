"""The last sheets and answers, so that an edit computes and sends only what it changes."""

from collections import OrderedDict
from collections.abc import Callable, Iterable
from dataclasses import dataclass, fields, is_dataclass
from itertools import count
from operator import attrgetter
from threading import Lock
from typing import Any

from loquen.core.graph.sheet import Sheet
from loquen.core.library.whole import Library
from loquen.core.model.roots.plan import PLAN, Plan
from loquen.core.system.book import sheet_of
from loquen.house.sheet.answers import SheetAnswer
from loquen.house.sheet.judged import Told

MOST_SHEETS = 8
MOST_ANSWERS = 16


@dataclass(frozen=True)
class Answered:
    """An answer that a page has, and the sheet that it tells."""

    answer: SheetAnswer
    told: Told


class KeptSheets:
    """The last sheet of each plan's shape, and the last answers by the version that a page names."""

    def __init__(self) -> None:
        self.lock = Lock()
        self.sheets: OrderedDict[Any, Sheet[Plan]] = OrderedDict()
        self.answers: OrderedDict[str, Answered] = OrderedDict()
        self.numbers = count(1)

    def sheet(self, plan: Plan, library: Library, months_ahead: float | None) -> Sheet[Plan]:
        """A sheet with everything made: of the last one of as many rows, where there is one, or fresh."""
        key = (plan.name, PLAN.counts(plan), months_ahead)
        with self.lock:
            near = self.sheets.get(key)
        sheet = near.moved_to(plan, library) if near is not None else sheet_of(plan, library, months_ahead)
        sheet.all()
        with self.lock:
            self.sheets[key] = sheet
            self.sheets.move_to_end(key)
            while len(self.sheets) > MOST_SHEETS:
                self.sheets.popitem(last=False)
        return sheet

    def keep(self, sheet: Sheet[Plan], answer: SheetAnswer) -> str:
        """The version under which an answer is kept for the next."""
        with self.lock:
            version = str(next(self.numbers))
            self.answers[version] = Answered(answer, Told(sheet, answer.figures, {c.key: c for c in answer.checks}))
            while len(self.answers) > MOST_ANSWERS:
                self.answers.popitem(last=False)
        return version

    def answer(self, version: str | None) -> Answered | None:
        with self.lock:
            return self.answers.get(version) if version else None


SAME = object()
PLAIN = (float, str, int, bool, type(None))
PARTS: dict[type, tuple[tuple[str, ...], Callable[[Any], tuple[Any, ...]]] | None] = {}


def parts_of(kind: type) -> tuple[tuple[str, ...], Callable[[Any], tuple[Any, ...]]] | None:
    """A dataclass's fields, and what reads them all; None for what is none. Kept: it is asked for thousands of times."""
    if kind not in PARTS:
        names = tuple(field.name for field in fields(kind)) if is_dataclass(kind) else ()
        PARTS[kind] = (names, attrgetter(*names)) if len(names) > 1 else None
    return PARTS[kind]


def difference(old: Any, new: Any) -> Any:
    """What turns one answer into another: SAME, or a patch.

    A patch is {"p": {name or place: patch}} for an object with as many names or a list of the same length, and
    {"v": value} for what is another thing altogether.
    """
    kind = type(old)
    if kind is type(new):
        if kind is dict:
            if old.keys() == new.keys():
                return patched(old, old.values(), map(new.__getitem__, old))
        elif kind is list or kind is tuple:
            if len(old) == len(new):
                return patched(range(len(old)), old, new)
        elif kind not in PLAIN and (parts := parts_of(kind)) is not None:
            names, read = parts
            return patched(names, read(old), read(new))
    return SAME if old == new else {"v": new}


def patched(names: Iterable[str | int], olds: Iterable[Any], news: Iterable[Any]) -> Any:
    """The patches of parts that have a name each."""
    found: dict[str, Any] = {}
    for name, old, new in zip(names, olds, news, strict=True):
        if old is not new and (patch := difference(old, new)) is not SAME:
            found[str(name)] = patch
    return {"p": found} if found else SAME
