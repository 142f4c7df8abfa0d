"""Change water warmed, salted, hardened, mixed with purified or rain water; evaporation topped up with pure water."""

from collections.abc import Iterator
from dataclasses import replace

from loquen.core.graph.asking import number
from loquen.core.graph.keys import Key
from loquen.core.library.whole import Library
from loquen.core.model.parts.water import Source
from loquen.core.model.roots.plan import PLAN, Plan
from loquen.core.system.planner.practice import usual
from loquen.core.system.planner.standing import Standing

PURE = Source(
    src_name="Reverse osmosis",
    src_kind="osmosis",
    src_gh_dgh=usual("osmosis_gh_dgh"),
    src_kh_dkh=usual("osmosis_kh_dkh"),
    src_us_cm=usual("osmosis_us_cm"),
    src_nitrate_mg_l=usual("osmosis_nitrate_mg_l"),
    src_sodium_mg_l=usual("osmosis_sodium_mg_l"),
    src_chloride_mg_l=usual("osmosis_chloride_mg_l"),
    src_disinfectant="none",
)
SOFT_KINDS = ("osmosis", "rain")
"""Waters that another is softened with."""
PURE_SHARES = (0.0, 0.25, 0.4, 0.5, 0.6, 0.75, 0.8, 0.9)
"""Of the change water; as one to three, two to three and so on, they are easily measured."""
MARGIN_DGH, MARGIN_DKH = usual("gh_within_dgh"), usual("kh_over_dkh")
MOST_SHARES = 3


def hardness_borne(plan: Plan, library: Library) -> tuple[float, float]:
    """The GH that suits all animals of a plan, from and to."""
    kinds = [library.species[group.species] for group in plan.animals]
    return (
        max((kind.gh_low_dgh for kind in kinds), default=0.0),
        min((kind.gh_high_dgh for kind in kinds), default=60.0),
    )


def room_mg_l(plan: Plan) -> float:
    """Nitrate in change water that leaves room: half of what is borne."""
    return plan.changes.target_nitrate_mg_l / 2


def purified_share(plan: Plan) -> float:
    """The part of the change water that is purified, or rain."""
    parts = sum(row.src_parts for row in plan.sources)
    return sum(row.src_parts for row in plan.sources if row.src_kind in SOFT_KINDS) / parts if parts else 0.0


def with_purified(plan: Plan, share: float) -> Plan:
    """The plan with so large a part of purified water in its mix, or of the rain that it has; the other waters keep their
    parts to each other."""
    others = [row for row in plan.sources if row.src_kind not in SOFT_KINDS]
    place = next((i for i, row in enumerate(plan.sources) if row.src_kind in SOFT_KINDS), None)
    parts = round(sum(row.src_parts for row in others) * share / (1 - share), 2)
    if place is None:
        return replace(plan, sources=(*plan.sources, replace(PURE, src_c=others[0].src_c, src_parts=parts)))
    given = enumerate(plan.sources)
    rows = [row if row in others else replace(row, src_parts=parts if i == place else 0.0) for i, row in given]
    return replace(plan, sources=tuple(rows))


def mix(now: Standing, _: str) -> Iterator[Plan]:
    """Other parts of purified water, those nearest to the present one first, of those with room for nitrate up to half
    the limit; each hardened as far as they want where it would be too soft."""
    plan = now.plan
    others = [row for row in plan.sources if row.src_kind not in SOFT_KINDS]
    full = len(others) == len(plan.sources) == PLAN.limits["sources"]
    if full or not any(row.src_parts > 0 for row in others):
        return
    low, high = hardness_borne(plan, now.library)
    share, gh, nitrate = (
        purified_share(plan),
        number(now.sheet, "mix_gh_dgh"),
        number(now.sheet, "new_nitrate_mg_l"),
    )
    if gh is None or nitrate is None:
        return
    room = room_mg_l(plan)
    softer = gh > high - MARGIN_DGH or nitrate > room
    wanted = [one for one in PURE_SHARES if (one > share + 0.01 if softer else one < share - 0.01)]

    def left(one: float) -> float:
        return (1 - one) / (1 - share)

    def suits(one: float) -> bool:
        return gh * left(one) <= high if softer else gh * left(one) >= low

    def no_room(one: float) -> bool:
        return nitrate * left(one) > room

    near = sorted(filter(suits, wanted if softer else reversed(wanted)), key=no_room)
    for one in near[:MOST_SHARES]:
        mixed = with_purified(plan, one)
        yield mixed
        if gh * left(one) < low:
            yield hardened(mixed, round(low + MARGIN_DGH, 1), now.library)


