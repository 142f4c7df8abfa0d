"""Day and night: darkness that animals need, a place to bask, and ultraviolet-B at its distance."""

import math

from loquen.core.data.library import Species
from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, at_most, between, within_band
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.model.quantity import Term, of, say

LEAST_FALL, MOST_FALL = 0.1, 10.0
"""An index that falls less or more than this with distance is no lamp's: two points of a maker's sheet mistyped."""
DARKNESS = ("turtle", "frog", "salamander")


@step()
def baskers(animal: tuple[Species, ...]) -> tuple[str, ...]:
    """The animals aboard that come out to bask, by name."""
    return tuple(dict.fromkeys(kind.common for kind in animal if kind.shape == "turtle"))


@figure(
    "Longest darkness",
    formula="24 − {light_h} − {siesta_h} − {ramp_min} ÷ 30, not below 0",
    source="definition",
)
def dark_h(light_h: float, siesta_h: float, ramp_min: float) -> float:
    # The break at midday and both ramps lengthen the day between the nights.
    return max(0.0, 24 - light_h - siesta_h - 2 * ramp_min / 60)


@check("A night of darkness", stage="heat", judges="dark_h", mends=("heat.light_h", "light.siesta_h"))
def night_dark(dark_h: float, dark_least_h: float, dark_wanted_h: float, animal: tuple[Species, ...]) -> Verdict:
    needing = list(dict.fromkeys(kind.common for kind in animal if kind.shape in DARKNESS))
    if not needing:
        raise NamedCase("not_needed")
    reason = say(
        "{who}: the lamps leave {dark} of darkness; {wanted} unbroken are wanted, {least} at least, heat lamps off as well.",
        who=", ".join(needing),
        dark=of(dark_h, "dark_h"),
        wanted=Term(dark_wanted_h, "hours"),
        least=Term(dark_least_h, "hours"),
    )
    return between(at_least(dark_h, dark_least_h, "hours", reason), dark_h < dark_wanted_h)


@check(
    "A place to bask",
    stage="heat",
    mends=("light.basking_c",),
    caution="Fix every lamp so that it can not fall into the water, and guard it against touch.",
)
def basks(
    baskers: tuple[str, ...], basking_c: float | None, basking_low_c: float, basking_high_c: float
) -> Verdict:
    if not baskers:
        raise NamedCase("not_needed")
    terms: dict[str, Term | str] = {
        "who": ", ".join(baskers),
        "low": Term(basking_low_c, "temperature"),
        "high": Term(basking_high_c, "temperature"),
    }
    if basking_c is None:
        reason = say(
            "{who}: a dry place that all can climb, {low} to {high} at its surface by a probe; a warm canopy is none.",
            **terms,
        )
        return Verdict("unknown", 0.0, say("not measured"), reason)
    reason = say(
        "{who}: the dry place measures {now}; {low} to {high} are wanted.",
        now=Term(basking_c, "temperature"),
        **terms,
    )
    return within_band(basking_c, basking_low_c, basking_high_c, "temperature", reason)


def need_uvb(uvb_fitted: bool) -> None:
    if not uvb_fitted:
        raise NamedCase("not_needed")


@figure(
    "How fast the index falls",
    formula="ln({uvb_near_uvi} ÷ {uvb_far_uvi}) ÷ ln({uvb_far_cm} ÷ {uvb_near_cm}): 2 is the inverse square; {uvb_fitted}",
    source="inverse_square",
    kind="ratio",
)
def uvb_falls(
    uvb_near_uvi: float, uvb_far_uvi: float, uvb_near_cm: float, uvb_far_cm: float, uvb_fitted: bool
) -> float:
    need_uvb(uvb_fitted)
    if uvb_far_cm <= uvb_near_cm or uvb_far_uvi >= uvb_near_uvi:
        raise NamedCase("uvb_points")
    falls = math.log(uvb_near_uvi / uvb_far_uvi) / math.log(uvb_far_cm / uvb_near_cm)
    if not LEAST_FALL <= falls <= MOST_FALL:
        raise NamedCase("uvb_points")
    return falls


