"""Changes of a plan in words: what is turned, before and after."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from loquen.core.graph.asking import label_of
from loquen.core.graph.keys import Key
from loquen.core.graph.sheet import Sheet
from loquen.core.library.whole import Library
from loquen.core.model.inputs.options import options_of
from loquen.core.model.inputs.quantity import NOTHING, Choice, Quantity, Sentence, Term, joined, say
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.running import Filter
from loquen.core.model.parts.tank import Planting
from loquen.core.model.parts.water import Source
from loquen.core.model.roots.plan import PLAN, Plan
from loquen.core.system.planner.standing import applied


def filter_words(row: Filter, library: Library) -> Sentence:
    kind = library.filter_kinds[row.filter_kind].label
    return say(
        "{kind} of {flow}, {media} of media",
        kind=kind,
        flow=Term(row.rated_lph, "flow"),
        media=Term(row.media_l, "volume"),
    )


def group_words(row: Group, library: Library) -> Sentence:
    return say("{count} {kind}", count=Term(float(row.number), "count"), kind=library.species[row.species].common)


def planting_words(row: Planting, library: Library) -> Sentence:
    kind = library.plants[row.plant].common
    return say("{plant} over {cover}", plant=kind, cover=Term(row.plant_cover_frac, "share"))


def source_words(row: Source, _: Library) -> Sentence:
    return say("{parts} of {name}", parts=Term(row.src_parts, "ratio"), name=row.src_name)


ROWS: dict[str, Callable[[Any, Library], Sentence]] = {
    "filters": filter_words,
    "animals": group_words,
    "planting": planting_words,
    "sources": source_words,
}
PLACES = {"tank": "Tank", "sump": "Sump", "flow": "Flow", "recipe": "Recipe"}
"""Sections whose labels are read with the section's name."""
LISTS = {"filters": "Filters", "animals": "Animals", "planting": "Plants", "sources": "Waters"}


def rows_words(section: str, rows: tuple[Any, ...], library: Library) -> Sentence:
    told = ROWS.get(section)
    return (
        joined([told(row, library) for row in rows]) if told else say("{n} rows", n=Term(float(len(rows)), "count"))
    )


def value_words(path: Key, value: Any, library: Library) -> Sentence:
    """A value as it is entered: with its unit, or the words of its option."""
    if path in PLAN.rows:
        return rows_words(path, value, library)
    entry = PLAN.entry_at(path)
    if value is None:
        return say(NOTHING)
    if isinstance(value, bool):
        return say("yes" if value else "no")
    if isinstance(value, tuple):
        return say(", ".join(str(one) for one in value) or NOTHING)
    if isinstance(entry, Quantity):
        return say("{value}", value=Term(float(value), entry.kind))
    return say(str(options_of(entry, library).get(value, value) if isinstance(entry, Choice) else value))


@dataclass(frozen=True, slots=True)
class Moved:
    """What is turned, before and after; the rows of some lists as that list, whole."""

    path: Key
    label: str
    before: Sentence
    after: Sentence


def mid_sentence(label: str) -> str:
    """A label as it stands behind a comma: GH and CO2 stay as they are."""
    return label if label[1:2].isupper() else f"{label[0].lower()}{label[1:]}"


def moved(sheet: Sheet[Plan], before: Plan, changes: Mapping[Key, Any]) -> Iterator[Moved]:
    """Each change of a plan in words; labels as a sheet that has its rows calls them."""
    after = applied(before, changes)
    old = dict(PLAN.leaves(before))
    told: set[str] = set()
    for path, value in changes.items():
        section = path.split(".")[0]
        if section in ROWS or path in PLAN.rows:
            if section not in told:
                told.add(section)
                rows = (getattr(plan, section) for plan in (before, after))
                yield Moved(
                    section,
                    LISTS.get(section, section.capitalize()),
                    *(rows_words(section, r, sheet.library) for r in rows),
                )
        else:
            label = label_of(sheet, path)
            place = PLACES.get(section)
            yield Moved(
                path,
                f"{place}, {mid_sentence(label)}" if place else label,
                value_words(path, old.get(path), sheet.library),
                value_words(path, value, sheet.library),
            )
