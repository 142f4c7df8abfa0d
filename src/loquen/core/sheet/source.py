"""Source water: what the waters are, what they mix to, what is weighed in, how it is warmed and disinfected."""

from dataclasses import dataclass

from loquen.core.data import library
from loquen.core.errors import Impossible
from loquen.core.model.quantity import Sentence, Term, of, say
from loquen.core.physics import chemistry
from loquen.core.sheet.company import Finding, told
from loquen.core.sheet.judging import at_least, at_most
from loquen.core.sheet.nodes import Verdict, check, figure, step
from loquen.core.sheet.water import CONDITIONED, conditioner

CALCIUM_MG_PER_DGH = 0.17833 * 40.078
BICARBONATE_MG_PER_DKH = 0.35665 * 61.017
PH_APART = 0.4
SOLIDS_APART = 0.35


# Each water by itself ---------------------------------------------------------------------------


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
    ions = library.ions()
    known = {
        "calcium": src_gh_dgh * CALCIUM_MG_PER_DGH,
        "bicarbonate": src_kh_dkh * BICARBONATE_MG_PER_DKH,
        "sodium": src_sodium_mg_l,
        "chloride": src_chloride_mg_l,
        "nitrate": src_nitrate_mg_l * ions["nitrate"].g_mol / 14.007,
    }
    charge = sum(ions[key].charge * amount / ions[key].g_mol for key, amount in known.items())
    if charge > 0:
        known["sulfate"] = charge / 2 * ions["sulfate"].g_mol
    else:
        known["potassium"] = -charge * ions["potassium"].g_mol
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
) -> tuple[Finding, ...]:
    """What does not fit together in one water's test, as questions."""
    who, found = (src_name,), []
    if src_ph is not None and src_ph > src_aired_ph + PH_APART:
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
    if src_us_cm < (1 - SOLIDS_APART) * src_ions_us_cm:
        text = "the ions entered would read {ions}, more than the {meter} measured: is one of them too high?"
        terms = {"ions": Term(src_ions_us_cm, "conductivity"), "meter": Term(src_us_cm, "conductivity")}
        found.append(Finding(who, "conductivity", "tight", say(text, **terms)))
    if src_kind in ("rain", "osmosis") and src_disinfectant != "none":
        found.append(
            Finding(who, "disinfectant", "tight", say("disinfectant in rain or osmosis water: is the kind right?"))
        )
    return tuple(found)


@check("The waters fit together", stage="source")
def waters_fit(src_questions: tuple[tuple[Finding, ...], ...]) -> Verdict:
    if not src_questions:
        raise Impossible("not_needed")
    return told([finding for row in src_questions for finding in row], "What was tested fits together.")


# The mix ----------------------------------------------------------------------------------------


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


@step()
def present_disinfectant(src_parts: tuple[float, ...], src_disinfectant: tuple[str, ...], disinfectant: str) -> str:
    """The disinfectant in the mix: the harder one to be rid of where waters differ; else as entered."""
    if not src_parts:
        return disinfectant
    found = {kind for kind, parts in zip(src_disinfectant, src_parts, strict=True) if parts > 0}
    return next((kind for kind in ("chloramine", "chlorine") if kind in found), "none")


@figure(
    "Disinfectant in the mix",
    formula="Σ {src_parts} × {src_chlorine_mg_l} ÷ Σ {src_parts}, else {disinfectant_mg_l}",
    source="balance",
)
def present_chlorine_mg_l(
    src_parts: tuple[float, ...], src_chlorine_mg_l: tuple[float, ...], disinfectant_mg_l: float
) -> float:
    return mixed(src_parts, src_chlorine_mg_l, disinfectant_mg_l)


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


# What is weighed in -----------------------------------------------------------------------------


@figure("Hardness to add", formula="{target_gh_dgh} − {mix_gh_dgh}, not below 0", source="balance")
def added_dgh(target_gh_dgh: float | None, mix_gh_dgh: float) -> float:
    return max(0.0, target_gh_dgh - mix_gh_dgh) if target_gh_dgh is not None else 0.0


