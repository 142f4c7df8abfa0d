"""What tests of several layers share: an empty database, the application on it, a client."""

import pytest
from fastapi.testclient import TestClient

from loquen.api.app import create_app
from loquen.demo import sluice_street
from loquen.store.database import open_database


@pytest.fixture
def engine(tmp_path):
    engine = open_database(tmp_path / "loquen.db")
    yield engine
    engine.dispose()


@pytest.fixture
def client(engine, tmp_path):
    (tmp_path / "web").mkdir()
    (tmp_path / "web" / "index.html").write_text("<title>Loquen</title>")
    sluice_street.fill(engine)
    with TestClient(create_app(engine, tmp_path / "web"), base_url="http://127.0.0.1:8640") as client:
        yield client
