"""Banks of LED chips on one rail: one resistor each or one a bank, a resistor in the wire they share."""

import math
import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np

from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import Circuit, Dc, Diode, DiodeModel, Element, Resistor, VoltageSource
from swapglow.core.engine.operating_point import operating_point
from swapglow.core.engine.spice import write_deck
from swapglow.core.fitted.afterwards import AFTER, against, flowing
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.light import as_seen
from swapglow.core.fitted.marks import one_resistor
from swapglow.core.fitted.worked import (
    BranchStair,
    BranchStep,
    Fault,
    Figure,
    Judged,
    PartRule,
    RulePoint,
    Way,
    Worked,
    picked,
)
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.parts.resistor import check_resistor, rating_to_fit
from swapglow.core.photometry.light_law import light_ratio, relative_light
from swapglow.core.photometry.words import eye_text
from swapglow.core.quantities import AMPERE, OHM, VOLT, InputError, Shown, Source, number_text, show, shown
from swapglow.core.quantities.inputs import read_share
from swapglow.core.values import preferred

RAIL = Detail("rail", "Rail of the banks", VOLT, "5V, read at the board with all lit")
BANKS = Detail(
    "banks",
    "Banks",
    None,
    "One a line: keys: 8 white × 330R, with one each; or 8 white on mark 470, one for all",
    (),
    True,
)
COMMON = Detail(
    "common",
    "Resistor they share already",
    OHM,
    "In the wire all of them use; empty where there is none",
    none="absent",
)
WANTED = Detail("wanted", "Of the light there is now", None, "25 % is a quarter. Empty takes half")
BANK = Detail("bank", "Which bank", None, "Its name; empty for all of them")
REVISION = Detail("revision", "Board revision", None, "As printed on it: boards of one model differ")
SIZE = Detail("size", "Its resistors", None, "", (
    ("large", "Can be changed"), ("small", "Too small to change"),
))  # fmt: skip

_LINE = re.compile(
    r"^(?:(?P<name>[^:]{1,40}):)?\s*(?P<count>\d{1,3})\s*(?P<colour>[A-Za-z][A-Za-z -]*?)\s*"
    r"(?P<how>[x×*]|\bon\b|\bbehind\b)\s*(?P<ohm>\S.*)$"
)
EXAMPLE = "keys: 8 white × 330R, or keys: 8 white on 47R"
_MOST_BANKS, _MOST_LEDS = 12, 200
_NOTHING = "Nothing can be done to this bank alone: make its resistors changeable, or mean all banks."
_TOO_SMALL = "Its resistors are too small to change: a part in the shared wire is the way."


@dataclass(frozen=True)
class Bank:
    """LEDs of one colour.

    Attributes:
        name: what it is called.
        count: LEDs side by side.
        led: their kind.
        each: whether each has its resistor; else one is before all of them.
        ohm: that resistor.
    """

    name: str
    count: int
    led: Led
    each: bool
    ohm: float

    @property
    def together(self) -> float:
        """The bank's resistors as one: equal branches carry equal currents."""
        return self.ohm / self.count if self.each else self.ohm


class ChipBank(FittedKind):
    """Chips behind keys, a display or a panel."""

    id = "chip_bank"
    order = 3
    label = "Banks of LED chips"
    looks = (
        "LED chips of one or several colours, each with a small resistor beside it, or one resistor before a whole "
        "bank. The mark on a resistor is its value: 331 is 330 ohm, 47R0 is 47, 01A is 100."
    )
    never = (
        "Supply off and unplugged while parts are changed; look for a battery of its own. Follow the revision "
        "printed on the board: another one has other resistors."
    )
    details = (RAIL, BANKS, COMMON, WANTED, BANK, SIZE, REVISION, AFTER)

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """What each bank carries, and what a change of resistors makes of each."""
        rail = typed.value(RAIL.id)
        if rail is None:
            raise InputError(RAIL.id, "Type the volts that feed the banks, read with all of them lit.")
        banks, common = read_banks(typed.text(BANKS.id)), typed.value(COMMON.id) or 0.0
        wanted = read_share(WANTED.id, typed.text(WANTED.id), 0.5)
        if not 0.005 <= wanted < 1:
            raise InputError(WANTED.id, "Between half a per cent and 99 % of the light there is now.")
        meant = _meant(typed, banks)
        now = solve(rail, banks, common)
        ways = _ways(typed, rail, banks, common, now, meant, wanted, chosen)
        way = picked(tuple(w for w, _ in ways), chosen)
        best = next((w for w in ways if w[0] is way), None)
        after = now if best is None else best[1]
        return Worked(
            line=_NOTHING if best is None else f"{best[0].label}: {best[0].light}",
            figures=_figures(typed, banks, now, after),
            stairs=_stairs(rail, banks, common, now, after),
            ways=tuple(w for w, _ in ways),
            rules=_rules(rail, banks, common, now) if typed.choice(SIZE.id) != "small" else (),
            faults=_faults(rail, banks, common, now),
            judged=(*against(typed, _all(banks, after), _all(banks, now)), *_judged(banks, now, typed)),
            spice=write_deck(circuit(rail, banks, common)),
        )


