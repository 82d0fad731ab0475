"""Paired devices, links to one card, and whether the bench is shared. Of a secret only its digest is kept."""

import hashlib
import secrets
import uuid
from datetime import timedelta
from typing import Self

from django.db import models
from django.utils import timezone

# A device that was not seen for so long must be paired again.
UNSEEN = timedelta(days=60)
# "Last seen" is written no oftener: a page that stands open asks every second or two.
SEEN_EVERY = timedelta(minutes=1)


def _digest(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


class Secret(models.Model):
    """Something that is known by a long random token."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    digest = models.CharField(max_length=64, unique=True)
    name = models.CharField(max_length=60)
    made = models.DateTimeField(default=timezone.now)
    taken_away = models.DateTimeField(null=True)

    class Meta:
        abstract = True
        ordering = ("made",)

    def __str__(self) -> str:
        return self.name

    @classmethod
    def issue(cls, **fields: object) -> tuple[Self, str]:
        """Make one.

        Returns:
            It, and its token, which is known only now.
        """
        token = secrets.token_urlsafe(32)
        return cls._default_manager.create(digest=_digest(token), **fields), token

    @classmethod
    def known(cls, token: str) -> Self | None:
        """The one that a token belongs to; None where there is none, or it was taken away."""
        return cls._default_manager.filter(digest=_digest(token), taken_away=None).first() if token else None

    def take_away(self) -> None:
        """From now on its token opens nothing."""
        if self.taken_away is None:
            self.taken_away = timezone.now()
            self.save(update_fields=["taken_away"])


class Device(Secret):
    """A paired device. ``may_write`` is false for one that only looks."""

    may_write = models.BooleanField(default=True)
    seen = models.DateTimeField(default=timezone.now)

    @property
    def expired(self) -> bool:
        """Whether it was not seen for too long."""
        return timezone.now() - self.seen > UNSEEN

    def see(self) -> None:
        """Note that it was here."""
        if timezone.now() - self.seen > SEEN_EVERY:
            self.seen = timezone.now()
            self.save(update_fields=["seen"])


class CardLink(Secret):
    """A link by which anybody who has it reads one lamp's job card, and nothing else."""

    position = models.UUIDField()


class Sharing(models.Model):
    """Whether the bench answers other devices; there is one row."""

    on = models.BooleanField(default=False)
    # Without TLS, by an explicit choice.
    plain = models.BooleanField(default=False)

    def __str__(self) -> str:
        return "on" if self.on else "off"

    @classmethod
    def own(cls) -> "Sharing":
        """The row, kept or not yet."""
        return cls.objects.filter(pk=1).first() or cls(pk=1)
