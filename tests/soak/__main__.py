"""What broke once under kills, crowds, damage and odd input, tried on a running server: ./run soak, or parts of it.

Bounded in time and number, on loopback only. Prints each figure beside what it was before it was mended.
"""

import argparse
import json
import random
import sqlite3
import subprocess
import sys
import tempfile
import time
from dataclasses import replace
from pathlib import Path
from threading import Thread

import httpx

from loquen.core.model.roots.documents import document
from loquen.core.model.roots.plan import PLAN
from loquen.demo import sluice_street
from loquen.devices import water_reports
from loquen.store.database import open_database
from loquen.store.documents import systems
from tests.at_limits import odd_change, odd_plan
from tests.e2e.server import Server
from tests.rooms import DEMO, many, worst_plan
from tests.soak import around, large
from tests.soak.telling import at_once, client, codes, ms, processor_s, said

# Crowds -----------------------------------------------------------------------------------------


def crowds(server, rounds=60):
    clients = [client(server) for _ in range(56)]

    def saves(number, base, plan, how_many):
        bodies = [{"base": base, "plan": {**plan, "name": f"{base} {i}"}} for i in range(how_many)]
        return [
            lambda c=c, b=b: c.put(f"/api/systems/{number}", json=b) for c, b in zip(clients, bodies, strict=False)
        ]

    for how_many, was in ((2, "60 of 60 pairs 200 and 500"), (8, "351 of 480 a bare 500, 23 rounds two winners")):
        number, good = server.copy_of(2), 0
        for _ in range(rounds):
            now = server.http.get(f"/api/systems/{number}").json()
            came = at_once(saves(number, now["revision"], now["plan"], how_many))
            good += codes(came) == [200, *[409] * (how_many - 1)]
        said(f"{how_many} saves on one base: one wins, the others know", was, f"{good} of {rounds} rounds")
    number, good = server.copy_of(2), 0
    for n in range(rounds):
        now = server.http.get(f"/api/systems/{number}").json()
        body = {"base": now["revision"], "plan": {**now["plan"], "name": f"before {n}"}}
        base = server.http.put(f"/api/systems/{number}", json=body).json()["revision"]
        save = saves(number, base, now["plan"], 1)[0]
        came = at_once([save, lambda b=base: clients[1].post(f"/api/systems/{number}/undo", json={"base": b})])
        stands = server.http.get(f"/api/systems/{number}").json()["revision"]
        won = [answer.json()["revision"] for answer in came if answer.status_code == 200]
        good += codes(came) == [200, 409] and won == [stands]
    said(
        "a save beside an undo: one stands", "both said yes 60 times, 11 not current", f"{good} of {rounds} rounds"
    )
    began = time.monotonic()
    came = at_once([lambda c=c: c.get("/api/systems") for c in clients])
    took = time.monotonic() - began
    said("56 requests at once", "starved for 30 s", f"{codes(came).count(200)} answered in {took:.1f} s")


def kills(folder, how_many=25):
    """End the server in the middle of writing, and look for every write that it had answered."""
    server, lost, kept = Server(folder / "killed.db"), 0, 0
    for _ in range(how_many):
        server.start()
        acknowledged = []
        server.http.post("/api/systems/2/copy")
        stop = time.monotonic() + random.uniform(0.2, 2.0)

        def write(done=acknowledged, until=stop):
            with client(server) as ours:
                while time.monotonic() < until + 1:
                    try:
                        made = ours.post("/api/systems/2/copy")
                    except httpx.TransportError:
                        return
                    if made.status_code == 201:
                        done.append(made.json()["id"])

        writers = [Thread(target=write) for _ in range(4)]
        for writer in writers:
            writer.start()
        time.sleep(max(0.0, stop - time.monotonic()))
        server.kill()
        for writer in writers:
            writer.join()
        database = open_database(server.database)
        with database.reading() as session:
            present = {row.id for row in systems.list_all(session)}
        database.close()
        lost += len(set(acknowledged) - present)
        kept += len(acknowledged)
    said(
        f"{how_many} kills in mid-write", "0 of 1575 lost (must hold)", f"{lost} of {kept} acknowledged writes lost"
    )


