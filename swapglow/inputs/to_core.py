"""From what was typed to the core's plain values, by the marks of each field, and nothing more."""

from collections.abc import Collection, Iterable, Mapping
from dataclasses import replace
from functools import lru_cache
from typing import Any

from pydantic import BaseModel

from swapglow.core.analysis.dimming import FittedLed
from swapglow.core.analysis.trip_current import with_trip
from swapglow.core.build_steps.before_after import Check
from swapglow.core.build_steps.own_dangers import warns
from swapglow.core.build_steps.steps import Habits, Site
from swapglow.core.circuits import CIRCUITS
from swapglow.core.circuits.siblings import taught
from swapglow.core.constants import REFERENCE_C
from swapglow.core.design.branch import Branch
from swapglow.core.design.led_choice import choose_led, second_led
from swapglow.core.design.led_light import with_light
from swapglow.core.design.looks import Looks
from swapglow.core.design.position import Position
from swapglow.core.design.rectification import OWN_BRIDGE, RECTIFICATIONS
from swapglow.core.design.trial import Photographed, Trial
from swapglow.core.drivers import DRIVERS
from swapglow.core.drivers.driver import Driver
from swapglow.core.intake.feasibility import Feasibility
from swapglow.core.intake.hazards import CLOSING, HAZARDS
from swapglow.core.intake.hints import hints_of
from swapglow.core.kinds.detail import Details
from swapglow.core.measurement.reading_after import ReadingAfter, read_after
from swapglow.core.measurement.reading_before import ReadingBefore, read_before
from swapglow.core.parts.glass import OWN_GLASS, glasses, own_glass
from swapglow.core.parts.lamp import OWN, Bulb, Lamp, choose_lamp, own_lamp
from swapglow.core.parts.led import Led
from swapglow.core.parts.ready_made import UNKNOWN, Law, Module
from swapglow.core.parts.sweep import SWEPT, SweepInput, fitted_led
from swapglow.core.quantities import AMPERE, VOLT, Figure, Input, InputError, Source
from swapglow.core.quantities.everyday import read_hours, read_money
from swapglow.core.quantities.inputs import check_unit, read_quantity, read_share, read_single
from swapglow.core.supplies import SUPPLIES
from swapglow.core.supplies.rail import Rail, read_rail
from swapglow.core.values import lamp_marks, preferred
from swapglow.core.values.nothing import says_none
from swapglow.inputs.equipment import DimInput, DimTrialInput, FeasibilityInput, FittedInput, TakeInInput
from swapglow.inputs.led import LedInput
from swapglow.inputs.limits import MOST_HOUSE_CHECKS
from swapglow.inputs.position import LooksInput, PositionInput, ReadyMade, TrialInput
from swapglow.inputs.quantity import Quantity
from swapglow.inputs.rail import RailInput
from swapglow.inputs.readings import ReadingAfterInput, ReadingBeforeInput
from swapglow.inputs.rows import in_order
from swapglow.inputs.shape import Reads, Sets, marked
from swapglow.inputs.shop import ShopInput
from swapglow.inputs.stock import BenchLedInput


@lru_cache
def _marks(shape: type[BaseModel], of: str) -> tuple[tuple[str, Reads | Sets], ...]:
    found: list[tuple[str, Reads | Sets]] = [(name, mark) for name, _, mark in marked(shape, Reads)]
    found += [(name, mark) for name, _, mark in marked(shape, Sets)]
    return tuple((name, mark) for name, mark in found if mark.of == of)


def plain(shape: BaseModel, of: str, prefix: str = "") -> dict[str, Any]:
    """The core's values of a shape, by the names they have there.

    Args:
        shape: as typed.
        of: whose values are wanted.
        prefix: stands before a field's name in a refusal.

    Returns:
        Names and values; None for an empty text.

    Raises:
        InputError: for the field that cannot be read.
    """
    out: dict[str, Any] = {}
    for name, mark in _marks(type(shape), of):
        value = getattr(shape, name)
        if isinstance(mark, Sets):
            if not mark.by_hand:
                out[mark.to] = mark.by(value)
            continue
        typed = value if isinstance(value, Quantity) else Quantity(text=value)
        read = None
        if typed.text.strip() and not (mark.absent and says_none(typed.text)):
            read = read_single(
                prefix + name,
                typed.text,
                mark.unit,
                above=mark.above,
                minimum=mark.minimum,
                volts=_volts_beside(shape, mark, prefix),
            )
        out[mark.to] = read
        if isinstance(value, Quantity) and read is not None:
            out[mark.to] = Figure(read, Source(typed.source), typed.note)
    return out