@figure(
    "What screen and age leave of it",
    formula="(1 − {uvb_screen_frac}) × (1 − (1 − {uvb_end_frac}) × {uvb_age_months} ÷ {uvb_life_months})",
    source="practice",
)
def uvb_left_frac(
    uvb_screen_frac: float, uvb_end_frac: float, uvb_age_months: float, uvb_life_months: float
) -> float:
    aged = 1 - (1 - uvb_end_frac) * min(1.0, uvb_age_months / uvb_life_months)
    return (1 - uvb_screen_frac) * aged


@figure(
    "Index on the animal's back",
    formula="{uvb_near_uvi} × ({uvb_near_cm} ÷ {uvb_cm})^{uvb_falls} × {uvb_left_frac}",
    source="inverse_square",
)
def given_uvi(
    uvb_near_uvi: float, uvb_near_cm: float, uvb_cm: float, uvb_falls: float, uvb_left_frac: float
) -> float:
    return float(uvb_near_uvi * (uvb_near_cm / uvb_cm) ** uvb_falls * uvb_left_frac)


@figure(
    "Distance for the wanted index",
    formula="{uvb_near_cm} × ({uvb_near_uvi} × {uvb_left_frac} ÷ {uvb_wanted_uvi})^(1 ÷ {uvb_falls})",
    source="inverse_square",
)
def uvb_hang_cm(
    uvb_near_cm: float, uvb_near_uvi: float, uvb_left_frac: float, uvb_wanted_uvi: float, uvb_falls: float
) -> float:
    return float(uvb_near_cm * (uvb_near_uvi * uvb_left_frac / uvb_wanted_uvi) ** (1 / uvb_falls))


@figure("Lamp is due in", formula="{uvb_life_months} − {uvb_age_months}; {uvb_fitted}", source="practice")
def uvb_due_months(uvb_life_months: float, uvb_age_months: float, uvb_fitted: bool) -> float:
    need_uvb(uvb_fitted)
    return max(0.0, uvb_life_months - uvb_age_months)


@check(
    "Ultraviolet-B reaches them",
    stage="heat",
    judges="given_uvi",
    mends=("light.uvb_cm", "light.uvb_age_months"),
    caution="Never look into the lamp. Glass and most plastics stop ultraviolet-B; a meter decides, and a reptile vet.",
)
def uvb_reaches(
    given_uvi: float | None,
    uvb_wanted_uvi: float,
    uvb_harm_uvi: float,
    uvb_hang_cm: float | None,
    uvb_due_months: float | None,
    uvb_least_frac: float,
    uvb_fitted: bool,
    baskers: tuple[str, ...],
) -> Verdict:
    if not uvb_fitted and baskers:
        text = (
            "{who}: no ultraviolet-B lamp. Without one they can not make vitamin D3, take up no calcium, and shell and "
            "bones soften over months. Sun through glass has none."
        )
        return Verdict("short", -1.0, say("no lamp"), say(text, who=", ".join(baskers)))
    if not uvb_fitted:
        raise NamedCase("not_needed")
    if given_uvi is None or uvb_hang_cm is None or uvb_due_months is None:
        raise NamedCase("uvb_points")
    terms = {
        "index": of(given_uvi, "given_uvi"),
        "wanted": Term(uvb_wanted_uvi, "uv_index"),
        "hang": of(uvb_hang_cm, "uvb_hang_cm"),
        "due": of(uvb_due_months, "uvb_due_months"),
        "harm": Term(uvb_harm_uvi, "uv_index"),
    }
    if given_uvi > uvb_harm_uvi:
        return at_most(
            given_uvi,
            uvb_harm_uvi,
            "uv_index",
            say("{index} on the back; {harm} harms eyes and skin. Hang it at {hang}.", **terms),
        )
    text = "{index} on the back, {wanted} wanted: hang it at {hang}. The lamp is due in {due}."
    verdict = at_least(given_uvi, uvb_wanted_uvi * uvb_least_frac, "uv_index", say(text, **terms))
    if given_uvi <= uvb_wanted_uvi / uvb_least_frac:
        return verdict
    over = say("{by} more than wanted", by=Term(given_uvi - uvb_wanted_uvi, "uv_index"))
    return Verdict("tight", verdict.margin, over, verdict.reason, verdict.gauge)
