"""Ready-made LED lamps: a voltage band, a current law, perhaps a polarity, perhaps throttling."""

from dataclasses import dataclass, replace
from functools import cache
from typing import Literal

from swapglow.core.parts.catalogue import rows
from swapglow.core.parts.led import Led

Law = Literal["resistor", "current", "power"]
LAWS: dict[Law, str] = {
    "resistor": "Resistor inside", "current": "Constant current", "power": "Constant power",
}  # fmt: skip
# Its LEDs take about so much of the least voltage it is sold for; the rest is its resistor's or its
# regulator's (three LEDs of 3 V in a lamp for 10 to 15 V; common practice).
KNEE_SHARE = 0.85


@dataclass(frozen=True)
class Module:
    """A ready-made LED lamp.

    Attributes:
        low, high: its voltage band, V.
        amps: what it draws in the middle of the band, A.
        law: a resistor inside; a constant current; or a converter that takes constant power.
        polarised: whether it lights one way round only.
        throttle: share of its current left once warm, 1 where it does not throttle.
        throttle_s: after how long, s.
    """

    low: float
    high: float
    amps: float
    law: Law = "resistor"
    polarised: bool = True
    throttle: float = 1.0
    throttle_s: float = 0.0

    @property
    def nominal(self) -> float:
        """The middle of its band, V."""
        return (self.low + self.high) / 2

    @property
    def knee(self) -> float:
        """Volts of its LEDs at its own current."""
        return KNEE_SHARE * self.low

    @property
    def inner_ohm(self) -> float:
        """The resistor inside, where that is its law, Ω."""
        return (self.nominal - self.knee) / self.amps

    def led(self, like: Led) -> Led:
        """Its LEDs together as one junction of the colour of ``like``."""
        return replace(
            like, id="module", label="Ready-made lamp", vf_low=self.knee * 0.97, vf_typ=self.knee,
            vf_high=self.knee * 1.03, rated_a=self.amps * 1.5, n=like.n * max(1.0, self.knee / like.vf_typ),
            rs_v=like.rs_v * max(1.0, self.knee / like.vf_typ), reverse_v=like.reverse_v,
        )  # fmt: skip


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
            r["id"], r["label"], r["base"],
            Module(float(r["low"]), float(r["high"]), float(r["ma"]) / 1e3, r["law"],  # type: ignore[arg-type]  # one of LAWS
                   r["polarised"] == "yes", float(r["throttle"]), float(r["throttle_s"])),
            float(r["candela"]),
        )
        for r in rows("modules")
    }  # fmt: skip
