"""Serving a database: pages go out while the API behind them is still being loaded and wired."""

import asyncio
import gc
import signal
import socket
import sys
from collections.abc import Callable
from pathlib import Path
from threading import Event, Thread
from typing import TYPE_CHECKING

import uvicorn
from starlette.types import ASGIApp, Receive, Scope, Send

from loquen.api import computing
from loquen.serving.guard import Guard
from loquen.serving.pages import Pages
from loquen.serving.protocol import TimedProtocol

if TYPE_CHECKING:
    from fastapi import FastAPI

    from loquen.house.house import House

GRACE_S = 5
"""How long requests that are under way may still take once the server is told to stop."""


FIRST_ANSWER_S = 3.0
"""So long what is done behind waits for somebody to ask; then it is done in any case."""


class Later:
    """An application that is made in a thread; whoever asks for it waits. What it does behind begins after its first answer."""

    def __init__(self, make: Callable[[], ASGIApp], then: Callable[[], None], failed: Callable[[], None]) -> None:
        self.make = make
        self.then = then
        self.failed = failed
        self.app: ASGIApp | None = None
        self.fault: Exception | None = None
        self.answered = Event()

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] == "lifespan":
            await self.live(receive, send)
            return
        await self.made.wait()
        if self.app is None:
            raise RuntimeError("the application could not be made") from self.fault
        try:
            await self.app(scope, receive, send)
        finally:
            self.answered.set()

    async def live(self, receive: Receive, send: Send) -> None:
        self.made = asyncio.Event()
        await receive()
        loop = asyncio.get_running_loop()
        Thread(target=lambda: self.work(loop), daemon=True).start()
        await send({"type": "lifespan.startup.complete"})
        await receive()
        await send({"type": "lifespan.shutdown.complete"})

    def work(self, loop: asyncio.AbstractEventLoop) -> None:
        try:
            self.app = self.make()
        except Exception as fault:
            self.fault = fault
            self.failed()
        loop.call_soon_threadsafe(self.made.set)
        if self.fault is None:
            self.answered.wait(FIRST_ANSWER_S)
            self.then()


def serve(path: Path, ours: socket.socket, with_demo: bool, changer: tuple[int, Path] | None = None) -> None:
    """Serve a database on a socket until told to stop; then leave one whole file."""
    opened: list[tuple[House, FastAPI]] = []

    def make() -> ASGIApp:
        from loquen.api.app import create_api
        from loquen.devices.changer.link import ControllerLink
        from loquen.house.house import House
        from loquen.store.database import open_database

        database = open_database(path)
        house = House(database)
        made = create_api(house, ControllerLink(*changer) if changer else None)
        opened.append((house, made))
        if with_demo:
            from loquen.demo import sluice_street

            sluice_street.fill(database)
        return made

    def failed() -> None:
        server.should_exit = True

    def then() -> None:
        warm_up(*opened[0])

    api = Later(make, then, failed)
    config = uvicorn.Config(
        Guard(Pages(api)),
        http=TimedProtocol,
        log_level="warning",
        timeout_graceful_shutdown=GRACE_S,
        ws="none",
        proxy_headers=False,
        server_header=False,
    )
    server = uvicorn.Server(config)
    for told in (signal.SIGTERM, signal.SIGINT):
        signal.signal(told, lambda *_: sys.exit(0))  # what the server raises again once it has shut down
    try:
        server.run(sockets=[ours])
    finally:
        computing.stop()
        for house, _ in opened:
            house.database.close()
    if api.fault is not None:
        raise api.fault


def warm_up(house: "House", api: "FastAPI") -> None:
    """Make ready what the next pages need, and leave it out of later clean-ups; standing aside for whoever asks meanwhile.

    Then the lines of the list are made, one whenever nobody asks, and what each system wants done.
    """
    from loquen.api.paths import make_ready
    from loquen.demo import sluice_street
    from loquen.house.ahead import make_ahead
    from loquen.house.round.cares import care
    from loquen.house.sheet import view
    from loquen.house.systems.listing import line_of
    from loquen.store.documents import systems

    visit = house.visited()

    def ready() -> None:
        make_ready(api)
        view.view(sluice_street.long_hall(), house.library)
        clean_up_seldom()
        with visit.reading() as session:
            present = systems.list_all(session)
        make_ahead(visit, line_of, present, computing.aside)
        make_ahead(visit, care, present, computing.aside)

    computing.aside(ready)


def clean_up_seldom() -> None:
    """Leave what is loaded out of later clean-ups, and let a sheet's thousands of small values come and go between two."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(20_000, 20, 20)
