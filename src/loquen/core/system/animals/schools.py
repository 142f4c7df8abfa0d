"""The schools of stocking, side by side, on one tank and its animals."""

from dataclasses import dataclass, replace

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, at_most, by_practice, holds_for_you, tight_past, within_band
from loquen.core.graph.nodes import State, Verdict, check, figure, step
from loquen.core.library.rows.animals import Species
from loquen.core.model.inputs.quantity import Sentence, Term, counted, of, say
from loquen.core.system.animals.food import mass_of, require_animals

MILDER: dict[State, State] = {"short": "tight", "tight": "holds"}
DEEP_BODIED = {"deep", "disc", "globular", "turtle", "frog"}
SHELLED = "turtle"
NOTHING = 1e-9
"""Of the load, what may be taken counts as nothing below this share."""


@figure(
    "Part of an adult's room that it needs",
    formula="({mass_then_g} ÷ mass of an adult of {adult_length_cm})^0.75: room in step with food, {animal}; of turtles, {length_then_cm} ÷ {adult_length_cm}: room by length of shell",
    source="kleiber",
    row="animals",
)
def room_frac(mass_then_g: float, animal: Species, adult_length_cm: float, length_then_cm: float) -> float:
    if animal.shape == SHELLED:
        return length_then_cm / adult_length_cm
    return float((mass_then_g / mass_of(animal, adult_length_cm)) ** 0.75)


@figure(
    "Litres for one adult",
    formula="{own_litres} by your own rule, else the least that keepers give {animal}",
    source="practice",
    row="animals",
    kind="volume",
)
def adult_litres(own_litres: float | None, animal: Species) -> float:
    return animal.litres_low if own_litres is None else own_litres


@figure(
    "Tank in adult lengths",
    formula="{own_lengths} by your own rule, else what keepers give {animal}",
    source="practice",
    row="animals",
    kind="ratio",
)
def lengths_wanted(own_lengths: float | None, animal: Species) -> float:
    return animal.length_ratio if own_lengths is None else own_lengths


@figure("Litres, at least", formula="Σ {number} × {room_frac} × {adult_litres}", source="practice")
def wanted_low_l(number: tuple[int, ...], room_frac: tuple[float, ...], adult_litres: tuple[float, ...]) -> float:
    return sum(n * part * litres for n, part, litres in zip(number, room_frac, adult_litres, strict=True))


@figure(
    "Litres, amply",
    formula="Σ {number} × {room_frac} × most litres of {animal}, or {own_litres} by your own rule",
    source="practice",
)
def wanted_high_l(
    number: tuple[int, ...],
    room_frac: tuple[float, ...],
    animal: tuple[Species, ...],
    own_litres: tuple[float | None, ...],
) -> float:
    rows = zip(number, room_frac, animal, own_litres, strict=True)
    return sum(n * part * (kind.litres_high if own is None else own) for n, part, kind, own in rows)


@figure(
    "Litres by length of shell",
    formula="Σ {number} × {length_then_cm} of turtles × {litres_per_shell_cm}, {animal}",
    source="practice",
)
def shell_l(
    number: tuple[int, ...],
    length_then_cm: tuple[float, ...],
    litres_per_shell_cm: float,
    animal: tuple[Species, ...],
) -> float:
    rows = zip(number, length_then_cm, animal, strict=True)
    shells_cm = sum(count * length for count, length, kind in rows if kind.shape == SHELLED)
    if shells_cm == 0:
        raise NamedCase("no_shells")
    return shells_cm * litres_per_shell_cm


@figure("Length wanted", formula="longest of {length_then_cm} × {lengths_wanted}", source="practice")
def wanted_length_cm(length_then_cm: tuple[float, ...], lengths_wanted: tuple[float, ...]) -> float:
    if not lengths_wanted:
        raise NamedCase("no_animals")
    return max(length * ratio for length, ratio in zip(length_then_cm, lengths_wanted, strict=True))


