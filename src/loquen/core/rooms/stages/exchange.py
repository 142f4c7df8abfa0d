"""What the changer does to each tank's water, and what is left to a hose."""

from dataclasses import dataclass
from datetime import date

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, at_most, by_practice
from loquen.core.graph.nodes import State, Verdict, check, figure, step
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.physics.chemistry import contact_min
from loquen.core.physics.dilution import settled_cycle
from loquen.core.rooms.stages.plumbing import ZoneFlow
from loquen.core.rooms.stages.racks import Tank
from loquen.core.rooms.stages.reservoir import Waters
from loquen.core.rooms.supply import cartridge_change_date
from loquen.core.rooms.zones import exchanged_frac
from loquen.core.system.changes.regime import gaps_of

LEAST_FRAC = 1e-3
FRESH_PPT = 0.3
HOSE_L_MIN = 8.0
USUAL_SOLIDS_FRAC = 0.25
"""Step in dissolved solids that ordinary animals bear at once."""


@dataclass(frozen=True, slots=True)
class Exchanged:
    """A tank on the changer. Shares are of its water; nitrate is mg/L of N just before a run, once settled."""

    tank: int
    name: str
    zone: int
    fed_from: str
    lph: float
    kpa: float | None
    litres_d: float
    passed_frac: float
    exchanged_frac: float
    drained_frac: float
    week_frac: float
    nitrate: float | None
    limit: float | None
    kh_dkh: float | None
    state: State

    @property
    def label(self) -> str:
        return self.name


@step()
def exchanged(
    zone_flows: tuple[ZoneFlow, ...],
    tanks: tuple[Tank, ...],
    run_days: tuple[str, ...],
    fed_waters: Waters,
    place_nitrate_mg_l_d: tuple[float | None, ...],
    place_limit_nitrate_mg_l: tuple[float | None, ...],
) -> tuple[Exchanged, ...]:
    """Every tank on a zone: its day, its week, and where nitrate and KH settle under its own load."""
    gaps = gaps_of(run_days)
    found = []
    for row in zone_flows:
        water = fed_waters.of(row.fed_from)
        for flow in row.tanks:
            tank = tanks[flow.tank]
            line = tank.line
            frac = exchanged_frac(ratios=[flow.ratio])
            own, limit = place_nitrate_mg_l_d[tank.number], place_limit_nitrate_mg_l[tank.number]
            rise = own if own is not None else (line.rise_nitrate_mg_l_d if line else None)
            most = limit if limit is not None else (line.limit_nitrate_mg_l if line else None)
            nitrate = settled(rise, water.nitrate_mg_l, gaps, frac)
            used = line.used_dkh_d if line else None
            spent = settled(used, 0.0, gaps, frac)
            litres = flow.lph * row.minutes / 60
            found.append(
                Exchanged(
                    tank=tank.number,
                    name=tank.name,
                    zone=row.number,
                    fed_from=row.fed_from,
                    lph=flow.lph,
                    kpa=flow.kpa,
                    litres_d=litres,
                    passed_frac=litres / tank.litres,
                    exchanged_frac=frac,
                    drained_frac=min(1.0, litres / tank.litres),
                    week_frac=exchanged_frac(ratios=[flow.ratio] * len(gaps)),
                    nitrate=nitrate,
                    limit=most,
                    kh_dkh=None if spent is None else max(0.0, water.kh_dkh - spent),
                    state=state_of(nitrate, most, rise, frac),
                )
            )
    return tuple(found)


def settled(rise: float | None, source: float, gaps: tuple[float, ...], frac: float) -> float | None:
    """The settled peak under a rise a day; None where there is no rise known, or nothing is exchanged."""
    if rise is None or frac < LEAST_FRAC:
        return None
    return max(settled_cycle(rise, source, gaps, (frac,) * len(gaps))[0])


def state_of(nitrate: float | None, limit: float | None, rise: float | None, frac: float) -> State:
    if rise is not None and rise > 0 and frac < LEAST_FRAC:
        return "short"
    if nitrate is None or limit is None:
        return "unknown"
    if nitrate > limit * 1.1:
        return "short"
    return "tight" if nitrate > limit * 0.9 else "holds"


@figure("Highest nitrate of all", formula="most of {exchanged}", source="balance")
def worst_nitrate_mg_l(exchanged: tuple[Exchanged, ...]) -> float:
    return worst_of(exchanged).nitrate or 0.0


def worst_of(exchanged: tuple[Exchanged, ...]) -> Exchanged:
    """The tank that is farthest over, or nearest to, its own limit."""
    known = [row for row in exchanged if row.nitrate is not None and row.limit]
    if not known:
        raise NamedCase("no_loads")
    return max(known, key=lambda row: (row.nitrate or 0.0) / (row.limit or 1.0))


