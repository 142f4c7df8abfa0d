"""The best use of so many tanks: what each kind offers in each, who gets which, and why."""

from collections.abc import Mapping, Sequence
from dataclasses import astuple, dataclass

from loquen.core.errors import NamedCase
from loquen.core.graph.sheet import Sheet
from loquen.core.growout.assign import EMPTY, Assigned, Bounds, Offer, Outlet, assigned
from loquen.core.growout.births import UNSEEN, Seen
from loquen.core.growout.book import colony_of, sheet_of
from loquen.core.growout.homes import Home, Housed, unfit
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.roots.venture import NO_TANK, Venture
from loquen.core.physics.animals import feed_g_d
from loquen.core.system.animals.food import mass_of

ROUNDING = 1e-6
WORTH_SAYING = 0.005


def offer_of(sheet: Sheet[Venture], home: Home, hour_money: float | None) -> Offer:
    """A venture's share of one such tank, from its own sheet with the tank put in.

    What whole tanks it fills alone is not rounded: a colony is as large as its tanks ask for.
    """
    against = unfit(home, sheet.library.species[sheet.root.colony.species], lives_there(sheet.root))
    if against is not None:
        return Offer(0.0, 0.0, 0.0, (), against)
    here = sheet.changed({"asked.home": home, "asked.colony_housed": unasked(home, sheet)})
    costs = here.root.costs
    hour = costs.hour_money if hour_money is None else hour_money
    try:
        tanks = colony_tanks(here.root) + here.value("raising_mean") + here.value("growing_mean")
        week = [here.value(name) for name in ("fed_money", "renewed_money")]
    except NamedCase:
        return Offer(0.0, 0.0, 0.0, (), say("it can not be reckoned in it"))
    price = home.kwh_money if costs.kwh_money is None else costs.kwh_money
    minutes = (costs.tank_min + home.work_min_wk) * here.known["constant.work_part"]
    cost = (
        (sum(week) + costs.other_money) / tanks
        + home.change_l_wk / 1000 * costs.water_money
        + home.kwh_wk * price
        + minutes / 60 * hour
    )
    outlets = []
    for at, row in enumerate(here.root.sales):
        raised = here.value(f"sales.{at}.raised_per_wk")
        sells = min(1.0, row.sells_frac * here.known["constant.sells_part"])
        of_buyers = None if row.buyers_wk is None else row.buyers_wk * here.known["constant.sells_part"]
        brings = here.value(f"sales.{at}.brings_money") * (1 - costs.commission_frac)
        packing = costs.sale_min * here.known["constant.work_part"]
        outlets.append(
            Outlet(
                raised / tanks,
                raised * sells / tanks,
                of_buyers,
                brings - packing / 60 * hour,
                row.unsold_money,
                packing,
            )
        )
    return Offer(cost, minutes, home.kwh_wk, tuple(outlets))


def least_tanks(venture: Venture) -> int:
    """A colony, where it lives there too, and a tank to grow its young in."""
    return colony_tanks(venture) + 1


def lives_there(venture: Venture) -> bool:
    """Whether the colony lives in tanks like those that its young grow in."""
    return venture.stand.colony_system == NO_TANK


def colony_tanks(venture: Venture) -> int:
    """Tanks of the rack that the colony has."""
    return max(1, venture.stand.colony_tanks) if lives_there(venture) else 0


def unasked(home: Home, sheet: Sheet[Venture]) -> Housed:
    """A colony in a tank whose sheet was not asked: what it eats there, by the relation that a sheet goes by."""
    group = colony_of(sheet.root, sheet.library)[0]
    kind = sheet.library.species[group.species]
    mass = mass_of(kind, group.length_cm if group.size_by == "length" else kind.adult_length_cm)
    warmth = sheet.constants["feed_q10"].value
    level = "light" if group.feed_by == "usual" else group.feed_by
    one = sheet.known["constant.feed_scale"] * float(feed_g_d(mass, home.water_c, level, warmth_10k=warmth))
    return Housed("holds", (), None, None, None, group.number * one)


@dataclass(frozen=True, slots=True)
class Placed:
    """A tank of the rack with who is bred in it, what that share brings alone, and the next best with what stands against
    it."""

    name: str
    system: int
    venture: int
    litres: float
    alone_money: float | None
    reason: Sentence


