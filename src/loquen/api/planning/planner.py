"""Plans that are designed: first plans three ways, a plan settled, and what differs between two."""

from dataclasses import dataclass
from typing import Annotated

from fastapi import APIRouter, Request, Response
from pydantic import Field

from loquen.api.computing import LONG, computed, computed_while
from loquen.api.dependencies import COMPUTING, Asked
from loquen.api.wire.answers import sent
from loquen.checked.documents import A_PLAN, read_water
from loquen.checked.plan import PlanSchema, Strict, TankSchema, tank_there_is
from loquen.core.model.inputs.quantity import Sentence
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.tank import Tank
from loquen.core.model.parts.water import Disinfectant, Source
from loquen.core.model.roots.plan import PLAN, Plan
from loquen.core.system.book import sheet_of
from loquen.core.system.build import parts
from loquen.core.system.planner.settle import Left, Move, settle
from loquen.core.system.planner.standing import Takes, difference
from loquen.core.system.planner.three_ways import RoomGiven, Want, first_plans
from loquen.core.system.planner.words import Moved, moved
from loquen.house.house import Visit
from loquen.house.sheet.drawing import Section, section_of
from loquen.house.systems.root import SYSTEMS
from loquen.house.systems.schema import AnimalsWanted
from loquen.store.documents import waters
from loquen.store.documents.systems import MOST_ID

router = APIRouter(prefix="/api/plan", tags=["planner"], responses=dict(COMPUTING))


class RoomWanted(Strict):
    """The room that a plan is to stand in, °C."""

    cold_c: float = Field(ge=-10, le=40)
    warm_c: float = Field(ge=0, le=45)
    mean_c: float = Field(ge=-5, le=40)


class TapTold(Strict):
    """What is told of the tap's disinfectant where no water of the house is named: its kind, and how strong."""

    disinfectant: Disinfectant = "unknown"
    chlorine_mg_l: float | None = Field(default=None, ge=0, le=10)


class FirstWanted(Strict):
    """Who is to live in it; and where it is given the glass, the room, one of the waters, and what comes first."""

    name: str = Field(min_length=1, max_length=80)
    animals: list[AnimalsWanted] = Field(min_length=1, max_length=PLAN.limits["animals"])
    tank: TankSchema | None = None
    room: RoomWanted | None = None
    water: int | None = Field(default=None, ge=1, le=MOST_ID)
    tap: TapTold = Field(default_factory=TapTold)
    least: Want = "room"


@dataclass(frozen=True, slots=True)
class ProposalOut:
    """A whole plan to choose, with its section, what it takes, its reasons, and what is out of reach."""

    least: tuple[Want, ...]
    plan: PlanSchema
    section: Section
    takes: Takes
    parts: int
    moves: tuple[Move, ...]
    left: tuple[Left, ...]
    tight: tuple[Sentence, ...]
    notes: tuple[Sentence, ...]
    asks: tuple[Sentence, ...]


@dataclass(frozen=True, slots=True)
class FirstOut:
    """Up to three plans; or why there can be none, all of it."""

    proposals: tuple[ProposalOut, ...]
    why: tuple[Sentence, ...]


class ToSettle(Strict):
    """A plan to settle, what of it stays as it is, and the size its animals are planned for."""

    plan: PlanSchema
    pins: list[Annotated[str, Field(max_length=80)]] = Field(default_factory=list, max_length=200)
    months_ahead: float | None = Field(default=None, ge=0, le=1200)


@dataclass(frozen=True, slots=True)
class SettledOut:
    """A plan brought as far as levers reach: its changes, each needed, what is left, and what it takes."""

    plan: PlanSchema
    moves: tuple[Move, ...]
    left: tuple[Left, ...]
    before: Takes
    after: Takes
    asks: tuple[Sentence, ...]


class Two(Strict):
    """Two plans."""

    before: PlanSchema
    after: PlanSchema


@dataclass(frozen=True, slots=True)
class DifferenceOut:
    """What differs between two plans, in words."""

    rows: tuple[Moved, ...]


@router.post("/first", response_model=FirstOut)
async def propose_first(wanted: FirstWanted, visit: Asked, request: Request) -> Response:
    """Whole plans for these animals, each the least of something."""

    def whole() -> Response:
        animals = tuple(Group(row.species, row.number) for row in wanted.animals)
        tank = tank_there_is(wanted.tank) if wanted.tank else None
        SYSTEMS.sensible(Plan(name=wanted.name, animals=animals, tank=tank or Tank()), visit.library)
        found = first_plans(
            wanted.name,
            animals,
            visit.library,
            room=RoomGiven(**wanted.room.model_dump()) if wanted.room else None,
            water=water_of(visit, wanted.water, wanted.tap),
            tank=tank,
            least=wanted.least,
        )
        proposals = []
        for row in found.proposals:
            sheet = sheet_of(row.plan, visit.library)
            proposals.append(
                ProposalOut(
                    row.least,
                    A_PLAN.to_wire(row.plan),
                    section_of(sheet),
                    row.takes,
                    len(parts(sheet)),
                    row.moves,
                    row.left,
                    row.tight,
                    row.notes,
                    row.asks,
                )
            )
        return sent(FirstOut(tuple(proposals), found.why))

    return await computed_while(request, whole, LONG)


def water_of(visit: Visit, number: int | None, tap: TapTold) -> Source:
    """One of the house's waters, or a usual tap with what is told of it; raise NoSuchWater."""
    if number is None:
        return Source(src_disinfectant=tap.disinfectant, src_chlorine_mg_l=tap.chlorine_mg_l)
    with visit.reading() as session:
        return read_water(waters.existing(session, number).document)


@router.post("/settle", response_model=SettledOut)
async def settle_plan(wanted: ToSettle, request: Request, visit: Asked) -> Response:
    """The changes of least effort found with which nothing falls short, none of them to what is pinned."""

    def whole() -> Response:
        pins = frozenset(pin for pin in wanted.pins if pin.split(".")[0] in PLAN.sections)
        found = settle(SYSTEMS.sensible(wanted.plan, visit.library), visit.library, pins, wanted.months_ahead)
        return sent(
            SettledOut(A_PLAN.to_wire(found.plan), found.moves, found.left, found.before, found.after, found.asks)
        )

    return await computed_while(request, whole, LONG)


@router.post("/difference", response_model=DifferenceOut)
async def tell_difference(two: Two, visit: Asked) -> Response:
    """What leads from one plan to another."""

    def whole() -> Response:
        before, after = SYSTEMS.sensible(two.before, visit.library), SYSTEMS.sensible(two.after, visit.library)
        return sent(DifferenceOut(tuple(moved(sheet_of(after, visit.library), before, difference(before, after)))))

    return await computed(whole)
