"""Files in and out: project file, tables as CSV, JSON, XLSX and PDF, sheets as PDF."""

from .projectfile import FORMAT, VERSION, read_project, write_project
from .sheetpdf import COLOURS, sheets_pdf
from .tables import TABLE_FORMATS, harmless, table_csv, table_json, table_pdf, table_xlsx, write_table

__all__ = [
    "COLOURS",
    "FORMAT",
    "TABLE_FORMATS",
    "VERSION",
    "harmless",
    "read_project",
    "sheets_pdf",
    "table_csv",
    "table_json",
    "table_pdf",
    "table_xlsx",
    "write_project",
    "write_table",
]
