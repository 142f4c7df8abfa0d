"""Cutting list and parts as CSV, spreadsheet and DXF. No cell is left that a spreadsheet would run."""

import csv
import io
from collections.abc import Sequence

from loquen.core.graph.sheet import Sheet
from loquen.core.system import build

RUNS_AS_FORMULA = ("=", "+", "-", "@", "\t", "\r")
CUTS = ("pane", "pieces", "width mm", "height mm", "thickness mm", "holes (x, y, bore mm from lower left)")
PARTS = ("part", "quantity", "unit", "spare", "for", "price of one", "together")
GAP_MM = 60.0

Cell = str | float | int
Page = tuple[str, Sequence[str], Sequence[Sequence[Cell]]]
"""A table with its title and its heads."""


def harmless(cell: Cell) -> Cell:
    """A cell that no spreadsheet takes for a formula."""
    return "'" + cell if isinstance(cell, str) and cell.startswith(RUNS_AS_FORMULA) else cell


def cut_rows(sheet: Sheet) -> list[tuple[Cell, ...]]:
    return [
        (
            pane.label,
            pane.count,
            f"{pane.width_mm:.1f}".removesuffix(".0"),
            f"{pane.height_mm:.1f}".removesuffix(".0"),
            f"{pane.thickness_mm:g}",
            "; ".join(
                f"{hole.purpose} {hole.x_mm:.0f}, {hole.y_mm:.0f}, {hole.bore_mm:.0f}" for hole in pane.holes
            ),
        )
        for pane in build.panes(sheet)
    ]


def part_rows(quoted: build.Quote) -> list[tuple[Cell, ...]]:
    """Parts with their prices; an empty cell where none is entered."""
    return [
        (
            row.label,
            row.quantity,
            row.unit,
            row.spare,
            row.where,
            "" if row.price_money is None else row.price_money,
            "" if row.sum_money is None else round(row.sum_money, 2),
        )
        for row in quoted.lines
    ]


def as_csv(heads: Sequence[str], rows: Sequence[Sequence[Cell]]) -> str:
    """Comma-separated text with a head line."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(heads)
    writer.writerows([harmless(cell) for cell in row] for row in rows)
    return out.getvalue()


def as_workbook(sheet: Sheet, quoted: build.Quote) -> bytes:
    """Parts and cutting list as a spreadsheet of two sheets."""
    return as_pages([("Parts", PARTS, part_rows(quoted)), ("Cutting list", CUTS, cut_rows(sheet))])


def as_pages(pages: Sequence[Page]) -> bytes:
    """Tables as a spreadsheet, a sheet for each."""
    from openpyxl import Workbook

    book = Workbook()
    first = book.active
    assert first is not None
    for place, (title, heads, rows) in enumerate(pages):
        page = first if place == 0 else book.create_sheet()
        page.title = title
        page.append(list(heads))
        for row in rows:
            page.append([harmless(cell) for cell in row])
        page.column_dimensions["A"].width = 52
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def as_dxf(sheet: Sheet) -> str:
    """Every pane side by side in mm: outlines on one layer, holes on another, names on a third."""
    import ezdxf
    from ezdxf.filemanagement import new

    document = new("R2010", setup=True)
    document.units = ezdxf.units.MM
    for layer, colour in (("PANES", 3), ("HOLES", 1), ("NAMES", 8)):
        document.layers.add(layer, color=colour)
    space = document.modelspace()
    x = 0.0
    for pane in build.panes(sheet):
        corners = [(x, 0), (x + pane.width_mm, 0), (x + pane.width_mm, pane.height_mm), (x, pane.height_mm)]
        space.add_lwpolyline(corners, close=True, dxfattribs={"layer": "PANES"})
        for hole in pane.holes:
            space.add_circle((x + hole.x_mm, hole.y_mm), hole.bore_mm / 2, dxfattribs={"layer": "HOLES"})
        words = f"{pane.count} x {pane.label}, {pane.thickness_mm:g} mm"
        space.add_text(words, height=20, dxfattribs={"layer": "NAMES"}).set_placement((x, -30))
        x += pane.width_mm + GAP_MM
    out = io.StringIO()
    document.write(out)
    return out.getvalue()
