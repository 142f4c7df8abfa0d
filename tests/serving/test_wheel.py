"""What is installed with pip works as what is run from the checkout: code, data, migrations, pages, and what it needs."""

import subprocess
import sys
import zipfile

import pytest

from loquen.serving.pages import WEB
from loquen.store.file import files


@pytest.fixture(scope="module")
def wheel(tmp_path_factory):
    target = tmp_path_factory.mktemp("wheel")
    build = [
        sys.executable,
        "-m",
        "pip",
        "wheel",
        "--quiet",
        "--no-deps",
        "--no-build-isolation",
        "-w",
        str(target),
        ".",
    ]
    subprocess.run(build, check=True, capture_output=True)
    (made,) = target.glob("*.whl")
    with zipfile.ZipFile(made) as archive:
        yield archive


def test_everything_that_it_reads_is_in_it(wheel):
    package = WEB.parent
    wanted = [*WEB.rglob("*"), *files.MIGRATIONS.rglob("*.py"), package / "py.typed"]
    wanted += [path for path in (package / "core/data").iterdir() if path.suffix in (".csv", ".toml")]
    inside = {path.relative_to(package.parent).as_posix() for path in wanted if path.is_file()}
    assert len(inside) > 30
    assert inside <= set(wheel.namelist())


def test_it_says_what_it_needs_and_how_it_is_called(wheel):
    (folder,) = {name.split("/")[0] for name in wheel.namelist() if ".dist-info/" in name}
    metadata = wheel.read(f"{folder}/METADATA").decode()
    needed = {
        line.split(": ")[1].split("=")[0].strip()
        for line in metadata.splitlines()
        if line.startswith("Requires-Dist")
    }
    assert {"fastapi", "sqlmodel", "alembic", "uvicorn", "scipy", "fluids"} <= needed
    assert "License-Expression: MIT" in metadata
    assert "loquen = loquen.cli:app" in wheel.read(f"{folder}/entry_points.txt").decode()
