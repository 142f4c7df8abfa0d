"""Chlorine and chloramine taken out: conditioner, carbon, standing."""

import math

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, at_most, tight_past
from loquen.core.graph.nodes import State, Verdict, check, figure
from loquen.core.model.inputs.quantity import Term, of, say
from loquen.core.physics import chemistry

CONDITIONED = ("container", "tank")
ROUNDING = 1e-9
"""A dose is not made a tenth more by a machine's rounding."""


@figure(
    "Standing until chlorine is gone",
    formula="half-life × log2({present_chlorine_mg_l} ÷ {chlorine_limit_mg_l}), {half_life_aerated_h} aerated ({aerated}), "
    "else {half_life_still_h}; {present_disinfectant}",
    source="practice",
)
def ageing_h(
    present_chlorine_mg_l: float,
    chlorine_limit_mg_l: float,
    half_life_aerated_h: float,
    aerated: bool,
    half_life_still_h: float,
    present_disinfectant: str,
) -> float:
    if present_disinfectant == "chloramine":
        raise NamedCase("chloramine_stays")
    if present_disinfectant == "none":
        raise NamedCase("no_disinfectant")
    half_life = half_life_aerated_h if aerated else half_life_still_h
    return chemistry.ageing_h(present_chlorine_mg_l, chlorine_limit_mg_l, half_life)


@figure("Contact in the carbon", formula="{carbon_l} ÷ {carbon_lph} × 60", source="definition")
def carbon_min(carbon_l: float, carbon_lph: float) -> float:
    return float(chemistry.contact_min(carbon_l, carbon_lph))


@figure(
    "Contact it needs",
    formula="{carbon_chlorine_min} for chlorine; for chloramine {carbon_chloramine_min} on ordinary, "
    "{carbon_catalytic_min} on catalytic carbon ({carbon_kind}, {present_disinfectant})",
    source="practice",
)
def carbon_needed_min(
    carbon_chlorine_min: float,
    carbon_chloramine_min: float,
    carbon_catalytic_min: float,
    carbon_kind: str,
    present_disinfectant: str,
) -> float:
    if present_disinfectant == "none":
        raise NamedCase("no_disinfectant")
    if present_disinfectant == "chlorine":
        return carbon_chlorine_min
    return carbon_catalytic_min if carbon_kind == "catalytic" else carbon_chloramine_min


@check(
    "Carbon has time enough",
    stage="source",
    judges="carbon_min",
    mends=("water.carbon_lph", "water.carbon_l"),
    caution="Test total chlorine behind the cartridge at every change; the figure is a plan, the test is the safety.",
)
def carbon_enough(treatment: str, carbon_min: float, carbon_needed_min: float) -> Verdict:
    if treatment != "carbon":
        raise NamedCase("not_needed")
    reason = say(
        "Water spends {time} in the carbon; {needed} are needed.",
        time=of(carbon_min, "carbon_min"),
        needed=of(carbon_needed_min, "carbon_needed_min"),
    )
    return at_least(carbon_min, carbon_needed_min, "minutes", reason)


@check("It stands long enough", stage="source", judges="ageing_h", mends=("water.aged_h", "water.aerated"))
def aged_enough(treatment: str, present_disinfectant: str, aged_h: float, ageing_h: float) -> Verdict:
    if treatment != "aged" or present_disinfectant == "none":
        raise NamedCase("not_needed")
    reason = say(
        "It stands {given}; chlorine is gone in about {needed}. Test before use.",
        given=Term(aged_h, "hours"),
        needed=of(ageing_h, "ageing_h"),
    )
    return at_least(aged_h, ageing_h, "hours", reason)


@figure(
    "Water the conditioner is dosed for",
    formula="{treatment}: {change_l} in a container, {real_volume_l} when treated in the tank",
    source="practice",
)
def dosed_l(treatment: str, change_l: float, real_volume_l: float) -> float:
    if treatment not in CONDITIONED:
        raise NamedCase("not_treated")
    return change_l if treatment == "container" else real_volume_l


@figure(
    "Conditioner for one change",
    formula="{dosed_l} ÷ 100 × {label_ml}",
    source="practice",
)
def dose_ml(dosed_l: float, label_ml: float) -> float:
    return dosed_l / 100 * label_ml


@figure(
    "Disinfectant that the dose meets",
    formula="{present_chlorine_mg_l} in a container; × {swapped_frac} in the tank, which is dosed whole ({treatment})",
    source="balance",
)
def met_chlorine_mg_l(present_chlorine_mg_l: float, swapped_frac: float, treatment: str) -> float:
    return present_chlorine_mg_l * (swapped_frac if treatment == "tank" else 1.0)


@figure(
    "Times the label's dose",
    formula="{dose_margin} where it is set; else {met_chlorine_mg_l} ÷ {label_takes_chlorine_mg_l}, up to the next tenth, at least 1",
    source="practice",
    kind="ratio",
)
def dose_times(dose_margin: float | None, met_chlorine_mg_l: float, label_takes_chlorine_mg_l: float) -> float:
    if dose_margin is not None:
        return dose_margin
    return max(1.0, math.ceil(10 * met_chlorine_mg_l / label_takes_chlorine_mg_l - ROUNDING) / 10)


