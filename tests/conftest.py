"""What tests of several layers share: an empty database, the application on it, a client."""

import pytest
from fastapi.testclient import TestClient

from loquen.api.app import create_api
from loquen.core.data import own
from loquen.demo import sluice_street
from loquen.serving.guard import Guard
from loquen.serving.pages import Pages
from loquen.store.database import open_database
from tests import noon

noon.begin()


@pytest.fixture
def database(tmp_path):
    database = open_database(tmp_path / "loquen.db")
    yield database
    database.close()


@pytest.fixture
def client(database, tmp_path):
    (tmp_path / "web").mkdir()
    (tmp_path / "web" / "index.html").write_text("<title>Loquen</title>")
    sluice_street.fill(database)
    site = Guard(Pages(create_api(database), tmp_path / "web"))
    with TestClient(site, base_url="http://127.0.0.1:8640") as client:
        yield client
    own.adopt({})
