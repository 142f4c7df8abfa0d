"""Workers for what takes the processor: a request that computes holds up neither the server nor many others."""

import asyncio
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from typing import TypeVar

from loquen.store.faults import Busy

Answer = TypeVar("Answer")
WORKERS = 2
MOST_WAITING = 200
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


def aside(work: Callable[[], None]) -> None:
    """Have some work done when a worker is free; nobody waits for it."""
    workers.submit(work)


def stop() -> None:
    """Let go of what still waits."""
    workers.shutdown(wait=False, cancel_futures=True)