# Odd input --------------------------------------------------------------------------------------


def odd_plans(server, how_many, first=0):
    """Plans at the limits of every field; a fault that stays inside a figure counts too."""
    began, faults, refused, slowest = time.monotonic(), 0, 0, 0.0
    bases = [make() for make in DEMO]
    with client(server) as ours:
        for n in range(first, first + how_many):
            rng = random.Random(n)
            plan = odd_plan(rng) if n % 3 == 0 else odd_change(rng, bases[n % len(bases)])
            sent = time.monotonic()
            answer = ours.post("/api/sheet", json={"plan": json.loads(document(plan))})
            slowest = max(slowest, time.monotonic() - sent)
            inside = "Loquen failed to work this out" in answer.text
            faults += answer.status_code >= 500 or inside
            refused += answer.status_code == 422
            if answer.status_code >= 500 or inside:
                print(f"  plan {n}: {answer.status_code}", flush=True)
    took = time.monotonic() - began
    said(
        f"{how_many} plans at the limits of every field",
        "2 of 2500 and 89 of 9000 mutated failed",
        f"{faults} faults, {refused} refused, slowest {ms(slowest)} ({took:.0f} s)",
    )


def odd_reports(server, how_many=2000):
    rng, faults = random.Random(7), 0
    good = water_reports.report("marrow_bridge_winter")
    signs = ['"', ",", ";", "\t", "\r", "\n", "\0", "\ufeff", ".", "\u03bc", "\u00b5", "e", "-", "🐟"]
    with client(server) as ours:
        for _ in range(how_many):
            text = list(good)
            for _ in range(rng.randint(1, 4)):
                text[rng.randrange(len(text))] = rng.choice(signs)
            faults += ours.post("/api/waters/from-report", json={"text": "".join(text)}).status_code >= 500
    said(f"{how_many} mutated reports", "191 of 2000 a bare 500", f"{faults} faults")


# Size and speed ---------------------------------------------------------------------------------


def starting(folder):
    server = Server(folder / "start.db")
    for _ in range(2):
        began = time.monotonic()
        server.begin()
        while True:
            try:
                with httpx.Client(base_url=server.url, trust_env=False) as ours:
                    ours.get("/")
                opened = time.monotonic() - began
                break
            except httpx.TransportError:
                time.sleep(0.005)
        server.http.get("/api/systems", timeout=60)
        listed, worked = time.monotonic() - began, processor_s(server)
        server.http.close()
        server.http = httpx.Client(base_url=server.url, trust_env=False)
        server.process.terminate()
        server.process.wait(20)
    said(
        "from start to the first page",
        "2.2 to 3.6 s until the port was open",
        f"{opened:.2f} s; the list {listed:.2f} s, {worked:.1f} s of processor",
    )


def edits(folder, how_many=5000):
    path = folder / "edited.db"
    database = open_database(path)
    plan = sluice_street.long_hall()
    with database.writing() as session:
        saved = systems.create(session, document(plan))
    for n in range(how_many):
        with database.writing() as session:
            text = document(replace(plan, name=f"Long Hall {n}"))
            saved = systems.update(session, saved.id, saved.revision, text)
    with database.reading() as session:
        kept = len(systems.history(session, saved.id))
    database.close()
    size = path.stat().st_size / 1e6
    said(f"{how_many} edits of one system", "27 MB", f"{size:.1f} MB, {kept} revisions, 200 steps of undo")


def list_of_250(folder):
    server = Server(many(folder / "many.db", 250)).start()
    try:
        parts = []
        for query in ({}, {"find": "nitrate"}, {"find": "nitrate"}, {"order": "short", "count": 100}):
            began = time.monotonic()
            answer = server.http.get("/api/systems", params=query, timeout=60)
            parts.append(f"{ms(time.monotonic() - began)} {len(answer.content) / 1000:.0f} kB")
        said("list of 250: first part, a word cold, warm, ordered", "1.9 to 3.2 s, 877 kB", "; ".join(parts))
    finally:
        server.kill()


