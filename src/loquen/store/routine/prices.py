"""What parts cost, entered once for every room and system of the house."""

from sqlmodel import Session, select

from loquen.store.tables import PriceRow


def everything(session: Session) -> dict[str, float]:
    """Price of one by the words that a part is listed under."""
    return {row.part: row.money for row in session.exec(select(PriceRow)) if isinstance(row.money, int | float)}


def put(session: Session, part: str, money: float | None) -> None:
    """Keep a price, or forget it where it is None."""
    row = session.get(PriceRow, part)
    if money is None:
        if row is not None:
            session.delete(row)
    elif row is None:
        session.add(PriceRow(part=part, money=money))
    else:
        row.money = money
        session.add(row)
    session.flush()
