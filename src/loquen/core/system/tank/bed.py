"""The bed under those who live on it: who swallows it with their food, and whose barbels and bellies it scrapes."""

from typing import NamedTuple

from loquen.core.graph.nodes import State, Verdict, check, step
from loquen.core.library.rows.animals import Species
from loquen.core.library.rows.keeping import Bed
from loquen.core.model.inputs.quantity import Term, say
from loquen.core.system.animals.findings import Finding, verdict_over
from loquen.core.system.animals.food import require_animals
from loquen.core.system.tank.glass import Floor

SWALLOWED_FROM_MM = 1.0
"""Finer grains pass through."""
SWALLOWED_TO_GAPES = 1.3
BLOCKS = ("turtle", "frog", "salamander")
"""Bodies in which swallowed grains block the gut."""
PICKS_FROM_MM, PICKS_TO_MM = 2.0, 6.0
"""Grains that a goldfish takes up with its food and may not get rid of."""
PICKS = "Carassius"
GULPS_FROM_FRAC, GULPS_FROM_CM = 0.4, 20.0
"""Gape and length from which a fish gulps, and takes up what lies around its food."""
SIFTS = ("Callichthyidae",)
COARSE_FROM_MM = 2.0


class Swallowing(NamedTuple):
    """The grains that one takes up with its food, from and to, and what comes of it."""

    low_mm: float
    high_mm: float
    state: State
    text: str


def swallowing(kind: Species, length_cm: float) -> Swallowing | None:
    """Which grains a kind of that length swallows; None where it swallows none."""
    to_mm = SWALLOWED_TO_GAPES * kind.gape_frac * length_cm * 10
    if kind.shape in BLOCKS:
        text = "grains of {low} to {high} are swallowed with food and block the gut"
        return Swallowing(SWALLOWED_FROM_MM, to_mm, "short", text)
    if kind.scientific.split()[0] == PICKS:
        text = "grains of {low} to {high} are taken up with food, and may stick in the throat"
        return Swallowing(PICKS_FROM_MM, PICKS_TO_MM, "tight", text)
    if kind.gape_frac >= GULPS_FROM_FRAC and length_cm >= GULPS_FROM_CM and kind.temper == "hunter":
        return Swallowing(SWALLOWED_FROM_MM, to_mm, "tight", "grains of {low} to {high} are gulped with prey")
    return None


def over(kind: Species, length_cm: float, bed: Bed) -> Finding | None:
    """What a bed does to a kind that lives over it."""
    if bed.grain_high_mm == 0:
        return None
    who, terms = (
        (kind.common,),
        {"low": Term(bed.grain_low_mm, "thickness"), "high": Term(bed.grain_high_mm, "thickness")},
    )
    taken = swallowing(kind, length_cm)
    if taken is not None and bed.grain_low_mm <= taken.high_mm and bed.grain_high_mm > taken.low_mm:
        return Finding(
            who,
            "bed",
            taken.state,
            say(taken.text + ": bare glass, fine sand or stones larger than its head", **terms),
        )
    if kind.family in SIFTS and bed.grain_low_mm >= COARSE_FROM_MM:
        return Finding(
            who, "bed", "tight", say("it sifts the bed: grains of {low} to {high} wear its barbels down", **terms)
        )
    return None


@step()
def bed_findings(
    animal: tuple[Species, ...],
    length_now_cm: tuple[float, ...],
    length_then_cm: tuple[float, ...],
    floor: tuple[Floor, ...],
) -> tuple[Finding, ...]:
    """Every kind over every part of the floor, as long as it is today and as it is planned for."""
    found = [
        finding
        for kind, now, then in zip(animal, length_now_cm, length_then_cm, strict=True)
        for part in floor
        if part.floor_frac > 0 and part.depth_cm > 0
        for length in (now, then)
        if (finding := over(kind, length, part.bed)) is not None
    ]
    return tuple(one for i, one in enumerate(found) if one not in found[:i])


@check("A bed that harms nobody", stage="tank", mends=("tank.bed",))
def bed_borne(bed_findings: tuple[Finding, ...], animal: tuple[Species, ...]) -> Verdict:
    require_animals(animal)
    return verdict_over(list(bed_findings), "None of them swallows it, or is scraped by it.")
