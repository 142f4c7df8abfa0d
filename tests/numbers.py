"""Writes docs/numbers.md from the docstrings, the data and the reference cases; --check says whether it is current."""

import importlib
import inspect
import pkgutil
import re
import sys
import tomllib
from pathlib import Path

from loquen.core import physics
from loquen.core.data.bodies import body_shapes
from loquen.core.data.materials import materials
from loquen.core.data.minerals import ions, mineral_salts
from loquen.core.data.tables import constants, sources
from loquen.core.library.whole import shipped
from loquen.core.system.book import STAGES, system_book

ROOT = Path(__file__).parent.parent
TARGET = ROOT / "docs/numbers.md"
CASES = ROOT / "tests/core/cases"
WHOLE_RUNS = tuple(CASES / f"{name}.toml" for name in ("system", "plans", "cycles"))
FINEST = 1e-6
"""Differences below this are a machine's own rounding."""
TABLES = (
    "species", "plants", "media", "filter_models", "filter_kinds", "turnovers", "beds", "materials", "plant_covers",
    "body_shapes", "shock_classes", "pump_models", "pipes", "fittings", "heater_models", "mineral_salts", "ions",
    "stock_tanks",
)  # fmt: skip
NATURE = {"materials": materials, "body_shapes": body_shapes, "mineral_salts": mineral_salts, "ions": ions}
"""Tables that are the same in every library."""
HEAD = """# Where the numbers come from

Written by `./run numbers` from the docstrings, the data and the reference cases; do not edit it by hand. Every
relation refuses what lies outside its range by parameter, value, limit and unit. Nitrogen is carried as mg/L of N.
A figure's own formula and source stand in its working, in the application.
"""


def relations():
    """Module and function of every public relation."""
    for info in pkgutil.walk_packages(physics.__path__, "loquen.core.physics."):
        module = importlib.import_module(info.name)
        for _, function in inspect.getmembers(module, inspect.isfunction):
            if function.__module__ == module.__name__ and "Equation:" in (function.__doc__ or ""):
                yield info.name.removeprefix("loquen.core.physics."), function


def part(text, head, following):
    found = re.search(rf"{head}: (.*?)\n{following}:", text, re.S)
    return " ".join(found.group(1).split()) if found else ""


def ranges(text):
    """Every parameter's unit and range, shortened."""
    lines = re.findall(r"^    (\w+): (.*?)(?:\. |\.?$)", text, re.M)
    return "; ".join(f"`{name}` {words}" for name, words in lines)


def row(*cells):
    return "| " + " | ".join(str(cell).replace("|", "\\|") for cell in cells) + " |"


def table(heads, rows):
    return "\n".join([row(*heads), row(*["---"] * len(heads)), *rows])


def relation_rows():
    rows = {}
    for module, function in relations():
        text = inspect.getdoc(function)
        source = re.search(r"^Source: (\w+)$", text, re.M).group(1)
        equation, returns = part(text, "Equation", "Parameters"), part(text, "Returns", "Raises")
        cells = (f"`{function.__name__}`", equation, ranges(text), returns, source)
        rows.setdefault(module, []).append(row(*cells))
    return rows


def case_rows():
    for path in sorted(set(CASES.glob("*.toml")) - set(WHOLE_RUNS)):
        module = importlib.import_module(f"loquen.core.physics.{path.stem}")
        for case in tomllib.loads(path.read_text(encoding="utf-8"))["case"]:
            ours = float(getattr(module, case["call"])(**case["args"]))
            expected = case["expected"]
            apart = abs(ours - expected) / abs(expected) if expected else abs(ours)
            called = ", ".join(f"{name}={value}" for name, value in case["args"].items())
            yield row(
                f"`{path.stem}.{case['call']}({called})`",
                f"{expected:.5g}",
                f"{ours:.5g}",
                f"{max(apart, FINEST):.0e} of {case['rtol']:g}",
                case["source"],
            )


def constant_rows():
    for name, value in [
        *constants().items(),
        *constants("cycle.toml").items(),
        *constants("course.toml").items(),
        *constants("planning.toml").items(),
        *constants("routine.toml").items(),
    ]:
        span = f"{value.low:g} to {value.high:g}" if value.low is not None else ""
        yield row(f"`{name}`", f"{value.value:g}", span, value.unit, value.source, value.note)


def data_rows():
    for name in TABLES:
        rows = list((NATURE[name]() if name in NATURE else getattr(shipped(), name)).values())
        keys = sorted({entry.source for entry in rows})
        sure = [entry.confidence for entry in rows if hasattr(entry, "confidence")]
        split = ", ".join(f"{sure.count(word)} {word}" for word in ("high", "fair", "low") if word in sure)
        yield row(name.replace("_", " "), len(rows), ", ".join(keys), split)


def figure_rows():
    checks = [node for node in system_book().nodes.values() if node.check]
    for node in sorted(checks, key=lambda node: list(STAGES).index(node.check.stage)):
        yield row(STAGES[node.check.stage], node.label, f"`{node.check.judges}`" if node.check.judges else "a list")


def written():
    parts = [HEAD, "## Relations"]
    for module, rows in relation_rows().items():
        heads = ("relation", "equation", "parameters and ranges", "gives, and how sure", "source")
        parts += [f"### {module}", table(heads, rows)]
    parts += [
        "## Reference cases, and how near we are",
        "Relative difference, of what is allowed. Each also runs as a test.",
        table(("case", "reference", "ours", "apart", "origin"), case_rows()),
        "## Constants and husbandry defaults",
        "Those with a range widen every figure that hangs on them.",
        table(("name", "value", "range", "unit", "source", "note"), constant_rows()),
        "## Tables",
        table(("table", "rows", "sources", "confidence"), data_rows()),
        "## Checks of one system",
        table(("stage", "check", "judges"), figure_rows()),
        "## Sources",
        table(("key", "source"), (row(key, text) for key, text in sources().items())),
    ]
    return "\n\n".join(parts) + "\n"


if __name__ == "__main__":
    text = written()
    if "--check" in sys.argv:
        if not TARGET.exists() or TARGET.read_text(encoding="utf-8") != text:
            sys.exit("docs/numbers.md is not current: ./run numbers writes it anew.")
    else:
        TARGET.write_text(text, encoding="utf-8")
