"""The build book: a PDF that a builder takes to the workshop, from the section to the last test."""

import io
from collections.abc import Mapping, Sequence
from pathlib import Path
from typing import Any

import reportlab
from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.platypus import Flowable, KeepTogether, PageBreak, Paragraph, SimpleDocTemplate, Spacer, Table

from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import as_text, written
from loquen.core.system import build
from loquen.core.system.book import STAGES
from loquen.core.system.told import sentence_of, verdict_of
from loquen.exchange import tables
from loquen.exchange.drawing import INKS, Area, Drawing, Line, section

SIDE = 18 * mm
PADDING = 6
WIDTH = A4[0] - 2 * SIDE - 2 * PADDING
FONTS = Path(reportlab.__file__).parent / "fonts"
# The shipped face has no small figures below the line, and no thin space.
PLAIN = str.maketrans({"₂": "2", "₃": "3", "₄": "4", "\u2009": " ", "⁵": "^5"})
INK, QUIET, RULE = HexColor(INKS["ink"]), HexColor("#47574f"), HexColor("#c6d1cb")


STATE_WORDS = {"unknown": "not known yet", "measure": "to measure"}


def styles() -> dict[str, ParagraphStyle]:
    pdfmetrics.registerFont(TTFont("Text", str(FONTS / "Vera.ttf")))
    pdfmetrics.registerFont(TTFont("Strong", str(FONTS / "VeraBd.ttf")))
    body = ParagraphStyle("body", fontName="Text", fontSize=8.6, leading=12, textColor=INK)
    return {
        "body": body,
        "cell": ParagraphStyle("cell", parent=body, fontSize=7.8, leading=10),
        "quiet": ParagraphStyle("quiet", parent=body, textColor=QUIET),
        "title": ParagraphStyle("title", parent=body, fontName="Strong", fontSize=20, leading=26),
        "head": ParagraphStyle(
            "head", parent=body, fontName="Strong", fontSize=12, leading=18, spaceBefore=10, spaceAfter=3
        ),
        "strong": ParagraphStyle("strong", parent=body, fontName="Strong"),
    }


class Picture(Flowable):  # type: ignore[misc]
    """A drawing fitted to the page's width."""

    def __init__(self, drawing: Drawing, highest: float) -> None:
        super().__init__()
        self.drawing = drawing
        wide, high = drawing.right - drawing.left, drawing.top - drawing.bottom
        self.scale = min(WIDTH / wide, highest / high)
        self.width, self.height = wide * self.scale, high * self.scale

    def draw(self) -> None:
        canvas, scale = self.canv, self.scale
        canvas.translate(-self.drawing.left * scale, -self.drawing.bottom * scale)
        for item in self.drawing.items:
            colour = HexColor(INKS[item.ink])
            if isinstance(item, Area):
                canvas.setFillColor(colour)
                canvas.rect(
                    item.x * scale, item.y * scale, item.width * scale, item.height * scale, stroke=0, fill=1
                )
            elif isinstance(item, Line):
                canvas.setStrokeColor(colour)
                canvas.setLineWidth(max(0.3, item.weight * scale))
                canvas.setDash([4, 3] if item.dashed else [])
                path = canvas.beginPath()
                path.moveTo(*(at * scale for at in item.points[0]))
                for point in item.points[1:]:
                    path.lineTo(*(at * scale for at in point))
                canvas.drawPath(path)
            else:
                canvas.saveState()
                canvas.translate(item.x * scale, item.y * scale)
                canvas.rotate(90 if item.turned else 0)
                canvas.setFillColor(colour)
                canvas.setFont("Text", item.size * scale)
                draw = {
                    "middle": canvas.drawCentredString,
                    "end": canvas.drawRightString,
                    "start": canvas.drawString,
                }
                draw[item.anchor](0, 0, item.text.translate(PLAIN))
                canvas.restoreState()


