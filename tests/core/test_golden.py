"""Reference values for the relations, one a line: the call, the value it must give, the tolerance, the source."""

import csv
from pathlib import Path

import pytest

from loquen.core.physics import animals, chemistry, dilution, gases, geometry, heat, hydraulics, nitrogen

MODULES = {
    module.__name__.rsplit(".", 1)[1]: module
    for module in (animals, chemistry, dilution, gases, geometry, heat, hydraulics, nitrogen)
}
ROWS = list(csv.DictReader((Path(__file__).parent / "cases/golden.csv").read_text(encoding="utf-8").splitlines()))


@pytest.mark.parametrize("row", ROWS, ids=lambda row: row["call"])
def test_reference_value(row):
    assert row["source"]
    value = eval(row["call"], {"__builtins__": {}}, MODULES)
    assert value == pytest.approx(float(row["expected"]), rel=float(row["rtol"]), abs=1e-9)


def test_the_list_is_whole():
    assert len(ROWS) >= 40
