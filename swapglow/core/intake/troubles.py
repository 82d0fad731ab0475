"""What may be wrong with a light, as somebody sees it: where to look, in the order in which it is told soonest.

The order is common practice: what endangers first, then what is seen, then what is read, then what is taken apart.
"""

from dataclasses import dataclass
from typing import Literal

# The parts of a lamp's view, and the views beside it, that a trouble leads to.
Place = Literal[
    "readings", "rail", "driver", "rectification", "resistor", "led", "looks", "swaps", "job", "build", "match"
]


@dataclass(frozen=True)
class Lead:
    """Where to go: a place, and what is found out or cured there."""

    place: Place
    text: str


@dataclass(frozen=True)
class Trouble:
    """A trouble.

    Attributes:
        id, label: what is seen.
        first: what is done before anything else.
        words: other words that it is searched by.
        leads: where to go, the first one first.
    """

    id: str
    label: str
    first: str
    words: str
    leads: tuple[Lead, ...]


_READ = Lead(
    "readings", "Write down what you see, then take the reading that is asked for. It says what is likely wrong."
)

TROUBLES: dict[str, Trouble] = {
    t.id: t
    for t in (
        Trouble(
            "dark",
            "It will not light",
            "Turn the LED round once: most that stay dark stand the wrong way round.",
            "dark dead open off nothing",
            (_READ, Lead("driver", "See whether its driver reaches so small a load.")),
        ),
        Trouble(
            "one-way",
            "It lights one way round only",
            "On DC that is how LEDs are. On AC, or on a track that is turned round, it needs a bridge.",
            "polarity reversed bridge direction",
            (
                Lead("rectification", "Choose a bridge, or another way to rectify."),
                Lead("led", "A ready-made lamp with its own bridge lights either way."),
            ),
        ),
        Trouble(
            "bright",
            "It is too bright",
            "A larger resistor dims it. The eye sees half the current as a little less.",
            "glare dim dimmer dimming down",
            (
                Lead("resistor", "Move the slide rule to a larger resistor, and try it."),
                Lead("looks", "Say how it is looked at, so that the glow box shows what you see."),
            ),
        ),
        Trouble(
            "dim",
            "It is too dim",
            "Compare it with the old lamp in the glow box before you raise the current.",
            "faint weak dark brighter",
            (
                Lead("swaps", "See which LED or how many give more light, and stay within limits."),
                _READ,
                Lead("looks", "Glass, angle and distance may take the light."),
            ),
        ),
        Trouble(
            "colour",
            "The colour is wrong",
            "Coloured glass takes most of a white LED's light: behind red glass fit red.",
            "tint filter white yellow blue hue",
            (Lead("looks", "Enter the glass in front of it."), Lead("swaps", "Choose a colour that comes through.")),
        ),
        Trouble(
            "uneven",
            "They are uneven",
            "Lamps of one panel are matched together, against the weakest.",
            "different match group spots patchy photo",
            (
                Lead("match", "Bring all lamps of the item to one brightness."),
                Lead("looks", "Spots on one dial: more LEDs, a diffuser, or more distance."),
            ),
        ),
        Trouble(
            "flicker",
            "It flickers or hums",
            "See whether it flickers on a steady supply: that tells the lamp from its feed.",
            "flicker hum buzz noise strobe dimmer photo",
            (
                Lead("rectification", "On AC a bridge doubles the flashes; a capacitor takes most of them away."),
                Lead("driver", "A dimmer or a check pulse may make it flicker."),
                Lead("rail", "Read how far the rail swings."),
            ),
        ),
        Trouble(
            "glows",
            "It glows when it is off",
            "Some 10 µA are seen in the dark. A driver's leak or a keep-warm resistor gives more.",
            "ghost leak off faint twinkle",
            (
                Lead("driver", "Say what the driver lets through when it is off; a bleeder takes it past the LED."),
                _READ,
            ),
        ),
        Trouble(
            "behaves",
            "It flashes fast, or the equipment behaves differently",
            "Put the old lamp back: if all is well then, the lamp has a second job, or its current is counted.",
            "hyperflash fast indicator relay error warning load",
            (
                Lead("driver", "A flasher or a lamp check counts current: write down what was tried."),
                Lead("job", "Find out whether the lamp does more than shine."),
            ),
        ),
        Trouble(
            "hot",
            "It gets hot, or smells",
            "Switch it off now. Let it cool before you touch it.",
            "hot heat burn smell smoke warm temperature",
            (
                Lead("resistor", "See the heat in the resistor, and the body that stands it."),
                Lead("led", "See how much the LED carries of what it may."),
                Lead("readings", "Write down what you felt; it is compared with what should be felt."),
            ),
        ),
        Trouble(
            "dies",
            "It dies early, or blows fuses",
            "Fit no larger fuse. Find out first what the rail does at its worst.",
            "life short fuse dead surge early fails",
            (
                Lead("rail", "Read the highest and the lowest volts, also while something else is switched."),
                Lead("led", "See its current at the worst corner, and its life."),
                Lead("driver", "A coil on the same switch needs a diode."),
            ),
        ),
        Trouble(
            "disagrees",
            "A reading disagrees",
            "Read it once more: range, socket and the two places.",
            "meter wrong different reading unexpected",
            (_READ,),
        ),
    )
}