@step()
def own_rules(
    own_litres: tuple[float | None, ...],
    own_lengths: tuple[float | None, ...],
    own_reason: tuple[str, ...],
    animal: tuple[Species, ...],
) -> str:
    """Whose room goes by the keeper's own rule, and why, for the sentence of a verdict."""
    rows = zip(own_litres, own_lengths, own_reason, animal, strict=True)
    told = [
        f"{kind.common} ({why.strip()})" if why.strip() else kind.common
        for litres, lengths, why, kind in rows
        if litres is not None or lengths is not None
    ]
    return "; ".join(told)


def with_own(reason: Sentence, own_rules: str) -> Sentence:
    """The sentence with whose own rule decides in it."""
    if not own_rules:
        return reason
    return say(reason.text + " By your own rule: {own}.", **reason.terms, own=own_rules)


@figure("Width wanted", formula="longest of {length_then_cm} × width ratio of {animal}", source="practice")
def wanted_width_cm(length_then_cm: tuple[float, ...], animal: tuple[Species, ...]) -> float:
    require_animals(animal)
    return max(length * kind.width_ratio for length, kind in zip(length_then_cm, animal, strict=True))


@figure(
    "Surface wanted",
    formula="Σ {number} × {length_then_cm} × {surface_slim_cm2_per_cm} slim or {surface_deep_cm2_per_cm} deep, {animal}",
    source="practice",
    kind="surface",
)
def wanted_surface_cm2(
    number: tuple[int, ...],
    length_then_cm: tuple[float, ...],
    surface_slim_cm2_per_cm: float,
    surface_deep_cm2_per_cm: float,
    animal: tuple[Species, ...],
) -> float:
    return sum(
        count * length * (surface_deep_cm2_per_cm if kind.shape in DEEP_BODIED else surface_slim_cm2_per_cm)
        for count, length, kind in zip(number, length_then_cm, animal, strict=True)
    )


@figure(
    "Crowd of territorial fish",
    formula="Σ {group_mass_g} of {animal} ÷ {real_volume_l} × 100",
    source="practice",
)
def crowd_g_100l(group_mass_g: tuple[float, ...], animal: tuple[Species, ...], real_volume_l: float) -> float:
    return sum(mass for mass, kind in zip(group_mass_g, animal, strict=True) if kind.crowd) / real_volume_l * 100


@figure(
    "Waste this system can take",
    formula="the lower of {media_allow_mg_d} and {changes_allow_mg_d}",
    source="balance",
)
def allowed_mg_d(media_allow_mg_d: float, changes_allow_mg_d: float) -> float:
    return min(media_allow_mg_d, changes_allow_mg_d)


@figure("Share of the balance used", formula="{load_full_mg_d} ÷ {allowed_mg_d}", source="balance")
def balance_frac(load_full_mg_d: float, allowed_mg_d: float) -> float:
    if allowed_mg_d <= NOTHING * load_full_mg_d:
        raise NamedCase("nothing_taken")
    return load_full_mg_d / allowed_mg_d


@step()
def deciding(decides: str, animal: tuple[Species, ...], total_flow_lph: float) -> str:
    """The school that decides: the keeper's, where it applies to these animals and this tank, else the balance."""
    if decides == "crowd" and not any(kind.crowd for kind in animal):
        return "balance"
    return "balance" if decides == "surface" and total_flow_lph > 0 else decides


def as_decided(verdict: Verdict, school: str, decides: str) -> Verdict:
    """The verdict of a school, one step milder where the keeper goes by another than the balance and not by this one."""
    if decides in ("balance", school) or verdict.state not in MILDER:
        return verdict
    text = verdict.reason.text + " You go by {decides}: watch filter, oxygen and changes instead."
    reason = say(text, **verdict.reason.terms, decides=decides)
    return replace(verdict, state=MILDER[verdict.state], reason=reason)


