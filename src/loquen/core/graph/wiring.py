"""Who takes what of whom, and in which order."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property, lru_cache, reduce
from graphlib import TopologicalSorter
from operator import itemgetter, or_
from typing import Any

from loquen.core.graph.keys import Argument, Key
from loquen.core.graph.nodes import Node
from loquen.core.model.inputs.quantity import Untold
from loquen.core.model.inputs.shape import Shape

MOST_KEPT = 256
"""Ways through a wiring that are kept at once."""


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
