"""What this program is: its version, where its records lie, and whose work it is made with, on what terms."""

import re
from dataclasses import dataclass
from functools import cache
from importlib.metadata import Distribution, PackageNotFoundError, distribution, requires
from pathlib import Path

from django.conf import settings

from swapglow import __version__
from swapglow.core.parts.catalogue import source

# Until its owner chooses one.
OWN_LICENCE = "Not chosen yet by its owner."
_TABLES = ("lamps", "leds", "modules", "packages", "rectifiers", "regulators", "transistors", "cells", "glasses")
_NAME = re.compile(r"[A-Za-z0-9._-]+")
_LICENCE_FILE = re.compile(r"(?:^|/)(?:licen[cs]e|copying|notice)[^/]*$", re.IGNORECASE)


@dataclass(frozen=True)
class Package:
    """A package this is made with."""

    name: str
    version: str
    licence: str


@dataclass(frozen=True)
class About:
    """What is shown of the program.

    Attributes:
        version: its own.
        records: the folder its records lie in.
        licence: its own terms.
        packages: what it is made with, on the server's side.
        tables: the data tables, each with where its figures are from.
    """

    version: str
    records: str
    licence: str
    packages: tuple[Package, ...]
    tables: tuple[tuple[str, str], ...]


def about() -> About:
    """What this program is, here and now."""
    return About(__version__, str(settings.VAR), OWN_LICENCE, _packages(), tuple((t, source(t)) for t in _TABLES))


@cache
def _found() -> tuple[Distribution, ...]:
    """The packages this needs, and what those need, by name."""
    found: dict[str, Distribution] = {}
    wanted = _needed()
    while wanted:
        name = wanted.pop()
        key = name.lower().replace("_", "-")
        if key in found:
            continue
        try:
            found[key] = distribution(name)
        except PackageNotFoundError:
            continue
        for said in found[key].requires or ():
            # What only an extra or another system wants is not there.
            if ";" not in said and (need := _NAME.match(said)) is not None:
                wanted.append(need[0])
    return tuple(d for _, d in sorted(found.items()))


def _needed() -> list[str]:
    """What is asked for by name: as it was installed, or in a checkout as it is asked for there."""
    asked = settings.ROOT / "requirements" / "run.in"
    said = asked.read_text("utf-8").splitlines() if asked.exists() else requires("swapglow") or []
    return [need[0] for line in said if (need := _NAME.match(line)) is not None]


@cache
def _packages() -> tuple[Package, ...]:
    return tuple(Package(d.metadata["Name"], d.version, _licence(d)) for d in _found())


def _licence(d: Distribution) -> str:
    """A package's terms, in its own short words."""
    said = _said(d, "License-Expression")
    classed = [c.rsplit(" :: ", 1)[-1] for c in d.metadata.get_all("Classifier") or [] if c.startswith("License ::")]
    short = _said(d, "License").strip().splitlines()
    return said or ", ".join(classed) or (short[0] if short else "see its text")


def _said(d: Distribution, field: str) -> str:
    """What a package's own card says in a field; "" for nothing."""
    return str(d.metadata[field]) if field in d.metadata else ""


def notices() -> str:
    """All licences, whole: of the packages on the server's side, and of what the front end is made with."""
    parts = [f"Swap Glow {__version__}. Licence: {OWN_LICENCE}\n"]
    for d in _found():
        texts = [
            Path(str(file.locate())).read_text("utf-8", "replace")
            for file in d.files or ()
            if _LICENCE_FILE.search(str(file))
        ]
        head = f"{d.metadata['Name']} {d.version}: {_licence(d)}"
        parts.append("\n".join([head, "=" * len(head), *dict.fromkeys(texts)]))
    front = settings.DIST / "notices.txt"
    parts.append(front.read_text("utf-8") if front.exists() else "The front end is not built.")
    return "\n\n\n".join(parts)
