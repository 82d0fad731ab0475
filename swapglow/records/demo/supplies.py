"""One item for each kind of supply beyond the steady rail."""

from typing import Any

from swapglow.records.demo.words import quantity, reading


def _before(function: str, text: str, lamp: str = "in", **more: Any) -> dict[str, Any]:
    return {"function": function, "text": text, "lamp": lamp, **more}


_MODULE = "8.6V 1.1mA\n9.1V 2.9mA\n9.8V 6.4mA\n10.6V 10.6mA\n11.9V 17.6mA"

SUPPLIES: list[dict[str, Any]] = [
    {
        "name": "Chart room reading lights",
        "maker_model": "three brackets on one bell transformer",
        "board_revision": "",
        "owner": "Fernhollow Observatory",
        "notes": "The bell transformer hums two floors down, behind a riveted cover; only its winding comes up here.",
        "take_in": {
            "dark": "Left and middle bracket dark, right one flickers when touched.",
            "sharing": "A buzzer in the dome hangs on the same winding.",
            "grounds": "No leg has continuity to the bracket.",
            "opening": [
                {"text": "Brass nut under the shade: left-hand thread"},
                {"text": "Shade lifts off towards the wall; felt ring falls"},
                {"text": "Two slotted screws; the shorter one is the upper"},
            ],
            "wires": [
                {
                    "name": "cloth, brown",
                    "goes": "transformer, upper tag",
                    "does": "steady",
                    "when": "always",
                    "found_with": "test lamp",
                },
                {"name": "cloth, once white", "goes": "bracket to bracket", "does": "dead", "found_with": "continuity"},
            ],
            "originals": [{"what": "Three screw-base lamps", "where": "bag 21, shelf C"}],
            "feasibility": {
                "access": "screws",
                "brittle": "aged",
                "serviceable": "yes",
                "hours": "1.5",
                "price": "9",
                "others": [{"what": "a bracket of the same pattern", "price": "140"}],
            },
        },
        "rails": [
            {
                "name": "Bell winding",
                "kind": "winding",
                "usual": reading("7.4Vac", "20 V AC range, three lamps lit"),
                "low": reading("6.9Vac", "evening"),
                "high": reading("7.9Vac", "early morning"),
                "details": {
                    "hertz": quantity("50Hz", "marked"),
                    "open": reading("8.8Vac", "all lamps out"),
                    "load": reading("0.42A", "AC, 10 A range, all three"),
                    "grounded": reading("no", "continuity, plug out"),
                },
            }
        ],
        "positions": [
            {
                "name": "Left bracket",
                "stage": "sizing",
                "lamp_id": "own",
                "lamp_volts": "7V",
                "lamp_amps": "0.14A",
                "lamp_base": "miniature screw",
                "led_id": "warm-5-diffused",
                "target": quantity("7mA"),
                "rectification": "bridge_cap",
                "series": "E12",
                "rating_w": 0.25,
                "readings_before": [
                    _before("ac_volts", "7.4V", meter="10M"),
                    _before("dc_volts", "0.02V", meter="10M"),
                    _before("ac_volts", "8.8V", "out", meter="10M"),
                    _before("ohms", "5.1R", "out", points="hand", note="filament cold"),
                ],
            },
            {
                "name": "Middle bracket",
                "stage": "trial",
                "lamp_id": "own",
                "lamp_volts": "7V",
                "lamp_amps": "0.14A",
                "lamp_base": "miniature screw",
                "led_id": "warm-5-diffused",
                "target": quantity("7mA"),
                "rectification": "half_wave_cap",
                "capacitor": "220uF",
                "capacitor_v": "10V",
                "resistor": "680R",
                "series": "E12",
                "rating_w": 0.25,
                "notes": "Capacitor from the box under the bench: rated by the AC reading.",
            },
        ],
    },
    {
        "name": "Weather mast amplifier",
        "maker_model": "two-channel chart driver",
        "board_revision": "B2",
        "owner": "lent by a member",
        "notes": "Plain rectifier and capacitor behind the lamp rail.",
        "take_in": {"hazards": ["mains", "charge"], "dark": "Both channel lamps."},
        "rails": [
            {
                "name": "Lamp rail",
                "kind": "unregulated",
                "usual": reading("16.6V", "20 V range, both lamps lit"),
                "details": {"open": reading("20.3V", "both lamps out"), "load": reading("0.16A", "200 mA range")},
                "fuse": "0.5A",
            }
        ],
        "positions": [
            {
                "name": "Channel 1",
                "stage": "sizing",
                "lamp_id": "own",
                "lamp_volts": "16V",
                "lamp_amps": "0.08A",
                "led_id": "amber-5-diffused",
                "in_series": 2,
                "target": quantity("4mA"),
                "series": "E12",
            }
        ],
    },
    {
        "name": "Tracked supply sled",
        "maker_model": "snow tractor, rebuilt 1974",
        "board_revision": "",
        "owner": "Fernhollow Observatory",
        "notes": "Used on the access track only; the last mile is a public road.",
        "take_in": {
            "hazards": ["vehicle"],
            "dark": "Track lock warning lamp.",
            "wires": [
                {
                    "name": "striped, faded",
                    "goes": "flasher tin",
                    "does": "pulsing",
                    "when": "turn left",
                    "found_with": "test lamp",
                }
            ],
        },
        "rails": [
            {
                "name": "Dash feed",
                "kind": "vehicle",
                "usual": reading("27.1V", "200 V range, fast idle"),
                "high": reading("28.3V", "after a long run"),
                "low": reading("24.6V", "engine off, lamp lit"),
                "details": {"system": quantity("24", "marked"), "crank": reading("16.8V", "lowest over a start")},
                "fuse": "5A",
            }
        ],
        "positions": [
            {
                "name": "Track lock",
                "stage": "sizing",
                "lamp_id": "slide-24",
                "led_id": "red-5-diffused",
                "in_series": 4,
                "target": quantity("6mA"),
                "series": "E12",
                "rating_w": 0.5,
            },
            {
                "name": "Cab module",
                "stage": "trial",
                "led_id": "white-5-clear",
                "target": quantity("8mA"),
                "resistor": "150R",
                "rating_w": 0.5,
                "sweep": _MODULE,
                "sweep_in_series": "3",
                "sweep_resistor": "150R",
                "rated": "18mA",
                "band": "9-13V",
                "notes": "Ready-made module with its resistor inside; swept on the bench supply.",
            },
        ],
    },
    {
        "name": "Red chart torch",
        "maker_model": "pocket torch, club issue",
        "board_revision": "",
        "owner": "the members",
        "notes": "Takes one button cell; the LED sat straight across it.",
        "rails": [
            {
                "name": "Button cell",
                "kind": "battery",
                "usual": quantity(""),
                "details": {
                    "chemistry": quantity("coin-20", "marked"),
                    "cells": quantity("1", "marked"),
                    "capacity": quantity("210mAh", "marked"),
                },
            }
        ],
        "positions": [
            {
                "name": "Torch lamp",
                "stage": "sizing",
                "lamp_id": "own",
                "lamp_volts": "2.8V",
                "lamp_amps": "0.03A",
                "lamp_candela": "0.06cd",
                "led_id": "red-3-diffused",
                "target": quantity("2.5mA"),
                "resistor": "15R",
                "series": "E12",
                "rating_w": 0.125,
            }
        ],
    },
    {
        "name": "Ridge generator cart",
        "maker_model": "pull-start engine, lighting coil",
        "board_revision": "",
        "owner": "Fernhollow Observatory",
        "notes": "No battery. One leg of the coil is on the frame.",
        "take_in": {"hazards": ["heat"], "grounds": "Lower coil tag to the frame, measured."},
        "rails": [
            {
                "name": "Lighting coil",
                "kind": "stator",
                "low": reading("11.5Vac", "idle"),
                "usual": reading("21Vac", "half throttle"),
                "high": reading("38Vac", "full speed, lamp out"),
                "details": {
                    "hertz_low": reading("48Hz", "idle"),
                    "hertz": reading("92Hz", "half throttle"),
                    "hertz_high": reading("170Hz", "full speed"),
                    "grounded": reading("yes", "continuity"),
                },
            }
        ],
        "positions": [
            {
                "name": "Panel lamp",
                "stage": "trial",
                "lamp_id": "own",
                "lamp_volts": "24V",
                "lamp_amps": "0.12A",
                "led_id": "white-5-clear",
                "in_series": 2,
                "target": quantity("3mA"),
                "rectification": "bridge",
                "chassis_negative": True,
                "resistor": "3.9k",
                "rating_w": 0.5,
                "series": "E12",
                "notes": "Bridge and a holder with its case on the panel: the fuse wire went at once.",
            }
        ],
    },
    {
        "name": "Orrery tramway",
        "maker_model": "planet carriages on two rails",
        "board_revision": "",
        "owner": "Fernhollow Observatory",
        "notes": "Turns round at the end of each showing.",
        "rails": [
            {
                "name": "Carriage rails",
                "kind": "reversing",
                "low": reading("2.7V", "slowest crawl"),
                "usual": reading("8.1V", "showing speed"),
                "high": reading("11.4V", "throttle at its end"),
            }
        ],
        "positions": [
            {
                "name": "Mars carriage",
                "stage": "sizing",
                "lamp_id": "grain-12",
                "led_id": "red-3-diffused",
                "target": quantity("3mA"),
                "rectification": "two_colour",
                "second_led_id": "amber-5-diffused",
                "series": "E12",
            }
        ],
    },
    {
        "name": "Visitors' model line",
        "maker_model": "digital, bought in",
        "board_revision": "",
        "owner": "lent by a member",
        "notes": "Coach light without a decoder.",
        "rails": [{"name": "Track", "kind": "digital", "usual": quantity("15.8V", "marked", "on the booster")}],
        "positions": [
            {
                "name": "Coach light",
                "stage": "sizing",
                "led_id": "warm-3-diffused",
                "target": quantity("1.5mA"),
                "rectification": "bridge",
                "series": "E12",
            }
        ],
    },
    {
        "name": "Guide camera box",
        "maker_model": "one-board computer, workshop build",
        "board_revision": "third",
        "owner": "the members",
        "notes": "",
        "take_in": {"hazards": ["static"]},
        "rails": [
            {
                "name": "Status pin",
                "kind": "logic",
                "usual": reading("3.24V", "pin high, open"),
                "details": {"pin": quantity("6mA", "marked", "data sheet"), "source": quantity("35R")},
            }
        ],
        "positions": [
            {
                "name": "Locked on star",
                "stage": "sizing",
                "led_id": "red-3-diffused",
                "target": quantity("2mA"),
                "series": "E12",
            }
        ],
    },
    {
        "name": "Dome hand paddle",
        "maker_model": "four buttons on a long lead",
        "board_revision": "lead replaced",
        "owner": "Fernhollow Observatory",
        "notes": "The rack reads the lamp's line to know whether the paddle is plugged.",
        "rails": [
            {
                "name": "Paddle line",
                "kind": "sense",
                "usual": reading("7.7V", "contact open, 20 V range"),
                "details": {
                    "source": reading("2.4k", "open volts over shorted amps"),
                    "trip": reading("0.85mA", "still ignored at 12k, closed at 8.2k"),
                },
            }
        ],
        "positions": [
            {
                "name": "Fast slew",
                "stage": "sizing",
                "led_id": "red-3-diffused",
                "target": quantity("0.35mA"),
                "series": "E12",
                "readings_before": [
                    _before("dc_volts", "7.5V", "out", state="off", points="lamp"),
                    _before("dc_volts", "0.04V", "out", state="slew", points="lamp"),
                ],
            }
        ],
    },
    {
        "name": "Plate room safelight",
        "maker_model": "mains bulb in a tin",
        "board_revision": "",
        "owner": "Fernhollow Observatory",
        "notes": "For the electrician.",
        "take_in": {
            "hazards": ["mains"],
            "feasibility": {"access": "sealed", "brittle": "brittle", "serviceable": "no", "hours": "6"},
        },
        "rails": [{"name": "Mains", "kind": "winding", "usual": quantity("230Vac", "marked")}],
        "positions": [
            {
                "name": "Safelight",
                "stage": "sizing",
                "led_id": "red-5-diffused",
                "target": quantity("4mA"),
                "mains": True,
                "rectification": "inverse_diode",
            }
        ],
    },
]
