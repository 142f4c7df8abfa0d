"""The ammonia level at which the filter keeps up, and whether it may stand there."""

from collections.abc import Callable
from dataclasses import dataclass

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_most
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.model.inputs.told import read_on
from loquen.core.physics import chemistry, nitrogen
from loquen.core.system.filter.media import Beds
from loquen.core.system.roots import root

MOST_AMMONIA_MG_L = 50.0
PH_APART = 0.2
"""What a drop kit can not tell apart is not told."""


@dataclass(frozen=True, slots=True)
class Nitrifiers:
    """How fast the film on media and surfaces turns ammonia over in this water."""

    rate_g_m2_d: float
    half_mg_l: float
    warmth: float

    @property
    def label(self) -> str:
        return f"{self.rate_g_m2_d:.2g} g/m²/d at 25 °C in plenty, half at {self.half_mg_l:.2g} mg/L N"

    def most_mg_d(self, area_m2: float, water_c: float) -> float:
        """What an area takes when ammonia does not limit it."""
        return float(nitrogen.full_rate_g_m2_d(water_c, self.rate_g_m2_d, self.warmth)) * area_m2 * 1000

    def taken_mg_d(self, level_mg_l: float, area_m2: float, water_c: float) -> float:
        """What an area takes that the water of a level passes freely."""
        rate = nitrogen.nitrification_rate_g_m2_d(
            level_mg_l, water_c, self.half_mg_l, self.rate_g_m2_d, self.warmth
        )
        return float(rate) * area_m2 * 1000

    def removal(self, beds: Beds, water_c: float) -> Callable[[float], float]:
        """What media beds, each by its flow, and open surfaces take together (mg/d), by the level (mg/L)."""
        kinetics = (water_c, self.half_mg_l, self.rate_g_m2_d, self.warmth)
        # Bed by bed in plain floats: an array of two costs more than two numbers.
        driven = [
            nitrogen.removal_of_bed(float(flow), float(area), *kinetics)
            for flow, area in zip(beds.flows_lph, beds.areas_m2, strict=True)
            if area > 0
        ]
        open_mg_d = self.most_mg_d(beds.surfaces_m2, water_c)
        half = self.half_mg_l
        return lambda level: open_mg_d * level / (half + level) + sum(bed(level) for bed in driven)

    def removed_mg_d(self, level_mg_l: float, beds: Beds, water_c: float) -> float:
        """What media beds and open surfaces take together at a level."""
        return float(self.removal(beds, water_c)(level_mg_l))

    def level_mg_l(self, load_mg_d: float, beds: Beds, water_c: float) -> float:
        """The level at which they keep up with a load; raise NamedCase "media_can_not_carry" where none does."""

        if load_mg_d == 0:
            return 0.0
        removed, most = self.removal(beds, water_c), self.most_mg_d(beds.driven_m2, water_c)
        if load_mg_d >= most or removed(MOST_AMMONIA_MG_L) < load_mg_d:
            raise NamedCase("media_can_not_carry", load=load_mg_d, most=most)
        return root(lambda level: removed(level) - load_mg_d, 0.0, MOST_AMMONIA_MG_L)


@figure(
    "Part of nitrification that acid leaves",
    formula="1 ÷ (1 + 10^({nitrify_acid_slope} × ({nitrify_half_ph} − {tank_ph})))",
    source="nitrify_acid",
)
def acid_left_frac(nitrify_acid_slope: float, nitrify_half_ph: float, tank_ph: float) -> float:
    return float(nitrogen.acid_frac(tank_ph, nitrify_half_ph, nitrify_acid_slope))


@step()
def nitrifiers(
    nitrify_rate_g_m2_d: float, nitrify_half_mg_l: float, nitrify_warmth: float, acid_left_frac: float
) -> Nitrifiers:
    return Nitrifiers(nitrify_rate_g_m2_d * acid_left_frac, nitrify_half_mg_l, nitrify_warmth)


@dataclass(frozen=True, slots=True)
class End:
    """An end of the year: how warm the water is, what is made then, and what ammonia the animals may live in."""

    water_c: float
    load_mg_d: float
    allowed_mg_l: float

    @property
    def label(self) -> str:
        return f"{self.water_c:.1f} °C, {self.load_mg_d:.0f} mg/d"


