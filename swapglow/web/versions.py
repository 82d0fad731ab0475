"""Which version these records were last served by, and what is new since then, in the words of the changelog."""

import re
from pathlib import Path

from django.conf import settings

from swapglow import __version__

_HEAD = re.compile(r"^## (?P<version>\d+(?:\.\d+)*)", re.MULTILINE)


def version_before() -> str:
    """The version that served these records before this start; "" where none did, or none that noted it."""
    try:
        return _file().read_text(encoding="utf-8").strip()
    except OSError:
        return ""


def note_version() -> None:
    """From now on these records were served by this version."""
    if version_before() != __version__:
        _file().write_text(__version__, encoding="utf-8")


def _file() -> Path:
    return Path(settings.VAR) / "version"


def changes(since: str) -> list[str]:
    """What is new in this version for whoever had another.

    Args:
        since: the version before; "" for none.

    Returns:
        A line each, the newest version's first; none where there is nothing to tell.
    """
    if not since or since == __version__:
        return []
    text = settings.CHANGES.read_text(encoding="utf-8") if settings.CHANGES.exists() else ""
    heads = list(_HEAD.finditer(text))
    lines: list[str] = []
    for head, after in zip(heads, [*heads[1:], None], strict=True):
        if _key(head["version"]) > _key(since):
            part = text[head.end() : after.start() if after else len(text)]
            lines += [line[2:].strip() for line in part.splitlines() if line.startswith("- ")]
    return lines


def _key(version: str) -> tuple[int, ...]:
    return tuple(int(part) for part in re.findall(r"\d+", version))
