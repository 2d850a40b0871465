"""Cells of tables that open in a spreadsheet: none of them is a formula."""

from __future__ import annotations

# A cell that begins so is a formula to a spreadsheet: it is written, and read back, behind an apostrophe.
FORMULA = ("=", "+", "-", "@", "\t", "\r")


def safe_cell(cell: str) -> str:
    """Return a text as it is written into a table: behind an apostrophe where a spreadsheet would reckon with it."""
    return f"'{cell}" if cell.startswith(FORMULA) else cell


def plain_cell(cell: str) -> str:
    """Return what a cell written by `safe_cell` said."""
    return cell[1:] if cell.startswith("'") and cell[1:].startswith(FORMULA) else cell
