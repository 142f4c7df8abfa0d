"""Wires figures by the names of their parameters, and evaluates what is asked for and what changed."""

import logging
from collections import OrderedDict
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property, lru_cache, reduce
from graphlib import TopologicalSorter
from math import isfinite
from operator import itemgetter, or_
from threading import Lock
from typing import Any, Generic

from typing_extensions import TypeVar

from loquen.core.data.tables import Constant
from loquen.core.errors import NamedCase, OutOfRange, UnknownKey
from loquen.core.graph.domain import Domain
from loquen.core.graph.giving_up import heed
from loquen.core.graph.judging import asked_for
from loquen.core.graph.nodes import Node, Verdict
from loquen.core.library.whole import Library
from loquen.core.model.inputs.fields import names
from loquen.core.model.inputs.quantity import UNKNOWN, Untold
from loquen.core.model.inputs.shape import Shape

Key = str
Argument = Key | tuple[Key, ...]
CONSTANT = "constant."
LIBRARY = "library"
"""What a node calls the library that its sheet goes by."""
MOST_KEPT = 256
"""Ways through a wiring that are kept at once."""
MOST_NODES = 24_000
"""In all wirings that are kept at once, of some three kilobytes each: fifty of usual plans."""
PLACE = "place"
"""What a figure of a row calls the row's own number, from 1."""
Root = TypeVar("Root", default=Any)
"""What a sheet is of."""


@dataclass(frozen=True, slots=True)
class Missing:
    """A named case in place of a number, and the figure that it arose in.

    The case was never raised itself: a raised one holds on to all that stood around it, this sheet too.
    """

    case: NamedCase
    origin: Key

    def again(self) -> NamedCase:
        """The case to raise once more."""
        return NamedCase(self.case.code, **self.case.values)


def alike(one: Any, other: Any) -> bool:
    """Whether two values of a figure say the same; named cases do by what they tell, and arrays are never told to."""
    if type(one) is not type(other):
        return False
    if isinstance(one, Missing):
        a, b = one.case, other.case
        return one.origin == other.origin and a.code == b.code and alike(a.values, b.values)
    try:
        return bool(one == other)
    except ValueError:
        return False


def spared(value: Any) -> Any:
    """A value as a parameter typed `X | None` takes it: None where a named case stands, also in a list of rows."""
    if isinstance(value, tuple):
        return tuple([spared(row) for row in value])
    return None if isinstance(value, Missing) else value


Reader = Callable[[Mapping[Key, Any]], tuple[Any, ...]]


def reader(argument: tuple[Key, ...]) -> Reader:
    """Reads the values of some keys at once."""
    if len(argument) > 1:
        return itemgetter(*argument)
    return lambda known: tuple([known[key] for key in argument])


def node_reader(arguments: tuple[Argument, ...]) -> Reader:
    """Reads what a node takes: single values, and rows of values as tuples."""
    plain = [argument for argument in arguments if isinstance(argument, str)]
    if len(plain) == len(arguments):
        return reader(tuple(plain))
    parts = [itemgetter(a) if isinstance(a, str) else reader(a) for a in arguments]
    return lambda known: tuple([part(known) for part in parts])


@dataclass(frozen=True, slots=True)
class Move:
    """One node's turn: the keys it takes, those it can not do without, how all are read, and what is made of them."""

    key: Key
    takes: tuple[Key, ...]
    needs: tuple[Key, ...]
    spares: tuple[Key, ...]
    read: Reader
    compute: Callable[..., Any]
    number: bool
    asks: Mapping[Key, Untold]
    """Of a check: inputs upstream of what it judges for which nothing usual stands in while they are not told."""


