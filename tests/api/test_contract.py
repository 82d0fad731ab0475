"""The API's description, the front end's types, and the policy around the page."""

import json
import re
import socket
import subprocess
from pathlib import Path

import pytest
import schemathesis
from django.core.management import CommandError, call_command
from django.test import Client
from hypothesis import HealthCheck, given, settings

ROOT = Path(__file__).resolve().parents[2]


def test_the_description_is_that_of_the_code(tmp_path):
    out = tmp_path / "openapi.json"
    call_command("export_openapi_schema", api="swapglow.api.app.api", indent=1, output=str(out))
    kept = json.loads((ROOT / "docs/openapi.json").read_text())
    assert json.loads(out.read_text()) == kept, "run make schema"


def test_the_front_ends_types_are_those_of_the_description(tmp_path):
    out = tmp_path / "schema.d.ts"
    tool = ROOT / "frontend/node_modules/.bin/openapi-typescript"
    subprocess.run([tool, ROOT / "docs/openapi.json", "-o", out], check=True, capture_output=True)
    assert out.read_text() == (ROOT / "frontend/src/api/schema.d.ts").read_text(), "run make schema"


@pytest.mark.parametrize(
    ("meta", "headers"),
    [
        ({"REMOTE_ADDR": "192.0.2.7"}, {}),
        ({"REMOTE_ADDR": "2001:db8::1"}, {}),
        ({}, {"X-Forwarded-For": "192.0.2.7"}),
        ({}, {"Forwarded": "for=192.0.2.7"}),
        ({"SERVER_NAME": "bench.example"}, {}),
        ({}, {"Host": "bench.example"}),
        ({}, {"Host": "127.0.0.1.bench.example:8417"}),
    ],
)
@pytest.mark.parametrize("path", ["/", "/api/bench", "/static/index.html"])
def test_nobody_but_this_machine_is_answered_whatever_is_set(settings, meta, headers, path):
    settings.ALLOWED_HOSTS = ["*"]
    answer = Client(**{"SERVER_NAME": "127.0.0.1", **meta}).get(path, headers=headers)
    assert answer.status_code == 403
    assert answer.content == b"Swap Glow answers only the machine it runs on.\n"


@pytest.mark.parametrize("address", ["0.0.0.0:8000", "192.0.2.7:8000", "[::]:8000", "bench.example:80"])
def test_no_server_of_ours_listens_beyond_this_machine(address):
    with pytest.raises(CommandError, match=r"127\.0\.0\.1 only"):
        call_command("runserver", address)


@pytest.mark.django_db
def test_a_change_from_another_page_is_refused():
    client = Client(enforce_csrf_checks=True, SERVER_NAME="127.0.0.1")
    answer = client.post("/api/undo", "{}", content_type="application/json")
    assert answer.status_code == 403
    assert "did not come from a page of Swap Glow" in answer.json()["errors"][0]["message"]


@pytest.mark.django_db
def test_the_page_has_a_strict_policy_and_a_fresh_nonce():
    client = Client(SERVER_NAME="127.0.0.1")
    policies = [client.get("/")["Content-Security-Policy"] for _ in range(2)]
    nonces = [re.search(r"'nonce-([^']+)'", p).group(1) for p in policies]
    assert nonces[0] != nonces[1]
    assert "unsafe-inline" not in policies[0]
    assert "script-src 'self';" in policies[0]
    page = client.get("/position/anything").content.decode()
    assert page.count("<script") == page.count('<script type="module"')
    # With a nonce it would be another script at each load, and be parsed anew.
    assert not re.search(r"<(script|link)[^>]*nonce", page)
    assert "{{" not in page


def here(environ, start_response):
    """The application as this machine asks it."""
    from swapglow.web.wsgi import application

    return application({**environ, "REMOTE_ADDR": "127.0.0.1"}, start_response)


@pytest.fixture
def apart(monkeypatch):
    """Whatever is asked for, no other server is started, and nothing is shared but on a loopback address."""
    from swapglow.devices import door
    from swapglow.records.demo import beside

    monkeypatch.setattr(beside, "start", beside.beside)
    monkeypatch.setenv("SWAPGLOW_SHARE_ADDRESS", "127.0.0.2")
    with socket.socket() as found:
        found.bind(("127.0.0.2", 0))
        monkeypatch.setenv("SWAPGLOW_SHARE_PORT", str(found.getsockname()[1]))
    yield
    door.shut_door()


@pytest.mark.django_db(transaction=True, databases=["default", "devices"])
def test_no_request_breaks_the_server_or_is_answered_otherwise_than_described(apart):
    """Whatever is sent, the answer is one of those described, and none is a fault of the server."""
    schema = schemathesis.openapi.from_wsgi("/api/openapi.json", here)
    operations = [found.ok() for found in schema.get_all_operations()]
    assert len(operations) > 20
    for operation in operations:
        described = set(operation.definition.raw["responses"])
        fuzz(operation, described)


def fuzz(operation, described):
    @settings(max_examples=12, deadline=None, database=None, suppress_health_check=list(HealthCheck))
    @given(case=operation.as_strategy())
    def never_faults(case):
        token = "a" * 32
        headers = {"X-CSRFToken": token, "Host": "127.0.0.1"}
        answer = case.call(headers=headers, cookies={"csrftoken": token})
        assert answer.status_code < 500, f"{case.method} {case.path}"
        assert str(answer.status_code) in described, f"{case.method} {case.path}: {answer.status_code}"

    never_faults()
