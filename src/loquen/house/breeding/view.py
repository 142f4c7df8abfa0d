"""From ventures, plans and the register to what the breeding pages show."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import date, timedelta

import numpy as np
from sqlmodel import Session

from loquen.checked.documents import A_VENTURE
from loquen.checked.stored import or_none
from loquen.core.data.tables import constant
from loquen.core.graph.asking import number, spreads
from loquen.core.graph.sheet import Sheet
from loquen.core.growout.assign import Bounds
from loquen.core.growout.births import Seen, lines_kept, seen_of
from loquen.core.growout.book import GLASSES, NOWHERE, STAGES, Placing, at_ends, colony_of, placing, sheet_of
from loquen.core.growout.compare import MARGIN, SHOW, Compared, compared, one_ways, swings
from loquen.core.growout.dated import Run
from loquen.core.growout.fullest import fullest
from loquen.core.growout.homes import OF_YOUNG, Home, home_of, housed
from loquen.core.growout.rack import rack_plan
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.roots.consistency import conflicts
from loquen.core.model.roots.documents import Unreadable, name_of
from loquen.core.model.roots.plan import Plan
from loquen.core.model.roots.venture import NO_TANK, Venture
from loquen.core.register.lives import Life
from loquen.core.system.book import sheet_of as system_sheet
from loquen.core.system.told import where_known
from loquen.house.breeding.schema import (
    Breeding,
    CostPart,
    FreeTank,
    GrowthCurve,
    GrowthMark,
    RackAnswer,
    RackWanted,
    RunCourse,
    Side,
    TankLine,
    TankSpan,
    VentureAnswer,
    VentureName,
    YoungHoused,
)
from loquen.house.house import Visit
from loquen.house.kept import at_most
from loquen.house.register.lived import everybody
from loquen.house.register.view import readable
from loquen.house.sheet.drawing import Section, section_of
from loquen.house.sheet.judged import checks_of, figures_of, glasses_of, stages_of
from loquen.store import tables as kept_as
from loquen.store.documents import systems
from loquen.store.documents.systems import Current
from loquen.store.happened import register
from loquen.store.routine import house, quarantine

WEEK = 7
SPANS_D = 540
"""How far ahead the tanks are drawn."""
CURVE_POINTS = 60
RACK = "rack"
COSTS = ("fed_money", "poured_money", "power_money", "work_money", "renewed_money", "kept_back_money")


@dataclass(frozen=True, slots=True)
class Kept:
    """What the breeding pages are made from: plans that make sense, ventures that can be read, the register's lives."""

    visit: Visit
    plans: Mapping[int, Plan]
    ventures: Mapping[int, Venture]
    names: Mapping[int, str]
    lives: tuple[Life, ...]

    def placed(self, venture: Venture) -> Placing:
        plan = self.plans.get(venture.stand.system)
        return where_known(
            lambda: placing(venture, plan, self.visit.library, self.plans.get(venture.stand.colony_system)), NOWHERE
        )

    def seen(self, venture: Venture, today: date) -> Seen:
        home = venture.stand.colony_system or venture.stand.system
        return seen_of(self.lives, venture.colony.species, home, today)


def kept(visit: Visit, session: Session) -> Kept:
    """Everything, read once."""
    plans = {
        row.id: plan
        for row in systems.list_all(session)
        if (plan := readable(visit, row)) is not None and not conflicts(plan, visit.library)
    }
    ventures, names = {}, {}
    for row in systems.list_all(session, kept_as.VENTURE):
        names[row.id] = name_of(row.document, row.id)
        try:
            venture = visit.kept(venture_in, row)
        except Unreadable:
            continue
        # A row of one's own that was taken out leaves its venture a name.
        if venture.colony.species in visit.library.species:
            ventures[row.id] = venture
    written = everybody(register.everybody(session))
    return Kept(visit, plans, ventures, names, tuple(row.life for row in written))


@at_most(400)
def venture_in(_: Visit, row: Current) -> Venture:
    """A stored venture, read once for each text; raise Unreadable."""
    return A_VENTURE.read(row.document)


