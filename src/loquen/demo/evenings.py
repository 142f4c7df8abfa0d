"""The volunteers of Sluice Street and their evenings: who comes when, and what was ticked of late."""

from collections.abc import Iterable
from datetime import datetime, timedelta

from sqlmodel import Session

from loquen.core.events.kinds.keeping import SeenTo
from loquen.store.happened import ledger
from loquen.store.routine import rounds

HELPERS = (
    ("Ida", "Mon,Thu", 18.0),
    ("Bram", "Tue,Fri", 18.5),
    ("Noor", "Wed,Sat", 18.0),
    ("Tove", "Thu,Sun", 18.0),
    ("Emil", "Mon,Sat", 17.5),
    ("Rosa", "Tue,Sun", 18.0),
)
DONE_AGO = {
    "glass": (2, 9, 4, 7, 5, 3),
    "top_up": (3, 5, 8, 2, 6, 7),
    "thin": (12, 9, 15, 4, 14, 6),
    "read.temperature": (6, 8, 3, 5, 2, 9),
    "read.kh": (3, 6, 10, 4, 16, 8),
    "rinse.0": (19, 40, 24, 12, 15, 11),
    "rinse.1": (19, 12, 9, 12, 15, 11),
    "rinse.sump": (61, 61, 61, 88, 61, 61),
}
"""Days since each was last done, system by system: some of it is late."""


COUNTED = (
    ("conditioner", 1000.0, 19, 5),
    ("food.flakes", 40.0, 10, 7),
    ("salt", 4000.0, 60, 7),
    ("test.nitrate", 70.0, 25, 10),
)
"""What was counted of what is used up: how much, how many days ago, and how long an order takes."""


def fill(session: Session, system_ids: Iterable[int], now: datetime) -> None:
    """Keep the helpers, and when each duty that is counted from its last time was last ticked."""
    rounds.put_helpers(session, HELPERS)
    for key, amount, counted_ago, lead in COUNTED:
        rounds.put_stock(session, key, amount, (now - timedelta(days=counted_ago)).date().isoformat(), lead)
    for place, system_id in enumerate(system_ids):
        for turn, (key, ago) in enumerate(DONE_AGO.items()):
            at = now - timedelta(days=ago[place % len(ago)])
            day, who = at.date().isoformat(), HELPERS[(place + turn) % len(HELPERS)][0]
            ticked = ledger.new(
                SeenTo(), at, duty=key, due=day, day=day, done_by=who, once=f"demo-{system_id}-{key}"
            )
            rounds.add_tick(session, system_id, ticked)