@check(
    "Litres for their size",
    stage="animals",
    glass="space",
    judges="wanted_low_l",
    mends=("animals.*.number", "tank.tank_length_cm"),
)
def litres_enough(
    lived_in_l: float,
    wanted_low_l: float,
    wanted_high_l: float,
    animal_count: float,
    deciding: str,
    own_rules: str,
    held_months: float | None,
    animal: tuple[Species, ...],
    crowd_fits: Verdict | None,
) -> Verdict:
    if animal_count == 0:
        raise NamedCase("no_animals")
    reason = say(
        "Keepers give animals of this size {low} to {high}; there are {real} to live in.",
        low=of(wanted_low_l, "wanted_low_l"),
        high=of(wanted_high_l, "wanted_high_l"),
        real=of(lived_in_l, "lived_in_l"),
    )
    reason = with_own(reason, own_rules)
    verdict = by_practice(at_least(lived_in_l, wanted_low_l, "volume", reason), wanted_low_l)
    state: State = "tight" if verdict.state == "holds" and lived_in_l < wanted_high_l else verdict.state
    verdict = as_decided(replace(verdict, state=state), "volume", deciding)
    mixed = len(set(animal)) > 1 and all(kind.crowd for kind in animal)
    if verdict.state == "short" and mixed and stands(crowd_fits):
        reason = say(
            verdict.reason.text
            + " So crowded on purpose, no one is singled out: it takes filter, air, and large changes for good.",
            **verdict.reason.terms,
        )
        verdict = replace(tight_past(verdict, "as a crowd"), reason=reason)
    return holds_for_you(verdict, held_months)


@check(
    "Length to swim",
    stage="animals",
    glass="space",
    judges="wanted_length_cm",
    mends=("tank.tank_length_cm",),
)
def length_enough(inside_length_cm: float, wanted_length_cm: float, own_rules: str) -> Verdict:
    reason = say(
        "The most active of them wants {wanted} at that size; the tank is {length} long inside.",
        wanted=of(wanted_length_cm, "wanted_length_cm"),
        length=of(inside_length_cm, "inside_length_cm"),
    )
    reason = with_own(reason, own_rules)
    return by_practice(at_least(inside_length_cm, wanted_length_cm, "length", reason), wanted_length_cm)


@check("Width to turn", stage="animals", glass="space", judges="wanted_width_cm", mends=("tank.tank_width_cm",))
def width_enough(inside_width_cm: float, wanted_width_cm: float) -> Verdict:
    reason = say(
        "The longest of them needs {wanted} to turn; the tank is {width} wide inside.",
        wanted=of(wanted_width_cm, "wanted_width_cm"),
        width=of(inside_width_cm, "inside_width_cm"),
    )
    return by_practice(at_least(inside_width_cm, wanted_width_cm, "length", reason), wanted_width_cm)


def stands(verdict: Verdict | None) -> bool:
    return verdict is not None and verdict.state in ("holds", "tight")


@figure(
    "Crowd, from",
    formula="{crowd_low_g_per_100l} of a mixed community; 0 of one kind ({animal}), or while they grow up together ({growing})",
    source="practice",
)
def crowd_from_g_100l(crowd_low_g_per_100l: float, animal: tuple[Species, ...], growing: tuple[bool, ...]) -> float:
    crowding = {kind.key for kind in animal if kind.crowd}
    # Juveniles are grown up together in less: the lower end is for adults that hold ground.
    young = all(young for kind, young in zip(animal, growing, strict=True) if kind.crowd)
    return 0.0 if len(crowding) < 2 or young else crowd_low_g_per_100l


def band_of(low: float, high: float) -> Sentence:
    """A band of crowding in words; one without a lower end is a limit."""
    if low == 0:
        return say("up to {high}", high=Term(high, "crowding"))
    return say("{low} to {high}", low=Term(low, "crowding", bare=True), high=Term(high, "crowding"))


