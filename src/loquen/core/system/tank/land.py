"""Land for those who leave the water: places of their size, a way up, room over them, and what else they climb."""

from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import State, Verdict, check, figure, step
from loquen.core.library.rows.animals import Species
from loquen.core.model.inputs.quantity import UNKNOWN, Term, say
from loquen.core.model.parts.land import LAND_UNTOLD
from loquen.core.model.roots.consistency import MOST_LAND_FRAC
from loquen.core.system.animals.findings import Finding, verdict_over

PLACES = ("basks", "walks")
"""Kinds that lie on a place of their own; the others share what part of the floor is land."""
LIES_SHELLS = 1.0
"""Of its length: on less it can not lie, nor hold its head up."""
LEAST_OF_WANTED = 0.65
"""Of the land that is wanted, below which keepers' ranges end."""
SHELL_SHAPES = ("turtle",)


@step()
def landgoers(animal: tuple[Species, ...]) -> tuple[str, ...]:
    """The animals aboard that need land, by name."""
    return tuple(dict.fromkeys(kind.common for kind in animal if kind.needs_land != "none"))


@figure(
    "Land",
    formula="{land_kind}: {land_count} × {land_length_cm} × {land_width_cm} ÷ 10000, 0 where there is none",
    source="definition",
)
def land_m2(land_kind: str, land_count: int, land_length_cm: float, land_width_cm: float) -> float:
    if land_kind == UNKNOWN:
        raise NamedCase("land_untold")
    return 0.0 if land_kind == "none" else land_count * land_length_cm * land_width_cm / 1e4


@figure("Land, of the floor", formula="{land_m2} ÷ {display_m2}", source="definition")
def land_frac(land_m2: float, display_m2: float) -> float:
    return land_m2 / display_m2


@figure(
    "Water that land covers",
    formula="{land_kind}: {land_m2} of a platform or a bank, at most 0.9 × {display_m2}; 0 of a box over the rim",
    source="definition",
)
def land_on_water_m2(land_kind: str, land_m2: float | None, display_m2: float) -> float:
    covered = min(land_m2 or 0.0, MOST_LAND_FRAC * display_m2)
    return covered if land_kind in ("platform", "bank") else 0.0


@figure(
    "Water a bank displaces",
    formula="{land_kind}: {land_on_water_m2} × {water_height_cm} × 10 × {bank_solid_frac} of a bank, else 0",
    source="practice",
)
def bank_displaced_l(
    land_kind: str, land_on_water_m2: float, water_height_cm: float, bank_solid_frac: float
) -> float:
    return land_on_water_m2 * water_height_cm * 10 * bank_solid_frac if land_kind == "bank" else 0.0


@figure(
    "Place for the largest, each way",
    formula="{place_shells} × longest {length_then_cm} of those that lie on a place, {animal}",
    source="practice",
)
def place_wanted_cm(place_shells: float, length_then_cm: tuple[float, ...], animal: tuple[Species, ...]) -> float:
    lengths = [length for length, kind in zip(length_then_cm, animal, strict=True) if kind.needs_land in PLACES]
    if not lengths:
        raise NamedCase("not_needed")
    return place_shells * max(lengths)


@figure(
    "Room over the dry place",
    formula="{land_kind}: {land_cover_cm} in a box, else {inside_height_cm} − {water_height_cm} − {land_above_cm}",
    source="definition",
)
def head_room_cm(
    land_kind: str, land_cover_cm: float, inside_height_cm: float, water_height_cm: float, land_above_cm: float
) -> float:
    if land_kind == UNKNOWN:
        raise NamedCase("land_untold")
    if land_kind == "none":
        raise NamedCase("no_land")
    return land_cover_cm if land_kind == "box" else inside_height_cm - water_height_cm - land_above_cm


@figure(
    "Bare wall over the highest foothold",
    formula="{inside_height_cm} − {water_height_cm} − the higher of {foothold_cm} and {land_above_cm} ({land_kind}: not of a box)",
    source="definition",
)
def bare_wall_cm(
    inside_height_cm: float,
    water_height_cm: float,
    foothold_cm: float | None,
    land_kind: str,
    land_above_cm: float,
) -> float:
    place_cm = land_above_cm if land_kind in ("platform", "bank") else 0.0
    return inside_height_cm - water_height_cm - max(foothold_cm or 0.0, place_cm)