def hardened(plan: Plan, gh_dgh: float, library: Library) -> Plan:
    """The plan with its change water brought to a GH, and to a KH that they want, by salts."""
    low_dkh = max((library.species[group.species].kh_low_dkh for group in plan.animals), default=0.0)
    kh = max(round(low_dkh + MARGIN_DKH, 1), plan.recipe.target_kh_dkh or 0.0)
    return replace(plan, recipe=replace(plan.recipe, target_gh_dgh=gh_dgh, target_kh_dkh=kh))


def minerals(now: Standing, _: str) -> Iterator[Plan]:
    """Calcium and magnesium weighed into change water that is too soft for them, then carbonate too.

    Not where less purified water would do: nobody takes out by one hand what the other puts back.
    """
    low, high = hardness_borne(now.plan, now.library)
    gh, share = number(now.sheet, "new_gh_dgh"), purified_share(now.plan)
    wanted = round(low + MARGIN_DGH, 1)
    if gh is None or gh >= low or wanted > high:
        return
    if 0 < share < 1:
        bare = now.other(with_purified(now.plan, 0.0)).sheet
        hard, nitrate = number(bare, "mix_gh_dgh"), number(bare, "new_nitrate_mg_l")
        if hard is not None and nitrate is not None and hard >= low and nitrate <= room_mg_l(now.plan):
            return
    yield replace(now.plan, recipe=replace(now.plan.recipe, target_gh_dgh=wanted))
    yield hardened(now.plan, wanted, now.library)


LIME_KG_PER_100_L = (0.5, 1.0, 2.0, 4.0, 8.0)
LIMED_FROM_DKH = 3.0
"""Least KH of kinds whose water is held by coral and shell: where all want so much."""


def lime(now: Standing, _: Key) -> Iterator[Plan]:
    """Coral or shell in the flow, for those who want hard water: it gives carbonate and calcium as they are used."""
    kinds = [now.library.species[group.species] for group in now.plan.animals]
    left, litres = number(now.sheet, "settled_kh_dkh"), number(now.sheet, "real_volume_l")
    ceiling = number(now.sheet, "coral_dkh")
    if left is None or litres is None or ceiling is None or ceiling <= left or not kinds:
        return
    if min(kind.kh_low_dkh for kind in kinds) < LIMED_FROM_DKH:
        return
    for each in LIME_KG_PER_100_L:
        kg = max(0.5, round(2 * each * litres / 100) / 2)
        if kg > now.plan.tank.lime_kg:
            yield replace(now.plan, tank=replace(now.plan.tank, lime_kg=kg))


KH_MARGIN_DKH = usual("kh_step_dkh")


def warmed(now: Standing, _: Key) -> Iterator[Plan]:
    """Change water at the tank's own warmth."""
    water = number(now.sheet, "water_c")
    if water is not None and abs(water - now.plan.water.source_c) > 0.1:
        yield replace(now.plan, water=replace(now.plan.water, source_c=round(min(40.0, water), 1)))


def topped_up(now: Standing, _: Key) -> Iterator[Plan]:
    """Evaporation topped up with pure water: what is dissolved does not creep up."""
    if now.plan.water.topped_up != "pure":
        yield replace(now.plan, water=replace(now.plan.water, topped_up="pure"))


def salt(now: Standing, _: Key) -> Iterator[Plan]:
    """Salinity in the middle of what all bear, where it is outside of it."""
    kinds = [now.library.species[group.species] for group in now.plan.animals]
    low = max((kind.salinity_low_ppt for kind in kinds), default=0.0)
    high = min((kind.salinity_high_ppt for kind in kinds), default=0.0)
    salinity = number(now.sheet, "tank_salinity_ppt")
    if salinity is not None and low <= high and not low <= salinity <= high:
        wanted = round((low + high) / 2, 1) if low > 0 else 0.0
        yield replace(now.plan, water=replace(now.plan.water, salinity_by="ppt", salinity_ppt=wanted))


def hardness(now: Standing, _: Key) -> Iterator[Plan]:
    """Carbonate hardness weighed into the change water: as much as is left for them, and in reserve, before the next."""
    low = max((now.library.species[group.species].kh_low_dkh for group in now.plan.animals), default=0.0)
    left, new = number(now.sheet, "settled_kh_dkh"), number(now.sheet, "new_kh_dkh")
    if left is None or new is None:
        return
    base = max(low, now.sheet.constants["kh_low_dkh"].value) + new - left
    for more in (KH_MARGIN_DKH, 2.0, 4.0):
        wanted = round(base + more, 1)
        if wanted > new and wanted <= 30:
            yield replace(now.plan, recipe=replace(now.plan.recipe, target_kh_dkh=wanted))
