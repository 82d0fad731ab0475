"""Changes to a position, as remedies and the search make them: names of its fields, and what they become."""

import math
from collections.abc import Mapping
from dataclasses import fields, replace
from types import NoneType, UnionType
from typing import Literal, Union, get_args, get_origin, get_type_hints

from swapglow.core.design.looks import Looks
from swapglow.core.design.position import Position
from swapglow.core.design.rectification import RECTIFICATIONS
from swapglow.core.parts import led as leds
from swapglow.core.parts.glass import glasses
from swapglow.core.parts.ready_made import ready_made
from swapglow.core.quantities import Figure, InputError, Source

Changes = Mapping[str, float | int | str | None]

# What stands before the name of a driver's own field, and before one of its looks.
DRIVER = "driver."
LOOKS = "looks."

# Changes after which a computed resistor is computed again. Every change of the driver is one too.
_SIZES = frozenset(
    {
        "led_id",
        "module_id",
        "target",
        "in_series",
        "branches",
        "resistor_parts",
        "series",
        "rounding",
        "rectification_id",
        "capacitor_f",
        "regulator_id",
        "series_diodes",
        "shunt_ohm",
        "shunt_across",
    }
)
_FIELDS = {f.name for f in fields(Position)}


def _takes(of: type) -> Mapping[str, tuple[object, ...]]:
    """What each field of a value takes, as far as a change can give it: numbers, texts, yes or no, nothing."""
    # A driver's kind is known to a type checker only, and no change can give it.
    hints = get_type_hints(of, localns={"DriverKind": object})
    return {name: _plain(hint) for name, hint in hints.items()}


def _plain(hint: object) -> tuple[object, ...]:
    if get_origin(hint) in (Union, UnionType):
        return tuple(part for inner in get_args(hint) for part in _plain(inner))
    if get_origin(hint) is Literal:
        return get_args(hint)
    return (hint,)


_TAKES = _takes(Position)
_LOOKS_TAKE = _takes(Looks)


def _fitting(name: str, value: float | int | str | None, takes: tuple[object, ...]) -> float | int | str | None:
    """A value that a field takes.

    Raises:
        InputError: for the field, where it takes no such value.
    """
    if value is None:
        fits = NoneType in takes
    elif isinstance(value, bool):
        fits = bool in takes
    elif isinstance(value, str):
        fits = str in takes or value in takes
    elif float in takes or not math.isfinite(value):
        fits = math.isfinite(value)
    else:
        fits = (int in takes and value == int(value)) or value in takes or (bool in takes and value in (0, 1))
    if not fits:
        raise InputError(name, f'"{str(value)[:40]}" is nothing that {name} can be.')
    return int(value) if isinstance(value, float) and float not in takes else value


def exposes_crest(position: Position, changes: Changes) -> bool:
    """Whether a change puts a capacitor on volts that can kill: it holds their crest after switching off.

    Args:
        position: the swap.
        changes: as for :func:`with_changes`.

    Returns:
        Whether it must not be offered.
    """
    way = RECTIFICATIONS.get(str(changes.get("rectification_id")))
    return position.live_danger and way is not None and way.reservoir


