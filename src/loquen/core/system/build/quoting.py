"""What parts come to for somebody who has them built: prices as entered, hours, and a margin on both."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from loquen.core.graph.sheet import Sheet
from loquen.core.system.build.buying import PartLine, parts


@dataclass(frozen=True, slots=True)
class PricedLine:
    """A part with its price of one and what all of it costs, spares too; None where no price is entered."""

    label: str
    quantity: float
    unit: str
    spare: int
    where: str
    price_money: float | None
    sum_money: float | None


@dataclass(frozen=True, slots=True)
class Quote:
    """What a build costs; `unpriced` parts are not in it."""

    lines: tuple[PricedLine, ...]
    parts_money: float
    unpriced: int
    hours_money: float
    margin_money: float
    whole_money: float


def quote(
    lines_of: Iterable[PartLine],
    prices: Mapping[str, float],
    *,
    build_h: float,
    hour_money: float,
    margin_frac: float,
) -> Quote:
    """Parts with their spares at the prices entered, by the words they are listed under, the hours, and the margin on both."""
    lines = []
    for part in lines_of:
        price = prices.get(part.label)
        whole = None if price is None else (part.quantity + part.spare) * price
        lines.append(PricedLine(part.label, part.quantity, part.unit, part.spare, part.where, price, whole))
    known = [line.sum_money for line in lines if line.sum_money is not None]
    hours = build_h * hour_money
    margin = (sum(known) + hours) * margin_frac
    return Quote(tuple(lines), sum(known), len(lines) - len(known), hours, margin, sum(known) + hours + margin)


def system_quote(sheet: Sheet, prices: Mapping[str, float]) -> Quote:
    """What a system costs to build for somebody."""
    own = sheet.root.building
    return quote(parts(sheet), prices, build_h=own.build_h, hour_money=own.hour_money, margin_frac=own.margin_frac)