@step()
def ends(
    coldest_c: float,
    hottest_c: float,
    water_c: float,
    load_fed_day_mg_d: float,
    feed_q10: float,
    reckoned_ph: float,
    tank_salinity_ppt: float,
    ammonia_limit_mg_l: float,
    unionised_limit_mg_l: float,
) -> tuple[End, End]:
    """The coldest and the hottest of the year, on a day with food. In the cold they eat less; in a heat wave nobody
    feeds more."""

    def end(temp_c: float) -> End:
        free = float(chemistry.ammonia_fraction(reckoned_ph, temp_c, tank_salinity_ppt))
        load = load_fed_day_mg_d * feed_q10 ** (min(0.0, temp_c - water_c) / 10)
        return End(temp_c, load, min(ammonia_limit_mg_l, unionised_limit_mg_l / free))

    return end(coldest_c), end(hottest_c)


def spare_mg_d(end: End, nitrifiers: Nitrifiers, beds: Beds) -> float:
    """What could be made more at an end of the year before ammonia passes what they may live in."""
    return nitrifiers.removed_mg_d(end.allowed_mg_l, beds, end.water_c) - end.load_mg_d


@step()
def worst_end(ends: tuple[End, End], nitrifiers: Nitrifiers, beds: Beds, system_mature_frac: float) -> End:
    """The end of the year at which the media have least to spare today, for what is made then."""
    today = beds.at(system_mature_frac)
    return min(ends, key=lambda end: spare_mg_d(end, nitrifiers, today) / max(end.load_mg_d, 1e-9))


@figure("Temperature that ammonia is judged at", formula="the worse of {ends}: {worst_end}", source="balance")
def judged_c(ends: tuple[End, End], worst_end: End) -> float:
    return worst_end.water_c


@figure("Waste nitrogen then", formula="of {worst_end}", source="timmons")
def judged_load_mg_d(worst_end: End) -> float:
    return worst_end.load_mg_d


@figure(
    "Most the media can turn over",
    formula="rate × warmth^({judged_c} − 25) of {nitrifiers} × area of {beds}, {system_mature_frac} mature × 1000",
    source="monod",
)
def capacity_mg_d(nitrifiers: Nitrifiers, judged_c: float, beds: Beds, system_mature_frac: float) -> float:
    return nitrifiers.most_mg_d(beds.at(system_mature_frac).driven_m2, judged_c)


SETTLING = (
    "level N at which Σ 24·Q·N·(1 − e^(−1000·k·A ÷ 24·Q)) over {beds}, {mature}, "
    "takes {judged_load_mg_d} at {judged_c}: {nitrifiers}"
)


@figure(
    "Ammonia at full load",
    formula=SETTLING.replace("{mature}", "{system_mature_frac} mature"),
    source="monod",
)
def settled_ammonia_mg_l(
    judged_load_mg_d: float, nitrifiers: Nitrifiers, beds: Beds, system_mature_frac: float, judged_c: float
) -> float:
    return nitrifiers.level_mg_l(judged_load_mg_d, beds.at(system_mature_frac), judged_c)


@figure("Ammonia at full load, once mature", formula=SETTLING.replace("{mature}", "all mature"), source="monod")
def mature_ammonia_mg_l(judged_load_mg_d: float, nitrifiers: Nitrifiers, beds: Beds, judged_c: float) -> float:
    return nitrifiers.level_mg_l(judged_load_mg_d, beds.at(1.0), judged_c)


@figure(
    "Maturity that this load needs",
    formula="least share of {beds} at which what is made at {ends} stays under what they may live in: {nitrifiers}",
    source="monod",
)
def needed_mature_frac(ends: tuple[End, End], nitrifiers: Nitrifiers, beds: Beds) -> float:
    def spare(mature_frac: float) -> float:
        today = beds.at(mature_frac)
        return min(spare_mg_d(end, nitrifiers, today) for end in ends)

    if spare(0.0) >= 0:
        return 0.0
    if spare(1.0) < 0:
        most = min(nitrifiers.removed_mg_d(end.allowed_mg_l, beds.at(1.0), end.water_c) for end in ends)
        raise NamedCase("never_mature_enough", load=max(end.load_mg_d for end in ends), most=most)
    return root(spare, 0.0, 1.0)


