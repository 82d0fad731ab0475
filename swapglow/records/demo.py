"""The demo: a volunteer workshop that looks after an old observatory's instruments.

All of it is invented: the place, the equipment, the figures.
"""

import uuid
from typing import Any

from django.db import transaction

from swapglow.core.position.typed import read_position
from swapglow.records import translate
from swapglow.records.models import DrawerValue, Equipment, Position, Rail, Reading

# Keys made from names, so that loading the demo again finds what it made.
_SPACE = uuid.UUID("5b0f2c9a-6f4e-4a53-9d2e-5a9c1d0e7f31")


def _q(text: str, source: str = "assumed", note: str = "") -> dict[str, str]:
    return {"text": text, "source": source, "note": note}


def _read(text: str, note: str) -> dict[str, str]:
    return _q(text, "measured", note)


_DRAWER = (
    100, 150, 220, 330, 470, 680, 1e3, 1.5e3, 2.2e3, 3.3e3, 3.9e3, 4.7e3, 6.8e3, 10e3, 15e3, 22e3, 33e3,
)  # fmt: skip

_EQUIPMENT: list[dict[str, Any]] = [
    {
        "name": "Dome rotation desk",
        "maker_model": "built on site, relay desk of 1961",
        "board_revision": "lamp panel B",
        "owner": "Fernhollow Observatory",
        "notes": "Originals in bag 14, shelf C. Panel lifts on two hidden screws under the name strip.",
        "rails": [
            {"name": "Relay rail", "low": _read("24.8V", "DC volts, 200 V range, motor running"),
             "usual": _read("26.3V", "DC volts, 200 V range, dome at rest"),
             "high": _read("27.9V", "DC volts, 200 V range, all relays dropped")},
        ],
        "positions": [
            {"name": "Shutter open", "stage": "done", "lamp_id": "slide-24", "led_id": "green-3-diffused",
             "target": _q("1.8mA"), "resistor": "15k", "rating_w": 0.25, "series": "E12",
             "driver_drop": _read("0.14V", "across the relay contact and wiring"),
             "vf": _read("2.9-3.3V", "five parts on clips at 2 mA"),
             "readings": [("current", "1.57mA", "5R", "20 mA range, covers on")]},
            {"name": "Shutter closed", "stage": "fitted", "lamp_id": "slide-24", "led_id": "red-3-diffused",
             "target": _q("9mA"), "resistor": "2.7k", "rating_w": 0.5, "series": "E12",
             "driver_drop": _read("0.14V", "across the relay contact and wiring"),
             "readings": [("current", "8.9mA", "5R", "20 mA range, on clips")]},
            {"name": "Wind hold", "stage": "sizing", "lamp_id": "slide-24", "led_id": "amber-5-diffused",
             "in_series": 2, "target": _q("7mA"), "rating_w": 0.25,
             "driver_drop": _q("0.2V")},
        ],
    },
    {
        "name": "Sidereal clock, east pier",
        "maker_model": "one of a pair, dial by the workshop",
        "board_revision": "",
        "owner": "Fernhollow Observatory",
        "notes": "Dial lamps fade the numerals. Battery floats across the rail.",
        "rails": [
            {"name": "Float rail", "low": _read("12.4V", "charger off, overnight"),
             "usual": _read("13.2V", "DC volts, 20 V range"),
             "high": _read("13.9V", "just after equalising")},
        ],
        "positions": [
            {"name": "Dial, left", "stage": "trial", "lamp_id": "grain-12", "led_id": "warm-3-diffused",
             "in_series": 2, "target": _q("6mA"), "resistor": "1.2k", "rating_w": 0.25, "series": "E12",
             "readings": [("current", "0.67mA", "5R", "2 mA range, on clips")]},
            {"name": "Dial, right", "stage": "sizing", "lamp_id": "grain-12", "led_id": "warm-3-diffused",
             "in_series": 3, "target": _q("6mA"), "rating_w": 0.25, "series": "E12"},
        ],
    },
    {
        "name": "Plate camera console",
        "maker_model": "shutter timer, three decks",
        "board_revision": "deck 2 hand-marked R4",
        "owner": "lent by a member",
        "notes": "Dark-room use: nothing brighter than the old lamp.",
        "rails": [
            {"name": "Exposure lamp", "read_at": "lamp",
             "usual": _read("6.7V", "across the holder, old lamp lit, 20 V range")},
        ],
        "positions": [
            {"name": "Exposure running", "stage": "trial", "lamp_id": "own", "lamp_volts": "6.5V",
             "lamp_amps": "0.11A", "lamp_candela": "0.21cd", "lamp_base": "miniature screw",
             "led_id": "red-5-clear", "target": _q("0.9mA"), "resistor": "5.6k", "rating_w": 0.25},
        ],
    },
    {
        "name": "Spectrograph cart",
        "maker_model": "arc supply and camera on one trolley",
        "board_revision": "C, reworked",
        "owner": "Fernhollow Observatory",
        "notes": "Someone swapped this lamp before us, sized on the name plate. Marked do not use.",
        "rails": [
            {"name": "Arc interlock", "usual": _q("34V±8%", "marked", "name plate")},
        ],
        "positions": [
            {"name": "Arc ready", "stage": "fitted", "lamp_id": "bipin-28", "led_id": "blue-5-clear",
             "target": _q("20mA"), "resistor": "1.3k", "rating_w": 0.25,
             "notes": "Brown mark on the board under the resistor."},
        ],
    },
    {
        "name": "Transit chronograph",
        "maker_model": "two-pen drum recorder",
        "board_revision": "A",
        "owner": "Fernhollow Observatory",
        "notes": "",
        "rails": [{"name": "Pen supply", "usual": _q("17-19.5V")}],
        "positions": [
            {"name": "Pen lamp", "stage": "sizing", "lamp_id": "slide-24", "led_id": "white-3-diffused",
             "target": _q("4mA")},
        ],
    },
]  # fmt: skip


def is_loaded() -> bool:
    """Whether any equipment is there: the demo never writes over someone's own."""
    return Equipment.objects.exists()


@transaction.atomic
def load() -> int:
    """Make the demo's records; returns the number of lamp positions."""
    DrawerValue.objects.bulk_create([DrawerValue(ohm=o) for o in _DRAWER], ignore_conflicts=True)
    count = 0
    for place, spec in enumerate(_EQUIPMENT):
        plain = {k: v for k, v in spec.items() if k not in ("rails", "positions")}
        item = Equipment.objects.create(id=uuid.uuid5(_SPACE, spec["name"]), order=place, **plain)
        rails = [
            Rail.objects.create(
                id=uuid.uuid5(_SPACE, f"{spec['name']}/{r['name']}"), equipment=item, order=k, **r
            )
            for k, r in enumerate(spec["rails"])
        ]
        for k, p in enumerate(spec["positions"]):
            fields = {key: v for key, v in p.items() if key != "readings"}
            position = Position.objects.create(
                id=uuid.uuid5(_SPACE, f"{spec['name']}/{p['name']}"),
                equipment=item, rail=rails[0], order=k, **fields,
            )  # fmt: skip
            # A demo that does not read is a fault of ours: find it here.
            read_position(translate.typed_position(position))
            for n, (kind, text, burden, note) in enumerate(p.get("readings", ())):
                Reading.objects.create(
                    id=uuid.uuid5(_SPACE, f"{position.pk}/{n}"), position=position, order=n,
                    kind=kind, text=text, burden=burden, note=note,
                )  # fmt: skip
            count += 1
    return count