def _volts_beside(shape: BaseModel, mark: Reads, prefix: str) -> float | None:
    """Volts at which a power typed for a current is taken; None where there are none."""
    value = getattr(shape, mark.at) if mark.at else ""
    text = value.text if isinstance(value, Quantity) else value
    return read_quantity(prefix + mark.at, text, VOLT, above=0.0).usual if text.strip() else None


def field_of(shape: type[BaseModel], core_name: str) -> str:
    """The field that gives the core a value; the core's own name where none does.

    Args:
        shape: the model.
        core_name: the value's name in the core.

    Returns:
        The field's name.
    """
    marks_here = _marks(shape, "position")
    return next((name for name, mark in marks_here if mark.to == core_name), core_name)


def rail_of(r: RailInput, lamp: Lamp | None = None) -> Rail:
    """A rail.

    Args:
        r: as typed.
        lamp: the old lamp, whose current stands in for a load nobody typed.

    Returns:
        The rail with its supply.

    Raises:
        InputError: for the field that cannot be read.
    """
    details = {name: q.input for name, q in r.details.items()}
    kind = SUPPLIES.named(r.kind, "kind")
    return read_rail(kind, r.usual.input, r.low.input, r.high.input, details, lamp, **plain(r, "rail"))


def position_of(p: PositionInput, r: RailInput, hazards: Collection[str] = ()) -> Position:
    """A lamp position on its rail.

    Args:
        p: the position as typed.
        r: its rail as typed.
        hazards: dangers of its item: mains or high tension in there closes live readings of every lamp.

    Returns:
        The position, its line's trip current solved from trials where it has them.

    Raises:
        InputError: for the field that cannot be read, or that makes the position impossible.
    """
    # Trials count in the report alone, and are refused here, where they are typed.
    trials_of(p)
    one = lamp_of(p)
    lamp = None if one is None else one.times(p.lamp_count)
    rail = rail_of(r, lamp)
    module, led, source = _led(p)
    if not p.target.text.strip():
        raise InputError("target", f"Type the drive wanted, like {AMPERE.examples}.")
    figures = plain(p, "position")
    if figures["resistor_ohm"] == 0:
        figures["resistor_parts"] = 1
    tolerance = preferred.USUAL_TOLERANCE[p.series] if p.tolerance is None else p.tolerance
    try:
        made = Position(
            rail=rail,
            led=led,
            led_source=source,
            lamp=lamp,
            driver=driver_of(p, one),
            second_led=second_led(p.second_led_id),
            band_v=_band(p),
            module=module,
            rectification_id=_rectification(p, rail, module),
            resistor_tolerance=tolerance,
            beside=_beside(p),
            celsius=_air(p),
            looks=looks_of(p.looks),
            hints=hints_of(p.name, rail.supply.kind.id),
            warns=warns(p.name),
            **figures,
        )
    except InputError as problem:
        raise InputError(field_of(PositionInput, problem.field), problem.message) from None
    return with_trip(replace(made, mains=made.mains or not CLOSING.isdisjoint(hazards)))


def looks_of(typed: LooksInput) -> Looks:
    """How a lamp is looked at.

    Args:
        typed: as typed.

    Returns:
        The geometry, and what stands before the lamp.

    Raises:
        InputError: for the field that cannot be read, by its whole name.
    """
    try:
        if typed.glass == OWN_GLASS:
            glass = own_glass("own_glass", typed.own_glass) if typed.own_glass.strip() else None
        else:
            glass = glasses().get(typed.glass)
        return Looks(glass=glass, **plain(typed, "looks"))
    except InputError as problem:
        raise InputError(f"looks.{problem.field.removesuffix('_m')}", problem.message) from None