@check(
    "Nitrate settles under each limit",
    stage="tanks",
    judges="worst_nitrate_mg_l",
    glass="nitrate",
)
def room_nitrate_held(exchanged: tuple[Exchanged, ...]) -> Verdict:
    row = worst_of(exchanged)
    over = [r for r in exchanged if r.state == "short"]
    limit = row.limit or 0.0
    reason = say(
        "{tank} settles at {level} just before a run, its limit is {limit}; {share} of it is exchanged in a run. {others}",
        tank=row.name,
        level=Term(row.nitrate or 0.0, "nitrate"),
        limit=Term(limit, "nitrate"),
        share=Term(row.exchanged_frac, "share"),
        others=f"{len(over)} of {len(exchanged)} pass their limit."
        if over
        else "All others lie lower against theirs.",
    )
    return by_practice(at_most(row.nitrate or 0.0, limit, "nitrate", reason), limit)


@check("No salt is washed out", stage="tanks", judges="")
def salt_stays(zone_flows: tuple[ZoneFlow, ...], tanks: tuple[Tank, ...]) -> Verdict:
    salty = [
        tanks[flow.tank]
        for row in zone_flows
        for flow in row.tanks
        if (line := tanks[flow.tank].line) and line.salinity_ppt > FRESH_PPT
    ]
    if not salty:
        raise NamedCase("not_needed")
    reason = say(
        "{tank} is kept at {salt}: a changer of fresh water washes it out within days. Leave it to the hose, with salt in the "
        "change water.",
        tank=salty[0].name,
        salt=Term(salty[0].line.salinity_ppt if salty[0].line else 0.0, "salinity"),
    )
    return Verdict("short", -1.0, say("washed out"), reason)


@check("The water is near their warmth", stage="tanks", judges="", mends=("store.mixed_c", "reservoir.reservoir_c"))
def mix_near(
    exchanged: tuple[Exchanged, ...], tanks: tuple[Tank, ...], fed_waters: Waters, mix_apart_k: float
) -> Verdict:
    apart = [
        (abs(fed_waters.of(row.fed_from).temp_c - kept), kept, row.name, fed_waters.of(row.fed_from).temp_c)
        for row in exchanged
        if (kept := tanks[row.tank].kept_c) is not None
    ]
    if not apart:
        raise NamedCase("no_animals")
    far, kept, name, fed_c = max(apart)
    reason = say(
        "{tank} is kept at {kept} and gets {mix}; each run is a step, and its heater makes up the rest.",
        tank=name,
        kept=Term(kept, "temperature"),
        mix=Term(fed_c, "temperature"),
    )
    verdict = at_most(far, mix_apart_k, "temperature_difference", reason)
    return by_practice(verdict, mix_apart_k, 100.0)


@dataclass(frozen=True, slots=True)
class Strange:
    """How far a tank's dissolved solids are from the changer's water, as a share, and what one day moves of it."""

    name: str
    fed_from: str
    us_cm: float
    brought_us_cm: float
    apart_frac: float
    day_frac: float
    borne_frac: float


@step()
def strangest(exchanged: tuple[Exchanged, ...], tanks: tuple[Tank, ...], fed_waters: Waters) -> Strange:
    """The tank on a zone whose own water is farthest from what the changer brings."""
    found = []
    for row in exchanged:
        line = tanks[row.tank].line
        if line and line.us_cm and line.salinity_ppt <= FRESH_PPT:
            brought = fed_waters.of(row.fed_from).us_cm
            apart = abs(brought - line.us_cm) / line.us_cm
            borne = line.borne_solids_frac or USUAL_SOLIDS_FRAC
            found.append(
                Strange(row.name, row.fed_from, line.us_cm, brought, apart, apart * row.exchanged_frac, borne)
            )
    if not found:
        raise NamedCase("no_animals")
    return max(found, key=lambda s: s.apart_frac)


@figure(
    "Farthest from the changer's water",
    formula="|what is brought − its own| ÷ its own, of {strangest}",
    source="balance",
    kind="share",
)
def strange_frac(strangest: Strange) -> float:
    return strangest.apart_frac


@check("It is their water", stage="tanks", judges="strange_frac")
def their_water(strangest: Strange, strange_frac: float, made_water_frac: float) -> Verdict:
    terms: dict[str, Term | str] = {
        "tank": strangest.name,
        "own": Term(strangest.us_cm, "conductivity"),
        "brought": Term(strangest.brought_us_cm, "conductivity"),
        "day": Term(strangest.day_frac, "share"),
        "borne": Term(strangest.borne_frac, "share"),
    }
    text = "{tank} is planned at {own} and the changer brings {brought}: a day moves it by {day}, {borne} at once is borne."
    if strange_frac > made_water_frac and strangest.fed_from == "reservoir":
        text += " Make the reservoir's water for it: its purified share, and the salts that are added."
    elif strange_frac > made_water_frac:
        text += " Its water is made for it, and the changer would undo that: leave it to the hose, or feed its zone from a reservoir of such water."
    reason = say(text, **terms)
    verdict = at_most(strange_frac, made_water_frac, "share", reason)
    if strangest.day_frac > strangest.borne_frac and verdict.state != "short":
        return Verdict(
            "tight",
            strangest.borne_frac - strangest.day_frac,
            say("{day} a day", day=terms["day"]),
            reason,
            verdict.gauge,
        )
    return verdict


SAID = {"unknown": "chloramine, as long as nobody has asked,"}
"""How a disinfectant is called that nobody told: as what it is reckoned."""


