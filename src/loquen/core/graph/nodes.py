"""What a sheet is made of: figures, checks and the verdicts that checks give."""

import inspect
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from types import ModuleType, NoneType, UnionType
from typing import Any, Literal, TypeVar, get_args, get_origin

from loquen.core.model.inputs.quantity import Sentence, kind_of_name

State = Literal["holds", "tight", "short", "measure", "unknown"]
"""`measure`: what decides was never measured or asked; neither green nor an alarm. `unknown`: no number yet."""
RowOf = str
"""A list of the root's; empty for a node of the whole."""
Function = TypeVar("Function", bound=Callable[..., Any])
WORST_FIRST: tuple[State, ...] = ("short", "measure", "tight", "unknown", "holds")


@dataclass(frozen=True, slots=True)
class Node:
    """A pure function with its words; parameters are names of other nodes, inputs or constants.

    `row` says that it is made once for every row of that part of the root. A node without label is a step that is not
    shown as a number. A parameter typed `X | None` (`optional`) is given None where a named case stands; a node with
    no such parameter for it carries the case on.
    """

    name: str
    compute: Callable[..., Any]
    parameters: tuple[str, ...]
    label: str = ""
    formula: str = ""
    source: str = ""
    kind: str = ""
    row: RowOf = ""
    check: "CheckWords | None" = None
    optional: frozenset[str] = frozenset()

    @property
    def is_number(self) -> bool:
        """Whether it makes a number that a person sees."""
        return bool(self.label) and self.check is None


@dataclass(frozen=True, slots=True)
class CheckWords:
    """Where a check belongs: its stage, its sight glass, the figure it judges, the inputs that mend it."""

    stage: str
    glass: str = ""
    judges: str = ""
    mends: tuple[str, ...] = ()
    caution: str = ""


@dataclass(frozen=True, slots=True)
class Gauge:
    """What a sight glass shows: the value, its limit or band, and the top of the tube."""

    value: float
    top: float
    kind: str
    high: float | None = None
    low: float | None = None


@dataclass(frozen=True, slots=True)
class Verdict:
    """What a check says. `margin` is at least 0 where it holds; `headline` says by how much; `asks` are the inputs
    that have to be measured or asked before it can hold."""

    state: State
    margin: float
    headline: Sentence
    reason: Sentence
    gauge: Gauge | None = None
    asks: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Remedy:
    """A change of inputs that mends a check."""

    sentence: Sentence
    changes: Mapping[str, Any]


def figure(
    label: str, *, formula: str, source: str, kind: str | None = None, row: RowOf = ""
) -> Callable[[Function], Function]:
    """Mark a function as a figure a person sees; its kind follows from its name's unit unless given."""

    def mark(function: Function) -> Function:
        name = function.__name__
        attach(function, label, formula, source, kind if kind is not None else kind_of_name(name), row)
        return function

    return mark


def step(row: RowOf = "") -> Callable[[Function], Function]:
    """Mark a function as a step between figures: a looked-up row, a list, a sentence."""

    def mark(function: Function) -> Function:
        attach(function, "", "", "", "", row)
        return function

    return mark


def check(
    label: str,
    *,
    stage: str,
    judges: str = "",
    glass: str = "",
    mends: tuple[str, ...] = (),
    caution: str = "",
) -> Callable[[Function], Function]:
    """Mark a function that returns a Verdict."""

    def mark(function: Function) -> Function:
        attach(function, label, "", "", "", "", CheckWords(stage, glass, judges, mends, caution))
        return function

    return mark


def attach(
    function: Any,
    label: str,
    formula: str,
    source: str,
    kind: str,
    row: RowOf,
    words: CheckWords | None = None,
) -> None:
    parameters = inspect.signature(function).parameters
    optional = frozenset(name for name, parameter in parameters.items() if takes_none(parameter.annotation))
    function.node = Node(
        function.__name__, function, tuple(parameters), label, formula, source, kind, row, words, optional
    )


def takes_none(annotation: Any) -> bool:
    """Whether a parameter's type has None in it, or is a list of such."""
    if isinstance(annotation, UnionType):
        return NoneType in annotation.__args__
    return get_origin(annotation) is tuple and any(map(takes_none, get_args(annotation)))


def collected(modules: Iterable[ModuleType]) -> dict[str, Node]:
    """Every marked function that is defined in these modules, by name; names must be unique."""
    nodes: dict[str, Node] = {}
    for module in modules:
        for function in vars(module).values():
            node = getattr(function, "node", None)
            if isinstance(node, Node) and function.__module__ == module.__name__:
                if node.name in nodes:
                    raise ValueError(f"two nodes are named {node.name}")
                nodes[node.name] = node
    return nodes


def worst(states: Iterable[State]) -> State:
    """The state that decides when several stand together; unknown when there is none."""
    present = set(states)
    return next((state for state in WORST_FIRST if state in present), "unknown")
