"""What docs/sharing.md promises of the shared door: what it lets through, and what is only done at the bench."""

import json
import re
import ssl
import uuid
from pathlib import Path

import pytest
from django.core.management import call_command

from swapglow.devices import addresses, door
from tests.devices.conftest import ADDRESS

pytestmark = pytest.mark.django_db(transaction=True, databases=["default", "devices"])

DESCRIBED = json.loads((Path(__file__).resolve().parents[2] / "docs/openapi.json").read_text())["paths"]
# They only ask: each is looked at below for whether it leaves the records as they are.
ONLY_ASK = {
    "POST /api/echo",
    "POST /api/quick",
    "POST /api/positions/{key}/assess",
    "POST /api/drawer/csv/look",
    "POST /api/import/look",
    "POST /api/equipment/{key}/readings/look",
    "POST /api/scan",
    "POST /api/pair",
}


def routes(*methods):
    return [(m.upper(), p) for p, each in DESCRIBED.items() for m in each if m.upper() in methods]


def real(path):
    """A described path with keys that fit."""
    return re.sub(r"\{(\w+)\}", lambda m: str(uuid.uuid4()) if m[1] != "name" else "x", path)


def test_a_device_that_only_looks_may_change_nothing(learner, bench):
    keys = bench.made()
    before = bench("GET", "pulse")[1]
    assert learner("GET", f"positions/{keys['position']}")[0] == 200
    assert learner("POST", f"positions/{keys['position']}/assess", {})[0] == 200
    for method, path in routes("POST", "PUT", "PATCH", "DELETE"):
        if f"{method} {path}" not in ONLY_ASK:
            status, content, _ = learner.raw(method, real(path), b"{}")
            said = json.loads(content)["errors"][0]["message"]
            assert status == 403 and ("only looks" in said or "at the bench itself" in said), (method, path, said)
    assert bench("GET", "pulse")[1] == before


def test_what_only_asks_changes_nothing(phone, bench):
    """Told by whether a step, a record or a file came of it, with requests that they take."""
    from swapglow.records.models import KEPT, Step

    keys = bench.made()

    def stands():
        return Step.objects.count(), [list(m.objects.values_list("pk", flat=True)) for m in KEPT]

    before = stands()
    assert phone("POST", "echo", {"text": "3k9", "unit": "Ω"})[0] == 200
    assert (
        phone("POST", "quick", {"rail": "12V", "position": {"led_id": "red-5-diffused", "target": {"text": "5mA"}}})[0]
        == 200
    )
    assert phone("POST", f"positions/{keys['position']}/assess", {"changes": {"resistor_ohm": 3300}})[0] == 200
    for path in ("drawer/csv/look", "import/look", f"equipment/{keys['equipment']}/readings/look", "scan"):
        body = b'--b\r\nContent-Disposition: form-data; name="file"; filename="a"\r\n\r\nx\r\n--b--\r\n'
        status, *_ = phone.raw("POST", f"/api/{path}", body, **{"Content-Type": "multipart/form-data; boundary=b"})
        assert status in (200, 422)
    assert stands() == before


@pytest.mark.parametrize(
    ("method", "path"),
    [
        ("GET", "backups"),
        ("POST", "backups"),
        ("POST", "backups/x/restore"),
        ("PUT", "backups/second"),
        ("GET", "bench.zip"),
        ("POST", "bench/whole"),
        ("GET", "devices"),
        ("POST", "devices/offer"),
        ("POST", "devices/share"),
        ("DELETE", f"devices/{uuid.UUID(int=7)}"),
        ("POST", "demo"),
        ("POST", "first-start"),
    ],
)
def test_what_puts_the_whole_bench_at_stake_is_done_at_the_bench(phone, method, path):
    status, answer = phone(method, path, {})
    assert status == 403 and "at the bench itself" in answer["errors"][0]["message"]


@pytest.mark.parametrize(
    "headers",
    [
        {"Host": "bench.example"},
        {"Host": "127.0.0.1"},
        {"Host": "localhost"},
        {"Host": ""},
        {"Host": ADDRESS},
        {"X-Forwarded-For": "10.0.0.1"},
        {"Forwarded": "for=10.0.0.1"},
        {"Via": "1.1 x"},
        {"X-Real-IP": "127.0.0.1"},
    ],
)
def test_other_hosts_and_what_a_proxy_sends_are_refused(phone, headers):
    """DNS rebinding comes with a host of its own; a proxy's headers say that it may come from anywhere."""
    status, content, _ = phone.raw("GET", "/api/bench", **headers)
    assert status in (400, 403) and b"equipment" not in content


