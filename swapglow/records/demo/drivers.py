"""One item for each kind of driver, and the difficulty it brings."""

from typing import Any

from swapglow.records.demo.words import quantity, reading

DRIVERS: list[dict[str, Any]] = [
    {
        "name": "Slit door sequencer",
        "maker_model": "relay and transistor board, own make",
        "board_revision": "C, with the added delay",
        "owner": "Fernhollow Observatory",
        "notes": "Somebody fitted LEDs years ago. They never go out.",
        "rails": [
            {
                "name": "Logic supply",
                "usual": reading("6.2V", "20 V range"),
                "low": reading("6.0V", "motor starting"),
                "high": reading("6.4V", "idle"),
            }
        ],
        "positions": [
            {
                "name": "Door running",
                "stage": "trial",
                "lamp_id": "own",
                "lamp_volts": "6V",
                "lamp_amps": "0.09A",
                "lamp_base": "bi-pin",
                "led_id": "red-5-diffused",
                "in_series": 2,
                "target": quantity("8mA"),
                "driver_kind": "low_side",
                "driver_drop": reading("0.16V", "across the transistor, lit"),
                "driver_details": {
                    "keep_warm": quantity("390R", "marked", "bands"),
                    "hangs_on": quantity("the close delay", "marked"),
                },
                "series": "E12",
            },
            {
                "name": "Door shut",
                "stage": "fitted",
                "lamp_id": "own",
                "lamp_volts": "6V",
                "lamp_amps": "0.09A",
                "lamp_base": "bi-pin",
                "led_id": "red-5-diffused",
                "in_series": 2,
                "target": quantity("8mA"),
                "driver_kind": "low_side",
                "driver_drop": reading("0.15V", "across the transistor, lit"),
                "driver_details": {"keep_warm": quantity("390R", "marked", "bands")},
                "series": "E12",
                "shunt": "180R",
                "shunt_across": "assembly",
                "shunt_w": 0.5,
                "resistor": "270R",
                "readings_after": [("current", "7.6mA", "2R", "20 mA range")],
            },
        ],
    },
    {
        "name": "Wind vane repeater",
        "maker_model": "sixteen segments, one driver chip",
        "board_revision": "second",
        "owner": "Fernhollow Observatory",
        "notes": "A Darlington for each segment; common positive to all lamps.",
        "rails": [
            {
                "name": "Segment supply",
                "kind": "unregulated",
                "usual": reading("17.6V", "eight segments lit"),
                "details": {"frame_pole": reading("minus", "no sign, black lead on the case")},
            }
        ],
        "positions": [
            {
                "name": "North-east",
                "stage": "sizing",
                "led_id": "yellow-5-diffused",
                "target": quantity("5mA"),
                "driver_kind": "darlington",
                "common": "positive",
                "series": "E12",
            },
            {
                "name": "Calm",
                "stage": "sizing",
                "led_id": "lime-5-diffused",
                "target": quantity("5mA"),
                "driver_kind": "high_side",
                "driver_details": {"leak": reading("0.03mA", "lamp out, 200 µA range")},
                "common": "chassis",
                "lead": "negative",
                "series": "E12",
            },
        ],
    },
    {
        "name": "Mean time clock",
        "maker_model": "dial 30 cm, lit from behind",
        "board_revision": "",
        "owner": "Fernhollow Observatory",
        "notes": "Two lamps in series behind the dial; the lower one still works.",
        "rails": [
            {
                "name": "Clock supply",
                "usual": reading("13.6V", "20 V range"),
                "low": reading("13.1V", "striking"),
                "high": reading("14.0V", "idle"),
            }
        ],
        "positions": [
            {
                "name": "Upper dial lamp",
                "stage": "sizing",
                "lamp_id": "own",
                "lamp_volts": "6.5V",
                "lamp_amps": "0.11A",
                "lamp_base": "miniature screw E10",
                "led_id": "warm-5-diffused",
                "looks": {"how": "window", "glass": "aged", "width": "46mm", "height": "17mm", "depth": "19mm"},
                "target": quantity("6mA"),
                "driver_kind": "series_lamps",
                "driver_details": {"others": quantity("1", "marked")},
                "series": "E12",
            }
        ],
    },
    {
        "name": "Time signal receiver",
        "maker_model": "long wave, built by a member",
        "board_revision": "as drawn in the log",
        "owner": "lent by a member",
        "notes": "One wire-wound resistor feeds the dial lamp, the meter lamp and the oscillator.",
        "rails": [
            {
                "name": "Main supply",
                "usual": reading("20.5V", "200 V range"),
                "low": reading("19.6V", "evening"),
                "high": reading("21.3V", "morning"),
            }
        ],
        "positions": [
            {
                "name": "Dial lamp",
                "stage": "sizing",
                "lamp_id": "own",
                "lamp_volts": "8V",
                "lamp_amps": "0.07A",
                "lamp_base": "miniature bayonet BA9s",
                "led_id": "amber-5-diffused",
                "target": quantity("5mA"),
                "driver_kind": "shared",
                "series": "E12",
                "driver_details": {
                    "dropper": quantity("82R", "marked"),
                    "loads": quantity("meter lamp 8V 0.05A; oscillator 18mA; smoothing capacitor max 16V", "marked"),
                },
            }
        ],
    },
    {
        "name": "Night assistant's call box",
        "maker_model": "push button and lamp on a two-wire line",
        "board_revision": "",
        "owner": "Fernhollow Observatory",
        "notes": "With the book's 330 Ω the bell rang without end.",
        "rails": [
            {
                "name": "Call line",
                "kind": "sense",
                "usual": reading("8.6V", "button open, 20 V range"),
                "low": reading("8.3V", "evening"),
                "high": reading("8.8V", "morning"),
                "details": {
                    "source": reading("1.8k", "open volts over shorted amps"),
                    "works": reading("9.1k", "bell silent, button still rings"),
                    "fails": reading("7.5k", "bell rings by itself"),
                    "trial_with": quantity("led", "marked"),
                },
            }
        ],
        "positions": [
            {
                "name": "Call",
                "stage": "trial",
                "led_id": "red-3-diffused",
                "target": quantity("10mA"),
                "resistor": "330R",
                "series": "E12",
            }
        ],
    },
    {
        "name": "Summit tractor",
        "maker_model": "twelve volts, open cab",
        "board_revision": "",
        "owner": "the estate",
        "notes": "Both front indicators; the rear ones stay as they are.",
        "take_in": {"hazards": ["vehicle", "heat"]},
        "rails": [
            {
                "name": "Chassis supply",
                "kind": "vehicle",
                "usual": reading("13.7V", "engine at working speed"),
                "high": reading("14.3V", "after a cold start"),
                "details": {"system": quantity("12", "marked"), "frame_pole": reading("minus", "no sign")},
            }
        ],
        "positions": [
            {
                "name": "Indicator, left front",
                "stage": "sizing",
                "lamp_id": "own",
                "lamp_volts": "12V",
                "lamp_amps": "1.5A",
                "lamp_candela": "30",
                "lamp_base": "bayonet BA15s",
                "led_id": "amber-5-diffused",
                "in_series": 3,
                "branches": 8,
                "target": quantity("9mA"),
                "driver_kind": "flasher",
                "driver_drop": quantity("0.1V"),
                "driver_details": {
                    "trip": reading("2.4A", "lamps taken out one by one"),
                    "rest": reading("1.55A", "rear lamp alone"),
                    "rate": reading("78", "counted"),
                    "place": quantity("metal", "marked"),
                    "there": quantity("1", "marked"),
                },
                "series": "E12",
            },
            {
                "name": "Indicator, right front",
                "stage": "trial",
                "lamp_id": "own",
                "lamp_volts": "12V",
                "lamp_amps": "1.5A",
                "lamp_candela": "30",
                "lamp_base": "bayonet BA15s",
                "led_id": "amber-5-diffused",
                "target": quantity("9mA"),
                "band": "10-15V",
                "module": {
                    "amps": "380mA",
                    "law": "current",
                    "polarised": "yes",
                    "throttle": "65 %",
                    "after": "45s",
                    "candela": "35cd",
                },
                "driver_kind": "flasher",
                "shunt": "18R",
                "shunt_across": "assembly",
                "shunt_w": 25,
                "driver_details": {
                    "trip": reading("2.4A", "lamps taken out one by one"),
                    "rest": reading("1.55A", "rear lamp alone"),
                    "place": quantity("plastic", "marked"),
                    "there": quantity("2", "marked"),
                    "still_fast": quantity("yes", "marked"),
                },
            },
        ],
    },
    {
        "name": "Visitors' bus",
        "maker_model": "twelve volts, computer-fed lamps",
        "board_revision": "",
        "owner": "the estate",
        "notes": "Entry step light twinkles with the ignition off.",
        "take_in": {"hazards": ["vehicle"]},
        "rails": [
            {
                "name": "Body supply",
                "kind": "vehicle",
                "usual": reading("13.9V", "running"),
                "details": {"system": quantity("12", "marked")},
            }
        ],
        "positions": [
            {
                "name": "Step light",
                "stage": "sizing",
                "lamp_id": "festoon-12",
                "led_id": "warm-5-diffused",
                "in_series": 2,
                "target": quantity("8mA"),
                "driver_kind": "lamp_check",
                "driver_details": {
                    "pulse": reading("3ms", "oscilloscope"),
                    "period": reading("180ms", "oscilloscope"),
                    "pulse_source": quantity("330R"),
                    "trip": quantity("4mA"),
                },
                "series": "E12",
            }
        ],
    },
    {
        "name": "Stair markers",
        "maker_model": "eleven bayonet lamps to the dome",
        "board_revision": "",
        "owner": "Fernhollow Observatory",
        "notes": "Ready-made lamps bought in; first of a kind tried.",
        "rails": [
            {
                "name": "Emergency supply",
                "usual": reading("25.2V", "on the charger"),
                "low": reading("22.6V", "on the cells"),
                "high": reading("27.1V", "boost charge"),
            }
        ],
        "positions": [
            {
                "name": "Fourth step",
                "stage": "trial",
                "lamp_id": "1820",
                "led_id": "warm-5-diffused",
                "target": quantity("10mA"),
                "band": "20-30V",
                "driver_kind": "direct",
                "module": {"amps": "14mA", "law": "power", "polarised": "no", "candela": "1.4cd"},
            }
        ],
    },
]
