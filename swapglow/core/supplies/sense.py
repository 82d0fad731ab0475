"""A switch or sense line: read by the equipment, and not meant to feed anything."""

from collections.abc import Iterable
from dataclasses import replace
from typing import Any

from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.kinds.step import Meaning, NextStep
from swapglow.core.parts.meter import amp_range
from swapglow.core.quantities import AMPERE, OHM, Figure, InputError, Source, show
from swapglow.core.supplies.kind import Circumstances, Owed, SupplyKind, SupplyState
from swapglow.core.supplies.supply import LINE_OHM, Trials


class Sense(SupplyKind):
    """What decides is the current at which it is taken for closed."""

    id = "sense"
    order = 9
    label = "Switch or sense line"
    guess = "5V"
    expect = (
        "Read by the equipment and not meant to feed anything. What decides is the current at "
        "which it is taken for closed."
    )
    levels = ("lowest", "open", "highest")
    details = (
        Detail("source", "Source resistance", OHM, "Kilohms; from open volts and shorted amps"),
        Detail("trip", "Trips at", AMPERE, "Current taken for a closed contact, 1.2mA"),
        Detail("works", "Trial: still switches with", OHM, "Least resistor it still ignored, 6k2"),
        Detail("fails", "Trial: no longer with", OHM, "Largest that it took for closed, 5k1"),
        Detail(
            "trial_with",
            "The trials were with",
            None,
            "",
            (("led", "This LED in series"), ("alone", "The resistor alone")),
        ),
    )
    level_states = False
    read_at_offered = False
    feeds = False
    reads_line = True
    driver_note = (
        "The equipment reads this line. Its trip current, or two trials that bracket it, are kept with the rail."
    )

    def facts(self, details: Details, volts: tuple[float, float, float]) -> dict[str, Any]:
        """Its trip current, and the trials that bound it, from one side or from both."""
        trip = details.figure("trip")
        works, fails = details.figure("works", above=None), details.figure("fails", above=None)
        tried = works or fails
        if tried is None:
            return {"trip": trip}
        if works is not None and fails is not None and works.value <= fails.value:
            raise InputError(
                "works",
                f"{show(works.value, OHM)} takes less current than {show(fails.value, OHM)} only if it "
                "is larger: the two are exchanged.",
            )
        alone = details.choice("trial_with") == "alone"
        source = Source.ASSUMED if tried.source is Source.ASSUMED else Source.COMPUTED
        return {
            "trip": trip,
            "trials": Trials(works.value if works else None, fails.value if fails else None, alone, source),
        }

    def states(self) -> tuple[SupplyState, ...]:
        """The contact across the lamp open, and closed."""
        return SupplyState("on", "Contact open", "on"), SupplyState("closed", "Contact closed", "closed")

    def rail_points(self) -> str:
        """The line is read where its contact is."""
        return "across the open contact, lamp out"

    def owed(self, about: Circumstances) -> Iterable[Owed]:
        """Its trip current, and what stands behind it."""
        supply = about.rail.supply
        if supply.trip is None:
            # All of the LED's current is in question: nothing says that the unit still switches.
            yield Owed(_trip_step(about), share_of_most=2.0)
        if supply.source_ohm.value == 0:
            yield Owed(_short_step(), replace(supply, source_ohm=Figure(LINE_OHM, supply.source_ohm.source)))


def _trip_step(about: Circumstances) -> NextStep:
    return NextStep(
        "trip",
        "Find the current at which the line trips",
        amp_range(max(about.string_current_max, 1e-3)),
        "across the contact",
        "contact open, the unit on; resistors from the largest down",
        "the last current it still ignores",
        "trip",
        "The equipment reads this line: past its trip current it takes the LED for a closed contact.",
        "A line is not a feed: never short it to another rail.",
        (
            Meaning("ignores it at every value", "the line trips far above the LED's current"),
            Meaning("switches at the first", "it needs a transistor from a real rail"),
        ),
        "0.9mA",
    )


def _short_step() -> NextStep:
    return NextStep(
        "source_short",
        "Read the line's shorted current",
        amp_range(5e-3),
        "across the contact",
        "contact open: the meter closes it",
        "0.5 to 5\u00a0mA",
        "source_short",
        "Open volts over shorted amps is the line's source resistance.",
        "The unit will take it for a closed contact while you read.",
        (
            Meaning("a milliamp or so", "a line behind kilohms"),
            Meaning("tens of milliamps", "no sense line: a feed, and the LED may take more"),
        ),
        "2.1mA",
    )


KIND = Sense()
