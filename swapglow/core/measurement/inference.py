"""What the readings before the swap say together, shown as inference and never as measured."""

from collections.abc import Iterable
from dataclasses import dataclass, field

from swapglow.core.measurement.reading_before import ReadingBefore
from swapglow.core.parts.lamp import Lamp
from swapglow.core.quantities import AMPERE, OHM, VOLT, percent, show
from swapglow.core.supplies import SUPPLIES, sagging_kind
from swapglow.core.supplies.kind import FRAME_POLE, SupplyKind
from swapglow.core.supplies.supply import source_resistance
from swapglow.core.supplies.waveform import Waveform

# Below this share of the other range a reading is what leaks through the meter's coupling.
NOTHING = 0.05
# Cold resistance of a filament is about a tenth of hot (common practice).
COLD_SHARE = 0.1
# A contact that keeps less than this share of the highest reading counts as dark.
LIT_SHARE = 0.3
SAG_UNREGULATED = 0.1
# A closed contact, transistor or Darlington keeps less than this (common practice: up to 1.1 V).
CLOSED_V = 1.2
# Under this a reading's sign is the meter's own doubt.
PLAIN_V = 0.1


@dataclass(frozen=True)
class Inference:
    """Something the readings before the swap say together, and never counted as measured.

    ``basis`` is the readings it rests on; ``sets`` the fields of the rail it would set, as texts:
    "kind", "usual", "open", "load", "frame_pole".
    """

    id: str
    statement: str
    basis: str
    sets: dict[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class Contradiction:
    """Readings that do not go together, with the likeliest explanation."""

    id: str
    message: str
    likeliest: str


@dataclass(frozen=True)
class TruthRow:
    """A switch state: volts at the lamp, whether it lights, whether the contact is closed."""

    state: str
    volts: str
    lit: bool
    closed: str


@dataclass(frozen=True)
class Truth:
    """The switch states side by side; ``line`` says plainly where the logic is inverted."""

    rows: tuple[TruthRow, ...]
    line: str


@dataclass(frozen=True)
class Known:
    """What else is known of the position.

    Attributes:
        lamp: the old lamp.
        feed_v: its nominal feed, V.
        kind: what the rail is taken for; an inference changes only what was never said to be special.
    """

    lamp: Lamp | None
    feed_v: float | None
    kind: SupplyKind = field(default_factory=lambda: SUPPLIES.usual)


class Readings:
    """The newest reading of each kind and place."""

    def __init__(self, taken: Iterable[ReadingBefore]) -> None:
        self.all = tuple(taken)

    def find(self, function: str, *, points: str = "lamp", lamp: str | None = None) -> ReadingBefore | None:
        """The newest that fits.

        Args:
            function: what the meter was on: "dc_volts".
            points: where it was held.
            lamp: "in" or "out"; None takes either.

        Returns:
            The reading; None where none fits.
        """
        fits = [
            t for t in self.all if t.function == function and t.points == points and (lamp is None or t.lamp == lamp)
        ]
        return fits[-1] if fits else None

    def volts_lit(self) -> ReadingBefore | None:
        """Volts across the lamp while it is in, on the range that shows the more."""
        found = [t for t in (self.find("dc_volts", lamp="in"), self.find("ac_volts", lamp="in")) if t]
        return max(found, key=lambda t: abs(t.value), default=None)


def wave_of(r: Readings) -> str:
    """ "dc", "sine", "half" or "full" (rectified), or "" where both ranges were not read."""
    for lamp in ("in", "out", None):
        dc, ac = r.find("dc_volts", lamp=lamp), r.find("ac_volts", lamp=lamp)
        if dc is None or ac is None:
            continue
        d, a = abs(dc.value), ac.value
        if a <= NOTHING * d:
            return "dc"
        if d <= NOTHING * a:
            return "sine"
        # DC mean of a half-wave 0.318 of the crest, of a full wave 0.637; what alternates on it is
        # 0.386 and 0.308 of the crest (textbook): 1.21 and 0.483 times the mean.
        return "half" if a / d > 0.8 else "full"
    return ""


def infer(taken: Iterable[ReadingBefore], known: Known) -> tuple[Inference, ...]:
    """All that the readings say together.

    Args:
        taken: the readings before the swap, oldest first.
        known: what is known of rail, driver and lamp.

    Returns:
        Statements, each with what it rests on and what it would set.
    """
    r = Readings(taken)
    return (
        *_wave(r, known),
        *_polarity(r),
        *_frame(r, known),
        *_source(r, known),
        *_shared(r, known),
        *_filament(r, known),
    )


def _wave(r: Readings, known: Known) -> Iterable[Inference]:
    wave = wave_of(r)
    words = {
        "dc": ("DC, steady.", {}),
        "sine": ("AC: next to nothing on the DC range.", {"kind": sagging_kind(Waveform.SINE).id}),
        "half": ("Half-wave rectified: it shows on both ranges, more on AC.", {}),
        "full": ("Rectified and not smoothed, or DC with ripple: it shows on both ranges.", {}),
    }
    if wave:
        statement, sets = words[wave]
        sets = sets if known.kind.may_be_other else {}
        yield Inference("wave", statement, "DC and AC volts at the lamp's contacts", sets)


def _polarity(r: Readings) -> Iterable[Inference]:
    at_lamp = [t for t in r.all if t.function == "dc_volts" and t.points == "lamp"]
    dc = max(at_lamp, key=lambda t: abs(t.value), default=None)
    if dc is None or wave_of(r) == "sine" or abs(dc.value) < PLAIN_V:
        return
    side = "the red lead's side is positive" if dc.value > 0 else "the red lead's side is negative"
    yield Inference("polarity", f"Polarity: {side}.", dc.text)


def _frame(r: Readings, known: Known) -> Iterable[Inference]:
    """The sign of a lamp's contact against the frame: which pole stands there, where one may."""
    found = r.find("dc_volts", points="frame")
    if found is None or abs(found.value) < PLAIN_V or not known.kind.asks_pole:
        return
    pole = "minus" if found.value > 0 else "plus"
    yield Inference(
        "frame-pole",
        f"{pole.capitalize()} is on the frame: black lead there, the contact reads {show(found.value, VOLT)}.",
        found.text,
        {FRAME_POLE.id: pole},
    )


def _pair(r: Readings) -> tuple[ReadingBefore, ReadingBefore] | None:
    """Open and loaded volts at the lamp, of one function."""
    for function in ("dc_volts", "ac_volts"):
        out, in_ = r.find(function, lamp="out"), r.find(function, lamp="in")
        if out is not None and in_ is not None and abs(out.value) > 0:
            return out, in_
    return None


def lamp_current(r: Readings, known: Known) -> tuple[float, str] | None:
    """The old lamp's current: read, or by its rating at the volts it had.

    Args:
        r: the readings.
        known: what is known of rail, driver and lamp.

    Returns:
        A, and where it is from; None where nothing says.
    """
    for function in ("dc_amps", "ac_amps"):
        found = r.find(function, lamp="in")
        if found is not None and found.value:
            return abs(found.value), found.text
    pair = _pair(r)
    if pair is not None and known.lamp is not None:
        return known.lamp.amps_at(abs(pair[1].value)), "the old lamp's rating, I ∝ V^0.55"
    return None


def _source(r: Readings, known: Known) -> Iterable[Inference]:
    pair = _pair(r)
    if pair is None:
        return
    out, in_ = abs(pair[0].value), abs(pair[1].value)
    if in_ > out or in_ == 0:
        return
    sag = 1 - in_ / out
    # Only a plain rail, or one that already sags, takes an open reading.
    kind = sagging_kind(Waveform.SINE if pair[0].function == "ac_volts" else Waveform.DC)
    sets = {"kind": kind.id, "usual": show(in_, VOLT, 4), "open": show(out, VOLT, 4)}
    if not known.kind.may_be_renamed:
        sets = {}
    if sag >= SAG_UNREGULATED:
        yield Inference(
            "sags", f"Unregulated: it sags {percent(sag)} from open to loaded.", f"{pair[0].text}; {pair[1].text}", sets
        )
    amps = lamp_current(r, known)
    if amps is not None and amps[0] > 0 and sag > 0.005:
        ohms = source_resistance(out, in_, amps[0])
        yield Inference(
            "source-resistance",
            f"Source resistance {show(ohms, OHM)}: ({show(out, VOLT)} − {show(in_, VOLT)}) ÷ {show(amps[0], AMPERE)}.",
            f"open and loaded volts; {amps[1]}",
            {**sets, "load": show(amps[0], AMPERE, 4)} if sets else {},
        )


def _shared(r: Readings, known: Known) -> Iterable[Inference]:
    """Lamps in series or in parallel, from their volts and rating."""
    in_ = r.volts_lit()
    feed = r.find(in_.function, points="feed") if in_ is not None else None
    if in_ is None or in_.value == 0:
        return
    at_lamp = abs(in_.value)
    whole = abs(feed.value) if feed is not None else known.feed_v
    if whole is None:
        return
    share = whole / at_lamp
    count = round(share)
    if count >= 2 and abs(share / count - 1) < 0.12:
        rated = ""
        if known.lamp is not None and abs(known.lamp.volts * count / whole - 1) < 0.25:
            rated = f" Its rating of {known.lamp.volts:g} V fits: {count} × {known.lamp.volts:g} V."
        yield Inference(
            "in-series",
            f"{count} lamps in series: each has a share of {show(at_lamp, VOLT)} of {show(whole, VOLT)}.{rated}",
            f"{in_.text}; the feed",
        )
    elif abs(share - 1) < 0.08:
        yield Inference(
            "in-parallel",
            "Alone on the feed, or in parallel with others: it has the whole of it.",
            f"{in_.text}; the feed",
        )


def _filament(r: Readings, known: Known) -> Iterable[Inference]:
    holder = r.find("ohms", points="lamp", lamp="out")
    cold = r.find("ohms", points="hand") or r.find("ohms", points="lamp", lamp="in")
    lamp = known.lamp
    across = r.find("ohms", points="lamp")
    if across is not None and across.value >= 1e8 and known.kind.reads_line:
        yield Inference(
            "contact-open", "Open across the line: its contact is open, as a line's is at rest.", across.text
        )
        return
    if holder is not None:
        yield _holder(holder)
    if cold is not None and cold.value >= 1e8:
        yield Inference("filament-open", "The old lamp is open: its filament is gone.", cold.text)
        return
    if cold is not None and cold.value > 0:
        hot = cold.value / COLD_SHARE
        volts = lamp.volts if lamp else known.feed_v
        tail = f" About {show(volts / hot, AMPERE, 2)} at {show(volts, VOLT)}." if volts else ""
        yield Inference(
            "filament-cold",
            f"Cold {show(cold.value, OHM)}, so hot about {show(hot, OHM, 2)}.{tail}",
            f"{cold.text}; cold is about a tenth of hot",
        )
    elif lamp is not None:
        hot = lamp.volts / lamp.amps
        yield Inference(
            "filament-hot",
            f"By its rating the old lamp is {show(hot, OHM)} hot and about {show(hot * COLD_SHARE, OHM, 2)} cold.",
            "the rating; cold is about a tenth of hot",
        )


def _holder(r: ReadingBefore) -> Inference:
    """The empty holder is no lamp: what is read there is what feeds it."""
    if r.value >= 1e8:
        return Inference("holder-open", "The empty holder is open: nothing leads past the lamp, power off.", r.text)
    said = f"The empty holder reads {show(r.value, OHM)}: a winding, other lamps, or what leads past it."
    return Inference("holder-ohms", f"{said} It is no filament; for the lamp's own ohms read it in the hand.", r.text)


def contradictions(taken: Iterable[ReadingBefore], known: Known) -> tuple[Contradiction, ...]:
    """Readings that do not go together.

    Args:
        taken: the readings before the swap, oldest first.
        known: what is known of rail, driver and lamp.

    Returns:
        Each with what is likeliest wrong.
    """
    r = Readings(taken)
    return tuple(_contradictions(r, known))


def _contradictions(r: Readings, known: Known) -> Iterable[Contradiction]:
    for function in ("dc_volts", "ac_volts"):
        out, in_ = r.find(function, lamp="out"), r.find(function, lamp="in")
        if out is None or in_ is None:
            continue
        o, i = abs(out.value), abs(in_.value)
        if i > o * 1.02 and i > 0.05:
            yield Contradiction(
                "loaded-over-open",
                f"{show(i, VOLT)} with the lamp in is over {show(o, VOLT)} with it out.",
                "The two are exchanged, or the rail moved between them: read both within a minute.",
            )
        elif o > PLAIN_V and i < LIT_SHARE * o:
            yield Contradiction(
                "lamp-starved",
                f"The lamp in pulls {show(o, VOLT)} down to {show(i, VOLT)}.",
                "A bad ground or joint in the loop, or this is a sense line and not a feed.",
            )
    dc, ac = r.find("dc_volts", lamp="in"), r.find("ac_volts", lamp="in")
    if dc is not None and ac is None and abs(dc.value) < 0.05 and known.feed_v and known.feed_v > 1:
        yield Contradiction(
            "nothing-on-dc",
            f"{show(abs(dc.value), VOLT)} of DC where {show(known.feed_v, VOLT)} is expected.",
            "AC read on a DC range shows nothing: read the same points on AC volts. Else the switch is off.",
        )
    amps = r.find("dc_amps", lamp="in") or r.find("ac_amps", lamp="in")
    volts = r.volts_lit()
    if amps is not None and volts is not None and abs(volts.value) > 0.5 and abs(amps.value) < 1e-5:
        yield Contradiction(
            "volts-but-no-amps",
            f"{show(abs(volts.value), VOLT)} across the lamp, but no current through it.",
            "The lamp is out or blown, the meter's fuse has gone, or the leads sit in the volts socket.",
        )
    signs = {t.value > 0 for t in r.all if t.function == "dc_volts" and t.points == "lamp" and abs(t.value) > PLAIN_V}
    if len(signs) > 1 and not known.kind.waveform.alternates:
        yield Contradiction(
            "sign-changes",
            "DC volts at the lamp were read with both signs.",
            "The leads were turned between readings, another ground was used, or the supply reverses.",
        )
    if known.lamp is not None and volts is not None and amps is not None and abs(volts.value) > 0.5:
        expected = known.lamp.amps_at(abs(volts.value))
        ratio = abs(amps.value) / expected
        if ratio > 1e-3 and not 0.6 < ratio < 1.7:
            count = round(ratio)
            several = count >= 2 and abs(ratio / count - 1) < 0.15
            yield Contradiction(
                "not-this-lamp",
                f"{show(abs(amps.value), AMPERE)} where this lamp takes "
                f"{show(expected, AMPERE)} at {show(abs(volts.value), VOLT)}.",
                f"{count} such lamps are in parallel here."
                if several
                else "It is another lamp than the one marked, or something else shares the feed.",
            )


# Words for a switch that should leave a lamp dark.
_OFF_WORDS = ("off", "out", "open", "released", "rest", "idle", "0")


def truth(taken: Iterable[ReadingBefore], *, across_contact: bool) -> Truth | None:
    """The table of switch states, where two or more were read; None otherwise.

    Args:
        taken: the readings; those with a state count.
        across_contact: the lamp stands across the contact, as on a sense line, and lights while it
            is open; else the contact feeds it.

    Returns:
        A row a state, and what they say together.
    """
    readings = tuple(taken)
    by_state: dict[str, ReadingBefore] = {}
    for t in readings:
        if t.state and t.points == "lamp" and t.function in ("dc_volts", "ac_volts"):
            kept = by_state.get(t.state)
            # With the lamp in, the reading is that of the lamp; it counts before one without.
            if kept is None or t.lamp == "in" or kept.lamp == "out":
                by_state[t.state] = t
    if len(by_state) < 2:
        return None
    most = max(abs(t.value) for t in by_state.values())
    rows = tuple(
        TruthRow(state, show(t.value, VOLT), lit, _contact(readings, state, lit != across_contact))
        for state, t in by_state.items()
        for lit in (most > 0 and abs(t.value) >= LIT_SHARE * most,)
    )
    inverted = any(row.lit and row.state.lower() in _OFF_WORDS for row in rows)
    dark = [row.state for row in rows if not row.lit]
    line = f"Volts at the lamp in {_list([r.state for r in rows if r.lit])}, none in {_list(dark)}."
    if inverted:
        line += " The logic is inverted: the state named off is the one with volts."
    return Truth(rows, line)


def _contact(readings: tuple[ReadingBefore, ...], state: str, inferred_closed: bool) -> str:
    across = [t for t in readings if t.state == state and t.points == "driver" and t.unit is VOLT]
    if across:
        return "closed" if abs(across[-1].value) < CLOSED_V else "open"
    return "closed, inferred" if inferred_closed else "open, inferred"


def _list(names: list[str]) -> str:
    return " and ".join(f'"{n}"' for n in names) if names else "no state"
