"""Lines of tests as a share of the lines they test, blank lines left out."""

from pathlib import Path

ROOT = Path(__file__).parent.parent
GENERATED = {"schema.ts"}


def lines(paths):
    return sum(1 for path in paths for line in path.read_text(encoding="utf-8").splitlines() if line.strip())


def sources(folder, *suffixes):
    return [path for path in (ROOT / folder).rglob("*") if path.suffix in suffixes and path.name not in GENERATED]


web = sources("web/src", ".ts", ".tsx", ".css")
tests = sources("tests", ".py", ".toml") + [path for path in web if ".test." in path.name]
code = sources("src", ".py") + [path for path in web if ".test." not in path.name]
share = lines(tests) / lines(code)
print(f"{lines(tests)} lines of tests, {lines(code)} lines of code: {share:.0%} (wanted: 25 to 33 %)")
