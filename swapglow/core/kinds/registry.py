"""Kinds found by scanning their folder: a new one is a module of its own, and named nowhere else."""

import importlib
import pkgutil
from collections.abc import Iterator, Mapping
from types import ModuleType
from typing import Generic, TypeVar

from swapglow.core.quantities import InputError

K = TypeVar("K")


class Registry(Mapping[str, K], Generic[K]):
    """The kinds of a family by their id, in their order.

    A module is found where it binds ``KIND`` to an object of the family with an ``id`` and an ``order``.
    """

    def __init__(self, family: type[K], noun: str) -> None:
        """A family without kinds yet; ``noun`` is what one is called in a refusal."""
        self._family, self._noun = family, noun
        self._kinds: dict[str, K] = {}

    def scan(self, package: ModuleType) -> None:
        """Take in every kind that a package's modules bind.

        Raises:
            ValueError: two kinds have one id.
        """
        for found in pkgutil.iter_modules(package.__path__, f"{package.__name__}."):
            kind = getattr(importlib.import_module(found.name), "KIND", None)
            if not isinstance(kind, self._family):
                continue
            id_ = str(kind.id)  # type: ignore[attr-defined]  # every family's kinds have one
            if self._kinds.get(id_, kind) is not kind:
                raise ValueError(f"Two kinds are called {id_!r}.")
            self._kinds[id_] = kind
        rank = {key: kind.order for key, kind in self._kinds.items()}  # type: ignore[attr-defined]  # likewise
        self._kinds = dict(sorted(self._kinds.items(), key=lambda item: (rank[item[0]], item[0])))

    def named(self, id_: str, field: str) -> K:
        """The kind of an id.

        Args:
            id_: as sent.
            field: the field it came in, for a refusal.

        Returns:
            The kind.

        Raises:
            InputError: there is no such kind.
        """
        if id_ not in self._kinds:
            raise InputError(field, f'"{id_}" is no kind of {self._noun}: {", ".join(self._kinds)}.')
        return self._kinds[id_]

    @property
    def usual(self) -> K:
        """What is taken where nobody chose: the first in order."""
        return next(iter(self._kinds.values()))

    def __getitem__(self, id_: str) -> K:
        """The kind of an id that is known to be one."""
        return self._kinds[id_]

    def __iter__(self) -> Iterator[str]:
        """Ids in order."""
        return iter(self._kinds)

    def __len__(self) -> int:
        """How many."""
        return len(self._kinds)
