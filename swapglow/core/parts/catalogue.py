"""The core's own data tables: CSV files beside the code, each with its source in the first line."""

import csv
from functools import cache
from importlib.resources import files


@cache
def rows(table: str, package: str = "parts") -> tuple[dict[str, str], ...]:
    """The rows of ``data/<table>.csv`` as text; lines that begin with # are comments.

    Args:
        table: its name.
        package: the folder of the core whose table it is.

    Returns:
        Each row by its column names.
    """
    text = files(f"swapglow.core.{package}").joinpath("data", f"{table}.csv").read_text("utf-8")
    lines = [line for line in text.splitlines() if line and not line.startswith("#")]
    return tuple(csv.DictReader(lines))


@cache
def source(table: str) -> str:
    """Where the figures of a table are from: the first sentence of its comment; the rest is of its columns."""
    text = files("swapglow.core.parts").joinpath("data", f"{table}.csv").read_text("utf-8")
    return text.splitlines()[0].lstrip("# ").split(". ")[0]
