"""A house of 250 systems with a long log: what each page costs the processor, and how soon it is there."""

import time
from datetime import UTC, datetime, timedelta

from loquen.core.events.kinds.keeping import Fed
from loquen.core.events.kinds.water import Changed, Read
from loquen.store.database import open_database
from loquen.store.documents import systems
from loquen.store.happened import ledger
from tests.e2e.server import Server
from tests.rooms import many
from tests.soak.telling import processor_s, said

SYSTEMS, ENTRIES = 250, 416
TARGETS = {"round": 0.6, "tick": 0.06, "supplies": 0.3, "calendar": 1.5}


def filled(path):
    many(path, SYSTEMS)
    database = open_database(path)
    now = datetime.now(UTC)
    kinds = (
        Changed(share=0.4),
        Fed(1.5),
        Read("nitrate", "20", "nitrate_drops"),
        Read("ph", "7.2"),
    )
    with database.reading() as session:
        ids = [row.id for row in systems.list_all(session)]
    for system_id in ids:
        lines = [ledger.new(kinds[n % len(kinds)], now - timedelta(hours=21 * n + 1)) for n in range(ENTRIES)]
        with database.writing() as session:
            ledger.write(session, system_id, lines)
    database.close()
    return path


def house(folder):
    server = Server(filled(folder / "large.db")).start()
    today = datetime.now(UTC).date().isoformat()
    query = {"today": today}

    def tick(n):
        row = {"id": f"soak-tick-{n}", "system_id": n + 2, "duty": "change", "due": today, "day": today}
        at = datetime.now(UTC).isoformat()
        return server.http.post("/api/round/ticks", json={"ticks": [{**row, "at": at}]}, timeout=120)

    asked = {
        "round": lambda _: server.http.get("/api/round", params=query, timeout=300),
        "tick": tick,
        "supplies": lambda _: server.http.get("/api/round/supplies", params=query, timeout=120),
        "calendar": lambda _: server.http.get("/api/round/calendar/everybody.ics", params=query, timeout=120),
    }
    was = {"round": "5.5 s", "tick": "3.0 s", "supplies": "", "calendar": "15.7 s"}
    try:
        first, began = processor_s(server), time.monotonic()
        asked["round"](0)
        said(
            f"{SYSTEMS} systems, {SYSTEMS * ENTRIES} entries: the first round",
            "",
            f"{processor_s(server) - first:.1f} s of processor, {time.monotonic() - began:.1f} s",
        )
        for name, ask in asked.items():
            ask(8)
            took = []
            for n in range(3):
                before = processor_s(server)
                ask(n)
                took.append(processor_s(server) - before)
            target = f"(target {TARGETS[name]:g} s of processor)"
            said(f"{name} {target}", was[name], f"{sorted(took)[1]:.2f} s")
    finally:
        server.kill()
