"""The working of one figure down to its inputs, and what it would take."""

import math
from dataclasses import dataclass

from loquen.core.data.tables import sources
from loquen.core.errors import UnknownKey
from loquen.core.graph import asking
from loquen.core.graph.keys import CONSTANT, PLACE, Key, Missing
from loquen.core.graph.nodes import Verdict
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Choice, Quantity
from loquen.core.system.book import ASKED_MONTHS
from loquen.core.system.cases import told_case


@dataclass(frozen=True, slots=True)
class WorkingNode:
    """One step of a working: the formula, and the keys its names stand for."""

    key: str
    label: str
    kind: str
    value: float | None
    words: str
    formula: str
    source: str
    parts: dict[str, list[str]]
    editable: bool


@dataclass(frozen=True, slots=True)
class Working:
    """A figure down to its inputs, its range, what moves it, and what it would take to reach a target."""

    figure: str
    nodes: dict[str, WorkingNode]
    low: float | None
    high: float | None
    movers: list[asking.Mover]
    target: float | None
    answers: list[asking.Answer]


def working(sheet: Sheet, key: Key, target: float | None = None, paths: list[Key] | None = None) -> Working:
    """The working of one figure down to its inputs, its range, what moves it, and what it would take.

    Without a target the limit of the check that judges the figure is used, if it falls short.
    """
    node, value = sheet.wiring.nodes.get(key), sheet.look(key)
    if not isinstance(value, int | float | Missing) or (node is not None and not node.is_number):
        raise UnknownKey("figures", key)
    if target is None:
        target = limit_passed(sheet, key)
    movers = asking.movers(sheet, key)
    tried = paths if paths is not None else [m.path for m in movers if asking.may_move(sheet, m.path)]
    answers = asking.answers(sheet, key, target, tried) if target is not None else []
    spread = asking.spread(sheet, key)
    return Working(
        figure=key,
        nodes={k: working_node(sheet, k) for k in [key, *sheet.wiring.upstream(key)]},
        low=spread[0] if spread else None,
        high=spread[1] if spread else None,
        movers=movers,
        target=target,
        answers=answers,
    )


def limit_passed(sheet: Sheet, key: Key) -> float | None:
    """The limit that a figure passes, from the check that judges it; None when it holds."""
    for check_key, node in sheet.wiring.nodes.items():
        if node.check and node.check.judges == key:
            verdict = sheet.look(check_key)
            gauge = verdict.gauge if isinstance(verdict, Verdict) and verdict.state == "short" else None
            if gauge and gauge.high is not None and gauge.value > gauge.high:
                return gauge.high
            if gauge and gauge.low is not None and gauge.value < gauge.low:
                return gauge.low
    return None


def working_node(sheet: Sheet, key: Key) -> WorkingNode:
    node = sheet.wiring.nodes.get(key)
    value = sheet.look(key)
    if key.startswith(CONSTANT):
        name = key.removeprefix(CONSTANT)
        row = sheet.constants[name]
        return leaf(key, name.replace("_", " "), "", row.value, row.unit, sources()[row.source])
    if key.endswith(f".{PLACE}"):
        return leaf(key, "Its number in the order", "count", float(value), "", "as listed")
    if key == ASKED_MONTHS:
        words = "until full grown" if math.isinf(value) else ""
        return leaf(key, "Months ahead", "months", None if words else float(value), words, "asked for")
    if key == "asked.lines":
        return leaf(key, "The systems that stand here", "", None, "each from its own plan", "its own sheet")
    if node is None:
        entry = sheet.book.shape.entry_at(key)
        label = asking.label_of(sheet, key)
        if isinstance(entry, Quantity) and isinstance(value, int | float):
            return leaf(key, label, entry.kind, float(value), "", "entered", editable=True)
        return leaf(key, label, "", None, entered_words(entry, value), "entered")
    words = ""
    if isinstance(value, Missing):
        words = told_case(value.case)[1].text
    elif not isinstance(value, int | float):
        words = described(value)
    parts = {
        name: [argument] if isinstance(argument, str) else list(argument)
        for name, argument in zip(node.parameters, sheet.wiring.arguments[key], strict=True)
    }
    number = float(value) if isinstance(value, int | float) and node.label else None
    return WorkingNode(
        key=key,
        label=node.label or node.name.replace("_", " "),
        kind=node.kind,
        value=number,
        words=words or (str(value).lower() if number is None and not node.label else ""),
        formula=node.formula,
        source=sources()[node.source] if node.source else "",
        parts=parts,
        editable=False,
    )


def leaf(
    key: Key, label: str, kind: str, value: float | None, words: str, source: str, editable: bool = False
) -> WorkingNode:
    """A leaf of a working: an input or a constant."""
    return WorkingNode(
        key=key,
        label=label,
        kind=kind,
        value=value,
        words=words,
        formula="",
        source=source,
        parts={},
        editable=editable,
    )


def entered_words(entry: object, value: object) -> str:
    if isinstance(entry, Choice) and entry.options and isinstance(value, str):
        return entry.options[value]
    if isinstance(value, bool):
        return "yes" if value else "no"
    if value is None:
        return "not entered"
    return ", ".join(str(item) for item in value) if isinstance(value, tuple) else str(value)


def described(value: object) -> str:
    """Words for a looked-up row or a list of them."""
    if isinstance(value, tuple):
        return ", ".join(dict.fromkeys(described(item) for item in value))
    return str(getattr(value, "common", getattr(value, "label", value)))
