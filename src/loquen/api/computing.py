"""Workers for what takes the processor: a request that computes holds up neither the server nor many others."""

import asyncio
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from contextvars import copy_context
from threading import Event
from typing import TypeVar

from fastapi import Request, Response

from loquen.core.graph.giving_up import GivenUp, nobody_waits
from loquen.store.faults import Busy

Answer = TypeVar("Answer")
WORKERS = 2
MOST_WAITING = 200
ASKED_EVERY_S = 0.02
NOBODY_THERE = 499
workers = ThreadPoolExecutor(WORKERS, thread_name_prefix="computing")
waiting: set[object] = set()


async def computed(work: Callable[[], Answer]) -> Answer:
    """What some work comes to, done by a worker; raise Busy when too much waits already."""
    if len(waiting) >= MOST_WAITING:
        raise Busy
    place = object()
    waiting.add(place)
    try:
        return await asyncio.get_running_loop().run_in_executor(workers, work)
    finally:
        waiting.discard(place)


async def computed_while(request: Request, work: Callable[[], Response]) -> Response:
    """As computed, for as long as whoever asked waits for it: work of which a page has let go ends at its next step."""
    gone = Event()

    def heeding() -> Response:
        nobody_waits.set(gone.is_set)
        return work()

    answer = asyncio.ensure_future(computed(lambda: copy_context().run(heeding)))
    while not (await asyncio.wait({answer}, timeout=ASKED_EVERY_S))[0]:
        if await request.is_disconnected():
            gone.set()
            break
    try:
        return await answer
    except GivenUp:
        return Response(status_code=NOBODY_THERE)


def aside(work: Callable[[], None]) -> None:
    """Have some work done when a worker is free; nobody waits for it."""
    workers.submit(work)


def stop() -> None:
    """Let go of what still waits."""
    workers.shutdown(wait=False, cancel_futures=True)
