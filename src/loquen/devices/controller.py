"""A stand-in for a changer's controller: valves, clock, meter, probes, leak sensor, with faults to switch on.

It is a process of its own and knows nothing of Loquen: it holds the last timetable it was sent and runs it by its own
clock. Every valve is shut without power. The protocol is in docs/controller.md.
"""

import json
import os
import random
import threading
import time
from collections.abc import Mapping
from dataclasses import asdict, dataclass, field
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any

FAULTS = {
    "stuck_open": "a zone valve does not shut",
    "stuck_closed": "a zone valve does not open",
    "blocked": "an emitter is blocked",
    "empty_store": "the hot store is empty",
    "power_cut": "no power",
    "meter_drift": "the meter reads too little",
    "leak": "water on the floor",
}
MOST_BODY = 200_000
NOISE = 0.01
DRIFTED = 0.85
LIMIT_TIMES = 1.5
"""A run that passes so many times its planned litres shuts the master valve."""
MINUTES_D = 1440
MIXED_FAILS_MIN = 1.0
LEAK_AFTER_MIN = 2.0
LOOK_S = 1.0


@dataclass
class Run:
    """One pulse as it went: minutes since the controller started, litres planned and metered, why it ended."""

    n: int
    zone: int
    start_min: float
    end_min: float
    planned_l: float
    metered_l: float
    mixed_c: float
    ended_by: str


