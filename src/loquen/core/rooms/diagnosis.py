"""What is wrong with a changer, from planned against metered litres: hypotheses with their odds."""

import math
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from loquen.core.errors import NamedCase
from loquen.core.model.inputs.quantity import Sentence, Term, say

Floats = NDArray[np.float64]
SPREAD = 0.03
"""Of planned litres: what flow and meter differ by when nothing is wrong (one standard deviation)."""
GRID = 60
BELIEVED = 12.0
TOLD_FROM = 0.02
"""Odds below this are not worth a line."""
PRIORS = {
    "well": 0.90,
    "stuck_closed": 0.012,
    "stuck_open": 0.012,
    "blocked": 0.04,
    "meter": 0.012,
    "pressure": 0.016,
    "store": 0.004,
    "leak": 0.004,
}
ENDS = {"mix too cold": "store", "leak": "leak", "litres limit": "stuck_open"}


@dataclass(frozen=True, slots=True)
class RunSeen:
    """A run as the controller tells it."""

    zone: int
    planned_l: float
    metered_l: float
    ended_by: str


@dataclass(frozen=True, slots=True)
class ZoneKnown:
    number: int
    name: str
    emitters: int


@dataclass(frozen=True, slots=True)
class Suspect:
    """What may be wrong, with its odds and what to look at."""

    key: str
    zone: int
    odds: float
    sentence: Sentence


def suspects(runs: Sequence[RunSeen], zones: Sequence[ZoneKnown]) -> tuple[Suspect, ...]:
    """What the runs speak for, likeliest first, by Bayes' rule over single faults; raise NamedCase nothing_run."""
    if not runs:
        raise NamedCase("nothing_run")
    known = {zone.number: zone for zone in zones}
    logs: dict[tuple[str, int], float] = {("well", 0): math.log(PRIORS["well"]) + likely(runs, everywhere(ONE))}
    for zone in zones:
        for key, levels in zone_levels(zone).items():
            logs[key, zone.number] = math.log(PRIORS[key] / len(zones)) + likely(runs, only(zone.number, levels))
    for key, levels in EVERYWHERE.items():
        logs[key, 0] = math.log(PRIORS[key]) + likely(runs, everywhere(levels))
    best = max(logs.values())
    for run in runs:
        if run.ended_by in ENDS:
            # A controller that says why it stopped is believed.
            logs[ENDS[run.ended_by], run.zone] = best + BELIEVED
    best = max(logs.values())
    weights = {what: math.exp(log - best) for what, log in logs.items()}
    whole = sum(weights.values())
    found = [
        Suspect(key, zone, weight / whole, told(key, known.get(zone), runs))
        for (key, zone), weight in weights.items()
        if weight / whole >= TOLD_FROM
    ]
    return tuple(sorted(found, key=lambda row: -row.odds))


ONE = np.array([1.0])
EVERYWHERE = {"meter": np.linspace(0.7, 1.3, GRID), "pressure": np.linspace(0.5, 0.97, GRID)}


def only(mine: int, levels: Floats) -> Callable[[int], Floats]:
    return lambda zone: levels if zone == mine else ONE


def everywhere(levels: Floats) -> Callable[[int], Floats]:
    return lambda _: levels


def zone_levels(zone: ZoneKnown) -> dict[str, Floats]:
    """Which part of its planned litres a zone would pass, by what is wrong there."""
    blocked = np.linspace(0.3, 1.0, GRID)
    return {
        "stuck_closed": np.array([0.0]),
        "stuck_open": np.linspace(1.2, 3.0, GRID),
        "blocked": 1 - blocked / max(1, zone.emitters),
    }


def likely(runs: Iterable[RunSeen], levels_of: Callable[[int], Floats]) -> float:
    """Logarithm of how likely the metered litres are, over the levels that a fault may have, each as likely as another."""
    total: Floats = np.zeros(1)
    for run in runs:
        if run.planned_l <= 0:
            continue
        levels = levels_of(run.zone)
        seen = run.metered_l / run.planned_l
        spread = SPREAD * np.maximum(levels, 0.1)
        total = total - 0.5 * ((seen - levels) / spread) ** 2 - np.log(spread)
    best = float(np.max(total))
    return best + math.log(float(np.mean(np.exp(total - best))))


def told(key: str, zone: ZoneKnown | None, runs: Sequence[RunSeen]) -> Sentence:
    planned = sum(run.planned_l for run in runs if zone is None or run.zone == zone.number)
    metered = sum(run.metered_l for run in runs if zone is None or run.zone == zone.number)
    terms: dict[str, Term | str] = {
        "zone": zone.name if zone else "",
        "part": Term(metered / planned if planned else 0.0, "share"),
        "metered": Term(metered, "volume"),
        "planned": Term(planned, "volume"),
    }
    return say(WORDS[key], **terms)


WORDS = {
    "well": "Nothing is wrong: {metered} of {planned} planned were metered.",
    "stuck_closed": "The valve of {zone} does not open: {metered} of {planned} were metered. Its coil, its wire, its pilot hole.",
    "stuck_open": "The valve of {zone} does not shut: {metered} for {planned} planned. Shut its ball valve, then look for grit in its seat.",
    "blocked": "An emitter of {zone} is blocked: {part} of its litres passed. Look along it while it runs.",
    "meter": "The meter is off: every zone reads {part}. Bucket and clock say which of the two is wrong.",
    "pressure": "Pressure is low for every zone, which pass {part}: the gauge at the manifold, then strainer and cartridges.",
    "store": "The hot store ran empty in {zone}: the mixing valve shut. Its heater, or more was drawn than was planned.",
    "leak": "Water on the floor while {zone} ran: everything was shut. Find it and dry it before the master valve is opened.",
}
