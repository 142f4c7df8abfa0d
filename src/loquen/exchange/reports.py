"""A water report as CSV, one parameter a line: parameter, value, unit. docs/formats.md describes it."""

import csv
import io
from dataclasses import dataclass
from typing import Any

from loquen.core.physics.nitrogen import CACO3_MG_L_PER_DKH, NITRATE_PER_N

MOST_LINES = 200
HARD = {"": 1.0, "dgh": 1.0, "dkh": 1.0, "mg/l caco3": 1 / CACO3_MG_L_PER_DKH, "ppm": 1 / CACO3_MG_L_PER_DKH}
PLAIN = {"": 1.0, "mg/l": 1.0}
NUMBERS: dict[str, tuple[str, dict[str, float]]] = {
    "total hardness": ("src_gh_dgh", HARD),
    "carbonate hardness": ("src_kh_dkh", HARD),
    "ph": ("src_ph", {"": 1.0}),
    "conductivity": ("src_us_cm", {"": 1.0, "us/cm": 1.0, "µs/cm": 1.0, "ms/m": 10.0}),
    "nitrate": ("src_nitrate_mg_l", {"": 1 / NITRATE_PER_N, "mg/l no3": 1 / NITRATE_PER_N, "mg/l n": 1.0}),
    "sodium": ("src_sodium_mg_l", PLAIN),
    "chloride": ("src_chloride_mg_l", PLAIN),
    "temperature": ("src_c", {"": 1.0, "c": 1.0, "°c": 1.0}),
    "summer temperature": ("src_summer_c", {"": 1.0, "c": 1.0, "°c": 1.0}),
    "disinfectant strength": ("src_chlorine_mg_l", PLAIN),
}
WORDS = {
    "name": ("src_name", None),
    "kind": ("src_kind", ("tap", "well", "rain", "osmosis", "stored")),
    "disinfectant": ("src_disinfectant", ("none", "chlorine", "chloramine")),
    "softened": ("src_softened", ("none", "hot", "all")),
}


@dataclass(frozen=True, slots=True)
class LineFault:
    """A line that could not be read: its number and what is wrong with it."""

    line: int
    what: str


class UnreadReport(ValueError):
    """A report with lines that can not be read."""

    def __init__(self, faults: list[LineFault]) -> None:
        super().__init__(f"{len(faults)} lines")
        self.faults = faults


def read_report(text: str) -> dict[str, Any]:
    """A water's fields from a report; what is not named keeps its default. Raises: UnreadReport naming every line."""
    rows = list(csv.reader(io.StringIO(text)))
    found: dict[str, Any] = {}
    faults = []
    if len(rows) > MOST_LINES:
        raise UnreadReport([LineFault(MOST_LINES, f"a report has at most {MOST_LINES} lines")])
    for number, row in enumerate(rows, start=1):
        cells = [cell.strip() for cell in row] + ["", "", ""]
        name = cells[0].lower()
        if not any(cells) or name in ("parameter", "") or cells[0].startswith("#"):
            continue
        try:
            field, value = read_line(name, cells[1], cells[2].lower())
        except ValueError as fault:
            faults.append(LineFault(number, str(fault)))
        else:
            found[field] = value
    if faults:
        raise UnreadReport(faults)
    if not found:
        raise UnreadReport([LineFault(1, "no line says anything about a water: parameter, value, unit")])
    return found


def read_line(name: str, value: str, unit: str) -> tuple[str, Any]:
    if name in WORDS:
        field, options = WORDS[name]
        if options is not None and value.lower() not in options:
            raise ValueError(f"“{value}” is none of {', '.join(options)}")
        return field, value.lower() if options else value[:80]
    if name not in NUMBERS:
        known = ", ".join([*WORDS, *NUMBERS])
        raise ValueError(f"“{name}” is not known; known are {known}")
    field, units = NUMBERS[name]
    if unit not in units:
        raise ValueError(f"{name} in “{unit}”; it may be in {', '.join(key for key in units if key)}")
    try:
        return field, float(value.replace(",", ".")) * units[unit]
    except ValueError:
        raise ValueError(f"“{value}” is not a number") from None
