"""The API of one house: its routes, and its faults."""

from importlib.metadata import version

from fastapi import FastAPI

from loquen.api.documents import controller, rooms, router, systems, variants, ventures
from loquen.api.keeping import across, feeding, joining, log, quarantine, register, tables, unread
from loquen.api.keeping import round as rounds
from loquen.api.paths import KnownPaths, patterns_of
from loquen.api.planning import building, edits, fits, forecasts, library, own, planner, prices, sump, waters
from loquen.api.wire import faults
from loquen.devices.changer.link import ControllerLink
from loquen.house.documents.roots import Roots
from loquen.house.house import House
from loquen.house.roots import ROOTS
from loquen.house.sheet.kept import KeptSheets

PLANNING = (library, own, edits, fits, sump, building, prices, planner, waters, forecasts)
KEEPING = (across, log, tables, rounds, register, quarantine, joining, feeding, unread)
DOCUMENTS = (systems, variants, ventures, rooms, controller)
ROUTERS = (*(part.router for part in (*PLANNING, *KEEPING, *DOCUMENTS)), ventures.drafts, rooms.drafts)


def create_api(house: House, changer: ControllerLink | None = None, roots: Roots = ROOTS) -> FastAPI:
    """The API of one house; what lies in front of it is in `serving`."""
    api = FastAPI(
        title="Loquen", version=version("loquen"), docs_url=None, redoc_url=None, openapi_url="/api/openapi.json"
    )
    api.state.house = house
    api.state.roots = roots
    api.state.sheets = KeptSheets()
    api.state.tables = tables.Watched()
    api.state.controller = changer or ControllerLink()
    faults.install(api)
    # What a root says itself comes first: a list of names lies beside the documents that are asked for by number.
    routers = [*ROUTERS, *map(router.kept, roots.known), *map(router.drafts, roots.known)]
    for each in routers:
        api.include_router(each)
    api.add_middleware(KnownPaths, patterns=patterns_of(routers, [str(api.openapi_url)]))
    return api
