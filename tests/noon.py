"""The clock of a test run: it begins at noon in UTC, so that today stays today while it lasts."""

from datetime import UTC, datetime

import time_machine

_TRUE = datetime.now(UTC)
SHIFT = _TRUE.replace(hour=12, minute=0, second=0, microsecond=0) - _TRUE

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
