"""What a source gives at an instant, and where it has corners."""

import math

import numpy as np

from swapglow.core.engine.netlist import Dc, FullWave, Param, Pulse, Pwl, Sine, Wave


def at_instant(wave: Wave, seconds: float) -> Param:
    """The level at ``seconds``.

    Args:
        wave: the source's.
        seconds: the instant, s.

    Returns:
        V or A.
    """
    match wave:
        case Dc(level):
            return level
        case Sine() as s:
            phase = math.radians(s.phase_deg)
            if seconds <= s.delay:
                return s.offset + s.amplitude * math.sin(phase)
            after = seconds - s.delay
            decay = math.exp(-after * s.damping)
            return s.offset + s.amplitude * decay * math.sin(2 * math.pi * s.hertz * after + phase)
        case FullWave(amplitude, hertz):
            return amplitude * abs(math.sin(2 * math.pi * hertz * seconds))
        case Pulse() as p:
            return _pulse(p, seconds)
        case Pwl(points):
            return float(np.interp(seconds, [t for t, _ in points], [v for _, v in points]))


def _pulse(p: Pulse, seconds: float) -> Param:
    after = seconds - p.delay
    if after > 0 and math.isfinite(p.period):
        after %= p.period
    if after <= 0:
        return p.initial
    if after < p.rise:
        return p.initial + (p.pulsed - p.initial) * (after / p.rise)
    if after <= p.rise + p.width:
        return p.pulsed
    if after < p.rise + p.width + p.fall:
        return p.pulsed + (p.initial - p.pulsed) * ((after - p.rise - p.width) / p.fall)
    return p.initial


# Steps that a corner takes (its own, and those that grow again behind it), and a cycle of a sine to be a sine.
_STEPS_PER_CORNER = 6
_STEPS_PER_CYCLE = 12


def steps_needed(wave: Wave, stop: float) -> float:
    """Steps that a run needs at the least to follow a wave, counted before any is made.

    Args:
        wave: the source's.
        stop: end of the run, s.

    Returns:
        The count; infinite where it cannot be told apart from that.
    """
    match wave:
        case Sine() as s:
            return max(0.0, stop - s.delay) * s.hertz * _STEPS_PER_CYCLE
        case FullWave(_, hertz):
            return stop * 2 * hertz * _STEPS_PER_CORNER
        case Pwl(points):
            return len(points) * _STEPS_PER_CORNER
        case Pulse() as p:
            turns = max(0.0, stop - p.delay) / p.period if math.isfinite(p.period) else 1.0
            return (turns + 1) * 4 * _STEPS_PER_CORNER
    return 0.0


def corners(wave: Wave, start: float, stop: float) -> list[float]:
    """Instants in (start, stop) at which the wave has a corner: a step must end there.

    Args:
        wave: the source's.
        start, stop: the span, s.

    Returns:
        Instants, s, ascending.
    """
    found: list[float] = []
    match wave:
        case Sine() as s if s.delay > 0:
            found = [s.delay]
        case FullWave(_, hertz):
            half = 0.5 / hertz
            turns = range(math.ceil(start / half), min(math.ceil(stop / half), 100_000))
            found = [k * half for k in turns]
        case Pwl(points):
            found = [t for t, _ in points]
        case Pulse() as p:
            edges = (0.0, p.rise, p.rise + p.width, p.rise + p.width + p.fall)
            turn = 0
            # A pulse train is cut off at a count no run can need.
            while turn < 100_000:
                begin = p.delay + (turn * p.period if turn else 0.0)
                if begin >= stop:
                    break
                found += [begin + e for e in edges if math.isfinite(e)]
                turn += 1
                if not math.isfinite(p.period):
                    break
        case _:
            pass
    return sorted({t for t in found if start < t < stop})
