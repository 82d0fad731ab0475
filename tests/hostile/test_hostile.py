"""Strangers' files: refused in a sentence, bounded in memory and time, while everybody else is answered."""

import base64
import resource
import threading
import time
import urllib.request
import uuid

import pytest

from swapglow.core.quantities import InputError
from swapglow.document import in_subprocess as subprocesses
from swapglow.document.in_subprocess import in_subprocess
from swapglow.records.models import Equipment, Photo
from tests.api.page import Bench
from tests.hostile.make import DOCUMENTS, PICTURES, document, jpeg, png, sleep, swallow

pytestmark = pytest.mark.django_db


@pytest.fixture
def bench():
    return Bench()


@pytest.mark.parametrize("name", DOCUMENTS)
def test_a_document_of_a_stranger_is_refused_in_a_sentence(bench, name):
    content = DOCUMENTS[name]()
    for path in ("import/look", "import"):
        status, answer = bench.send(path, "a.json", content)
        assert status == 422, answer
        assert 0 < len(answer["errors"]) <= 5
        assert all(0 < len(e["message"]) <= 400 and len(e["field"]) <= 400 for e in answer["errors"])
    assert not Equipment.objects.exists()


@pytest.mark.parametrize("name", PICTURES)
def test_a_picture_of_a_stranger_is_refused_in_a_sentence(bench, name):
    keys = bench.made()
    path = f"equipment/{keys['equipment']}/photos/{uuid.uuid4()}"
    status, answer = bench.send(path, "a.png", PICTURES[name]())
    assert status == 422, answer
    assert answer["errors"][0]["field"] in ("photo", "file")
    assert not Photo.objects.exists()


def test_a_small_file_that_unpacks_to_much_is_read_away_from_this_process(bench):
    """A PNG of 56 million pixels, some 220 kB: this process grows by less than its picture would take."""
    keys = bench.made()
    content = png(7500, 7500)
    assert len(content) < 300_000
    in_subprocess("photo", jpeg)  # the process for it stands
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    assert bench.send(f"equipment/{keys['equipment']}/photos/{uuid.uuid4()}", "a.png", content)[0] == 200
    assert (resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before) / 1024 < 60
    assert max(Photo.objects.get().width, Photo.objects.get().height) == 1600


def test_what_takes_too_much_memory_is_stopped():
    with pytest.raises(InputError, match="needs more than 900 MB"):
        in_subprocess("file", swallow, 2000)
    assert in_subprocess("file", swallow, 10) == 10 * 2**20


def test_what_takes_too_long_is_stopped_and_the_next_is_read():
    with pytest.raises(InputError, match="It takes longer than"):
        in_subprocess("file", sleep, 20, seconds=0.5)
    assert in_subprocess("file", sleep, 0) == 0


def test_one_file_at_a_time_and_the_next_is_told_so(monkeypatch):
    monkeypatch.setattr(subprocesses, "PATIENCE", 0.2)
    first = threading.Thread(target=in_subprocess, args=("file", sleep, 1.5))
    first.start()
    time.sleep(0.3)
    with pytest.raises(InputError, match="Another file is still being read"):
        in_subprocess("file", sleep, 0)
    first.join()


def test_a_large_document_does_not_hold_up_the_others(served):
    """Sixty megabytes of photographs are read; meanwhile the bench is answered."""

    large = base64.b64encode(jpeg((6000, 4000)) + b"\x00" * 3_000_000).decode()
    content = document(photos=[{"id": str(uuid.uuid4()), "jpeg": large} for _ in range(14)])
    assert 55e6 < len(content) < 64e6
    urllib.request.urlopen(f"{served}/api/bench").read()
    done = []

    def bring():
        done.append(Bench().send("import/look", "a.json", content))

    thread = threading.Thread(target=bring)
    thread.start()
    answered = 0
    while thread.is_alive():
        urllib.request.urlopen(f"{served}/api/bench").read()
        answered += 1
    thread.join()
    assert done[0][0] == 200
    assert "14 photographs" in done[0][1]["lines"][0]
    assert answered > 5