@figure("Carbonate hardness to add", formula="{target_kh_dkh} − {mix_kh_dkh}, not below 0", source="balance")
def added_dkh(target_kh_dkh: float | None, mix_kh_dkh: float) -> float:
    return max(0.0, target_kh_dkh - mix_kh_dkh) if target_kh_dkh is not None else 0.0


@figure("KH of the change water", formula="{mix_kh_dkh} + {added_dkh}", source="balance")
def new_kh_dkh(mix_kh_dkh: float, added_dkh: float) -> float:
    return mix_kh_dkh + added_dkh


@figure("GH of the change water", formula="{mix_gh_dgh} + {added_dgh}", source="balance")
def new_gh_dgh(mix_gh_dgh: float, added_dgh: float) -> float:
    return mix_gh_dgh + added_dgh


@figure(
    "Calcium salt for one change",
    formula="{added_dgh} × {calcium_frac} × mg for a degree of {calcium_salt} × {change_l} ÷ 1000",
    source="iupac",
)
def calcium_g(added_dgh: float, calcium_frac: float, calcium_salt: str, change_l: float) -> float:
    return added_dgh * calcium_frac * chemistry.salt_for_degree_mg_l(calcium_salt) * change_l / 1000


@figure(
    "Magnesium salt for one change",
    formula="{added_dgh} × (1 − {calcium_frac}) × mg for a degree of {magnesium_salt} × {change_l} ÷ 1000",
    source="iupac",
)
def magnesium_g(added_dgh: float, calcium_frac: float, magnesium_salt: str, change_l: float) -> float:
    return added_dgh * (1 - calcium_frac) * chemistry.salt_for_degree_mg_l(magnesium_salt) * change_l / 1000


@figure(
    "Carbonate salt for one change",
    formula="{added_dkh} × mg for a degree of {carbonate_salt} × {change_l} ÷ 1000",
    source="iupac",
)
def carbonate_g(added_dkh: float, carbonate_salt: str, change_l: float) -> float:
    return added_dkh * chemistry.salt_for_degree_mg_l(carbonate_salt) * change_l / 1000


def ions_of(salt: str, mg_l: float) -> dict[str, float]:
    """Ions, in mg/L, that a weight of a salt gives a litre."""
    row, ions = library.mineral_salts()[salt], library.ions()
    moles = {
        "calcium": row.calcium_mol,
        "magnesium": row.magnesium_mol,
        "sodium": row.sodium_mol,
        "potassium": row.potassium_mol,
        "chloride": row.chloride_mol,
        "sulfate": row.sulfate_mol,
        "bicarbonate": row.alkalinity_eq,
    }
    return {key: mg_l / row.g_mol * count * ions[key].g_mol for key, count in moles.items() if count}


@figure(
    "Conductivity of the change water",
    formula="{mix_us_cm} + what the salts add: {calcium_g} of {calcium_salt}, {magnesium_g} of {magnesium_salt}, "
    "{carbonate_g} of {carbonate_salt} in {change_l}",
    source="robinsonstokes1959",
)
def new_us_cm(
    mix_us_cm: float,
    calcium_g: float,
    calcium_salt: str,
    magnesium_g: float,
    magnesium_salt: str,
    carbonate_g: float,
    carbonate_salt: str,
    change_l: float,
) -> float:
    together: dict[str, float] = {}
    for salt, grams in ((calcium_salt, calcium_g), (magnesium_salt, magnesium_g), (carbonate_salt, carbonate_g)):
        for ion, amount in ions_of(salt, grams * 1000 / change_l).items():
            together[ion] = together.get(ion, 0.0) + amount
    return mix_us_cm + (chemistry.conductivity_us_cm(together) if any(together.values()) else 0.0)


