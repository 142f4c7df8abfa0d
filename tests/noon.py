"""The clock of a test run: it begins at noon in UTC of one Wednesday, or of the day that TEST_DAY names (2026-06-22)."""

import os
from datetime import UTC, datetime

import time_machine

DAY = os.environ.get("TEST_DAY", "2026-06-17")
SHIFT = datetime.fromisoformat(f"{DAY}T12:00:00+00:00") - datetime.now(UTC)

# A page's clock goes on from noon as well.
PAGE = (
    """(shift => {
  const Plain = Date;
  class Shifted extends Plain {
    constructor(...given) { given.length ? super(...given) : super(Shifted.now()); }
    static now() { return Plain.now() + shift; }
  }
  globalThis.Date = Shifted;
})"""
    + f"({SHIFT.total_seconds() * 1000:.0f})"
)


def begin(shift=SHIFT):
    """Let this process's clock go on from noon."""
    time_machine.travel(datetime.now(UTC) + shift, tick=True).start()
