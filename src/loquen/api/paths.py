"""The paths that there are: what asks for another is answered before any route is looked at, and all are made ready once."""

import asyncio
import re
from collections.abc import Iterable
from contextlib import suppress
from typing import Any

from fastapi import APIRouter, FastAPI
from starlette.exceptions import HTTPException
from starlette.routing import compile_path
from starlette.types import ASGIApp, Receive, Scope, Send

from loquen.api.wire.faults import no_such_route

NOT_THERE = "/there/is/none"


class KnownPaths:
    """An application behind the list of its paths. Its framework makes a route ready when it is first compared with a
    request; a path that is none would be compared with all of them, while nobody else is served."""

    def __init__(self, app: ASGIApp, patterns: Iterable[re.Pattern[str]]) -> None:
        self.app = app
        self.patterns = tuple(patterns)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] == "http" and not any(pattern.match(scope["path"]) for pattern in self.patterns):
            await no_such_route(scope["path"])(scope, receive, send)
        else:
            await self.app(scope, receive, send)


def patterns_of(routers: Iterable[APIRouter], more: Iterable[str] = ()) -> list[re.Pattern[str]]:
    """What the paths of some routers look like, each once."""
    paths = {route.path for router in routers for route in router.routes if hasattr(route, "path")}
    return [compile_path(path)[0] for path in sorted({*paths, *more})]


def make_ready(api: FastAPI) -> None:
    """Have every route made ready, away from the loop that serves: a path that is none is compared with all of them."""

    async def receive() -> dict[str, Any]:
        return {"type": "http.request", "body": b"", "more_body": False}

    async def send(_: Any) -> None:
        return

    scope: dict[str, Any] = {
        "type": "http", "method": "GET", "path": NOT_THERE, "raw_path": NOT_THERE.encode(), "query_string": b"",
        "headers": [], "app": api, "root_path": "", "scheme": "http", "http_version": "1.1", "server": ("127.0.0.1", 0),
    }  # fmt: skip
    with suppress(HTTPException):
        asyncio.run(api.router(scope, receive, send))
