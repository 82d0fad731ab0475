"""One item whose lamps share a battery: several kinds of LED in one place, ready-made lamps, a flasher."""

from typing import Any

from swapglow.records.demo.words import quantity, reading

CART: list[dict[str, Any]] = [
    {
        "name": "Meridian cart",
        "maker_model": "instrument cart on its own track, eleven volts and a bit",
        "board_revision": "",
        "owner": "Fernhollow Observatory",
        "notes": "One battery for all of it, charged indoors. Nobody knows what the old lamps left of a night.",
        "take_in": {
            "hazards": ["vehicle"],
            "dark": "Both scale strips, the left pier lamp.",
            "sharing": "The chronograph hangs on the same battery.",
        },
        "rails": [
            {
                "name": "Cart battery",
                "kind": "battery",
                "usual": reading("12.1V", "20 V range, lamps out"),
                "details": {
                    "chemistry": quantity("lead", "marked"),
                    "cells": quantity("6", "marked"),
                    "capacity": quantity("9Ah", "marked"),
                    "source": quantity("0.4R"),
                },
                "fuse": "1.6A",
                "others": "85mA",
            }
        ],
        "positions": [
            {
                "name": "Scale strips",
                "stage": "sizing",
                "lamp_id": "own",
                "lamp_volts": "12V",
                "lamp_amps": "0.35A",
                "lamp_base": "festoon",
                "led_id": "warm-5-diffused",
                "in_series": 3,
                "branches": 2,
                "target": quantity("5mA"),
                "series": "E12",
                "one_batch": False,
                "beside": {"night": {"name": "Night strip", "led_id": "red-5-clear", "in_series": 4, "drive": "1.2mA"}},
            },
            {
                "name": "Track lamp",
                "stage": "trial",
                "lamp_id": "own",
                "lamp_volts": "12V",
                "lamp_amps": "0.42A",
                "led_id": "white-5-clear",
                "target": quantity("40mA"),
                "band": "10-15V",
                "lit": "sometimes",
                "module": {
                    "amps": "38mA",
                    "at": "12.4V",
                    "second_volts": "13.9V",
                    "second_amps": "55mA",
                    "polarised": "yes",
                    "candela": "3cd",
                },
            },
            {
                "name": "Clamp blinker",
                "stage": "sizing",
                "lamp_id": "own",
                "lamp_volts": "12V",
                "lamp_amps": "0.17A",
                "led_id": "amber-5-diffused",
                "in_series": 3,
                "target": quantity("9mA"),
                "series": "E12",
                "driver_kind": "flasher",
                "driver_details": {
                    "counts": quantity("yes", "marked"),
                    "rate": quantity("76", "measured"),
                    "duty": quantity("45 %", "measured"),
                    "right_with": quantity("150R", "measured"),
                    "place": quantity("metal", "marked"),
                },
            },
            {
                "name": "Left pier lamp",
                "stage": "sizing",
                "lamp_id": "own",
                "lamp_volts": "12V",
                "lamp_amps": "0.1A",
                "led_id": "green-3-diffused",
                "in_series": 2,
                "target": quantity("2mA"),
                "series": "E12",
                "lit": "single",
            },
            {
                "name": "Right pier lamp",
                "stage": "sizing",
                "lamp_id": "own",
                "lamp_volts": "12V",
                "lamp_amps": "0.1A",
                "led_id": "red-3-diffused",
                "in_series": 3,
                "target": quantity("3mA"),
                "series": "E12",
                "lit": "single",
            },
        ],
    }
]