def named(kept: Kept) -> list[VentureName]:
    found = []
    for key, name in kept.names.items():
        venture = kept.ventures.get(key)
        kind = kept.visit.library.species.get(venture.colony.species) if venture else None
        found.append(
            VentureName(
                id=key,
                name=name,
                species=venture.colony.species if venture else "",
                common=kind.common if kind else "",
                purpose=venture.colony.purpose if venture else "",
                system=venture.stand.system if venture else NO_TANK,
            )
        )
    return found


def tanks_of(session: Session, kept: Kept, library: Library) -> list[TankLine]:
    """Systems that can be bred in: tubs of the quarantine are not."""
    tubs = quarantine.tubs(session)
    found = []
    for key, plan in kept.plans.items():
        home = where_known(lambda key=key, plan=plan: home_of(key, plan, library), None)  # type: ignore[misc]
        if home is not None and key not in tubs:
            found.append(TankLine(key, home.name, home.litres))
    return found


def whole_sheet(kept: Kept, venture: Venture, today: date, library: Library) -> Sheet[Venture]:
    """A venture's sheet in its place, with the births of the register."""
    return sheet_of(venture, library, kept.placed(venture), kept.seen(venture, today), today.isoformat())


def view(kept: Kept, venture: Venture, today: date, library: Library) -> VentureAnswer:
    """Everything a venture's page shows."""
    sheet = whole_sheet(kept, venture, today, library)
    sheet.all()
    low, high = at_ends(sheet, MARGIN)
    checks = sorted(checks_of(sheet, {}), key=lambda check: list(STAGES).index(check.stage))
    figures = figures_of(sheet)
    for key, (least, most) in spreads(sheet, tuple(figures)).items():
        figures[key] = replace(figures[key], low=least, high=most)
    placed: Placing = kept.placed(venture)
    breeds = kept.visit.library.breeds(venture.colony.species)
    colony_plan = kept.plans.get(venture.stand.colony_system or venture.stand.system)
    return VentureAnswer(
        figures=figures,
        checks=checks,
        glasses=glasses_of(sheet, checks, GLASSES),
        stages=stages_of(sheet, checks, STAGES),
        home=placed.home.name if placed.home else "",
        colony_home=placed.colony_home.name if placed.colony_home else "",
        section=where_known(lambda: colony_section(colony_plan, venture, library), None) if colony_plan else None,
        refused=placed.colony.against if placed.colony else (),
        wants=breeds.wants if breeds else "",
        known_broods=breeds is not None,
        buy_from_each=shared_out(number(sheet, "young_to_buy"), venture.colony.lines),
        lines=lines_kept(kept.lives, venture.colony.species, constant("effective_low_part")),
        young_housed=where_known(lambda: young_housed(sheet, kept), None),
        course=where_known(lambda: course_of(sheet, low, high, today), None),
        spans=where_known(lambda: spans_of(sheet, today), ()),
        free=where_known(lambda: free_of(sheet, today), ()),
        growth=where_known(lambda: growth_of(sheet, low, high), None),
        low_money=number(low, MARGIN),
        high_money=number(high, MARGIN),
        swings=swings(sheet),
        one_ways=one_ways(sheet),
        costs=tuple(
            CostPart(sheet.wiring.nodes[key].label, key, value)
            for key in COSTS
            if (value := number(sheet, key)) is not None
        ),
        first_sale=where_known(lambda: str(sheet.value("first_sale")), ""),
        low_first_sale=where_known(lambda: str(low.value("first_sale")), ""),
        high_first_sale=where_known(lambda: str(high.value("first_sale")), ""),
    )


def colony_section(plan: Plan, venture: Venture, library: Library) -> Section:
    """The colony in its tank, full grown."""
    return section_of(system_sheet(replace(plan, animals=colony_of(venture, library)), library))


def shared_out(young: float | None, lines: int) -> tuple[int, ...]:
    """So many young from each line, as evenly as can be."""
    if young is None:
        return ()
    each, over = divmod(round(young), lines)
    return tuple(each + (place < over) for place in range(lines))


