"""What a room's page is told: figures and checks as for a system, and what its drawing and tables show."""

from dataclasses import dataclass

from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence
from loquen.core.model.roots.room import Room
from loquen.core.rooms import remedies
from loquen.core.rooms.book import GLASSES, STAGES
from loquen.core.rooms.commissioning import steps
from loquen.core.rooms.parts import parts
from loquen.core.rooms.stages.days import Level, Season
from loquen.core.rooms.stages.exchange import Exchanged, Walked
from loquen.core.rooms.stages.plumbing import ZoneFlow
from loquen.core.rooms.stages.racks import Standing
from loquen.core.rooms.stages.shocks import Failing
from loquen.core.system.build.buying import PartLine
from loquen.core.system.told import rows_of, where_known
from loquen.house.sheet.answers import Check, Figure, Glass, Stage
from loquen.house.sheet.judged import checks_of, figures_of, glasses_of, stages_of


@dataclass(frozen=True, slots=True)
class TankDrawn:
    """A tank in plan and elevation; `system` 0 where it has no plan of its own."""

    number: int
    name: str
    system: int
    system_name: str
    rack: int
    shelf: int
    slot: int
    zone: int
    litres: float
    length_cm: float
    width_cm: float
    height_cm: float
    base_cm: float
    from_left_cm: float
    kept_c: float | None


@dataclass(frozen=True, slots=True)
class RoomAnswer:
    """Everything a room's page shows."""

    figures: dict[str, Figure]
    checks: list[Check]
    glasses: list[Glass]
    stages: list[Stage]
    racks: tuple[Standing, ...]
    tanks: list[TankDrawn]
    zones: tuple[ZoneFlow, ...]
    exchanged: tuple[Exchanged, ...]
    seasons: tuple[Season, ...]
    failing: tuple[Failing, ...]
    hand_round: tuple[Walked, ...]
    cartridges_due: str
    purified: tuple[Level, ...]
    parts: tuple[PartLine, ...]
    commissioning: tuple[Sentence, ...]


def view(sheet: Sheet[Room]) -> RoomAnswer:
    """Everything a room's page shows, computed once."""
    sheet.all()
    order = list(STAGES)
    checks = sorted(checks_of(sheet, remedies.OWN), key=lambda check: order.index(check.stage))
    tanks = rows_of(sheet, "tanks")
    bought: tuple[PartLine, ...] = where_known(lambda: parts(sheet), ())
    return RoomAnswer(
        figures=figures_of(sheet),
        checks=checks,
        glasses=glasses_of(sheet, checks, GLASSES),
        stages=stages_of(sheet, checks, STAGES),
        racks=tuple(sheet.value(f"racks.{i}.standing") for i in range(len(sheet.root.racks))),
        tanks=[
            TankDrawn(
                tank.number,
                tank.name,
                tank.system,
                tank.line.name if tank.line else "",
                tank.rack,
                tank.shelf,
                tank.slot,
                tank.zone,
                tank.litres,
                tank.length_cm,
                tank.width_cm,
                tank.height_cm,
                tank.base_cm,
                tank.from_left_cm,
                tank.kept_c,
            )
            for tank in tanks
        ],
        zones=rows_of(sheet, "zone_flows"),
        exchanged=rows_of(sheet, "exchanged"),
        seasons=rows_of(sheet, "seasons"),
        failing=rows_of(sheet, "failing"),
        hand_round=rows_of(sheet, "hand_round"),
        cartridges_due=where_known(lambda: str(sheet.value("cartridges_due")), ""),
        purified=where_known(lambda: purified_levels(sheet), ()),
        parts=bought,
        commissioning=where_known(lambda: steps(sheet), ()),
    )


def purified_levels(sheet: Sheet[Room]) -> tuple[Level, ...]:
    return tuple(Level(*point) for point in sheet.value("purified_week").points)