@figure("Contact in the carbon", formula="{carbon_l} ÷ {cartridges_lph} × 60", source="definition")
def room_contact_min(carbon_l: float, cartridges_lph: float, supply_disinfectant: str) -> float:
    if supply_disinfectant == "none":
        raise NamedCase("not_needed")
    return float(contact_min(carbon_l, cartridges_lph))


@figure(
    "Contact that it needs",
    formula="{carbon_chlorine_min} for chlorine, {carbon_catalytic_min} on catalytic carbon for chloramine ({supply_disinfectant})",
    source="practice",
)
def needed_contact_min(supply_disinfectant: str, carbon_chlorine_min: float, carbon_catalytic_min: float) -> float:
    if supply_disinfectant == "none":
        raise NamedCase("not_needed")
    return carbon_chlorine_min if supply_disinfectant == "chlorine" else carbon_catalytic_min


@check(
    "Carbon has time enough",
    stage="tanks",
    judges="room_contact_min",
    glass="carbon",
    mends=("treatment.carbon_l",),
    caution="Test behind the carbon at each start for the first week and at each change of cartridge: a room is lost in one run.",
)
def room_carbon_enough(
    room_contact_min: float,
    needed_contact_min: float,
    supply_disinfectant: str,
    carbon_l: float,
    cartridges_lph: float,
) -> Verdict:
    needed_l = needed_contact_min * cartridges_lph / 60
    reason = say(
        "At {flow} water spends {time} in {carbon} of carbon; {what} wants {needed}, that is {bed}. House cartridges are made "
        "for a tap.",
        flow=of(cartridges_lph, "cartridges_lph"),
        time=of(room_contact_min, "room_contact_min"),
        carbon=Term(carbon_l, "volume"),
        what=SAID.get(supply_disinfectant, supply_disinfectant),
        needed=of(needed_contact_min, "needed_contact_min"),
        bed=Term(needed_l, "volume"),
    )
    return at_least(room_contact_min, needed_contact_min, "contact", reason)


@figure(
    "Through the cartridges a week",
    formula="{changer_l_d} × number of {run_days}",
    source="balance",
    kind="volume_per_week",
)
def through_l_wk(changer_l_d: float, run_days: tuple[str, ...]) -> float:
    return changer_l_d * len(set(run_days))


WEEK = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")


@step()
def cartridges_due(
    cartridge_on: str, cartridge_l: float, cartridge_d: float, changer_l_d: float, run_days: tuple[str, ...]
) -> str:
    """The day before whose run the cartridges are changed, as YYYY-MM-DD."""
    if not cartridge_on:
        raise NamedCase("no_fitting_date")
    litres = [changer_l_d if day in run_days else 0.0 for day in WEEK]
    due = cartridge_change_date(
        start=date.fromisoformat(cartridge_on),
        capacity_l=cartridge_l,
        litres_by_weekday=litres,
        calendar_d=cartridge_d,
    )
    return due.isoformat() if due else ""


@dataclass(frozen=True, slots=True)
class Walked:
    """A tank that is changed by hand, in the order of the walk: litres a week, minutes with the hose."""

    tank: int
    name: str
    rack: str
    litres_wk: float
    minutes_wk: float


def hose_l_wk(tank: Tank) -> float:
    """What a hose pours into a tank in a week: by its own plan, a third of it where it has none."""
    planned = tank.line.change_l_wk if tank.line else None
    return planned if planned is not None else tank.litres / 3


@step()
def hand_round(by_hand: tuple[Tank, ...]) -> tuple[Walked, ...]:
    """The walk with the hose: rack by rack, the top shelf first, from left to right."""
    found = []
    for tank in sorted(by_hand, key=lambda t: (t.rack or 99, -t.shelf, t.slot)):
        line = tank.line
        litres = hose_l_wk(tank)
        work = line.work_min_wk if line and line.work_min_wk is not None else litres / HOSE_L_MIN
        found.append(Walked(tank.number, tank.name, str(tank.rack), litres, work))
    return tuple(found)


@figure("Hose minutes a week", formula="sum over {hand_round}", source="practice")
def hand_min(hand_round: tuple[Walked, ...]) -> float:
    return sum(row.minutes_wk for row in hand_round)


@figure("Hose litres a week", formula="sum over {hand_round}", source="balance")
def hand_l_wk(hand_round: tuple[Walked, ...]) -> float:
    return sum(row.litres_wk for row in hand_round)


@step()
def tanks_result(exchanged: tuple[Exchanged, ...], hand_l_wk: float, hand_min: float) -> Sentence:
    least = min(exchanged, key=lambda row: row.exchanged_frac)
    most = max(exchanged, key=lambda row: row.exchanged_frac)
    return say(
        "A day's run exchanges {least} of {poor} to {most} of {rich}; {hand} and {minutes} a week are left to the hose.",
        least=Term(least.exchanged_frac, "share"),
        poor=least.name,
        most=Term(most.exchanged_frac, "share"),
        rich=most.name,
        hand=of(hand_l_wk, "hand_l_wk"),
        minutes=of(hand_min, "hand_min"),
    )
