"""The API of one house: its routes, and its faults."""

from importlib.metadata import version

from fastapi import FastAPI

from loquen.api import building, documents, fits, forecasts, library, own, planner, prices, sump
from loquen.api.breeding import routes as breeding
from loquen.api.feeding import routes as feeding
from loquen.api.joining import routes as joining
from loquen.api.log import routes as log
from loquen.api.log import tables
from loquen.api.paths import KnownPaths, patterns_of
from loquen.api.quarantine import routes as quarantine
from loquen.api.register import routes as register
from loquen.api.rooms import controller
from loquen.api.rooms import routes as rooms
from loquen.api.round import routes as round_
from loquen.api.sheet import routes as sheet
from loquen.api.systems import routes as systems
from loquen.api.systems import variants
from loquen.api.unread import routes as unread
from loquen.api.waters import routes as waters
from loquen.api.wire import faults
from loquen.devices.changer.link import ControllerLink
from loquen.house.documents.roots import Roots
from loquen.house.house import House
from loquen.house.roots import ROOTS
from loquen.house.sheet.kept import KeptSheets

ROUTERS = (
    library.router,
    own.router,
    sheet.router,
    fits.router,
    sump.router,
    building.router,
    prices.router,
    systems.router,
    variants.router,
    planner.router,
    waters.router,
    log.router,
    tables.router,
    forecasts.router,
    round_.router,
    register.router,
    quarantine.router,
    joining.router,
    feeding.router,
    unread.router,
    breeding.router,
    rooms.router,
    controller.router,
    breeding.drafts,
    rooms.drafts,
)


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
    routers = [*ROUTERS, *map(documents.kept, roots.known), *map(documents.drafts, roots.known)]
    for router in routers:
        api.include_router(router)
    api.add_middleware(KnownPaths, patterns=patterns_of(routers, [str(api.openapi_url)]))
    return api
