"""Reading a core sheet: single verdicts, sentences and lists, where they can be read."""

from collections.abc import Callable
from typing import Any, TypeVar

from loquen.core.errors import NamedCase
from loquen.core.graph.engine import Key, Missing, Sheet
from loquen.core.graph.nodes import Verdict
from loquen.core.model.plan import Plan
from loquen.core.model.quantity import Sentence, say
from loquen.core.system.book import sheet_of
from loquen.core.system.told import told_case

Part = TypeVar("Part")
Nothing = TypeVar("Nothing")
INAPPLICABLE = {
    "not_needed",
    "no_crowd_fish",
    "one_kind",
    "no_trap",
    "no_sump",
    "no_disinfectant",
    "chloramine_stays",
}
"""Named cases in which a check does not apply to this plan at all."""


def asked_sheet(plan: Plan, months_ahead: float | None) -> Sheet:
    """The sheet of a plan at the date asked about."""
    return sheet_of(plan) if months_ahead is None else sheet_of(plan, months_ahead=months_ahead)


def verdict_of(sheet: Sheet, key: Key) -> Verdict | None:
    """A check's verdict; a named case as a verdict without a margin; None where it does not apply."""
    value = sheet.look(key)
    if not isinstance(value, Missing):
        return value if isinstance(value, Verdict) else None
    if value.case.code in INAPPLICABLE:
        return None
    state, sentence = told_case(value.case)
    headline = say({"short": "can not", "holds": "never"}.get(state, "not known yet"))
    return Verdict(state, -1.0 if state == "short" else 0.0, headline, sentence)


def sentence_of(sheet: Sheet, key: Key) -> Sentence:
    """A step's sentence, or that of the named case in its place."""
    found = sheet.look(key)
    sentence: Sentence = told_case(found.case)[1] if isinstance(found, Missing) else found
    return sentence


def where_known(make: Callable[[], Part], nothing: Nothing) -> Part | Nothing:
    """A part of what is shown, or nothing of it where a named case stands in its way: the rest is shown all the same."""
    try:
        return make()
    except NamedCase:
        return nothing


def listed(sheet: Sheet, key: Key) -> tuple[Any, ...]:
    """A list that a step made, empty where a named case stands."""
    value = sheet.look(key)
    return () if isinstance(value, Missing) else value
