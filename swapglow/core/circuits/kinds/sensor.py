"""A lamp that a detector looks at: its infrared against an LED's, through what the detector sees, and its lag."""

import math
from dataclasses import dataclass
from functools import cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import CircuitResult, Figure, Option, Picture, Row, Table, curve
from swapglow.core.circuits.toolkit import asks, values
from swapglow.core.circuits.toolkit.ratings import StatedAmps
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.catalogue import rows
from swapglow.core.parts.lamp import CURRENT_EXPONENT, LIGHT_EXPONENT, Lamp
from swapglow.core.parts.led import Led
from swapglow.core.photometry.light_law import candela_at
from swapglow.core.photometry.spectrum import EFFICACY_LM_W, filament_power, led, luminous, observer, wide_grid
from swapglow.core.quantities import (
    AMPERE,
    HERTZ,
    OHM,
    SECOND,
    VOLT,
    WATT,
    InputError,
    Shown,
    Source,
    number_text,
    percent,
    percent_shown,
    show,
    shown,
    times_text,
)
from swapglow.core.quantities import Figure as Typed
from swapglow.core.values import preferred

FloatArray = NDArray[np.float64]

LAMP_V, LAMP_A = asks.lamp_details("6V", "0.3A")
RUN = Detail("run", "Volts it really has", VOLT, "5.2V; empty takes its rating")
READ = Detail("read", "The detector's current with the old lamp", AMPERE, "120uA; empty: shares only")
LEAST = Detail("least", "The least current it must give", AMPERE, "80uA; empty takes half of the old")
LED_A = Detail("led_amps", "Its current", AMPERE, "10mA")
FEED = Detail("feed", "Volts that feed the LED", VOLT, "5V, DC; for its resistor")
WATCHED_HZ = Detail("watched_hz", "How often a second it watches", HERTZ, "400Hz of holes; empty for a steady light")
FED_HZ = Detail("fed_hz", "The old lamp's frequency", HERTZ, "50Hz; empty on DC")
LAG = Detail("lag", "Lag of its filament", SECOND, "30ms; empty takes that")

# A small vacuum lamp's filament (from memory: 10 to 100 ms, the thicker the slower).
_USUAL_LAG_S = 0.03
_ENOUGH = 0.5
# Of its volts under this a filament gives a sixtieth of its light and less, and its colour is no figure (V^3.5; ours).
_GLOWS = 0.3
# Spectra of a Gaussian are no figure further out.
_LEAST_SHARE = 1e-4


@dataclass(frozen=True)
class Detector:
    """What a detector makes of light.

    Attributes:
        id, label: what it is.
        gamma: its current goes as light to that power.
        nm, share: relative response, straight between the points and none outside.
    """

    id: str
    label: str
    gamma: float
    nm: tuple[float, ...]
    share: tuple[float, ...]

    def response(self) -> FloatArray:
        """On the wide grid, (wavelengths,)."""
        return np.asarray(np.interp(wide_grid(), self.nm, self.share, left=0.0, right=0.0))


@dataclass(frozen=True)
class Infrared:
    """An infrared LED.

    Attributes:
        id, label: what it is.
        peak_nm, fwhm_nm: its band.
        w_sr: radiant intensity on axis at ``rated_a``.
        vf: there, V.
    """

    id: str
    label: str
    peak_nm: float
    fwhm_nm: float
    w_sr: float
    rated_a: float
    vf: float


@cache
def detectors() -> dict[str, Detector]:
    """The detectors by id."""
    out = {}
    for r in rows("detectors", "circuits.kinds"):
        pairs = [p.split(":") for p in r["nm:share"].split()]
        nm, share = (tuple(float(p[k]) for p in pairs) for k in (0, 1))
        out[r["id"]] = Detector(r["id"], r["label"], float(r["gamma"]), nm, share)
    return out


@cache
def infrareds() -> dict[str, Infrared]:
    """Infrared LEDs by id."""
    return {
        r["id"]: Infrared(
            r["id"],
            r["label"],
            float(r["peak_nm"]),
            float(r["fwhm_nm"]),
            float(r["w_sr"]),
            float(r["rated_ma"]) / 1e3,
            float(r["vf"]),
        )
        for r in rows("infrared", "circuits.kinds")
    }


