"""Small faults put into the core, one at a time, to see whether a test notices: ./run mutants [--count N] [--seed N].

Each is tried in a copy of the checkout; nothing here is changed. What survives is printed with its place: a line that
no test watches, or now and then a change that changes nothing.
"""

import argparse
import ast
import copy
import random
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

ROOT = Path(__file__).parent.parent
FLOORS = (
    "events",
    "drills",
    "feeding",
    "fit",
    "graph",
    "growout",
    "joining",
    "library",
    "model",
    "physics",
    "quarantine",
    "register",
    "rooms",
    "routine",
    "system",
    "timeline",
)
OTHER = {ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Div, ast.Div: ast.Mult}
TURNED = {ast.Lt: ast.GtE, ast.LtE: ast.Gt, ast.Gt: ast.LtE, ast.GtE: ast.Lt, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq}
SWAPPED = {"min": "max", "max": "min", "all": "any", "any": "all"}
LONGEST_S = 600


def changes(node):
    """What may be put in a node's place, each with its words."""
    if isinstance(node, ast.BinOp) and type(node.op) in OTHER:
        yield "other operator", ast.BinOp(node.left, OTHER[type(node.op)](), node.right)
        yield "dropped term", node.left
    elif isinstance(node, ast.Compare) and type(node.ops[0]) in TURNED:
        yield (
            "turned comparison",
            ast.Compare(node.left, [TURNED[type(node.ops[0])](), *node.ops[1:]], node.comparators),
        )
    elif isinstance(node, ast.UnaryOp) and isinstance(node.op, ast.USub):
        yield "dropped sign", node.operand
    elif isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id in SWAPPED:
        yield (
            f"{node.func.id} for {SWAPPED[node.func.id]}",
            ast.Call(ast.Name(SWAPPED[node.func.id]), node.args, node.keywords),
        )
    elif isinstance(node, ast.Constant) and type(node.value) in (int, float):
        yield "constant", ast.Constant(node.value * 10 or 1)


def places(tree):
    """Every node inside a function's body, by its number in the walk."""
    inside = {
        id(inner)
        for function in ast.walk(tree)
        if isinstance(function, ast.FunctionDef)
        for statement in function.body
        for inner in ast.walk(statement)
    }
    return [(number, node) for number, node in enumerate(ast.walk(tree)) if id(node) in inside]


class Put(ast.NodeTransformer):
    """Puts one node in another's place."""

    def __init__(self, old, new):
        self.old, self.new = old, new

    def visit(self, node):
        return self.new if node is self.old else self.generic_visit(node)


def candidates():
    """Every mutant there is: file, number of the node, number of the change."""
    for floor in FLOORS:
        for path in sorted((ROOT / "src/loquen/core" / floor).rglob("*.py")):
            for number, node in places(ast.parse(path.read_text(encoding="utf-8"))):
                for which, _ in enumerate(changes(node)):
                    yield path.relative_to(ROOT), number, which


def mutated(path, number, which):
    """The file with the change in it, and words for it."""
    tree = ast.parse((ROOT / path).read_text(encoding="utf-8"))
    node = list(ast.walk(tree))[number]
    words, new = list(changes(copy.deepcopy(node)))[which]
    was = ast.unparse(node)
    changed = ast.unparse(ast.fix_missing_locations(Put(node, new).visit(tree)))
    return changed, f"{path}:{node.lineno}: {words}: {was[:70]}"


def survives(folder, path, content):
    """Whether the tests of core and API notice nothing."""
    place = folder / path
    kept = place.read_text(encoding="utf-8")
    place.write_text(content, encoding="utf-8")
    tests = [
        sys.executable,
        "-m",
        "pytest",
        "tests/core",
        "tests/api",
        "-q",
        "-x",
        "-n",
        "2",
        "-p",
        "no:cacheprovider",
    ]
    try:
        return (
            subprocess.run(tests, cwd=folder, capture_output=True, check=False, timeout=LONGEST_S).returncode == 0
        )
    except subprocess.TimeoutExpired:
        return False
    finally:
        place.write_text(kept, encoding="utf-8")


def main():
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--count", type=int, default=20)
    parser.add_argument("--seed", type=int, default=1)
    asked = parser.parse_args()
    everyone = list(candidates())
    sample = random.Random(asked.seed).sample(everyone, asked.count)
    killed = 0
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        for part in ("src", "tests"):
            shutil.copytree(
                ROOT / part, folder / part, ignore=shutil.ignore_patterns("__pycache__", "web_dist", "*.egg-info")
            )
        shutil.copy(ROOT / "pyproject.toml", folder)
        for path, number, which in sample:
            content, words = mutated(path, number, which)
            alive = survives(folder, path, content)
            killed += not alive
            print(f"{'survives' if alive else 'killed  '}  {words}", flush=True)
    print(f"{killed} of {asked.count} mutants killed ({killed / asked.count:.0%}), of {len(everyone)} there are")


if __name__ == "__main__":
    main()
