"""A stand-in for a changer's controller: valves, clock, meter, probes, leak sensor, with faults to switch on.

It knows nothing of Loquen: it holds the last timetable it was sent and runs it by its own clock. Every valve is shut
without power. What is beyond the limits that were entered at it, it refuses.
"""

import math
import random
from dataclasses import dataclass, field
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
NOISE = 0.01
DRIFTED = 0.85
LIMIT_TIMES = 1.5
"""A run that passes so many times its planned litres shuts the master valve."""
MINUTES_D = 1440
MIXED_FAILS_MIN = 1.0
LEAK_AFTER_MIN = 2.0
MOST_ZONES, MOST_PULSES = 24, 500


@dataclass(frozen=True)
class Limits:
    """What was entered at the device: beyond it nothing is taken, whoever sends it."""

    pulse_l: float = 1500.0
    day_l: float = 10_000.0
    pulse_min: float = 240.0
    coldest_c: float = 4.0
    warmest_c: float = 34.0


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
    limits: Limits = field(default_factory=Limits)

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
        """Take a timetable; raise ValueError for one that is none, or is beyond the limits."""
        for name in ("id", "mixed_c", "zones", "pulses"):
            if name not in timetable:
                raise ValueError(f"a timetable has {name}")
        if not isinstance(timetable["id"], str) or len(timetable["id"]) > 60:
            raise ValueError("an id is a short text")
        if len(timetable["zones"]) > MOST_ZONES or len(timetable["pulses"]) > MOST_PULSES:
            raise ValueError(f"it has more than {MOST_ZONES} zones or {MOST_PULSES} pulses")
        limits = self.limits
        flows = {}
        for zone in (timetable, *timetable["zones"]):
            warmth = number(zone.get("fed_c", timetable["mixed_c"]), "degrees")
            if not limits.coldest_c <= warmth <= limits.warmest_c:
                raise ValueError(
                    f"{warmth:g} °C: it takes {limits.coldest_c:g} to {limits.warmest_c:g} °C, as entered at it"
                )
        for zone in timetable["zones"]:
            flows[zone["zone"]] = number(zone["flow_lph"], "litres an hour")
            if number(zone["emitters"], "emitters") < 0 or flows[zone["zone"]] < 0:
                raise ValueError("no flow and no count is under nothing")
        last, litres = 0.0, 0.0
        for pulse in sorted(timetable["pulses"], key=lambda row: number(row["start_min"], "minutes")):
            start, end = pulse["start_min"], number(pulse["end_min"], "minutes")
            if pulse["zone"] not in flows or not 0 <= start < end <= MINUTES_D:
                raise ValueError("a pulse is of a zone, and lies in one day")
            if start < last:
                raise ValueError("two zones at once")
            self.within(end - start, flows[pulse["zone"]] * (end - start) / 60)
            last, litres = end, litres + flows[pulse["zone"]] * (end - start) / 60
        if litres > limits.day_l:
            raise ValueError(f"{litres:.0f} L in a day: it takes {limits.day_l:g} L, as entered at it")
        self.timetable = timetable

    def within(self, minutes: float, litres: float) -> None:
        """Raise ValueError for a pulse beyond the limits."""
        if minutes > self.limits.pulse_min:
            raise ValueError(f"a pulse of {minutes:.0f} min: it takes {self.limits.pulse_min:g}, as entered at it")
        if litres > self.limits.pulse_l:
            raise ValueError(f"a pulse of {litres:.0f} L: it takes {self.limits.pulse_l:g} L, as entered at it")

    def advance(self, minutes: float) -> None:
        """Let the clock go on, and run what is due."""
        until = self.clock_min + minutes
        day = int(self.clock_min // MINUTES_D)
        while self.timetable and day * MINUTES_D < until:
            for pulse in sorted(self.timetable["pulses"], key=lambda row: row["start_min"]):
                start, end = (day * MINUTES_D + pulse[name] for name in ("start_min", "end_min"))
                if self.clock_min < end <= until:
                    self.run(pulse["zone"], start, end - start)
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


def number(value: object, what: str) -> float:
    """A finite number; raise ValueError."""
    if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value):
        raise ValueError(f"{what} are a number")
    return float(value)
