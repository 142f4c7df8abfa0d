"""Questions put to a sheet: what moves a figure, how sure it is, and what it would take."""

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Any

from loquen.core.errors import UnknownKey
from loquen.core.graph.keys import CONSTANT, Key, Missing
from loquen.core.graph.nodes import Node, Remedy, Verdict
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.options import options_of
from loquen.core.model.inputs.quantity import Quantity, Term, say

NUDGE = 0.1
NUDGE_K = 1.0
SMALL_STEP = 0.5
MOST_MOVERS = 5
SIGNIFICANT = 3
STEPS = 40
PROBES = 4
BAND_PROBES = 12
CLOSE = 1e-3
MOVABLE = ("setting", "bought")


@dataclass(frozen=True, slots=True)
class Mover:
    """How far a figure moves when one input grows by `nudge` (a tenth, or one degree)."""

    path: Key
    label: str
    nudge: Term
    change: float


@dataclass(frozen=True, slots=True)
class Answer:
    """The value of one input that brings a figure to a target, or why none does."""

    path: Key
    label: str
    kind: str
    present: float | None
    needed: float | None


def number(sheet: Sheet, key: Key) -> float | None:
    """A figure's value, or None where a named case stands."""
    value = sheet.look(key)
    return None if isinstance(value, Missing) else float(value)


def label_of(sheet: Sheet, path: Key) -> str:
    """Words for an input: its label, with the row it belongs to."""
    shape = sheet.book.shape
    entry = shape.entry_at(path)
    label = entry.label if entry else path
    section, *rest = path.split(".")
    if section not in shape.rows:
        return label
    return sheet.book.domain.row_label(sheet, section, int(rest[0]), label)


def entered(sheet: Sheet, key: Key) -> Iterator[tuple[Key, Quantity, float]]:
    """The numbers that a person entered and that a node hangs on, nearest first."""
    for path in sheet.wiring.upstream(key):
        entry = sheet.book.shape.entry_at(path)
        value = sheet.known.get(path)
        if isinstance(entry, Quantity) and isinstance(value, int | float):
            yield path, entry, float(value)


def movers(sheet: Sheet, key: Key) -> list[Mover]:
    """The inputs that move a figure most, each nudged alone, largest first."""
    base = number(sheet, key)
    if base is None:
        return []
    found = []
    for path, entry, value in entered(sheet, key):
        by = NUDGE_K if entry.kind == "temperature" else value * NUDGE
        if entry.whole:
            by = max(1.0, round(by))
        if by == 0 or (entry.whole and by > SMALL_STEP * value):
            continue
        moved = number(sheet.changed({path: retyped(entry, value + by)}), key)
        if moved is not None and abs(moved - base) > 1e-9 * max(1.0, abs(base)):
            nudge = Term(by, "temperature_difference" if entry.kind == "temperature" else entry.kind)
            found.append(Mover(path, label_of(sheet, path), nudge, moved - base))
    return sorted(found, key=lambda mover: -abs(mover.change))[:MOST_MOVERS]


def spreads(sheet: Sheet, keys: tuple[Key, ...]) -> dict[Key, tuple[float, float]]:
    """Low and high of figures, from every uncertain constant upstream, combined as independent.

    Figures without a number, or that hang on nothing uncertain, are left out.
    """
    bases = {key: base for key in keys if (base := number(sheet, key)) is not None}
    downs, ups = dict.fromkeys(bases, 0.0), dict.fromkeys(bases, 0.0)
    for name, row in sheet.constants.items():
        path = CONSTANT + name
        hanging = [key for key in bases if key in sheet.wiring.users_of(path)]
        if row.low is None or row.high is None or not hanging:
            continue
        ends = [sheet.changed({path: end}) for end in (row.low, row.high)]
        for key in hanging:
            moved = [end - bases[key] for changed in ends if (end := number(changed, key)) is not None]
            downs[key] += min([0.0, *moved]) ** 2
            ups[key] += max([0.0, *moved]) ** 2
    found = {}
    for key, base in bases.items():
        if downs[key] or ups[key]:
            low = base - math.sqrt(downs[key])
            found[key] = (max(0.0, low) if base >= 0 else low, base + math.sqrt(ups[key]))
    return found


def spread(sheet: Sheet, key: Key) -> tuple[float, float] | None:
    """Low and high of one figure; None where nothing upstream is uncertain."""
    return spreads(sheet, (key,)).get(key)


def retyped(entry: Quantity, value: float) -> float:
    return round(value) if entry.whole else value


def rounded(value: float, entry: Quantity, upward: bool) -> float:
    """A value in digits worth saying, rounded to the side asked for and kept inside its limits."""
    if entry.whole:
        whole = math.ceil(value - 1e-9) if upward else math.floor(value + 1e-9)
        return max(entry.low, min(entry.high, whole))
    if entry.kind == "share":
        grain = 0.01
    else:
        grain = 10 ** (math.floor(math.log10(max(abs(value), 1e-6))) - SIGNIFICANT + 1)
    steps = value / grain
    near = (math.ceil(steps - 1e-9) if upward else math.floor(steps + 1e-9)) * grain
    return max(entry.low, min(entry.high, round(near, 9)))


def probes(present: float, end: float, count: int) -> Iterator[float]:
    """Values from the present one to an end, in even ratios where the signs allow, close ones first."""
    even = present > 0 and end > 0 and math.isfinite(end / present)
    for n in range(1, count + 1):
        share = n / count
        yield present * (end / present) ** share if even else present + (end - present) * share**2


