"""The tables that the intake rests on, in the folder ``data``."""

import csv
import io
from importlib.resources import files


def rows(name: str) -> list[dict[str, str]]:
    """A table by name; its first line says where it is from."""
    text = files("swapglow.core.intake").joinpath("data", f"{name}.csv").read_text("utf-8")
    return list(csv.DictReader(line for line in io.StringIO(text) if not line.startswith("#")))