def trials_of(p: PositionInput) -> tuple[Trial, ...]:
    """Looks at a lamp, in their order; one without a resistor is none yet.

    Raises:
        InputError: for the resistor that cannot be read.
    """
    return _trials(p.trials, "trial")


def _trials(rows: Mapping[str, TrialInput] | Mapping[str, DimTrialInput], of: str) -> tuple[Trial, ...]:
    out = []
    for key, row in sorted(rows.items(), key=lambda item: (item[1].place, item[0])):
        at = f"trials.{key}."
        figures = plain(row, of, at)
        ratio, doubt = figures.pop("photo_ratio", None), figures.pop("photo_doubt", None)
        if figures["ohm"] is None:
            continue
        photographed = None if ratio is None else Photographed(ratio, doubt or 1.0)
        try:
            out.append(Trial(id=key, photographed=photographed, **figures))
        except InputError as problem:
            raise InputError(at + problem.field, problem.message) from None
    return tuple(out)


def fitted_of(typed: DimInput) -> FittedLed | None:
    """A fitted LED that is to be dimmed; None until its resistor is typed.

    Raises:
        InputError: for the field that cannot be read.
    """
    figures = plain(typed, "dim")
    if figures["ohm"] is None:
        return None
    rail = read_quantity("rail", typed.rail, VOLT, above=0) if typed.rail.strip() else None
    led = choose_led(typed.led_id, Input(), None)[0] if typed.led_id else None
    return FittedLed(rail=rail, led=led, **figures)


def dim_trials_of(typed: DimInput) -> tuple[Trial, ...]:
    """Looks at a fitted LED, in their order; one without a resistor is none yet.

    Raises:
        InputError: for the resistor that cannot be read.
    """
    return _trials(typed.trials, "dim trial")


def check_dims(typed: Mapping[str, DimInput]) -> None:
    """Refuse a fitted LED of which something cannot be read.

    Args:
        typed: fitted LEDs by key.

    Raises:
        InputError: for the field, by its whole name.
    """
    for key, dim in typed.items():
        try:
            fitted_of(dim)
            dim_trials_of(dim)
        except InputError as problem:
            raise InputError(f"dims.{key}.{problem.field}", problem.message) from None


def check_fitted(typed: Mapping[str, FittedInput]) -> None:
    """Refuse a fitted circuit of which a figure cannot be read.

    Args:
        typed: circuits by key.

    Raises:
        InputError: for the figure, by its whole name.
    """
    for key, one in typed.items():
        try:
            for detail in CIRCUITS.named(one.kind, "kind").details:
                typed_text = one.details[detail.id].text if detail.id in one.details else ""
                if detail.unit is not None and typed_text.strip():
                    check_unit(detail.id, typed_text, detail.unit)
            fitted_details(one)
        except InputError as problem:
            raise InputError(f"fitted.{key}.details.{problem.field}", problem.message) from None


def fitted_details(typed: FittedInput, others: Iterable[FittedInput] = ()) -> Details:
    """What was typed of a fitted circuit, by what its kind asks for.

    Args:
        typed: as it is kept.
        others: the item's other circuits of that kind; what was read of one counts for its like.

    Returns:
        The details.

    Raises:
        InputError: for the figure that cannot be read.
    """
    kind = CIRCUITS.named(typed.kind, "kind")
    own, *siblings = ({name: d.input for name, d in f.details.items()} for f in (typed, *others))
    return kind.read(taught(kind, own, ((f.name, s) for f, s in zip(others, siblings, strict=True))))


def _air(p: PositionInput) -> float:
    """The air around the lamp, °C."""
    celsius = plain(p, "air")["celsius"]
    return REFERENCE_C if celsius is None else float(celsius)


def _beside(p: PositionInput) -> tuple[Branch, ...]:
    """Strings of other LEDs, in their order; a line on which no LED is chosen yet is none."""
    out = []
    for key, row in sorted(p.beside.items(), key=lambda item: (item[1].place, item[0])):
        if not (row.led_id or row.vf.strip()):
            continue
        at = f"beside.{key}."
        try:
            led, _ = choose_led(row.led_id, Input(row.vf, Source.MARKED), None)
        except InputError as problem:
            raise InputError(at + problem.field, problem.message) from None
        figures = plain(row, "beside", at)
        target = figures.pop("target") or led.rated_a / 4
        out.append(Branch(row.name.strip() or led.label, led, target, **figures))
    return tuple(out)


