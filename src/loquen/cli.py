"""The command line: serve a database, serve the demo, copy it and put a copy back, write a build book."""

import sys
from collections.abc import Iterator
from contextlib import contextmanager, nullcontext
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

if TYPE_CHECKING:
    from starlette.types import ASGIApp

app = typer.Typer(add_completion=False, no_args_is_help=True, pretty_exceptions_enable=False, help=__doc__)
Port = Annotated[int, typer.Option(help="Port on this machine.", min=1, max=65535)]
Database = Annotated[Path | None, typer.Option(help="Database file; made when it is not there.")]
Present = Annotated[Path | None, typer.Option(help="Database file; your own when left out.")]
Demo = Annotated[bool, typer.Option(help="The demo's database instead of your own.")]
FAILED = 1


@contextmanager
def told() -> Iterator[None]:
    """A fault that a person can do something about is one sentence and an exit code."""
    from loquen.serving.port import PortInUse
    from loquen.store.faults import StoreFault

    try:
        yield
    except (StoreFault, PortInUse) as fault:
        typer.echo(str(fault), err=True)
    except OSError as fault:
        typer.echo(f"{fault.filename or 'A file'} can not be written: {fault.strerror}.", err=True)
    else:
        return
    sys.exit(FAILED)


def run_server(path: Path, port: int, with_demo: bool, changer: tuple[int, Path] | None = None) -> None:
    """Look at the file, take the port, and only then load what is slow."""
    from loquen.serving.port import bound
    from loquen.store.file import files

    with told():
        files.look_at(path)
        ours = bound(port)
        files.make_ready(path)
        typer.echo(f"Loquen: http://127.0.0.1:{port}   data: {path}")
        from loquen.serving.opening import serve

        token = path.with_name(f"{path.stem}.controller-token")
        with simulated_controller(token) if with_demo else nullcontext(changer) as found:
            serve(path, ours, with_demo, found)


@contextmanager
def simulated_controller(token: Path) -> Iterator[tuple[int, Path]]:
    """The simulated controller as a process of its own, for as long as this one runs, and the file with its token."""
    import socket
    import subprocess

    from loquen.devices.changer import secret

    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    secret.made(token)
    arguments = ["controller", "--port", str(port), "--token", str(token), "--with-parent"]
    process = subprocess.Popen([sys.executable, "-m", "loquen.cli", *arguments], stdout=subprocess.DEVNULL)
    try:
        yield port, token
    finally:
        process.terminate()
        process.wait(timeout=5)
        token.unlink(missing_ok=True)


def at(db: Path | None, demo: bool = False) -> Path:
    """The file that is meant: the one given, or the usual one."""
    from loquen.store.file.files import default_path

    return db or default_path(demo=demo)


@app.command()
def serve(
    db: Database = None,
    port: Port = 8640,
    controller: Annotated[
        int | None, typer.Option(help="Port of a changer's controller on this machine.", min=1, max=65535)
    ] = None,
    token: Annotated[Path | None, typer.Option(help="The file with the controller's token.")] = None,
) -> None:
    """Serve your own database."""
    changer = (controller, token or token_path()) if controller else None
    run_server(at(db), port, with_demo=False, changer=changer)


@app.command()
def demo(db: Database = None, port: Port = 8640) -> None:
    """Serve the made-up room of Sluice Street, kept in a file of its own."""
    run_server(at(db, demo=True), port, with_demo=True)


