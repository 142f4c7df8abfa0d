"""The command line: serve a database, serve the demo, write the API description, make a backup."""

import gc
import json
from pathlib import Path
from threading import Thread
from typing import TYPE_CHECKING, Annotated

import typer

if TYPE_CHECKING:
    from fastapi import FastAPI

app = typer.Typer(add_completion=False, no_args_is_help=True, help=__doc__)
Port = Annotated[int, typer.Option(help="Port on this machine.")]
Database = Annotated[Path | None, typer.Option(help="Database file; made when it is not there.")]


def run_server(path: Path, port: int, with_demo: bool) -> None:
    import uvicorn

    from loquen.api.app import create_app
    from loquen.demo import sluice_street
    from loquen.store.database import open_database

    engine = open_database(path)
    if with_demo:
        sluice_street.fill(engine)
    Thread(target=warm_up, daemon=True).start()
    typer.echo(f"Loquen: http://127.0.0.1:{port}   data: {path}")
    uvicorn.run(create_app(engine), host="127.0.0.1", port=port, log_level="warning")


def warm_up() -> None:
    """Load what the first sheet needs while the page is still opening, and leave it out of later clean-ups."""
    from loquen.api import sheets
    from loquen.demo import sluice_street

    sheets.view(sluice_street.long_hall())
    gc.collect()
    gc.freeze()


@app.command()
def serve(db: Database = None, port: Port = 8640) -> None:
    """Serve your own database."""
    from loquen.store.database import default_path

    run_server(db or default_path(), port, with_demo=False)


@app.command()
def demo(db: Database = None, port: Port = 8640) -> None:
    """Serve the made-up room of Sluice Street, kept in a file of its own."""
    from loquen.store.database import default_path

    run_server(db or default_path(demo=True), port, with_demo=True)


def reloading_demo() -> "FastAPI":
    """The demo as an application factory, for a server that reloads."""
    from loquen.api.app import create_app
    from loquen.demo import sluice_street
    from loquen.store.database import default_path, open_database

    engine = open_database(default_path(demo=True))
    sluice_street.fill(engine)
    return create_app(engine)


@app.command()
def openapi(target: Path) -> None:
    """Write the description of the API, from which the pages' client is generated."""
    from sqlmodel import create_engine

    from loquen.api.app import create_app

    description = create_app(create_engine("sqlite://")).openapi()
    target.write_text(json.dumps(description, indent=1, ensure_ascii=False) + "\n", encoding="utf-8")


@app.command()
def book(system: int, target: Path, db: Database = None, demo: bool = False) -> None:
    """Write the build book of a system, by its number, as a PDF."""
    from loquen.api.schemas.plan import read_document
    from loquen.core.sheet.book import sheet_of
    from loquen.exchange.book import build_book
    from loquen.store import systems
    from loquen.store.database import default_path, open_database, transaction

    with transaction(open_database(db or default_path(demo=demo))) as session:
        plan = read_document(systems.read(session, system).plan)
    target.write_bytes(build_book(sheet_of(plan), {}))
    typer.echo(f"{plan.name}: {target}")


@app.command()
def backup(target: Path, db: Database = None) -> None:
    """Write a whole copy of the database."""
    from loquen.store.database import backup as write_copy
    from loquen.store.database import default_path, open_database

    write_copy(open_database(db or default_path()), target)
    typer.echo(f"Copied to {target}")


if __name__ == "__main__":
    app()