DETECTOR = Detail("detector", "What looks at it", None, "", tuple((k, d.label) for k, d in detectors().items()))


def _seen(nm: FloatArray, w_sr_nm: FloatArray, d: Detector) -> float:
    """What a detector makes of a spectral radiant intensity, any scale (W/sr by its response)."""
    return float(np.trapezoid(w_sr_nm * np.interp(nm, d.nm, d.share, left=0.0, right=0.0), nm))


def of_lamp(lamp: Lamp, volts: float, d: Detector) -> float:
    """What a detector makes of a filament: its candela fix the scale of its spectrum, K = 683 lm/W (CIE 018).

    Args:
        lamp: the filament.
        volts: that it has.
        d: the detector.

    Returns:
        W/sr by the detector's response.
    """
    kelvin, nm = lamp.kelvin_at(volts), wide_grid()
    power = filament_power(kelvin)
    seen_nm, eye = observer()[0], observer()[1][:, 1]
    lumens = EFFICACY_LM_W * float(np.trapezoid(np.interp(seen_nm, nm, power) * eye, seen_nm))
    return _seen(nm, power * (lamp.candela_at(volts) or 0.0) / lumens, d)


def of_led(part: Led, amps: float, d: Detector) -> float:
    """What a detector makes of a visible LED on axis.

    Args:
        part: the LED.
        amps: its current.
        d: the detector.

    Returns:
        W/sr by the detector's response.
    """
    nm = observer()[0]
    power = led(part)
    lumens = EFFICACY_LM_W * luminous(power) * float(nm[1] - nm[0])
    return _seen(nm, power * candela_at(part, amps) / lumens, d)


def of_infrared(part: Infrared, amps: float, d: Detector) -> float:
    """What a detector makes of an infrared LED on axis: its light goes with its current (data sheets, from memory).

    Args:
        part: the LED.
        amps: its current.
        d: the detector.

    Returns:
        W/sr by the detector's response.
    """
    nm, sigma = wide_grid(), part.fwhm_nm / 2.354820045
    band = np.exp(-0.5 * ((nm - part.peak_nm) / sigma) ** 2) / (sigma * math.sqrt(2 * math.pi))
    return _seen(nm, band * part.w_sr * amps / part.rated_a, d)


def follows(hertz: float, lag: float) -> float:
    """What a first-order lag leaves of a swing: 1/√(1 + (2πfτ)²) (textbook).

    Args:
        hertz: how fast it swings.
        lag: the time constant, s.

    Returns:
        The share.
    """
    return 1 / math.sqrt(1 + (2 * math.pi * hertz * lag) ** 2)


def hum_share(hertz: float, lag: float) -> float:
    """How far a filament's light swings on AC, of its mean: its power swings whole, at twice the frequency.

    Small swings of light go with power as V^3.5 to V^1.55 (miniature lamp handbooks, from memory).

    Args:
        hertz: the feed's.
        lag: the filament's time constant, s.

    Returns:
        The swing either way, of the mean; small where the lag holds it.
    """
    return LIGHT_EXPONENT / (1 + CURRENT_EXPONENT) * follows(2 * hertz, lag)


@dataclass(frozen=True)
class Watched:
    """What a detector looks at.

    Attributes:
        lamp, run: the old lamp, and the volts it really has.
        detector: what looks at it.
        led, amps: the LED in its place, and its current.
        read: the detector's current with the old lamp; None where not read.
        floor: the least share of the old current that will do.
        feed: volts that feed the LED; None where not stated.
    """

    lamp: Lamp
    run: float
    detector: Detector
    led: Led
    amps: float
    read: Typed | None
    floor: float
    feed: float | None

    @property
    def old(self) -> float:
        """What the detector makes of the old lamp, W/sr by its response."""
        return of_lamp(self.lamp, self.run, self.detector)

    def share(self, seen: float) -> float:
        """The detector's current beside that with the old lamp."""
        return float((seen / self.old) ** self.detector.gamma)

    @property
    def now(self) -> float:
        """That share with the LED."""
        return self.share(of_led(self.led, self.amps, self.detector))


