"""What the log says that really happened in a cycle, hour by hour, and what was read of it."""

from collections.abc import Sequence
from contextlib import suppress

from loquen.core.errors import BadReading
from loquen.core.fit.cycle import PLACES, Seen
from loquen.core.model.log import Entry, Logged, change_share, days_since, kit_of, read_interval
from loquen.core.system.cycle.setup import Begun, dose_of_amount
from loquen.core.timeline import rates
from loquen.core.timeline.arithmetic import One
from loquen.core.timeline.course import HOURS, Happening

CHOICES_OF_A_METER = 20
BLUR_UNKNOWN = 0.25
FREE = "free_ammonia"


def hour_of(begun: Begun, row: Logged) -> int:
    return max(0, round(days_since(begun.start, row.at) * HOURS))


def since_start(begun: Begun, log: Sequence[Logged]) -> list[Logged]:
    """What was written down since the cycle began, oldest first."""
    return sorted((row for row in log if row.at >= begun.start), key=lambda row: row.at)


def happenings(begun: Begun, log: Sequence[Logged]) -> list[Happening]:
    """Changes, doses, cleanings and seeds as they were really made."""
    found = (happening(begun, hour_of(begun, row), row.entry) for row in since_start(begun, log))
    return [one for one in found if one is not None]


def happening(begun: Begun, hour: int, entry: Entry) -> Happening | None:
    """One entry as something that happens to the water; None for one that does not."""
    c = rates.table()
    if entry.kind == "change":
        return Happening(hour, change_share=change_share(entry, begun.litres))
    if entry.kind == "dose" and entry.what == "ammonia" and entry.amount:
        return Happening(hour, dose_mg_l_n=dose_of_amount(begun, entry.amount))
    if entry.kind == "dose" and entry.what == "buffer" and entry.amount:
        return Happening(hour, kh_added_dkh=entry.amount * 1000 / begun.litres / c.bicarbonate_mg_l_per_dkh)
    if entry.kind == "dose" and entry.what == "bacteria":
        return Happening(hour, capacity_added=(c.seed_bottle_ammonia, c.seed_bottle_nitrite))
    if entry.kind == "filter":
        lost = {"tank": c.cleaned_tank_lost, "tap": c.cleaned_tap_lost, "replaced": c.cleaned_replaced_lost}
        share = 1.0 if entry.share is None else entry.share
        return Happening(
            hour, capacity_lost_share=share * c.media_of_bacteria * lost.get(entry.what, c.cleaned_tank_lost)
        )
    return None


def dosed_mg_l(begun: Begun, entry: Entry) -> float:
    """Ammonia that an entry brings, mg/L N."""
    found = happening(begun, 0, entry)
    return found.dose_mg_l_n if found else 0.0


def seen(begun: Begun, log: Sequence[Logged]) -> list[tuple[Logged, Seen]]:
    """Readings of what a run knows, beside the entries that they come from."""
    found = []
    for row in since_start(begun, log):
        entry = row.entry
        if entry.kind != "reading" or entry.what not in (*PLACES, FREE):
            continue
        kit = kit_of(entry)
        with suppress(BadReading):
            read = read_interval(entry)
            reading = Seen(
                hour=hour_of(begun, row),
                what="ammonia" if entry.what == FREE else entry.what,
                read=read.scaled(total_per_free(begun)) if entry.what == FREE else read,
                choices=len(kit.steps) if kit and kit.steps else CHOICES_OF_A_METER,
                blur=kit.blur_frac if kit else BLUR_UNKNOWN,
                after_change=entry.when == "after",
            )
            found.append((row, reading))
    return found


def total_per_free(begun: Begun) -> float:
    """Total ammonia for one of free, at the warmth and hardness of this water."""
    w = begun.asked.water()
    hold = begun.asked.soil_hold_meq_l if begun.asked.soil else 0.0
    return float(1 / rates.free_ammonia(1.0, rates.hydrogen(begun.asked.kh_dkh, hold, w, One()), w))


def doses_logged(begun: Begun, log: Sequence[Logged]) -> bool:
    """Whether any dose of ammonia was written down: then what was not is taken not to have been."""
    return any(row.entry.kind == "dose" and row.entry.what == "ammonia" for row in since_start(begun, log))
