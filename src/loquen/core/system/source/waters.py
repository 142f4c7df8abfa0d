"""Source water: what each water is, whether its tests fit together, and what the parts mix to."""

from loquen.core.data.minerals import ions
from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_most
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.model.inputs.quantity import UNKNOWN, Sentence, Term, of, say
from loquen.core.physics import chemistry
from loquen.core.physics.chemistry.carbonate import MEQ_L_PER_DKH
from loquen.core.system.animals.findings import Finding, verdict_over

CALCIUM_MG_PER_DGH = 0.17833 * 40.078
BICARBONATE_MG_PER_DKH = MEQ_L_PER_DKH * 61.017


@figure(
    "pH once it has aired",
    formula="aerated pH of {src_kh_dkh} at 25 °C, air at {room_co2_ppm}",
    source="plummer1982",
    row="sources",
    kind="ph",
)
def src_aired_ph(src_kh_dkh: float, room_co2_ppm: float) -> float:
    return chemistry.aerated_ph(max(src_kh_dkh, 0.02), 25.0, room_co2_ppm)


@figure(
    "Dissolved solids",
    formula="{src_us_cm} × {meter_factor}",
    source="practice",
    row="sources",
    kind="level",
)
def src_solids(src_us_cm: float, meter_factor: float) -> float:
    return src_us_cm * meter_factor


@figure(
    "Conductivity that its ions would give",
    formula="Σ of calcium and magnesium in {src_gh_dgh}, bicarbonate in {src_kh_dkh}, {src_sodium_mg_l}, "
    "{src_chloride_mg_l}, {src_nitrate_mg_l}; what charge is missing counted as sulfate",
    source="robinsonstokes1959",
    row="sources",
)
def src_ions_us_cm(
    src_gh_dgh: float,
    src_kh_dkh: float,
    src_sodium_mg_l: float,
    src_chloride_mg_l: float,
    src_nitrate_mg_l: float,
) -> float:
    found = ions()
    known = {
        "calcium": src_gh_dgh * CALCIUM_MG_PER_DGH,
        "bicarbonate": src_kh_dkh * BICARBONATE_MG_PER_DKH,
        "sodium": src_sodium_mg_l,
        "chloride": src_chloride_mg_l,
        "nitrate": src_nitrate_mg_l * found["nitrate"].g_mol / 14.007,
    }
    charge = sum(found[key].charge * amount / found[key].g_mol for key, amount in known.items())
    if charge > 0:
        known["sulfate"] = charge / 2 * found["sulfate"].g_mol
    else:
        known["potassium"] = -charge * found["potassium"].g_mol
    return chemistry.conductivity_us_cm(known)


@step("sources")
def src_questions(
    src_name: str,
    src_kind: str,
    src_gh_dgh: float,
    src_kh_dkh: float,
    src_ph: float | None,
    src_aired_ph: float,
    src_us_cm: float,
    src_ions_us_cm: float,
    src_softened: str,
    src_sodium_mg_l: float,
    src_disinfectant: str,
    ph_apart: float,
    solids_apart_frac: float,
) -> tuple[Finding, ...]:
    """What does not fit together in one water's test, as questions."""
    who, found = (src_name,), []
    if src_ph is not None and src_ph > src_aired_ph + ph_apart:
        text = "pH {ph} is more than KH {kh} can hold once it airs, {aired}: is a base in it, or a figure wrong?"
        terms = {"ph": Term(src_ph, "ph"), "kh": Term(src_kh_dkh, "carbonate"), "aired": Term(src_aired_ph, "ph")}
        found.append(Finding(who, "pH", "tight", say(text, **terms)))
    softener_needs = float(chemistry.softener_sodium_mg_l(src_kh_dkh))
    if src_softened == "all" and src_sodium_mg_l < 0.5 * softener_needs:
        text = "a salt softener swaps hardness for sodium and leaves KH; with KH {kh} some {sodium} of sodium would be there"
        terms = {"kh": Term(src_kh_dkh, "carbonate"), "sodium": Term(softener_needs, "level")}
        found.append(Finding(who, "softener", "tight", say(text, **terms)))
    if src_softened == "all" and src_gh_dgh > max(2.0, src_kh_dkh):
        text = "softened, but GH {gh} is left: is it regenerated, or softened on the hot side only?"
        found.append(Finding(who, "softener", "tight", say(text, gh=Term(src_gh_dgh, "hardness"))))
    if src_us_cm < (1 - solids_apart_frac) * src_ions_us_cm:
        text = "the ions entered would read {ions}, more than the {meter} measured: is one of them too high?"
        terms = {"ions": Term(src_ions_us_cm, "conductivity"), "meter": Term(src_us_cm, "conductivity")}
        found.append(Finding(who, "conductivity", "tight", say(text, **terms)))
    if src_kind in ("rain", "osmosis") and src_disinfectant not in ("none", UNKNOWN):
        found.append(
            Finding(who, "disinfectant", "tight", say("disinfectant in rain or osmosis water: is the kind right?"))
        )
    return tuple(found)