KIND = ChipBank()


def read_banks(text: str) -> tuple[Bank, ...]:
    """Banks, one a line.

    Args:
        text: as typed.

    Returns:
        The banks in their order.

    Raises:
        InputError: ``banks``: a line says nothing that can be reckoned with.
    """
    lines = [line.strip() for line in text.splitlines() if line.strip()]
    if not lines:
        raise InputError(BANKS.id, f"Type the banks, one a line, like {EXAMPLE}.")
    if len(lines) > _MOST_BANKS:
        raise InputError(BANKS.id, f"{len(lines)} banks are more than the {_MOST_BANKS} taken here.")
    out = []
    for n, line in enumerate(lines, 1):
        found = _LINE.match(line)
        if found is None:
            raise InputError(BANKS.id, f'"{line}" says nothing to reckon with. Write like {EXAMPLE}.')
        colour = found["colour"].lower().removesuffix(" leds").removesuffix(" led").strip()
        led = next((k for k in reversed(catalogue().values()) if k.colour == colour), None)
        if led is None:
            known = ", ".join(dict.fromkeys(k.colour for k in catalogue().values()))
            raise InputError(BANKS.id, f'"{line}": there is no LED "{colour}" here; there are {known}.')
        count = int(found["count"])
        if not 1 <= count <= _MOST_LEDS:
            raise InputError(BANKS.id, f'"{line}": a bank has 1 to {_MOST_LEDS} LEDs.')
        ohm = one_resistor(BANKS.id, found["ohm"])
        check_resistor(BANKS.id, ohm)
        name = (found["name"] or f"bank {n}").strip()
        out.append(Bank(name, count, led, found["how"] in "x×*", ohm))
    return tuple(out)


def circuit(rail: float, banks: tuple[Bank, ...], common: float) -> Circuit:
    """The banks as branches behind what they share; equal LEDs side by side as one.

    Args:
        rail: V.
        banks: the banks.
        common: Ω that all of them share; 0 for none.

    Returns:
        The circuit.
    """
    parts: list[Element] = [VoltageSource("Vrail", "feed", "0", Dc(rail))]
    node = "feed"
    if common > 0:
        parts.append(Resistor("Rcommon", node, "together", common))
        node = "together"
    for k, b in enumerate(banks, 1):
        junction = b.led.junction(b.led.vf_typ)
        model = DiodeModel(
            float(junction.i_s) * b.count, junction.n, junction.r_s / b.count, nominal_c=REFERENCE_C
        )
        parts += [Resistor(f"R{k}", node, f"bank{k}", b.together), Diode(f"D{k}", f"bank{k}", "0", model)]
    return Circuit(tuple(parts), celsius=REFERENCE_C, title="banks of chips")


def solve(rail: float, banks: tuple[Bank, ...], common: float) -> tuple[float, ...]:
    """Current of one LED of each bank, A (Kirchhoff, Shockley).

    Args:
        rail: V.
        banks: the banks.
        common: Ω that all of them share.

    Returns:
        A, in the banks' order.

    Raises:
        NotConverged: it has no answer.
    """
    point = operating_point(circuit(rail, banks, common)).require()
    return tuple(max(float(point.current(f"D{k}")[0]), 0.0) / b.count for k, b in enumerate(banks, 1))


