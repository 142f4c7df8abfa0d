"""The API on one database: its routes, and its faults."""

from importlib.metadata import version

from fastapi import FastAPI

from loquen.api import errors
from loquen.api.listing import Listing
from loquen.api.routes import building, library, sheets, sump, systems, waters
from loquen.store.database import Database


def create_api(database: Database) -> FastAPI:
    """The API on one database; what lies in front of it is in `serving`."""
    api = FastAPI(
        title="Loquen", version=version("loquen"), docs_url=None, redoc_url=None, openapi_url="/api/openapi.json"
    )
    api.state.database = database
    api.state.listing = Listing()
    errors.install(api)
    for routes in (library, sheets, sump, building, systems, waters):
        api.include_router(routes.router)
    return api