@check("The waters fit together", stage="source")
def waters_fit(src_questions: tuple[tuple[Finding, ...], ...]) -> Verdict:
    if not src_questions:
        raise NamedCase("not_needed")
    return verdict_over([finding for row in src_questions for finding in row], "What was tested fits together.")


def mixed(parts: tuple[float, ...], values: tuple[float, ...], entered: float) -> float:
    """The parts' mean, or what was entered when no waters are mixed."""
    return chemistry.blended(parts, values) if parts else entered


@figure(
    "GH of the mix", formula="Σ {src_parts} × {src_gh_dgh} ÷ Σ {src_parts}, else {tank_gh_dgh}", source="balance"
)
def mix_gh_dgh(src_parts: tuple[float, ...], src_gh_dgh: tuple[float, ...], tank_gh_dgh: float) -> float:
    return mixed(src_parts, src_gh_dgh, tank_gh_dgh)


@figure(
    "KH of the mix", formula="Σ {src_parts} × {src_kh_dkh} ÷ Σ {src_parts}, else {source_kh_dkh}", source="balance"
)
def mix_kh_dkh(src_parts: tuple[float, ...], src_kh_dkh: tuple[float, ...], source_kh_dkh: float) -> float:
    return mixed(src_parts, src_kh_dkh, source_kh_dkh)


@figure(
    "Conductivity of the mix",
    formula="Σ {src_parts} × {src_us_cm} ÷ Σ {src_parts}, else {source_us_cm}",
    source="balance",
)
def mix_us_cm(src_parts: tuple[float, ...], src_us_cm: tuple[float, ...], source_us_cm: float) -> float:
    return mixed(src_parts, src_us_cm, source_us_cm)


@figure(
    "Nitrate of the change water",
    formula="Σ {src_parts} × {src_nitrate_mg_l} ÷ Σ {src_parts}, else {source_nitrate_mg_l}",
    source="balance",
)
def new_nitrate_mg_l(
    src_parts: tuple[float, ...], src_nitrate_mg_l: tuple[float, ...], source_nitrate_mg_l: float
) -> float:
    return mixed(src_parts, src_nitrate_mg_l, source_nitrate_mg_l)


@figure(
    "The mix comes at",
    formula="Σ {src_parts} × {src_c} ÷ Σ {src_parts}, else {source_c}",
    source="balance",
)
def mix_c(src_parts: tuple[float, ...], src_c: tuple[float, ...], source_c: float) -> float:
    return mixed(src_parts, src_c, source_c)


@figure("Change water is poured at", formula="{source_c} as entered", source="definition")
def new_c(source_c: float) -> float:
    return source_c


CLEAN_KINDS = ("well", "rain", "osmosis")
"""Waters that carry no disinfectant unless it is said."""
UNTOLD_AS = "chloramine"
"""What water is reckoned to carry that nobody asked about: the one that is harder to be rid of."""


def carried(told: str, clean: bool = False) -> str:
    """The disinfectant that water is reckoned to carry: what was not told is the harder one, but in clean water none."""
    if told != UNKNOWN:
        return told
    return "none" if clean else UNTOLD_AS


def strength_mg_l(carries: str, told_mg_l: float | None, usual_mg_l: float) -> float:
    """How strong it is reckoned; where a kind was told and no strength, the usual most stands in."""
    if carries == "none":
        return 0.0
    return told_mg_l or usual_mg_l


