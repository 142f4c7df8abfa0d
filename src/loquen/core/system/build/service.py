"""Putting into service: what to test in which order, what must be seen, and who decides."""

from dataclasses import dataclass

from loquen.core.graph.asking import number
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.physics import heat

BUCKET_L = 10.0


@dataclass(frozen=True, slots=True)
class Trial:
    """One step of putting into service: what to do, and what to see."""

    title: str
    sentence: Sentence


def trials(sheet: Sheet) -> tuple[Trial, ...]:
    """The tests before animals come, in order, with what must be seen."""
    water = of(sheet.value("water_height_cm"), "water_height_cm")
    found = [
        Trial(
            "Leak test",
            say(
                "On its level stand, fill the display to {water} in four steps over a day; dry every joint and wait 24 h.",
                water=water,
            ),
        )
    ]
    if sheet.root.flow.way != "none":
        found += sump_trials(sheet)
    if sheet.root.heat.heated:
        found.append(heater_trial(sheet))
    found.append(
        Trial(
            "Electricity",
            say(
                "Press the test button of the residual-current device; see a drip loop under every plug, and no plug under a tank's rim."
            ),
        )
    )
    return tuple(found)


def sump_trials(sheet: Sheet) -> list[Trial]:
    plan = sheet.root
    flow = sheet.value("return_lph")
    terms = {
        "level": Term(plan.sump.return_level_cm, "length"),
        "off": of(sheet.value("power_off_cm"), "power_off_cm"),
        "drop": of(sheet.value("drop_cm"), "drop_cm"),
        "down": of(sheet.value("drain_down_l"), "drain_down_l"),
        "clogged": of(sheet.value("clogged_down_l"), "clogged_down_l"),
        "rise": of(sheet.value("blocked_rise_mm"), "blocked_rise_mm"),
        "board": of(sheet.value("board_mm"), "board_mm"),
        "head": of(sheet.value("overflow_head_mm"), "overflow_head_mm"),
        "flow": of(flow, "return_lph"),
        "bucket": Term(BUCKET_L, "volume"),
        "seconds": Term(BUCKET_L / flow * 3600 if flow else 0.0, "seconds"),
    }
    return [
        Trial(
            "Level marks",
            say("With the pump running mark {level} in the return chamber: never fill above it.", **terms),
        ),
        Trial(
            "Power-off test",
            say(
                "Switch the pump off: the display drops {drop}, {down} come down, the sump ends at {off}. Mark it.",
                **terms,
            ),
        ),
        Trial(
            "Power-off test with the air-break holes taped over",
            say("{clogged} come down. Watch the sump's rim, hand on the tape.", **terms),
        ),
        Trial(
            "Blocked-drain test",
            say(
                "Close both drains, let the pump run its chamber empty: the display rises {rise} and stays {board} under the rim at the start.",
                **terms,
            ),
        ),
        Trial(
            "Emergency drain alone",
            say("Close the main drain only: the emergency drain carries {flow} in the end, and is heard.", **terms),
        ),
        Trial(
            "Flow by bucket and clock",
            say(
                "{bucket} at the return take {seconds} for {flow}; the water stands {head} above the crest. Enter what you measure.",
                **terms,
            ),
        ),
    ]


def heater_trial(sheet: Sheet) -> Trial:
    each = number(sheet, "heater_each_w")
    if not each:
        return Trial("Heater test", say("Heat with each heater alone and see that its thermostat stops it."))
    hours = float(heat.warm_up_h(sheet.value("real_volume_l"), each, 0.0, 1.0))
    text = "Each heater alone warms the water by a degree in {hours} or more; see its thermostat stop it, then the cut-out."
    return Trial("Heater test", say(text, hours=Term(hours, "hours")))


CAUTIONS = (
    (
        "Electricity and water",
        "A residual-current device on the circuit, drip loops on every cable; a licensed electrician and the local code decide.",
    ),
    (
        "Floor and stand",
        "Joist direction and position decide what a floor bears; a structural engineer and the local code have the last word.",
    ),
    (
        "Glass",
        "Thicknesses are for annealed float glass with sound edges; toughened panes can not be drilled; a glazier decides.",
    ),
    (
        "Drinking water",
        "A check valve is no backflow preventer; the local plumbing code and a licensed plumber decide how tap and tank may meet.",
    ),
    (
        "Drains",
        "A drain in use for years narrows: test both paths every few months, and keep the emergency drain open and dry.",
    ),
    ("Ultraviolet", "Never look at a lit lamp; unplug it before it is opened."),
)
"""Where the danger is, and who decides."""
