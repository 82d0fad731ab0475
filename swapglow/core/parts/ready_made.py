"""Ready-made LED lamps: what is known of one from outside, and what its insides may be.

Nobody sells a lamp with its circuit on it. From its volts and amps follow the few insides it may have; each
meets what is known exactly, and together they say how far apart the answers lie.
"""

from dataclasses import dataclass, replace
from functools import cache
from typing import Literal

from swapglow.core.constants import REFERENCE_C
from swapglow.core.parts.catalogue import rows
from swapglow.core.parts.led import Led
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.quantities import AMPERE, VOLT, InputError, show

Law = Literal["resistor", "current", "power"]
LAWS: dict[Law, str] = {"resistor": "Resistor inside", "current": "Constant current", "power": "Constant power"}
# What may be said of it.
UNKNOWN = "unknown"
SAID_LAWS: dict[str, str] = {**{str(law): label for law, label in LAWS.items()}, UNKNOWN: "Not known"}
# A lamp with a resistor leaves it so much of the least volts of its band at least, and is made with as many
# LEDs as that allows (three white ones in a lamp for 10 to 15 V; common practice).
LEAST_LEFT = 0.05
# Two readings tell the LEDs' own volts to so much of the higher reading (the curve between them is no line).
READ_DOUBT = 0.08
# Lamps of several LEDs throw their light wide (from memory).
LAMP_ANGLE_DEG = 120.0
# What its maker may drive it to, over what it draws at the volts it is known at (ours).
MOST_DRIVE = 1.5
# Under this no converter inside a lamp begins to work (some tenths of a volt; common practice).
LEAST_V = 0.3


@dataclass(frozen=True)
class Inside:
    """What a ready-made lamp may have inside.

    Attributes:
        dice: LEDs in series.
        volts: of all its LEDs together at the current it is known at, V.
        ohm: the resistor inside, where that is its law, Ω; 0 else.
    """

    dice: int
    volts: float
    ohm: float


