"""Banks of LED chips on one rail: one resistor each or one a bank, a resistor in the wire they share."""

import math
import re
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import BranchStair, CircuitResult, Fault, Figure, Option, PartRule, RulePoint
from swapglow.core.circuits.toolkit import values
from swapglow.core.circuits.toolkit.light import as_seen
from swapglow.core.circuits.toolkit.marks import one_resistor
from swapglow.core.circuits.toolkit.read_after import AFTER, against, flowing
from swapglow.core.circuits.toolkit.solved import States, solve_states
from swapglow.core.circuits.toolkit.stairs import stair
from swapglow.core.circuits.toolkit.wiring import Wiring
from swapglow.core.findings.finding import Finding
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
SIZE = Detail("size", "Its resistors", None, "", (("large", "Can be changed"), ("small", "Too small to change")))

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


@dataclass(frozen=True)
class BankCase:
    """All banks.

    Attributes:
        rail: V.
        banks: the banks.
        common: Ω that all of them share; 0 for none.
        meant: places of the banks that are to be changed.
        wanted: share of their light that is wanted.
        fixed: whether their resistors are too small to change.
    """

    rail: float
    banks: tuple[Bank, ...]
    common: float
    meant: tuple[int, ...]
    wanted: float
    fixed: bool

    @property
    def amps(self) -> tuple[float, ...]:
        """Current of one LED of each bank, A (Kirchhoff, Shockley)."""
        found = solve(self)
        return tuple(max(float(found.amps(f"D{k}")[0]), 0.0) / b.count for k, b in enumerate(self.banks, 1))

    @property
    def total_a(self) -> float:
        """What all banks draw together, A."""
        return sum(a * b.count for a, b in zip(self.amps, self.banks, strict=True))

    @property
    def shines(self) -> list[float]:
        """Light of one LED of each bank, cd."""
        return [
            float(relative_light(b.led, np.array([a]))[0]) * b.led.candela
            for b, a in zip(self.banks, self.amps, strict=True)
        ]

    def with_bank(self, k: int, *, ohm: float | None = None, count: int | None = None) -> "BankCase":
        """The same with another resistor, or another count, in one bank.

        Args:
            k: place of the bank.
            ohm: its resistor, Ω; None as it is.
            count: its LEDs; None as it is.

        Returns:
            The case.
        """
        bank = self.banks[k]
        changed = replace(bank, ohm=bank.ohm if ohm is None else ohm, count=bank.count if count is None else count)
        return replace(self, banks=(*self.banks[:k], changed, *self.banks[k + 1 :]))

    def light(self, other: "BankCase") -> float:
        """Light of the banks meant in another case beside this one, the mean of their ratios by octaves."""
        now, then = self.amps, other.amps
        logs = [math.log(max(float(light_ratio(self.banks[k].led, then[k], now[k])), 1e-12)) for k in self.meant]
        return math.exp(sum(logs) / len(logs))


@lru_cache(maxsize=512)
def solve(c: BankCase) -> States:
    """The banks as branches behind what they share; equal LEDs side by side as one."""
    w = Wiring("banks of chips")
    w.source("Vrail", "feed", c.rail)
    node = "feed"
    if c.common > 0:
        w.resistor("Rcommon", node, "together", c.common)
        node = "together"
    for k, b in enumerate(c.banks, 1):
        w.resistors(f"R{k}", node, f"bank{k}", b.ohm, b.count if b.each else 1)
        w.led(f"D{k}", f"bank{k}", "0", b.led, parallel=b.count, label=f"each LED of {b.name}", id_=b.name)
    return solve_states(w, "All lit")


