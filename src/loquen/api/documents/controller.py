"""The changer's controller: its timetable sent and read back, its runs brought to the logs, its faults named."""

from dataclasses import asdict, dataclass
from datetime import datetime, timedelta
from math import expm1
from typing import Any, Literal
from zlib import crc32

from fastapi import APIRouter, Request, Response
from pydantic import Field
from sqlmodel import Session

from loquen.api.computing import DEVICE, computed
from loquen.api.dependencies import FAULTS, Asked, faults_of
from loquen.api.wire.answers import sent
from loquen.checked.documents import A_ROOM
from loquen.checked.plan import Strict
from loquen.checked.stored import event as stored_event
from loquen.checked.stored import or_none
from loquen.core.events.kinds.keeping import Pulsed
from loquen.core.events.kinds.water import Changed
from loquen.core.graph.sheet import Sheet
from loquen.core.model.roots.room import Room
from loquen.core.rooms.book import sheet_of
from loquen.core.rooms.diagnosis import RunSeen, Suspect, ZoneKnown, suspects
from loquen.core.rooms.stages.days import Season, sendable
from loquen.core.rooms.stages.plumbing import ZoneFlow
from loquen.core.system.told import rows_of
from loquen.devices.changer.answers import RunTold, State
from loquen.devices.changer.link import NONSENSE, ControllerLink, ControllerTrouble
from loquen.house.house import Visit
from loquen.house.rooms.lines import lines_of
from loquen.store import tables as kept_as
from loquen.store.documents import systems
from loquen.store.happened import ledger, runs
from loquen.store.happened.ledger import KeptEvent
from loquen.store.happened.runs import Run

router = APIRouter(prefix="/api/rooms", tags=["controller"], responses={**FAULTS, **faults_of(502, 504)})
DAY_MIN = 1440
LATEST = 40
"""Runs that a diagnosis looks back on."""
AHEAD_MIN = DAY_MIN
"""So far past the clock a run may end: it was told after the clock was."""


class Sending(Strict):
    """Which season's day to send."""

    season: Literal["winter", "summer"] = "winter"


class Switching(Strict):
    fault: str = Field(max_length=40)
    on: bool
    zone: int = Field(default=0, ge=0, le=24)


class GoingOn(Strict):
    minutes: float = Field(gt=0, le=20_160)


class Opening(Strict):
    open: bool


@dataclass(frozen=True, slots=True)
class FaultOn:
    """A fault that the simulated controller can have, and whether it does."""

    key: str
    label: str
    on: bool
    zone: int


@dataclass(frozen=True, slots=True)
class Sent:
    """What the controller holds, against what the room plans."""

    timetable: str
    verified: bool
    current: bool


@dataclass(frozen=True, slots=True)
class KeptRun(Pulsed):
    """A run, and the moment at which it ended."""

    at: datetime


@dataclass(frozen=True, slots=True)
class ControllerAnswer:
    """The controller as it stands, its runs, and what they speak for."""

    clock_min: float
    master_open: bool
    power: bool
    leak: bool
    store_full: bool
    meter_l: float
    sent: Sent
    faults: tuple[FaultOn, ...]
    runs: tuple[KeptRun, ...]
    suspects: tuple[Suspect, ...]
    fetched: int


def link_of(request: Request) -> ControllerLink:
    link: ControllerLink = request.app.state.controller
    return link


def saved_sheet(visit: Visit, session: Session, room_id: int) -> Sheet[Room]:
    room = A_ROOM.read(systems.read(session, room_id, kept_as.ROOM).document)
    return sheet_of(room, visit.library, lines_of(visit, session, room))


def day_of(sheet: Sheet[Room], season: str) -> dict[str, Any]:
    """A season's day as the controller takes it."""
    found: tuple[Season, ...] = rows_of(sheet, "seasons")
    day = next((row for row in found if row.name == season), None)
    flows: tuple[ZoneFlow, ...] = rows_of(sheet, "zone_flows")
    pulses = [
        {
            "zone": row["zone"],
            "start_min": round(row["start_h"] * 60, 3),
            "end_min": round(row["end_h"] * 60, 3),
        }
        for row in (day.schedule if day else [])
    ]
    store = sheet.root.store
    mixed = store.summer_mixed_c if season == "summer" and store.summer_mixed_c is not None else store.mixed_c
    zones = [
        {
            "zone": row.number,
            "name": row.name,
            "from": row.fed_from,
            "fed_c": mixed if row.fed_from == "street" else sheet.root.reservoir.reservoir_c,
            "flow_lph": round(row.lph, 3),
            "emitters": len(row.tanks),
        }
        for row in flows
    ]
    body = {"mixed_c": mixed, "zones": zones, "pulses": pulses}
    return {"id": f"{season}-{crc32(repr(body).encode()):08x}", **body}


@router.get("/{room_id}/controller", response_model=ControllerAnswer)
async def read_controller(room_id: int, request: Request, visit: Asked) -> Response:
    """The controller as it stands; its new runs are brought to the logs."""
    return await computed(lambda: sent(standing(room_id, request, visit)), DEVICE)


@router.post("/{room_id}/controller/timetable", response_model=ControllerAnswer)
async def send_timetable(room_id: int, sending: Sending, request: Request, visit: Asked) -> Response:
    """Send a season's day, read it back, and say whether it is the same."""

    def whole() -> Response:
        with visit.reading() as session:
            sheet = saved_sheet(visit, session, room_id)
        seasons = rows_of(sheet, "seasons")
        day = next((row for row in seasons if row.name == sending.season), None)
        sendable(day)
        timetable = day_of(sheet, sending.season)
        link = link_of(request)
        link.hold(timetable)
        if link.held() != timetable:
            raise ControllerTrouble(
                "not_verified",
                "The controller reads back another timetable than it was sent: it was not taken as sent.",
            )
        return sent(standing(room_id, request, visit))

    return await computed(whole, DEVICE)


