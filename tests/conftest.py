"""Fixtures shared by API and browser tests, and how the tests are shared among workers."""

import gc
import hashlib
import os
import threading
import time
from datetime import date
from pathlib import Path

import pytest
from filelock import FileLock
from hypothesis import settings
from xdist.scheduler import LoadScopeScheduling

import swapglow

# Playwright runs an event loop in the test's thread; Django must not mind.
os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"
# A busy machine is slow: no test says how fast.
settings.register_profile("unhurried", deadline=None)
settings.load_profile("unhurried")
# What is imported stays: looking it through for garbage again and again took a twentieth of the run.
gc.set_threshold(100_000, 50, 100)


def pytest_collection_finish():
    gc.freeze()


# Nearly all pages go to one worker, in one group: several browsers at once wait so long for one another that what is
# timed fails. What copies the project, starts and kills servers or is told to wait begins beside them.
BESIDE = ("tests/browser/test_adding", "tests/reliability", "tests/hostile", "tests/test_cli", "tests/api")
ALONE = ("tests/browser/test_adding", "tests/browser/test_circuits")


def group(file: str) -> str:
    """The tests that one worker takes, in their order: the pages, or a file."""
    return "pages" if file.startswith("tests/browser/") and not file.startswith(ALONE) else file


def pytest_collection_modifyitems(items):
    def place(item):
        file = item.location[0]
        return group(file) != "pages", next((n for n, name in enumerate(BESIDE) if file.startswith(name)), len(BESIDE))

    items.sort(key=place)


class Groups(LoadScopeScheduling):
    """Groups are given out in the order they come in, whole."""

    def _split_scope(self, nodeid: str) -> str:
        return group(nodeid.partition("::")[0])


def pytest_xdist_make_scheduler(config, log):
    config.option.loadscopereorder = False
    return Groups(config, log)


@pytest.fixture(scope="session")
def loaded(pytestconfig):
    """A copy of the database with the demo in it, made when it is first asked for.

    Kept for the other lane and the next run, under a name that every line of the app, its packages and the day have
    part in.
    """
    house = Path(swapglow.__file__).parent
    told = hashlib.sha256(date.today().isoformat().encode())
    for path in sorted([*house.rglob("*.py"), *house.rglob("*.csv"), house.parent / "requirements/dev.txt"]):
        told.update(path.read_bytes())
    return pytestconfig.cache.mkdir("demo") / f"{told.hexdigest()}.sqlite3"


@pytest.fixture(scope="module")
def begun(django_db_setup, django_db_blocker):
    """Open the database for a whole file: ``with begun():`` puts in what all its tests begin with.

    What a test does is taken back to there, as ever, and what they began with after the last.
    """
    from django.db import transaction

    with django_db_blocker.unblock():
        around = transaction.atomic()
        around.__enter__()
    yield django_db_blocker.unblock
    with django_db_blocker.unblock():
        transaction.set_rollback(True)
        around.__exit__(None, None, None)


@pytest.fixture
def demo(transactional_db, loaded):
    """The demo's records with all that is stored of its lamps, as a server that has run for a minute has them.

    Copied row by row. A view of lamps that are not worked out asks for them anew, and anew: no test should stand by
    at that.
    """
    from django.db import connection, transaction

    from swapglow.records import demo as records
    from swapglow.records import summaries

    with connection.cursor() as db:
        # Of several workers one makes it, and the others wait for that.
        with FileLock(loaded.with_suffix(".lock")):
            if not loaded.exists():
                records.load()
                summaries.mark_outdated()
                assert summaries.refresh()
                for old in loaded.parent.glob("*.sqlite3"):
                    if old != loaded:
                        old.unlink(missing_ok=True)
                half = loaded.with_suffix(f".{os.getpid()}")
                db.execute("VACUUM INTO %s", [str(half)])
                half.rename(loaded)
                return records
        db.execute("ATTACH DATABASE %s AS kept", [str(loaded)])
        try:
            with transaction.atomic():
                db.execute("PRAGMA defer_foreign_keys=ON")
                for table in connection.introspection.table_names(db):
                    if table != "django_migrations":
                        db.execute(f'INSERT INTO main."{table}" SELECT * FROM kept."{table}"')
        finally:
            db.execute("DETACH DATABASE kept")
    return records


@pytest.fixture(scope="session")
def collected(tmp_path_factory, django_db_setup):
    """The built front end, collected as it is served."""
    from django.conf import settings
    from django.core.management import call_command

    settings.STATIC_ROOT = tmp_path_factory.mktemp("static")
    call_command("collectstatic", verbosity=0, interactive=False)
    return settings.STATIC_ROOT


@pytest.fixture(scope="session")
def server(collected):
    """The whole app as users get it: WSGI, WhiteNoise and policy, through waitress on loopback."""
    from django.core.wsgi import get_wsgi_application
    from waitress import create_server

    server = create_server(get_wsgi_application(), host="127.0.0.1", port=0, threads=4)
    closing = threading.Event()

    def run() -> None:
        try:
            server.run()
        except OSError:
            # Closed while it waited for its sockets: the end that was asked for, and no fault.
            if not closing.is_set():
                raise

    thread = threading.Thread(target=run, daemon=True)
    thread.start()
    yield server
    closing.set()
    # The loop sleeps until its next turn and ends there.
    server.close()


@pytest.fixture
def served(transactional_db, server):
    """The app's address. What was asked last is answered before the database is emptied under it."""
    yield f"http://127.0.0.1:{server.effective_port}"
    working, until = server.task_dispatcher, time.monotonic() + 60
    while (working.active_count or working.queue) and time.monotonic() < until:
        time.sleep(0.005)


@pytest.fixture
def other_databases(monkeypatch):
    """Let a test open a backup as a database of Django's: the test runner allows what it does not know of."""
    from django.db import connections

    monkeypatch.setattr(type(connections), "__contains__", lambda self, alias: alias == "default", raising=False)
