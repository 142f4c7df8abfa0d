"""What the log says that really happened in a cycle, hour by hour, and what was read of it."""

from collections.abc import Sequence
from contextlib import suppress
from dataclasses import replace
from typing import assert_never

from loquen.core.errors import BadReading
from loquen.core.events.kinds.keeping import (
    Fed,
    Lit,
    Noted,
    Pulsed,
    PutIn,
    Rinsed,
    SeenTo,
    Skipped,
    TakenOut,
    Tried,
)
from loquen.core.events.kinds.lives import Arrived, Born, Died, Measured, Moved, SignsSeen, Sold
from loquen.core.events.kinds.water import Changed, Dosed, OtherSource, Read
from loquen.core.events.ledger import Event, Logged
from loquen.core.events.readings import ReadAt, change_share, days_since, kit_of, read_interval
from loquen.core.fit.cycle import KNOWN, Seen
from loquen.core.library.whole import Library
from loquen.core.system.cycle.setup import Begun, dosed_nitrogen_mg_l
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.rates import free_ammonia
from loquen.core.timeline.run import HOURS
from loquen.core.timeline.tending.keeper import Happening

CHOICES_OF_A_METER = 20
BLUR_UNKNOWN = 0.25
FREE = "free_ammonia"


def hour_of(begun: Begun, row: Logged | ReadAt) -> int:
    return max(0, round(days_since(begun.start, row.at) * HOURS))


def since_start(begun: Begun, log: Sequence[Logged]) -> list[Logged]:
    """What was written down since the cycle began, oldest first."""
    return sorted((row for row in log if row.at >= begun.start), key=lambda row: row.at)


def happenings(begun: Begun, log: Sequence[Logged]) -> list[Happening]:
    """Changes, doses, cleanings and seeds as they were really made."""
    found = (happening(begun, hour_of(begun, row), row.event) for row in since_start(begun, log))
    return [one for one in found if one is not None]


def happening(begun: Begun, hour: int, event: Event) -> Happening | None:
    """One event as something that happens to the water; None for one that does not."""
    c = table()
    match event:
        case Changed():
            return Happening(hour, change_share=change_share(event, begun.litres))
        case Dosed():
            return dosing(begun, hour, event)
        case Rinsed():
            lost = {"tank": c.cleaned_tank_lost, "tap": c.cleaned_tap_lost, "replaced": c.cleaned_replaced_lost}
            share = 1.0 if event.share is None else event.share
            bacteria = share * c.media_of_bacteria * lost.get(event.how, c.cleaned_tank_lost)
            return Happening(hour, capacity_lost_share=bacteria)
        case (
            Read() | OtherSource() | Fed() | PutIn() | TakenOut() | Lit() | Tried() | Noted() | SeenTo() | Skipped()
        ):
            return None
        case Arrived() | Born() | Measured() | Moved() | Sold() | Died() | SignsSeen() | Pulsed():
            return None
        case _ as never:
            assert_never(never)


def dosing(begun: Begun, hour: int, dosed: Dosed) -> Happening | None:
    """A dose as something that happens to the water."""
    c = table()
    if dosed.what == "bacteria":
        return Happening(hour, capacity_added=(c.seed_bottle_ammonia, c.seed_bottle_nitrite))
    if dosed.what == "ammonia" and dosed.amount:
        return Happening(hour, dose_mg_l_n=dosed_nitrogen_mg_l(begun, dosed))
    if dosed.what == "buffer" and dosed.amount:
        return Happening(hour, kh_added_dkh=dosed.amount * 1000 / begun.litres / c.bicarbonate_mg_l_per_dkh)
    return None


def dosed_mg_l(begun: Begun, dosed: Dosed) -> float:
    """Ammonia that a dose brings, mg/L N."""
    found = dosing(begun, 0, dosed)
    return found.dose_mg_l_n if found else 0.0


def seen(begun: Begun, log: Sequence[Logged], library: Library) -> list[tuple[ReadAt, Seen]]:
    """Readings of what a run knows, beside the entries that they come from."""
    found = []
    for row in since_start(begun, log):
        read = row.event
        if not isinstance(read, Read) or read.what not in (*KNOWN, FREE):
            continue
        kit = kit_of(read, library)
        with suppress(BadReading):
            level = read_interval(read, library)
            reading = Seen(
                hour=hour_of(begun, row),
                what="ammonia" if read.what == FREE else read.what,
                read=level.scaled(total_per_free(begun)) if read.what == FREE else level,
                choices=len(kit.steps) if kit and kit.steps else CHOICES_OF_A_METER,
                blur=kit.blur_frac if kit else BLUR_UNKNOWN,
                after_change=read.when == "after",
            )
            found.append((ReadAt(row.at, read), reading))
    return found


def total_per_free(begun: Begun) -> float:
    """Total ammonia for one of free, at the warmth and hardness of this water."""
    state = replace(begun.asked.state(), ammonia=1.0)
    return float(1 / free_ammonia(state, begun.asked.around()))


def doses_logged(begun: Begun, log: Sequence[Logged]) -> bool:
    """Whether any dose of ammonia was written down: then what was not is taken not to have been."""
    return any(isinstance(row.event, Dosed) and row.event.what == "ammonia" for row in since_start(begun, log))
