"""The observatory's first five items, on steady rails."""

from typing import Any

from swapglow.records.demo.words import quantity, reading

EQUIPMENT: list[dict[str, Any]] = [
    {
        "name": "Dome rotation desk",
        "maker_model": "built on site, relay desk of 1961",
        "board_revision": "lamp panel B",
        "owner": "Fernhollow Observatory",
        "notes": "Originals in bag 14, shelf C. Panel lifts on two hidden screws under the name strip.",
        "rails": [
            {
                "name": "Relay rail",
                "low": reading("24.8V", "DC volts, 200 V range, motor running"),
                "usual": reading("26.3V", "DC volts, 200 V range, dome at rest"),
                "high": reading("27.9V", "DC volts, 200 V range, all relays dropped"),
            }
        ],
        "positions": [
            {
                "name": "Shutter open",
                "stage": "done",
                "lamp_id": "slide-24",
                "led_id": "green-3-diffused",
                "target": quantity("1.8mA"),
                "resistor": "15k",
                "rating_w": 0.25,
                "series": "E12",
                "driver_drop": reading("0.14V", "across the relay contact and wiring"),
                "vf": reading("2.9-3.3V", "five parts on clips at 2 mA"),
                "readings_after": [("current", "1.57mA", "5R", "20 mA range, covers on")],
            },
            {
                "name": "Shutter closed",
                "stage": "fitted",
                "lamp_id": "slide-24",
                "led_id": "red-3-diffused",
                "target": quantity("9mA"),
                "resistor": "2.7k",
                "rating_w": 0.5,
                "series": "E12",
                "driver_drop": reading("0.14V", "across the relay contact and wiring"),
                "steps": {
                    "works": {"done": True, "at": "2026-10-02T09:40:00Z"},
                    "polarity": {"done": True, "at": "2026-10-02T10:05:00Z"},
                    "solder": {"note": "Upper lug is loose: crimped before soldering", "minutes": "20"},
                },
                "checks": {
                    "limit": {
                        "place": 0,
                        "what": "Shutter run onto its limit",
                        "should": "Lights as it stops",
                        "before": "works",
                        "after": "works",
                    },
                    "desk": {
                        "place": 1,
                        "what": "Desk lamp test pressed",
                        "should": "Lights while pressed",
                        "before": "works",
                    },
                },
                "hours": "50 min",
                "cost": "0.60",
                "look_again": "2031-11-02",
                "readings_after": [("current", "8.9mA", "5R", "20 mA range, on clips")],
            },
            {
                "name": "Wind hold",
                "stage": "sizing",
                "lamp_id": "slide-24",
                "led_id": "amber-5-diffused",
                "in_series": 2,
                "target": quantity("7mA"),
                "rating_w": 0.25,
                "driver_drop": quantity("0.2V"),
            },
        ],
    },
    {
        "name": "Sidereal clock, east pier",
        "maker_model": "one of a pair, dial by the workshop",
        "board_revision": "",
        "owner": "Fernhollow Observatory",
        "notes": "Dial lamps fade the numerals. Battery floats across the rail.",
        "rails": [
            {
                "name": "Float rail",
                "low": reading("12.4V", "charger off, overnight"),
                "usual": reading("13.2V", "DC volts, 20 V range"),
                "high": reading("13.9V", "just after equalising"),
            }
        ],
        "positions": [
            {
                "name": "Dial, left",
                "stage": "trial",
                "lamp_id": "grain-12",
                "looks": {"how": "lights", "width": "74mm", "height": "38mm", "depth": "22mm", "spacing": "31mm"},
                "led_id": "warm-3-diffused",
                "in_series": 2,
                "target": quantity("6mA"),
                "resistor": "1.2k",
                "rating_w": 0.25,
                "series": "E12",
                "readings_after": [("current", "0.67mA", "5R", "2 mA range, on clips")],
            },
            {
                "name": "Dial, right",
                "stage": "sizing",
                "lamp_id": "grain-12",
                "looks": {"how": "lights", "width": "74mm", "height": "38mm", "depth": "22mm", "spacing": "24mm"},
                "led_id": "warm-3-diffused",
                "in_series": 3,
                "target": quantity("6mA"),
                "rating_w": 0.25,
                "series": "E12",
            },
        ],
    },
    {
        "name": "Plate camera console",
        "maker_model": "shutter timer, three decks",
        "board_revision": "deck 2 hand-marked R4",
        "owner": "lent by a member",
        "notes": "Dark-room use: nothing brighter than the old lamp.",
        "rails": [
            {
                "name": "Exposure lamp",
                "read_at": "lamp",
                "usual": reading("6.7V", "across the holder, old lamp lit, 20 V range"),
            }
        ],
        "positions": [
            {
                "name": "Exposure running",
                "stage": "trial",
                "lamp_id": "own",
                "lamp_volts": "6.5V",
                "lamp_amps": "0.11A",
                "lamp_candela": "0.21cd",
                "lamp_base": "miniature screw",
                "led_id": "red-5-clear",
                "target": quantity("0.9mA"),
                "resistor": "5.6k",
                "rating_w": 0.25,
            }
        ],
    },
    {
        "name": "Spectrograph cart",
        "maker_model": "arc supply and camera on one trolley",
        "board_revision": "C, reworked",
        "owner": "Fernhollow Observatory",
        "notes": "Someone swapped this lamp before us, sized on the name plate. Marked do not use.",
        "rails": [{"name": "Arc interlock", "usual": quantity("34V±8%", "marked", "name plate")}],
        "positions": [
            {
                "name": "Arc ready",
                "stage": "fitted",
                "lamp_id": "bipin-28",
                "led_id": "blue-5-clear",
                "target": quantity("20mA"),
                "resistor": "1.3k",
                "rating_w": 0.25,
                "notes": "Brown mark on the board under the resistor.",
            }
        ],
    },
    {
        "name": "Transit chronograph",
        "maker_model": "two-pen drum recorder",
        "board_revision": "A",
        "owner": "Fernhollow Observatory",
        "notes": "",
        "dims": {
            "tape": {
                "name": "Tape gate light",
                "resistor": "390R",
                "place": 0,
                "trials": {
                    "a": {"resistor": "1k5", "verdict": "bright", "at": "2026-02-11", "place": 0},
                    "b": {"resistor": "5k6", "verdict": "dim", "at": "2026-02-11", "place": 1},
                },
            }
        },
        "fitted": {
            "backlight": {
                "name": "Chart backlight",
                "place": 0,
                "kind": "chip_bank",
                "details": {
                    "rail": quantity("5.1V", "measured"),
                    "wanted": quantity("30 %", "marked"),
                    "banks": quantity("chart: 6 white × 120R\npens: 2 red × 270R\nclock: 3 green on 68R", "marked"),
                    "revision": quantity("A", "marked"),
                },
            },
            "ceiling": {
                "name": "Ceiling bulb over the drum",
                "place": 1,
                "kind": "sense_board",
                "details": {
                    "sense_ohm": quantity("5R6 ‖ 7R5", "marked"),
                    "wanted": quantity("60 %", "marked"),
                    "count": quantity("16", "marked"),
                    "each": quantity("9V", "marked"),
                    "board": quantity("83°C", "measured"),
                    "room": quantity("30°C", "measured"),
                },
            },
            "stairs": {
                "name": "Stair lights",
                "place": 2,
                "kind": "light_string",
                "details": {
                    "feed": quantity("full", "marked"),
                    "volts": quantity("31V", "marked"),
                    "count": quantity("10", "marked"),
                    "keep": quantity("7", "marked"),
                    "amps": quantity("25mA", "marked"),
                    "led": quantity("warm-5-clear", "marked"),
                },
            },
            "plates": {
                "name": "Plate viewer",
                "place": 3,
                "kind": "power_led",
                "details": {
                    "led_v": quantity("33-37V", "marked"),
                    "led_a": quantity("600mA", "marked"),
                    "driver_a": quantity("500mA", "marked"),
                    "driver_v": quantity("25-40V", "marked"),
                    "sink": quantity("5.6K/W", "assumed"),
                    "room": quantity("38°C", "measured"),
                    "lumens": quantity("2200lm", "marked"),
                    "accept": quantity("25 %", "assumed"),
                    "old": quantity("1600lm", "marked"),
                    "old_accept": quantity("30 %", "assumed"),
                },
            },
            "corridor": {
                "name": "Corridor panel",
                "place": 4,
                "kind": "converter_board",
                "details": {
                    "string": quantity("42V", "marked"),
                    "read": quantity("250mA", "marked"),
                    "wanted": quantity("40 %", "marked"),
                },
            },
            "gate": {
                "name": "Gate lamp",
                "place": 5,
                "kind": "dropper",
                "details": {
                    "volts": quantity("230V", "marked"),
                    "drop": quantity("330nF", "marked"),
                    "string": quantity("84V", "marked"),
                    "bleed": quantity("470k", "marked"),
                },
            },
            "stars": {
                "name": "Star panel",
                "place": 6,
                "kind": "lamp_matrix",
                "details": {
                    "volts": quantity("14V", "measured"),
                    "rows": quantity("6", "marked"),
                    "columns": quantity("9", "marked"),
                    "led": quantity("warm-5-clear", "marked"),
                    "ohm": quantity("390R", "marked"),
                    "leak": quantity("33k", "measured"),
                    "hertz": quantity("160Hz", "measured"),
                    "fall": quantity("15us", "measured"),
                },
            },
            "clock": {
                "name": "Sidereal clock's digits",
                "place": 7,
                "kind": "strobed",
                "details": {
                    "feed": quantity("pwm", "marked"),
                    "volts": quantity("9V", "measured"),
                    "duty": quantity("35 %", "measured"),
                    "hertz": quantity("400Hz", "measured"),
                    "ohm": quantity("180R", "marked"),
                    "led": quantity("red-3-diffused", "marked"),
                },
            },
            "dome": {
                "name": "Dome's dimmed rail",
                "place": 8,
                "kind": "phase_dimmer",
                "details": {
                    "volts": quantity("28Vac", "measured"),
                    "led": quantity("warm-5-clear", "marked"),
                    "series": quantity("5", "marked"),
                    "ohm": quantity("820R", "marked"),
                    "least": quantity("15W", "marked"),
                    "hold": quantity("20mA", "marked"),
                },
            },
            "pens": {
                "name": "Pen scale's regulator",
                "place": 9,
                "kind": "regulator_pick",
                "details": {
                    "low": quantity("16.2V", "measured"),
                    "high": quantity("20.5V", "measured"),
                    "led": quantity("lime-5-diffused", "marked"),
                    "series": quantity("2", "marked"),
                    "amps": quantity("9mA", "marked"),
                },
            },
            "busy": {
                "name": "Busy light for the door",
                "place": 10,
                "kind": "new_light",
                "details": {
                    "feed": quantity("ttl", "marked"),
                    "high": quantity("3.3V", "measured"),
                    "supply": quantity("5V", "measured"),
                    "led": quantity("red-5-diffused", "marked"),
                    "amps": quantity("3mA", "marked"),
                },
            },
        },
        "rails": [{"name": "Pen supply", "usual": quantity("17-19.5V")}],
        "positions": [
            {
                "name": "Pen lamp",
                "stage": "sizing",
                "lamp_id": "slide-24",
                "led_id": "white-3-diffused",
                "target": quantity("4mA"),
            }
        ],
    },
]
