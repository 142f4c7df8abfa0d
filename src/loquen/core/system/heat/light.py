"""Day and night: darkness that animals need, a place to bask, and ultraviolet-B at its distance."""

import math
from dataclasses import dataclass, replace

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, at_most, between, by_practice, within_band
from loquen.core.graph.nodes import Gauge, Verdict, check, figure, step
from loquen.core.library.rows.animals import Species
from loquen.core.library.rows.keeping import Lid
from loquen.core.model.inputs.quantity import Term, of, say

LEAST_FALL, MOST_FALL = 0.1, 10.0
"""An index that falls less or more than this with distance is no lamp's: two points of a maker's sheet mistyped."""
DARKNESS = ("turtle", "frog", "salamander")
WARMING = ("basking", "dark_heat")
"""Lamps that warm a dry place."""


@dataclass(frozen=True, slots=True)
class Lamps:
    """All lamps over a tank: what each is for, its watts and its hours a day."""

    rows: tuple[tuple[str, float, float], ...]

    @property
    def label(self) -> str:
        return "; ".join(f"{watts:g} W for {hours:g} h" for _, watts, hours in self.rows) or "none"


@step()
def lamps_lit(lamp_kind: tuple[str, ...], lamp_w: tuple[float, ...], lamp_h: tuple[float, ...]) -> Lamps:
    return Lamps(tuple(zip(lamp_kind, lamp_w, lamp_h, strict=True)))


@figure("Lamps take", formula="Σ watts of {lamps_lit}", source="definition")
def light_w(lamps_lit: Lamps) -> float:
    return sum(watts for _, watts, _ in lamps_lit.rows)


@figure("Lamps take a day", formula="Σ watts × hours of {lamps_lit} ÷ 1000", source="definition")
def light_kwh_d(lamps_lit: Lamps) -> float:
    return sum(watts * hours for _, watts, hours in lamps_lit.rows) / 1000


@figure(
    "Lamps warm the water by",
    formula="Σ watts of {lamps_lit} × {light_heat_share} over the water, {land_heat_share} over land",
    source="practice",
)
def light_heat_w(lamps_lit: Lamps, light_heat_share: float, land_heat_share: float) -> float:
    return sum(
        watts * (light_heat_share if kind == "display" else land_heat_share) for kind, watts, _ in lamps_lit.rows
    )


@figure(
    "Lamps warm the water by, the day's mean",
    formula="Σ watts × hours ÷ 24 of {lamps_lit} × {light_heat_share} over the water, {land_heat_share} over land",
    source="practice",
)
def light_heat_mean_w(lamps_lit: Lamps, light_heat_share: float, land_heat_share: float) -> float:
    shares = {"display": light_heat_share}
    return sum(watts * hours / 24 * shares.get(kind, land_heat_share) for kind, watts, hours in lamps_lit.rows)


@figure(
    "Hours with a lamp that is seen",
    formula="longest of {lamps_lit}, warmth without light left out",
    source="definition",
)
def visible_h(lamps_lit: Lamps) -> float:
    return max((hours for kind, watts, hours in lamps_lit.rows if kind != "dark_heat"), default=0.0)


@step()
def baskers(animal: tuple[Species, ...]) -> tuple[str, ...]:
    """The animals aboard that come out to bask, by name."""
    return tuple(dict.fromkeys(kind.common for kind in animal if kind.uvi_high > 0 and kind.needs_land != "none"))


@figure(
    "Longest darkness",
    formula="24 − {visible_h} − {siesta_h} − {ramp_min} ÷ 30, not below 0",
    source="definition",
)
def dark_h(visible_h: float, siesta_h: float, ramp_min: float) -> float:
    # The break at midday and both ramps lengthen the day between the nights.
    return max(0.0, 24 - visible_h - siesta_h - 2 * ramp_min / 60)


@check("A night of darkness", stage="heat", judges="dark_h", mends=("lamps.*.lamp_h", "light.siesta_h"))
def night_dark(dark_h: float, dark_least_h: float, dark_wanted_h: float, animal: tuple[Species, ...]) -> Verdict:
    needing = list(dict.fromkeys(kind.common for kind in animal if kind.shape in DARKNESS))
    if not needing:
        raise NamedCase("not_needed")
    reason = say(
        "{who}: the lamps leave {dark} of darkness; {wanted} unbroken are wanted, {least} at least. By night warm them without light.",
        who=", ".join(needing),
        dark=of(dark_h, "dark_h"),
        wanted=Term(dark_wanted_h, "hours"),
        least=Term(dark_least_h, "hours"),
    )
    return between(at_least(dark_h, dark_least_h, "hours", reason), dark_h < dark_wanted_h)


