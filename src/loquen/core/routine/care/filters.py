"""Media rinsed one bed at a time, and how high ammonia would rise after it."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from loquen.core.data.tables import constants
from loquen.core.events.effects import RINSED
from loquen.core.events.kinds.keeping import Rinsed
from loquen.core.graph.asking import number
from loquen.core.graph.keys import Missing
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.roots.plan import Plan
from loquen.core.physics.chemistry.carbonate import MOST_DKH
from loquen.core.routine.duty import Duty
from loquen.core.routine.recurring import Rhythm
from loquen.core.timeline.nitrogen import Inputs
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.run import HOURS
from loquen.core.timeline.setup import settled_capacity, tank_of
from loquen.core.timeline.tending.keeper import Happening, tend
from loquen.core.timeline.warm import warm_at

WATCHED_D = 7
DAYS_PER_WEEK = 7
RINSED_AT_ONCE = 0.5
"""Of a sump's media: the other half goes on."""


@dataclass(frozen=True, slots=True)
class Bed:
    """A bed of media: what it is called, its share of all media, how long it goes between rinses, how much at once."""

    key: str
    label: str
    share: float
    weeks: float
    part: float = 1.0

    @property
    def filter(self) -> str:
        """What it is called in an event."""
        return self.key.removeprefix(RINSED)


def beds_of(sheet: Sheet[Plan]) -> list[Bed]:
    """The beds that are rinsed, by the area of each; the tank's own surfaces are none."""
    found = sheet.look("beds")
    if isinstance(found, Missing):
        return []
    whole = sum(found.areas_m2)
    if whole <= 0:
        return []
    kinds, media = sheet.library.filter_kinds, sheet.library.media
    rows = [
        Bed(
            f"rinse.{i}",
            f"{kinds[row.filter_kind].label.lower()}, {media[row.media].label.lower()}",
            area / whole,
            kinds[row.filter_kind].rinse_weeks,
        )
        for i, (row, area) in enumerate(zip(sheet.root.filters, found.areas_m2, strict=False))
        if area > 0
    ]
    sump = found.areas_m2[-1]
    if sump > 0:
        weeks = constants("routine.toml")["rinse_sump_weeks"].value
        rows.append(Bed("rinse.sump", "sump's media", sump / whole, weeks, RINSED_AT_ONCE))
    return [replace(row, label=f"{ordinal} {row.label}".strip()) for ordinal, row in told_apart(rows)]


ORDINALS = ("first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth")


def told_apart(rows: list[Bed]) -> Iterator[tuple[str, Bed]]:
    """The beds, numbered where two are called the same."""
    for row in rows:
        alike = [other.key for other in rows if other.label == row.label]
        yield (ORDINALS[alike.index(row.key)] if len(alike) > 1 else ""), row


def duties(sheet: Sheet[Plan]) -> Iterator[Duty]:
    """One rinse a bed, in tank water, spread so that no two fall together."""
    table, beds = constants("routine.toml"), beds_of(sheet)
    alone = [rise_after(sheet, [(0, bed.share * bed.part)]) for bed in beds]
    together = rise_after(sheet, [(0, bed.share * bed.part) for bed in beds]) if len(beds) > 1 else None
    for place, (bed, rise) in enumerate(zip(beds, alone, strict=True)):
        what = say("Rinse {part}the {bed} in tank water.", part="half of " if bed.part < 1 else "", bed=bed.label)
        yield Duty(
            key=bed.key,
            kind="filter",
            words=what,
            why=why(bed, rise, together),
            rhythm=Rhythm(every_d=round(bed.weeks * DAYS_PER_WEEK)),
            minutes=table["rinse_min"].value,
            event=Rinsed("tank", round(bed.share * bed.part, 3), bed.filter, bed.label),
            offset_d=offset_d(place, len(beds), bed),
        )


def why(bed: Bed, rise: float | None, together: float | None) -> Sentence:
    if rise is None:
        return say(
            "It clogs: a filter that does not flow does not breathe. Never under the tap, never all at once."
        )
    terms = {"share": Term(bed.share, "share"), "rise": Term(rise, "ammonia")}
    if together is None:
        return say("It holds {share} of the media; a rinse lifts ammonia by {rise} for some days.", **terms)
    text = "It holds {share} of the media; a rinse lifts ammonia by {rise}, all on one day by {all}."
    return say(text, **terms, all=Term(together, "ammonia"))


def offset_d(place: int, count: int, bed: Bed) -> int:
    """When a bed is first rinsed: the beds of one system are spread evenly over the time that the slowest of them goes."""
    gap = constants("routine.toml")["rinse_gap_weeks"].value
    apart = max(gap, bed.weeks / count)
    return round(DAYS_PER_WEEK * (apart * (place + 1) if count > 1 else bed.weeks))


def peak_after(sheet: Sheet[Plan], rinses: Sequence[tuple[int, float]]) -> float | None:
    """Highest total ammonia (mg/L N) until a week after the last of some rinses, each on a day and of a share of the media.

    From a filter that has settled under today's load: bacteria grow back within days. None where a load, a volume or a
    warmth is not known.
    """
    settled = settled_inputs(sheet)
    return None if settled is None else peak_of(settled, tuple(rinses))


@lru_cache(2048)
def peak_of(settled: Inputs, rinses: tuple[tuple[int, float], ...]) -> float:
    """The same of a run; kept, for the tanks of a rack are alike."""
    c = table()
    lost = c.media_of_bacteria * c.cleaned_tank_lost
    happenings = [Happening(day * HOURS, capacity_lost_share=share * lost) for day, share in rinses]
    days = max((day for day, _ in rinses), default=0) + WATCHED_D
    return float(tend(settled.state(), settled.around(), settled.keeper(), days, happenings).hours["ammonia"].max())


def rise_after(sheet: Sheet[Plan], rinses: Sequence[tuple[int, float]]) -> float | None:
    """How much higher total ammonia (mg/L N) gets with rinses than it would without."""
    peak, usual = peak_after(sheet, rinses), peak_after(sheet, [])
    return None if peak is None or usual is None else max(0.0, peak - usual)


def settled_inputs(sheet: Sheet[Plan]) -> Inputs | None:
    """A run of the filter as it stands: bacteria for its load, as growth and decay leave them."""
    needs = ("real_volume_l", "load_now_mg_d", "mature_ammonia_mg_l", "water_c", "new_kh_dkh")
    litres, load, *others = (number(sheet, key) for key in needs)
    if not litres or not load or None in others or isinstance(sheet.look("beds"), Missing):
        return None
    tank = tank_of(sheet)
    assert tank.temp_c is not None
    assert tank.kh_dkh is not None
    c, a_day, pace = table(), load / tank.litres, warm_at(tank.temp_c).pace
    return Inputs(
        mode="with_animals",
        temp_c=tank.temp_c,
        kh_dkh=min(max(tank.kh_dkh, LEAST_KH_DKH), MOST_DKH),
        salinity_ppt=tank.salinity_ppt,
        load_mg_l_d_n=a_day,
        x_max_mg_l_d=tank.x_max_mg_l_d,
        seed_ammonia_oxidisers_mg_l_d=settled_capacity(c.growth_ammonia_oxidisers, a_day, pace, tank.x_max_mg_l_d),
        seed_nitrite_oxidisers_mg_l_d=settled_capacity(c.growth_nitrite_oxidisers, a_day, pace, tank.x_max_mg_l_d),
    )


LEAST_KH_DKH = 0.5