@figure(
    "Disinfectant that this dose takes out",
    formula="{dose_times} × {label_takes_chlorine_mg_l}",
    source="practice",
)
def dose_takes_chlorine_mg_l(dose_times: float, label_takes_chlorine_mg_l: float) -> float:
    return dose_times * label_takes_chlorine_mg_l


@figure(
    "Conditioner for 100 L of this water",
    formula="{conditioner_ml} × {dose_times}, × {chloramine_factor} for chloramine ({present_disinfectant})",
    source="practice",
)
def label_ml(
    conditioner_ml: float, dose_times: float, chloramine_factor: float, present_disinfectant: str
) -> float:
    if present_disinfectant == "none":
        raise NamedCase("no_disinfectant")
    return conditioner_ml * dose_times * (chloramine_factor if present_disinfectant == "chloramine" else 1.0)


@figure(
    "Containers for one change", formula="{change_l} ÷ {container_l}, rounded up", source="definition", kind="count"
)
def containers(change_l: float, container_l: float | None) -> float:
    if container_l is None:
        raise NamedCase("no_container")
    return float(math.ceil(change_l / container_l - 1e-9))


@figure(
    "Conditioner for one container",
    formula="{container_l} ÷ 100 × {label_ml}; {treatment}",
    source="practice",
    kind="dose",
)
def container_dose_ml(container_l: float | None, label_ml: float, treatment: str) -> float:
    if treatment != "container":
        raise NamedCase("not_treated")
    if container_l is None:
        raise NamedCase("no_container")
    return container_l / 100 * label_ml


@figure(
    "Conditioner for a week's top-up",
    formula="{evaporation_l_d} × 7 ÷ 100 × {label_ml} where evaporation is topped up with it ({topped_up})",
    source="practice",
    kind="dose",
)
def topup_dose_ml(evaporation_l_d: float, label_ml: float, topped_up: str) -> float:
    if topped_up != "source":
        raise NamedCase("topped_up_pure")
    return evaporation_l_d * 7 / 100 * label_ml


@check("No more conditioner than its label allows", stage="source", judges="label_ml", mends=("water.dose_margin",))
def dose_allowed(
    label_ml: float, conditioner_ml: float, dose_most: float, treatment: str, tap_untold: bool
) -> Verdict:
    if treatment not in CONDITIONED or (tap_untold and label_ml <= conditioner_ml * dose_most):
        raise NamedCase("not_needed")
    reason = say(
        "{dose} for 100 L, where the label says {label} and at most {most}. More takes oxygen, and some bind trace metals.",
        dose=of(label_ml, "label_ml"),
        label=Term(conditioner_ml, "dose"),
        most=Term(conditioner_ml * dose_most, "dose"),
    )
    verdict = at_most(label_ml, conditioner_ml * dose_most, "dose", reason)
    return tight_past(verdict, "give air") if verdict.state == "short" else verdict


@figure(
    "Or sodium thiosulfate by weight",
    formula="7.0 × {change_l} × {present_chlorine_mg_l} × {thiosulfate_margin} ÷ 1000; {present_disinfectant}",
    source="practice",
)
def thiosulfate_g(
    change_l: float, present_chlorine_mg_l: float, thiosulfate_margin: float, present_disinfectant: str
) -> float:
    if present_disinfectant == "none":
        raise NamedCase("no_disinfectant")
    return float(chemistry.thiosulfate_mg(change_l * present_chlorine_mg_l, thiosulfate_margin)) / 1000


@figure(
    "Part of the disinfectant that is left",
    formula="{treatment}: 1 untreated; conditioned 1 − {dose_takes_chlorine_mg_l} ÷ {met_chlorine_mg_l}, not below 0; aged {aged_h}: 2^(−t ÷ {half_life_aerated_h} aerated ({aerated}), else "
    "{half_life_still_h}), chloramine stays ({present_disinfectant}); carbon: 1 − {carbon_min} ÷ {carbon_needed_min}",
    source="practice",
)
def left_frac(
    treatment: str,
    present_disinfectant: str,
    aged_h: float,
    aerated: bool,
    half_life_aerated_h: float,
    half_life_still_h: float,
    carbon_min: float,
    carbon_needed_min: float | None,
    dose_takes_chlorine_mg_l: float,
    met_chlorine_mg_l: float,
) -> float:
    if treatment in CONDITIONED:
        return max(0.0, 1 - dose_takes_chlorine_mg_l / met_chlorine_mg_l) if met_chlorine_mg_l > 0 else 0.0
    if treatment == "aged" and present_disinfectant == "chlorine":
        return float(
            chemistry.chlorine_after_mg_l(1.0, aged_h, half_life_aerated_h if aerated else half_life_still_h)
        )
    if treatment == "carbon":
        return max(0.0, 1 - carbon_min / carbon_needed_min) if carbon_needed_min is not None else 0.0
    return 1.0