def worst(server):
    plan = json.loads(document(worst_plan()))

    def median(path, **more):
        took = []
        for _ in range(5):
            began = time.monotonic()
            answer = server.http.post(path, json={"plan": plan, **more}, timeout=60)
            took.append(time.monotonic() - began)
            assert answer.status_code in (200, 422), answer.text
        return ms(sorted(took)[2])

    said("the worst plan allowed, sheet (budget 300 ms)", "1.3 s, weekdays alone 4.7 s", median("/api/sheet"))
    said("its working (budget 600 ms)", "", median("/api/working", figure="dawn_oxygen_mg_l", target=5.0))
    said("its smallest sump", "9 s under load", median("/api/sump/smallest"))


def memory(server, sheets=600):
    """What stays after plans with many numbers of rows, and questions with made-up paths."""

    def resident():
        status = Path(f"/proc/{server.process.pid}/status").read_text(encoding="utf-8")
        return int(next(line.split()[1] for line in status.splitlines() if line.startswith("VmRSS"))) / 1000

    rng, full = random.Random(3), worst_plan()
    before = resident()
    for _ in range(sheets):
        rows = {
            name: rng.randint(0, PLAN.limits[name]) for name in ("animals", "filters", "bags", "sources", "run")
        }
        plan = replace(full, **{name: getattr(full, name)[:count] for name, count in rows.items()})
        server.http.post("/api/sheet", json={"plan": json.loads(document(plan))}, timeout=60)
    wired = resident()
    for n in range(100):
        junk = {f"made up {n} {i} {'x' * 200}": 1 for i in range(300)}
        server.http.post("/api/sheet", json={"plan": {"name": "x", "tank": junk}}, timeout=60)
    said(
        f"memory: {sheets} shapes of plan, then 100 requests of odd keys",
        "607 MB of wirings; 27 MB per 100 requests",
        f"{before:.0f} → {wired:.0f} → {resident():.0f} MB",
    )


def damage(folder):
    """A file that can not be opened: lines said, exit code, and whether anything of it was changed."""
    server = Server(folder / "whole.db").start()
    server.process.terminate()
    server.process.wait(20)
    whole = server.database.read_bytes()
    with sqlite3.connect(folder / "foreign.db") as file:
        file.execute("CREATE TABLE recipe (id INTEGER)")
    (folder / "cut.db").write_bytes(whole[:5000])
    (folder / "spoilt.db").write_bytes(whole[:4096] + random.Random(1).randbytes(8192) + whole[12288:])
    (folder / "letter.db").write_text("Dear keeper,")
    (folder / "newer.db").write_bytes(whole)
    with sqlite3.connect(folder / "newer.db") as file:
        file.execute("UPDATE alembic_version SET version_num = '0099'")
    good = 0
    for name in ("foreign", "cut", "spoilt", "letter", "newer"):
        path = folder / f"{name}.db"
        before = path.read_bytes()
        command = [sys.executable, "-m", "loquen.cli", "serve", "--db", str(path), "--port", str(server.port)]
        done = subprocess.run(command, capture_output=True, text=True, check=False, timeout=60)
        good += (len(done.stderr.splitlines()), done.stdout, done.returncode, path.read_bytes()) == (
            1,
            "",
            1,
            before,
        )
    said("5 files that can not be opened: one sentence, untouched", "70 to 479 lines, or adopted", f"{good} of 5")


def main():
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument(
        "--plans", type=int, default=1000, help="plans at the limits of every field; 10000 takes a while"
    )
    asked = parser.parse_args()
    said("what", "before", "now")
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        around.strange_answers(folder)
        around.strangers_at_the_valves()
        around.damaged_rows(folder)
        large.house(folder)
        starting(folder)
        damage(folder)
        edits(folder)
        list_of_250(folder)
        server = Server(folder / "soak.db").start()
        try:
            around.own_rows_at_once(server)
            around.table_while_saving(server)
            around.quick_beside_long(server)
            around.log_out_and_in(server)
            crowds(server)
            odd_reports(server)
            odd_plans(server, asked.plans)
            worst(server)
            memory(server)
        finally:
            server.kill()
        kills(folder)


if __name__ == "__main__":
    main()