def lamp_of(p: PositionInput) -> Lamp | None:
    """One original lamp, or None where nothing is known of it.

    Raises:
        InputError: for ``lamp_id``, one of its own figures, or of its outside.
    """
    typed = {name: value for name, value in plain(p, "bulb").items() if value is not None}
    if p.lamp_id != OWN:
        lamp = choose_lamp(p.lamp_id)
        return None if lamp is None else replace(lamp, kept=p.lamp_kept, bulb=replace(lamp.bulb, **typed))
    if (both := lamp_marks.parts(p.lamp_volts)) is not None:
        # The whole mark typed where its volts are asked.
        p = p.model_copy(update={"lamp_volts": both[0], "lamp_amps": p.lamp_amps.strip() or both[1]})
    for name in ("lamp_volts", "lamp_amps"):
        if not getattr(p, name).strip():
            raise InputError(name, f"Type the lamp's own, like {'6.3V' if name == 'lamp_volts' else '0.15A'}.")
    figures = plain(p, "lamp")
    return replace(own_lamp(**figures), kept=p.lamp_kept, bulb=Bulb(**typed))


def driver_of(p: PositionInput, lamp: Lamp | None) -> Driver:
    """What drives the lamp.

    Args:
        p: as typed.
        lamp: the old lamp, which others in its loop are taken to equal.

    Returns:
        The driver. One that was made another kind keeps what was typed; only what its kind asks for counts.

    Raises:
        InputError: for the detail that cannot be read.
    """
    kind = DRIVERS.named(p.driver_kind, "driver_kind")
    details = Details(kind.details, {name: d.input for name, d in p.driver_details.items()})
    return kind.driver(p.driver_drop.input, details, lamp)


def own_led(typed: LedInput) -> tuple[Led, Source]:
    """An LED with its own figures laid over those of its kind.

    Args:
        typed: as typed.

    Returns:
        The LED, and where its forward voltage is from.

    Raises:
        InputError: for the field that cannot be read.
    """
    led, source = choose_led(typed.led_id, typed.vf.input, plain(typed, "led")["rated_a"])
    return with_light(led, typed.led_light, **plain(typed, "light")), source


def _led(p: PositionInput) -> tuple[Module | None, Led, Source]:
    """The LED, by the ready-made lamp, the sweep or the catalogue."""
    led, source = own_led(p)
    if p.sweep.strip():
        led, source = fitted_led(led, sweep_of(p)), Source.MEASURED
        if p.in_series > 1 and not p.band.strip() and p.sweep_in_series.strip() not in ("", "1"):
            raise InputError(
                "in_series",
                f"The sweep is of {p.sweep_in_series.strip()} LEDs in series already, and {p.in_series} "
                "such would stand one after another. Type 1, or the volts of one such module where several do.",
            )
    module = _module(p, led)
    if module is not None:
        led, source = module.led(led), source if module.swept else Source.MARKED
        candela = plain(p.module, "module light", "module.")["candela"]
        led = led if candela is None else replace(led, candela=candela)
    return module, led, source


def _module(p: PositionInput, led: Led) -> Module | None:
    m: ReadyMade = p.module
    if not m.amps.strip():
        return None
    band = _band(p)
    if band is None:
        raise InputError("band", "A ready-made lamp needs its voltage band, like 10-15V.")
    figures = plain(m, "module", "module.")
    other = plain(m, "module second", "module.")
    second = (other["volts"], other["amps"]) if other["volts"] and other["amps"] else None
    law: Law = "resistor" if m.law == UNKNOWN else m.law  # type: ignore[assignment]  # one of LAWS
    made = Module(
        *band,
        **{**figures, "throttle_s": figures["throttle_s"] or 0.0},
        second=second,
        die_v=led.vf_typ,
        throttle=read_share("module.throttle", m.throttle, 1.0),
        law=law,
        law_known=m.law != UNKNOWN,
        swept=led if led.id == SWEPT and m.law == "resistor" else None,
    )
    # The likeliest law that what is known of it can have.
    made = made if made.law_known or not made.possible else replace(made, law=made.possible[0].law)
    made.check()
    return made