@dataclass(frozen=True)
class Wiring:
    """The graph of one set of nodes over a plan with so many rows: who takes what, in which order."""

    nodes: Mapping[Key, Node]
    arguments: Mapping[Key, tuple[Argument, ...]]
    shape: Shape

    @cached_property
    def takes(self) -> dict[Key, tuple[Key, ...]]:
        """The keys that each node takes, one by one."""
        return {
            key: tuple(k for a in arguments for k in ([a] if isinstance(a, str) else a))
            for key, arguments in self.arguments.items()
        }

    @cached_property
    def moves(self) -> dict[Key, Move]:
        """Every node's turn, in an order in which each finds what it takes."""
        graph = {key: [k for k in takes if k in self.nodes] for key, takes in self.takes.items()}
        return {
            key: Move(
                key,
                self.takes[key],
                *self.needs_and_spares(key),
                node_reader(self.arguments[key]),
                node.compute,
                node.is_number,
                self.asks_of(key) if node.check else {},
            )
            for key in TopologicalSorter(graph).static_order()
            for node in [self.nodes[key]]
        }

    def asks_of(self, key: Key) -> dict[Key, Untold]:
        """The inputs that a check's figure hangs on for which nothing usual stands in, nearest first."""
        check = self.nodes[key].check
        if check is None or not check.judges:
            return {}
        judged = check.judges if check.judges in self.nodes else key
        found = {path: self.shape.entry_at(path) for path in self.upstream(judged) if path not in self.nodes}
        return {path: entry.untold for path, entry in found.items() if entry is not None and entry.untold}

    def needs_and_spares(self, key: Key) -> tuple[tuple[Key, ...], tuple[Key, ...]]:
        """The keys that a node can not do without, and those in whose place it takes None."""
        node = self.nodes[key]
        needs: list[Key] = []
        spares: list[Key] = []
        for name, argument in zip(node.parameters, self.arguments[key], strict=True):
            (spares if name in node.optional else needs).extend(
                [argument] if isinstance(argument, str) else argument
            )
        return tuple(needs), tuple(spares)

    @cached_property
    def shown(self) -> tuple[Key, ...]:
        """The figures and checks, in the order of their making."""
        return tuple(key for key in self.moves if self.nodes[key].label)

    @cached_property
    def figures(self) -> tuple[tuple[Key, Node], ...]:
        """What has a value to show, with its node, in the order of the book."""
        return tuple((key, node) for key, node in self.nodes.items() if node.label and not node.check)

    @cached_property
    def checks(self) -> tuple[tuple[Key, Node], ...]:
        """What judges, with its node, in the order of the book."""
        return tuple((key, node) for key, node in self.nodes.items() if node.check)

    @cached_property
    def users(self) -> dict[Key, int]:
        """For every input, constant and node: all nodes that change with it, a bit for each in the order of moves."""
        users: dict[Key, int] = {}
        for place, key in reversed(list(enumerate(self.moves))):
            hanging = users.get(key, 0) | 1 << place
            for taken in self.takes[key]:
                users[taken] = users.get(taken, 0) | hanging
        return users

    @cached_property
    def users_of(self) -> Callable[[Key], frozenset[Key]]:
        """The nodes that change with an input, a constant or a node; those asked for last are kept."""

        @lru_cache(MOST_KEPT)
        def found(source: Key) -> frozenset[Key]:
            return self.keys_of(self.users.get(source, 0))

        return found

    @cached_property
    def users_under(self) -> Callable[..., frozenset[Key]]:
        """The nodes that change with any input at some paths or below; those asked for last are kept."""
        inputs = [key for key in self.users if key not in self.nodes]

        @lru_cache(MOST_KEPT)
        def found(*paths: Key) -> frozenset[Key]:
            below = tuple(f"{path}." for path in paths)
            under = [self.users[key] for key in inputs if key in paths or key.startswith(below)]
            return self.keys_of(reduce(or_, under, 0))

        return found

    def keys_of(self, users: int) -> frozenset[Key]:
        """The nodes of which a bit is set."""
        bits = f"{users:b}"[::-1]
        return frozenset(key for key, bit in zip(self.moves, bits, strict=False) if bit == "1")

    def upstream(self, key: Key) -> Iterator[Key]:
        """Everything that a node hangs on, each once, nearest first."""
        seen, waiting = set(), [key]
        while waiting:
            for k in self.takes[waiting.pop(0)]:
                if k not in seen:
                    seen.add(k)
                    yield k
                    if k in self.nodes:
                        waiting.append(k)

    @cached_property
    def route(self) -> Callable[..., tuple[Move, ...]]:
        """The turns that lead to some nodes, in order; those asked for last are kept."""

        @lru_cache(MOST_KEPT)
        def found(*keys: Key) -> tuple[Move, ...]:
            wanted = set(keys).union(*(self.upstream(key) for key in keys))
            return tuple(move for key, move in self.moves.items() if key in wanted)

        return found