def asked_about(src_kind: str, src_parts: float) -> bool:
    """Whether a water's disinfectant has to be asked about: of what is in the mix, and does not come clean."""
    return src_parts > 0 and src_kind not in CLEAN_KINDS


@step()
def tap_untold(
    src_parts: tuple[float, ...], src_kind: tuple[str, ...], src_disinfectant: tuple[str, ...], disinfectant: str
) -> bool:
    """Whether nobody told what the change water carries."""
    if not src_parts:
        return disinfectant == UNKNOWN
    rows = zip(src_parts, src_kind, src_disinfectant, strict=True)
    return any(told == UNKNOWN and asked_about(kind, parts) for parts, kind, told in rows)


@step("sources")
def src_carries(src_disinfectant: str, src_kind: str) -> str:
    return carried(src_disinfectant, src_kind in CLEAN_KINDS)


@figure(
    "Disinfectant reckoned in it",
    formula="{src_chlorine_mg_l} as told, else {untold_chlorine_mg_l}; none in {src_carries}",
    source="practice",
    row="sources",
)
def src_reckoned_chlorine_mg_l(
    src_carries: str, src_chlorine_mg_l: float | None, untold_chlorine_mg_l: float
) -> float:
    return strength_mg_l(src_carries, src_chlorine_mg_l, untold_chlorine_mg_l)


@step()
def present_disinfectant(src_parts: tuple[float, ...], src_carries: tuple[str, ...], disinfectant: str) -> str:
    """The disinfectant reckoned in the change water: the harder one to be rid of where waters differ."""
    if not src_parts:
        return carried(disinfectant)
    found = {kind for kind, parts in zip(src_carries, src_parts, strict=True) if parts > 0}
    return next((kind for kind in ("chloramine", "chlorine") if kind in found), "none")


@figure(
    "Disinfectant in the change water",
    formula="Σ {src_parts} × {src_reckoned_chlorine_mg_l} ÷ Σ {src_parts}, else {disinfectant_mg_l} as told or "
    "{untold_chlorine_mg_l} ({present_disinfectant})",
    source="balance",
)
def present_chlorine_mg_l(
    src_parts: tuple[float, ...],
    src_reckoned_chlorine_mg_l: tuple[float, ...],
    disinfectant_mg_l: float | None,
    untold_chlorine_mg_l: float,
    present_disinfectant: str,
) -> float:
    alone = strength_mg_l(present_disinfectant, disinfectant_mg_l, untold_chlorine_mg_l)
    return mixed(src_parts, src_reckoned_chlorine_mg_l, alone)


@figure(
    "The mix comes in summer at",
    formula="Σ {src_parts} × ({src_summer_c}, else {src_c}) ÷ Σ {src_parts}, else {source_c}",
    source="balance",
)
def mix_summer_c(
    src_parts: tuple[float, ...], src_summer_c: tuple[float | None, ...], src_c: tuple[float, ...], source_c: float
) -> float:
    warm = tuple(c if hot is None else hot for hot, c in zip(src_summer_c, src_c, strict=True))
    return mixed(src_parts, warm, source_c)


@check("Its nitrate leaves room", stage="source", judges="new_nitrate_mg_l", mends=("sources.*.src_parts",))
def nitrate_leaves_room(new_nitrate_mg_l: float, target_nitrate_mg_l: float) -> Verdict:
    reason = say(
        "The change water brings {floor}: no change takes nitrate below that. Your limit is {limit}.",
        floor=of(new_nitrate_mg_l, "new_nitrate_mg_l"),
        limit=Term(target_nitrate_mg_l, "nitrate"),
    )
    return at_most(new_nitrate_mg_l, target_nitrate_mg_l, "nitrate", reason)


@step()
def source_result(new_gh_dgh: float, new_kh_dkh: float, new_us_cm: float, new_nitrate_mg_l: float) -> Sentence:
    return say(
        "The change water comes to {gh}, {kh}, {us} and {nitrate}.",
        gh=of(new_gh_dgh, "new_gh_dgh"),
        kh=of(new_kh_dkh, "new_kh_dkh"),
        us=of(new_us_cm, "new_us_cm"),
        nitrate=of(new_nitrate_mg_l, "new_nitrate_mg_l"),
    )
