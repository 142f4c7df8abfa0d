"""Ways out of a room's checks that one input alone does not mend: each tried, and kept only if the day still fits."""

from collections.abc import Callable, Iterator, Mapping
from typing import Any

from loquen.core.graph.asking import label_of
from loquen.core.graph.keys import Key
from loquen.core.graph.nodes import Remedy, Verdict
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Term, say
from loquen.core.model.roots.room import Room
from loquen.core.rooms.stages.exchange import Exchanged
from loquen.core.rooms.stages.plumbing import BORES_MM, COMPENSATES_KPA, TankFlow, ZoneFlow

MOST_LARGER = 2
LONGEST_FACTOR = 6.0
HALVINGS = 7
STILL = ("day_fits", "street_gives", "collector_holds")
"""What must not fall short by a way out."""


def short(sheet: Sheet[Room], key: Key) -> bool:
    verdict = sheet.look(key)
    return not isinstance(verdict, Verdict) or verdict.state == "short"


def holds_with(sheet: Sheet[Room], key: Key, changes: Mapping[Key, Any]) -> bool:
    """Whether a check no longer falls short, and nothing falls short that did not."""
    changed = sheet.changed(changes)
    return not short(changed, key) and not any(short(changed, other) and not short(sheet, other) for other in STILL)


def evened(sheet: Sheet[Room]) -> list[Remedy]:
    """What evens out the zone whose tanks are farthest apart."""
    zones: tuple[ZoneFlow, ...] = sheet.value("zone_flows")
    row = min(zones, key=lambda z: z.spread_frac)
    least = min(row.tanks, key=lambda t: t.ratio)
    found = []
    for sentence, changes in ways_to_even(sheet, row, least):
        if holds_with(sheet, "zones_even", changes):
            found.append(Remedy(sentence, changes))
    return found


def ways_to_even(sheet: Sheet[Room], row: ZoneFlow, least: TankFlow) -> Iterator[tuple[Any, dict[Key, Any]]]:
    at = f"zones.{row.number - 1}"
    zone = sheet.root.zones[row.number - 1]
    blocked = f"places.{least.tank}.blocked_frac"
    if sheet.known[blocked] > 0:
        yield say("Clean or change the emitter of {tank}", tank=least.name), {blocked: 0.0}
    for bore in [bore for bore in BORES_MM if bore > zone.header_mm][:MOST_LARGER]:
        label = label_of(sheet, f"{at}.header_mm")
        yield say("{label}: {bore}", label=label, bore=Term(bore, "thickness")), {f"{at}.header_mm": bore}
    if zone.header == "tree":
        yield say("Feed the header of {zone} in the middle", zone=row.name), {f"{at}.header": "middle"}
        yield say("Close the header of {zone} to a ring", zone=row.name), {f"{at}.header": "ring"}
    if zone.emitter == "plain":
        sentence = say(
            "Compensating emitters of {flow} in {zone}", flow=Term(zone.nominal_lph, "flow"), zone=row.name
        )
        yield (
            sentence,
            {f"{at}.emitter": "compensating", f"{at}.nominal_kpa": min(zone.nominal_kpa, COMPENSATES_KPA)},
        )


def longer_runs(sheet: Sheet[Room]) -> list[Remedy]:
    """Longer runs for every zone with a tank over its limit: the least factor that brings all under."""
    rows: tuple[Exchanged, ...] = sheet.value("exchanged")
    over = sorted({row.zone for row in rows if row.state == "short"})

    def stretched(factor: float) -> dict[Key, Any]:
        return {
            f"zones.{zone - 1}.zone_min": min(1440.0, round(sheet.root.zones[zone - 1].zone_min * factor))
            for zone in over
        }

    if not over or not holds_with(sheet, "room_nitrate_held", stretched(LONGEST_FACTOR)):
        return []
    low, high = 1.0, LONGEST_FACTOR
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        low, high = (low, middle) if holds_with(sheet, "room_nitrate_held", stretched(middle)) else (middle, high)
    changes = stretched(high)
    words = ", ".join(
        f"{sheet.root.zones[zone - 1].zone_name or f'zone {zone}'} {changes[f'zones.{zone - 1}.zone_min']:g} min"
        for zone in over
    )
    return [Remedy(say("Run longer: {zones}", zones=words), changes)]


OWN: dict[str, Callable[[Sheet[Room]], list[Remedy]]] = {"zones_even": evened, "room_nitrate_held": longer_runs}
"""By check."""