@pytest.mark.parametrize(
    "headers",
    [
        {"Origin": "https://evil.example"},
        {"Origin": "null"},
        {"X-CSRFToken": ""},
        {"X-CSRFToken": "b" * 32},
        {"Origin": None, "Referer": "https://evil.example/"},
        {"Origin": None},
    ],
)
def test_a_change_from_another_page_is_refused(phone, headers):
    status, _ = phone("PUT", f"equipment/{uuid.uuid4()}", {"name": "Not ours"}, **headers)
    assert status == 403


def test_the_mark_of_a_door_cannot_be_sent(phone, bench, stranger):
    """Nothing that a device sends makes it the bench."""
    for name in ("swapglow.shared", "swapglow-shared", "Swapglow.Visitor", "X-Swapglow-Shared"):
        assert phone("GET", "backups", **{name: "0"})[0] == 403
    assert phone.raw("GET", "/api/me")[1].count(b'"at_the_bench": false') == 1


def test_the_tls_door_says_nothing_without_tls(stranger, port):
    stranger.plain = True
    try:
        status, content, _ = stranger.raw("GET", "/")
    except (OSError, ValueError):
        return
    assert status == 400 and b"Swap Glow" not in content


def test_old_tls_is_not_spoken(stranger, port):
    """RFC 8996: TLS 1.0 and 1.1 are not to be used."""
    old = ssl.SSLContext(ssl.PROTOCOL_TLS_CLIENT)
    old.check_hostname, old.verify_mode = False, ssl.CERT_NONE
    with pytest.warns(DeprecationWarning, match="TLSv1_1"):
        old.maximum_version = ssl.TLSVersion.TLSv1_1
    with pytest.raises((ssl.SSLError, OSError)):
        old.wrap_socket(__import__("socket").create_connection((ADDRESS, port), 5))


@pytest.mark.parametrize("address", ["8.8.8.8", "0.0.0.0", "::", "::ffff:8.8.8.8", "2001:4860:4860::8888", "bench"])
def test_it_is_shared_on_private_addresses_only(monkeypatch, address):
    """RFC 1918, RFC 4193; "all addresses" would be the public ones too."""
    monkeypatch.setenv("SWAPGLOW_SHARE_ADDRESS", address)
    with pytest.raises(door.DoorError, match="private"):
        door.open_door()
    assert not door.is_open()


def test_only_addresses_that_others_of_the_house_reach_are_shared():
    assert not any(a.startswith(("127.", "169.254.", "fe80")) or a == "::1" for a in addresses.own_addresses())
    for reached in ("10.1.2.3", "172.16.0.9", "192.168.1.5", "fd00::2", "::ffff:192.168.1.5"):
        assert addresses.is_private(reached), reached


def test_a_machine_without_a_network_says_so(monkeypatch):
    monkeypatch.delenv("SWAPGLOW_SHARE_ADDRESS", raising=False)
    monkeypatch.setattr(door, "own_addresses", list)
    with pytest.raises(door.DoorError, match="no address on a private network"):
        door.open_door()


def test_a_port_that_is_taken_is_named(bench, port):
    import socket

    with socket.socket() as held:
        held.bind((ADDRESS, port))
        held.listen()
        status, answer = bench("POST", "devices/share", {"on": True})
    assert status == 422 and str(port) in answer["errors"][0]["message"]


@pytest.mark.parametrize("shared", [False, True])
def test_djangos_own_checks_find_nothing(shared, request):
    """``check --deploy`` in both ways of running; what is silenced there is promised by the tests beside this."""
    if shared:
        request.getfixturevalue("phone")
    with pytest.MonkeyPatch.context() as patch:  # undone before the database is, beside a browser of the same worker
        patch.delenv("DJANGO_ALLOW_ASYNC_UNSAFE")
        patch.setattr("django.conf.settings.SECRET_KEY", "x" * 25 + "abcdefghijklmnopqrstuvwxyz0123456789")
        call_command("check", deploy=True, fail_level="WARNING")
