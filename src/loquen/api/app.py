"""The application: routes, faults, the guard at the door, and the built pages."""

from collections.abc import Awaitable, Callable
from importlib.metadata import version
from pathlib import Path

from fastapi import FastAPI, Response
from fastapi.responses import FileResponse, JSONResponse
from sqlalchemy import Engine
from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from loquen import api
from loquen.api import errors
from loquen.api.routes import building, library, sheets, sump, systems, waters

WEB = Path(api.__file__).parent.parent / "web_dist"
MOST_BYTES = 1_000_000
LOCAL_HOSTS = {"127.0.0.1", "localhost", "[::1]"}
POLICY = (
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; object-src 'none'; "
    "base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
)
GUARDING = {
    "Content-Security-Policy": POLICY,
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
}


def create_app(engine: Engine, web: Path = WEB) -> FastAPI:
    """The application on one database."""
    app = FastAPI(
        title="Loquen", version=version("loquen"), docs_url=None, redoc_url=None, openapi_url="/api/openapi.json"
    )
    app.state.engine = engine
    errors.install(app)
    app.add_middleware(Guard)
    for routes in (library, sheets, sump, building, systems, waters):
        app.include_router(routes.router)
    app.api_route("/api/{rest:path}", methods=["GET", "POST", "PUT", "DELETE"], include_in_schema=False)(
        no_such_route
    )
    app.get("/{path:path}", include_in_schema=False)(pages(web))
    return app


class Guard:
    """Only this machine's own pages may ask; nothing oversized; a strict content policy."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        refusal = refused(Headers(scope=scope))
        if refusal is not None:
            await refusal(scope, receive, send)
            return

        async def send_guarded(message: Message) -> None:
            if message["type"] == "http.response.start":
                MutableHeaders(scope=message).update(GUARDING)
            await send(message)

        await self.app(scope, receive, send_guarded)


def refused(headers: Headers) -> Response | None:
    """The answer to a request from elsewhere or of too large a body; None for one to serve."""
    host = headers.get("host", "").rsplit(":", 1)[0]
    origin = headers.get("origin")
    if host not in LOCAL_HOSTS or (
        origin is not None and origin.split("://")[-1].rsplit(":", 1)[0] not in LOCAL_HOSTS
    ):
        return JSONResponse({"detail": "Loquen answers this machine only."}, status_code=403)
    length = headers.get("content-length")
    chunked = "transfer-encoding" in headers
    if chunked or (length is not None and (not length.isdigit() or int(length) > MOST_BYTES)):
        return JSONResponse({"detail": "That is too large, or of unknown size."}, status_code=413)
    return None


async def no_such_route(rest: str) -> JSONResponse:
    return JSONResponse({"detail": f"There is no /api/{rest}."}, status_code=404)


def pages(web: Path) -> Callable[[str], Awaitable[Response]]:
    """The built files; every other path is the application's page."""

    async def page(path: str) -> Response:
        wanted = (web / path).resolve()
        if wanted.is_file() and wanted.is_relative_to(web.resolve()):
            lasting = path.startswith("assets/")
            caching = "public, max-age=31536000, immutable" if lasting else "no-cache"
            return FileResponse(wanted, headers={"Cache-Control": caching})
        index = web / "index.html"
        if not index.is_file():
            return JSONResponse({"detail": "The pages are not built; ./run builds them."}, status_code=503)
        return FileResponse(index, headers={"Cache-Control": "no-cache"})

    return page
