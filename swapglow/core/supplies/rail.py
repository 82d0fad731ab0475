"""A supply rail: three levels as read, and what feeds it."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

from swapglow.core.kinds.detail import Details
from swapglow.core.parts.lamp import Lamp
from swapglow.core.quantities import VOLT, Figure, Input, InputError, Parsed, Source, show
from swapglow.core.quantities.inputs import read_quantity, read_single
from swapglow.core.supplies.kind import StandIns, SupplyKind
from swapglow.core.supplies.supply import Supply
from swapglow.core.supplies.waveform import Waveform

# Above this no lamp hangs on a rail, and what does is no bench work.
HIGHEST_V = 1000.0
# Extra-low voltage ends at 50 V AC and 120 V DC (IEC 61140; from memory).
MOST_AC_V, MOST_DC_V = 50.0, 120.0
# Where a rail may be read, as it is offered.
READ_AT = {"feed": "At the feed", "lamp": "At the lamp, lit"}


def _plain_supply() -> Supply:
    # The registry scans this folder, so that it can only be asked once all of it is there.
    from swapglow.core.supplies import plain_supply

    return plain_supply()


@dataclass(frozen=True)
class Rail:
    """A supply rail.

    Attributes:
        low, usual, high: volts as read, RMS where it is a sine, each with where it comes from.
        supply: what feeds it.
        read_at: "feed" for what the supply gives before switch, driver and dropping parts; "lamp"
            for what stands across the lamp's own contacts while it is lit. A driver's drop is
            taken off a feed and never off lamp volts.
        spread_known: False where one value stands for all three.
        fuse_a: rating of the fuse before it, A.
        rated_a: what the supply itself may give: a winding's, regulator's or charger's rating, A.
        others_a: what else hangs on it besides the lamps kept here, A.
    """

    low: Figure
    usual: Figure
    high: Figure
    supply: Supply = field(default_factory=_plain_supply)
    read_at: Literal["feed", "lamp"] = "feed"
    spread_known: bool = True
    fuse_a: float | None = None
    rated_a: float | None = None
    others_a: float = 0.0

    def __post_init__(self) -> None:
        if not 0 < self.low.value <= self.usual.value <= self.high.value:
            raise InputError(
                "usual",
                f"A rail's readings must rise from lowest to highest: {self.low.value:g}, "
                f"{self.usual.value:g}, {self.high.value:g} V do not.",
            )

    @property
    def volts(self) -> tuple[float, float, float]:
        """Open volts behind the source resistance at the three levels; RMS where it is a sine."""
        ratio = self.supply.open_to_loaded_ratio
        return self.low.value * ratio, self.usual.value * ratio, self.high.value * ratio

    @property
    def dangerous(self) -> bool:
        """Whether its volts are past extra-low voltage."""
        most = MOST_DC_V if self.supply.waveform is Waveform.DC else MOST_AC_V
        return self.volts[2] > most

    @property
    def peaks(self) -> tuple[float, float, float]:
        """The highest instant of each level: √2 × RMS for a sine."""
        factor = self.supply.waveform.crest_factor
        low, usual, high = self.volts
        return low * factor, usual * factor, high * factor


def read_rail(
    kind: SupplyKind,
    usual: Input,
    low: Input,
    high: Input,
    details: Mapping[str, Input],
    lamp: Lamp | None = None,
    *,
    read_at: Literal["feed", "lamp"] = "feed",
    fuse_a: float | None = None,
    rated_a: float | None = None,
    others_a: float | None = None,
) -> Rail:
    """A rail with its supply from what was typed.

    Args:
        kind: the kind of supply.
        usual, low, high: its levels as typed; an empty end is taken from the usual reading's own range,
            or from the kind.
        details: what the kind asks for besides, by name.
        lamp: the old lamp, whose current stands in where the load of a loaded reading is not typed.
        read_at, fuse_a, rated_a, others_a: as in :class:`Rail`.

    Returns:
        The rail.

    Raises:
        InputError: for the field that cannot be read, or ends that do not rise.
    """
    known = {d.id for d in kind.details}
    for name in details:
        if name not in known:
            raise InputError(name, f"{kind.label} asks for no such figure.")
    read = Details(kind.details, details)
    stands_in = kind.stand_ins(read)
    lowest, centre, highest, spread_known = _levels(kind, stands_in, usual, low, high)
    supply = kind.supply(read, (lowest.value, centre.value, highest.value), lamp)
    return Rail(lowest, centre, highest, supply, read_at, spread_known, fuse_a, rated_a, others_a or 0.0)


def _levels(
    kind: SupplyKind, stands_in: StandIns, usual: Input, low: Input, high: Input
) -> tuple[Figure, Figure, Figure, bool]:
    if usual.empty and stands_in.usual is not None:
        usual = stands_in.usual
    if usual.text.strip().startswith(("-", "−")):
        bare = usual.text.strip()[1:].strip()
        raise InputError(
            "usual",
            f'"{usual.text}": a rail is typed without its sign, {bare}. Its minus says that plus is on the frame.',
        )
    _check_waveform(kind, usual=usual, low=low, high=high)
    centre_read = read_quantity("usual", usual.text, VOLT, above=0)
    ends = stands_in.ends
    if ends is None and kind.low_share and kind.high_share:
        ends = centre_read.usual * kind.low_share, centre_read.usual * kind.high_share
    lowest = _end("low", low, centre_read, centre_read.low, usual, ends and ends[0])
    highest = _end("high", high, centre_read, centre_read.high, usual, ends and ends[1])
    centre = Figure(centre_read.usual, usual.source, usual.note)
    known = centre_read.spread != "none" or not low.empty or not high.empty or ends is not None
    _check_order(lowest, centre, highest)
    return lowest, centre, highest, known


def _check_order(low: Figure, usual: Figure, high: Figure) -> None:
    most = max(high.value, usual.value)
    if most > HIGHEST_V:
        raise InputError("usual", f"{show(most, VOLT)} is no lamp's rail: up to {show(HIGHEST_V, VOLT)} is taken here.")
    if low.value > usual.value:
        raise InputError("low", f"The lowest, {show(low.value, VOLT)}, is above the usual {show(usual.value, VOLT)}.")
    if high.value < usual.value:
        raise InputError(
            "high", f"The highest, {show(high.value, VOLT)}, is below the usual {show(usual.value, VOLT)}."
        )


def _end(name: str, typed: Input, usual: Parsed, own: float, usual_typed: Input, stand_in: float | None) -> Figure:
    if not typed.empty:
        return Figure(read_single(name, typed.text, VOLT, above=0), typed.source, typed.note)
    if usual.spread != "none":
        return Figure(own, usual_typed.source, f"from {usual_typed.text}")
    if stand_in is None:
        # One value stands for all: nobody has read this end.
        return Figure(own, Source.ASSUMED, "same as usual")
    value = min(stand_in, usual.usual) if name == "low" else max(stand_in, usual.usual)
    return Figure(value, Source.ASSUMED, "common practice")


def _check_waveform(kind: SupplyKind, **levels: Input) -> None:
    """AC typed on a DC rail, or the other way round, is a slip or the wrong kind."""
    for name, typed in levels.items():
        if typed.empty:
            continue
        said = read_quantity(name, typed.text, VOLT, above=0).kind
        if said == "ac" and kind.waveform is Waveform.DC:
            raise InputError(
                name, f'"{typed.text}" is AC. This rail is DC: type its DC reading, like 24V, or make it an AC winding.'
            )
        if said == "dc" and kind.waveform is Waveform.SINE:
            raise InputError(
                name, f'"{typed.text}" is DC. This rail is AC: type its RMS reading, like 12Vac, or make it a DC rail.'
            )
