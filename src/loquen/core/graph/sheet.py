"""A book on one root: what is asked for is evaluated once, and after an edit what hangs on it."""

import logging
from collections.abc import Mapping
from math import isfinite
from typing import Any, Generic

from typing_extensions import TypeVar

from loquen.core.data.tables import Constant
from loquen.core.errors import NamedCase, OutOfRange, UnknownKey
from loquen.core.graph.book import Book
from loquen.core.graph.giving_up import heed
from loquen.core.graph.judging import asked_for
from loquen.core.graph.keys import CONSTANT, LIBRARY, PLACE, Key, Missing, alike, spared
from loquen.core.graph.nodes import Verdict
from loquen.core.graph.wiring import Move
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import UNKNOWN, Untold

Root = TypeVar("Root", default=Any)
"""What a sheet is of."""


def note_fault(key: Key, root: object) -> None:
    """A figure that fails is a fault of the program: it is logged with its root, each figure once."""
    name = key.rsplit(".", 1)[-1]
    if name not in noted:
        noted.add(name)
        log.exception("%s failed on %r", key, root)


def note_refused(key: Key, fault: OutOfRange) -> None:
    """A relation that refuses a root's numbers: each figure once, since what is refused has no number on the page."""
    name = key.rsplit(".", 1)[-1]
    if name not in noted:
        noted.add(name)
        log.warning("%s is beyond its relation: %s", key, fault)


log = logging.getLogger("loquen")
noted: set[str] = set()


class Sheet(Generic[Root]):
    """The figures and checks of one root. A value is computed when asked for, and once.

    A calibration has the value and range of some constants for this root; what is asked for is no part of it.
    """

    def __init__(
        self,
        book: Book,
        root: Root,
        library: Library,
        calibration: Mapping[str, Constant] | None = None,
        **asked: float,
    ) -> None:
        shape = book.shape
        self.book, self.root, self.library = book, root, library
        self.constants = {**book.constants, **calibration} if calibration else book.constants
        self.wiring = book.wiring(shape.counts(root))
        self.known: dict[Key, Any] = book.values | dict(shape.leaves(root))
        self.known[LIBRARY] = library
        self.known |= {CONSTANT + name: row.value for name, row in (calibration or {}).items()}
        self.known |= {f"{rows}.{i}.{PLACE}": i + 1 for rows, count in shape.counts(root) for i in range(count)}
        self.known |= {f"asked.{name}": value for name, value in (book.asked | asked).items()}
        self.lacking: set[Key] = set()
        self.before: dict[Key, Any] = {}
        self.differs: set[Key] = set()

    def value(self, key: Key) -> Any:
        """The value under a key; raise NamedCase where a named case stands in its place."""
        found = self.look(key)
        if isinstance(found, Missing):
            raise found.again()
        return found

    def look(self, key: Key) -> Any:
        """The value under a key, or Missing with the named case; raise UnknownKey for no such key."""
        if key not in self.known:
            if key not in self.wiring.nodes:
                raise UnknownKey("figures", key)
            self._go(self.wiring.route(key))
        return self.known[key]

    def all(self) -> dict[Key, Any]:
        """Every figure's and check's value (or Missing); lists that only charts use wait until they are asked for."""
        self._go(self.wiring.route(*self.wiring.shown))
        return {key: self.known[key] for key in self.wiring.shown}

    def _go(self, route: tuple[Move, ...]) -> None:
        """Take the turns that are not taken yet; one whose takings are as before keeps what it came to."""
        known, lacking, before, differs = self.known, self.lacking, self.before, self.differs
        for move in route:
            key = move.key
            if key in known:
                continue
            if key in before:
                was = before[key]
                same = differs.isdisjoint(move.takes) and differs.isdisjoint(move.asks)
                if same or alike(was, value := self._made(move)):
                    value = was
                else:
                    differs.add(key)
            else:
                value = self._made(move)
                if before:
                    differs.add(key)
            if type(value) is Missing:
                lacking.add(key)
            known[key] = value  # at last: who asks for the same sheet meanwhile finds either nothing or all of it

    def _made(self, move: Move) -> Any:
        """What a turn comes to: its value, or Missing."""
        known, lacking = self.known, self.lacking
        if lacking and not lacking.isdisjoint(move.needs):
            return next(known[key] for key in move.needs if key in lacking)
        try:
            taken = move.read(known)
            if move.spares and not lacking.isdisjoint(move.spares):
                taken = tuple([spared(value) for value in taken])
            value = move.compute(*taken)
            if move.asks and isinstance(value, Verdict):
                value = asked_for(value, self.untold(move.asks))
            if move.number and not isfinite(value):
                raise ArithmeticError(f"{move.key} comes to {value}")
        except NamedCase as case:
            return Missing(NamedCase(case.code, **case.values), move.key)
        except OutOfRange as fault:
            note_refused(move.key, fault)
            return Missing(NamedCase("beyond_relation", **fault.values), move.key)
        except Exception:
            note_fault(move.key, self.root)
            return Missing(NamedCase("fault_inside"), move.key)
        return value

    def untold(self, asks: Mapping[Key, Untold]) -> dict[Key, Untold]:
        """Those of some inputs that nobody told, where they bear on anything in this root."""
        known, matters = self.known, self.book.domain.matters
        return {
            path: untold for path, untold in asks.items() if known[path] in (None, UNKNOWN) and matters(self, path)
        }

    def moved_to(self, root: Root, library: Library | None = None) -> "Sheet[Root]":
        """The sheet of another root with as many rows, or by another library: what does not hang on what differs is kept."""
        known = self.known
        now = {LIBRARY: library or self.library, **dict(self.book.shape.leaves(root))}
        sheet = self.changed({path: value for path, value in now.items() if known[path] != value})
        sheet.root = root
        return sheet

    def changed(self, changes: Mapping[Key, Any]) -> "Sheet[Root]":
        """The sheet with some inputs or constants changed; raise UnknownKey for a key that is neither.

        It keeps every value that does not hang on the changes, and those that come out as they were: what hangs on
        these alone is not made again. Raise GivenUp where nobody waits for it.
        """
        heed()
        stale: set[Key] = set()
        differs: set[Key] = set()
        for path, value in changes.items():
            if path not in self.known or path in self.wiring.nodes:
                raise UnknownKey("inputs", path)
            if value != self.known[path]:
                stale |= self.wiring.users_of(path)
                differs.add(path)
        sheet: Sheet[Root] = Sheet.__new__(Sheet)
        sheet.book, sheet.root, sheet.constants, sheet.wiring = self.book, self.root, self.constants, self.wiring
        sheet.library = changes.get(LIBRARY, self.library)
        sheet.known, sheet.lacking = {**self.known, **changes}, self.lacking - stale
        sheet.before = {key: sheet.known.pop(key) for key in stale & sheet.known.keys()}
        sheet.differs = differs
        return sheet
