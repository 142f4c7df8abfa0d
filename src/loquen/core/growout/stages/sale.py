"""Who takes the young: when they can go, how many find a buyer, what they bring."""

from dataclasses import replace

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_most, no_harm
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.growout.broods import age_at_length_d, survivors_frac
from loquen.core.growout.dated import Way
from loquen.core.growout.young import Growth
from loquen.core.library.rows.animals import Species
from loquen.core.model.inputs.quantity import Sentence, Term, of, say

UNSOLD_FRAC = 0.25
"""Of those raised, left unsold before it is worth a word."""
WEEK = 7.0


@figure("Of all young", formula="{part_frac} of {sex}, {male_frac} being males", source="definition", row="sales")
def way_frac(part_frac: float, sex: str, male_frac: float) -> float:
    return part_frac * {"any": 1.0, "male": male_frac, "female": 1 - male_frac}[sex]


@figure(
    "Ready after",
    formula="the later of {colour_d} and 365.25 ÷ K × ln((L∞ − start) ÷ (L∞ − {sale_cm})), {grows}",
    source="bertalanffy1938",
    row="sales",
)
def ready_d(sale_cm: float | None, colour_d: float, grows: Growth) -> float:
    if sale_cm is None:
        raise NamedCase("no_sale_size")
    long_enough = age_at_length_d(sale_cm, grows.adult_length_cm, grows.growth_per_year, grows.start_length_cm)
    return max(colour_d, long_enough)


@figure("Gone after", formula="{ready_d} + {wait_d}", source="definition", row="sales")
def gone_d(ready_d: float, wait_d: float) -> float:
    return ready_d + wait_d


@figure(
    "Raised a week",
    formula="{kept_per_day} × 7 × {way_frac} × those alive at {gone_d}: {lives}",
    source="balance",
    kind="ratio",
    row="sales",
)
def raised_per_wk(
    kept_per_day: float, way_frac: float, gone_d: float, lives: tuple[tuple[float, float], ...]
) -> float:
    return kept_per_day * WEEK * way_frac * survivors_frac(gone_d, lives)


@figure(
    "Sold a week",
    formula="{raised_per_wk} × {sells_frac} × {sells_part}, no more than {buyers_wk} × {sells_part}",
    source="balance",
    kind="ratio",
    row="sales",
)
def sold_per_wk(raised_per_wk: float, sells_frac: float, sells_part: float, buyers_wk: float | None) -> float:
    sold = raised_per_wk * min(1.0, sells_frac * sells_part)
    return sold if buyers_wk is None else min(sold, buyers_wk * sells_part)


@figure(
    "Left unsold a week", formula="{raised_per_wk} − {sold_per_wk}", source="balance", kind="ratio", row="sales"
)
def unsold_per_wk(raised_per_wk: float, sold_per_wk: float) -> float:
    return raised_per_wk - sold_per_wk


@figure(
    "One that is sold brings",
    formula="{price_money} × {price_part} × {ships_frac}; nothing where no price is entered",
    source="definition",
    row="sales",
)
def brings_money(price_money: float | None, price_part: float, ships_frac: float) -> float:
    return (price_money or 0.0) * price_part * ships_frac


@figure("Sold for, a week", formula="{sold_per_wk} × {brings_money}", source="balance", row="sales")
def sold_money(sold_per_wk: float, brings_money: float) -> float:
    return sold_per_wk * brings_money


@figure("Unsold bring, a week", formula="{unsold_per_wk} × {unsold_money}", source="balance", row="sales")
def left_money(unsold_per_wk: float, unsold_money: float) -> float:
    return unsold_per_wk * unsold_money


@figure(
    "Weeks until the unsold fill a tank",
    formula="{full_tank} ÷ {unsold_per_wk}",
    source="balance",
    kind="weeks",
    row="sales",
)
def fills_weeks(full_tank: float, unsold_per_wk: float) -> float:
    if unsold_per_wk <= 0:
        raise NamedCase("all_sold")
    return full_tank / unsold_per_wk