@check(
    "The mix can be brought to its hardness",
    stage="source",
    judges="mix_gh_dgh",
    mends=("sources.*.src_parts", "recipe.target_gh_dgh"),
)
def hardness_reached(
    target_gh_dgh: float | None, mix_gh_dgh: float, mix_kh_dkh: float, target_kh_dkh: float | None
) -> Verdict:
    if target_gh_dgh is None and target_kh_dkh is None:
        raise Impossible("not_needed")
    over_gh = mix_gh_dgh - target_gh_dgh if target_gh_dgh is not None else -1.0
    over_kh = mix_kh_dkh - target_kh_dkh if target_kh_dkh is not None else -1.0
    if max(over_gh, over_kh) <= CLOSE_DEGREES:
        return Verdict(
            "holds", 1.0, say("reached"), say("What is missing is weighed in; nothing has to be taken out.")
        )
    kind, over, what = ("hardness", over_gh, "GH") if over_gh >= over_kh else ("carbonate", over_kh, "KH")
    reason = say(
        "{what} of the mix is {over} above what is wanted: nothing that is weighed in takes it out. Use a larger part of a softer water.",
        what=what,
        over=Term(over, kind),
    )
    return Verdict("short", -over, say("{by} too hard", by=Term(over, kind)), reason)


CLOSE_DEGREES = 0.25


@figure(
    "KH that coral sand brings it to",
    formula="KH at which aragonite no longer dissolves, from {new_kh_dkh} and {new_gh_dgh} with {calcium_frac} calcium, "
    "at {coral_co2_mg_l} of CO2 and {water_c}",
    source="plummer1982",
)
def coral_dkh(
    new_kh_dkh: float, new_gh_dgh: float, calcium_frac: float, coral_co2_mg_l: float, water_c: float
) -> float:
    calcium = max(new_gh_dgh * calcium_frac * CALCIUM_MG_PER_DGH, 0.2)
    return chemistry.lime_ceiling_dkh(max(new_kh_dkh, 0.05), calcium, coral_co2_mg_l, water_c)


@figure(
    "Mixed salt by its label",
    formula="{added_dgh} × {product_g} × {change_l} ÷ 100; by label: {product_g}",
    source="practice",
)
def product_dose_g(added_dgh: float, product_g: float | None, change_l: float) -> float:
    if product_g is None:
        raise Impossible("no_product")
    return added_dgh * product_g * change_l / 100


# Warm and salt ----------------------------------------------------------------------------------


@figure(
    "Part of it from the hot tap",
    formula="({new_c} − {mix_c}) ÷ ({hot_c} − {mix_c}), 0 to 1",
    source="balance",
)
def hot_frac(new_c: float, mix_c: float, hot_c: float) -> float:
    if hot_c <= mix_c or new_c <= mix_c:
        return 0.0
    return min(1.0, (new_c - mix_c) / (hot_c - mix_c))


@figure("Hot tap open for", formula="{hot_frac} × {change_l} ÷ {fill_l_min} × 60", source="balance")
def hot_s(hot_frac: float, change_l: float, fill_l_min: float) -> float:
    return hot_frac * change_l / fill_l_min * 60


@figure(
    "Hot tap open in summer for",
    formula="({new_c} − {mix_summer_c}) ÷ ({hot_c} − {mix_summer_c}) × {change_l} ÷ {fill_l_min} × 60",
    source="balance",
)
def hot_summer_s(new_c: float, mix_summer_c: float, hot_c: float, change_l: float, fill_l_min: float) -> float:
    return hot_frac(new_c, mix_summer_c, hot_c) * change_l / fill_l_min * 60


@figure(
    "Sodium from a hot-side softener",
    formula="8.2 × {src_gh_dgh} × {hot_frac} over waters softened on the hot side ({src_softened}), by {src_parts}",
    source="iupac",
    kind="level",
)
def hot_sodium(
    src_gh_dgh: tuple[float, ...], hot_frac: float, src_softened: tuple[str, ...], src_parts: tuple[float, ...]
) -> float:
    total = sum(src_parts)
    if total <= 0:
        return 0.0
    rows = zip(src_gh_dgh, src_softened, src_parts, strict=True)
    softened = sum(gh * parts for gh, side, parts in rows if side == "hot") / total
    return float(chemistry.softener_sodium_mg_l(softened)) * hot_frac


