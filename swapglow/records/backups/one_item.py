"""One item brought back out of a backup, as an import that can be undone; all else stays as it is."""

from dataclasses import dataclass
from uuid import UUID

from swapglow.core.quantities import InputError
from swapglow.document.imported import Imported
from swapglow.document.model import Document
from swapglow.document.pictures import unchanged
from swapglow.records import transfer
from swapglow.records.backups import shelf
from swapglow.records.backups.restoring import up_to_date
from swapglow.records.models import Equipment, Photo
from swapglow.records.photographs import place


@dataclass(frozen=True)
class ItemThen:
    """An item in a backup.

    Attributes:
        id: its key.
        name: its name then.
        lamps: how many lamps it had.
        now: how it compares with what is on the bench: "same", "changed" or "gone".
    """

    id: UUID
    name: str
    lamps: int
    now: str


def items_in(backup: shelf.Backup) -> list[ItemThen]:
    """The items of a backup beside those of the bench.

    Raises:
        sqlite3.DatabaseError, Unfit: the backup cannot be read.
    """
    with up_to_date(backup.path) as alias:
        return [_then(e) for e in Equipment.objects.using(alias)]


def _then(e: Equipment) -> ItemThen:
    then = transfer.to_document(e, photographs=False)
    here = Equipment.objects.using("default").filter(pk=e.pk).first()
    now = "gone" if here is None else "same" if transfer.to_document(here, photographs=False) == then else "changed"
    return ItemThen(e.pk, str(e), len(then.equipment.positions), now)


def bring_back(backup: shelf.Backup, key: UUID) -> Equipment:
    """Put one item to what it was in a backup.

    Raises:
        InputError: the backup does not hold it, or the bench is full.
        DocumentError: a part of it is in another item now.
        sqlite3.DatabaseError, Unfit: the backup cannot be read.
    """
    with up_to_date(backup.path) as alias:
        e = Equipment.objects.using(alias).filter(pk=key).first()
        if e is None:
            raise InputError("item", "That item is not in this backup.")
        document = transfer.to_document(e, photographs=False)
        digests = dict(Photo.objects.using(alias).filter(equipment=key).values_list("pk", "digest"))
    return transfer.bring_in(_brought(document, digests), as_copy=False)


def _brought(document: Document, digests: dict[UUID, str]) -> Imported:
    pictures = {}
    for photo, digest in digests.items():
        for path in (place(digest, shelf.pictures()), place(digest)):
            found = unchanged(path.read_bytes()) if path.exists() else None
            if found is not None:
                pictures[photo] = found
                break
    return Imported(document, pictures)
