"""Who makes a request: somebody at the bench itself, or a device that came in by the shared door."""

from dataclasses import dataclass

from django.http import HttpRequest

from swapglow.devices.models import Device

# By whether the request came over TLS: a Secure cookie does not travel without it, and its name says that it has to.
COOKIES = {True: "__Host-device", False: "device-in-the-clear"}


@dataclass(frozen=True)
class Visitor:
    """Who asks.

    Attributes:
        device: the paired device; None at the bench, and for a device that is not paired.
        at_the_bench: whether they sit at the machine that Swap Glow runs on.
    """

    device: Device | None = None
    at_the_bench: bool = True

    @property
    def may_write(self) -> bool:
        """Whether they may change anything."""
        return self.at_the_bench or (self.device is not None and self.device.may_write)


# Where a request carries it: no header reaches there.
_PLACE = "swapglow.visitor"


def note_visitor(request: HttpRequest, visitor: Visitor) -> None:
    """Note who makes a request."""
    request.META[_PLACE] = visitor


def visitor_of(request: HttpRequest) -> Visitor:
    """Who makes a request.

    Raises:
        KeyError: it came by no door.
    """
    found: Visitor = request.META[_PLACE]
    return found