@figure(
    "Salt for one change",
    formula="{change_l} × density × {tank_salinity_ppt} × 1.00472 ÷ {salt_purity_frac} at {water_c}",
    source="teos10",
)
def change_salt_g(change_l: float, tank_salinity_ppt: float, salt_purity_frac: float, water_c: float) -> float:
    return float(chemistry.salt_to_add_g(change_l, tank_salinity_ppt, 0.0, water_c, salt_purity_frac))


@figure(
    "Days to the wanted salinity",
    formula="|{move_to_ppt} − {tank_salinity_ppt}| ÷ {move_ppt_d}, rounded up",
    source="practice",
)
def move_d(move_to_ppt: float | None, tank_salinity_ppt: float, move_ppt_d: float) -> float:
    if move_to_ppt is None:
        raise Impossible("no_move")
    gap = abs(move_to_ppt - tank_salinity_ppt)
    return float(-(-round(gap * 1e6) // round(move_ppt_d * 1e6)))


@dataclass(frozen=True, slots=True)
class SaltDay:
    """One day of a move: the salinity at its end, what is added or changed, what the hydrometer then reads."""

    day: int
    salinity_ppt: float
    salt_g: float
    fresh_l: float
    gravity: float


@step()
def salt_days(
    move_d: float,
    move_to_ppt: float | None,
    tank_salinity_ppt: float,
    move_ppt_d: float,
    real_volume_l: float,
    salt_purity_frac: float,
    hydrometer_c: float,
    water_c: float,
) -> tuple[SaltDay, ...]:
    """Day by day: salt by weight on the way up, a change for fresh water on the way down."""
    assert move_to_ppt is not None
    level, rows = tank_salinity_ppt, []
    for day in range(1, int(move_d) + 1):
        aim = level + max(-move_ppt_d, min(move_ppt_d, move_to_ppt - level))
        salt = (
            float(chemistry.salt_to_add_g(real_volume_l, aim, level, water_c, salt_purity_frac))
            if aim > level
            else 0.0
        )
        fresh = real_volume_l * (level - aim) / level if aim < level else 0.0
        rows.append(SaltDay(day, aim, salt, fresh, float(chemistry.specific_gravity(aim, water_c, hydrometer_c))))
        level = aim
    return tuple(rows)


# Disinfectant by ageing and by carbon ------------------------------------------------------------


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
        raise Impossible("chloramine_stays")
    if present_disinfectant == "none":
        raise Impossible("no_disinfectant")
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
        raise Impossible("no_disinfectant")
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
        raise Impossible("not_needed")
    reason = say(
        "Water spends {time} in the carbon; {needed} are needed.",
        time=of(carbon_min, "carbon_min"),
        needed=of(carbon_needed_min, "carbon_needed_min"),
    )
    return at_least(carbon_min, carbon_needed_min, "minutes", reason)


@check("It stands long enough", stage="source", judges="ageing_h", mends=("water.aged_h", "water.aerated"))
def aged_enough(treatment: str, present_disinfectant: str, aged_h: float, ageing_h: float) -> Verdict:
    if treatment != "aged" or present_disinfectant == "none":
        raise Impossible("not_needed")
    reason = say(
        "It stands {given}; chlorine is gone in about {needed}. Test before use.",
        given=Term(aged_h, "hours"),
        needed=of(ageing_h, "ageing_h"),
    )
    return at_least(aged_h, ageing_h, "hours", reason)


@check("Its nitrate leaves room", stage="source", judges="new_nitrate_mg_l", mends=("sources.*.src_nitrate_mg_l",))
def nitrate_leaves_room(new_nitrate_mg_l: float, target_nitrate_mg_l: float) -> Verdict:
    reason = say(
        "The change water brings {floor}: no change takes nitrate below that. Your limit is {limit}.",
        floor=of(new_nitrate_mg_l, "new_nitrate_mg_l"),
        limit=Term(target_nitrate_mg_l, "nitrate"),
    )
    return at_most(new_nitrate_mg_l, target_nitrate_mg_l, "nitrate", reason)


# The card ---------------------------------------------------------------------------------------


@step()
def card(
    change_l: float,
    src_name: tuple[str, ...],
    src_parts: tuple[float, ...],
    calcium_g: float,
    calcium_salt: str,
    magnesium_g: float,
    magnesium_salt: str,
    carbonate_g: float,
    carbonate_salt: str,
    added_dgh: float,
    product_g: float | None,
    change_salt_g: float,
    hot_s: float,
    hot_frac: float,
    fill_l_min: float,
    new_c: float,
    treatment: str,
    present_disinfectant: str,
    conditioner_dose: float | None,
    carbon_lph: float,
    aged_h: float,
) -> tuple[Sentence, ...]:
    """One change's recipe, line by line in the order of the work."""
    salts = library.mineral_salts()
    total = sum(src_parts)
    lines = [say("For {litres}:", litres=of(change_l, "change_l"))]
    if total > 0:
        lines += [
            say("{litres} of {name}", litres=Term(change_l * parts / total, "volume"), name=name)
            for name, parts in zip(src_name, src_parts, strict=True)
            if parts > 0
        ]
    if present_disinfectant != "none":
        how = {
            "carbon": say("run it through the carbon at {flow} or slower", flow=Term(carbon_lph, "flow")),
            "aged": say("let it stand for {hours}, then test", hours=Term(aged_h, "hours")),
        }
        if treatment in how:
            lines.append(how[treatment])
        elif conditioner_dose is not None:
            where = "into the barrel, and stir" if treatment == "container" else "into the tank, before refilling"
            lines.append(
                say("{dose} of conditioner {where}", dose=Term(conditioner_dose, "dose", "dose_ml"), where=where)
            )
    weighed = [(calcium_g, calcium_salt), (magnesium_g, magnesium_salt), (carbonate_g, carbonate_salt)]
    if product_g is not None:
        grams = added_dgh * product_g * change_l / 100
        lines.append(
            say("{grams} of the mixed salt, by its label", grams=Term(grams, "small_mass", "product_dose_g"))
        )
        weighed = weighed[2:]
    lines += [
        say(
            "{grams} of {salt}",
            grams=Term(grams, "small_mass"),
            salt=salts[salt].label[0].lower() + salts[salt].label[1:],
        )
        for grams, salt in weighed
        if grams > 0
    ]
    if change_salt_g > 0:
        lines.append(say("{grams} of salt", grams=Term(change_salt_g, "small_mass", "change_salt_g")))
    if hot_frac > 0:
        lines.append(
            say(
                "at {rate}, {seconds} of it from the hot tap for {warm}",
                rate=Term(fill_l_min, "fill_rate"),
                seconds=Term(hot_s, "seconds", "hot_s"),
                warm=Term(new_c, "temperature"),
            )
        )
    return tuple(lines)


@step()
def conditioner_dose(
    treatment: str,
    present_disinfectant: str,
    change_l: float,
    real_volume_l: float,
    conditioner_ml: float,
    chloramine_factor: float,
) -> float | None:
    """Conditioner for one change where one is used."""
    if present_disinfectant == "none" or treatment not in CONDITIONED:
        return None
    litres = change_l if treatment == "container" else real_volume_l
    return conditioner(litres, conditioner_ml, chloramine_factor, present_disinfectant)


@step()
def source_result(new_gh_dgh: float, new_kh_dkh: float, new_us_cm: float, new_nitrate_mg_l: float) -> Sentence:
    return say(
        "The change water comes to {gh}, {kh}, {us} and {nitrate}.",
        gh=of(new_gh_dgh, "new_gh_dgh"),
        kh=of(new_kh_dkh, "new_kh_dkh"),
        us=of(new_us_cm, "new_us_cm"),
        nitrate=of(new_nitrate_mg_l, "new_nitrate_mg_l"),
    )
