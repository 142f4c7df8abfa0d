"""All figures of a kind of root, wired by the names of their parameters."""

from collections import OrderedDict
from collections.abc import Mapping
from threading import Lock

from loquen.core.data.tables import Constant
from loquen.core.errors import UnknownKey
from loquen.core.graph.domain import Domain
from loquen.core.graph.keys import CONSTANT, LIBRARY, PLACE, Argument, Key
from loquen.core.graph.nodes import Node
from loquen.core.graph.wiring import Wiring
from loquen.core.model.inputs.fields import names
from loquen.core.model.inputs.shape import Shape

MOST_NODES = 24_000
"""In all wirings that are kept at once, of some three kilobytes each: fifty of usual plans."""


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