@step()
def ways(
    gone_d: tuple[float, ...],
    kept_d: tuple[float, ...],
    way_frac: tuple[float, ...],
    raised_per_wk: tuple[float, ...],
    unsold_per_wk: tuple[float, ...],
    brings_money: tuple[float, ...],
    unsold_money: tuple[float, ...],
    unplaced_frac: float,
    lives: tuple[tuple[float, float], ...],
    commission_frac: float,
) -> tuple[Way, ...]:
    """Every way that young go; those with none stay through all stages and leave for nothing."""
    found = [
        Way(gone, kept, part, unsold / raised if raised else 0.0, brings * (1 - commission_frac), left)
        for gone, kept, part, raised, unsold, brings, left in zip(
            gone_d, kept_d, way_frac, raised_per_wk, unsold_per_wk, brings_money, unsold_money, strict=True
        )
    ]
    if unplaced_frac > 1e-9:
        found.append(Way(sum(days for days, _ in lives), 0.0, unplaced_frac, 1.0, 0.0, 0.0))
    return tuple(found)


@figure("Raised a week, in all", formula="Σ {raised_per_wk}", source="balance", kind="ratio")
def all_raised_per_wk(raised_per_wk: tuple[float, ...]) -> float:
    return sum(raised_per_wk)


@figure("Sold a week, in all", formula="Σ {sold_per_wk}", source="balance", kind="ratio")
def all_sold_per_wk(sold_per_wk: tuple[float, ...]) -> float:
    return sum(sold_per_wk)


@check(
    "Every young one has a way to go",
    stage="sale",
    judges="unplaced_frac",
    mends=("sales.*.part_frac",),
)
def all_placed(unplaced_frac: float) -> Verdict:
    if unplaced_frac <= 1e-9:
        return Verdict(
            "holds",
            1.0,
            say("all have one"),
            say("Every young one that is raised is sold, or said to go somewhere."),
        )
    reason = say(
        "{share} of the young go nowhere: nobody buys them at any size. They are grown up here and given away; say where they go.",
        share=of(unplaced_frac, "unplaced_frac"),
    )
    return Verdict(
        "tight", -unplaced_frac, say("{share} go nowhere", share=of(unplaced_frac, "unplaced_frac")), reason
    )


@check(
    "Buyers for them",
    stage="sale",
    glass="demand",
    judges="all_sold_per_wk",
    mends=("sales.*.buyers_wk", "broods.most_of_batch"),
    caution="Selling, shipping and some kinds ask for permits, and income for tax: local law decides. Nothing is released, ever.",
)
def demand_meets(all_raised_per_wk: float, all_sold_per_wk: float, purpose: str) -> Verdict:
    if all_raised_per_wk <= 0:
        raise NamedCase("nothing_raised")
    unsold = 1 - all_sold_per_wk / all_raised_per_wk
    reason = say(
        "{raised} a week are raised, {sold} sold: {share} stay until they are given away, grow on and fill tanks.",
        raised=of(all_raised_per_wk, "all_raised_per_wk", "ratio"),
        sold=of(all_sold_per_wk, "all_sold_per_wk", "ratio"),
        share=Term(max(0.0, unsold), "share"),
    )
    verdict = no_harm(at_most(max(0.0, unsold), UNSOLD_FRAC, "share", reason))
    return replace(verdict, state="holds") if purpose == "line" else verdict


@step()
def sale_result(
    all_raised_per_wk: float, all_sold_per_wk: float, ready_d: tuple[float, ...], kind: Species
) -> Sentence:
    if not ready_d:
        return say("Nothing is sold: say at what size who takes them.")
    return say(
        "{raised} a week are raised and {sold} sold, the first at {age}.",
        raised=of(all_raised_per_wk, "all_raised_per_wk", "ratio"),
        sold=of(all_sold_per_wk, "all_sold_per_wk", "ratio"),
        age=Term(round(min(ready_d)), "days"),
    )
