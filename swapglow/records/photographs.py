"""Photographs as they are kept: each picture once, by its digest."""

import hashlib

from swapglow.records.models import Photo, Picture


def keep(jpeg: bytes) -> str:
    """Keep a re-encoded picture once; returns its digest."""
    digest = hashlib.sha256(jpeg).hexdigest()
    Picture.objects.get_or_create(digest=digest, defaults={"jpeg": jpeg})
    return digest


def sweep_out() -> int:
    """Delete pictures that no photograph and no history of one knows; returns how many."""
    wanted = {
        *Photo.objects.values_list("digest", flat=True),
        *Photo.history.values_list("digest", flat=True),
    }
    gone, _ = Picture.objects.exclude(digest__in=wanted).delete()
    return gone
