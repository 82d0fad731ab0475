"""Traps of supplies that alternate or reverse."""

from collections.abc import Iterable

from swapglow.core.analysis.cycle_figures import crest_v, flicker_hertz, modulation
from swapglow.core.design.rectification import RECTIFICATIONS, Rectification, without_bridge
from swapglow.core.findings.finding import Finding, Remedy
from swapglow.core.findings.polarity import one_of, unshared
from swapglow.core.findings.registry import Context, of_each_string, rule
from swapglow.core.parts.ratings import CAPACITOR_MARGIN, capacitor_volts
from swapglow.core.photometry.flicker import flicker_limit
from swapglow.core.quantities import AMPERE, FARAD, HERTZ, OHM, VOLT, percent, show, times_text
from swapglow.core.supplies.waveform import Waveform

# Half-cycles are long beside the die's warming: past twice the rated current at the crest it is
# judged as if steady. Data sheets allow more only for pulses of a millisecond (from memory).
MOST_CREST = 2.0
# So many times its reverse rating is more than a note, however little flows (ours).
FAR_REVERSE = 4.0


def rectify(way: Rectification) -> Remedy:
    """Another way to rectify, its resistor and capacitor worked out anew: a typed one was for another way."""
    afresh = dict.fromkeys(("resistor_ohm", "capacitor_f", "capacitor_v"))
    return Remedy(
        f"rectify-{way.id.replace('_', '-')}",
        f"Use {way.label[0].lower()}{way.label[1:]}",
        {"rectification_id": way.id, **afresh},
    )


def _rectify(*ids: str) -> tuple[Remedy, ...]:
    return tuple(rectify(RECTIFICATIONS[id_]) for id_ in ids)


@of_each_string
def led_in_reverse(c: Context) -> Iterable[Finding]:
    """More reverse volts than the LED may take."""
    s, p = c.solution, c.position
    if s is None or s.ac is None:
        return
    volts, limit = s.ac.reverse_max, p.led.reverse_v
    if volts <= limit * (1 + 1e-9):
        return
    behind = p.rectification.topology == "series"
    # Shared evenly each would stand it: the others then hold the current to what they leak.
    shared = volts <= limit * p.in_series * (1 + 1e-9)
    others = ("bridge_cap",) if p.rail.supply.waveform is Waveform.SINE else ("bridge", "two_colour")
    yield Finding(
        "led-reverse",
        ("mind" if volts > FAR_REVERSE * limit else "note") if behind else "mind" if shared else "stop",
        f"In reverse {one_of(p)} can see {show(volts, VOLT)}, over its {show(limit, VOLT)}"
        + (": the series diode leaks more than the LED and leaves it the volts." if behind else "."),
        show(volts, VOLT),
        show(limit, VOLT),
        (
            "The diode holds the current to its own leakage, under a microamp, so many run so for years. "
            "An inverse diode across the LED settles it."
            if behind
            else "An inverse diode across the string settles it."
            if shared
            else "Every half-cycle drives the LED into breakdown, and it fades within weeks."
        )
        + unshared(p),
        _rectify("inverse_diode", *others),
    )


@of_each_string
def crest_current(c: Context) -> Iterable[Finding]:
    """A fair average hides a crest."""
    s, p = c.solution, c.position
    if s is None or s.ac is None or p.rail.supply.waveform is Waveform.EITHER_WAY:
        return
    peak, limit = float(s.ac.most.peak[0]), MOST_CREST * p.rated_a
    if peak <= limit:
        return
    yield Finding(
        "crest-current",
        "mind",
        f"At the crest the LED carries {show(peak, AMPERE)}, "
        f"{times_text(peak / max(c.string_current_max, 1e-9))} times its average.",
        show(peak, AMPERE),
        show(limit, AMPERE),
        f"Twice rated at the crest is the limit here. A half-wave packs the light into "
        f"{p.rectification.halves} half-cycle{'s' if p.rectification.halves > 1 else ''} of two; "
        "a capacitor spreads it.",
        _rectify("bridge_cap") if p.rail.supply.waveform is Waveform.SINE else (),
    )


