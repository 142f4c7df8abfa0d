"""What buckets caught under the emitters, against what was planned."""

from dataclasses import dataclass

from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import State, Verdict, check, figure, step
from loquen.core.model.quantity import Term, of, say
from loquen.core.rooms.stages.plumbing import ZoneFlow

CAUGHT_APART = 0.1
"""Of what is planned: what bucket and clock may differ by."""


@dataclass(frozen=True, slots=True)
class Caught:
    """What a bucket caught under one emitter, against what was planned, L/h."""

    name: str
    planned_lph: float
    caught_lph: float

    @property
    def label(self) -> str:
        return self.name

    @property
    def part(self) -> float:
        return self.caught_lph / self.planned_lph


@step()
def caught(zone_flows: tuple[ZoneFlow, ...], caught_l_min: tuple[float | None, ...]) -> tuple[Caught, ...]:
    found = tuple(
        Caught(row.name, row.lph, litres * 60)
        for zone in zone_flows
        for row in zone.tanks
        if (litres := caught_l_min[row.tank]) is not None and row.lph > 0
    )
    if not found:
        raise NamedCase("no_buckets")
    return found


@figure(
    "Caught of what is planned", formula="mean of caught ÷ planned over {caught}", source="balance", kind="share"
)
def caught_frac(caught: tuple[Caught, ...]) -> float:
    return sum(row.part for row in caught) / len(caught)


@figure(
    "Pressure that the buckets speak for",
    formula="manifold × {caught_frac}², plain emitters going with the root of it, of {zone_flows}",
    source="emitters",
)
def caught_kpa(caught_frac: float, zone_flows: tuple[ZoneFlow, ...]) -> float:
    return sum(row.manifold_kpa for row in zone_flows) / len(zone_flows) * caught_frac**2


@check("Planned as it is caught", stage="changer", judges="caught_frac")
def as_caught(caught: tuple[Caught, ...], caught_frac: float, caught_kpa: float) -> Verdict:
    far = max(caught, key=lambda row: abs(row.part - caught_frac))
    terms: dict[str, Term | str] = {
        "part": of(caught_frac, "caught_frac", "share"),
        "kpa": of(caught_kpa, "caught_kpa"),
        "tank": far.name,
        "own": Term(far.part, "share"),
        "count": Term(float(len(caught)), "count"),
    }
    if abs(far.part - caught_frac) > CAUGHT_APART:
        text = (
            "{tank} caught {own} of what is planned, all {count} together {part}: look at its emitter and its drop."
        )
    elif abs(caught_frac - 1) > CAUGHT_APART:
        text = "All {count} buckets alike caught {part} of what is planned: the manifold seems to hold {kpa}. Enter what its gauge reads."
    else:
        text = "{count} buckets caught {part} of what is planned: the pipes are as they were entered."
    apart = max(abs(caught_frac - 1), abs(far.part - caught_frac))
    state: State = "tight" if apart > CAUGHT_APART else "holds"
    return Verdict(state, CAUGHT_APART - apart, say("{part} of planned", part=terms["part"]), say(text, **terms))
