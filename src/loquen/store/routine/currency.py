"""How money is written in this house: a symbol, its place, and the digits that are shown."""

import json
from dataclasses import asdict, dataclass

from sqlmodel import Session

from loquen.store.routine import house

CURRENCY = "currency"


@dataclass(frozen=True, slots=True)
class Currency:
    """A symbol (or none), whether it stands before the number, and digits after the point."""

    symbol: str = ""
    before: bool = False
    digits: int = 2


def read(session: Session) -> Currency:
    """As it was entered; a plain number where nothing was."""
    text = house.read(session, CURRENCY)
    try:
        return Currency(**json.loads(text)) if text else Currency()
    except (ValueError, TypeError):
        return Currency()


def put(session: Session, currency: Currency) -> None:
    house.put(session, CURRENCY, json.dumps(asdict(currency)))
