"""The workshop's drawer: resistors as they are kept, a few counted, and two bags of LEDs. All invented."""

from swapglow.inputs.quantity import Quantity
from swapglow.inputs.stock import BenchLedInput, PartInput

_FULL = ("100R", "150R", "220R", "330R", "470R", "680R", "1k", "1k5", "2k2", "3k3", "4k7", "6k8", "10k", "15k", "33k")


def _resistor(value: str, **more: object) -> PartInput:
    return PartInput(
        kind="resistor",
        resistance=value,
        tolerance=0.05,
        rating_w=0.25,
        series="E12",
        kept_in="cabinet A",
        **more,  # type: ignore[arg-type]  # fields of a part
    )


PARTS: tuple[PartInput, ...] = (
    *(_resistor(v) for v in _FULL),
    _resistor("3k9", level="low"),
    _resistor("22k", level="low"),
    _resistor("820R", level="empty"),
    _resistor("1k8", level="empty"),
    PartInput(
        kind="resistor",
        resistance="1k",
        tolerance=0.05,
        rating_w=0.5,
        kept_in="cabinet A, lower row",
        count=12,
        least=4,
        pack=20,
        price="1.20",
    ),
    PartInput(
        kind="capacitor", capacitance="100uF", stands="63V", count=3, least=2, pack=5, price="2.40", kept_in="tin 3"
    ),
    PartInput(kind="capacitor", capacitance="100nF", stands="50V", kept_in="tin 3"),
    PartInput(kind="diode", name="Silicon diode", kept_in="tin 4", count=18, least=5, pack=25, price="1.50"),
    PartInput(kind="diode", name="Bridge of four", kept_in="tin 4", count=1, least=2, pack=5, price="2.00"),
    PartInput(kind="lamp", catalogue_id="slide-24", kept_in="shelf over the bench", count=4, least=2),
    PartInput(kind="sundry", name="Sleeve, 3.2 mm bore", kept_in="hook by the window"),
    PartInput(kind="sundry", name="Sleeve, 4.8 mm bore", kept_in="hook by the window", level="low"),
)
LEDS: tuple[BenchLedInput, ...] = (
    BenchLedInput(
        name="Warm white, small bag",
        led_id="warm-5-diffused",
        vf=Quantity(text="2.9-3.1V", source="measured"),
        lot="bag of May",
        count=14,
        least=5,
        pack=50,
        price="4.00",
        kept_in="drawer 2",
    ),
    BenchLedInput(name="Red diffused, old stock", led_id="red-5-diffused", kept_in="drawer 2", count=40, least=10),
)
