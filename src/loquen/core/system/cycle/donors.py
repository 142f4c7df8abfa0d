"""What a running system can spare of its media for a new one, and how its own ammonia would stand after that."""

from dataclasses import dataclass

from loquen.core.errors import NamedCase
from loquen.core.graph.keys import Missing
from loquen.core.graph.nodes import State
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.roots.plan import Plan

NEAR_FRAC = 0.8
"""Of what they may live in: above it giving is a risk."""


@dataclass(frozen=True, slots=True)
class Donor:
    """A system as a donor: what it turns over, mg N a day, and how it stands without a part of its media."""

    load_mg_d: float
    state: State
    sentence: Sentence


def donor(sheet: Sheet[Plan], share: float) -> Donor | None:
    """How a system would stand without a share of its media; None for one that turns nothing over."""
    beds, nitrifiers, end = (sheet.look(key) for key in ("beds", "nitrifiers", "worst_end"))
    mature = sheet.look("system_mature_frac")
    load = sheet.look("load_now_mg_d")
    if any(isinstance(found, Missing) for found in (beds, nitrifiers, end, mature, load)) or load <= 0:
        return None
    terms = {"load": Term(float(load), "nitrogen_load"), "allowed": Term(end.allowed_mg_l, "ammonia")}
    try:
        level = nitrifiers.level_mg_l(end.load_mg_d, beds.at(mature).scaled(1 - share), end.water_c)
    except NamedCase:
        text = "It turns over {load}, and could not carry that without this part: do not take so much."
        return Donor(float(load), "short", say(text, **terms))
    state: State = (
        "short" if level > end.allowed_mg_l else "tight" if level > NEAR_FRAC * end.allowed_mg_l else "holds"
    )
    tail = {"short": ": do not take so much", "tight": ": read it for a week after", "holds": ""}[state]
    text = "It turns over {load}; without this part its ammonia settles at {level} of {allowed} that its animals may live in"
    return Donor(float(load), state, say(text + tail + ".", level=Term(level, "ammonia"), **terms))
