"""What somebody has in hand, and at most two more questions: which lamp or circuit is begun with that.

What light is asked for first, then what can be seen of its feed, then whether the lamp does more than shine: that
question stands before any resistor is chosen (common practice). Every answer may be changed later on.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from typing import Literal

from swapglow.core.quantities import InputError

What = Literal["lamp", "circuit", "dim"]


@dataclass(frozen=True)
class Begun:
    """What an answer begins.

    Attributes:
        what: a lamp to be swapped, a circuit of a kind, or a fitted LED that is to be dimmed.
        circuit: the kind of circuit; "" for none.
        supply: the kind of its rail; "" where the item's first will do.
        fields: of the lamp, by name.
        panel: the part of its view that is opened first; "" for none.
    """

    what: What = "lamp"
    circuit: str = ""
    supply: str = ""
    fields: Mapping[str, str] = field(default_factory=dict)
    panel: str = ""


@dataclass(frozen=True)
class Answer:
    """An answer to a question.

    Attributes:
        id, label: the answer.
        begins: what follows from it; None where nothing does.
        refused: why nothing is begun; "" where something is.
    """

    id: str
    label: str
    begins: Begun | None = None
    refused: str = ""


@dataclass(frozen=True)
class Question:
    """A question by what can be seen: its answers, the likeliest first."""

    id: str
    ask: str
    answers: tuple[Answer, ...]


@dataclass(frozen=True)
class Start:
    """What somebody may have.

    Attributes:
        id, label, line: what it is, and how one knows it.
        name: what the new lamp is called until somebody names it.
        words: other words that it is searched by.
        questions: what is asked then.
        begins: what is begun where the answers say nothing else.
    """

    id: str
    label: str
    line: str
    name: str
    words: str
    questions: tuple[Question, ...] = ()
    begins: Begun = field(default_factory=Begun)


def _lamp(supply: str = "", panel: str = "", **fields: str) -> Begun:
    return Begun(supply=supply, fields=fields, panel=panel)


def _circuit(kind: str) -> Begun:
    return Begun("circuit", kind)


_DOES = Question(
    "does",
    "Does it do anything else than shine?",
    (
        Answer("no", "No: it only shows or lights something"),
        Answer("unknown", "I do not know yet"),
        Answer("charge", "It lights until something charges", _lamp(purpose="do", second_job="charge")),
        Answer("coil", "A relay, magnet or motor is in its wire", _lamp(purpose="do", second_job="coil")),
        Answer("dimmed", "A knob dims it", _lamp(purpose="do", second_job="dimmed")),
        Answer("two-feeds", "It stands between two feeds", _lamp(purpose="do", second_job="two-feeds")),
        Answer("reading", "Its brightness is a reading", _lamp(purpose="do", second_job="reading")),
        Answer("infrared", "A detector looks at it", _lamp(purpose="do", second_job="infrared")),
        Answer("heat", "It warms something", _lamp(purpose="do", second_job="heat")),
        Answer("protects", "It limits, protects or regulates", _lamp(purpose="do")),
        Answer(
            "neon",
            "It is a neon or discharge lamp",
            refused="A neon or discharge lamp has no filament. It strikes at some 60 V or more, and what drives it is "
            "made for that. An LED does not take its place: fit the same type.",
        ),
    ),
)

STARTS: dict[str, Start] = {
    s.id: s
    for s in (
        Start(
            "bulb",
            "Bulb in a holder",
            "A filament lamp in a socket, on wires, or soldered in.",
            "Lamp",
            "filament pilot incandescent bayonet screw grain",
            (
                Question(
                    "feed",
                    "What feeds it?",
                    (
                        Answer("unknown", "I do not know yet"),
                        Answer("dc", "A steady DC supply", _lamp("regulated")),
                        Answer("rectified", "A transformer and rectifier, not regulated", _lamp("unregulated")),
                        Answer("ac", "A transformer's winding, AC", _lamp("winding")),
                        Answer("battery", "A battery", _lamp("battery")),
                        Answer("pin", "A logic output or a relay driver's pin", _lamp("logic")),
                        Answer("line", "A switch or sense line", _lamp("sense")),
                    ),
                ),
                _DOES,
            ),
        ),
        Start(
            "vehicle",
            "Vehicle bulb",
            "Car, motorcycle, tractor, boat: a battery that is charged while it lights.",
            "Vehicle lamp",
            "car motorcycle tractor boat indicator brake festoon dashboard 12 volt",
            (
                Question(
                    "place",
                    "What does it do there?",
                    (
                        Answer("inside", "Dash, interior or number plate", _lamp("vehicle")),
                        Answer("turn", "Turn signal", _lamp("vehicle", driver_kind="flasher")),
                        Answer(
                            "checked",
                            "Brake or tail lamp that a computer checks",
                            _lamp("vehicle", driver_kind="lamp_check"),
                        ),
                        Answer(
                            "charge",
                            "Charge or ignition tell-tale",
                            _lamp("vehicle", purpose="do", second_job="charge"),
                        ),
                        Answer("magneto", "No battery: lamps straight from a magneto", _circuit("magneto")),
                    ),
                ),
                _DOES,
            ),
        ),
        Start(
            "model",
            "Model or track lamp",
            "Locomotives, coaches, buildings, signals.",
            "Model lamp",
            "railway locomotive coach track digital toy layout",
            (
                Question(
                    "feed",
                    "What feeds it?",
                    (
                        Answer("track", "The track, which is turned round to go back", _lamp("reversing")),
                        Answer("digital", "A digital track", _lamp("digital")),
                        Answer("ac", "A transformer, AC", _lamp("winding")),
                        Answer("dc", "A steady DC supply", _lamp("regulated")),
                        Answer("battery", "A battery", _lamp("battery")),
                    ),
                ),
                _DOES,
            ),
        ),
        Start(
            "dial",
            "Dial, panel or backlight",
            "A lamp that lights something else: a scale, a meter, a display.",
            "Dial lamp",
            "scale meter display backlight illumination radio photo",
            (
                Question(
                    "how",
                    "How is it fed?",
                    (
                        Answer("steady", "By a rail of its own, or I do not know", _lamp(purpose="light")),
                        Answer("ac", "By a transformer's winding, AC", _lamp("winding", purpose="light")),
                        Answer("knob", "Several of them behind one knob", _circuit("rheostat")),
                        Answer("net", "Several that feed each other", _circuit("lamp_net")),
                    ),
                ),
                _DOES,
            ),
        ),
        Start(
            "there",
            "LED that is there already",
            "Too bright, too dim, flickering, or one of many.",
            "Fitted LED",
            "dim dimmer dimming too bright router standby",
            (
                Question(
                    "wish",
                    "What is it?",
                    (
                        Answer("resistor", "One LED with a resistor, too bright", Begun("dim")),
                        Answer("banks", "Banks of LED chips on one driver", _circuit("chip_bank")),
                        Answer("matrix", "Rows and columns", _circuit("lamp_matrix")),
                        Answer("dropper", "Behind a capacitor on the mains", _circuit("dropper")),
                        Answer("pulsed", "On pulses or a strobe", _circuit("strobed")),
                        Answer("phase", "Behind a dimmer on AC", _circuit("phase_dimmer")),
                    ),
                ),
            ),
            Begun("dim"),
        ),
        Start(
            "board",
            "Ready-made LED lamp or board",
            "LEDs that come with their resistor, regulator or driver.",
            "Ready-made lamp",
            "driver retrofit module regulator plug board",
            (
                Question(
                    "kind",
                    "What is to be done with it?",
                    (
                        Answer("fit", "Fit it in a bulb's place", _lamp(panel="led")),
                        Answer("sense", "Turn its driver board down", _circuit("sense_board")),
                        Answer("converter", "Feed LEDs through a switching converter", _circuit("converter_board")),
                        Answer("regulator", "Pick a regulator for LEDs", _circuit("regulator_pick")),
                    ),
                ),
                _DOES,
            ),
        ),
        Start(
            "string",
            "String or sign",
            "Many LEDs one after another: a light string to cut, a sign with many strings.",
            "String",
            "christmas fairy strip cut sign letters series",
            (
                Question(
                    "kind",
                    "What is it?",
                    (
                        Answer("cut", "A light string, to be cut or mended", _circuit("light_string")),
                        Answer(
                            "sign",
                            "A sign: strings with a resistor each on one supply",
                            _lamp("regulated", panel="led"),
                        ),
                        Answer("banks", "Banks of chips on one driver", _circuit("chip_bank")),
                    ),
                ),
            ),
            _circuit("light_string"),
        ),
        Start(
            "power",
            "Projector or power LED",
            "A watt or more, on a heat sink.",
            "Power LED",
            "projector heat sink cob fan watt hot",
            begins=_circuit("power_led"),
        ),
        Start(
            "none",
            "No lamp yet",
            "A light where none was, or a wire that nobody knows.",
            "New light",
            "new add wire unknown tap clip",
            (
                Question(
                    "wish",
                    "What is there?",
                    (
                        Answer("new", "A supply to hang a light on", _circuit("new_light")),
                        Answer("wire", "A wire that nobody knows", _circuit("blind_clip")),
                        Answer("cable", "A long cable, or a triac that leaks", _circuit("cable")),
                        Answer("quiet", "A place near audio or a receiver", _circuit("hum")),
                    ),
                ),
            ),
            _circuit("new_light"),
        ),
    )
}


def begun(start: str, answers: Iterable[str]) -> tuple[Start, Begun]:
    """What is begun with some answers, in the questions' order.

    A circuit ends the questions: what it does is its own matter.

    Args:
        start: what somebody has.
        answers: ids; fewer than there are questions leave the others unasked.

    Returns:
        The start, and what it begins.

    Raises:
        InputError: there is no such start or answer, or what it is is refused by name.
    """
    if start not in STARTS:
        raise InputError("start", f'There is nothing "{start}" to begin with: {", ".join(STARTS)}.')
    found = STARTS[start]
    out = found.begins
    given = list(answers)
    if len(given) > len(found.questions):
        raise InputError("answers", f"{found.label} asks {len(found.questions)} questions; {len(given)} were answered.")
    for question, id_ in zip(found.questions, given, strict=False):
        answer = next((a for a in question.answers if a.id == id_), None)
        if answer is None:
            known = ", ".join(a.id for a in question.answers)
            raise InputError("answers", f'"{id_}" is no answer to "{question.ask}": {known}.')
        if answer.refused:
            raise InputError("answers", answer.refused)
        more = answer.begins
        if more is None:
            continue
        if more.what != "lamp":
            return found, more
        out = replace(
            out,
            what="lamp",
            circuit="",
            supply=more.supply or out.supply,
            fields={**out.fields, **more.fields},
            panel=more.panel or out.panel,
        )
    return found, out
