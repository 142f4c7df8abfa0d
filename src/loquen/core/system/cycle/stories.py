"""Readings that do not fit the story that a cycle was told as, and the likelier stories."""

from collections.abc import Mapping, Sequence

from loquen.core.fit.cycle import Seen, beside
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.physics.elementwise import Array
from loquen.core.system.cycle.setup import Begun

LEAST = 2
"""Readings that have to miss, and half of them at least."""

SOIL = {
    ("ammonia", 1): "this bag gives less than is usual, or plants take it",
    ("ammonia", -1): "this bag gives more than is usual",
}
WITH_ANIMALS = {
    ("ammonia", 1): "fed less than planned, or the media were worth more",
    ("ammonia", -1): "fed more, something rots, or a detoxifier shows as ammonia on the kit",
}
EMPTY = {
    ("ammonia", 1): "a dose was smaller or not given, or the media were worth more",
    ("ammonia", -1): "a dose that nobody wrote down, or media worth less",
}
NITRITE = {
    ("nitrite", 1): "nitrite went faster than any usual start: seeded media or plants",
    ("nitrite", -1): "nitrite stood longer: it read over its chart, or a change was not made",
}
KIT = "a kit past its date, or one that shows the ion where nitrogen is entered"


def fits_not(cycle: Begun, seen: Sequence[Seen], hours: Mapping[str, Array]) -> Sentence | None:
    """That the readings do not fit, where half of them and two at least lie beside every likely run."""
    sides = beside(hours, seen)
    off = [(one.what, side) for one, side in zip(seen, sides, strict=True) if side]
    if len(off) < LEAST or 2 * len(off) < len(seen):
        return None
    known = {
        **(SOIL if cycle.asked.soil_ammonia_mg_l_n else WITH_ANIMALS if cycle.animals_in else EMPTY),
        **NITRITE,
    }
    stories = [words for key, words in known.items() if off.count(key) >= max(1, len(off) // 3)]
    text = "The readings do not fit this story: {off} of {all} lie beside the band. Likelier: {stories}; or {kit}."
    terms = {"off": Term(len(off), "count"), "all": Term(len(seen), "count"), "kit": Term(KIT)}
    return say(text, stories="; ".join(stories) or "something was done that nobody wrote down", **terms)
