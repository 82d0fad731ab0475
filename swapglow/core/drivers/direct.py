"""Straight from the rail, or by a switch."""

from swapglow.core.drivers.kind import HANGS_ON, KEEP_WARM, DriverKind


class Direct(DriverKind):
    """A contact, or nothing at all."""

    id = "direct"
    order = 0
    label = "Straight from the rail or a switch"
    detail = "switch or transistor"
    expect = "Nothing to upset, but what stands across the contact."
    details = (KEEP_WARM, HANGS_ON)
    has_off = "leads"


KIND = Direct()
