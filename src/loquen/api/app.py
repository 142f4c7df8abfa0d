"""The application: routes, faults, the guard at the door, and the built pages."""

from collections.abc import Awaitable, Callable
from pathlib import Path

from fastapi import FastAPI, Request, Response
from fastapi.responses import FileResponse, JSONResponse
from sqlalchemy import Engine

from loquen import api
from loquen.api import errors
from loquen.api.routes import library, sheets, systems

WEB = Path(api.__file__).parent.parent / "web_dist"
MOST_BYTES = 1_000_000
LOCAL_HOSTS = {"127.0.0.1", "localhost", "[::1]"}
POLICY = (
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; object-src 'none'; "
    "base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
)


def create_app(engine: Engine, web: Path = WEB) -> FastAPI:
    """The application on one database."""
    app = FastAPI(title="Loquen", version="0.1.0", docs_url=None, redoc_url=None, openapi_url="/api/openapi.json")
    app.state.engine = engine
    errors.install(app)
    app.middleware("http")(guard)
    for routes in (library, sheets, systems):
        app.include_router(routes.router)
    app.api_route("/api/{rest:path}", methods=["GET", "POST", "PUT", "DELETE"], include_in_schema=False)(
        no_such_route
    )
    app.get("/{path:path}", include_in_schema=False)(pages(web))
    return app


async def guard(request: Request, call_next: Callable[[Request], Awaitable[Response]]) -> Response:
    """Only this machine's own pages may ask; nothing oversized; a strict content policy."""
    host = request.headers.get("host", "").rsplit(":", 1)[0]
    origin = request.headers.get("origin")
    if host not in LOCAL_HOSTS or (
        origin is not None and origin.split("://")[-1].rsplit(":", 1)[0] not in LOCAL_HOSTS
    ):
        return JSONResponse({"detail": "Loquen answers this machine only."}, status_code=403)
    if int(request.headers.get("content-length") or 0) > MOST_BYTES:
        return JSONResponse({"detail": "That is too large."}, status_code=413)
    response = await call_next(request)
    response.headers["Content-Security-Policy"] = POLICY
    response.headers["X-Content-Type-Options"] = "nosniff"
    response.headers["Referrer-Policy"] = "no-referrer"
    return response


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
