"""What a workshop mostly works on, and the supply that its lamps most often hang on: a guess until one is read."""

from dataclasses import dataclass


@dataclass(frozen=True)
class FieldOfWork:
    """A field of work.

    Attributes:
        label: in words.
        rail: the usual supply of its lamps, as it is typed.
    """

    label: str
    rail: str


# Usual supplies (common practice): a vehicle's battery at rest to charging; a heater winding; a model's accessory
# winding; a panel's supply.
FIELDS_OF_WORK = {
    "": FieldOfWork("A bit of everything", "12V"),
    "vehicles": FieldOfWork("Vehicles", "12.0-14.4V"),
    "vintage": FieldOfWork("Old radios and instruments", "6.3Vac"),
    "models": FieldOfWork("Models and model lines", "16Vac"),
    "signs": FieldOfWork("Signs and panels", "24V"),
}
LABELS = {key: field.label for key, field in FIELDS_OF_WORK.items()}