@router.post("/{room_id}/controller/faults", response_model=ControllerAnswer)
async def switch_fault(room_id: int, switching: Switching, request: Request, visit: Asked) -> Response:
    """A fault of the simulated controller, on or off."""
    return await told(room_id, request, visit, "/faults", switching.model_dump())


@router.post("/{room_id}/controller/clock", response_model=ControllerAnswer)
async def let_run(room_id: int, going: GoingOn, request: Request, visit: Asked) -> Response:
    """Let the simulated controller's clock go on."""
    return await told(room_id, request, visit, "/clock", going.model_dump())


@router.post("/{room_id}/controller/master", response_model=ControllerAnswer)
async def open_master(room_id: int, opening: Opening, request: Request, visit: Asked) -> Response:
    """Open or shut the master valve."""
    return await told(room_id, request, visit, "/master", opening.model_dump())


async def told(room_id: int, request: Request, visit: Visit, path: str, body: dict[str, Any]) -> Response:
    def whole() -> Response:
        link_of(request).told(path, body)
        return sent(standing(room_id, request, visit))

    return await computed(whole, DEVICE)


def standing(room_id: int, request: Request, visit: Visit) -> ControllerAnswer:
    """The controller's state, its new runs kept and logged; nothing is kept of an answer of which a part is none."""
    link = link_of(request)
    with visit.reading() as session:
        sheet = saved_sheet(visit, session, room_id)
        last = runs.last_number(session, room_id, (state := link.state()).begun)
    found = [run_of(row, state) for row in link.runs(last)]
    flows: tuple[ZoneFlow, ...] = rows_of(sheet, "zone_flows")
    with visit.writing() as session:
        fresh = runs.add(session, room_id, found)
        for run in fresh:
            log_run(session, sheet, run.at, run.pulsed, flows)
        kept = runs_shown(runs.list_of(session, room_id))
    planned = {day_of(sheet, name)["id"] for name in ("winter", "summer")} if flows else set()
    on = {row.fault: row.zone for row in state.faults}
    return ControllerAnswer(
        clock_min=state.clock_min,
        master_open=state.master_open,
        power=state.power,
        leak=state.leak,
        store_full=state.store_full,
        meter_l=state.meter_l,
        sent=Sent(state.timetable or "", state.timetable is not None, state.timetable in planned),
        faults=tuple(FaultOn(key, label, key in on, on.get(key, 0)) for key, label in state.knows.items()),
        runs=tuple(kept[-LATEST:]),
        suspects=spoken_for(kept[-LATEST:], flows),
        fetched=len(fresh),
    )


def run_of(told: RunTold, state: State) -> Run:
    """A run as the controller tells it, its moment reckoned back from now by the controller's clock."""
    if told.end_min > state.clock_min + AHEAD_MIN:
        raise ControllerTrouble(*NONSENSE)
    return Run(
        datetime.now().astimezone() - timedelta(minutes=max(0.0, state.clock_min - told.end_min)),
        Pulsed(
            begun=state.begun,
            number=told.n,
            zone=told.zone,
            clock_min=told.end_min,
            minutes=told.end_min - told.start_min,
            planned_l=told.planned_l,
            metered_l=told.metered_l,
            mixed_c=told.mixed_c,
            ended_by=told.ended_by,
        ),
    )


def log_run(session: Session, sheet: Sheet[Room], at: datetime, run: Pulsed, flows: tuple[ZoneFlow, ...]) -> None:
    """A run in the log of each system that stands on its zone: the share that passed and stayed, by the metered litres."""
    flow = next((row for row in flows if row.number == run.zone), None)
    if flow is None or run.planned_l <= 0:
        return
    tanks = rows_of(sheet, "tanks")
    shares: dict[int, list[float]] = {}
    # The zone's litres are shared out as its emitters share them; a run is a part of the day's minutes.
    whole = flow.lph * flow.minutes / 60
    for row in flow.tanks:
        system = tanks[row.tank].system
        if system:
            shares.setdefault(system, []).append(-expm1(-row.ratio * run.metered_l / whole))
    for system, found in shares.items():
        share = sum(found) / len(found)
        if share <= 0:
            continue
        note = f"changer, {flow.name}: {run.metered_l:.1f} of {run.planned_l:.1f} L"
        ended = "" if run.ended_by == "timetable" else f", {run.ended_by}"
        ledger.write(session, system, [ledger.new(Changed(share=round(share, 4), note=note + ended), at)])


def runs_shown(rows: list[KeptEvent]) -> list[KeptRun]:
    """The runs that can be read, with the moment at which each ended."""
    return [
        KeptRun(at=row.at, **asdict(known))
        for row in rows
        if isinstance(known := or_none(row.document, stored_event), Pulsed)
    ]


def spoken_for(kept: list[KeptRun], flows: tuple[ZoneFlow, ...]) -> tuple[Suspect, ...]:
    """What the runs of the newest day speak for."""
    if not kept:
        return ()
    newest = kept[-1]
    seen = [
        RunSeen(run.zone, run.planned_l, run.metered_l, run.ended_by)
        for run in kept
        if run.begun == newest.begun and run.clock_min // DAY_MIN == newest.clock_min // DAY_MIN
    ]
    return suspects(seen, [ZoneKnown(row.number, row.name, len(row.tanks)) for row in flows])
