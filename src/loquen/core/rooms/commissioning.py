"""How a changer is taken into use: what is tried, in which order, against which planned value."""

from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.roots.room import Room
from loquen.core.rooms.stages.plumbing import TankFlow, ZoneFlow

TEST_FACTOR = 1.5


def steps(sheet: Sheet[Room]) -> tuple[Sentence, ...]:
    """What to try before the first night, with the planned values; raise NamedCase while there are no zones."""
    flows: tuple[ZoneFlow, ...] = sheet.value("zone_flows")
    room, drains = sheet.root, sheet.value("drains")
    highest = max(row.manifold_kpa for row in flows)
    found = [
        say("Backflow device: tested by a licensed person, with a paper that says so, before anything else runs."),
        say(
            "Leak test: all zone valves shut, the line at {kpa} for an hour, a dry tissue along every joint.",
            kpa=Term(TEST_FACTOR * highest, "pressure"),
        ),
        say(
            "Pressure: with nothing running the gauge at the tap reads {static}; with the largest zone open, {tap}.",
            static=Term(room.supply.static_kpa, "pressure"),
            tap=Term(min(row.tap_kpa for row in flows), "pressure"),
        ),
    ]
    for row in flows:
        near, far = min(row.tanks, key=lambda t: t.pipe_m), max(row.tanks, key=lambda t: t.pipe_m)
        found.append(
            say(
                "{zone}: bucket and clock at {near}, planned {near_ml} in a minute, and at {far}, planned {far_ml}; the meter "
                "at {lph}.",
                zone=row.name,
                near=near.name,
                near_ml=minute_ml(near),
                far=far.name,
                far_ml=minute_ml(far),
                lph=Term(row.lph, "flow"),
            )
        )
    found += [
        say(
            "Mix: thermometer at the farthest emitter of each zone, {mix}; shut the cold side, and the hot: nothing may run.",
            mix=Term(room.store.mixed_c, "temperature"),
        ),
        say(
            "Drain: the two largest zones open at once, {worst}, for ten minutes: nothing rises over the outlets of the lowest tanks.",
            worst=Term(drains.worst_lph, "flow"),
        ),
        say(
            "Power: pull the plug while a zone runs. Every valve shuts; nothing starts by itself when it is back but the next pulse."
        ),
        say("Leak sensor: a wet cloth on each. The master valve shuts and stays shut until somebody opens it."),
        say(
            "Disinfectant: test behind the carbon after ten minutes of the largest zone, and again each morning of the first week."
        ),
    ]
    return tuple(found)


def minute_ml(flow: TankFlow) -> Term:
    return Term(flow.lph * 1000 / 60, "dose")
