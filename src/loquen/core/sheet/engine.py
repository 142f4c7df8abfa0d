"""Wires figures by the names of their parameters, and evaluates what is asked for and what changed."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, fields
from functools import cache, cached_property
from graphlib import TopologicalSorter
from math import inf
from operator import itemgetter
from typing import Any

from loquen.core.data.tables import constants
from loquen.core.errors import Impossible, OutOfRange, UnknownKey
from loquen.core.model.fields import ROWS, leaves, sections
from loquen.core.model.plan import Plan
from loquen.core.sheet.nodes import Node

Key = str
Argument = Key | tuple[Key, ...]
CONSTANT = "constant."
ASKED = {"months_ahead": inf}
"""What a sheet is asked about that is no part of the plan, and what is meant when nothing is said."""


@dataclass(frozen=True, slots=True)
class Missing:
    """A named case in place of a number, and the figure that it arose in."""

    case: Impossible
    origin: Key


Reader = Callable[[Mapping[Key, Any]], tuple[Any, ...]]


def reader(argument: tuple[Key, ...]) -> Reader:
    """Reads the values of some keys at once."""
    if len(argument) > 1:
        return itemgetter(*argument)
    return lambda known: tuple([known[key] for key in argument])


def node_reader(arguments: tuple[Argument, ...]) -> tuple[Reader, bool]:
    """Reads what a node takes, and says whether any of it is a row of values."""
    plain = [argument for argument in arguments if isinstance(argument, str)]
    if len(plain) == len(arguments):
        return reader(tuple(plain)), False
    parts = [itemgetter(a) if isinstance(a, str) else reader(a) for a in arguments]
    return lambda known: tuple([part(known) for part in parts]), True


@dataclass(frozen=True)
class Wiring:
    """The graph of one set of nodes over a plan with so many rows: who takes what, in which order."""

    nodes: Mapping[Key, Node]
    arguments: Mapping[Key, tuple[Argument, ...]]

    @cached_property
    def order(self) -> tuple[Key, ...]:
        graph = {key: [k for k in self.flat(key) if k in self.nodes] for key in self.nodes}
        return tuple(TopologicalSorter(graph).static_order())

    @cached_property
    def shown(self) -> tuple[Key, ...]:
        """The figures and checks, in the order of their making."""
        return tuple(key for key in self.order if self.nodes[key].label)

    @cached_property
    def users(self) -> dict[Key, frozenset[Key]]:
        """For every input, constant and node: all nodes that change with it."""
        upstream: dict[Key, frozenset[Key]] = {}
        users: dict[Key, set[Key]] = {}
        for key in self.order:
            direct = self.flat(key)
            upstream[key] = frozenset(direct).union(*(upstream.get(k, frozenset()) for k in direct))
            for source in upstream[key]:
                users.setdefault(source, set()).add(key)
        return {source: frozenset(found) for source, found in users.items()}

    @cached_property
    def readers(self) -> dict[Key, tuple[Reader, bool]]:
        """How each node's arguments are read from what is known."""
        return {key: node_reader(arguments) for key, arguments in self.arguments.items()}

    def flat(self, key: Key) -> list[Key]:
        """The keys that a node takes, one by one."""
        return [
            k for argument in self.arguments[key] for k in ([argument] if isinstance(argument, str) else argument)
        ]

    def upstream(self, key: Key) -> Iterator[Key]:
        """Everything that a node hangs on, each once, nearest first."""
        seen, waiting = set(), [key]
        while waiting:
            for k in self.flat(waiting.pop(0)):
                if k not in seen:
                    seen.add(k)
                    yield k
                    if k in self.nodes:
                        waiting.append(k)