def _band(p: PositionInput) -> tuple[float, float] | None:
    if not p.band.strip():
        return None
    band = read_quantity("band", p.band, VOLT, above=0)
    return band.low, band.high


def _rectification(p: PositionInput, rail: Rail, module: Module | None) -> str | None:
    """A rail that was made another kind keeps its lamps: what no longer suits it falls back to ours."""
    if not p.rectification:
        return None
    way, waveform = RECTIFICATIONS[p.rectification], rail.supply.waveform
    inside = way is OWN_BRIDGE and (module is None or module.polarised)
    return way.id if not inside and (not waveform.alternates or waveform in way.suits) else None


def sweep_of(p: PositionInput | BenchLedInput) -> SweepInput:
    """The table of volts and amps that was typed or pasted."""
    return SweepInput(p.sweep, p.sweep_in_series, p.sweep_resistor, p.sweep_strings)


def reading_after_of(id_: str, r: ReadingAfterInput, of: str = "one") -> ReadingAfter:
    """A reading after the swap.

    Args:
        id_: the record's own.
        r: as typed.
        of: what the lamp's readings are of, as it was said there.

    Returns:
        The reading.

    Raises:
        InputError: for ``text`` or ``burden``.
    """
    return read_after(id_, r.kind, r.text, r.burden, r.note, of, r.state, r.whose, r.fitted)  # type: ignore[arg-type]  # each one of its kinds


def reading_before_of(id_: str, r: ReadingBeforeInput) -> ReadingBefore:
    """A reading before the swap.

    Args:
        id_: the record's own.
        r: as typed.

    Returns:
        The reading.

    Raises:
        InputError: for the field that cannot be read.
    """
    return read_before(id_, **r.model_dump(include=set(ReadingBeforeInput.model_fields)))


def feasibility_of(w: FeasibilityInput) -> Feasibility:
    """Whether it should be done, with hours and prices read.

    Raises:
        InputError: ``hours``, ``price``, ``hour_price`` or ``others.<key>.price``.
    """
    priced = [
        (o.what.strip(), read_money(f"others.{key}.price", o.price))
        for key, o in sorted(w.others.items(), key=lambda line: (line[1].place, line[0]))
        if o.what.strip()
    ]
    return Feasibility(
        w.access,  # type: ignore[arg-type]  # one of its options
        w.brittle,  # type: ignore[arg-type]  # one of its options
        w.serviceable,  # type: ignore[arg-type]  # each one of its options
        read_hours("hours", w.hours),
        read_money("price", w.price),
        read_money("hour_price", w.hour_price) or 0.0,
        tuple((what, cost) for what, cost in priced if cost is not None),
    )


def site_of(sheet: TakeInInput, shop: ShopInput) -> Site:
    """What is known of working in an item, and the shop's habits.

    Args:
        sheet: the take-in sheet.
        shop: the habits as typed.

    Returns:
        Both as the core's value.
    """
    f = sheet.feasibility
    once = f.serviceable == "no" or f.access in ("sealed", "welded")
    checks = tuple(line.strip() for line in shop.checks.splitlines() if line.strip())
    habits = Habits(
        shop.sleeve_plus.strip() or "red",
        shop.sleeve_minus.strip() or "black",
        checks[:MOST_HOUSE_CHECKS],
        no_meter=shop.meter == "none",
    )
    opening = tuple(step.text for step in in_order(sheet.opening) if step.text.strip())
    return Site(once, f.brittle == "brittle", opening, habits, tuple(h for h in HAZARDS if h in sheet.hazards))


def checks_of(p: PositionInput) -> tuple[Check, ...]:
    """What is done and looked at before and after, in its order; a line without words is none yet."""
    rows = sorted(p.checks.items(), key=lambda item: (item[1].place, item[0]))
    return tuple(
        Check(key, row.what, row.should, row.before, row.after)  # type: ignore[arg-type]  # each one of its options
        for key, row in rows
        if row.what.strip()
    )
