"""What each part of a circuit can stand, judged alike in every kind.

In a state that occurs, over the rating is a stop. Equal to the rating is not over it.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Protocol

import numpy as np
from numpy.typing import NDArray

from swapglow.core.findings.alternating import MOST_CREST
from swapglow.core.findings.finding import Finding, Grade
from swapglow.core.parts.lamp import Lamp
from swapglow.core.parts.led import Led
from swapglow.core.parts.rectifier import Rectifier
from swapglow.core.quantities import AMPERE, VOLT, Unit, show

FloatArray = NDArray[np.float64]

# Rounding is not over a limit.
SLACK = 1 + 1e-6
# A lamp called 12 V is run at up to 14.4 V on a vehicle (common practice). A quarter over, a lamp lives a fifteenth as
# long (life goes by V to the -12, lamp handbooks, from memory).
LAMP_OVER = 1.25
# Peak over rated that short pulses allow: over the root of their share of the time, never five times (data sheets,
# from memory).
MOST_PEAK = 5.0


@dataclass(frozen=True)
class Load:
    """What one element carries in every state; of a cycle its mean, its highest and its RMS.

    Attributes:
        mean_a, crest_a: A, (states,).
        reverse_v: highest voltage from its second to its first terminal, V, (states,).
        rms_v: V, (states,).
    """

    mean_a: FloatArray
    crest_a: FloatArray
    reverse_v: FloatArray
    rms_v: FloatArray


@dataclass(frozen=True)
class Over:
    """A rating that is exceeded: what is said of it, and how many times over it is."""

    finding: Finding
    times: float


def _exceeded(
    id_: str, value: float, limit: float, unit: Unit, sentence: str, why: str, grade: Grade = "stop", rated: float = 0.0
) -> Over:
    """A rating that is exceeded; the sentence has ``{value}`` and ``{limit}``, and the excess is over ``rated``."""
    told, most = show(value, unit), show(limit, unit)
    return Over(Finding(id_, grade, sentence.format(value=told, limit=most), told, most, why), value / (rated or limit))


class Rating(Protocol):
    """What a part can stand."""

    @property
    def element(self) -> str:
        """The element's name."""
        ...

    def over(self, load: Load, states: tuple[str, ...]) -> Iterator[Over]:
        """Each rating that is exceeded, in the worst state.

        Args:
            load: what the element carries, (states,).
            states: what each is called, as a sentence begins: "Left on".

        Yields:
            What is exceeded; nothing where the part stands it.
        """
        ...


def pulse_limit(rated_a: float, duty: float) -> float:
    """The highest pulsed current, A: rated over √duty, at most five times (data sheets, from memory).

    Args:
        rated_a: A, steady.
        duty: share of the time that it flows, over 0 to 1.

    Returns:
        A.
    """
    return rated_a * min(float(duty**-0.5), MOST_PEAK)


@dataclass(frozen=True)
class RatedLed:
    """LEDs as one junction: ``series`` in a string, ``parallel`` equal strings, on for ``duty`` of the time.

    ``guarded``: a diode in series takes what it would see in reverse.
    """

    element: str
    label: str
    id: str
    led: Led
    series: int = 1
    parallel: float = 1
    duty: float = 1.0
    guarded: bool = False

    def over(self, load: Load, states: tuple[str, ...]) -> Iterator[Over]:
        """Current over its rating, a crest of over twice it, reverse voltage over its own.

        Args:
            load: what it carries, (states,).
            states: what each is called.

        Returns:
            What is exceeded.
        """
        mean, crest = load.mean_a / self.parallel, load.crest_a / self.parallel
        limit, at = pulse_limit(self.led.rated_a, self.duty), int(np.argmax(mean))
        name = f"{states[at]}: {self.label}"
        if mean[at] > limit * SLACK and self.duty == 1:
            why = "Past its rating an LED runs hot, fades and fails early: a larger resistor, or another LED."
            sentence = f"{name} carries {{value}}, over its rated {{limit}}."
            yield _exceeded(f"over-current-{self.id}", float(mean[at]), limit, AMPERE, sentence, why)
        elif mean[at] > limit * SLACK:
            why = "Rated current over the root of its share of the time, never five times (from memory)."
            sentence = f"{name} carries {{value}}, over its {{limit}} allowed for {self.duty * 100:.3g} % of the time."
            yield _exceeded(f"over-current-{self.id}", float(mean[at]), limit, AMPERE, sentence, why)
        else:
            at = int(np.argmax(crest))
            if crest[at] > MOST_CREST * limit * SLACK:
                why = "Twice rated at the crest is the limit here: a larger resistor, or both halves of the wave."
                sentence = f"{states[at]}: at the crest {self.label} carries {{value}}."
                most = MOST_CREST * limit
                yield _exceeded(f"crest-{self.id}", float(crest[at]), most, AMPERE, sentence, why, "mind", limit)
        at = int(np.argmax(load.reverse_v))
        most = self.series * self.led.reverse_v
        if not self.guarded and load.reverse_v[at] > most * SLACK:
            why = "It breaks down and dies sooner or later: a diode in line with it, its drop counted."
            sentence = f"{states[at]}: {self.label} sees {{value}} in reverse, over its {{limit}}."
            yield _exceeded(f"over-reverse-{self.id}", float(load.reverse_v[at]), most, VOLT, sentence, why)


@dataclass(frozen=True)
class RatedLamp:
    """A filament lamp."""

    element: str
    label: str
    lamp: Lamp

    def over(self, load: Load, states: tuple[str, ...]) -> Iterator[Over]:
        """More than a quarter over its volts.

        Args:
            load: what it carries, (states,).
            states: what each is called.

        Returns:
            What is exceeded.
        """
        at = int(np.argmax(load.rms_v))
        if load.rms_v[at] > self.lamp.volts * LAMP_OVER * SLACK:
            why = "Its life falls with the twelfth power of its volts: it burns out soon, or at once."
            sentence = f"{self.label}: {{value}} across a lamp of {{limit}}."
            yield _exceeded(f"over-volts-{self.element}", float(load.rms_v[at]), self.lamp.volts, VOLT, sentence, why)


@dataclass(frozen=True)
class RatedDiode:
    """A silicon diode."""

    element: str
    label: str
    diode: Rectifier

    def over(self, load: Load, states: tuple[str, ...]) -> Iterator[Over]:
        """Mean current over its rating.

        Args:
            load: what it carries, (states,).
            states: what each is called.

        Returns:
            What is exceeded.
        """
        at = int(np.argmax(load.mean_a))
        if load.mean_a[at] > self.diode.amps * SLACK:
            why = "It fails, mostly as a short circuit: a diode of a higher rating."
            sentence = f"{states[at]}: {self.label} ({self.diode.label}) carries {{value}}, over its {{limit}}."
            yield _exceeded(
                f"over-current-{self.element}", float(load.mean_a[at]), self.diode.amps, AMPERE, sentence, why
            )


@dataclass(frozen=True)
class StatedAmps:
    """An LED whose current is stated and not solved: a kind without a circuit judges it all the same."""

    rated_a: float
    amps: float
    name: str

    def judged(self) -> Iterator[Over]:
        """The current against its rating."""
        if self.amps > self.rated_a * SLACK:
            why = "Past its rating an LED runs hot, fades and fails early: less current, or another LED."
            sentence = f"{self.name}: the LED carries {{value}}, over its rated {{limit}}."
            yield _exceeded("over-current-led", self.amps, self.rated_a, AMPERE, sentence, why)