class SensorLamp(CircuitKind[Watched]):
    """Tape ends, punched cards, tremolo, exposure: a lamp that is looked at by a detector and not by an eye."""

    id = "sensor"
    order = 17
    label = "Lamp that a detector looks at"
    looks = (
        "A lamp behind a slot, a hole or a lens, and opposite it a cell, a small can with a window, or a black block. "
        "Most of a filament's light is infrared, and that is what most detectors see best."
    )
    never = (
        "Leave it where the lag is the sound, or where it was calibrated. Infrared is not seen: it may be on and look "
        "dark; do not look into it closely."
    )
    details = (
        LAMP_V,
        LAMP_A,
        RUN,
        DETECTOR,
        READ,
        LEAST,
        asks.led_detail("LED looked at"),
        LED_A,
        FEED,
        WATCHED_HZ,
        FED_HZ,
        LAG,
    )

    def case(self, typed: Details) -> Watched:
        """What is looked at, as typed."""
        volts, amps, led_a = typed.needed(LAMP_V, LAMP_A, LED_A)
        run = typed.value(RUN.id) or volts
        if run > 1.5 * volts:
            raise InputError(RUN.id, f"No lamp of {show(volts, VOLT)} has {show(run, VOLT)} for long.")
        if run < _GLOWS * volts:
            raise InputError(RUN.id, f"At {show(run, VOLT)} a lamp of {show(volts, VOLT)} hardly glows.")
        read, least = typed.figure(READ.id), typed.value(LEAST.id)
        floor = least / read.value if read is not None and least is not None else _ENOUGH
        return Watched(
            asks.rated_lamp(volts, amps),
            run,
            detectors()[typed.choice(DETECTOR.id)],
            asks.read_led(typed),
            led_a,
            read,
            floor,
            typed.value(FEED.id),
        )

    def states(self, case: Watched) -> tuple[StatedAmps, ...]:
        """The LED's current is typed: there is no circuit."""
        return (StatedAmps(case.led.rated_a, case.amps, "As typed"),)

    def options(self, now: Watched, typed: Details, chosen: str) -> list[Option]:
        """The infrared LED and current with which the detector gives what it gave, the least current first."""
        found = []
        for part in infrareds().values():
            at_rated = of_infrared(part, part.rated_a, now.detector)
            if at_rated >= _LEAST_SHARE * now.old:
                found.append((part.rated_a * now.old / at_rated, part))
        return [_option(now, part, amps) for amps, part in sorted(found, key=lambda x: x[0])]

    def report(self, job: Job[Watched]) -> CircuitResult:
        """The detector's current with the LED beside the old lamp's, and the infrared LED that gives the same."""
        w, option = job.now, job.option
        d = w.detector
        after = None
        if option is not None and (w.now < w.floor or option.id == job.chosen):
            part = infrareds()[option.id]
            after = w.share(of_infrared(part, min(option.outcome.value, part.rated_a / 2), d))
        return CircuitResult(
            line=f"With the LED {d.label.lower()} gives {_times(w.now)} of what the old lamp gave.",
            figures=_figures(w, after),
            pictures=(_spectra(w),),
            tables=(_by_detector(w),),
            findings=_findings(job.typed, w),
        )


KIND = SensorLamp()


def _times(share: float) -> str:
    return percent(share) if share < 2 else f"{times_text(share)} times"


def _per_cent(share: float) -> str:
    """A share that may be a thousandth: what rounds to less is nothing."""
    return number_text(100 * share, 2) if share >= _LEAST_SHARE else "0"


def _figures(w: Watched, after: float | None) -> tuple[Figure, ...]:
    origin = "spectra through the detector's response, shapes from memory"

    def told(value: float) -> Shown:
        if w.read is not None:
            return shown(w.read.value * value, AMPERE, f"the reading times {origin}")
        return percent_shown(value, origin)

    out = [Figure("detector-led", "Detector with the LED", told(w.now), None if after is None else told(after))]
    if w.read is not None:
        was = shown(w.read.value, AMPERE, w.read.note or "as typed", w.read.source)
        out.insert(0, Figure("detector-old", "Detector with the old lamp", was))
    return tuple(out)


