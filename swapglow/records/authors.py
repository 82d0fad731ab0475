"""Whose hand makes a change: a name that somebody chose on their device, and the device."""

from contextvars import ContextVar
from dataclasses import dataclass
from uuid import UUID

from django.db import models

from swapglow.records.models import Step

# As much of a name as is kept.
LONGEST = 40


@dataclass(frozen=True)
class Author:
    """Who makes a change.

    Attributes:
        name: as chosen on the device; "" for none.
        device: the key of the paired device; None at the bench itself.
        unnamed: what their steps were called before they chose a name: the device's name.
    """

    name: str = ""
    device: UUID | None = None
    unnamed: str = ""

    @property
    def names(self) -> tuple[str, ...]:
        """The names that this author's steps carry: the one chosen, and what stood there before there was one."""
        return (self.name, self.unnamed, "")

    def owns(self, step: Step) -> bool:
        """Whether a step is this author's own: made on this device, under one of those names."""
        return step.device == self.device and step.by in self.names


# Of the request that is being answered; a command is somebody's at the bench.
_NOBODY = Author()
author: ContextVar[Author] = ContextVar("author", default=_NOBODY)


def own(steps: models.QuerySet[Step]) -> models.QuerySet[Step]:
    """Those of some steps that are the author's own."""
    me = author.get()
    return steps.filter(device=me.device, by__in=me.names)