@rule
def flicker(c: Context) -> Iterable[Finding]:
    """Modulation past low-risk at the slowest the supply runs."""
    s, p = c.solution, c.position
    if s is None or s.ac is None or p.rail.supply.waveform is not Waveform.SINE or c.current_usual <= 0:
        return
    moves = modulation(s, s.ac)
    rates = flicker_hertz(s)
    worst = max(range(3), key=lambda k: moves[k] / flicker_limit(rates[k]))
    limit = flicker_limit(rates[worst])
    if moves[worst] <= limit:
        return
    where = f" at {p.rail.supply.kind.levels[worst]}" if p.rail.supply.kind.levels_apart else ""
    if p.rectification.reservoir:
        needed = s.sizing.needed_f
        larger: dict[str, float | int | str | None] = {"capacitor_f": None}
        remedies: tuple[Remedy, ...] = ()
        if p.capacitor_f is not None and needed is not None and needed > p.capacitor_f:
            remedies = (Remedy("larger-capacitor", f"Fit {show(needed, FARAD)}", larger),)
    else:
        remedies = _rectify("bridge_cap", "half_wave_cap")
    yield Finding(
        "flicker",
        "mind",
        f"It flickers {moves[worst]:.0f} % at {show(rates[worst], HERTZ)}{where}; low-risk is {limit:.3g} %.",
        f"{moves[worst]:.0f} %",
        f"{limit:.3g} %",
        "IEEE 1789-2015: modulation up to 0.025·f below 90 Hz and 0.08·f up to 1250 Hz. Slow flicker is "
        "seen at once, and moving things stutter in the faster.",
        remedies,
    )


@rule
def capacitor_volts_short(c: Context) -> Iterable[Finding]:
    """A capacitor that does not stand the highest peak."""
    s, p = c.solution, c.position
    if s is None or s.ac is None or not p.rectification.reservoir or p.capacitor_v is None:
        return
    crest, rated = crest_v(s), p.capacitor_v
    need = crest * CAPACITOR_MARGIN
    if rated >= need * (1 - 1e-9):
        return
    fit = capacitor_volts(crest)
    rms = p.rail.volts[2]
    taken = " It covers the RMS reading but not the peak: RMS was taken for peak." if rms <= rated < crest else ""
    remedies: tuple[Remedy, ...] = ()
    if fit is not None:
        remedies = (Remedy("capacitor-rating", f"Fit a {fit:g} V part", {"capacitor_v": fit}),)
    yield Finding(
        "capacitor-over-volts",
        "stop" if rated < crest else "mind",
        f"The capacitor is rated {rated:g} V and the crest reaches {show(crest, VOLT)}.{taken}",
        show(crest, VOLT),
        show(rated / CAPACITOR_MARGIN, VOLT),
        f"It must stand 1.25 times the highest peak, {show(need, VOLT)}, with the lamp out: "
        f"√2 × {show(rms, VOLT)}. Capacitors burst.",
        remedies,
        "Take that capacitor out first." if rated < crest else "",
    )


@rule
def no_capacitor_high_enough(c: Context) -> Iterable[Finding]:
    """Past the highest rating there is."""
    s, p = c.solution, c.position
    if s is None or s.ac is None or not p.rectification.reservoir or capacitor_volts(crest_v(s)) is not None:
        return
    yield Finding(
        "no-capacitor-fits",
        "stop",
        f"No capacitor here stands a crest of {show(crest_v(s), VOLT)}.",
        show(crest_v(s), VOLT),
        "360 V",
        "At these volts it is mains work in all but name: leave the capacitor out.",
        _rectify("inverse_diode"),
    )


