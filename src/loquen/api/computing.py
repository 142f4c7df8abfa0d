"""Workers for what takes the processor, in lanes by how long it may take: quick work never stands behind long work.

Each lane has its own workers. The long lanes also stand aside: between two of their sheets they wait while a sheet, a tick
or a save is being made, for as long as that takes and no longer than a moment, so that they come to their end all the same.
"""

import asyncio
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from contextvars import copy_context
from threading import Event
from time import monotonic, sleep
from typing import TypeVar

from fastapi import Request, Response

from loquen.core.graph.giving_up import GivenUp, nobody_waits
from loquen.store.faults import Busy

Answer = TypeVar("Answer")
MOST_WAITING = 200
ASKED_EVERY_S = 0.02
ASIDE_S, LOOK_S = 0.1, 0.002
"""So long long work stands aside at a time, and so often it looks whether it may go on."""
NOBODY_THERE = 499


class Lane:
    """Some workers, and who waits for them or is served."""

    def __init__(self, name: str, workers: int) -> None:
        self.workers = ThreadPoolExecutor(workers, thread_name_prefix=name)
        self.waiting: set[object] = set()


QUICK = Lane("quick", 2)
"""Sheets, edits, ticks, saves, lists: what a hand waits for."""
PAGE = Lane("page", 2)
"""Pages over a whole house or a whole log: the round, the register, what a cycle will do."""
LONG = Lane("long", 2)
"""Searches, and documents that are laid out."""
DEVICE = Lane("device", 1)
"""What may keep silent: a device that does not answer holds up those who ask it alone."""
BEHIND = Lane("behind", 1)
"""What nobody waits for yet."""
LANES = (QUICK, PAGE, LONG, DEVICE, BEHIND)


async def computed(work: Callable[[], Answer], lane: Lane = QUICK) -> Answer:
    """What some work comes to, done by a worker of a lane; raise Busy when too much waits there already."""
    if len(lane.waiting) >= MOST_WAITING:
        raise Busy
    place = object()
    lane.waiting.add(place)
    try:
        return await asyncio.get_running_loop().run_in_executor(lane.workers, work)
    finally:
        lane.waiting.discard(place)


async def computed_while(request: Request, work: Callable[[], Response], lane: Lane = QUICK) -> Response:
    """As computed, for as long as whoever asked waits for it: work of which a page has let go ends at its next step."""
    gone = Event()

    def heeding() -> Response:
        nobody_waits.set(gone.is_set if lane is QUICK else lambda: stood_aside(gone))
        return work()

    answer = asyncio.ensure_future(computed(lambda: copy_context().run(heeding), lane))
    while not (await asyncio.wait({answer}, timeout=ASKED_EVERY_S))[0]:
        if await request.is_disconnected():
            gone.set()
            break
    try:
        return await answer
    except GivenUp:
        return Response(status_code=NOBODY_THERE)


def stood_aside(gone: Event | None = None) -> bool:
    """Let quick work go first for a moment; whether nobody waits any more."""
    until = monotonic() + ASIDE_S
    while QUICK.waiting and monotonic() < until and not (gone and gone.is_set()):
        sleep(LOOK_S)
    return gone is not None and gone.is_set()


def aside(work: Callable[[], None]) -> None:
    """Have some work done when nobody waits for anything else; nobody waits for it."""

    def behind() -> None:
        nobody_waits.set(stood_aside)
        work()

    BEHIND.workers.submit(lambda: copy_context().run(behind))


def stop() -> None:
    """Let go of what still waits."""
    for lane in LANES:
        lane.workers.shutdown(wait=False, cancel_futures=True)
