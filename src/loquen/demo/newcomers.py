"""The four tubs of Sluice Street: who waits in them, who is to come, and what was dosed."""

from dataclasses import replace
from datetime import datetime, timedelta

from sqlmodel import Session

from loquen.core.events.kinds.keeping import SeenTo
from loquen.core.events.kinds.lives import Arrived
from loquen.core.model.records.quarantine import Arriving, TreatmentCourse, Tub
from loquen.core.model.records.register import Resident
from loquen.core.model.roots.documents import document
from loquen.core.model.roots.plan import Plan
from loquen.core.quarantine.tubs import new_tub
from loquen.demo.evenings import HELPERS
from loquen.store.documents import systems
from loquen.store.happened import ledger, register
from loquen.store.routine import quarantine, rounds

TUB_L, SPONGE_L = 18.0, 0.4


def fill(
    session: Session, hall: tuple[int, Plan], walk_b: tuple[int, Plan], shelf: tuple[int, Plan], now: datetime
) -> None:
    """Two tubs with seeded sponges and the Hall's warm tap water, two bare ones with the shelf's soft water."""
    tubs = []
    for turn, (_, like) in enumerate((hall, walk_b, shelf, shelf)):
        made = systems.create(
            session, document(new_tub(f"Tub {turn + 1}", TUB_L, 0.0 if turn > 1 else SPONGE_L, like))
        )
        quarantine.put_tub(session, made.id, document(Tub()))
        tubs.append(made.id)

    def on(days: int) -> str:
        return (now + timedelta(days=days)).date().isoformat()

    def waits(arriving: Arriving, since: int, cost: float) -> None:
        came = Arrived(on(since), arriving.number, arriving.tub, length_cm=arriving.length_cm, money=cost)
        kept = register.add(session, document(Resident(arriving.species, source=arriving.source)), [came])
        quarantine.arriving.add(session, document(replace(arriving, resident=kept.id)))

    waits(
        Arriving(
            "threadfin_rainbowfish", 8, hall[0], on(-20), True, 2.8, "a breeder in the next town", tub=tubs[0]
        ),
        -20,
        4.0,
    )
    waits(Arriving("crystal_shrimp", 10, shelf[0], on(-9), True, 1.6, "the club's auction", tub=tubs[2]), -9, 3.0)
    worm_drops = quarantine.courses.add(
        session,
        document(
            TreatmentCourse(
                tubs[0], "Worm drops, as its label says", on(-3), 1.0, "mL", 20.0, (1, 5), 7, equipment="grey net, the short hose"
            )
        ),
    )  # fmt: skip
    first = now - timedelta(days=3)
    rounds.add_tick(
        session,
        tubs[0],
        ledger.new(
            SeenTo(),
            first,
            duty=f"dose.{worm_drops}.1",
            due=on(-3),
            day=on(-3),
            done_by=HELPERS[0][0],
            once="demo-worm-drops",
        ),
    )
    for arriving in (
        Arriving("boeseman_rainbowfish", 6, hall[0], on(2), False, 4.0, "the club's auction"),
        Arriving("celebes_rainbowfish", 5, walk_b[0], on(2), False, 2.5, "the club's auction"),
        Arriving("crystal_shrimp", 20, shelf[0], on(5), True, 1.5, "a friend of the house"),
        Arriving("hillstream_loach", 4, hall[0], on(12), True, 4.5, "a shop two towns on", wait_d=42),
        Arriving("boeseman_rainbowfish", 2, hall[0], on(-4), True, 9.0, "our own broods", waived="Raised in Rope Walk B, which shares nets with the Hall anyway."),
    ):  # fmt: skip
        quarantine.arriving.add(session, document(arriving))
