"""What tests of several layers share: an empty database, the application on it, a client."""

import shutil
from collections import OrderedDict

import pytest
from fastapi.testclient import TestClient

from loquen.api.app import create_api
from loquen.demo import sluice_street
from loquen.house.house import House
from loquen.house.round.cares import care
from loquen.serving.guard import Guard
from loquen.serving.pages import Pages
from loquen.store.database import open_database
from tests import noon

noon.begin()
CARES: OrderedDict = OrderedDict()
"""What the systems of the demo want done, which most rounds ask for: a care is known by the system's own text."""


@pytest.fixture(scope="session")
def empty_file(tmp_path_factory):
    """A closed file with the newest tables and nothing in them: migrating takes longer than most tests."""
    path = tmp_path_factory.mktemp("empty") / "loquen.db"
    open_database(path).close()
    return path


@pytest.fixture(scope="session")
def demo_file(tmp_path_factory, empty_file):
    """A closed file with the demo room."""
    path = shutil.copy(empty_file, tmp_path_factory.mktemp("demo") / "loquen.db")
    database = open_database(path)
    sluice_street.fill(database)
    database.close()
    return path


@pytest.fixture
def database(tmp_path, request):
    """An open database of a test's own: empty, or with the demo room where the test has a client."""
    kept = request.getfixturevalue("demo_file" if "client" in request.fixturenames else "empty_file")
    database = open_database(shutil.copy(kept, tmp_path / "loquen.db"))
    yield database
    database.close()


@pytest.fixture
def house(database):
    return House(database)


@pytest.fixture
def client(house, tmp_path):
    (tmp_path / "web").mkdir()
    (tmp_path / "web" / "index.html").write_text("<title>Loquen</title>")
    house.kept.made[care] = CARES
    site = Guard(Pages(create_api(house), tmp_path / "web"))
    with TestClient(site, base_url="http://127.0.0.1:8640") as client:
        yield client