@app.command()
def controller(
    port: Port = 8641,
    token: Annotated[Path | None, typer.Option(help="The file with its token; made anew when left out.")] = None,
    pulse_l: Annotated[float, typer.Option(help="Litres that a pulse may take.", min=0)] = 1500,
    day_l: Annotated[float, typer.Option(help="Litres that a day may take.", min=0)] = 10_000,
    pulse_min: Annotated[float, typer.Option(help="Minutes that a pulse may take.", min=0)] = 240,
    coldest_c: Annotated[float, typer.Option(help="The coldest water that it mixes, °C.")] = 4,
    warmest_c: Annotated[float, typer.Option(help="The warmest water that it mixes, °C.")] = 34,
    with_parent: Annotated[bool, typer.Option(help="Stop when the parent process does.")] = False,
) -> None:
    """Run the simulated controller of a room's changer alone, with the limits that are entered at it."""
    from loquen.devices.changer import secret
    from loquen.devices.changer.door import serve
    from loquen.devices.changer.machine import Limits

    with told():
        if token is None:
            secret.made(token_path())
            typer.echo(f"Its token: {token_path()}")
        shared = secret.read(token or token_path())
        if not shared:
            raise typer.BadParameter(f"there is no token in {token}", param_hint="--token")
        serve(port, shared, Limits(pulse_l, day_l, pulse_min, coldest_c, warmest_c), with_parent)


def token_path() -> Path:
    """Where the token of a controller lies that was started alone."""
    from loquen.store.file.files import default_path

    return default_path().with_name("controller-token")


def reloading_demo() -> "ASGIApp":
    """The demo as an application factory, for a server that reloads."""
    from loquen.api.app import create_api
    from loquen.demo import sluice_street
    from loquen.house.house import House
    from loquen.serving.guard import Guard
    from loquen.serving.pages import Pages
    from loquen.store.database import open_database

    database = open_database(at(None, demo=True))
    house = House(database)
    sluice_street.fill(database)
    return Guard(Pages(create_api(house)))


@app.command()
def openapi(target: Path) -> None:
    """Write the description of the API, from which the pages' client is generated."""
    import json

    from loquen.api.app import create_api
    from loquen.house.house import House
    from loquen.store import database

    description = create_api(House(database.Database(Path("none.db")))).openapi()
    target.write_text(json.dumps(description, indent=1, ensure_ascii=False) + "\n", encoding="utf-8")


@app.command()
def book(system: int, target: Path, db: Present = None, demo: Demo = False) -> None:
    """Write the build book of a system, by its number, as a PDF."""
    from loquen.checked.documents import A_PLAN
    from loquen.core.model.roots.documents import Unreadable
    from loquen.core.system.book import sheet_of
    from loquen.core.system.build import system_quote
    from loquen.exchange.build_book import build_book
    from loquen.house.house import House
    from loquen.store.database import open_database
    from loquen.store.documents import systems
    from loquen.store.faults import UnusableFile
    from loquen.store.routine import prices

    path = at(db, demo)
    with told():
        if not path.exists():
            raise UnusableFile("missing", path=path)
        database = open_database(path)
        try:
            library = House(database).library
            with database.reading() as session:
                plan = A_PLAN.read(systems.read(session, system).document)
                known = prices.everything(session)
        except systems.NoSuchSystem:
            raise UnusableFile("no_system", path=path, system=system) from None
        except Unreadable as fault:
            raise UnusableFile("no_plan", path=path, system=system, why=fault.sentence) from None
        finally:
            database.close()
        sheet = sheet_of(plan, library)
        target.write_bytes(build_book(sheet, system_quote(sheet, known), {}))
        typer.echo(f"{plan.name}: {target}")


@app.command()
def backup(
    target: Annotated[Path | None, typer.Argument(help="Where to; in `backups` beside it when left out.")] = None,
    db: Present = None,
    demo: Demo = False,
) -> None:
    """Write a whole, checked copy of the database, also while it is in use."""
    from loquen.store.file import copies

    with told():
        typer.echo(f"Copied to {copies.backup(at(db, demo), target)}")


@app.command()
def restore(
    copy: Annotated[Path, typer.Argument(help="The copy to put in the database's place.")],
    db: Database = None,
    demo: Demo = False,
) -> None:
    """Put a copy in the database's place; the present file is set aside, not thrown away."""
    from loquen.store.file import copies

    path = at(db, demo)
    with told():
        aside = copies.restore(copy, path)
        was = f" What was there lies in {aside}." if aside else ""
        typer.echo(f"{path} is now what {copy} holds.{was}")


if __name__ == "__main__":
    app()