@figure(
    "Days until it carries this load",
    formula="(the larger of ({needed_mature_frac} − {seeded_frac}) ÷ (1 − {seeded_frac}) × {mature_weeks} and "
    "{cycle_least_weeks} × (1 − {seeded_frac} ÷ {needed_mature_frac}), − {age_weeks}) × 7 × "
    "{nitrify_warmth}^(25 − {water_c}); today {system_mature_frac}",
    source="practice",
    kind="days",
)
def mature_in_d(
    needed_mature_frac: float,
    system_mature_frac: float,
    seeded_frac: float,
    mature_weeks: float,
    cycle_least_weeks: float,
    age_weeks: float | None,
    nitrify_warmth: float,
    water_c: float,
) -> float:
    if needed_mature_frac <= 0:
        raise NamedCase("mature_enough")
    # A small load needs little film, but both kinds of nitrifiers have to come first.
    settling = cycle_least_weeks * max(0.0, 1 - seeded_frac / needed_mature_frac)
    growing = max(0.0, needed_mature_frac - seeded_frac) / max(1e-9, 1 - seeded_frac) * mature_weeks
    weeks = max(growing, settling) - (age_weeks or 0.0)
    if weeks <= 0:
        raise NamedCase("mature_enough")
    return float(weeks * 7 * nitrify_warmth ** (25 - water_c))


@figure(
    "Highest pH it could come to",
    formula="the higher of {tank_ph} and the aerated pH of {highest_kh_dkh} at {water_c}, air at {room_co2_ppm}",
    source="plummer1982",
    kind="ph",
)
def highest_ph(tank_ph: float, highest_kh_dkh: float, water_c: float, room_co2_ppm: float) -> float:
    return max(tank_ph, chemistry.aerated_ph(max(highest_kh_dkh, 0.02), water_c, room_co2_ppm))


@figure(
    "pH that ammonia is judged at",
    formula="{tank_ph} where it was read on a day ({told_on}), else {highest_ph}",
    source="balance",
    kind="ph",
)
def reckoned_ph(tank_ph: float, highest_ph: float, told_on: tuple[str, ...]) -> float:
    return tank_ph if read_on("water.tank_ph", told_on) else highest_ph


@figure(
    "Poisonous share of ammonia",
    formula="1 ÷ (1 + 10^(pKa − {reckoned_ph})) at {judged_c}, {tank_salinity_ppt}",
    source="emerson1975",
)
def unionised_frac(reckoned_ph: float, judged_c: float, tank_salinity_ppt: float) -> float:
    return float(chemistry.ammonia_fraction(reckoned_ph, judged_c, tank_salinity_ppt))


@figure(
    "Un-ionised ammonia at full load",
    formula="{settled_ammonia_mg_l} × {unionised_frac}",
    source="emerson1975",
)
def settled_unionised_mg_l(settled_ammonia_mg_l: float, unionised_frac: float) -> float:
    return settled_ammonia_mg_l * unionised_frac


@figure(
    "Ammonia they may live in",
    formula="the lower of {ammonia_limit_mg_l} and {unionised_limit_mg_l} ÷ {unionised_frac}",
    source="practice",
)
def allowed_ammonia_mg_l(ammonia_limit_mg_l: float, unionised_limit_mg_l: float, unionised_frac: float) -> float:
    return min(ammonia_limit_mg_l, unionised_limit_mg_l / unionised_frac)


@figure(
    "Waste the media take at that level, once mature",
    formula="least of what {beds} take at both {ends}, as of {load_full_mg_d}: {nitrifiers}",
    source="monod",
)
def media_allow_mg_d(ends: tuple[End, End], nitrifiers: Nitrifiers, beds: Beds, load_full_mg_d: float) -> float:
    def taken(end: End) -> float:
        part = end.load_mg_d / load_full_mg_d if load_full_mg_d > 0 else 1.0
        return nitrifiers.removed_mg_d(end.allowed_mg_l, beds.at(1.0), end.water_c) / part

    return min(map(taken, ends))