@dataclass
class Controller:
    """The controller's whole state; its clock goes on only when it is told to, so that a night takes no night."""

    clock_min: float = 0.0
    timetable: dict[str, Any] | None = None
    faults: dict[str, int] = field(default_factory=dict)
    runs: list[Run] = field(default_factory=list)
    master_open: bool = True
    meter_l: float = 0.0
    cold_c: float = 8.0
    seed: int = 1
    begun: str = ""
    """Which start of it numbers the runs."""

    def state(self) -> dict[str, Any]:
        return {
            "begun": self.begun,
            "clock_min": self.clock_min,
            "timetable": self.timetable["id"] if self.timetable else None,
            "master_open": self.master_open,
            "meter_l": round(self.meter_l, 2),
            "store_full": "empty_store" not in self.faults,
            "leak": "leak" in self.faults,
            "power": "power_cut" not in self.faults,
            "runs": len(self.runs),
            "faults": [{"fault": name, "zone": zone} for name, zone in self.faults.items()],
            "knows": FAULTS,
        }

    def hold(self, timetable: dict[str, Any]) -> None:
        """Take a timetable; raise ValueError for one that is none."""
        for name in ("id", "mixed_c", "zones", "pulses"):
            if name not in timetable:
                raise ValueError(f"a timetable has {name}")
        zones = {zone["zone"] for zone in timetable["zones"]}
        last = -1.0
        for pulse in sorted(timetable["pulses"], key=lambda row: row["start_min"]):
            if pulse["zone"] not in zones or not 0 <= pulse["start_min"] < pulse["end_min"] <= MINUTES_D:
                raise ValueError("a pulse is of a zone, and lies in one day")
            if pulse["start_min"] < last:
                raise ValueError("two zones at once")
            last = pulse["end_min"]
        self.timetable = timetable

    def advance(self, minutes: float) -> None:
        """Let the clock go on, and run what is due."""
        until = self.clock_min + minutes
        day = int(self.clock_min // MINUTES_D)
        while self.timetable and day * MINUTES_D < until:
            for pulse in sorted(self.timetable["pulses"], key=lambda row: row["start_min"]):
                start = day * MINUTES_D + pulse["start_min"]
                if self.clock_min <= start < until:
                    self.run(pulse["zone"], start, pulse["end_min"] - pulse["start_min"])
            day += 1
        self.clock_min = until

    def run(self, number: int, start: float, minutes: float) -> None:
        """One pulse, with whatever is wrong."""
        assert self.timetable is not None
        if "power_cut" in self.faults or not self.master_open:
            return
        zone = next(zone for zone in self.timetable["zones"] if zone["zone"] == number)
        chance = random.Random(self.seed * 1_000_003 + len(self.runs))
        planned = zone["flow_lph"] * minutes / 60
        flows, lasts, ended = zone["flow_lph"], minutes, "timetable"
        mixed = zone.get("fed_c", self.timetable["mixed_c"])
        hit = {name for name, at in self.faults.items() if at in (0, number)}
        if "stuck_closed" in hit:
            flows, ended = 0.0, "timetable"
        if "blocked" in hit:
            flows *= 1 - 0.8 / max(1, zone["emitters"])
        if "stuck_open" in hit:
            lasts, ended = minutes * LIMIT_TIMES, "litres limit"
            self.master_open = False
        if "empty_store" in hit and zone.get("from", "street") == "street":
            # The mixing valve shuts when its hot side fails.
            lasts, ended, mixed = min(lasts, MIXED_FAILS_MIN), "mix too cold", self.cold_c
        if "leak" in hit:
            lasts, ended = min(lasts, LEAK_AFTER_MIN), "leak"
            self.master_open = False
        passed = flows * lasts / 60 * (1 + chance.gauss(0, NOISE))
        metered = passed * (DRIFTED if "meter_drift" in self.faults else 1.0)
        self.meter_l += metered
        self.runs.append(
            Run(len(self.runs) + 1, number, start, start + lasts, planned, max(0.0, metered), mixed, ended)
        )


def handler_of(controller: Controller) -> type[BaseHTTPRequestHandler]:
    turn = threading.Lock()

    class Handler(BaseHTTPRequestHandler):
        def log_message(self, format: str, *args: Any) -> None:  # noqa: A002
            return

        def answer(self, status: int, body: Any) -> None:
            data = json.dumps(body).encode()
            self.send_response(status)
            self.send_header("Content-Type", "application/json")
            self.send_header("Content-Length", str(len(data)))
            self.end_headers()
            self.wfile.write(data)

        def sent(self) -> dict[str, Any]:
            length = int(self.headers.get("Content-Length") or 0)
            if length > MOST_BODY:
                raise ValueError("too long")
            found = json.loads(self.rfile.read(length) or b"{}")
            if not isinstance(found, dict):
                raise ValueError("an object")
            return found

        def do_GET(self) -> None:
            with turn:
                if self.path == "/state":
                    self.answer(200, controller.state())
                elif self.path == "/timetable":
                    self.answer(200, {"timetable": controller.timetable})
                elif self.path.startswith("/runs"):
                    since = int(self.path.partition("since=")[2] or 0)
                    self.answer(200, {"runs": [asdict(run) for run in controller.runs[since:]]})
                else:
                    self.answer(404, {"error": "no such thing"})

        def do_PUT(self) -> None:
            self.told({"/timetable": controller.hold})

        def do_POST(self) -> None:
            self.told({"/faults": switched, "/clock": went_on, "/master": opened})

        def told(self, ways: Mapping[str, Any]) -> None:
            way = ways.get(self.path)
            if way is None:
                self.answer(404, {"error": "no such thing"})
                return
            try:
                body = self.sent()
                with turn:
                    way(body)
                    answer = controller.state()
            except (ValueError, KeyError, TypeError) as fault:
                self.answer(400, {"error": str(fault)})
                return
            self.answer(200, answer)

    def switched(body: dict[str, Any]) -> None:
        name = body["fault"]
        if name not in FAULTS:
            raise ValueError("no such fault")
        if body["on"]:
            controller.faults[name] = int(body.get("zone", 0))
        else:
            controller.faults.pop(name, None)

    def went_on(body: dict[str, Any]) -> None:
        minutes = float(body["minutes"])
        if not 0 < minutes <= 14 * MINUTES_D:
            raise ValueError("up to two weeks")
        controller.advance(minutes)

    def opened(body: dict[str, Any]) -> None:
        controller.master_open = bool(body["open"]) and "leak" not in controller.faults

    return Handler


def serve(port: int, with_parent: bool = False) -> None:
    """Answer on the loopback of this machine until told to stop, or until who started it is gone."""
    begun = f"{time.time_ns():x}"
    server = ThreadingHTTPServer(
        ("127.0.0.1", port), handler_of(Controller(begun=begun, seed=time.time_ns() % 10_000))
    )
    server.daemon_threads = True
    if with_parent:
        threading.Thread(target=leave_with_parent, args=(server, os.getppid()), daemon=True).start()
    server.serve_forever()


def leave_with_parent(server: ThreadingHTTPServer, parent: int) -> None:
    while os.getppid() == parent:
        time.sleep(LOOK_S)
    server.shutdown()
