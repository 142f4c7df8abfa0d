"""How deep the water may stand over those who breathe air: deep enough to turn over, no deeper than they come up from."""

import math
from typing import NamedTuple

import numpy as np

from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import State, Verdict, check, figure, step
from loquen.core.library.rows.animals import Species
from loquen.core.model.inputs.quantity import Term, say
from loquen.core.system.animals.findings import Finding, verdict_over

SHELL_WIDTH_FRAC = 0.75
"""Width of a shell by its length (0.7 to 0.85)."""
RIGHTS_WIDTHS, TURNS_WIDTHS = 1.5, 1.0
"""Depth in widths of its shell in which it turns over with ease, and just so."""
NECK_FRAC = 0.5
"""Stretched neck by length of shell (0.4 to 0.7)."""
GROWN_FRACS, EASY_LENGTHS = (0.2, 0.45, 0.75), (2.0, 4.0, 12.0)
"""By its part of grown length, how many of its own lengths deep it swims with ease; grown ones as deep as glass goes."""
WEAK_LENGTHS = 2.0
HATCHLING_FRAC = 0.3
"""Of grown length, below which rests lie everywhere."""
FAR_OVER = 1.5
"""Times what is easy, beyond which one without a rest drowns."""
SHALLOW = {"half": (5.0, 15.0), "third": (5.0, 20.0)}
"""Depth of water that suits those who live on land as much, cm."""


class Depths(NamedTuple):
    """Depths of water in cm: under which one can not turn over, from which it does with ease, and up to which it comes up
    with ease."""

    least_cm: float
    low_cm: float
    easy_cm: float


def depths_of(kind: Species, length_cm: float, grown_cm: float, weak: bool) -> Depths:
    """What depth suits one of that length, in cm; no end where it swims as deep as glass goes."""
    if kind.needs_land in SHALLOW:
        return Depths(0.0, *SHALLOW[kind.needs_land])
    if kind.shape != "turtle":
        return Depths(0.0, 0.0, math.inf)
    width = SHELL_WIDTH_FRAC * length_cm
    least, low = TURNS_WIDTHS * width, RIGHTS_WIDTHS * width
    grown = length_cm / grown_cm
    if weak:
        return Depths(least, low, WEAK_LENGTHS * length_cm)
    if grown > GROWN_FRACS[-1]:
        return Depths(least, low, math.inf)
    return Depths(least, low, float(np.interp(grown, GROWN_FRACS, EASY_LENGTHS)) * length_cm)


def reach_cm(length_cm: float) -> float:
    """From how deep one that walks the bottom takes breath standing: twice its stretched neck."""
    return 2 * NECK_FRAC * length_cm


@figure("Water over the bed", formula="{water_height_cm} − {bed_depth_cm}", source="definition")
def swim_depth_cm(water_height_cm: float, bed_depth_cm: float) -> float:
    return water_height_cm - bed_depth_cm


@step()
def depth_findings(
    animal: tuple[Species, ...],
    length_now_cm: tuple[float, ...],
    length_then_cm: tuple[float, ...],
    adult_length_cm: tuple[float, ...],
    swim_depth_cm: float,
    rest_cm: float | None,
    weak_swimmers: bool,
) -> tuple[Finding, ...]:
    """The depth for each kind, as long as it is today and as it is planned for."""
    found: list[Finding] = []
    for kind, now, then, grown in zip(animal, length_now_cm, length_then_cm, adult_length_cm, strict=True):
        for length in (now, then):
            finding = depth_finding(kind, length, grown, swim_depth_cm, rest_cm, weak_swimmers)
            if finding is not None and finding not in found:
                found.append(finding)
    return tuple(found)


def depth_finding(
    kind: Species, length_cm: float, grown_cm: float, depth_cm: float, rest_cm: float | None, weak: bool
) -> Finding | None:
    least, low, easy = depths_of(kind, length_cm, grown_cm, weak)
    near = reach_cm(length_cm)
    rests = rest_cm is not None and rest_cm <= near
    terms = {
        "depth": Term(depth_cm, "length", "swim_depth_cm"),
        "length": Term(length_cm, "length"),
        "near": Term(near, "length"),
    }

    def finding(state: State, text: str, **more: Term) -> Finding:
        return Finding((kind.common,), "depth", state, say(text, **terms, **more))

    shallow_suits = kind.needs_land in SHALLOW
    if depth_cm < low:
        text = "{depth} of water; from {low} on one of {length} on its back turns over"
        if shallow_suits:
            text = "{depth} of water; {low} at least keep its skin wet"
        return finding("short" if depth_cm < least else "tight", text, low=Term(low, "length"))
    if depth_cm > easy:
        text = "{depth} of water; one of {length} comes up from {easy} with ease"
        if shallow_suits:
            return finding("tight", text + ", and leaves deeper water only by a slope", easy=Term(easy, "length"))
        if rests:
            return finding("tight", text + ": it lives on the rests, so many of them", easy=Term(easy, "length"))
        text += ": lower the water, or give it rests within {near} of the surface"
        return finding("short" if depth_cm > FAR_OVER * easy else "tight", text, easy=Term(easy, "length"))
    if kind.shape == "turtle" and not rests:
        if weak or length_cm < HATCHLING_FRAC * grown_cm:
            return finding("tight", "so small or weak it wants rests everywhere, within {near} of the surface")
        if kind.needs_land == "walks" and depth_cm > near:
            text = "it walks the bottom: over {depth} of water it wants a perch within {near} of the surface"
            return finding("tight", text)
    return None


@check(
    "Water as deep as they come up from",
    stage="tank",
    judges="swim_depth_cm",
    mends=("tank.part_fill_cm", "tank.freeboard_cm", "land.rest_cm"),
)
def depth_suits(depth_findings: tuple[Finding, ...], animal: tuple[Species, ...]) -> Verdict:
    if not any(kind.shape == "turtle" or kind.needs_land in SHALLOW for kind in animal):
        raise NamedCase("not_needed")
    return verdict_over(list(depth_findings), "They turn over in it, and come up from it with ease.")