def nearest_crossing(
    good: Callable[[float], bool], present: float, low: float, high: float, count: int
) -> tuple[float, bool] | None:
    """The value nearest to the present one from which `good` holds, searched towards both ends.

    `count` values are tried on the way to each end: few for one limit, more for a band that could be missed.
    Returns the value and whether it lies above the present; None when neither way brings it.
    """
    found = []
    for end in (high, low):
        bad, fine = present, None
        for probe in probes(present, end, count):
            if good(probe):
                fine = probe
                break
            bad = probe
        if fine is None:
            continue
        for _ in range(STEPS):
            middle = (bad + fine) / 2
            if good(middle):
                fine = middle
            else:
                bad = middle
            if abs(fine - bad) <= CLOSE * max(abs(fine), 1e-6):
                break
        found.append((fine, end == high))
    return min(found, key=lambda hit: abs(hit[0] - present), default=None)


def solved(sheet: Sheet, path: Key, good: Callable[[Sheet], bool], count: int = PROBES) -> float | None:
    """The value of one input, nearest to the present one, with which the sheet is good; None if none is."""
    entry = sheet.book.shape.entry_at(path)
    if not isinstance(entry, Quantity):
        raise UnknownKey("inputs to solve for", path)
    if path not in sheet.known:
        raise UnknownKey("inputs to solve for", path)
    present = sheet.known[path]
    start = float(present) if present is not None else entry.low

    def good_at(value: float) -> bool:
        return good(sheet.changed({path: retyped(entry, value)}))

    hit = nearest_crossing(good_at, start, entry.low, entry.high, count)
    if hit is None:
        return None
    value = rounded(hit[0], entry, upward=hit[1])
    return value if good_at(value) else None


def reaches(target: float, from_above: bool, key: Key) -> Callable[[Sheet], bool]:
    """Whether a figure has come to a target from the side it was on."""

    def good(sheet: Sheet) -> bool:
        value = number(sheet, key)
        return value is not None and (value <= target if from_above else value >= target)

    return good


def answers(sheet: Sheet, key: Key, target: float, paths: list[Key]) -> list[Answer]:
    """What it would take, input by input, to bring a figure to a target; raise UnknownKey for what is no number's input."""
    base = number(sheet, key)
    from_above = base is None or base > target
    out = []
    for path in paths:
        entry = sheet.book.shape.entry_at(path)
        present = sheet.known.get(path)
        if (
            not isinstance(entry, Quantity)
            or sheet.book.shape.is_list(path)
            or not isinstance(present, int | float | None)
        ):
            raise UnknownKey("inputs to solve for", path)
        needed = solved(sheet, path, reaches(target, from_above, key))
        out.append(Answer(path, label_of(sheet, path), entry.kind, present, needed))
    return out


def mended(key: Key) -> Callable[[Sheet], bool]:
    """Whether a check no longer falls short."""

    def good(sheet: Sheet) -> bool:
        verdict = sheet.look(key)
        return isinstance(verdict, Verdict) and verdict.state in ("holds", "tight")

    return good


def may_move(sheet: Sheet, path: Key) -> bool:
    """Whether an input is one that somebody decides or buys: no advice moves how things are, or what was read."""
    entry = sheet.book.shape.entry_at(path)
    return entry is not None and entry.given in MOVABLE


def mend_paths(sheet: Sheet, node: Node) -> list[Key]:
    """The inputs that a check names as its remedies, one per row where it names rows; empty ones left out."""
    paths: list[Key] = []
    for pattern in node.check.mends if node.check else ():
        section, _, rest = pattern.partition(".")
        if section in sheet.book.shape.rows:
            rows = range(len(getattr(sheet.root, section)))
            candidates = [f"{section}.{i}.{rest.removeprefix('*.')}" for i in rows]
            entered = [path for path in candidates if sheet.known[path] is not None]
            # The row that weighs most is the one a person would change; of choices the first.
            numbers = [path for path in entered if isinstance(sheet.known[path], int | float)]
            paths += sorted(numbers, key=lambda path: -sheet.known[path])[:1] or entered[:1]
        else:
            paths.append(pattern)
    return [path for path in paths if may_move(sheet, path)]


def remedies(sheet: Sheet, key: Key) -> list[Remedy]:
    """Changes of one input each that mend a check, solved; choices are tried as they are.

    What mends the check but contradicts something else is no way out, and left out.
    """
    found: list[Remedy] = []
    verdict = sheet.look(key)
    gauge = verdict.gauge if isinstance(verdict, Verdict) else None
    band = gauge is not None and gauge.low is not None and gauge.high is not None
    count = BAND_PROBES if band else PROBES
    for path in mend_paths(sheet, sheet.wiring.nodes[key]):
        entry = sheet.book.shape.entry_at(path)
        label = label_of(sheet, path)
        if isinstance(entry, Quantity):
            value = solved(sheet, path, mended(key), count)
            if value is not None:
                sentence = say("{label}: {value}", label=label, value=Term(value, entry.kind))
                found.append(Remedy(sentence, {path: retyped(entry, value)}))
        else:
            found += chosen(sheet, path, key, label)
    return [
        remedy
        for remedy in found
        if not sheet.book.domain.contradicts(sheet.book.shape.changed(sheet.root, remedy.changes), sheet.library)
    ]


def chosen(sheet: Sheet, path: Key, key: Key, label: str) -> list[Remedy]:
    """The option of a choice that mends a check, when one does; the first in the order that the domain says."""
    entry: Any = sheet.book.shape.entry_at(path)
    options: dict[Any, str] = dict(options_of(entry, sheet.library)) or {True: "yes"}
    for option in sorted(
        options, key=lambda option: sheet.book.domain.option_order(sheet, option, sheet.known[path])
    ):
        if option != sheet.known[path] and mended(key)(sheet.changed({path: option})):
            return [Remedy(say("{label}: {value}", label=label, value=options[option]), {path: option})]
    return []