def with_changes(position: Position, changes: Changes) -> Position:
    """The position after a remedy's changes.

    Args:
        position: as it stands.
        changes: its fields by name. ``led_id`` picks another LED of the catalogue, ``module_id`` a
            ready-made lamp; ``target`` sets the drive wanted, A; ``driver.`` stands before a field of
            its driver, ``looks.`` before one of its looks, where "glass" is one of the catalogue's.

    Returns:
        The changed position.

    Raises:
        InputError: a change that no position knows, or one that makes it impossible.
    """
    values: dict[str, object] = {}
    driver: dict[str, object] = {}
    looks: dict[str, object] = {}
    for name, value in changes.items():
        if name == "led_id":
            values |= _with_led(position, _led(str(value)))
        elif name == "module_id":
            values |= _with_module(position, str(value))
        elif name == "target":
            if not isinstance(value, int | float):
                raise InputError(name, "The drive wanted must be a number.")
            values["target"] = Figure(float(value), Source.COMPUTED)
        elif name.startswith(DRIVER):
            driver[name.removeprefix(DRIVER)] = value
        elif name.startswith(LOOKS):
            looks |= _look(name, value)
        elif name in _FIELDS:
            values[name] = _fitting(name, value, _TAKES[name])
        else:
            raise InputError(name, f'A position has no "{name}" to change.')
    if driver:
        known = {f.name for f in fields(position.driver)}
        unknown = next((name for name in driver if name not in known), None)
        if unknown is not None:
            raise InputError(f"{DRIVER}{unknown}", f'A driver has no "{unknown}" to change.')
        takes = _takes(type(position.driver))
        fitting = {k: _fitting(f"{DRIVER}{k}", v, takes[k]) for k, v in driver.items()}  # type: ignore[arg-type]  # as sent
        values["driver"] = replace(position.driver, **fitting)  # type: ignore[arg-type]  # names checked, values by its own
    if looks:
        values["looks"] = replace(position.looks, **looks)  # type: ignore[arg-type]  # likewise
    if position.follows and (driver or not _SIZES.isdisjoint(changes)):
        # The resistor was computed for another lamp: compute it again.
        values = {"resistor_ohm": None, **values}
    if "resistor_ohm" in values:
        values["follows"] = False
        parts = values.get("resistor_parts", position.resistor_parts)
        if (values["resistor_ohm"], parts) != (position.resistor_ohm, position.resistor_parts):
            # Another part: nothing was read of it.
            values |= {"ohm_share": 1.0, "ohm_doubt": None}
    return replace(position, **values)  # type: ignore[arg-type]  # likewise


def _look(name: str, value: float | int | str | None) -> dict[str, object]:
    """One change of its looks."""
    own = name.removeprefix(LOOKS)
    if own == "glass":
        if value not in ("", None) and value not in glasses():
            raise InputError(name, f'There is no glass or tint "{str(value)[:40]}" in the catalogue.')
        return {"glass": glasses()[str(value)] if value else None}
    if own not in _LOOKS_TAKE:
        raise InputError(name, f'Its looks have no "{own}" to change.')
    return {own: _fitting(name, value, _LOOKS_TAKE[own])}


def _led(id_: str) -> leds.Led:
    if id_ not in leds.catalogue():
        raise InputError("led_id", f'There is no LED "{id_}" in the catalogue.')
    return leds.catalogue()[id_]


def _with_led(position: Position, led: leds.Led) -> dict[str, object]:
    """What changes where another LED is taken: in a ready-made lamp all of its LEDs are of that kind."""
    m = position.module
    if m is None:
        return {"led": led, "led_source": Source.ASSUMED, "led_read_on": ()}
    module = replace(m, die_v=led.vf_typ, swept=None)
    candela = position.led.candela
    return {"module": module, "inside": 0, "led": replace(module.led(led), candela=candela)}


def _with_module(position: Position, module_id: str) -> dict[str, object]:
    """What changes where a ready-made lamp of the catalogue goes in."""
    if module_id not in ready_made():
        raise InputError("module_id", f'There is no ready-made lamp "{module_id}" in the catalogue.')
    made = ready_made()[module_id]
    die_v = position.led.vf_typ if position.module is None else position.module.die_v
    module = replace(made.module, die_v=die_v)
    led = replace(module.led(position.led), candela=made.candela)
    return {
        **ALONE,
        "module": module,
        "led": led,
        "led_source": Source.MARKED,
        "band_v": (module.low, module.high),
        "inside": 0,
        "beside": (),
    }


# What a ready-made lamp puts out of the way: it comes with all it needs.
ALONE: Mapping[str, float | int | str | None] = {
    "in_series": 1,
    "branches": 1,
    "series_diodes": 0,
    "regulator_id": "",
    "shunt_ohm": None,
    "resistor_ohm": None,
    "resistor_parts": 1,
}
