"""What is said of a field that is wrong: typed values by their limits, contradictions by their code."""

from collections.abc import Collection
from typing import Any

from loquen.core.errors import PlanConflict
from loquen.core.model.inputs.quantity import Choice, Quantity, Sentence, Term, quoted, say
from loquen.core.model.inputs.shape import Shape
from loquen.core.model.inputs.typed import Ambiguous, NotANumber, read_number
from loquen.core.model.records.log import EntryFault
from loquen.core.model.records.register import RegisterFault

CONFLICTS: dict[str, tuple[str, dict[str, str]]] = {
    "unknown_in_library": ("“{key}” is not in the library.", {}),
    "too_many": ("At most {most} of them.", {"most": "count"}),
    "day_twice": ("A day stands twice.", {}),
    "more_males_than_animals": ("More males than the {nearest} animals of this group.", {"nearest": "count"}),
    "pane_fills_tank": ("Panes this thick leave no room inside.", {}),
    "fill_above_glass": ("The water would stand above the glass: at most {nearest}.", {"nearest": "length"}),
    "no_water_left": ("That leaves no water: the glass is {height} high inside.", {"height": "length"}),
    "bow_too_deep": ("A bow this deep is more than half a circle: at most {nearest}.", {"nearest": "length"}),
    "notch_too_large": ("The missing corner takes the whole side: at most {most}.", {"most": "length"}),
    "land_over_tank": ("Its land would leave hardly any water beside it: a tenth of the floor at least.", {}),
    "land_over_rim": (
        "The dry place would lie over the rim, {free} above the water: enter a box over the rim.",
        {"free": "length"},
    ),
    "bed_above_water": ("The bed would rise above the water, which stands {height} high.", {"height": "length"}),
    "more_than_the_floor": ("That is more than the floor has left: {most}.", {"most": "share"}),
    "hardscape_fills_tank": ("Rock and wood would fill the tank: at most {most} together.", {"most": "volume"}),
    "baffle_over_rim": ("This baffle is as high as the sump: at most {nearest}.", {"nearest": "length"}),
    "chambers_too_long": (
        "The chambers leave no room for the return: {nearest} of sump, or {most} of chambers.",
        {"nearest": "length", "most": "length"},
    ),
    "one_return_chamber": ("A sump has one return chamber, last in the flow.", {}),
    "level_over_rim": ("The water would stand over the sump's rim: at most {nearest}.", {"nearest": "length"}),
    "intake_in_air": ("The pump's intake lies above the water: at most {nearest}.", {"nearest": "length"}),
    "run_too_long": (
        "That makes {metres} of pipe: at most {most} in one run.",
        {"metres": "head", "most": "head"},
    ),
    "overflow_in_bed": (
        "The holes would lie in the bed, which reaches {bed}: smaller ones, or less bed.",
        {"bed": "length"},
    ),
    "toughened_drilled": (
        "A toughened pane can not be drilled: it bursts. Annealed glass, or a hang-on overflow.",
        {},
    ),
    "hole_near_edge": (
        "A hole this near the edge cracks: one bore and the pane's thickness, {nearest} at least.",
        {"nearest": "length"},
    ),
    "no_pump_curve": (
        "A pump's curve starts at no flow and falls from point to point; as many lifts as flows.",
        {},
    ),
    "gravity_slip": (
        "No fresh or low-salinity water reads above 1.030: a slip of the decimal, {nearest} perhaps?",
        {"nearest": "gravity"},
    ),
    "twelve_months": ("Twelve months, or none.", {}),
    "room_upside_down": (
        "The coldest night is warmer than the hottest day, {nearest}.",
        {"nearest": "temperature"},
    ),
    "too_many_rows": ("At most {most} of them; {rows} are here.", {"most": "count", "rows": "count"}),
    "off_every_rack": ("It stands on no rack: there are {racks}.", {"racks": "count"}),
    "above_the_rack": ("This rack has {shelves} shelves.", {"shelves": "count"}),
    "no_such_zone": ("There are {zones} zones; 0 is by hand.", {"zones": "count"}),
    "two_in_one_place": (
        "Tank {other} stands there already; place {nearest} is free.",
        {"other": "count", "nearest": "count"},
    ),
    "ends_before_it_begins": ("It ends before it begins.", {}),
    "range_turned_round": ("The likely one lies between the least and the most.", {}),
    "test_not_lower": ("With water running it can not stay at {static}: read it again.", {"static": "pressure"}),
    "no_reservoir": ("Zone {zone} is fed from it: it holds nothing.", {"zone": "count"}),
    "nothing_purifies": ("There is no reverse osmosis in this room yet.", {}),
    "summer_colder": ("Warmer than the coldest of the year, {nearest}.", {"nearest": "temperature"}),
    "no_female": ("Without a female there are no broods: one at least.", {}),
    "fewer_tanks_than_colony": ("The colony alone has {colony}.", {"colony": "count"}),
    "beyond_adult": (
        "{kind} grow to {adult} and only ever near it: at most {nearest}.",
        {"adult": "length", "nearest": "length"},
    ),
    "price_without_size": ("A price is entered, and no size to sell at.", {}),
    "sale_without_size": ("At what length do they go?", {}),
    "sold_twice": (
        "That sends {parts} of the {sex} away: at most {nearest} here.",
        {"parts": "share", "nearest": "share"},
    ),
    "mix_hotter_than_store": ("The store is no hotter than the mix that is made from it.", {}),
}