@rule
def sized_on_rms(c: Context) -> Iterable[Finding]:
    """A resistor worked out as if the RMS reading were DC."""
    s, p = c.solution, c.position
    if s is None or s.ac is None or p.rail.supply.waveform is not Waveform.SINE or p.resistor_ohm is None or p.follows:
        return
    vf = float(p.led.junction(p.led.vf_typ, p.celsius).volts(p.target.value))
    naive = (p.rail.usual.value - p.in_series * vf) / p.target.value
    exact = s.sizing.exact_ohm
    if naive <= 0 or exact is None or not p.rectification.reservoir:
        return
    if abs(s.sizing.total_ohm / naive - 1) > 0.12 or abs(exact / naive - 1) < 0.15:
        return
    yield Finding(
        "rms-for-peak",
        "mind",
        f"{show(s.sizing.total_ohm, OHM)} is what {show(p.rail.usual.value, VOLT)} of DC would take; the "
        f"capacitor stands at the peak, {show(p.rail.peaks[1], VOLT)}.",
        show(s.sizing.total_ohm, OHM),
        show(exact, OHM),
        "A meter reads a sine's RMS; a rectifier and capacitor charge to 1.414 times that, less the diodes.",
        (Remedy("follow-the-sum", f"Fit {show(s.sizing.preferred_ohm or exact, OHM)}", {"resistor_ohm": None}),),
    )


@rule
def bridge_on_the_frame(c: Context) -> Iterable[Finding]:
    """A bridge's negative that meets the frame of a grounded source."""
    p = c.position
    if not p.rail.supply.alternates or not p.rectification.folds or not p.on_frame:
        return
    known = p.rail.supply.grounded
    if known == "no":
        return
    crest = show(p.rail.peaks[2], VOLT)
    yield Finding(
        "bridge-on-frame",
        "stop" if known == "yes" else "mind",
        "One half-cycle is a short circuit: the source has a leg on the frame, and so has the bridge's negative."
        if known == "yes"
        else "The LED's negative meets the frame: if the source has a leg there too, one half-cycle is a short.",
        f"{crest} across one diode",
        "0 V: the DC side off the frame",
        "A bridge on a grounded source keeps its whole DC side off the frame. A module whose case is its "
        "negative counts as tied.",
        (
            rectify(without_bridge(p.rail.supply.waveform)),
            Remedy(
                "off-frame",
                "Keep the LED's negative off the frame",
                {"chassis_negative": False, **({"common": "none"} if p.common == "chassis" else {})},
            ),
        ),
        "Take the LED's negative off the frame first." if known == "yes" else "",
    )


@rule
def digital_track(c: Context) -> Iterable[Finding]:
    """Neither DC nor a sine."""
    p = c.position
    if p.rail.supply.waveform is not Waveform.SQUARE:
        return
    yield Finding(
        "digital-track",
        "note",
        f"Digital track: computed as flat pulses of ±{show(p.rail.usual.value, VOLT)}, not as a sine.",
        f"±{show(p.rail.usual.value, VOLT)}",
        "14 to 22 V is usual",
        "An AC range misreads these pulses; rectify, then read DC. Where a decoder feeds the lamp, dim it "
        "by the decoder's own settings: no solder at all.",
    )


@rule
def least_track_volts(c: Context) -> Iterable[Finding]:
    """The least track voltage that lights it."""
    s, p = c.solution, c.position
    if s is None or p.rail.supply.waveform is not Waveform.EITHER_WAY:
        return
    # The knee of each LED at a twentieth of the rated current, and 0.6 V a diode.
    diodes = p.rectification.diodes + p.series_diodes
    knee = float(p.led.junction(p.led.vf_typ, p.celsius).volts(p.led.rated_a / 20)) * p.in_series
    knee += 0.6 * diodes
    share = knee / p.rail.peaks[2]
    yield Finding(
        "least-track-volts",
        "note",
        f"It lights from about {show(knee, VOLT, 2)} on the track, {percent(share)} of full.",
        show(knee, VOLT, 2),
        show(p.rail.low.value, VOLT),
        "Below that the train runs dark, and standing it is dark anyway. "
        + (
            "A two-colour LED shows the direction."
            if not p.rectification.second_colour
            else "The colour shows the direction."
        ),
    )
