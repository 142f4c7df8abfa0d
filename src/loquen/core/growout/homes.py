"""What a venture takes of a system: a line of values from its own sheet, and what that sheet says of colony and young."""

from dataclasses import dataclass, replace
from functools import lru_cache

from loquen.core.data.tables import constant
from loquen.core.errors import NamedCase
from loquen.core.graph.asking import number
from loquen.core.graph.judging import TIGHT_FRAC
from loquen.core.graph.nodes import State, worst
from loquen.core.library.rows.animals import Species
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.parts.animals import Group
from loquen.core.model.roots.plan import Plan
from loquen.core.system.animals.company import RANGES, leeways, range_of, suits
from loquen.core.system.book import sheet_of
from loquen.core.system.changes.regime import flowed
from loquen.core.system.heat.energy import running_kwh
from loquen.core.system.source.settled import hardness_dgh
from loquen.core.system.told import verdict_of

STRANGER = Group("zebra_danio", 10)
"""Who stands in for the animals of an empty tank: what filter and changes carry hangs little on whom they carry."""
WEEKS_A_YEAR = 365.25 / 7
OF_A_PAIR = (
    "water_suits", "summer_borne", "winter_borne", "litres_enough", "width_enough", "media_carry", "dawn_breathes",
    "drift_fits", "none_leaves",
)  # fmt: skip
"""Checks of a tank that may refuse a pair that is kept alone to breed; length and balance are the venture's to judge."""
OF_A_COLONY = ("company_fits", "crowd_fits", *OF_A_PAIR)
"""Checks of a tank that may refuse those who breed in it together."""
OF_A_YOUNG_ONE = ("water_suits", "summer_borne", "winter_borne", "none_leaves")
"""Checks of a tank that may refuse any who grows up in it."""
OF_YOUNG = (*OF_A_YOUNG_ONE, "in_balance", "media_carry", "dawn_breathes")
"""Checks of a tank that may refuse a tankful of them."""
MOST_KEPT = 4000


@dataclass(frozen=True, slots=True)
class Home:
    """One tank of a system, by its plan. `allowed_mg_d` is the waste that its filter and its changes take in for good.

    Power is a year's with its change water in it, work is the changes'; `eats_g_d` is what lives there by the plan.
    """

    system: int
    name: str
    tanks: int
    litres: float
    length_cm: float
    width_cm: float
    water_c: float
    coldest_c: float
    hottest_c: float
    ph: float
    gh_dgh: float
    kh_dkh: float
    salinity_ppt: float
    allowed_mg_d: float
    change_l_wk: float
    work_min_wk: float
    year_kwh: float
    kwh_money: float
    eats_g_d: float
    animals: int
    regime: str
    rock_kg: float
    wood_l: float
    keeps_in: str
    passed_frac: float
    swapped_frac: float
    short_cut_frac: float

    @property
    def label(self) -> str:
        return self.name

    @property
    def drained_part_wk(self) -> float:
        """Of its litres, poured in a week: drained and filled, so much is exchanged."""
        return self.change_l_wk / self.litres

    @property
    def through_part_wk(self) -> float:
        """Of its litres, exchanged in a week where the same litres flow through in as many pulses."""
        if self.passed_frac <= 0:
            return 0.0
        return self.drained_part_wk * flowed(self.passed_frac, self.short_cut_frac) / self.passed_frac

    @property
    def exchanged_part_wk(self) -> float:
        """Of its litres, really exchanged in a week by its plan's regime."""
        return self.drained_part_wk * self.swapped_frac / self.passed_frac if self.passed_frac > 0 else 0.0

    @property
    def kwh_wk(self) -> float:
        return self.year_kwh / WEEKS_A_YEAR


@dataclass(frozen=True, slots=True)
class Housed:
    """What a tank's own sheet says of those in it: the worst verdict, each check that refuses them, the balance's share."""

    state: State
    against: tuple[Sentence, ...]
    balance_frac: float | None
    wanted_cm: float | None
    wanted_l: float | None
    feed_g_d: float

    @property
    def label(self) -> str:
        return self.state


