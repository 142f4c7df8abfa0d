"""What the parts of the soak share: a line of the report, requests at once, what a process has worked."""

from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from threading import Barrier

import httpx


def said(what, was, now):
    print(f"{what:<58} {was:<42} {now}", flush=True)


def ms(seconds):
    return f"{seconds * 1000:.0f} ms"


def at_once(acts):
    """The answers to requests sent at the same moment."""
    start = Barrier(len(acts))

    def run(act):
        start.wait()
        return act()

    with ThreadPoolExecutor(len(acts)) as pool:
        return list(pool.map(run, acts))


def client(server):
    return httpx.Client(base_url=server.url, trust_env=False, timeout=60)


def codes(answers):
    return sorted(answer.status_code for answer in answers)


def processor_s(server):
    """What a server has worked since it was started, in seconds of processor."""
    user, system = Path(f"/proc/{server.process.pid}/stat").read_text(encoding="utf-8").split()[13:15]
    return (int(user) + int(system)) / 100
