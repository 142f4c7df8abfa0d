"""The door of a simulated controller: who may ask it, and what is taken. The protocol is in docs/controller.md.

A valve that opens wets a floor, so that nothing is answered that does not show the token: no web page of any origin, no
other program's guess. A page can send a plain text anywhere on this machine; so JSON alone is taken, under the device's own
name, and never from a browser.
"""

import json
import os
import secrets
import threading
import time
from collections.abc import Callable, Mapping
from dataclasses import asdict
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any

from loquen.devices.changer.machine import FAULTS, MINUTES_D, Controller, Limits, number

MOST_BODY = 200_000
SLOWEST_S = 5.0
LOOK_S = 1.0
MOST_RUNS = 2000
"""So many runs are told at once; who wants more asks again from the last."""


class Refused(Exception):
    """Why a request is not answered: status and words."""

    def __init__(self, status: int, words: str) -> None:
        super().__init__(words)
        self.status = status


def handler_of(controller: Controller, token: str) -> type[BaseHTTPRequestHandler]:
    """What answers for a controller to those who have its token."""
    turn = threading.Lock()

    class Handler(BaseHTTPRequestHandler):
        timeout = SLOWEST_S

        def log_message(self, format: str, *args: Any) -> None:  # noqa: A002
            return

        def answer(self, status: int, body: Any) -> None:
            data = json.dumps(body).encode()
            self.send_response(status)
            self.send_header("Content-Type", "application/json")
            self.send_header("Content-Length", str(len(data)))
            self.end_headers()
            self.wfile.write(data)

        def let_in(self) -> None:
            """Raise Refused for whoever may not ask."""
            port = self.connection.getsockname()[1]
            if self.headers.get("Host") not in (f"127.0.0.1:{port}", f"localhost:{port}"):
                raise Refused(403, "that is not this device's name")
            if "Origin" in self.headers or "Sec-Fetch-Site" in self.headers:
                raise Refused(403, "no web page may ask")
            shown = self.headers.get("Authorization", "").encode("utf-8", "replace")
            if not secrets.compare_digest(shown, f"Bearer {token}".encode()):
                raise Refused(401, "the token is not shown")

        def sent(self) -> dict[str, Any]:
            if self.headers.get_content_type() != "application/json":
                raise Refused(415, "JSON alone is taken")
            length = self.headers.get("Content-Length") or ""
            if not length.isascii() or not length.isdigit() or int(length[:9]) > MOST_BODY:
                raise Refused(413, "too long, or of unknown length")
            found = json.loads(self.rfile.read(int(length)) or b"{}")
            if not isinstance(found, dict):
                raise ValueError("an object")
            return found

        def do_GET(self) -> None:
            self.told({"/state": lambda _: None, "/timetable": held, "/runs": self.runs}, dict)

        def do_PUT(self) -> None:
            self.told({"/timetable": controller.hold}, self.sent)

        def do_POST(self) -> None:
            self.told({"/faults": switched, "/clock": went_on, "/master": opened}, self.sent)

        def runs(self, _: dict[str, Any]) -> dict[str, Any]:
            since = int(self.path.partition("since=")[2] or 0)
            if since < 0:
                raise ValueError("since a number of runs")
            return {"runs": [asdict(run) for run in controller.runs[since : since + MOST_RUNS]]}

        def told(self, ways: Mapping[str, Any], body_of: Callable[[], dict[str, Any]]) -> None:
            try:
                self.let_in()
                way = ways.get(self.path.partition("?")[0])
                if way is None:
                    raise Refused(404, "no such thing")
                body = body_of()
                with turn:
                    found = way(body)
                    answer = controller.state() if found is None else found
            except Refused as why:
                self.answer(why.status, {"error": str(why)})
            except (ValueError, KeyError, TypeError, AttributeError, RecursionError) as fault:
                self.answer(400, {"error": str(fault)})
            else:
                self.answer(200, answer)

    def held(_: dict[str, Any]) -> dict[str, Any]:
        return {"timetable": controller.timetable}

    def switched(body: dict[str, Any]) -> None:
        name = body["fault"]
        if name not in FAULTS:
            raise ValueError("no such fault")
        if body["on"]:
            controller.faults[name] = int(body.get("zone", 0))
        else:
            controller.faults.pop(name, None)

    def went_on(body: dict[str, Any]) -> None:
        minutes = number(body["minutes"], "minutes")
        if not 0 < minutes <= 14 * MINUTES_D:
            raise ValueError("up to two weeks")
        controller.advance(minutes)

    def opened(body: dict[str, Any]) -> None:
        controller.master_open = body["open"] is True and "leak" not in controller.faults

    return Handler


def serve(port: int, token: str, limits: Limits, with_parent: bool = False) -> None:
    """Answer on the loopback of this machine until told to stop, or until who started it is gone."""
    controller = Controller(begun=f"{time.time_ns():x}", seed=time.time_ns() % 10_000, limits=limits)
    server = ThreadingHTTPServer(("127.0.0.1", port), handler_of(controller, token))
    server.daemon_threads = True
    if with_parent:
        threading.Thread(target=leave_with_parent, args=(server, os.getppid()), daemon=True).start()
    server.serve_forever()


def leave_with_parent(server: ThreadingHTTPServer, parent: int) -> None:
    while os.getppid() == parent:
        time.sleep(LOOK_S)
    server.shutdown()