class Book:
    """A set of nodes that sheets are made from."""

    def __init__(self, nodes: Mapping[str, Node]) -> None:
        self.nodes = nodes
        self.wiring = cache(self._wiring)
        places = [(item.name, section) for section, model in sections().items() for item in fields(model)]
        self.inputs = dict(places)
        if len(self.inputs) < len(places) or self.inputs.keys() & nodes.keys():
            raise ValueError("a name stands for two things")

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
        return Wiring(found, arguments)

    def _argument(self, node: Node, prefix: str, name: str, counts: dict[str, int]) -> Argument:
        """What a parameter name stands for, seen from one node."""
        home: str
        if name in self.nodes:
            home, path = self.nodes[name].row, name
        elif name in self.inputs:
            section = self.inputs[name]
            home, path = (section, name) if section in ROWS else ("", f"{section}.{name}")
        elif name in constants():
            return CONSTANT + name
        elif name in ASKED:
            return f"asked.{name}"
        else:
            raise UnknownKey(f"parameters of {node.name}", name)
        if home == "":
            return path
        if home == node.row:
            return prefix + path
        return tuple(f"{home}.{i}.{path}" for i in range(counts[home]))


class Known(dict[Key, Any]):
    """What a sheet has looked up; a key that is not there is found when it is asked for."""

    def __init__(self, values: Mapping[Key, Any], find: Callable[[Key], Any]) -> None:
        super().__init__(values)
        self.find = find

    def __missing__(self, key: Key) -> Any:
        value = self[key] = self.find(key)
        return value


class Sheet:
    """The figures and checks of one plan. A value is computed when asked for, and once.

    A changed sheet leans on the one it came from for everything that does not hang on the changes.
    """

    def __init__(self, book: Book, plan: Plan, **asked: float) -> None:
        self.book = book
        self.plan = plan
        self.wiring = book.wiring(tuple((section, len(getattr(plan, section))) for section in ROWS))
        self.kept: Sheet | None = None
        self.stale: frozenset[Key] = frozenset()
        self.known = Known(dict(leaves(plan)), self._find)
        self.known |= {f"asked.{name}": value for name, value in (ASKED | asked).items()}

    def value(self, key: Key) -> Any:
        """The value under a key; raise Impossible where a named case stands in its place."""
        found = self.known[key]
        if isinstance(found, Missing):
            raise found.case
        return found

    def look(self, key: Key) -> Any:
        """The value under a key, or Missing with the named case; raise UnknownKey for no such key."""
        return self.known[key]

    def _find(self, key: Key) -> Any:
        if self.kept is not None and key not in self.stale:
            return self.kept.known[key]
        if key in self.wiring.nodes:
            return self._compute(key)
        if key.startswith(CONSTANT):
            return constants()[key.removeprefix(CONSTANT)].value
        raise UnknownKey("figures", key)

    def _compute(self, key: Key) -> Any:
        read, with_rows = self.wiring.readers[key]
        values = read(self.known)
        for value in values:
            if type(value) is Missing:
                return value
            if with_rows and type(value) is tuple:
                for row_value in value:
                    if type(row_value) is Missing:
                        return row_value
        try:
            return self.wiring.nodes[key].compute(*values)
        except Impossible as case:
            return Missing(case, key)
        except OutOfRange as fault:
            return Missing(Impossible("beyond_relation", **fault.values), key)

    def all(self) -> dict[Key, Any]:
        """Every figure's and check's value (or Missing); lists that only charts use wait until they are asked for."""
        known = self.known
        return {key: known[key] for key in self.wiring.shown}

    def changed(self, changes: Mapping[Key, Any]) -> "Sheet":
        """The sheet with some inputs or constants changed; raise UnknownKey for a key that is neither."""
        for path in changes:
            self.look(path)
        sheet = Sheet.__new__(Sheet)
        sheet.book, sheet.plan, sheet.wiring, sheet.kept = self.book, self.plan, self.wiring, self
        sheet.stale = frozenset(changes).union(*(self.wiring.users.get(path, ()) for path in changes))
        sheet.known = Known(changes, sheet._find)
        return sheet