@check("Crowded enough, not too much", stage="animals", judges="crowd_g_100l", mends=("animals.*.number",))
def crowd_fits(
    crowd_g_100l: float,
    crowd_from_g_100l: float,
    crowd_high_g_per_100l: float,
    animal: tuple[Species, ...],
    number: tuple[int, ...],
    crowd_least: float,
    colony_least: float,
    deciding: str,
    held_months: float | None,
) -> Verdict:
    crowding = [(kind, count) for kind, count in zip(animal, number, strict=True) if kind.crowd]
    if not crowding:
        raise NamedCase("no_crowd_fish")
    colony = len({kind.key for kind, _ in crowding}) == 1
    # Of a kind that pairs, two are a colony.
    least = min(colony_least, crowding[0][0].group_least) if colony else crowd_least
    count = sum(count for _, count in crowding)
    words = "a breeding colony of one kind" if colony else "a mixed community"
    if count < least:
        reason = counted(
            count,
            "{count} is too few for {words}: it gets all the chasing. From {least} on it spreads.",
            "{count} are too few for {words}: one fish gets all the chasing. From {least} on it spreads.",
            words=words,
            least=Term(least, "count"),
        )
        few = Verdict("short", count - least, say("{by} too few", by=Term(least - count, "count")), reason)
        return as_decided(few, "crowd", deciding)
    low, high = crowd_from_g_100l, crowd_high_g_per_100l
    bounds = band_of(low, high)
    reason = say(
        "{grams} as {words}; " + bounds.text + " no fish is singled out and filters still keep up.",
        grams=of(crowd_g_100l, "crowd_g_100l"),
        words=words,
        **bounds.terms,
    )
    if low == 0:
        band = at_most(crowd_g_100l, crowd_high_g_per_100l, "crowding", reason)
    else:
        band = within_band(crowd_g_100l, low, crowd_high_g_per_100l, "crowding", reason)
    return holds_for_you(as_decided(by_practice(band, high), "crowd", deciding), held_months)


@check("Rock for a crowd", stage="animals", mends=("tank.rock_kg",))
def rock_for_crowd(
    rock_kg: float,
    real_volume_l: float,
    animal: tuple[Species, ...],
    rock_much_kg_per_100l: float,
    rock_little_kg_per_100l: float,
) -> Verdict:
    """Two camps: so much that lines of sight are broken everywhere, or so little that there is nothing to hold."""
    if not any(kind.crowd for kind in animal):
        raise NamedCase("no_crowd_fish")
    much, little = (part * real_volume_l / 100 for part in (rock_much_kg_per_100l, rock_little_kg_per_100l))
    terms = {
        "rock": Term(rock_kg, "mass"),
        "much": Term(much, "mass"),
        "little": Term(little, "mass"),
    }
    if rock_kg >= much:
        reason = say("{rock}: from {much} on lines of sight are broken, and the driven get away.", **terms)
        return Verdict("holds", rock_kg - much, say("much rock"), reason)
    if rock_kg <= little:
        reason = say("{rock}: hardly any, so that nobody has a place to hold; one school of two.", **terms)
        return Verdict("holds", little - rock_kg, say("hardly any rock"), reason)
    text = "{rock} are a few places that the strongest hold: from {much} on, or up to {little}, there are none to fight for."
    return Verdict("tight", 0.0, say("neither much nor little"), say(text, **terms))


@check(
    "Feed and waste in balance",
    stage="animals",
    judges="balance_frac",
    mends=("animals.*.number", "filters.*.media_l", "changes.change_frac"),
)
def in_balance(
    balance_frac: float, media_allow_mg_d: float, changes_allow_mg_d: float, load_full_mg_d: float
) -> Verdict:
    if load_full_mg_d == 0:
        raise NamedCase("no_animals")
    reason = say(
        "They make {load} at full load. Media take {media} at a safe ammonia level, changes and plants {changes} at your nitrate limit.",
        load=of(load_full_mg_d, "load_full_mg_d"),
        media=of(media_allow_mg_d, "media_allow_mg_d"),
        changes=of(changes_allow_mg_d, "changes_allow_mg_d"),
    )
    return at_most(balance_frac, 1.0, "share", reason)


@dataclass(frozen=True, slots=True)
class School:
    """What one school says of this tank: the share used, what it would allow, and why."""

    key: str
    label: str
    state: State
    share: float | None
    allows: Sentence
    why: str
    applies: bool = True
    binds: bool = False
    picked: bool = False