def _nearest(values: Sequence[float], off: Callable[[float], float]) -> float:
    """Of rising values the one at which what falls with them is nearest to nothing, by halving."""
    low, high = 0, len(values) - 1
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if off(values[middle]) > 0 else (low, middle)
    return min(values[low : high + 1], key=lambda v: abs(off(v)))


def _meant(typed: Details, banks: tuple[Bank, ...]) -> tuple[int, ...]:
    name = typed.text(BANK.id).casefold()
    if not name:
        return tuple(range(len(banks)))
    found = tuple(k for k, b in enumerate(banks) if b.name.casefold() == name)
    if not found:
        raise InputError(
            BANK.id, f'No bank is called "{typed.text(BANK.id)}": {", ".join(b.name for b in banks)}.'
        )
    return found


_Tried = tuple[Way, tuple[float, ...]]


def _ways(typed: Details, rail: float, banks: tuple[Bank, ...], common: float, now: tuple[float, ...],
          meant: tuple[int, ...], wanted: float, chosen: str) -> list[_Tried]:  # fmt: skip
    """Raise the resistors meant, or add one in the wire all share, to the light wanted of the first of them."""
    small = typed.choice(SIZE.id) == "small"
    names = "all banks" if len(meant) == len(banks) else banks[meant[0]].name

    def raised(factor: float) -> tuple[Bank, ...]:
        return tuple(
            replace(b, ohm=preferred.prefer(b.ohm * factor, "E24", "nearest")) if k in meant else b
            for k, b in enumerate(banks)
        )

    def off(amps: tuple[float, ...]) -> float:
        return math.log(max(_light(banks, now, amps, meant), 1e-12) / wanted)

    factors = np.geomspace(1.05, 2000.0, 90).tolist()
    changed = raised(_nearest(factors, lambda f: off(solve(rail, raised(f), common))))
    listed = "; ".join(f"{b.name}: {show(b.ohm, OHM)}" for k, b in enumerate(changed) if k in meant)
    out = [_tried(
        f"Raise the resistors of {names}", listed,
        banks, now, solve(rail, changed, common), meant, {BANKS.id: as_typed(changed)},
        _TOO_SMALL if small else "",
    )]  # fmt: skip
    if len(meant) == len(banks):
        span = rail / max(sum(a * b.count for a, b in zip(now, banks, strict=True)), 1e-9)
        values = preferred.values("E24", max(span / 1000, 0.1), span * 2000).tolist()
        added = _nearest(values, lambda v: off(solve(rail, banks, common + v)))
        amps = solve(rail, banks, common + added)
        total = sum(a * b.count for a, b in zip(amps, banks, strict=True))
        fit = rating_to_fit(total**2 * added, total * added)
        part = f"{show(added, OHM)}, {fit:g} W or more" if fit is not None else show(added, OHM)
        out.append(_tried(
            "Add one resistor in the shared wire", f"{part}, in series at the connector", banks, now, amps, meant,
            {COMMON.id: show(common + added, OHM, 4)}, "",
        ))  # fmt: skip
    if len(banks) > 1:
        equal = _balanced(rail, banks, common)
        out.append(_tried(
            "Make the banks look equal", "; ".join(f"{b.name}: {show(b.ohm, OHM)}" for b in equal), banks, now,
            solve(rail, equal, common), tuple(range(len(banks))), {BANKS.id: as_typed(equal)},
            _TOO_SMALL if small else "", equal=True,
        ))  # fmt: skip
    for k, b in enumerate(banks):
        # One that was picked on the rule stands among the ways.
        for ohm in _larger(b)[1:]:
            if _named(ohm, b) == chosen:
                picked_ = (*banks[:k], replace(b, ohm=ohm), *banks[k + 1 :])
                out.append(_tried(chosen, "one bank changed", banks, now, solve(rail, picked_, common), (k,),
                                  {BANKS.id: as_typed(picked_)}, _TOO_SMALL if small else ""))  # fmt: skip
    # What can be taken out again comes first where it does what is wanted (both schools; ours), or where it is all
    # there is.
    ranked = sorted(out, key=lambda o: (bool(o[0].bars), "common" not in o[0].changes))
    return [(replace(w, advised=n == 0 and not w.bars), amps) for n, (w, amps) in enumerate(ranked)]