def build_book(sheet: Sheet, quoted: build.Quote, chosen: dict[str, str]) -> bytes:
    """The whole book of one system, in the reader's units."""
    looks = styles()
    out = io.BytesIO()
    document = SimpleDocTemplate(
        out, pagesize=A4, leftMargin=SIDE, rightMargin=SIDE, topMargin=16 * mm, bottomMargin=16 * mm,
        title=f"{sheet.root.name}: build book", author="Loquen",
    )  # fmt: skip
    story: list[Flowable] = [
        *opening(sheet, chosen, looks),
        PageBreak(),
        *cutting(sheet, chosen, looks),
        *buying(quoted, chosen, looks),
        *piping(sheet, chosen, looks),
        *power(sheet, chosen, looks),
        PageBreak(),
        *verdicts(sheet, chosen, looks, STAGES),
        *cautions(looks),
        *service(sheet, chosen, looks),
    ]
    document.build(story, onFirstPage=footer, onLaterPages=footer)
    return out.getvalue()


def footer(canvas: Any, document: Any) -> None:
    canvas.saveState()
    canvas.setFont("Text", 7)
    canvas.setFillColor(QUIET)
    canvas.drawString(SIDE, 9 * mm, "Computed by Loquen. It plans; those named under the cautions decide.")
    canvas.drawRightString(A4[0] - SIDE, 9 * mm, str(document.page))
    canvas.restoreState()


def words(text: str, look: ParagraphStyle) -> Paragraph:
    safe = text.translate(PLAIN).replace("&", "&amp;").replace("<", "&lt;")
    return Paragraph(safe, look)


def grid(
    heads: Sequence[str],
    rows: Sequence[Sequence[object]],
    shares: Sequence[float],
    looks: dict[str, ParagraphStyle],
) -> Table:
    """A table of hairlines over the page's width."""
    cells = [[words(head, looks["quiet"]) for head in heads]]
    cells += [[words(str(cell), looks["cell"]) for cell in row] for row in rows]
    table = Table(cells, colWidths=[share * WIDTH for share in shares], repeatRows=1, hAlign="LEFT")
    table.setStyle([("LINEBELOW", (0, 0), (-1, -1), 0.4, RULE), ("VALIGN", (0, 0), (-1, -1), "TOP"),
                    ("LEFTPADDING", (0, 0), (-1, -1), 0), ("TOPPADDING", (0, 0), (-1, -1), 2),
                    ("BOTTOMPADDING", (0, 0), (-1, -1), 2)])  # fmt: skip
    return table


def opening(sheet: Sheet, chosen: dict[str, str], looks: dict[str, ParagraphStyle]) -> list[Flowable]:
    litres = written(sheet.value("real_volume_l"), "volume", chosen)
    lines = [as_text(sentence_of(sheet, f"{stage}_result"), chosen) for stage in STAGES if stage != "arrivals"]
    return [
        words(sheet.root.name, looks["title"]),
        words(f"Build book. {litres} of real water.", looks["quiet"]),
        Spacer(1, 8),
        Picture(section(sheet, chosen), 120 * mm),
        Spacer(1, 8),
        *(words(line, looks["body"]) for line in lines),
    ]


def cutting(sheet: Sheet, chosen: dict[str, str], looks: dict[str, ParagraphStyle]) -> list[Flowable]:
    near = build.holes_near_edges(sheet)
    note = "Outside measures in millimetres for butt joints: the base under the walls, the sides between front and back."
    if sheet.root.tank.shape != "box":
        note += " The display's own shape is not a box: its panes are the maker's to cut."
    return [
        words("Cutting list", looks["head"]),
        words(note, looks["quiet"]),
        grid(tables.CUTS, tables.cut_rows(sheet), (0.34, 0.08, 0.1, 0.1, 0.1, 0.28), looks),
        *(words(as_text(sentence, chosen), looks["strong"]) for sentence in near),
    ]


