"""A second job's circuit is begun with what its lamp says, and each job that is worked out names its circuits."""

import pytest

from swapglow.core.circuits import CIRCUITS
from swapglow.core.circuits.from_lamp import from_lamp
from swapglow.core.intake.second_job import JOBS
from swapglow.core.quantities import Source
from tests.core.supplies import lamp, on

P = on(
    "vehicle",
    "13.8V",
    {"system": "12"},
    low="11.6V",
    high="14.6V",
    resistor="820R",
    led_id="green-5-clear",
    **lamp("12V", "0.18A"),
)


@pytest.mark.parametrize(
    ("kind", "known"),
    [
        ("charge_lamp", {"lamp_volts": "12 V", "lamp_amps": "180 mA", "led": "green-5-clear", "ohm": "820 Ω"}),
        (
            "rheostat",
            {"volts": "13.8 V", "lamp_volts": "12 V", "lamp_amps": "180 mA", "led": "green-5-clear", "ohm": "820 Ω"},
        ),
        (
            "coil",
            {
                "low": "11.6 V",
                "high": "14.6 V",
                "lamp_volts": "12 V",
                "lamp_amps": "180 mA",
                "led": "green-5-clear",
                "ohm": "820 Ω",
            },
        ),
        (
            "gauge",
            {
                "low": "11.6 V",
                "usual": "13.8 V",
                "high": "14.6 V",
                "lamp_volts": "12 V",
                "lamp_amps": "180 mA",
                "led": "green-5-clear",
                "ohm": "820 Ω",
            },
        ),
        ("warmer", {"volts": "13.8 V", "lamp_volts": "12 V", "lamp_amps": "180 mA"}),
        ("lamp_net", {"volts": "13.8 V", "led": "green-5-clear"}),
    ],
)
def test_what_the_lamp_knows_is_typed_already(kind, known):
    found = from_lamp(CIRCUITS[kind], P)
    assert {k: v.text.replace("\u00a0", " ") for k, v in found.items()} == known
    CIRCUITS[kind].read(found)
    for id_ in ("volts", "low", "usual"):
        assert id_ not in found or found[id_].source is Source.MEASURED
    assert "lamp_volts" not in found or found["lamp_volts"].source is Source.MARKED


def test_nothing_is_made_up():
    """No lamp known, a ready-made lamp: what is not known stays empty."""
    found = from_lamp(CIRCUITS["rheostat"], on("regulated", "12V", resistor="1k"))
    assert set(found) == {"volts", "led", "ohm"}
    module = on("regulated", "12V", band="10-15V", led_id="white-5-clear", module={"amps": "20mA"})
    assert "ohm" not in from_lamp(CIRCUITS["rheostat"], module)


def test_every_job_that_is_given_to_a_part_is_worked_out_somewhere():
    for job in JOBS.values():
        assert (job.verdict == "part") == bool(job.circuits)
        assert set(job.circuits) <= set(CIRCUITS)