def _larger(bank: Bank) -> list[float]:
    """Values its resistors may have, from their own upwards."""
    return [bank.ohm, *preferred.values("E12", bank.ohm * 1.05, bank.ohm * 100).tolist()]


def _named(ohm: float, bank: Bank) -> str:
    return f"{show(ohm, OHM)} for {bank.name}"


def _rules(
    rail: float, banks: tuple[Bank, ...], common: float, now: tuple[float, ...]
) -> tuple[PartRule, ...]:
    """Of each bank, what every larger value of its resistors makes of it, all banks solved together."""
    out = []
    for k, b in enumerate(banks):
        points = []
        for ohm in _larger(b):
            then = solve(rail, (*banks[:k], replace(b, ohm=ohm), *banks[k + 1 :]), common)
            light = float(light_ratio(b.led, then[k], now[k]))
            share = Shown(
                light,
                number_text(light * 100, 3),
                "%",
                Source.COMPUTED,
                f"light of {b.name} with {show(ohm, OHM)}",
            )
            words = as_seen(b.led, now[k], then[k]) if ohm != b.ohm else "As it is."
            points.append(RulePoint(show(ohm, OHM), share, words, "", _named(ohm, b)))
        out.append(PartRule(b.name, tuple(points), 0))
    return tuple(out)


def shines(banks: tuple[Bank, ...], amps: tuple[float, ...]) -> list[float]:
    """Light of one LED of each bank, cd.

    Args:
        banks: the banks.
        amps: current of one LED of each, A.

    Returns:
        Candela, in the banks' order.
    """
    return [
        float(relative_light(b.led, np.array([a]))[0]) * b.led.candela
        for b, a in zip(banks, amps, strict=True)
    ]


def _balanced(rail: float, banks: tuple[Bank, ...], common: float) -> tuple[Bank, ...]:
    """The brighter banks' resistors raised until an LED of each shines as one of the dimmest."""
    found, aim = list(banks), min(shines(banks, solve(rail, banks, common)))
    for _ in range(3):
        for k, b in enumerate(banks):
            values = [b.ohm, *preferred.values("E24", b.ohm * 1.001, b.ohm * 3000).tolist()]

            def off(ohm: float, k: int = k, b: Bank = b) -> float:
                tried = (*found[:k], replace(b, ohm=ohm), *found[k + 1 :])
                return math.log(max(shines(tried, solve(rail, tried, common))[k], 1e-15) / aim)

            found[k] = replace(b, ohm=_nearest(values, off))
    return tuple(found)


def as_typed(banks: tuple[Bank, ...]) -> str:
    """Banks as they are typed again, one a line."""
    return "\n".join(
        f"{b.name}: {b.count} {b.led.colour} {'×' if b.each else 'on'} {show(b.ohm, OHM, 4)}" for b in banks
    )


def _light(
    banks: tuple[Bank, ...], now: tuple[float, ...], then: tuple[float, ...], meant: tuple[int, ...]
) -> float:
    """Light of the banks meant beside now, the mean of their ratios by octaves."""
    logs = [math.log(max(float(light_ratio(banks[k].led, then[k], now[k])), 1e-12)) for k in meant]
    return math.exp(sum(logs) / len(logs))


def _tried(label: str, what: str, banks: tuple[Bank, ...], now: tuple[float, ...], then: tuple[float, ...],
           meant: tuple[int, ...], changes: dict[str, str], bars: str, *, equal: bool = False) -> _Tried:  # fmt: skip
    light = _light(banks, now, then, meant)
    share = Shown(
        light, number_text(light * 100, 3), "%", Source.COMPUTED, "light of the banks meant beside now"
    )
    seen = as_seen(banks[meant[0]].led, now[meant[0]], then[meant[0]])
    apart = [float(light_ratio(b.led, c, a)) for b, a, c in zip(banks, now, then, strict=True)]
    spread = max(apart) / max(min(apart), 1e-12)
    if equal:
        lit = shines(banks, then)
        seen = (
            f"All within {eye_text(max(lit) / max(min(lit), 1e-15))} × of each other, an LED beside an LED."
        )
    elif len(banks) > 1 and spread > 1.2:
        seen += f" The banks shift beside each other by up to {eye_text(spread)} ×."
    return Way(label, what, share, seen, bars, False, changes), then


