"""Lamps that are to be looked at again."""

from django.utils import timezone

from swapglow.records.models import Position


def due() -> list[Position]:
    """Those whose day has come, the longest due first. Dates are kept as they sort."""
    today = timezone.localdate().isoformat()
    found = Position.objects.filter(inputs__look_again__gt="", inputs__look_again__lte=today)
    return list(found.select_related("equipment").order_by("inputs__look_again", "order"))
