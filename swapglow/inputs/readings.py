"""Readings as typed: before the swap, and after it."""

from typing import Annotated

from swapglow.core.measurement.reading_after import KINDS, STATES, WHOSE
from swapglow.core.measurement.reading_before import FUNCTION_LABELS, LAMP, POINT_LABELS
from swapglow.inputs.quantity import Line, Short
from swapglow.inputs.shape import OneOf, Shape, Suggests

_RMS = {False: "RMS of a sine", True: "True RMS"}


class ReadingAfterInput(Shape):
    """A reading after the swap."""

    kind: Annotated[str, OneOf(KINDS)] = "current"
    text: Short = ""
    burden: Short = ""
    note: Line = ""
    state: Annotated[str, OneOf(STATES)] = "on"
    whose: Annotated[str, OneOf(WHOSE)] = "this"
    # What stood in the lamp then: written down by the records, never typed.
    fitted: Line = ""


class ReadingBeforeInput(Shape):
    """A reading before the swap."""

    function: Annotated[str, OneOf(FUNCTION_LABELS)] = "dc_volts"
    text: Short = ""
    points: Annotated[str, OneOf(POINT_LABELS)] = "lamp"
    lamp: Annotated[str, OneOf(LAMP)] = "in"
    state: Short = ""
    meter: Short = ""
    true_rms: Annotated[bool, Suggests(_RMS)] = False
    note: Line = ""
