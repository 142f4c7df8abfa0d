"""The guard at the door: only this machine's own pages may ask, nothing oversized, and every answer carries the policy."""

import asyncio
import json
import logging
import re
from collections.abc import Iterable

from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from loquen.api.wire.refusals import AGAIN_S, FAILED, FROM_ELSEWHERE, STOPPING, TOO_LARGE, Refusal

MOST_BYTES = 1_000_000
TABLE = re.compile(r"/api/systems/\d+/log/(preview|table)")
MOST_OF_A_TABLE = 10_000_000
"""A table of the four million letters that a page sends, with what their quoting adds."""
SLOWEST_READER_S = 30.0
LOCAL_HOSTS = {"127.0.0.1", "localhost", "[::1]"}
POLICY = (
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; object-src 'none'; "
    "base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
)
GUARDING = {
    "Content-Security-Policy": POLICY,
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
}
log = logging.getLogger("loquen")


class Guard:
    """An application behind the guard. A HEAD is answered as the GET that it stands for, without the body."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        bare = scope["method"] == "HEAD"
        begun = ended = False

        async def send_guarded(message: Message) -> None:
            nonlocal begun, ended
            if message["type"] == "http.response.start":
                begun = True
                headers = MutableHeaders(scope=message)
                headers.update(GUARDING)
                headers.setdefault("Cache-Control", "no-store")
            else:
                ended = not message.get("more_body", False)
                message = {**message, "body": b""} if bare else message
            async with asyncio.timeout(SLOWEST_READER_S):
                await send(message)

        refusal = refused(scope)
        if refusal is None:
            try:
                await self.app({**scope, "method": "GET"} if bare else scope, receive, send_guarded)
            except asyncio.CancelledError:
                if begun:
                    raise
                refusal = STOPPING
            except Exception:
                log.exception("%s %s failed", scope["method"], scope["path"])
                if begun and not ended:
                    raise
                refusal = None if ended else FAILED
        if refusal is not None:
            await answer(refusal, send_guarded)


def refused(scope: Scope) -> Refusal | None:
    """Why a request is not served; None for one that is.

    Origin and Sec-Fetch-Site are sent by browsers alone: what another page asks, even one of another port of this
    machine, is refused. A link to a page may be followed from anywhere.
    """
    headers = Headers(scope=scope)
    host = headers.get("host", "")
    if host.rsplit(":", 1)[0] not in LOCAL_HOSTS or headers.get("origin") not in (None, f"http://{host}"):
        return FROM_ELSEWHERE
    link = headers.get("sec-fetch-mode") == "navigate" and not scope["path"].startswith("/api/")
    if headers.get("sec-fetch-site", "none") not in ("same-origin", "none") and not link:
        return FROM_ELSEWHERE
    length = headers.get("content-length")
    if "transfer-encoding" in headers or (
        length is not None
        and (not length.isascii() or not length.isdigit() or int(length[:20]) > most_of(scope["path"]))
    ):
        return TOO_LARGE
    return None


def most_of(path: str) -> int:
    """So many bytes a request may have."""
    return MOST_OF_A_TABLE if TABLE.fullmatch(path) else MOST_BYTES


async def answer(refusal: Refusal, send: Send) -> None:
    """A fault as the API tells one."""
    status, code, text = refusal
    body = json.dumps(
        {"code": code, "sentence": {"text": text, "terms": {}}, "fields": [], "current": None}
    ).encode()
    headers: Iterable[tuple[bytes, bytes]] = [
        (b"content-type", b"application/json"),
        (b"content-length", str(len(body)).encode()),
    ]
    again = [(b"retry-after", str(AGAIN_S).encode())] if status == 503 else []
    await send({"type": "http.response.start", "status": status, "headers": [*headers, *again]})
    await send({"type": "http.response.body", "body": body})
