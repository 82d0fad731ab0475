"""A vehicle's battery and charger: at rest, charging, cranking, and in a surge."""

from typing import Any, NamedTuple

from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.quantities import VOLT, Figure, Input, InputError, Source, show
from swapglow.core.supplies.kind import FRAME_POLE, StandIns, SupplyKind


class System(NamedTuple):
    """What a vehicle's system does, V: at rest, running, charging, cranking, in a surge, at a jump start.

    Levels are common practice (6 and 24 V cranking in proportion to the 12 V system's 6 V); the surge is
    a suppressed load dump (ISO 16750-2, test B; from memory). A jump start is 24 V for a minute on a 12 V
    system (ISO 16750-2), and 12 V on a 6 V one (common practice).
    """

    rest: float
    running: float
    charging: float
    cranking: float
    surge: float
    jump: float | None


SYSTEMS = {
    "12": System(11.5, 13.8, 14.7, 6.0, 35.0, 24.0),
    "6": System(5.5, 6.9, 7.4, 3.0, 18.0, 12.0),
    "24": System(22.0, 27.6, 29.0, 12.0, 58.0, None),
}


class Vehicle(SupplyKind):
    """Three levels and a dip; surges go far above."""

    id = "vehicle"
    order = 2
    label = "Vehicle battery and charger"
    guess = "12.6V"
    expect = (
        "At rest, charging and cranking it stands at three levels; surges go far above. Size at "
        "the charging voltage, never at the battery's name."
    )
    levels = ("at rest", "running", "charging")
    details = (
        Detail("system", "System", None, "", tuple((name, f"{name} V") for name in SYSTEMS)),
        Detail("crank", "While cranking", VOLT, "6V. Empty takes half the system's name"),
        FRAME_POLE,
    )
    steady_label = "At rest to charging"
    levels_on_rule = True
    fused_tap = True
    caution = (
        "Work by the battery: the lead to the frame off first and on last (on positive ground the positive one); no "
        "rings, no sparks."
    )

    def stand_ins(self, details: Details) -> StandIns:
        """The system's own levels."""
        system = SYSTEMS[_name(details)]
        usual = Input(show(system.running, VOLT, 4), Source.ASSUMED, "common practice")
        return StandIns(usual, (system.rest, system.charging))

    def facts(self, details: Details, volts: tuple[float, float, float]) -> dict[str, Any]:
        """Its system, the dip while cranking, and what it may reach."""
        name = _name(details)
        system = SYSTEMS[name]
        dip = details.figure("crank") or Figure(system.cranking, Source.ASSUMED)
        return {
            "system": name,
            "dip": dip,
            "charging_v": system.charging,
            "surge_v": system.surge,
            "jump_v": system.jump,
        }


def _name(details: Details) -> str:
    text = details.text("system").upper().removesuffix("V").strip() or next(iter(SYSTEMS))
    if text not in SYSTEMS:
        raise InputError("system", f'"{text}" is no vehicle system: 6, 12 or 24.')
    return text


KIND = Vehicle()
