"""The API's description, the front end's types, and the policy around the page."""

import json
import re
import subprocess
import sys
from pathlib import Path

import pytest
import schemathesis
from django.core.management import call_command
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


def test_production_settings_pass_djangos_deployment_check():
    env = {
        "DJANGO_SETTINGS_MODULE": "swapglow.web.settings.production",
        "SWAPGLOW_HOSTS": "bench.example",
        "SWAPGLOW_SECRET_KEY": "k" * 30 + "0123456789abcdefghijklmnopqrstuvwxyz",
        "PATH": "/usr/bin:/bin",
    }
    words = [sys.executable, "manage.py", "check", "--deploy", "--fail-level", "WARNING"]
    done = subprocess.run(words, cwd=ROOT, env=env, capture_output=True, text=True)
    assert done.returncode == 0, done.stderr


@pytest.mark.django_db
def test_a_change_from_another_page_is_refused():
    client = Client(enforce_csrf_checks=True, SERVER_NAME="127.0.0.1")
    answer = client.post("/api/undo", "{}", content_type="application/json")
    assert answer.status_code == 403


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
    assert "{{" not in page


@pytest.mark.django_db(transaction=True)
def test_no_request_breaks_the_server():
    """Nothing the API describes may answer with a fault of the server, whatever is sent."""
    from swapglow.web.wsgi import application

    schema = schemathesis.openapi.from_wsgi("/api/openapi.json", application)
    operations = [found.ok() for found in schema.get_all_operations()]
    assert len(operations) > 20
    for operation in operations:

        @settings(max_examples=12, deadline=None, database=None, suppress_health_check=list(HealthCheck))
        @given(case=operation.as_strategy())
        def never_faults(case):
            token = "a" * 32
            headers = {"X-CSRFToken": token, "Host": "127.0.0.1"}
            answer = case.call(headers=headers, cookies={"csrftoken": token})
            assert answer.status_code < 500, f"{case.method} {case.path}"

        never_faults()