@dataclass(frozen=True, slots=True)
class Share:
    """A venture on the rack: its tanks, what it sells a week of what it could, and whether buyers stop it."""

    venture: int
    name: str
    common: str
    tanks: int
    sold_wk: float
    sellable_wk: float
    capped: bool
    margin_money: float


@dataclass(frozen=True, slots=True)
class RackPlan:
    """The best use of the tanks, as `assigned`, told: per tank and per venture, and what more of each bound would bring."""

    placed: tuple[Placed, ...]
    shares: tuple[Share, ...]
    margin_money: float
    hours: float
    kwh: float
    proved: bool
    result: Sentence
    gains: tuple[Sentence, ...]
    left_out: tuple[Sentence, ...]


def offers_of(
    ventures: Mapping[int, Venture],
    homes: Sequence[Home],
    seen: Mapping[int, Seen],
    hour_money: float | None,
    library: Library,
) -> dict[int, list[Offer]]:
    """Every venture's offer in every tank; tanks alike are reckoned once."""
    found = {}
    for key, venture in ventures.items():
        sheet = sheet_of(venture, library, seen=seen.get(key, UNSEEN))
        known: dict[tuple[object, ...], Offer] = {}
        row = []
        for home in homes:
            sort = sort_of(home)
            if sort not in known:
                known[sort] = offer_of(sheet, home, hour_money)
            row.append(known[sort])
        found[key] = row
    return found


def sort_of(home: Home) -> tuple[object, ...]:
    """All of a tank but its name and number."""
    return astuple(home)[3:]


def rack_plan(
    ventures: Mapping[int, Venture],
    homes: Sequence[Home],
    seen: Mapping[int, Seen],
    bounds: Bounds,
    hour_money: float | None,
    library: Library,
    caps: Mapping[int, int] | None = None,
) -> RackPlan:
    """The best use of a row of tanks for some ventures, and why."""
    offers = offers_of(ventures, homes, seen, hour_money, library)
    least = {key: least_tanks(venture) for key, venture in ventures.items()}
    best = assigned(offers, least, bounds, caps)
    names = {key: venture.name for key, venture in ventures.items()}
    shares = tuple(
        share_of(key, ventures[key], offers[key], best, library) for key in ventures if key in best.ventures
    )
    full = {share.venture for share in shares if share.capped}
    return RackPlan(
        placed=tuple(
            Placed(
                home.name,
                home.system,
                key,
                home.litres,
                None if key == EMPTY else offers[key][tank].margin,
                reason_of(key, tank, offers, names, full, best, least, caps or {}),
            )
            for tank, (home, key) in enumerate(zip(homes, best.ventures, strict=True))
        ),
        shares=shares,
        margin_money=best.margin,
        hours=best.minutes / 60,
        kwh=best.kwh,
        proved=best.proved,
        result=say(
            "{used} of {all} tanks are used and leave {money} a week for {hours} of work.",
            used=Term(sum(key != EMPTY for key in best.ventures), "count"),
            all=Term(len(homes), "count"),
            money=Term(best.margin, "money"),
            hours=Term(best.minutes / 60, "hours"),
        ),
        gains=tuple(gains(offers, least, bounds, caps, best)),
        left_out=tuple(left_out(ventures, offers, best, homes)),
    )


def share_of(key: int, venture: Venture, offered: Sequence[Offer], best: Assigned, library: Library) -> Share:
    here = [offered[tank] for tank, chosen in enumerate(best.ventures) if chosen == key]
    sold = best.sold.get(key, ())
    sellable = [sum(offer.outlets[way].sellable for offer in here) for way in range(len(sold))]
    capped = any(
        outlet.most is not None and could > outlet.most + ROUNDING
        for outlet, could in zip(here[0].outlets, sellable, strict=True)
    )
    left = sum(
        gone * (outlet.brings - outlet.unsold) for gone, outlet in zip(sold, here[0].outlets, strict=True)
    ) + sum(outlet.raised * outlet.unsold for offer in here for outlet in offer.outlets)
    return Share(
        key,
        venture.name,
        library.species[venture.colony.species].common,
        len(here),
        sum(sold),
        sum(sellable),
        capped,
        left - sum(offer.cost for offer in here),
    )