@figure(
    "Disinfectant in the tank after a change",
    formula="{present_chlorine_mg_l} × {left_frac} × {swapped_frac}",
    source="balance",
)
def left_chlorine_mg_l(present_chlorine_mg_l: float, left_frac: float, swapped_frac: float) -> float:
    return present_chlorine_mg_l * left_frac * swapped_frac


@figure(
    "Ammonia that chloramine sets free at a change",
    formula="{present_chlorine_mg_l} × 0.1975 × {chloramine_ammonia_scale} × {swapped_frac}; {present_disinfectant}",
    source="iupac",
)
def freed_ammonia_mg_l(
    present_chlorine_mg_l: float, chloramine_ammonia_scale: float, swapped_frac: float, present_disinfectant: str
) -> float:
    if present_disinfectant != "chloramine":
        return 0.0
    freed = float(chemistry.chloramine_ammonia_mg_l(present_chlorine_mg_l))
    return freed * chloramine_ammonia_scale * swapped_frac


@check(
    "The change water is treated",
    stage="source",
    glass="tap",
    judges="left_chlorine_mg_l",
    mends=("water.treatment", "water.dose_margin"),
    caution="Test total chlorine with a kit that reads low enough; the figure is a plan, the test is the safety.",
)
def treated(
    present_disinfectant: str,
    treatment: str,
    left_chlorine_mg_l: float,
    chlorine_limit_mg_l: float,
    freed_ammonia_mg_l: float,
    unionised_frac: float,
    unionised_limit_mg_l: float,
    unionised_harm_mg_l: float,
    aged_h: float,
    ageing_h: float | None,
    dose_times: float,
    dose_takes_chlorine_mg_l: float,
    met_chlorine_mg_l: float,
    tap_untold: bool,
) -> Verdict:
    if present_disinfectant == "none":
        raise NamedCase("not_needed")
    free = freed_ammonia_mg_l * unionised_frac
    terms = {
        "left": of(left_chlorine_mg_l, "left_chlorine_mg_l"),
        "limit": Term(chlorine_limit_mg_l, "chlorine"),
        "freed": of(freed_ammonia_mg_l, "freed_ammonia_mg_l"),
        "free": Term(free, "unionised"),
        "harm": Term(unionised_harm_mg_l, "unionised"),
        "bears": Term(unionised_limit_mg_l, "unionised"),
        "times": of(dose_times, "dose_times", "ratio"),
        "takes": of(dose_takes_chlorine_mg_l, "dose_takes_chlorine_mg_l"),
        "met": of(met_chlorine_mg_l, "met_chlorine_mg_l"),
    }
    if treatment in CONDITIONED and dose_times < 1:
        text = "{times} times the label's dose: no label promises anything for less than its dose. Too little conditioner is worse than too much."
        return Verdict("short", dose_times - 1, say("under its label"), say(text, **terms))
    if treatment == "aged" and present_disinfectant == "chloramine":
        reason = say("Chloramine does not leave by standing: {left} reach the tank, {limit} is the most.", **terms)
    elif treatment in CONDITIONED and left_chlorine_mg_l > chlorine_limit_mg_l:
        reason = say(
            "{times} times the label's dose takes out {takes} of the {met} that it meets: {left} reach the tank, {limit} is the most.",
            **terms,
        )
    elif left_chlorine_mg_l > chlorine_limit_mg_l:
        reason = say(
            "So treated, a change leaves {left} in the tank; {limit} is the most. Dilution is not treatment.",
            **terms,
        )
    elif treatment == "aged" and ageing_h is not None and aged_h < ageing_h:
        # What is left is little once diluted, but the barrel has not stood long enough: one verdict for both.
        reason = say(
            "Standing {stood} of the {wanted} it takes, {left} reach the tank.",
            stood=Term(aged_h, "hours"),
            wanted=of(ageing_h, "ageing_h"),
            **terms,
        )
        return Verdict("short", aged_h - ageing_h, say("stands too short"), reason)
    elif freed_ammonia_mg_l > 0:
        text = "Breaking chloramine sets {freed} free in the tank, {free} of it free ammonia at this pH, "
        text += (
            "from none to all of which a conditioner binds. "
            if treatment in CONDITIONED
            else "until the filter has taken it. "
        )
        if free > unionised_limit_mg_l:
            text += "{harm} harms, {bears} is borne for long: a smaller change, or softer water."
        reason = say(text, **terms)
        if free > unionised_limit_mg_l:
            # What a tap would free that nobody asked about is a reason to ask, and no alarm.
            state: State = "short" if free > unionised_harm_mg_l and not tap_untold else "tight"
            return Verdict(
                state, unionised_limit_mg_l - free, say("{free} after a change", free=terms["free"]), reason
            )
    else:
        reason = (
            say("Treated, no chlorine reaches the animals: the dose takes out {takes}, and meets {met}.", **terms)
            if treatment in CONDITIONED
            else say("Treated, no chlorine reaches the animals.")
        )
    return at_most(left_chlorine_mg_l, chlorine_limit_mg_l, "chlorine", reason)
