"""The built pages: their files, and the application's page for every other path. What is asked of /api goes on."""

from pathlib import Path

from starlette.responses import FileResponse, PlainTextResponse, Response
from starlette.types import ASGIApp, Receive, Scope, Send

import loquen

WEB = Path(loquen.__file__).parent / "web_dist"
LASTING = "public, max-age=31536000, immutable"


class Pages:
    """The pages' files in front of an API."""

    def __init__(self, api: ASGIApp, web: Path = WEB) -> None:
        self.api = api
        self.web = web.resolve()

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http" or scope["path"].startswith("/api/"):
            await self.api(scope, receive, send)
        else:
            await self.page(scope["method"], scope["path"])(scope, receive, send)

    def page(self, method: str, path: str) -> Response:
        if method != "GET":
            return PlainTextResponse("Pages can only be read.", status_code=405)
        found = self.file(path.lstrip("/"))
        if found is not None:
            return FileResponse(found, headers={"Cache-Control": LASTING if "/assets/" in path else "no-cache"})
        if path.startswith("/assets/"):
            return PlainTextResponse("There is no such file.", status_code=404)
        index = self.web / "index.html"
        if not index.is_file():
            return PlainTextResponse(
                "The pages are not built; ./run builds them.", status_code=503, headers={"Retry-After": "5"}
            )
        return FileResponse(index, headers={"Cache-Control": "no-cache"})

    def file(self, path: str) -> Path | None:
        """The built file at a path; None where there is none, or no file could be called that."""
        try:
            wanted = (self.web / path).resolve()
            return wanted if wanted.is_file() and wanted.is_relative_to(self.web) else None
        except (OSError, ValueError):
            return None
