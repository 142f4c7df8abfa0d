"""Who lives in Sluice Street: the animals of its plans, since when and from whom, and what happened to some."""

from collections.abc import Iterable
from datetime import datetime, timedelta

from sqlmodel import Session

from loquen.core.events.kinds.lives import Arrived, Born, Died, Measured, Sold
from loquen.core.events.ledger import LifeEvent
from loquen.core.model.records.register import Resident
from loquen.core.model.roots.documents import document
from loquen.core.model.roots.plan import Plan
from loquen.store.happened import register

SOURCES = ("a breeder in the next town", "the club's auction", "our own broods", "a friend of the house")


def fill(session: Session, kept: Iterable[tuple[int, Plan]], now: datetime) -> None:
    """Write down the animals of the plans as groups, with the losses and the growth that their logs tell of."""
    turn = 0
    for system_id, plan in kept:
        for group in plan.animals:
            turn += 1
            by_age = group.size_by == "age"
            came = now - timedelta(days=30.44 * group.age_months if by_age else 150 + 37 * (turn % 5))
            resident = Resident(
                group.species,
                sex="unknown" if group.males is None else "mixed",
                source="our own broods" if by_age else SOURCES[turn % len(SOURCES)],
                born=day(came) if by_age else "",
            )
            lost = 2 if turn in (2, 5) else 0
            kind = Born if by_age else Arrived
            arrived = kind(
                day(came),
                group.number + lost,
                system_id,
                males=group.males,
                length_cm=group.length_cm if group.size_by == "length" else None,
                money=None if by_age else 2.5 + turn % 4,
            )
            rows: list[LifeEvent] = [arrived]
            if lost:
                rows.append(Died(day(came + timedelta(days=19)), lost, system_id, signs="white grains"))
            register.add(session, document(resident), rows)
    walk_b = list(kept)[2][0]
    young = Resident(
        "boeseman_rainbowfish", line="Marrow Bridge 2", source="our own broods", born=day(now - timedelta(days=210))
    )
    register.add(
        session,
        document(young),
        [
            Born(day(now - timedelta(days=210)), 9, walk_b),
            Measured(day(now - timedelta(days=120)), 1, walk_b, length_cm=2.4),
            Sold(day(now - timedelta(days=40)), 3, walk_b, money=6.0),
            Measured(day(now - timedelta(days=12)), 1, walk_b, length_cm=4.1),
        ],
    )


def day(at: datetime) -> str:
    return at.date().isoformat()
