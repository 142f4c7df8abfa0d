"""Ventures as a root."""

from typing import Any

from loquen.checked.days import day_of
from loquen.checked.documents import A_VENTURE
from loquen.core.graph.sheet import Sheet
from loquen.core.model.roots.venture import Venture
from loquen.core.model.roots.venture_conflicts import conflicts
from loquen.house.breeding import view
from loquen.house.breeding.schema import OnADay, VentureAnswer
from loquen.house.documents.root import Root
from loquen.house.house import Visit
from loquen.store.tables import VENTURE


def sheet(visit: Visit, venture: Venture, asked: Any) -> Sheet[Venture]:
    """Its sheet in its place, with the births of the register."""
    return view.whole_sheet(known(visit), venture, day_of(asked.today), visit.library)


def answer(visit: Visit, venture: Venture, asked: Any) -> VentureAnswer:
    return view.view(known(visit), venture, day_of(asked.today), visit.library)


def known(visit: Visit) -> view.Kept:
    with visit.reading() as session:
        return view.kept(visit, session)


VENTURES: Root[Venture] = Root(
    VENTURE, "venture", "/api/ventures", "/api/breeding", A_VENTURE, conflicts, sheet, answer, VentureAnswer, OnADay
)
