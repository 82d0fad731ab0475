"""The LED of a position: a catalogue kind with its owner's own figures, or what a sweep found."""

from dataclasses import replace

from swapglow.core.parts import led as leds
from swapglow.core.parts.led import Led, LedError
from swapglow.core.quantities import VOLT, Input, InputError, Source
from swapglow.core.quantities.inputs import read_quantity


def choose_led(led_id: str, vf: Input, rated_a: float | None) -> tuple[Led, Source]:
    """The LED: a catalogue kind, with the user's own Vf range and rated current where typed.

    Args:
        led_id: a kind of the catalogue; empty where only the forward voltage is known.
        vf: forward voltage at rated current, with its range; empty takes the kind's.
        rated_a: rated current, A, a limit that moves neither the kind's own curve nor its light; None takes
            the kind's.

    Returns:
        The LED, and where its forward voltage comes from.

    Raises:
        InputError: for ``led_id`` or ``vf``.
    """
    base = leds.catalogue().get(led_id)
    if base is None and led_id:
        raise InputError("led_id", f'There is no LED "{led_id}" in the catalogue.')
    if vf.empty:
        if base is None:
            raise InputError("led_id", "Pick an LED, or type a forward voltage like 1.9-2.3V.")
        if rated_a is None:
            return base, Source.ASSUMED
        limit = replace(base, rated_a=rated_a, vf_given_a=base.vf_a, candela_given_a=base.candela_a)
        return limit, Source.ASSUMED
    volts = read_quantity("vf", vf.text, VOLT, above=0)
    kind = base or replace(leds.kind_of(volts.usual), id="own", label="Own LED")
    try:
        made = leds.with_range(kind, volts.low, volts.usual, volts.high, rated_a or kind.rated_a)
    except LedError as problem:
        raise InputError("vf", str(problem)) from None
    return made, vf.source


def second_led(led_id: str) -> Led | None:
    """The other die of a two-colour LED; None for an empty text, which takes the same kind.

    Raises:
        InputError: ``second_led_id``: there is no such LED.
    """
    if not led_id:
        return None
    found = leds.catalogue().get(led_id)
    if found is None:
        raise InputError("second_led_id", f'There is no LED "{led_id}" in the catalogue.')
    return found