def buying(quoted: build.Quote, chosen: dict[str, str], looks: dict[str, ParagraphStyle]) -> list[Flowable]:
    """The parts with their prices, and what it all comes to."""
    rows = [
        (
            row.label,
            f"{float(row.quantity):g} {row.unit}",
            row.spare or "",
            row.where,
            "" if row.price_money is None else written(row.price_money, "money", chosen),
        )
        for row in quoted.lines
    ]
    said = (
        f"Parts {written(quoted.parts_money, 'money', chosen)} ({quoted.unpriced} without a price), hours "
        f"{written(quoted.hours_money, 'money', chosen)}, margin {written(quoted.margin_money, 'money', chosen)}: together "
        f"{written(quoted.whole_money, 'money', chosen)}."
    )
    heads = ("part", "quantity", "spare", "for", "price of one")
    return [
        words("Parts, with spares", looks["head"]),
        grid(heads, rows, (0.5, 0.14, 0.08, 0.14, 0.14), looks),
        Spacer(1, 6),
        words(said, looks["strong"]),
    ]


def piping(sheet: Sheet, chosen: dict[str, str], looks: dict[str, ParagraphStyle]) -> list[Flowable]:
    rows = [
        (
            line.place,
            as_text(line.what, chosen),
            line.size,
            written(line.flow_lph, "flow", chosen),
            written(line.speed_m_s, "pipe_speed", chosen),
            "" if line.lost_head_m is None else written(line.lost_head_m, "head", chosen),
        )
        for line in build.pipework(sheet)
    ]
    if not rows:
        return []
    heads = ("where", "what", "size", "flow", "speed", "takes of the lift")
    table = grid(heads, rows, (0.14, 0.36, 0.18, 0.12, 0.1, 0.1), looks)
    lift = written(sheet.value("lift_head_m"), "head", chosen)
    lost = written(sheet.value("run_loss_head_m"), "head", chosen)
    note = f"In the order of the water. The pump lifts it {lift}; the common run takes {lost} more."
    return [KeepTogether([words("Plumbing run", looks["head"]), words(note, looks["quiet"]), table])]


def power(sheet: Sheet, chosen: dict[str, str], looks: dict[str, ParagraphStyle]) -> list[Flowable]:
    rows = [
        (row.label, row.count, f"{row.each_w:g} W", f"{row.count * row.each_w:g} W") for row in build.loads(sheet)
    ]
    total = sum(row.count * row.each_w for row in build.loads(sheet))
    rows.append(("Together", sum(row.count for row in build.loads(sheet)), "", f"{total:g} W"))
    verdict = verdict_of(sheet, "circuit_carries")
    line = as_text(verdict.reason, chosen) if verdict else ""
    table = grid(("device", "pieces", "each", "together"), rows, (0.5, 0.14, 0.18, 0.18), looks)
    return [KeepTogether([words("What plugs in", looks["head"]), table, words(line, looks["body"])])]


def verdicts(
    sheet: Sheet, chosen: dict[str, str], looks: dict[str, ParagraphStyle], stages: Mapping[str, str]
) -> list[Flowable]:
    rows = []
    for stage, label in stages.items():
        for key, node in sheet.wiring.nodes.items():
            if node.check is None or node.check.stage != stage:
                continue
            verdict = verdict_of(sheet, key)
            if verdict is not None:
                state = STATE_WORDS.get(verdict.state, verdict.state)
                rows.append(
                    (label, node.label, state, as_text(verdict.headline, chosen), as_text(verdict.reason, chosen))
                )
    return [
        words("What holds and what falls short", looks["head"]),
        grid(("stage", "check", "verdict", "by", "why"), rows, (0.11, 0.19, 0.09, 0.17, 0.44), looks),
    ]


def cautions(looks: dict[str, ParagraphStyle]) -> list[Flowable]:
    rows = [(place, text) for place, text in build.CAUTIONS]
    return [
        KeepTogether([words("Cautions, and who decides", looks["head"]), grid(("", ""), rows, (0.22, 0.78), looks)])
    ]


def service(sheet: Sheet, chosen: dict[str, str], looks: dict[str, ParagraphStyle]) -> list[Flowable]:
    rows = [
        (f"{n}", trial.title, as_text(trial.sentence, chosen), "")
        for n, trial in enumerate(build.trials(sheet), start=1)
    ]
    return [
        words("Putting into service, in this order", looks["head"]),
        grid(("", "test", "what to do and what to see", "seen"), rows, (0.05, 0.24, 0.59, 0.12), looks),
    ]