def young_housed(sheet: Sheet[Venture], kept: Kept) -> YoungHoused | None:
    """What the tank's own sheet says of a grow-out tank at its fullest."""
    plan = kept.plans.get(sheet.root.stand.system)
    count = round(sheet.value("full_tank"))
    if plan is None or count < 1:
        return None
    told = housed(plan, fullest(sheet, count), OF_YOUNG, sheet.library)
    return YoungHoused(told.state, count, told.against)


def begins_on(sheet: Sheet[Venture], today: date) -> date:
    text = sheet.value("begins_on")
    return date.fromisoformat(text) if text else today


def course_of(sheet: Sheet[Venture], low: Sheet[Venture], high: Sheet[Venture], today: date) -> RunCourse:
    """Week by week, the money also with all that is uncertain at its bad and its good end."""
    run: Run = sheet.value("run")
    start = begins_on(sheet, today)
    weekly = slice(0, None, WEEK)

    def told(values: np.ndarray) -> tuple[float, ...]:
        return tuple(round(float(value), 2) for value in values[weekly])

    return RunCourse(
        start=start.isoformat(),
        today_d=float((today - start).days),
        days=tuple(float(day) for day in range(0, len(run.young), WEEK)),
        young=told(run.young),
        tanks=told(run.tanks),
        cash=told(run.cash),
        cash_low=told(low.value("run").cash),
        cash_high=told(high.value("run").cash),
        cash_worked=told(run.cash_worked),
        mean_young=run.mean_young,
        peak_tanks=run.peak_tanks,
    )


def spans_of(sheet: Sheet[Venture], today: date) -> tuple[TankSpan, ...]:
    """The tanks in use from today on for a year and a half."""
    first = float((today - begins_on(sheet, today)).days)
    return tuple(
        TankSpan(span.tank, max(span.from_d, first), min(span.to_d, first + SPANS_D))
        for span in sheet.value("run").spans
        if span.to_d > first and span.from_d < first + SPANS_D
    )


def free_of(sheet: Sheet[Venture], today: date) -> tuple[FreeTank, ...]:
    """Each tank's next free days, from today."""
    start = begins_on(sheet, today)
    first = float((today - start).days)
    by_tank: dict[str, list[tuple[float, float]]] = {}
    for span in sheet.value("run").spans:
        by_tank.setdefault(span.tank, []).append((span.from_d, span.to_d))
    found = []
    for tank, spans in by_tank.items():
        free = first
        for begins, ends in sorted(spans):
            if begins <= free < ends:
                free = ends
        until = min((begins for begins, _ in spans if begins > free), default=None)
        if free - first > SPANS_D:
            continue
        found.append(
            FreeTank(
                tank,
                (start + timedelta(days=int(free + 0.999))).isoformat(),
                "" if until is None else (start + timedelta(days=int(until))).isoformat(),
            )
        )
    return tuple(found)


def growth_of(sheet: Sheet[Venture], low: Sheet[Venture], high: Sheet[Venture]) -> GrowthCurve:
    """Length by age until the last are gone, and where each way to sell lies on it."""
    ready = [number(sheet, f"sales.{at}.ready_d") for at in range(len(sheet.root.sales))]
    longest = 1.25 * max([90.0, *(day for day in ready if day is not None)])
    days = np.linspace(0, longest, CURVE_POINTS)

    def length(one: Sheet[Venture]) -> tuple[float, ...]:
        return tuple(round(float(value), 2) for value in one.value("grows").length_cm(days))

    return GrowthCurve(
        days=tuple(round(float(day), 1) for day in days),
        low_cm=length(low),
        likely_cm=length(sheet),
        high_cm=length(high),
        marks=tuple(
            GrowthMark(
                at,
                row.sale_name or row.sex,
                day,
                float(sheet.value("grows").length_cm(np.array([day]))[0]),
            )
            for at, (row, day) in enumerate(zip(sheet.root.sales, ready, strict=True))
            if day is not None
        ),
    )