def _all(banks: tuple[Bank, ...], amps: tuple[float, ...]) -> float:
    """What all banks draw together, A."""
    return sum(a * b.count for a, b in zip(amps, banks, strict=True))


def _figures(typed: Details, banks: tuple[Bank, ...], now: tuple[float, ...],
             after: tuple[float, ...]) -> tuple[Figure, ...]:  # fmt: skip
    origin = "all banks together"
    before = _all(banks, now)
    left = flowing(typed, before, _all(banks, after), origin)
    return (Figure("All banks", shown(before, AMPERE, origin), left),)


def _stairs(rail: float, banks: tuple[Bank, ...], common: float, now: tuple[float, ...],
            after: tuple[float, ...]) -> tuple[BranchStair, ...]:  # fmt: skip
    shared = common * sum(a * b.count for a, b in zip(now, banks, strict=True))
    lights = [
        float(relative_light(b.led, np.array([a]))[0]) * b.led.candela
        for b, a in zip(banks, now, strict=True)
    ]
    brightest = max(max(lights), 1e-15)
    out = []
    for b, amps, then, light in zip(banks, now, after, lights, strict=True):
        own = amps * (b.ohm if b.each else b.ohm * b.count)
        steps = (("common", shared), ("resistor", own), ("LED", rail - shared - own))
        beside = (
            "the brightest"
            if light >= brightest * 0.999
            else f"{eye_text(light / brightest)} × the brightest bank"
        )
        out.append(BranchStair(
            f"{b.name}: {b.count} {b.led.colour}", tuple(BranchStep(n, v) for n, v in steps if n != "common" or common),
            shown(amps, AMPERE, f"one of {b.count}, behind {show(b.ohm, OHM)} {'each' if b.each else 'for all'}"),
            None if math.isclose(then, amps, rel_tol=1e-6) else shown(then, AMPERE, "after what is advised"), beside,
        ))  # fmt: skip
    return tuple(out)


def _faults(rail: float, banks: tuple[Bank, ...], common: float, now: tuple[float, ...]) -> tuple[Fault, ...]:
    out = []
    for k, b in enumerate(banks):
        if b.count < 2 or (b.each and not common):
            continue
        fewer = tuple(replace(c, count=c.count - 1) if n == k else c for n, c in enumerate(banks))
        amps = solve(rail, fewer, common)
        more = (amps[k] / now[k] - 1) * 100 if now[k] > 0 else 0.0
        out.append(
            Fault(
                f"One LED of {b.name} open",
                f"The others of it carry {show(amps[k], AMPERE)}, {more:.0f} % more.",
            )
        )
    if not out:
        out.append(
            Fault("One LED open", "It alone is dark: each has its own resistor, and nothing is shared.")
        )
    return tuple(out)


def _judged(banks: tuple[Bank, ...], now: tuple[float, ...], typed: Details) -> tuple[Judged, ...]:
    out = []
    for b, amps in zip(banks, now, strict=True):
        if amps > b.led.rated_a:
            out.append(Judged("stop", f"{b.name}: {show(amps, AMPERE)} in each, over the {show(b.led.rated_a, AMPERE)} "
                              "such LEDs are rated for.", "It fades and dies; less is wanted whatever the "
                                                          "looks."))  # fmt: skip
        if not b.each and b.count > 1:
            out.append(Judged("mind", f"{b.name}: {b.count} LEDs share one resistor, and share its current by their "
                                      f"luck.",
                              "One of 0.1 V less takes up to half as much again: uneven light there is no fault of "
                              "yours."))  # fmt: skip
    if not typed.text(REVISION.id):
        out.append(
            Judged(
                "note",
                "The board's revision is not written down.",
                "The next one who opens it needs to know.",
            )
        )
    order = {"stop": 0, "mind": 1, "note": 2}
    return tuple(sorted(out, key=lambda j: order[j.grade]))