@check(
    "The media carry the waste",
    stage="filter",
    glass="waste",
    judges="settled_ammonia_mg_l",
    mends=("filters.*.media_l", "filters.*.rated_lph", "animals.*.number"),
    caution="A filter matures over weeks. Test ammonia and nitrite before the animals depend on it.",
)
def media_carry(
    settled_ammonia_mg_l: float | None,
    mature_ammonia_mg_l: float | None,
    allowed_ammonia_mg_l: float,
    unionised_frac: float,
    reckoned_ph: float,
    highest_ph: float,
    tank_salinity_ppt: float,
    judged_c: float,
    judged_load_mg_d: float,
    capacity_mg_d: float,
    system_mature_frac: float,
    mature_in_d: float | None,
    stocked: str,
    begun_by: str,
    stands: str,
    animal_count: float,
) -> Verdict:
    if animal_count == 0:
        raise NamedCase("no_animals")
    terms = {
        "ph": Term(reckoned_ph, "ph", "reckoned_ph"),
        "temp": Term(judged_c, "temperature", "judged_c"),
        "limit": of(allowed_ammonia_mg_l, "allowed_ammonia_mg_l"),
    }
    if mature_in_d is not None:
        return maturing(
            settled_ammonia_mg_l,
            mature_ammonia_mg_l,
            allowed_ammonia_mg_l,
            system_mature_frac,
            mature_in_d,
            "planned" if stands == "planned" else stocked,
            forecast=begun_by != "running" and stands != "planned",
        )
    if settled_ammonia_mg_l is None:
        raise NamedCase("media_can_not_carry", load=judged_load_mg_d, most=capacity_mg_d)
    text = (
        "At full load ammonia settles at {level}, {free} of it free at pH {ph} and {temp}, the worse end of the year. "
        "They may live in {limit}."
    )
    if highest_ph > reckoned_ph + PH_APART:
        could = settled_ammonia_mg_l * float(chemistry.ammonia_fraction(highest_ph, judged_c, tank_salinity_ppt))
        text += (
            " That is at the pH you read. It could become {highest}, with {could} free, when carbon dioxide leaves: "
            "after a large change, with more air, plants by day."
        )
        terms |= {"highest": of(highest_ph, "highest_ph", "ph"), "could": Term(could, "unionised")}
    reason = say(
        text,
        level=of(settled_ammonia_mg_l, "settled_ammonia_mg_l"),
        free=of(settled_ammonia_mg_l * unionised_frac, "settled_unionised_mg_l"),
        **terms,
    )
    # Half the limit is the level called fine, so tight begins there.
    return at_most(settled_ammonia_mg_l, allowed_ammonia_mg_l, "ammonia", reason, scale=5 * allowed_ammonia_mg_l)


def maturing(
    today_mg_l: float | None,
    mature_mg_l: float | None,
    allowed_mg_l: float,
    mature_frac: float,
    days: float,
    stocked: str,
    forecast: bool,
) -> Verdict:
    """What is said of media that will carry the waste, and do not yet; when is the forecast's to say where there is one."""
    terms: dict[str, Term] = {
        "mature": of(mature_frac, "system_mature_frac", "share"),
        "limit": of(allowed_mg_l, "allowed_ammonia_mg_l"),
        "days": Term(days, "days", "mature_in_d"),
    }
    now = "they can not carry this load at any level"
    if today_mg_l is not None:
        now, terms["level"] = "ammonia would settle at {level}", of(today_mg_l, "settled_ammonia_mg_l")
    later = ""
    if mature_mg_l is not None:
        later, terms["later"] = ", once mature at {later}", of(mature_mg_l, "mature_ammonia_mg_l")
    text = "Its surfaces are {mature} mature today: " + now + later + ". They may live in {limit}. "
    if stocked == "planned":
        text += "It is planned: once it is set up its cycle begins, about {days}; then they go in."
        return Verdict("tight", 0.0, say("holds once cycled"), say(text, **terms))
    if stocked == "cycled":
        text += (
            "Cycle says when; then they go in." if forecast else "Cycle it first, about {days}; then they go in."
        )
        headline = say("holds once cycled") if forecast else say("holds in {days}", days=terms["days"])
        return Verdict("tight", 0.0, headline, say(text, **terms))
    if forecast:
        text += "Cycle says when they carry it, and what to do until then."
    else:
        text += "It takes about {days} more to carry them: seed it, or take them out until it is cycled."
    margin = allowed_mg_l - (today_mg_l if today_mg_l is not None else MOST_AMMONIA_MG_L)
    headline = say("short until cycled") if forecast else say("short for {days} more", days=terms["days"])
    return Verdict("short", margin, headline, say(text, **terms))


@step()
def filter_result(
    rated_total_lph: float,
    total_flow_lph: float,
    turnover_per_h: float,
    media_allow_mg_d: float,
    load_full_mg_d: float,
) -> Sentence:
    moved = "Rated for {rated} together, filters and return really move {flow}: {turns}. "
    if rated_total_lph == 0:
        moved = "The return alone moves {flow}: {turns}. "
    return say(
        moved + "The media take {allowed} at a safe ammonia level; these animals make {load}.",
        rated=of(rated_total_lph, "rated_total_lph"),
        flow=of(total_flow_lph, "total_flow_lph"),
        turns=of(turnover_per_h, "turnover_per_h"),
        allowed=of(media_allow_mg_d, "media_allow_mg_d"),
        load=of(load_full_mg_d, "load_full_mg_d"),
    )
