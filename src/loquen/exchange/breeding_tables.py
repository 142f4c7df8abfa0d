"""What ventures are worth, and who gets which tank, as tables. Money is plain numbers in the house's own currency."""

from collections.abc import Iterable

from loquen.core.growout.compare import SHOW, Compared
from loquen.core.growout.rack import RackPlan
from loquen.core.model.inputs.quantity import as_text
from loquen.exchange.tables import Cell, Page

WORTH = (
    "venture",
    "kind",
    "a tank and week, low",
    "likely",
    "high",
    "an hour",
    "a tank and week, hours unpaid",
    "tanks",
    "first sale",
    "most laid out",
    "undecided",
    "against it",
)
SWINGS = ("venture", "what moves it", "a tank and week, at its bad end", "at its good end")
PLACED = ("tank", "litres", "venture", "alone a week", "why")
SHARES = ("venture", "kind", "tanks", "sold a week", "could sell", "buyers are met", "left a week")


def money(value: float | None) -> Cell:
    return "" if value is None else round(value, 2)


def worth_pages(rows: Iterable[Compared]) -> list[Page]:
    """The comparison, and what moves each venture most."""
    rows = tuple(rows)
    return [
        (
            "Worth",
            WORTH,
            [
                (
                    row.name if row.venture != SHOW else f"{row.name}, left as it is",
                    row.common,
                    money(row.low_money),
                    money(row.likely_money),
                    money(row.high_money),
                    money(row.hour_money),
                    money(row.unpaid_money),
                    "" if row.tanks is None else row.tanks,
                    row.first_sale,
                    money(row.laid_out_money),
                    "yes" if row.undecided else "no",
                    "; ".join(as_text(sentence, {}) for sentence in row.against),
                )
                for row in rows
            ],
        ),
        (
            "What moves it",
            SWINGS,
            [
                (row.name, swing.what, money(swing.low_money), money(swing.high_money))
                for row in rows
                for swing in row.swings
            ],
        ),
    ]


def rack_pages(plan: RackPlan | None) -> list[Page]:
    """Each tank with who is bred in it and why, and each venture with what it sells."""
    names = {share.venture: share.name for share in plan.shares} if plan else {}
    return [
        (
            "Tanks",
            PLACED,
            [
                (
                    tank.name,
                    round(tank.litres, 1),
                    names.get(tank.venture, "empty"),
                    money(tank.alone_money),
                    as_text(tank.reason, {}),
                )
                for tank in (plan.placed if plan else ())
            ],
        ),
        (
            "Ventures",
            SHARES,
            [
                (
                    share.name,
                    share.common,
                    share.tanks,
                    round(share.sold_wk, 2),
                    round(share.sellable_wk, 2),
                    "yes" if share.capped else "no",
                    money(share.margin_money),
                )
                for share in (plan.shares if plan else ())
            ],
        ),
    ]
