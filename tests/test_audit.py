"""Known holes are found by a list, without a network."""

import json
import re
import zipfile

import pytest

from scripts.audit import LOCKED, affects, main

PINNED = dict(re.findall(r"^([A-Za-z0-9._-]+)==([^ \\]+)", LOCKED.read_text(), flags=re.M))


def record(name, **affected):
    return {
        "id": "INVENTED-1",
        "modified": "2026-01-01T00:00:00Z",
        "summary": "an invented hole",
        "affected": [{"package": {"ecosystem": "PyPI", "name": name}, **affected}],
    }


def audited(monkeypatch, place):
    monkeypatch.setattr("sys.argv", ["audit", "--list", str(place)])
    return main()


def test_a_hole_in_a_locked_package_is_told(monkeypatch, tmp_path, capfd):
    (tmp_path / "a.json").write_text(json.dumps(record("Django", versions=[PINNED["django"]])))
    assert audited(monkeypatch, tmp_path) == 1
    said = capfd.readouterr().out
    assert "INVENTED-1" in said and PINNED["django"] in said


def test_a_list_without_a_hole_of_ours_is_passed(monkeypatch, tmp_path):
    with zipfile.ZipFile(tmp_path / "all.zip", "w") as packed:
        packed.writestr("a.json", json.dumps(record("Django", versions=["1.0"])))
        packed.writestr("b.json", json.dumps(record("some-other-package", versions=[PINNED["django"]])))
    assert audited(monkeypatch, tmp_path / "all.zip") == 0


@pytest.mark.parametrize(("text", "said"), [("{", "no JSON"), ("[]", "no record of the OSV form")])
def test_what_is_no_list_is_refused(monkeypatch, tmp_path, capsys, text, said):
    (tmp_path / "a.json").write_text(text)
    assert audited(monkeypatch, tmp_path) == 2
    assert said in capsys.readouterr().err


@pytest.mark.parametrize(
    ("version", "hit"),
    [
        ("0.9", False),
        ("1.0", True),
        ("1.4.9", True),
        ("1.5", False),
        ("2.0rc1", False),
        ("2.0", True),
        ("2.3", True),
        ("2.3.1", False),
        ("no version", True),
    ],
)
def test_ranges_are_read_as_they_are_published(version, hit):
    """OSV schema, "evaluation algorithm": introduced counts, fixed does not, last_affected does."""
    events = [{"introduced": "1.0"}, {"fixed": "1.5"}, {"introduced": "2.0"}, {"last_affected": "2.3"}]
    assert affects(record("thing", ranges=[{"type": "ECOSYSTEM", "events": events}]), "thing", version) is hit