class ChipBank(CircuitKind[BankCase]):
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
    parts = (
        ("Vrail", "rail", "rail"),
        ("Rcommon", "shared resistor", "common"),
        ("R", "resistors", "banks"),
        ("D", "", "banks"),
    )
    details = (RAIL, BANKS, COMMON, WANTED, BANK, SIZE, REVISION, AFTER)

    def case(self, typed: Details) -> BankCase:
        """The banks as typed."""
        rail = typed.value(RAIL.id)
        if rail is None:
            raise InputError(RAIL.id, "Type the volts that feed the banks, read with all of them lit.")
        banks, common = read_banks(typed.text(BANKS.id)), typed.value(COMMON.id) or 0.0
        wanted = read_share(WANTED.id, typed.text(WANTED.id), 0.5)
        if not 0.005 <= wanted < 1:
            raise InputError(WANTED.id, "Between half a per cent and 99 % of the light there is now.")
        return BankCase(rail, banks, common, _meant(typed, banks), wanted, typed.choice(SIZE.id) == "small")

    def states(self, case: BankCase) -> tuple[States, ...]:
        """All banks lit."""
        return (solve(case),)

    def options(self, now: BankCase, typed: Details, chosen: str) -> list[Option]:
        """Raise the resistors meant, add one in the wire all share, or make the banks look equal."""
        tried = list(_options(now, chosen))
        # What can be taken out again comes first where it does what is wanted (both schools; ours), or where it is
        # all there is.
        ranked = sorted(tried, key=lambda o: (bool(o.bars), o.id != "common"))
        return [replace(o, advised=n == 0) for n, o in enumerate(ranked)]

    def report(self, job: Job[BankCase]) -> CircuitResult:
        """What each bank carries, and what a change of resistors makes of each."""
        now, then, origin = job.now, job.then, "all banks together"
        left = flowing(job.typed, now.total_a, then.total_a, origin)
        return CircuitResult(
            line=_NOTHING if job.option is None else f"{job.option.label}: {job.option.light}",
            figures=(Figure("total", "All banks", shown(now.total_a, AMPERE, origin), left),),
            stairs=_stairs(now, then),
            rules=() if now.fixed else _rules(now),
            faults=_faults(now),
            findings=(*against(job.typed, then.total_a, now.total_a), *_findings(now, job.typed)),
            spice=solve(now).deck(),
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


def _meant(typed: Details, banks: tuple[Bank, ...]) -> tuple[int, ...]:
    name = typed.text(BANK.id).casefold()
    if not name:
        return tuple(range(len(banks)))
    found = tuple(k for k, b in enumerate(banks) if b.name.casefold() == name)
    if not found:
        raise InputError(BANK.id, f'No bank is called "{typed.text(BANK.id)}": {", ".join(b.name for b in banks)}.')
    return found


def _options(c: BankCase, chosen: str) -> Iterator[Option]:
    everything = len(c.meant) == len(c.banks)
    small = _TOO_SMALL if c.fixed else ""

    def off(other: BankCase) -> float:
        return math.log(max(c.light(other), 1e-12) / c.wanted)

    def raised(factor: float) -> BankCase:
        out = c
        for k in c.meant:
            out = out.with_bank(k, ohm=preferred.prefer(c.banks[k].ohm * factor, "E24", "nearest"))
        return out

    changed = raised(values.nearest(np.geomspace(1.05, 2000.0, 90).tolist(), lambda f: off(raised(f))))
    names = "all banks" if everything else c.banks[c.meant[0]].name
    yield _option(
        "raise",
        f"Raise the resistors of {names}",
        _listed(changed, c.meant),
        c,
        changed,
        {BANKS.id: as_typed(changed.banks)},
        small,
    )
    if everything:
        span = c.rail / max(c.total_a, 1e-9)
        tried = preferred.values("E24", max(span / 1000, 0.1), span * 2000).tolist()
        added = values.nearest(tried, lambda v: off(replace(c, common=c.common + v)))
        then = replace(c, common=c.common + added)
        fit = rating_to_fit(then.total_a**2 * added, then.total_a * added)
        part = f"{show(added, OHM)}, {fit:g} W or more" if fit is not None else show(added, OHM)
        yield _option(
            "common",
            "Add one resistor in the shared wire",
            f"{part}, in series at the connector",
            c,
            then,
            {COMMON.id: show(then.common, OHM, 4)},
            "",
        )
    if len(c.banks) > 1:
        equal, every = _balanced(c), tuple(range(len(c.banks)))
        lit = equal.shines
        seen = f"All within {eye_text(max(lit) / max(min(lit), 1e-15))} × of each other, an LED beside an LED."
        yield replace(
            _option(
                "equal",
                "Make the banks look equal",
                _listed(equal, every),
                replace(c, meant=every),
                equal,
                {BANKS.id: as_typed(equal.banks)},
                small,
            ),
            light=seen,
        )
    for k, b in enumerate(c.banks):
        # One that was picked on the rule is among the options.
        for ohm in _larger(b)[1:]:
            id_, label = _exchanged(ohm, b)
            if id_ == chosen:
                then = c.with_bank(k, ohm=ohm)
                yield _option(
                    id_,
                    label,
                    "one bank changed",
                    replace(c, meant=(k,)),
                    then,
                    {BANKS.id: as_typed(then.banks)},
                    small,
                )


def _listed(c: BankCase, places: tuple[int, ...]) -> str:
    return "; ".join(f"{c.banks[k].name}: {show(c.banks[k].ohm, OHM)}" for k in places)


def _percent(light: float, origin: str) -> Shown:
    return Shown(light, number_text(light * 100, 3), "%", Source.COMPUTED, origin)


def _option(
    id_: str, label: str, what: str, now: BankCase, then: BankCase, changes: dict[str, str], bars: str
) -> Option:
    first = now.meant[0]
    seen = as_seen(now.banks[first].led, now.amps[first], then.amps[first])
    apart = [float(light_ratio(b.led, c, a)) for b, a, c in zip(now.banks, now.amps, then.amps, strict=True)]
    spread = max(apart) / max(min(apart), 1e-12)
    if len(now.banks) > 1 and spread > 1.2:
        seen += f" The banks shift beside each other by up to {eye_text(spread)} ×."
    outcome = _percent(now.light(then), "light of the banks meant beside now")
    return Option(id_, label, what, outcome, "light_ratio", seen, bars, changes=changes)


def _larger(bank: Bank) -> list[float]:
    """Values its resistors may have, from their own upwards."""
    return [bank.ohm, *preferred.values("E12", bank.ohm * 1.05, bank.ohm * 100).tolist()]


def _exchanged(ohm: float, bank: Bank) -> tuple[str, str]:
    """The id and the label of another resistor for a bank."""
    return f"bank-{bank.name}-{ohm:g}", f"{show(ohm, OHM)} for {bank.name}"


def _rules(c: BankCase) -> tuple[PartRule, ...]:
    """Of each bank, what every larger value of its resistors makes of it, all banks solved together."""
    out = []
    for k, b in enumerate(c.banks):
        points = []
        for ohm in _larger(b):
            then, now = c.with_bank(k, ohm=ohm).amps[k], c.amps[k]
            outcome = _percent(float(light_ratio(b.led, then, now)), f"light of {b.name} with {show(ohm, OHM)}")
            words = as_seen(b.led, now, then) if ohm != b.ohm else "As it is."
            points.append(RulePoint(*_exchanged(ohm, b), show(ohm, OHM), outcome, words, ""))
        out.append(PartRule(b.name, b.name, tuple(points), 0))
    return tuple(out)


def _balanced(c: BankCase) -> BankCase:
    """The brighter banks' resistors raised until an LED of each shines as one of the dimmest."""
    found, aim = c, min(c.shines)
    for _ in range(3):
        for k, b in enumerate(c.banks):
            tried = [b.ohm, *preferred.values("E24", b.ohm * 1.001, b.ohm * 3000).tolist()]
            cases = {ohm: found.with_bank(k, ohm=ohm) for ohm in tried}

            def off(ohm: float, k: int = k, cases: dict[float, BankCase] = cases) -> float:
                return math.log(max(cases[ohm].shines[k], 1e-15) / aim)

            found = cases[values.nearest(tried, off)]
    return found


def as_typed(banks: tuple[Bank, ...]) -> str:
    """Banks as they are typed again, one a line."""
    return "\n".join(
        f"{b.name}: {b.count} {b.led.colour} {'×' if b.each else 'on'} {show(b.ohm, OHM, 4)}" for b in banks
    )


def _stairs(now: BankCase, then: BankCase) -> tuple[BranchStair, ...]:
    shared, lights = now.common * now.total_a, now.shines
    brightest = max(*lights, 1e-15)
    out = []
    for b, amps, after, light in zip(now.banks, now.amps, then.amps, lights, strict=True):
        own = amps * (b.ohm if b.each else b.ohm * b.count)
        steps = (("common", shared),) if now.common else ()
        beside = f"{eye_text(light / brightest)} × the brightest bank"
        same = math.isclose(after, amps, rel_tol=1e-6)
        out.append(
            stair(
                b.name,
                f"{b.name}: {b.count} {b.led.colour}",
                (*steps, ("resistor", own), ("LED", now.rail - shared - own)),
                amps,
                "the brightest" if light >= brightest * 0.999 else beside,
                f"one of {b.count}, behind {show(b.ohm, OHM)} {'each' if b.each else 'for all'}",
                None if same else shown(after, AMPERE, "after what is advised"),
            )
        )
    return tuple(out)


def _faults(c: BankCase) -> tuple[Fault, ...]:
    out = []
    for k, b in enumerate(c.banks):
        if b.count < 2 or (b.each and not c.common):
            continue
        now, then = c.amps[k], c.with_bank(k, count=b.count - 1).amps[k]
        more = (then / now - 1) * 100 if now > 0 else 0.0
        said = f"The others of it carry {show(then, AMPERE)}, {more:.0f} % more."
        out.append(Fault(f"open-{b.name}", f"One LED of {b.name} open", said))
    alone = Fault("open", "One LED open", "It alone is dark: each has its own resistor, and nothing is shared.")
    return tuple(out) or (alone,)


def _findings(c: BankCase, typed: Details) -> tuple[Finding, ...]:
    out = [
        Finding(
            f"shared-resistor-{b.name}",
            "mind",
            f"{b.name}: {b.count} LEDs share one resistor, so its current does not divide evenly.",
            why="One of 0.1 V less takes up to half as much again. Uneven light there is normal.",
        )
        for b in c.banks
        if not b.each and b.count > 1
    ]
    if not typed.text(REVISION.id):
        out.append(
            Finding(
                "no-revision",
                "note",
                "The board's revision is not written down.",
                why="The next one who opens it needs to know.",
            )
        )
    return tuple(out)