@dataclass(frozen=True)
class Module:
    """A ready-made LED lamp, as it is known from outside.

    Attributes:
        low, high: its voltage band, V.
        amps: what it draws at ``at_v``, A.
        law: a resistor inside; a constant current; or a converter that takes constant power.
        law_known: whether somebody knows that; otherwise the others count beside ``law``, the likeliest.
        polarised: whether it lights one way round only.
        throttle: share of its current left once warm, 1 where it does not throttle.
        throttle_s: after how long, s.
        given_v: volts at which it draws ``amps``; None takes the middle of its band.
        second: volts and amps of another reading, where there is one.
        dice: LEDs in series inside, where somebody counted them.
        die_v: forward voltage of one of its LEDs at its current, V.
        swept: the whole lamp as one junction, where its volts and amps were swept: nothing is then guessed.
    """

    low: float
    high: float
    amps: float
    law: Law = "resistor"
    polarised: bool = True
    throttle: float = 1.0
    throttle_s: float = 0.0
    given_v: float | None = None
    second: tuple[float, float] | None = None
    dice: int | None = None
    die_v: float = 3.0
    swept: Led | None = None
    law_known: bool = True

    @property
    def at_v(self) -> float:
        """Volts at which it draws its current, V."""
        return self.given_v or (self.low + self.high) / 2

    @property
    def bridge_v(self) -> float:
        """What the two diodes of a bridge inside keep at its current, V (Shockley 1949)."""
        if self.polarised:
            return 0.0
        return rectifier("power").volts(self.amps, 2, REFERENCE_C)

    def check(self) -> None:
        """See that what is known of it can be a lamp's.

        Raises:
            InputError: the field of it that cannot be.
        """
        room = self.at_v - self.bridge_v
        if self.at_v < LEAST_V:
            raise InputError(
                "band",
                f"No LED lamp works on {show(self.at_v, VOLT)}: a converter wants {show(LEAST_V, VOLT)} and more.",
            )
        if room < LEAST_V:
            raise InputError(
                "module.polarised",
                f"At {show(self.amps, AMPERE)} the bridge of a lamp that lights either way round "
                f"keeps {show(self.bridge_v, VOLT)} by itself, and it is known at {show(self.at_v, VOLT)}: say that it "
                "lights one way round only, or read it again.",
            )
        if self.law == "resistor" and self.swept is None and self.die_v >= room:
            raise InputError(
                "module.law",
                f"Behind a resistor one LED of {show(self.die_v, VOLT)} does not light at "
                f"{show(self.at_v, VOLT)}: it has a converter inside (constant power), or LEDs of another colour.",
            )
        if self.dice is not None and self.dice * self.die_v >= room:
            raise InputError(
                "module.dice",
                f"{self.dice} LEDs of {show(self.die_v, VOLT)} do not light at "
                f"{show(self.at_v, VOLT)}: count again, or pick another LED.",
            )
        if self.second is None or self.law != "resistor":
            return
        volts, amps = self.second
        if (volts - self.at_v) * (amps - self.amps) <= 0:
            raise InputError(
                "module.second_amps",
                f"{show(amps, AMPERE)} at {show(volts, VOLT)} and {show(self.amps, AMPERE)} at "
                f"{show(self.at_v, VOLT)}: behind a resistor more volts give more amps. It holds its current or its "
                "power, or the readings are exchanged.",
            )

    @property
    def possible(self) -> "tuple[Module, ...]":
        """The lamp by each law that it may have, the likeliest first."""
        if self.law_known:
            return (self,)
        others = [law for law in LAWS if law != self.law]
        return tuple(replace(self, law=law, law_known=True) for law in (self.law, *others) if self._can(law))

    def _can(self, law: Law) -> bool:
        try:
            replace(self, law=law).check()
        except InputError:
            return False
        return True

    @property
    def insides(self) -> tuple[Inside, ...]:
        """What it may have inside, the likeliest first; each draws its current at its volts."""
        room = self.at_v - self.bridge_v
        if self.swept is not None:
            return (Inside(0, self.swept.vf_typ, 0.0),)
        if self.dice is not None:
            found = [self.dice]
        elif self.law == "resistor" and self._slope is not None:
            string = room - self.amps * self._slope
            doubt = READ_DOUBT * max(self.at_v, self.second[0] if self.second else 0.0)
            found = [n for n in range(1, 101) if abs(n * self.die_v - string) <= max(doubt, self.die_v / 2)]
            found.sort(key=lambda n: abs(n * self.die_v - string))
        else:
            most = max(int((self.low * (1 - LEAST_LEFT) - self.bridge_v) / self.die_v), 1)
            found = [n for n in range(most, 0, -1) if n == most or self.law == "resistor"]
        out = [self._inside(n) for n in found if n * self.die_v < room]
        # A lamp for less than one LED needs has a converter inside.
        return tuple(out) or (self._inside(0),)

    @property
    def _slope(self) -> float | None:
        """Ohms between the two readings; None without a second, or where it shows none."""
        if self.second is None:
            return None
        volts, amps = self.second
        rise = amps - self.amps
        return (volts - self.at_v) / rise if rise and (volts - self.at_v) / rise > 0 else None

    def _inside(self, dice: int) -> Inside:
        room = self.at_v - self.bridge_v
        volts = dice * self.die_v if dice else 0.5 * room
        return Inside(dice, volts, (room - volts) / self.amps if self.law == "resistor" else 0.0)

    def led(self, like: Led) -> Led:
        """Its LEDs together as one junction of the colour of ``like``, with its likeliest inside."""
        return self.led_of(self.insides[0], like)

    def led_of(self, inside: Inside, like: Led) -> Led:
        """The LEDs of one of its insides together as one junction.

        Args:
            inside: one of :attr:`insides`.
            like: the LED whose colour and curve they have.

        Returns:
            The LED, its forward voltage at the current the lamp is known at.
        """
        if self.swept is not None:
            return self.swept
        times, typ = inside.volts / like.vf_typ, inside.volts
        return replace(
            like,
            id="module",
            label="Ready-made lamp",
            vf_low=typ,
            vf_typ=typ,
            vf_high=typ,
            rated_a=self.amps * MOST_DRIVE,
            n=like.n * times,
            rs_v=0.0,
            reverse_v=like.reverse_v,
            tempco_v_k=like.tempco_v_k * times,
            vf_given_a=self.amps,
            candela_given_a=self.amps,
            angle_deg=LAMP_ANGLE_DEG,
        )


@dataclass(frozen=True)
class ReadyMade:
    """A ready-made lamp of the catalogue: its base, itself, and its light on axis, cd."""

    id: str
    label: str
    base: str
    module: Module
    candela: float


@cache
def ready_made() -> dict[str, ReadyMade]:
    """The catalogue by id."""
    return {
        r["id"]: ReadyMade(
            r["id"],
            r["label"],
            r["base"],
            Module(
                float(r["low"]),
                float(r["high"]),
                float(r["ma"]) / 1e3,
                r["law"],  # type: ignore[arg-type]  # one of LAWS
                r["polarised"] == "yes",
                float(r["throttle"]),
                float(r["throttle_s"]),
            ),
            float(r["candela"]),
        )
        for r in rows("modules")
    }
