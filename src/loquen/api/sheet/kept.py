"""The last sheets and answers, so that an edit computes and sends only what it changes."""

from collections import OrderedDict
from collections.abc import Iterable
from dataclasses import fields, is_dataclass
from itertools import count
from threading import Lock
from typing import Any

from loquen.api.sheet.answers import SheetAnswer
from loquen.core.data import own
from loquen.core.graph.engine import Sheet
from loquen.core.model.plan import PLAN, Plan
from loquen.core.system.book import sheet_of

MOST_SHEETS = 8
MOST_ANSWERS = 16


class KeptSheets:
    """The last sheet of each plan's shape, and the last answers by the version that a page names."""

    def __init__(self) -> None:
        self.lock = Lock()
        self.sheets: OrderedDict[Any, Sheet[Plan]] = OrderedDict()
        self.answers: OrderedDict[str, SheetAnswer] = OrderedDict()
        self.numbers = count(1)

    def sheet(self, plan: Plan, months_ahead: float | None) -> Sheet[Plan]:
        """A sheet with everything made: of the last one of as many rows, where there is one, or fresh."""
        key = (plan.name, PLAN.counts(plan), months_ahead, own.kept_as["time"])
        with self.lock:
            near = self.sheets.get(key)
        sheet = near.moved_to(plan) if near is not None else sheet_of(plan, months_ahead)
        sheet.all()
        with self.lock:
            self.sheets[key] = sheet
            self.sheets.move_to_end(key)
            while len(self.sheets) > MOST_SHEETS:
                self.sheets.popitem(last=False)
        return sheet

    def keep(self, answer: SheetAnswer) -> str:
        """The version under which an answer is kept for the next."""
        with self.lock:
            version = str(next(self.numbers))
            self.answers[version] = answer
            while len(self.answers) > MOST_ANSWERS:
                self.answers.popitem(last=False)
        return version

    def answer(self, version: str | None) -> SheetAnswer | None:
        with self.lock:
            return self.answers.get(version) if version else None


SAME = object()
WIDE = 20
"""From so many fields on an object is not compared as a whole first: it would be, again, part by part."""
PLAIN = (float, str, int, bool, type(None))
NAMES: dict[type, tuple[str, ...] | None] = {}


def names_of(kind: type) -> tuple[str, ...] | None:
    """The fields of a dataclass; None for what is none. Kept, since it is asked for thousands of times an edit."""
    if kind not in NAMES:
        NAMES[kind] = tuple(field.name for field in fields(kind)) if is_dataclass(kind) else None
    return NAMES[kind]


def difference(old: Any, new: Any) -> Any:
    """What turns one answer into another: SAME, or a patch.

    A patch is {"p": {name or place: patch}} for an object with as many names or a list of the same length, and
    {"v": value} for what is another thing altogether.
    """
    kind = type(old)
    if kind is type(new) and kind not in PLAIN:
        if kind is dict:
            if old.keys() == new.keys():
                return patched((name, value, new[name]) for name, value in old.items())
        elif kind is list or kind is tuple:
            if old == new:
                return SAME
            if len(old) == len(new):
                return patched((str(i), one, new[i]) for i, one in enumerate(old))
        elif (names := names_of(kind)) is not None:
            if len(names) < WIDE and old == new:
                return SAME
            return patched((name, getattr(old, name), getattr(new, name)) for name in names)
    return SAME if old == new else {"v": new}


def patched(parts: Iterable[tuple[str, Any, Any]]) -> Any:
    """The patches of parts, each with its name, as it was and as it is."""
    found = {
        name: patch for name, old, new in parts if old is not new and (patch := difference(old, new)) is not SAME
    }
    return {"p": found} if found else SAME
