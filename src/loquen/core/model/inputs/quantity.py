"""Kinds of quantity and the limits of what may be entered."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from typing import Any, Literal

from loquen.core.data.tables import Table, toml


@dataclass(frozen=True, slots=True)
class Unit:
    """A unit that a person may read: shown = base·factor + offset; `before` where its label stands before the number."""

    key: str
    label: str
    factor: float
    digits: int
    offset: float = 0.0
    significant: int = 3
    before: bool = False


@dataclass(frozen=True, slots=True)
class Kind:
    """A kind of quantity; its first unit is what defaults show."""

    key: str
    label: str
    suffixes: tuple[str, ...]
    units: tuple[Unit, ...]


Given = Literal["setting", "bought", "fact", "reading"]
"""Where an input is from: what the keeper decides, what is bought, how things are, what was measured on a day.

What designs or advises moves settings and what is bought: never a fact, never a reading.
"""
UNKNOWN = "unknown"
"""The option of a choice that nobody has told yet."""


@dataclass(frozen=True, slots=True)
class Untold:
    """An input for which nothing usual stands in: while it is not told, no check that hangs on it holds.

    `headline` says what is wanted ("to measure", "to ask"), `how` what to do.
    """

    headline: str
    how: str


@dataclass(frozen=True, slots=True)
class Quantity:
    """A number that a person enters: its words, kind of unit, limits (in the core's unit), and where it is from."""

    label: str
    kind: str
    low: float
    high: float
    whole: bool = False
    given: Given = "setting"
    untold: Untold | None = None


@dataclass(frozen=True, slots=True)
class Choice:
    """A keyed choice that a person makes: its words, the options' words by key, and where it is from."""

    label: str
    options: Mapping[str, str] | None = None
    table: str | None = None
    given: Given = "setting"
    untold: Untold | None = None


@dataclass(frozen=True, slots=True)
class Most:
    """How many a list may have."""

    count: int


@dataclass(frozen=True, slots=True)
class Term:
    """A value inside a sentence: a number of a kind, or plain words (kind ""); `figure` names its figure.

    A bare number is written without its unit, where the unit follows behind another.
    """

    value: float | str
    kind: str = ""
    figure: str = ""
    bare: bool = False


@dataclass(frozen=True, slots=True)
class Sentence:
    """Words with values put in: `{name}` in the text stands for terms[name]."""

    text: str
    terms: Mapping[str, Term]


def say(text: str, **terms: Term | str) -> Sentence:
    """A sentence with its values; a plain string is words."""
    return Sentence(text, {name: term if isinstance(term, Term) else Term(term) for name, term in terms.items()})


def counted(count: float, one: str, many: str, figure: str = "", **terms: Term | str) -> Sentence:
    """A sentence about a number of them, in words for one or for many; `{count}` is how many, by that figure."""
    return say(one if count == 1 else many, count=Term(count, "count", figure), **terms)


NOTHING = "none"


def joined(parts: list[Sentence], between: str = " and ") -> Sentence:
    """Several sentences as one, their terms kept apart."""
    if not parts:
        return say(NOTHING)
    terms, texts = {}, []
    for i, part in enumerate(parts):
        text = part.text
        for name, term in part.terms.items():
            text = text.replace("{" + name + "}", "{" + f"{name}{i}" + "}")
            terms[f"{name}{i}"] = term
        texts.append(text)
    return say(between.join(texts), **terms)


def of(value: float, name: str, kind: str = "") -> Term:
    """The value of the figure `name`, readable in any unit of its kind and open to its working."""
    return Term(value, kind or kind_of_name(name), name)


def quoted(given: Any, most: int = 40) -> str:
    """What was typed, short, and without what no text can hold."""
    return str(given)[:most].encode("utf-8", "replace").decode()


@cache
def kinds() -> Table[Kind]:
    """The one table of units."""

    def kind(key: str, row: dict[str, Any]) -> Kind:
        return Kind(key, row["label"], tuple(row["suffixes"]), tuple(Unit(**unit) for unit in row["units"]))

    return Table("units.toml", ((key, kind(key, row)) for key, row in toml("units.toml").items()))


@cache
def kind_of_name(name: str) -> str:
    """The kind that a name's unit suffix says, by the longest suffix that fits; raise KeyError when none does."""
    fits = [
        (len(suffix), kind.key) for kind in kinds().values() for suffix in kind.suffixes if name.endswith(suffix)
    ]
    if not fits:
        raise KeyError(name)
    return max(fits)[1]


def unit_of(kind: str, chosen: Mapping[str, str]) -> Unit | None:
    """The unit a reader has chosen for a kind, its first unit otherwise; None for plain words."""
    if kind not in kinds():
        return None
    units = kinds()[kind].units
    return next((unit for unit in units if unit.key == chosen.get(kind)), units[0])


def written(value: float, kind: str, chosen: Mapping[str, str], bare: bool = False) -> str:
    """A number with its unit (or bare) as the pages write it: no more digits than it deserves."""
    unit = unit_of(kind, chosen)
    if unit is None:
        return f"{value:g}"
    shown = value * unit.factor + unit.offset
    whole = math.floor(math.log10(abs(shown))) + 1 if shown else 1
    places = max(0, min(unit.digits, unit.significant - whole))
    text = f"{shown:.{places}f}"
    if "." in text:
        text = text.rstrip("0").rstrip(".")
    if bare or not unit.label:
        return text
    return f"{unit.label}{text}" if unit.before else f"{text} {unit.label}"


def as_text(sentence: Sentence, chosen: Mapping[str, str]) -> str:
    """A sentence as plain text, its values in the chosen units."""
    words = {
        name: term.value if isinstance(term.value, str) else written(term.value, term.kind, chosen, term.bare)
        for name, term in sentence.terms.items()
    }
    return sentence.text.format(**words)