def _spectra(w: Watched) -> Picture:
    """Each spectrum times the detector's response, the old lamp's highest as 100."""
    nm, d = wide_grid(), w.detector
    old = filament_power(w.lamp.kelvin_at(w.run)) * d.response()
    scale = w.old / float(np.trapezoid(old, nm))
    top = float((old * scale).max())
    bright = np.interp(nm, observer()[0], led(w.led), left=0.0, right=0.0) * d.response()
    area = float(np.trapezoid(bright, nm))
    new = bright * (of_led(w.led, w.amps, d) / area if area > 0 else 0.0)
    kept = (nm >= d.nm[0] - 20) & (nm <= d.nm[-1] + 20)
    curves = (
        curve("Old lamp", "old", nm[kept], 100 * scale * old[kept] / top),
        curve("LED", "new", nm[kept], 100 * new[kept] / top),
    )
    return Picture("spectra", "What the detector sees of each", "nm", "% of the old lamp's highest", curves)


def _by_detector(w: Watched) -> Table:
    out = []
    for d in detectors().values():
        old = of_lamp(w.lamp, w.run, d)
        seen = [of_led(w.led, w.amps, d), *(of_infrared(i, i.rated_a, d) for i in infrareds().values())]
        shares = [(one / old) ** d.gamma for one in seen]
        cells = tuple(Shown(s, _per_cent(s), "%", Source.COMPUTED, "spectra through its response") for s in shares)
        out.append(Row(d.id, d.label, cells))
    heads = ("The LED", *(f"{i.peak_nm:g} nm at rated" for i in infrareds().values()))
    return Table("detectors", "Of the old lamp's, by what looks at it", heads, tuple(out))


def _option(w: Watched, part: Infrared, amps: float) -> Option:
    half, feed = part.rated_a / 2, w.feed
    bars = ""
    if amps > half:
        bars = f"over half its {show(part.rated_a, AMPERE)}: {percent(half / amps)} of it is left"
    sized = "type the volts that feed it for its resistor"
    if feed is not None and feed > part.vf:
        ohm = preferred.prefer((feed - part.vf) / amps, "E12", "up")
        watts = (feed - part.vf) ** 2 / ohm
        fit = values.to_fit(watts, feed - part.vf)
        sized = f"{show(ohm, OHM)}{f', {fit}' if fit else ''} from {show(feed, VOLT)}, {show(watts, WATT)}"
    elif feed is not None:
        sized = f"{show(feed, VOLT)} do not light it"
    said = "Then set by the detector's own current: parts differ by two to one."
    return Option(
        part.id,
        part.label,
        f"{sized}. {said}",
        shown(amps, AMPERE, "as much at the detector as the old lamp"),
        "current",
        bars=bars,
        advised=True,
    )


def _findings(typed: Details, w: Watched) -> tuple[Finding, ...]:
    out, d = [], w.detector
    if w.now < w.floor:
        out.append(
            Finding(
                "too-little-light",
                "stop",
                f"The detector gives {percent(w.now)} of what it gave, under the {percent(w.floor)} that will do.",
                percent(w.now),
                percent(w.floor),
                "An LED of any colour has no infrared; one in the detector's own band is wanted.",
            )
        )
    elif w.now > 1 / w.floor:
        out.append(
            Finding(
                "too-much-light",
                "mind",
                f"The detector gives {_times(w.now)} of what it gave: it may not see the dark.",
                why="Less current, until it gives what it gave.",
            )
        )
    out.append(
        Finding(
            "of-their-kind",
            "mind",
            "Spectra and responses are of their kind, and the lamp's light is a guess from its watts.",
            why="Twice as much or half is possible. The detector's own current, read with each, settles it.",
        )
    )
    if d.gamma != 1:
        out.append(
            Finding("gamma", "note", f"Its current goes as light to the power of {d.gamma:g}.", why="As its kind does.")
        )
    watched, fed = typed.value(WATCHED_HZ.id), typed.value(FED_HZ.id)
    lag = typed.value(LAG.id) or _USUAL_LAG_S
    if fed is not None:
        out.append(
            Finding(
                "mains-swing",
                "mind",
                f"On {show(fed, HERTZ)} the filament's light swings by {percent(hum_share(fed, lag))}; an LED's on the "
                "same feed goes out twice a cycle.",
                why="Feed the LED with smoothed DC, or the detector sees the mains.",
            )
        )
    if watched is not None:
        out.append(
            Finding(
                "no-lag",
                "note",
                f"At {show(watched, HERTZ)} the filament left {percent(follows(watched, lag))} of a swing of its own; "
                "an "
                "LED leaves all.",
                why="Where its lag made the effect, leave the lamp.",
            )
        )
    return tuple(out)
