"""What a sheet says where a number or a named case stands: verdicts, sentences, lists."""

from collections.abc import Callable
from typing import Any, TypeVar

from loquen.core.errors import NamedCase
from loquen.core.graph.keys import Key, Missing
from loquen.core.graph.nodes import Verdict
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, say
from loquen.core.system.cases import INAPPLICABLE, told_case

Part = TypeVar("Part")
Nothing = TypeVar("Nothing")


def verdict_of(sheet: Sheet, key: Key) -> Verdict | None:
    """A check's verdict; a named case as a verdict without a margin; None where it does not apply."""
    value = sheet.look(key)
    if not isinstance(value, Missing):
        return value if isinstance(value, Verdict) else None
    if value.case.code in INAPPLICABLE:
        return None
    state, sentence = told_case(value.case)
    headline = say({"short": "can not", "holds": "never", "measure": "to measure"}.get(state, "not known yet"))
    return Verdict(state, -1.0 if state == "short" else 0.0, headline, sentence)


def asks_of(sheet: Sheet) -> dict[Key, tuple[str, ...]]:
    """The inputs that have to be measured or asked, each with the checks that wait for it."""
    found: dict[Key, list[str]] = {}
    for key, node in sheet.wiring.checks:
        verdict = sheet.look(key)
        for path in verdict.asks if isinstance(verdict, Verdict) else ():
            found.setdefault(path, []).append(node.label)
    return {path: tuple(labels) for path, labels in found.items()}


def is_short(sheet: Sheet, key: Key) -> bool:
    """Whether a check falls short, also by a named case that stands for a fault."""
    verdict = verdict_of(sheet, key)
    return verdict is not None and verdict.state == "short"


def sentence_of(sheet: Sheet, key: Key) -> Sentence:
    """A step's sentence, or that of the named case in its place."""
    found = sheet.look(key)
    sentence: Sentence = told_case(found.case)[1] if isinstance(found, Missing) else found
    return sentence


def rows_of(sheet: Sheet, key: Key) -> tuple[Any, ...]:
    """A list that a step made, empty where a named case stands."""
    value = sheet.look(key)
    return () if isinstance(value, Missing) else value


def where_known(make: Callable[[], Part], nothing: Nothing) -> Part | Nothing:
    """A part of what is shown, or nothing of it where a named case stands in its way: the rest is shown all the same."""
    try:
        return make()
    except NamedCase:
        return nothing
