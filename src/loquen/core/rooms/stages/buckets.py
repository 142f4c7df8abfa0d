"""What buckets caught under the emitters, against what was planned."""

from dataclasses import dataclass, replace

from scipy.optimize import brentq

from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import State, Verdict, check, figure, step
from loquen.core.model.inputs.quantity import Term, of, say
from loquen.core.rooms.stages.plumbing import Feed, Valved, ZoneFlow, opened
from loquen.core.rooms.stages.racks import Standing, Tank

CAUGHT_APART = 0.1
"""Of what is planned: what bucket and clock may differ by."""
MOST_WORSE = 50.0


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


@figure(
    "Headers lose, of what is planned",
    formula="factor on the header at which the far bucket of {zone_flows} falls behind the near one as it was caught ({caught_l_min}), "
    "found on its network",
    source="todini1988",
    kind="ratio",
)
def caught_header_x(
    zone_flows: tuple[ZoneFlow, ...],
    caught_l_min: tuple[float | None, ...],
    valved: tuple[Valved, ...],
    feed: Feed,
    pumped_feed: Feed,
    standing: tuple[Standing, ...],
    tanks: tuple[Tank, ...],
) -> float:
    for row in zone_flows:
        zone = valved[row.number - 1]
        rows = [flow for flow in row.tanks if caught_l_min[flow.tank] is not None]
        if len(rows) < 2 or zone.emitter != "plain":
            continue
        near, far = min(rows, key=lambda flow: flow.pipe_m), max(rows, key=lambda flow: flow.pipe_m)
        seen = (caught_l_min[far.tank] or 0.0) / (caught_l_min[near.tank] or 1e-9)
        if seen >= far.lph / near.lph * (1 - CAUGHT_APART):
            continue
        own = feed if zone.fed_from == "street" else pumped_feed
        return worse_by(zone, own, standing, tanks, (near.tank, far.tank), seen)
    raise NamedCase("headers_as_planned")


def worse_by(
    zone: Valved,
    own: Feed,
    standing: tuple[Standing, ...],
    tanks: tuple[Tank, ...],
    ends: tuple[int, int],
    seen: float,
) -> float:
    """The factor on a header at which its far end gets `seen` of its near one; raise NamedCase more_than_a_header."""

    def apart(factor: float) -> float:
        flowing, _ = opened(own, (replace(zone, header_x=zone.header_x * factor),), standing, tanks)
        return flowing.emitters_lph[f"e{ends[1]}"] / flowing.emitters_lph[f"e{ends[0]}"] - seen

    if apart(MOST_WORSE) > 0:
        raise NamedCase("more_than_a_header")
    return float(brentq(apart, 1.0, MOST_WORSE, xtol=0.01))


@check("Planned as it is caught", stage="changer", judges="caught_frac")
def as_caught(
    caught: tuple[Caught, ...], caught_frac: float, caught_kpa: float, caught_header_x: float | None
) -> Verdict:
    far = max(caught, key=lambda row: abs(row.part - caught_frac))
    terms: dict[str, Term | str] = {
        "part": of(caught_frac, "caught_frac", "share"),
        "kpa": of(caught_kpa, "caught_kpa"),
        "tank": far.name,
        "own": Term(far.part, "share"),
        "count": Term(float(len(caught)), "count"),
    }
    if caught_header_x is not None:
        terms["worse"] = of(caught_header_x, "caught_header_x", "ratio")
        text = (
            "{count} buckets fall off along the header as if it lost {worse} times what is planned: scaled, kinked or narrower "
            "inside, or the last emitter alone is blocked. Enter the factor at the zone, or clean it and catch again."
        )
    elif abs(far.part - caught_frac) > CAUGHT_APART:
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