@check(
    "A place to bask",
    stage="heat",
    glass="heat",
    judges="basking_c",
    mends=("lamps.*.lamp_w",),
    caution="Fix every lamp so that it can not fall into the water, and guard it against touch.",
)
def basks(
    baskers: tuple[str, ...],
    basking_c: float | None,
    basking_low_c: float,
    basking_high_c: float,
    lamps_lit: Lamps,
    land_kind: str,
) -> Verdict:
    if not baskers:
        raise NamedCase("not_needed")
    terms: dict[str, Term | str] = {
        "who": ", ".join(baskers),
        "low": Term(basking_low_c, "temperature"),
        "high": Term(basking_high_c, "temperature"),
    }
    if land_kind == "none":
        return Verdict("short", -1.0, say("no dry place"), say("{who}: there is no dry place to lie on.", **terms))
    if basking_c is None:
        text = "{who}: a dry place that all can climb, {low} to {high} at its surface; a warm canopy is none."
        if not any(kind in WARMING and watts > 0 and hours > 0 for kind, watts, hours in lamps_lit.rows):
            return Verdict("short", -1.0, say("no lamp warms it"), say(text + " No lamp warms one here.", **terms))
        return Verdict("holds", 0.0, say("a lamp warms it"), say(text, **terms))
    reason = say(
        "{who}: the dry place measures {now}; {low} to {high} are wanted.",
        now=Term(basking_c, "temperature"),
        **terms,
    )
    return within_band(basking_c, basking_low_c, basking_high_c, "temperature", reason)


@dataclass(frozen=True, slots=True)
class Zone:
    """The ultraviolet index that all who bask want on their backs: from, to, and the one to aim at."""

    low_uvi: float
    high_uvi: float
    aim_uvi: float

    @property
    def label(self) -> str:
        return f"{self.low_uvi:g} to {self.high_uvi:g}"


@step()
def uvb_zone(animal: tuple[Species, ...], uvb_wanted_uvi: float | None) -> Zone:
    """Where several kinds bask, what the most and the least demanding of them share."""
    kinds = [kind for kind in animal if kind.uvi_high > 0]
    if not kinds:
        raise NamedCase("not_needed")
    low, high = max(kind.uvi_low for kind in kinds), min(kind.uvi_high for kind in kinds)
    return Zone(low, high, uvb_wanted_uvi or math.sqrt(low * max(low, high)))


def need_uvb(lamp_kind: str) -> None:
    if lamp_kind != "uvb":
        raise NamedCase("no_uvb_lamp")


@figure(
    "How fast the index falls",
    formula="ln({near_uvi} ÷ {far_uvi}) ÷ ln({far_cm} ÷ {near_cm}): 2 is the inverse square; {lamp_kind}",
    source="inverse_square",
    kind="ratio",
    row="lamps",
)
def uvb_falls(near_uvi: float, far_uvi: float, near_cm: float, far_cm: float, lamp_kind: str) -> float:
    need_uvb(lamp_kind)
    if far_cm <= near_cm or far_uvi >= near_uvi:
        raise NamedCase("uvb_points")
    falls = math.log(near_uvi / far_uvi) / math.log(far_cm / near_cm)
    if not LEAST_FALL <= falls <= MOST_FALL:
        raise NamedCase("uvb_points")
    return falls


@figure(
    "What lid, screen and age leave of it",
    formula="(1 − {screen_frac}) × (1 − (1 − {uvb_end_frac}) × {lamp_age_months} ÷ {lamp_life_months}) × what a lid passes: {lid_row}",
    source="practice",
    row="lamps",
)
def uvb_left_frac(
    screen_frac: float, uvb_end_frac: float, lamp_age_months: float, lamp_life_months: float, lid_row: Lid
) -> float:
    aged = 1 - (1 - uvb_end_frac) * min(1.0, lamp_age_months / lamp_life_months)
    return (1 - screen_frac) * aged * lid_row.uvb_passes


@figure(
    "Its index on the animal's back",
    formula="{near_uvi} × ({near_cm} ÷ {lamp_cm})^{uvb_falls} × {uvb_left_frac}",
    source="inverse_square",
    row="lamps",
)
def lamp_uvi(near_uvi: float, near_cm: float, lamp_cm: float, uvb_falls: float, uvb_left_frac: float) -> float:
    return float(near_uvi * (near_cm / lamp_cm) ** uvb_falls * uvb_left_frac)


