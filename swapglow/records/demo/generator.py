"""A generator set whose lamps do something: one excites, one must be left, one is not explained; and two circuits."""

from typing import Any

from swapglow.records.demo.words import quantity, reading

GENERATOR: list[dict[str, Any]] = [
    {
        "name": "Standby set, lower hut",
        "maker_model": "two-cylinder set with a rewound generator, dash of four lamps",
        "board_revision": "",
        "owner": "Fernhollow Observatory",
        "notes": "Starts the dome when the line is down. Three of its lamps are more than lamps.",
        "promised": "2031-06-30",
        "take_in": {
            "hazards": ["vehicle", "heat"],
            "sharing": "The charge lamp's wire goes to the generator and nowhere else.",
        },
        "rails": [
            {
                "name": "Set battery",
                "kind": "vehicle",
                "usual": reading("13.9V", "set running, warm"),
                "details": {"system": quantity("12", "marked")},
            }
        ],
        "positions": [
            {
                "name": "Charge lamp",
                "stage": "sizing",
                "lamp_id": "own",
                "lamp_volts": "12V",
                "lamp_amps": "0.25A",
                "lamp_base": "miniature bayonet BA9s",
                "led_id": "red-5-diffused",
                "target": quantity("8mA"),
                "purpose": "do",
                "cues": ["no-ground"],
                "second_job": "charge",
            },
            {
                "name": "Governor lamp",
                "stage": "sizing",
                "lamp_id": "own",
                "lamp_volts": "12V",
                "lamp_amps": "0.1A",
                "lamp_base": "screw E10",
                "led_id": "warm-5-diffused",
                "target": quantity("5mA"),
                "purpose": "do",
                "cues": ["hidden", "feedback"],
                "second_job": "amplitude",
                "notes": "Behind the panel, under a tin cap: in the governor's oscillator.",
            },
            {
                "name": "Panel damp lamp",
                "stage": "sizing",
                "lamp_id": "own",
                "lamp_volts": "12V",
                "lamp_amps": "0.42A",
                "lamp_base": "festoon",
                "led_id": "warm-5-diffused",
                "target": quantity("6mA"),
                "cues": ["warms", "hidden"],
                "notes": "No lens. It sits under the meters.",
            },
        ],
        "fitted": {
            "charge": {
                "name": "Charge lamp's loop",
                "place": 0,
                "kind": "charge_lamp",
                "details": {
                    "rest_volts": reading("12.7V", "key on, set still"),
                    "running": reading("13.9V", "set running"),
                    "lamp_volts": quantity("12V", "marked"),
                    "lamp_amps": quantity("0.25A", "marked"),
                    "field": reading("11R", "lamp out, plugs on"),
                    "led": quantity("red-5-diffused", "marked"),
                    "ohm": quantity("1k2", "marked"),
                },
            },
            "turns": {
                "name": "Trailer tell-tale",
                "place": 1,
                "kind": "two_feeds",
                "details": {
                    "volts": reading("13.9V", "set running"),
                    "side_volts": quantity("12V", "marked"),
                    "side_amps": quantity("1.75A", "marked"),
                    "led": quantity("green-3-diffused", "marked"),
                    "ohm": quantity("820R", "marked"),
                    "cure": quantity("none", "marked"),
                },
            },
            "dash": {
                "name": "Dash lamps and their knob",
                "place": 2,
                "kind": "rheostat",
                "details": {
                    "volts": reading("13.9V", "set running"),
                    "track": reading("33R", "across its ends, power off"),
                    "count": quantity("3", "marked"),
                    "lamp_volts": quantity("12V", "marked"),
                    "lamp_amps": quantity("0.1A", "marked"),
                    "led": quantity("warm-5-diffused", "marked"),
                    "ohm": quantity("1k5", "marked"),
                },
            },
            "trailer": {
                "name": "Trailer's rear lamps",
                "place": 3,
                "kind": "lamp_net",
                "details": {
                    "volts": reading("13.7V", "set running, at the socket"),
                    "feeds": quantity("SIDE, BRAKE", "marked"),
                    "lamps": quantity(
                        "side: SIDE to shell, 12V 0.42A\nbrake: BRAKE to shell, 12V 1.5A\n"
                        "plate: SIDE to ground, 12V 0.25A",
                        "marked",
                    ),
                },
            },
            "damp": {
                "name": "Meter case against damp",
                "place": 4,
                "kind": "warmer",
                "details": {
                    "volts": reading("13.1V", "at its holder, set off"),
                    "lamp_volts": quantity("12V", "marked"),
                    "lamp_amps": quantity("0.42A", "marked"),
                    "room": reading("2°C", "coldest night of the log"),
                    "warm": reading("11°C", "beside the meters, lit for an hour"),
                    "damp": quantity("92 %", "measured"),
                    "led_watts": quantity("0.1W", "marked"),
                },
            },
        },
    }
]
