"""What the program says of itself: version, records, and whose work it is made with."""

import re

from django.conf import settings

from swapglow import __version__
from tests.api.page import Bench


def test_it_says_its_version_where_its_records_lie_and_its_terms():
    status, about = Bench()("GET", "about")
    assert status == 200
    assert (about["version"], about["records"]) == (__version__, str(settings.VAR))
    assert about["licence"] == "Not chosen yet by its owner."


def test_every_package_that_is_asked_for_is_named_with_its_terms():
    """By the requirements, not by the list in the program; what those need comes with them."""
    asked = (settings.ROOT / "requirements/run.in").read_text().split()
    wanted = {re.split(r"[~=<>]", line)[0].lower() for line in asked}
    packages = {p["name"].lower().replace("_", "-"): p for p in Bench()("GET", "about")[1]["packages"]}
    assert wanted <= set(packages)
    assert "asgiref" in packages and "typing-extensions" in packages
    assert all(p["licence"] for p in packages.values())


def test_the_licences_are_there_whole():
    status, text, headers = Bench().raw("notices.txt")
    said = text.decode()
    assert status == 200 and headers["Content-Type"].startswith("text/plain")
    for part in (
        "Redistribution and use in source and binary forms",
        "Zope Public License",
        "Django",
        "numpy",
    ):
        assert part in said
    if (settings.DIST / "notices.txt").exists():
        for part in ("react-aria-components", "SIL OPEN FONT LICENSE", "styled-components"):
            assert part in said


def test_tables_say_where_their_figures_are_from():
    tables = dict(Bench()("GET", "about")[1]["tables"])
    assert "lamp handbooks" in tables["lamps"] and all(tables.values())
