"""Functions, methods and classes that nothing in the app calls: ``python -m scripts.unused``.

Fields are left to the tests of the report: whether a page reads one is not to be seen from Python.
"""

import sys

from vulture import Vulture

# Called by what they are: routes, handlers, findings; and what Django and ninja look up by name.
DECORATORS = ["@router.*", "@api.*", "@rule", "@of_each_string", "@receiver"]
NAMES = [
    "authenticate",
    "Command",
    "RecordsConfig",
    "ContentSecurityPolicy",
    "nonce",
    "not_our_page",
    "not_found",
    "failed",
    "WithoutWords",
    "formatException",
    "Doors",
    "process_view",
    "Hand",
    "BrowsersZone",
    "Devices",
    "DevicesApart",
    "allow_migrate",
    "error_log",
    "do_POST",
    "log_message",
    "pytest_collection_finish",
    "pytest_runtest_protocol",
]
# The reference simulator's and the generators' helpers are there for tests, and say so.
FOR_TESTS = ["scripts/reference.py"]
KINDS = ("function", "method", "class", "property", "import")


def main() -> int:
    """Print what is unused; 1 if anything is."""
    found = Vulture(ignore_decorators=DECORATORS, ignore_names=NAMES)
    found.scavenge(["swapglow", "scripts"], exclude=["*/migrations/*", "*/settings/*", *FOR_TESTS])
    unused = [item for item in found.get_unused_code(min_confidence=60) if item.typ in KINDS]
    for item in unused:
        print(f"{item.filename}:{item.first_lineno}: nothing uses the {item.typ} {item.name}")
    return 1 if unused else 0


if __name__ == "__main__":
    sys.exit(main())
