"""The ultraviolet clarifier: its dose at a flow, and the flow for a wanted dose."""

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least
from loquen.core.graph.nodes import Verdict, check, figure
from loquen.core.model.inputs.quantity import Term, of, say
from loquen.core.physics import hydraulics


@figure(
    "Flow for the wanted dose",
    formula="{uv_rated_lph} × {uv_rated_mj} ÷ {uv_wanted_mj}; fitted: {uv_fitted}",
    source="uv_dose",
)
def uv_most_lph(uv_rated_lph: float, uv_rated_mj: float, uv_wanted_mj: float, uv_fitted: bool) -> float:
    if not uv_fitted:
        raise NamedCase("not_needed")
    return float(hydraulics.uv_flow_lph(uv_wanted_mj, uv_rated_mj, uv_rated_lph))


@figure(
    "Dose at this flow", formula="{uv_rated_mj} × {uv_rated_lph} ÷ {uv_lph}; fitted: {uv_fitted}", source="uv_dose"
)
def uv_given_mj(uv_rated_mj: float, uv_rated_lph: float, uv_lph: float, uv_fitted: bool) -> float:
    if not uv_fitted:
        raise NamedCase("not_needed")
    return uv_rated_mj * uv_rated_lph / uv_lph


@check(
    "Ultraviolet dose",
    stage="flow",
    judges="uv_given_mj",
    mends=("flow.uv_lph",),
    caution="Never look at a lit lamp. Replace it by its hours, not when it goes out.",
)
def uv_reaches(
    uv_given_mj: float, uv_wanted_mj: float, uv_most_lph: float, uv_lph: float, total_flow_lph: float
) -> Verdict:
    if uv_lph > total_flow_lph:
        reason = say(
            "It is entered with {flow}, more than the {all} that really move here: set the flow that reaches it.",
            flow=Term(uv_lph, "flow"),
            all=of(total_flow_lph, "total_flow_lph"),
        )
        return Verdict("short", total_flow_lph - uv_lph, say("no such flow"), reason)
    reason = say(
        "At this flow it gives {dose}; {wanted} are wanted, for which {flow} is the most.",
        dose=of(uv_given_mj, "uv_given_mj"),
        wanted=Term(uv_wanted_mj, "uv_dose"),
        flow=of(uv_most_lph, "uv_most_lph"),
    )
    return at_least(uv_given_mj, uv_wanted_mj, "uv_dose", reason)