ANY_NUMBER = 1e6
"""So many that nobody counts them."""


def animals_at(share: float, count: float) -> Sentence:
    """How many such animals a school would allow."""
    if share <= 0 or count / share > ANY_NUMBER:
        return say("any number")
    return counted(float(int(count / share + 1e-9)), "{count} such animal", "{count} such animals")


@step()
def schools(
    animal_count: float,
    lived_in_l: float,
    inside_length_cm: float,
    wanted_low_l: float,
    wanted_high_l: float,
    wanted_length_cm: float,
    wanted_surface_cm2: float,
    shell_l: float | None,
    display_m2: float,
    balance_frac: float,
    in_balance: Verdict,
    litres_enough: Verdict,
    length_enough: Verdict,
    company_fits: Verdict,
    crowd_fits: Verdict | None,
    crowd_g_100l: float,
    crowd_from_g_100l: float,
    crowd_high_g_per_100l: float,
    total_flow_lph: float,
    deciding: str,
) -> tuple[School, ...]:
    """All seven, the one that binds marked; what does not apply to these animals or this tank says so."""
    surface = wanted_surface_cm2 / (display_m2 * 1e4)
    length = wanted_length_cm / inside_length_cm
    volume = wanted_low_l / lived_in_l
    shell = None if shell_l is None else shell_l / lived_in_l
    crowded = crowd_fits is not None
    unfiltered = total_flow_lph == 0
    surface_state: State = "unknown" if not unfiltered else "holds" if surface <= 1 else "short"
    crowd_share = crowd_g_100l / crowd_high_g_per_100l
    rows = [
        ("balance", "Balance", in_balance.state, balance_frac, animals_at(balance_frac, animal_count),
         "waste against what media, plants and changes take; the only one that follows feed and filter"),
        ("volume", "Volume", litres_enough.state, volume, animals_at(volume, animal_count),
         "real litres for each adult, the least that keepers give"),
        ("length", "Length", length_enough.state, length,
         say("a tank of {cm}", cm=Term(wanted_length_cm, "length")),
         "tank length in adult lengths, by how they swim"),
        ("shell", "Shell", "unknown" if shell is None else "holds" if shell <= 1 else "tight" if shell <= 2 else "short", shell,
         say("not for these animals") if shell is None else animals_at(shell, animal_count),
         "litres by length of shell, ten US gallons to an inch; half of that is kept by many who filter heavily"),
        ("surface", "Surface", surface_state, surface if unfiltered else None,
         animals_at(surface, animal_count) if unfiltered else say("only for tubs without a filter"),
         "footprint for each centimetre of adult; older than filters, fit for unfiltered tubs"),
        ("crowd", "Crowd", crowd_fits.state if crowd_fits else "unknown", crowd_share if crowded else None,
         band_of(crowd_from_g_100l, crowd_high_g_per_100l) if crowded else say("not for these animals"),
         "territorial lake fish: a band, too few is as wrong as too many"),
        ("group", "Group", company_fits.state, None, company_fits.headline,
         "company, single animals and sexes"),
    ]  # fmt: skip
    shares = {key: share for key, _, _, share, _, _ in rows if share is not None and key not in ("crowd", "shell")}
    binding = max(shares, key=lambda key: shares[key])
    return tuple(
        School(key, label, state, share, allows, why, state != "unknown", key == binding, key == deciding)
        for key, label, state, share, allows, why in rows
    )


@step()
def animals_result(
    animal_count: float, feed_full_g_d: float, load_full_mg_d: float, balance_frac: float
) -> Sentence:
    if animal_count == 0:
        raise NamedCase("no_animals")
    share = "{load}: {share} of what this system takes."
    return counted(
        animal_count,
        "At the size planned for, {count} animal eats {feed} of dry food and makes " + share,
        "At the size planned for, {count} animals eat {feed} of dry food and make " + share,
        "animal_count",
        feed=of(feed_full_g_d, "feed_full_g_d"),
        load=of(load_full_mg_d, "load_full_mg_d"),
        share=of(balance_frac, "balance_frac"),
    )
