"""What the program says of itself: version, records, and whose work it is made with."""

import ast
import itertools
import sys
from importlib.metadata import packages_distributions

from django.conf import settings

from swapglow import __version__
from tests.api.page import Bench


def test_it_says_its_version_where_its_records_lie_and_its_terms():
    status, about = Bench()("GET", "about")
    assert status == 200
    assert (about["version"], about["records"]) == (__version__, str(settings.VAR))
    assert about["licence"] == "Not chosen yet by its owner."


def test_every_package_that_is_imported_is_named_with_its_terms():
    """By what the program's own files import; what those packages need comes with them."""
    files = (settings.ROOT / "swapglow").rglob("*.py")
    trees = [ast.walk(ast.parse(path.read_text("utf-8"))) for path in files]
    names = {
        name.split(".")[0]
        for node in itertools.chain(*trees)
        for name in (
            [a.name for a in node.names]
            if isinstance(node, ast.Import)
            else [node.module or ""]
            if isinstance(node, ast.ImportFrom) and not node.level
            else []
        )
    }
    known = packages_distributions()
    wanted = {known[n][0].lower().replace("_", "-") for n in names - sys.stdlib_module_names if n in known}
    packages = {p["name"].lower().replace("_", "-"): p for p in Bench()("GET", "about")[1]["packages"]}
    assert len(wanted) > 12 and wanted - {"swapglow"} <= set(packages)
    assert "asgiref" in packages and "typing-extensions" in packages
    assert all(p["licence"] for p in packages.values())


def test_the_licences_are_there_whole():
    status, text, headers = Bench().raw("notices.txt")
    said = text.decode()
    assert status == 200 and headers["Content-Type"].startswith("text/plain")
    for part in ("Redistribution and use in source and binary forms", "Zope Public License", "Django", "numpy"):
        assert part in said
    if (settings.DIST / "notices.txt").exists():
        for part in ("react-aria-components", "SIL OPEN FONT LICENSE", "styled-components"):
            assert part in said


def test_tables_say_where_their_figures_are_from():
    tables = dict(Bench()("GET", "about")[1]["tables"])
    assert "lamp handbooks" in tables["lamps"] and all(tables.values())
