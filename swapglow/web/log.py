"""The log: one JSON object a line, rotated, without what anybody typed."""

import traceback
from types import TracebackType

from django.db import DatabaseError
from pythonjsonlogger.json import JsonFormatter

# Faults whose message tells of the machine, not of a record.
_TELLING = (OSError, DatabaseError)


class WithoutWords(JsonFormatter):
    """Formats a fault by its kind and the lines it came through: its message may quote a note."""

    def formatException(  # the name is logging's
        self, ei: tuple[type[BaseException], BaseException, TracebackType | None] | tuple[None, None, None]
    ) -> str:
        """The frames of a fault, and what kind it is."""
        kind, fault, frames = ei
        if kind is None or fault is None:
            return ""
        lines = [f"{f.filename}:{f.lineno} in {f.name}" for f in traceback.extract_tb(frames)]
        said = f": {fault}" if isinstance(fault, _TELLING) else ""
        return "\n".join([*lines, f"{kind.__module__}.{kind.__qualname__}{said}"])