@lru_cache(MOST_KEPT)
def home_of(system: int, plan: Plan, library: Library) -> Home:
    """The line of a system as a place to breed in; raise NamedCase where its sheet has no such number."""
    inhabited = plan if plan.animals else replace(plan, animals=(STRANGER,))
    sheet = sheet_of(inhabited, library)
    count = plan.tank.tank_count
    litres = sheet.value("real_volume_l")
    if not litres > 0:
        raise NamedCase("no_water", system=system)
    return Home(
        system=system,
        name=plan.name,
        tanks=count,
        litres=litres / count,
        length_cm=sheet.value("inside_length_cm"),
        width_cm=sheet.value("inside_width_cm"),
        water_c=sheet.value("water_c"),
        coldest_c=sheet.value("coldest_c"),
        hottest_c=sheet.value("hottest_c"),
        ph=plan.water.tank_ph,
        gh_dgh=hardness_dgh(sheet),
        kh_dkh=sheet.value("settled_kh_dkh"),
        salinity_ppt=sheet.value("tank_salinity_ppt"),
        allowed_mg_d=sheet.value("allowed_mg_d") / count,
        change_l_wk=sheet.value("change_l_wk") / count,
        work_min_wk=(number(sheet, "work_min") or 0.0) / count,
        year_kwh=running_kwh(sheet) / count,
        kwh_money=plan.heat.price_per_kwh,
        eats_g_d=(sheet.value("feed_full_g_d") if plan.animals else 0.0) / count,
        animals=sum(group.number for group in plan.animals),
        regime=plan.changes.regime,
        rock_kg=plan.tank.rock_kg,
        wood_l=plan.tank.wood_l,
        keeps_in=library.lids[plan.heat.lid].keeps_in,
        passed_frac=sheet.value("passed_frac"),
        swapped_frac=sheet.value("swapped_frac"),
        short_cut_frac=plan.changes.short_cut_frac,
    )


@lru_cache(MOST_KEPT)
def housed(plan: Plan, groups: tuple[Group, ...], checks: tuple[str, ...], library: Library) -> Housed:
    """What a system's own sheet says, by some of its checks, of these animals in each of its tanks, at the size they have."""
    count = plan.tank.tank_count
    each = tuple(
        replace(group, number=group.number * count, males=None if group.males is None else group.males * count)
        for group in groups
    )
    sheet = sheet_of(replace(plan, animals=each), library, 0.0)
    found = [verdict for key in checks if (verdict := verdict_of(sheet, key)) is not None]
    return Housed(
        state=worst([verdict.state for verdict in found] or ["holds"]),
        against=tuple(verdict.reason for verdict in found if verdict.state == "short"),
        balance_frac=number(sheet, "balance_frac"),
        wanted_cm=number(sheet, "wanted_length_cm"),
        wanted_l=None if (wanted := number(sheet, "wanted_low_l")) is None else wanted / count,
        feed_g_d=sheet.value("feed_total_g_d") / count,
    )


def unfit(home: Home, kind: Species, colony_too: bool = True) -> Sentence | None:
    """Why a kind can not live in a tank, by its water, its hottest and coldest day, its lid, and its length where the colony
    lives there too; None where it can.

    The same relations and leeways as the checks of a sheet, for many kinds and tanks at once.
    """
    borne = leeways(constant("temp_leeway_k"), constant("ph_leeway"), constant("hardness_leeway_deg"))
    hot = "hot_day_delicate_k" if kind.shock_class == "sensitive" else "hot_day_leeway_k"
    values = (home.water_c, home.ph, home.gh_dgh, home.kh_dkh, home.salinity_ppt)
    for (what, sort, low, high), value in zip(RANGES, values, strict=True):
        found = suits(what, sort, kind.common, value, *range_of(kind, low, high), borne.of(what, kind))
        if found.state == "short":
            return Sentence("{what}: " + found.sentence.text, {**found.sentence.terms, **say("", what=what).terms})
    if home.hottest_c > kind.temp_high_c + constant(hot):
        return say(
            "the hottest day, {hot}; it bears {high}",
            hot=Term(home.hottest_c, "temperature"),
            high=Term(kind.temp_high_c, "temperature"),
        )
    if home.coldest_c < kind.temp_low_c - borne.temp_k:
        return say(
            "the coldest night, {cold}; it bears {low}",
            cold=Term(home.coldest_c, "temperature"),
            low=Term(kind.temp_low_c, "temperature"),
        )
    if kind.jumper and home.keeps_in not in ("all", "jumpers"):
        return say("they jump or climb; its lid does not close")
    wanted = kind.adult_length_cm * kind.length_ratio
    if colony_too and home.length_cm < wanted * (1 - TIGHT_FRAC):
        return say(
            "{length} long; the colony wants {wanted}",
            length=Term(home.length_cm, "length"),
            wanted=Term(wanted, "length"),
        )
    return None