def conflict_sentence(conflict: PlanConflict) -> Sentence:
    """Why two parts of a plan can not both be true."""
    text, kinds = CONFLICTS[conflict.code]
    terms = {
        name: Term(value, kinds[name]) if name in kinds else Term(str(value))
        for name, value in conflict.values.items()
    }
    return say(text, **terms)


def wanted(entry: Quantity) -> tuple[str, dict[str, Term]]:
    """The words for an entry's limits."""
    text = "{low} to {high}" + (", a whole number" if entry.whole else "")
    return text, {"low": Term(entry.low, entry.kind), "high": Term(entry.high, entry.kind)}


def entry_at(path: str, shapes: Collection[Shape]) -> Quantity | Choice | None:
    """What may be entered at a path of any of some shapes: their sections have no name in common."""
    return next((entry for shape in shapes if (entry := shape.entry_at(path)) is not None), None)


def entry_sentence(path: str, problem: str, given: Any, shapes: Collection[Shape]) -> Sentence:
    """What is wrong with one typed value, by the field's own limits and unit."""
    entry = entry_at(path, shapes)
    if problem == "too_long" and isinstance(given, list):
        most = next((shape.limits[path] for shape in shapes if path in shape.limits), 0)
        return say("At most {most} of them.", most=Term(most, "count"))
    if isinstance(entry, Choice) and entry.table == "date":
        return say("“{given}” is no day of the calendar.", given=quoted(given))
    if not isinstance(entry, Quantity):
        return say("“{given}” can not be chosen here.", given=quoted(given))
    band, terms = wanted(entry)
    if given in (None, ""):
        return say("{label} is empty: " + band + ".", label=entry.label, **terms)
    if problem in ("greater_than_equal", "less_than_equal", "finite_number"):
        side = "below" if problem == "greater_than_equal" else "above"
        text = "{label} is {side} what is possible here: " + band + "."
        return say(text, label=entry.label, side=side, **terms)
    if problem == "int_from_float":
        return say("{label} is counted in whole numbers: " + band + ".", label=entry.label, **terms)
    try:
        read_number(str(given))
    except Ambiguous as two:
        text = "“{given}” may be {thousands} or {decimals}: write it without the comma."
        return say(text, given=quoted(given), thousands=two.thousands, decimals=two.decimals)
    except NotANumber:
        pass
    return say("“{given}” is not a number: " + band + ".", given=quoted(given), **terms)


def path_in(location: tuple[int | str, ...], around: Collection[str] = ()) -> str:
    """The part of a fault's location that lies inside a document: tank.pane_mm, animals.0.number; `around` is what it is
    called where it was sent."""
    parts = [str(part) for part in location]
    while parts and parts[0] in ("body", *around):
        parts.pop(0)
    # A union adds the name of the branch that was tried.
    numbered = any(part.isdigit() for part in parts[1:3])
    return ".".join(parts[:3] if numbered else parts[:2])