@figure(
    "Distance at which it alone gives what is wanted",
    formula="{near_cm} × ({near_uvi} × {uvb_left_frac} ÷ the middle of {uvb_zone})^(1 ÷ {uvb_falls})",
    source="inverse_square",
    row="lamps",
)
def uvb_hang_cm(near_cm: float, near_uvi: float, uvb_left_frac: float, uvb_zone: Zone, uvb_falls: float) -> float:
    return float(near_cm * (near_uvi * uvb_left_frac / uvb_zone.aim_uvi) ** (1 / uvb_falls))


@figure(
    "It is due in",
    formula="{lamp_life_months} − {lamp_age_months}; {lamp_kind}",
    source="practice",
    row="lamps",
)
def uvb_due_months(lamp_life_months: float, lamp_age_months: float, lamp_kind: str) -> float:
    need_uvb(lamp_kind)
    return max(0.0, lamp_life_months - lamp_age_months)


@figure(
    "Index on the animal's back",
    formula="{measured_uvi} as measured, else Σ {lamp_uvi} of the ultraviolet-B lamps, {lamp_kind}",
    source="inverse_square",
)
def given_uvi(lamp_uvi: tuple[float | None, ...], lamp_kind: tuple[str, ...], measured_uvi: float | None) -> float:
    if measured_uvi is not None:
        return measured_uvi
    fitted = [uvi for uvi, kind in zip(lamp_uvi, lamp_kind, strict=True) if kind == "uvb"]
    known = [uvi for uvi in fitted if uvi is not None]
    if len(known) < len(fitted):
        raise NamedCase("uvb_points")
    return sum(known)


@check(
    "Ultraviolet-B reaches them",
    stage="heat",
    glass="heat",
    judges="given_uvi",
    mends=("lamps.*.lamp_cm",),
    caution="Never look into the lamp. Glass and most plastics stop ultraviolet-B; a meter decides, and a reptile vet.",
)
def uvb_reaches(
    given_uvi: float,
    uvb_zone: Zone,
    uvb_harm_uvi: float,
    uvb_hang_cm: tuple[float | None, ...],
    uvb_due_months: tuple[float | None, ...],
    uvb_least_frac: float,
    lid_row: Lid,
    lamp_kind: tuple[str, ...],
    baskers: tuple[str, ...],
) -> Verdict:
    who = ", ".join(baskers)
    if "uvb" not in lamp_kind:
        text = (
            "{who}: no ultraviolet-B lamp. Without one they can not make vitamin D3, take up no calcium, and shell and "
            "bones soften over months. Sun through glass has none."
        )
        return Verdict("short", -1.0, say("no lamp"), say(text, who=who))
    if lid_row.uvb_passes == 0:
        text = "{who}: the lamp shines through glass, which stops all ultraviolet-B. Leave the place to bask uncovered, or under mesh."
        return Verdict("short", -1.0, say("none gets through"), say(text, who=who))
    hang = next((cm for cm in uvb_hang_cm if cm is not None), 0.0)
    due = min((months for months in uvb_due_months if months is not None), default=0.0)
    terms = {
        "index": of(given_uvi, "given_uvi"),
        "low": Term(uvb_zone.low_uvi, "uv_index"),
        "high": Term(uvb_zone.high_uvi, "uv_index"),
        "hang": Term(hang, "length"),
        "due": Term(due, "months"),
        "harm": Term(uvb_harm_uvi, "uv_index"),
    }
    text = "{index} on the back; {low} to {high} are wanted, {harm} harms eyes and skin."
    if given_uvi > uvb_zone.high_uvi:
        reason = say(text + " Hang it at {hang}.", **terms)
        verdict = at_most(given_uvi, uvb_harm_uvi, "uv_index", reason)
        over = say("{by} more than wanted", by=Term(given_uvi - uvb_zone.high_uvi, "uv_index"))
        return verdict if verdict.state == "short" else replace(verdict, state="tight", headline=over)
    if given_uvi < uvb_zone.low_uvi:
        reason = say(text + " Hang it at {hang}. The lamp is due in {due}.", **terms)
        verdict = at_least(given_uvi, uvb_zone.low_uvi, "uv_index", reason)
        return by_practice(verdict, uvb_zone.low_uvi, (1 - uvb_least_frac) * uvb_zone.low_uvi)
    reason = say(text + " The lamp is due in {due}.", **terms)
    gauge = Gauge(given_uvi, 1.25 * uvb_zone.high_uvi, "uv_index", high=uvb_zone.high_uvi, low=uvb_zone.low_uvi)
    return Verdict("holds", given_uvi - uvb_zone.low_uvi, say("inside its zone"), reason, gauge)
