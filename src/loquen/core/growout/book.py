"""The book of a venture: every figure and check, in the order in which breeders reckon."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cache
from typing import Any

from loquen.core.data.tables import Constant, constants
from loquen.core.graph.asking import number
from loquen.core.graph.book import Book
from loquen.core.graph.domain import Domain
from loquen.core.graph.keys import CONSTANT
from loquen.core.graph.nodes import collected
from loquen.core.graph.sheet import Sheet
from loquen.core.growout.births import UNSEEN, Born, Seen
from loquen.core.growout.homes import OF_A_COLONY, OF_A_PAIR, OF_A_YOUNG_ONE, Home, Housed, home_of, housed
from loquen.core.growout.stages import broods, colony, sale, space, worth
from loquen.core.library.whole import Library
from loquen.core.model.parts.animals import Group
from loquen.core.model.roots.plan import Plan
from loquen.core.model.roots.venture import VENTURE, Doubts, Venture
from loquen.core.model.roots.venture_conflicts import conflicts

STAGES = {"colony": "Colony", "broods": "Broods", "sale": "Sale", "worth": "Worth"}
GLASSES = {"colony": "Colony's tank", "tanks": "Tanks", "demand": "Unsold", "margin": "Worth"}
PARTS = {
    "broods_part": ("broods_low", "broods_high"),
    "lives_part": ("lives_low", "lives_high"),
    "pace_part": ("pace_low", "pace_high"),
    "price_part": ("price_low", "price_high"),
    "sells_part": ("sells_low", "sells_high"),
    "work_part": ("work_high", "work_low"),
}
"""What a venture's doubts say of a constant: the fields of its lower and its upper end."""


@cache
def venture_book() -> Book:
    """All nodes of a venture, wired once."""
    asked: dict[str, Any] = {
        "home": None,
        "colony_home": None,
        "colony_housed": None,
        "young_housed": None,
        "born": None,
        "births": (),
        "today": "",
    }
    return Book(
        collected([colony, broods, space, sale, worth]),
        VENTURE,
        constants(),
        asked,
        Domain(row_label, contradicts=lambda venture, library: bool(conflicts(venture, library))),
    )


def row_label(sheet: Sheet[Venture], section: str, at: int, label: str) -> str:
    """What an input of a row is called: with the name of the row."""
    row = getattr(sheet.root, section)[at]
    name = row.stage_name if section == "raising" else row.sale_name
    return f"{label}, {name or at + 1}"


def colony_of(venture: Venture, library: Library) -> tuple[Group, ...]:
    """One tank's share of the colony as animals of a plan, full grown and fed to breed."""
    tanks = max(1, venture.stand.colony_tanks)
    females = -(-venture.colony.females // tanks)
    males = -(-venture.colony.males // tanks)
    length = venture.colony.female_cm
    # Shrimps live off what grows, and are fed no more for breeding.
    shrimp = library.species[venture.colony.species].feeds_on == "shrimp"
    return (
        Group(
            venture.colony.species,
            max(1, females + males),
            males=males,
            size_by="adult" if length is None else "length",
            length_cm=3.0 if length is None else length,
            feed_by="usual" if shrimp else "normal",
        ),
    )


@dataclass(frozen=True, slots=True)
class Placing:
    """A venture's place: the tank its young grow in, the colony's own where that is another, and what their sheets say."""

    home: Home | None = None
    colony_home: Home | None = None
    colony: Housed | None = None
    young: Housed | None = None


NOWHERE = Placing()


def placing(venture: Venture, plan: Plan | None, library: Library, colony_plan: Plan | None = None) -> Placing:
    """Where a venture stands: in tanks like a plan's, its colony like another's where that is given."""
    lives_in = colony_plan or plan
    return Placing(
        home_of(venture.stand.system, plan, library) if plan else None,
        home_of(venture.stand.colony_system, colony_plan, library) if colony_plan else None,
        housed(
            lives_in, colony_of(venture, library), OF_A_PAIR if paired(venture, library) else OF_A_COLONY, library
        )
        if lives_in
        else None,
        housed(plan, (Group(venture.colony.species, 1),), OF_A_YOUNG_ONE, library) if plan else None,
    )


def sheet_of(
    venture: Venture,
    library: Library,
    placed: Placing = NOWHERE,
    seen: Seen = UNSEEN,
    today: str = "",
) -> Sheet[Venture]:
    """A fresh sheet of a venture in its place, with what the register says of births."""
    known: dict[str, Any] = {
        "home": placed.home,
        "colony_home": placed.colony_home,
        "colony_housed": placed.colony,
        "young_housed": placed.young,
        "born": seen.born,
        "births": seen.births,
        "today": today,
    }
    return Sheet(venture_book(), venture, library, calibration(venture.doubts, seen.born), **known)


def paired(venture: Venture, library: Library) -> bool:
    """Whether it is a pair of a kind that breeds in pairs: no shoal is asked of it."""
    breeds = library.breeds(venture.colony.species)
    return breeds is not None and breeds.females_least == 1 and venture.colony.females == 1


def calibration(doubts: Doubts, born: Born | None) -> Mapping[str, Constant]:
    """How far things may be from what is likely: as entered; by as many broods as were counted; else by practice."""
    found = {}
    table = constants()
    for name, (low, high) in PARTS.items():
        row = table[name]
        told_low, told_high = getattr(doubts, low), getattr(doubts, high)
        if name == "broods_part" and born is not None and born.broods >= table["broods_told"].value:
            # The mean of so many broods is that much surer than one.
            spread = 2 * table["brood_spread"].value / born.broods**0.5
            row = replace(row, low=max(0.05, 1 - spread), high=1 + spread)
        found[name] = replace(
            row,
            low=row.low if told_low is None else told_low,
            high=row.high if told_high is None else told_high,
        )
    return found


def at_ends(sheet: Sheet[Venture], key: str) -> tuple[Sheet[Venture], Sheet[Venture]]:
    """The sheet with all that is uncertain at the end that is bad for a figure, and at the good one, all together."""
    bad: dict[str, float] = {}
    good: dict[str, float] = {}
    for name, row in sheet.constants.items():
        path = CONSTANT + name
        if row.low is None or row.high is None or key not in sheet.wiring.users_of(path):
            continue
        ends = [(number(sheet.changed({path: end}), key), end) for end in (row.low, row.high)]
        known = [(value, end) for value, end in ends if value is not None]
        if len(known) == len(ends):
            bad[path], good[path] = min(known)[1], max(known)[1]
    return sheet.changed(bad), sheet.changed(good)