@figure(
    "Room they live in",
    formula="{real_volume_l}; {full_volume_l} × {tank_count} where all of {animal} live on land as much as in water",
    source="definition",
)
def lived_in_l(real_volume_l: float, full_volume_l: float, tank_count: int, animal: tuple[Species, ...]) -> float:
    ashore = bool(animal) and all(kind.needs_land in ("third", "half") for kind in animal)
    return full_volume_l * tank_count if ashore else real_volume_l


def graded(value: float, wanted: float, least: float) -> State:
    """Holds from what is wanted on, tight down to the least, short below it."""
    if value >= wanted * (1 - 1e-9):
        return "holds"
    return "tight" if value >= least * (1 - 1e-9) else "short"


@step()
def land_findings(
    animal: tuple[Species, ...],
    number: tuple[int, ...],
    length_then_cm: tuple[float, ...],
    land_kind: str,
    land_count: int,
    land_length_cm: float,
    land_width_cm: float,
    land_ramp: bool,
    land_frac: float | None,
    land_m2: float | None,
    head_room_cm: float | None,
    place_shells: float,
    land_island_frac: float,
    land_third_frac: float,
    land_half_frac: float,
) -> tuple[Finding, ...]:
    """What every kind that needs land finds of it: its size, the way up, the room over it."""
    rows = [row for row in zip(animal, number, length_then_cm, strict=True) if row[0].needs_land != "none"]
    if land_kind in (UNKNOWN, "none"):
        state: State = "measure" if land_kind == UNKNOWN else "short"
        text = "there is no dry place: it can not rest, warm itself or dry out of the water"
        return tuple(Finding((kind.common,), "land", state, say(text)) for kind, _, _ in rows)
    found: list[Finding] = []

    def note(who: str, what: str, state: State, text: str, **terms: Term) -> None:
        if state != "holds":
            found.append(Finding((who,), what, state, say(text, **terms)))

    wanted_of = {"island": land_island_frac, "third": land_third_frac, "half": land_half_frac}
    lying = [(count, place_shells * length) for kind, count, length in rows if kind.needs_land in PLACES]
    lying_m2 = sum(count * place**2 for count, place in lying) / 1e4
    short_side = min(land_length_cm, land_width_cm)
    frac, area_m2, over_cm = land_frac or 0.0, land_m2 or 0.0, head_room_cm or 0.0
    for kind, _, length in rows:
        who = kind.common
        if kind.needs_land in wanted_of:
            wanted = wanted_of[kind.needs_land]
            text = "{frac} of the floor is land; {wanted} is wanted"
            state = graded(frac, wanted, LEAST_OF_WANTED * wanted)
            note(who, "land", state, text, frac=Term(frac, "share", "land_frac"), wanted=Term(wanted, "share"))
        else:
            place = place_shells * length
            text = "the dry place is {side} at its narrow side; {place} each way are one and a half of its length"
            state = graded(short_side, place, LIES_SHELLS * length)
            note(who, "land", state, text, side=Term(short_side, "length"), place=Term(place, "length"))
            if state == "holds" and area_m2 * (1 + 1e-9) < lying_m2:
                text = "{area} of land for places of {wanted}: each lies on one of its own, or the strongest keeps the rest off"
                note(
                    who, "land", "tight", text, area=Term(area_m2, "area", "land_m2"), wanted=Term(lying_m2, "area")
                )
        if land_kind != "bank" and not land_ramp:
            note(who, "way up", "short", "nothing leads from the water up to the dry place")
        text = "{room} over the dry place to lid or rim; {wanted} lets it stand up and lie under the lamp"
        state = graded(over_cm, place_shells * length, LIES_SHELLS * length)
        terms = {"room": Term(over_cm, "length", "head_room_cm"), "wanted": Term(place_shells * length, "length")}
        note(who, "room over it", state, text, **terms)
    return tuple(found)


@check(
    "Land for those who leave the water",
    stage="tank",
    mends=("land.land_length_cm", "land.land_width_cm", "land.land_above_cm"),
    caution="A place that tips or slides pins an animal under water: fasten it, and try it with your hand.",
)
def land_suits(land_findings: tuple[Finding, ...], landgoers: tuple[str, ...], land_kind: str) -> Verdict:
    if not landgoers:
        raise NamedCase("not_needed")
    verdict = verdict_over(
        list(land_findings), "It is large enough, can be climbed, and leaves room over their heads."
    )
    if land_kind != UNKNOWN:
        return verdict
    reason = say("{who}: " + LAND_UNTOLD.how, who=", ".join(landgoers))
    return Verdict("measure", 0.0, say(LAND_UNTOLD.headline), reason, asks=("land.land_kind",))
