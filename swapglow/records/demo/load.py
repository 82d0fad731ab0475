"""The demo: a volunteer workshop that looks after an old observatory's instruments.

All of it is invented: the place, the equipment, the figures.
"""

import uuid

from django.db import transaction

from swapglow.core.position.typed import read_position
from swapglow.document import model as doc
from swapglow.document.typed import core_taken
from swapglow.records import translate
from swapglow.records.demo.drivers import DRIVERS
from swapglow.records.demo.observatory import EQUIPMENT
from swapglow.records.demo.supplies import SUPPLIES
from swapglow.records.models import DrawerValue, Equipment, Position, Rail, Reading, Taken

# Keys made from names, so that loading the demo again finds what it made.
_SPACE = uuid.UUID("5b0f2c9a-6f4e-4a53-9d2e-5a9c1d0e7f31")


_DRAWER = (
    100, 150, 220, 330, 470, 680, 1e3, 1.5e3, 2.2e3, 3.3e3, 3.9e3, 4.7e3, 6.8e3, 10e3, 15e3, 22e3, 33e3,
)  # fmt: skip


def is_loaded() -> bool:
    """Whether any equipment is there: the demo never writes over someone's own."""
    return Equipment.objects.exists()


@transaction.atomic
def load() -> int:
    """Make the demo's records; returns the number of lamp positions."""
    DrawerValue.objects.bulk_create([DrawerValue(ohm=o) for o in _DRAWER], ignore_conflicts=True)
    count = 0
    for place, spec in enumerate((*EQUIPMENT, *SUPPLIES, *DRIVERS)):
        plain = {k: v for k, v in spec.items() if k not in ("rails", "positions")}
        sheet = doc.TakeIn.model_validate(plain.pop("take_in", {}))
        item = Equipment.objects.create(
            id=uuid.uuid5(_SPACE, spec["name"]), order=place, take_in=sheet.model_dump(mode="json"), **plain
        )
        rails = [
            Rail.objects.create(
                id=uuid.uuid5(_SPACE, f"{spec['name']}/{r['name']}"), equipment=item, order=k, **r
            )
            for k, r in enumerate(spec["rails"])
        ]
        for k, p in enumerate(spec["positions"]):
            fields = {key: v for key, v in p.items() if key not in ("readings", "taken", "on")}
            position = Position.objects.create(
                id=uuid.uuid5(_SPACE, f"{spec['name']}/{p['name']}"),
                equipment=item, rail=rails[p.get("on", 0)], order=k, **fields,
            )  # fmt: skip
            # A demo that does not read is a fault of ours: find it here.
            read_position(translate.typed_position(position))
            for n, (kind, text, burden, note) in enumerate(p.get("readings", ())):
                Reading.objects.create(
                    id=uuid.uuid5(_SPACE, f"{position.pk}/{n}"), position=position, order=n,
                    kind=kind, text=text, burden=burden, note=note,
                )  # fmt: skip
            for n, taken in enumerate(p.get("taken", ())):
                record = Taken(
                    id=uuid.uuid5(_SPACE, f"{position.pk}/t{n}"), position=position, order=n, **taken
                )
                core_taken(record)
                record.save()
            count += 1
    return count