def breeding(session: Session, kept: Kept, system: int | None, today: date, library: Library) -> Breeding:
    """The page of ventures, compared in a tank: the one asked for, else that of the first venture."""
    tanks = tanks_of(session, kept, library)
    if system is None:
        standing = [
            venture.stand.system
            for venture in sorted(kept.ventures.values(), key=lambda venture: venture.colony.purpose == "line")
            if venture.stand.system in kept.plans
        ]
        system = standing[0] if standing else (tanks[0].id if tanks else None)
    side = None
    if system is not None and system in kept.plans and kept.ventures:
        side = side_of(kept, system, today, library)
    return Breeding(named(kept), tanks, side)


def side_of(kept: Kept, system: int, today: date, library: Library) -> Side | None:
    plan = kept.plans[system]
    home: Home | None = where_known(lambda: home_of(system, plan, library), None)
    if home is None:
        return None
    colonies = {
        key: kept.plans[venture.stand.colony_system]
        for key, venture in kept.ventures.items()
        if venture.stand.colony_system in kept.plans
    }
    rows = compared(
        kept.ventures,
        system,
        plan,
        colonies,
        {key: kept.seen(venture, today) for key, venture in kept.ventures.items()},
        today.isoformat(),
        library,
    )
    return Side(system, home.name, home.litres, home.water_c, rows, said(rows, home))


def said(rows: Iterable[Compared], home: Home) -> Sentence:
    """What the comparison comes to."""
    known = [row for row in rows if row.likely_money is not None]
    fit = [row for row in known if not row.against and row.purpose != "line"]
    best = next((row for row in fit if row.venture != SHOW), None)
    show = next(row for row in known if row.venture == SHOW)
    terms: dict[str, Term | str] = {"tank": home.name, "show": Term(show.likely_money or 0.0, "money")}
    if best is None:
        return say(
            "Nobody that is bred to sell suits {tank} as it is; left as it is it brings {show} a week.", **terms
        )
    terms |= {"best": best.name, "money": Term(best.likely_money or 0.0, "money")}
    text = "In {tank} {best} bring {money} a tank and week; left as it is it brings {show}."
    rivals = [row.name for row in fit if row.undecided and row is not best and row.venture != SHOW]
    if best.undecided and rivals:
        terms["rivals"] = ", ".join(rivals)
        text += " Undecided against {rivals}: their ranges overlap."
    return say(text, **terms)


def rack_of(session: Session, kept: Kept, wanted: RackWanted, today: date, library: Library) -> RackAnswer:
    """The best use of the tanks that are asked for."""
    homes: list[Home] = []
    unread = []
    for row in wanted.tanks:
        plan = kept.plans.get(row.system)
        home = where_known(lambda row=row, plan=plan: home_of(row.system, plan, library), None) if plan else None  # type: ignore[misc]
        if home is None:
            unread.append(f"System {row.system}")
            continue
        homes += [
            replace(home, name=f"{home.name} ({place + 1} of {row.count})" if row.count > 1 else home.name)
            for place in range(row.count)
        ]
    chosen = {key: kept.ventures[key] for key in wanted.ventures if key in kept.ventures}
    plan_found = None
    if homes and chosen:
        plan_found = rack_plan(
            chosen,
            homes,
            {key: kept.seen(venture, today) for key, venture in chosen.items()},
            Bounds(wanted.hours_wk, wanted.kwh_wk),
            wanted.hour_money,
            library,
            {cap.venture: cap.tanks for cap in wanted.caps},
        )
    return RackAnswer(wanted, named(kept), tanks_of(session, kept, library), plan_found, tuple(unread))


def rack_wanted(session: Session, kept: Kept) -> RackWanted:
    """The rack as it was last asked for; at first four tanks of each venture's sort, and all ventures."""
    text = house.read(session, RACK)
    wanted = or_none(text, RackWanted.model_validate_json) if text else None
    if wanted:
        return wanted
    sorts = dict.fromkeys(
        venture.stand.system for venture in kept.ventures.values() if venture.stand.system in kept.plans
    )
    return RackWanted.model_validate(
        {
            "tanks": [{"system": system, "count": 4} for system in sorts],
            "ventures": list(kept.ventures),
        }
    )