def reason_of(
    key: int,
    tank: int,
    offers: Mapping[int, Sequence[Offer]],
    names: Mapping[int, str],
    full: set[int],
    best: Assigned,
    least: Mapping[int, int],
    caps: Mapping[int, int],
) -> Sentence:
    """Why this tank has who it has: the next best, or what keeps a better one out."""
    here = {other: offered[tank] for other, offered in offers.items()}
    fit = {other: offer.margin for other, offer in here.items() if offer.against is None}
    mine = fit.get(key, 0.0)
    better = sorted(
        (other for other in fit if other != key and fit[other] > mine + ROUNDING), key=lambda o: -fit[o]
    )
    if better:
        other = better[0]
        terms: dict[str, Term | str] = {"other": names[other], "more": Term(fit[other] - mine, "money")}
        if best.ventures.count(other) >= caps.get(other, len(best.ventures)):
            terms["most"] = Term(caps.get(other, 0), "count")
            return say("{other} would bring {more} more, but is to have {most} tanks at most.", **terms)
        if other in full:
            return say("{other} would bring {more} more, but its buyers are met.", **terms)
        if other not in best.ventures and least[other] > 1:
            terms["least"] = Term(least[other], "count")
            if few_buyers(offers[other]):
                text = "{other} would bring {more} more with buyers for all of it; those there are do not pay for its {least} tanks."
                return say(text, **terms)
            return say("{other} would bring {more} more where it has {least} tanks and the hours.", **terms)
        return say("{other} would bring {more} more alone; buyers, hours or power hold it.", **terms)
    if not fit:
        other, offer = next(iter(here.items()))
        against = offer.against or say("nothing fits")
        return Sentence(
            "Nothing fits: {other}, " + against.text + ".", {**against.terms, **say("", other=names[other]).terms}
        )
    if key == EMPTY:
        return say("Nothing that fits brings more than it costs.")
    rest = [other for other in fit if other != key]
    if not rest:
        return say("Nothing else fits its water.")
    nearest = max(rest, key=lambda other: fit[other])
    return say(
        "{less} more than {other}, the next best.", less=Term(mine - fit[nearest], "money"), other=names[nearest]
    )


def few_buyers(offered: Sequence[Offer]) -> bool:
    """Whether buyers may bound what a venture sells."""
    return any(outlet.most is not None for offer in offered for outlet in offer.outlets)


def gains(
    offers: Mapping[int, Sequence[Offer]],
    least: Mapping[int, int],
    bounds: Bounds,
    caps: Mapping[int, int] | None,
    best: Assigned,
) -> list[Sentence]:
    """What a bound holds back: the same rack solved anew without it."""
    found = []
    if bounds.hours is not None:
        free = assigned(offers, least, Bounds(None, bounds.kwh), caps)
        if free.margin > best.margin + WORTH_SAYING:
            found.append(
                say(
                    "{hours} a week instead would leave {more} more.",
                    hours=Term(free.minutes / 60, "hours"),
                    more=Term(free.margin - best.margin, "money"),
                )
            )
    if bounds.kwh is not None:
        free = assigned(offers, least, Bounds(bounds.hours, None), caps)
        if free.margin > best.margin + WORTH_SAYING:
            found.append(
                say(
                    "{kwh} a week instead would leave {more} more.",
                    kwh=Term(free.kwh, "energy"),
                    more=Term(free.margin - best.margin, "money"),
                )
            )
    return found


def left_out(
    ventures: Mapping[int, Venture],
    offers: Mapping[int, Sequence[Offer]],
    best: Assigned,
    homes: Sequence[Home],
) -> list[Sentence]:
    """Ventures that have no tank, and why: where none fits, what stands against the sort that it is planned in."""
    found = []
    for key, venture in ventures.items():
        if key in best.ventures:
            continue
        fit = [offer for offer in offers[key] if offer.against is None]
        if not fit:
            own = sorted(range(len(homes)), key=lambda tank: homes[tank].system != venture.stand.system)
            against = offers[key][own[0]].against or say("no tank is there")
            terms = {**against.terms, **say("", name=venture.name).terms}
            found.append(Sentence("{name}: no tank fits, " + against.text + ".", terms))
        elif max(offer.margin for offer in fit) <= 0:
            found.append(say("{name}: brings less than it costs in every tank.", name=venture.name))
        elif few_buyers(offers[key]):
            text = "{name}: its buyers do not pay for the {least} tanks it takes, or others bring more."
            found.append(say(text, name=venture.name, least=Term(least_tanks(venture), "count")))
        else:
            found.append(say("{name}: others bring more.", name=venture.name))
    return found
