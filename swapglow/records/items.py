"""All equipment with its lamps, in two queries however many there are."""

from swapglow.records.models import Equipment, Position


def with_lamps() -> list[tuple[Equipment, list[Position]]]:
    """Every item in the bench's order with its lamps in theirs, each with rail, item and summary at hand.

    Lamps are joined and not fetched by their keys: SQLite takes no expression as deep as a thousand of them.
    """
    items = list(Equipment.objects.all())
    by_item: dict[object, list[Position]] = {e.pk: [] for e in items}
    known = {e.pk: e for e in items}
    for p in Position.objects.select_related("rail", "summary"):
        if p.equipment_id in by_item:
            p.equipment = known[p.equipment_id]
            by_item[p.equipment_id].append(p)
    return [(e, by_item[e.pk]) for e in items]
