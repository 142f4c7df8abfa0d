"""A room's book: a PDF for whoever builds its changer, from the zones to the last test."""

import io

from reportlab.lib.pagesizes import A4
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, PageBreak, SimpleDocTemplate, Spacer

from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import as_text, written
from loquen.core.model.roots.room import Room
from loquen.core.rooms.book import STAGES
from loquen.core.rooms.commissioning import steps
from loquen.core.system.build import Quote
from loquen.core.system.told import rows_of, sentence_of
from loquen.exchange.build_book import SIDE, buying, footer, grid, styles, verdicts, words

Looks = dict[str, ParagraphStyle]


def room_book(sheet: Sheet[Room], quoted: Quote, chosen: dict[str, str]) -> bytes:
    """The whole book of one room, in the reader's units; raise NamedCase while no tank is on a zone."""
    looks = styles()
    out = io.BytesIO()
    document = SimpleDocTemplate(
        out, pagesize=A4, leftMargin=SIDE, rightMargin=SIDE, topMargin=16 * mm, bottomMargin=16 * mm,
        title=f"{sheet.root.name}: room book", author="Loquen",
    )  # fmt: skip
    story: list[Flowable] = [
        words(sheet.root.name, looks["title"]),
        words("Room book of its changer.", looks["quiet"]),
        Spacer(1, 8),
        *(words(as_text(sentence_of(sheet, f"{stage}_result"), chosen), looks["body"]) for stage in STAGES),
        *zones(sheet, chosen, looks),
        *day(sheet, looks),
        PageBreak(),
        *buying(quoted, chosen, looks),
        PageBreak(),
        *verdicts(sheet, chosen, looks, STAGES),
        *cautions(sheet, looks),
        *into_use(sheet, chosen, looks),
    ]
    document.build(story, onFirstPage=footer, onLaterPages=footer)
    return out.getvalue()


def zones(sheet: Sheet[Room], chosen: dict[str, str], looks: Looks) -> list[Flowable]:
    rows = [
        (
            zone.name,
            tank.name,
            written(tank.lph, "flow", chosen),
            written(tank.kpa or 0.0, "pressure", chosen),
            written(tank.ratio, "share", chosen),
            written(tank.pipe_m, "head", chosen),
        )
        for zone in sheet.value("zone_flows")
        for tank in zone.tanks
    ]
    heads = ("zone", "tank", "flow", "pressure", "of its water a day", "pipe")
    return [words("At each emitter", looks["head"]), grid(heads, rows, (0.3, 0.14, 0.14, 0.14, 0.16, 0.12), looks)]


def day(sheet: Sheet[Room], looks: Looks) -> list[Flowable]:
    rows = [
        (season.name, row["zone"], clock(row["start_h"]), clock(row["end_h"]))
        for season in rows_of(sheet, "seasons")
        for row in season.schedule
    ]
    return [words("Timetable", looks["head"]), grid(("season", "zone", "from", "to"), rows, (0.25,) * 4, looks)]


def clock(hours: float) -> str:
    """An hour of the day with its seconds, as a controller is set."""
    seconds = round(hours * 3600)
    return f"{seconds // 3600:02d}:{seconds % 3600 // 60:02d}:{seconds % 60:02d}"


def cautions(sheet: Sheet[Room], looks: Looks) -> list[Flowable]:
    rows = [
        (node.label, node.check.caution) for node in sheet.book.nodes.values() if node.check and node.check.caution
    ]
    return [words("Cautions, and who decides", looks["head"]), grid(("", ""), rows, (0.28, 0.72), looks)]


def into_use(sheet: Sheet[Room], chosen: dict[str, str], looks: Looks) -> list[Flowable]:
    rows = [(n, as_text(sentence, chosen), "") for n, sentence in enumerate(steps(sheet), start=1)]
    return [
        words("Taking it into use, in this order", looks["head"]),
        grid(("", "what to do and what to see", "seen"), rows, (0.06, 0.76, 0.18), looks),
    ]