class Book:
    """A set of nodes over the roots of one shape, and the numbers that they know.

    An input is called by its field's name, or by section and field where two sections have fields of that name:
    `length_cm` of `tank` and of `sump` are `tank_length_cm` and `sump_length_cm`, and each row's own is plain.
    """

    def __init__(
        self,
        nodes: Mapping[str, Node],
        shape: Shape,
        constants: Mapping[str, Constant],
        asked: Mapping[str, float] | None = None,
        domain: Domain | None = None,
    ) -> None:
        self.nodes = nodes
        self.shape = shape
        self.constants = constants
        self.values = {CONSTANT + name: row.value for name, row in constants.items()}
        self.domain = domain or Domain()
        self.asked = dict(asked or {})
        self.wirings: OrderedDict[tuple[tuple[str, int], ...], Wiring] = OrderedDict()
        self.lock = Lock()
        self.homes: dict[str, list[str]] = {}
        for section, model in shape.sections.items():
            for name in names(model):
                self.homes.setdefault(name, []).append(section)
        self.inputs = {
            called: (section, name)
            for name, sections in self.homes.items()
            for section in sections
            for called in ([name] if len(sections) == 1 else [f"{section}_{name}"])
        }
        twice = self.inputs.keys() & nodes.keys() or self.homes.keys() & nodes.keys()
        if twice or len(self.inputs) < sum(map(len, self.homes.values())):
            raise ValueError(f"a name stands for two things: {', '.join(sorted(twice))}")

    def wiring(self, row_counts: tuple[tuple[str, int], ...]) -> Wiring:
        """The wiring for so many rows; those asked for last are kept, as far as memory allows."""
        with self.lock:
            found = self.wirings.pop(row_counts, None) or self._wiring(row_counts)
            self.wirings[row_counts] = found
            while len(self.wirings) > 1 and sum(len(kept.nodes) for kept in self.wirings.values()) > MOST_NODES:
                self.wirings.popitem(last=False)
        return found

    def _wiring(self, row_counts: tuple[tuple[str, int], ...]) -> Wiring:
        counts = dict(row_counts)
        found: dict[Key, Node] = {}
        arguments: dict[Key, tuple[Argument, ...]] = {}
        for node in self.nodes.values():
            prefixes = [f"{node.row}.{i}." for i in range(counts[node.row])] if node.row else [""]
            for prefix in prefixes:
                key = prefix + node.name
                found[key] = node
                arguments[key] = tuple(self._argument(node, prefix, name, counts) for name in node.parameters)
        return Wiring(found, arguments, self.shape)

    def _argument(self, node: Node, prefix: str, name: str, counts: dict[str, int]) -> Argument:
        """What a parameter name stands for, seen from one node."""
        if name == PLACE:
            return prefix + PLACE
        if name == LIBRARY:
            return LIBRARY
        if name in self.constants:
            return CONSTANT + name
        if name in self.asked:
            return f"asked.{name}"
        home, path = self._home(node, name)
        if home not in self.shape.rows:
            return f"{home}.{path}" if home else path
        if home == node.row:
            return prefix + path
        return tuple(f"{home}.{i}.{path}" for i in range(counts[home]))

    def _home(self, node: Node, name: str) -> tuple[str, str]:
        """The section that a name lives in, and what it is called there; a node of the whole lives in none."""
        if name in self.nodes:
            return self.nodes[name].row, name
        if node.row and node.row in self.homes.get(name, ()):
            return node.row, name
        if name not in self.inputs:
            raise UnknownKey(f"parameters of {node.name}", name)
        return self.inputs[name]


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