def problem_sentence(path: str, problem: Any, shapes: Collection[Shape]) -> Sentence:
    """What is wrong at a path of a document of one of some shapes, as Pydantic found it."""
    if path == "version":
        return say("This page is older or newer than the server: read it again.")
    if entry_at(path, shapes) is not None or problem["type"] == "too_long":
        return entry_sentence(path, problem["type"], problem["input"], shapes)
    if problem["type"] == "no_such_day":
        return say("“{given}” is no day of the calendar.", given=quoted(problem["input"]))
    return say("{where}: {what}.", where=quoted(path or "request"), what=quoted(problem["msg"]))


ENTRY_FAULTS: dict[str, tuple[str, dict[str, str]]] = {
    "in_the_future": ("This lies in the future: no entry can.", {}),
    "before_it_began": ("This system was started on {began}.", {}),
    "how_much": ("How much was changed: litres, or a share.", {}),
    "more_than_the_tank": ("That is more than the system holds, {most}.", {"most": "volume"}),
    "dose_of_what": ("Say what was dosed.", {}),
    "whose": ("Whose? By the register {who} live here, and heads are counted by it.", {}),
    "stays_theirs": ("This stands in the register: take it out there, and write down what it was.", {}),
    "read_of_what": ("Say what was read.", {}),
    "kit_reads_another": ("{kit} reads {measure}.", {}),
    "negative": ("“{value}” lies under nothing.", {}),
    "not_a_reading": ("“{value}” is no reading: a number, “between 20 and 40”, “under 5”, “over 80”.", {}),
    "turned_round": ("“{value}” is turned round: the smaller one first.", {}),
    "no_such_level": ("No water reads that: {label} lies between {low} and {high}.", {}),
    "read_twice": ("It was read as “{other}” in the same minute: change that one, or this one's time.", {}),
    "out_of_limits": ("This lies outside what is possible.", {}),
}


REGISTER_FAULTS: dict[str, str] = {
    "more_than_live": "{live} of them live there on that day, not {asked}.",
    "others_hang_on_it": "What came later hangs on this: so many would not have been there. Put that right first.",
    "same_name": "Another {name} lives here: a name is one animal's.",
    "in_the_future": "This lies in the future.",
    "before_birth": "That is before it was born, on {born}.",
    "nobody": "At least one.",
    "moves_nowhere": "It moves to where it is.",
    "how_long": "How long it is.",
    "more_males": "There are {count} of them in all.",
    "not_here_yet": "Nobody had arrived yet: an arrival or a birth comes first.",
    "one_of_a_name": "A name is one animal's: leave it empty for a group.",
    "where": "In which system?",
    "where_to": "To which system?",
    "for_whom": "For which system?",
    "from_when": "From which day on?",
    "which_label": "What the label is called.",
    "no_dose_day": "On which days of the course it is dosed.",
    "dosed_after_its_end": "The course lasts {last} days: no dose falls after it.",
    "stopped_before": "It was begun on {begun}: it can not be stopped before.",
    "mix_without_name": "What the mix is called.",
    "mix_twice": "Two mixes are called {name}.",
    "mix_of_nothing": "{name}: nothing is in it yet.",
    "here_already": "They are here already.",
    "which_tub": "Into which tub?",
}


def register_fault_sentence(fault: RegisterFault) -> Sentence:
    """Why an entry of the register can not be kept."""
    return say(REGISTER_FAULTS[fault.code], **{name: quoted(value) for name, value in fault.values.items()})


def entry_fault_sentence(fault: EntryFault) -> Sentence:
    """Why an entry of the log can not be kept."""
    text, kinds = ENTRY_FAULTS[fault.code]
    terms = {
        name: Term(value, kinds[name]) if name in kinds else Term(quoted(value))
        for name, value in fault.values.items()
        if name != "number"
    }
    return say(text, **terms)
