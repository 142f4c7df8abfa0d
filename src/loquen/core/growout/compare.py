"""Ventures side by side in one sort of tank: what a tank brings a week, how sure that is, and what moves it most."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from math import inf

from loquen.core.errors import NamedCase
from loquen.core.graph.asking import number
from loquen.core.graph.keys import CONSTANT
from loquen.core.graph.sheet import Sheet
from loquen.core.growout.births import UNSEEN, Seen
from loquen.core.growout.book import at_ends, placing, sheet_of
from loquen.core.growout.homes import Home, home_of
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, as_text
from loquen.core.model.roots.plan import Plan
from loquen.core.model.roots.venture import Costs, Venture
from loquen.core.system.told import sentence_of, verdict_of

MARGIN = "tank_margin_money"
REFUSING = ("tank_accepts", "long_enough", "colony_carried", "young_suited")
"""Checks of a venture that say its tank refuses it."""
SHOW = 0
"""The number of the row that leaves the tank as it is."""
SWING_WORDS = {
    "broods_part": "broods",
    "lives_part": "survival",
    "pace_part": "growth",
    "price_part": "prices",
    "sells_part": "buyers",
    "work_part": "work",
    "feed_scale": "food",
}
WEEK = 7.0


@dataclass(frozen=True, slots=True)
class Swing:
    """Something uncertain, and the margin of a tank and week at its bad and its good end, all else as likely."""

    what: str
    low_money: float
    high_money: float


@dataclass(frozen=True, slots=True)
class Compared:
    """A venture in a tank: money left for a tank and week at worst, likely and at best, all that is uncertain together.

    `undecided` where its range reaches into that of the best; `against` is what the tank's own sheet refuses.
    """

    venture: int
    name: str
    common: str
    low_money: float | None
    likely_money: float | None
    high_money: float | None
    hour_money: float | None
    unpaid_money: float | None
    tanks: float | None
    first_sale: str
    laid_out_money: float | None
    undecided: bool
    purpose: str
    against: tuple[Sentence, ...]
    swings: tuple[Swing, ...]
    why_not: Sentence | None
    best_way: str


@dataclass(frozen=True, slots=True)
class OneWay:
    """What a tank would bring a week if all of a sex went one way."""

    sale: int
    name: str
    sale_cm: float
    tank_margin_money: float


def compared(
    ventures: Mapping[int, Venture],
    system: int,
    plan: Plan,
    colony_plans: Mapping[int, Plan],
    seen: Mapping[int, Seen],
    today: str,
    library: Library,
) -> tuple[Compared, ...]:
    """Every venture in tanks like a plan's, and the tank left as it is among them: those that it takes, the best first, then
    those that it refuses.

    `colony_plans` and `seen` are by the number of the venture: where its colony lives if not there, and its births.
    """
    rows = []
    for key, venture in ventures.items():
        there = replace(venture, stand=replace(venture.stand, system=system))
        placed = placing(there, plan, library, colony_plans.get(key))
        rows.append(row_of(key, sheet_of(there, library, placed, seen.get(key, UNSEEN), today)))
    costs = next((venture.costs for venture in ventures.values()), Costs())
    rows.append(left_as_it_is(home_of(system, plan, library), costs))
    rows.sort(key=lambda row: (bool(row.against), -(row.likely_money if row.likely_money is not None else inf)))
    return tuple(marked(rows))


def marked(rows: Sequence[Compared]) -> Iterable[Compared]:
    """Of those that the tank takes: whose range reaches into that of the best is undecided, and the best with them."""
    fit = [row for row in rows if not row.against and row.low_money is not None]
    if not fit:
        return rows
    best, *others = fit
    floor = best.low_money
    over = [row for row in others if row.high_money is not None and floor is not None and row.high_money > floor]
    return [replace(row, undecided=bool(over) and (row is best or row in over)) for row in rows]


def row_of(number_of: int, sheet: Sheet[Venture]) -> Compared:
    """A venture's row, from its own sheet."""
    likely = number(sheet, MARGIN)
    low_sheet, high_sheet = at_ends(sheet, MARGIN)
    against = [
        verdict.reason
        for key in REFUSING
        if (verdict := verdict_of(sheet, key)) is not None and verdict.state == "short"
    ]
    try:
        first = str(sheet.value("first_sale"))
    except NamedCase:
        first = ""
    return Compared(
        venture=number_of,
        name=sheet.root.name,
        common=sheet.library.species[sheet.root.colony.species].common,
        low_money=number(low_sheet, MARGIN),
        likely_money=likely,
        high_money=number(high_sheet, MARGIN),
        hour_money=number(sheet, "hour_margin_money"),
        unpaid_money=number(sheet, "unpaid_margin_money"),
        tanks=number(sheet, "tanks_needed"),
        first_sale=first,
        laid_out_money=number(sheet, "laid_out_money"),
        undecided=False,
        purpose=sheet.root.colony.purpose,
        against=tuple({as_text(sentence, {}): sentence for sentence in against}.values()),
        swings=swings(sheet),
        why_not=sentence_of(sheet, "worth_result") if likely is None else None,
        best_way=max(one_ways(sheet), key=lambda way: way.tank_margin_money, default=OneWay(0, "", 0, 0)).name,
    )


def swings(sheet: Sheet[Venture], key: str = MARGIN) -> tuple[Swing, ...]:
    """What is uncertain, by how far it moves a figure when it alone moves, the most first."""
    found = []
    for name, row in sheet.constants.items():
        path = CONSTANT + name
        if row.low is None or row.high is None or key not in sheet.wiring.users_of(path):
            continue
        ends = [number(sheet.changed({path: end}), key) for end in (row.low, row.high)]
        if None not in ends:
            low, high = sorted(end for end in ends if end is not None)
            found.append(Swing(SWING_WORDS.get(name, row.note or name), low, high))
    return tuple(sorted(found, key=lambda swing: swing.low_money - swing.high_money))


def one_ways(sheet: Sheet[Venture]) -> tuple[OneWay, ...]:
    """Each way alone: all of its sex go it, none another; sizes and channels of one kind compared on one scale."""
    found = []
    for at, row in enumerate(sheet.root.sales):
        rivals = {
            f"sales.{other}.part_frac": 1.0 if other == at else 0.0
            for other, rival in enumerate(sheet.root.sales)
            if "any" in (rival.sex, row.sex) or rival.sex == row.sex
        }
        margin = number(sheet.changed(rivals), MARGIN)
        if margin is not None and row.sale_cm is not None:
            found.append(OneWay(at, row.sale_name or f"{row.sex} at {row.sale_cm:g} cm", row.sale_cm, margin))
    return tuple(found)


def left_as_it_is(home: Home, costs: Costs) -> Compared:
    """The tank with who lives there by its plan: what it costs to keep, from its own sheet and the same prices."""
    power = home.kwh_wk * (home.kwh_money if costs.kwh_money is None else costs.kwh_money)
    water = home.change_l_wk / 1000 * costs.water_money
    food = home.eats_g_d * WEEK / 1000 * costs.feed_kg_money
    hours = (home.work_min_wk + costs.tank_min) / 60
    left = -(power + water + food + hours * costs.hour_money)
    return Compared(
        venture=SHOW,
        name=home.name,
        common="",
        low_money=left,
        likely_money=left,
        high_money=left,
        hour_money=None,
        unpaid_money=left + hours * costs.hour_money,
        tanks=1.0,
        first_sale="",
        laid_out_money=None,
        undecided=False,
        purpose="show",
        against=(),
        swings=(),
        why_not=None,
        best_way="",
    )
