"""A regulated DC rail."""

from typing import ClassVar

from swapglow.core.supplies.kind import FRAME_POLE, SupplyKind


class Regulated(SupplyKind):
    """Steady within a few per cent."""

    id = "regulated"
    order = 0
    label = "Regulated DC"
    expect = "Steady within a few per cent. What decides is the measured value and its tolerance."
    details = (FRAME_POLE,)
    level_states: ClassVar[bool] = False
    may_be_other: ClassVar[bool] = True
    may_be_renamed: ClassVar[bool] = True


KIND = Regulated()
