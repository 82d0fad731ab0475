"""What docs/sharing.md promises of pairing: who is let in, and who is let in no more."""

import hashlib
import sqlite3
import ssl
from datetime import timedelta

import pytest
from django.conf import settings
from django.utils import timezone

from swapglow.devices import pairing, rates
from swapglow.devices.models import UNSEEN, Device
from tests.devices.conftest import ADDRESS, Phone

pytestmark = pytest.mark.django_db(transaction=True, databases=["default", "devices"])


def begin(bench, **more):
    return bench("POST", "devices/offer", {"may_write": True, **more})[1]


def test_nothing_answers_before_the_bench_is_shared(bench, port):
    assert bench("GET", "devices")[1]["sharing"]["on"] is False
    with pytest.raises(ConnectionRefusedError):
        Phone(port).open()
    # The bench's own door is as it was: no login.
    assert bench("GET", "bench")[0] == 200


def test_a_stranger_gets_the_page_and_no_record(stranger):
    assert stranger.open() == 200
    for path in ("bench", "catalogue", "pulse", "day", "leds", "devices", "backups", "about", "openapi.json"):
        assert stranger("GET", path)[0] == 401, path
    told = stranger("GET", "me")[1]
    assert told.pop("version") and not any(told.values())


def test_code_and_digits_let_a_device_in_once(bench, stranger, port):
    offer = begin(bench)
    status, me = stranger.pair(offer, name="Phone beside the vice")
    assert status == 200 and me["paired"] and me["may_write"] and me["device"] == "Phone beside the vice"
    assert stranger("GET", "bench")[0] == 200
    [device] = bench("GET", "devices")[1]["devices"]
    assert device["name"] == "Phone beside the vice" and not device["expired"]
    # Whoever photographed the screen comes too late.
    thief = Phone(port)
    status, answer = thief.pair(offer)
    assert status == 410 and "used up" in answer["errors"][0]["message"]
    assert thief("GET", "bench")[0] == 401


def test_five_wrong_codes_and_it_is_used_up(bench, stranger):
    offer = begin(bench)
    wrong = f"{(int(offer['digits']) + 1) % 10**6:06d}"
    left = [stranger.pair(offer, wrong) for _ in range(5)]
    assert [status for status, _ in left] == [422] * 4 + [410]
    assert "4 tries are left" in left[0][1]["errors"][0]["message"]
    assert "1 try is left" in left[3][1]["errors"][0]["message"]
    assert stranger.pair(offer)[0] == 410
    assert not Device.objects.exists()


def test_digits_without_the_code_and_the_code_without_digits_let_nobody_in(bench, stranger):
    offer = begin(bench)
    assert stranger.pair({**offer, "url": "x#guessed"})[0] == 410
    assert stranger.pair(offer, "")[0] == 422
    assert stranger.pair({**offer, "url": "x#ぬ"}, "１２３４５６")[0] == 410


def test_a_code_lasts_three_minutes(bench, stranger, monkeypatch):
    offer = begin(bench)
    assert 170 <= offer["seconds"] <= 180
    monkeypatch.setattr(pairing.time, "monotonic", lambda now=pairing.time.monotonic: now() + 181)
    assert stranger.pair(offer)[0] == 410


def test_a_new_code_ends_the_one_before_and_a_withdrawn_one_is_over(bench, stranger):
    first = begin(bench)
    second = begin(bench)
    assert stranger.pair(first)[0] == 410
    assert bench("DELETE", "devices/offer")[0] == 204
    assert stranger.pair(second)[0] == 410


def test_tries_are_limited_whatever_codes_they_are_for(bench, stranger):
    """Ten a minute, over all devices."""
    found = [stranger.pair({"url": "x#guess", "digits": "000000"})[0] for _ in range(12)]
    assert found == [410] * 10 + [429] * 2


def test_the_cookie_is_long_random_and_for_this_bench_only(phone):
    [text] = [c for c in phone.set_cookies if "device" in c]
    name, token = text.split(";")[0].split("=")
    flags = {part.strip().lower() for part in text.split(";")[1:]}
    # RFC 6265bis, 4.1.3.2: this prefix asks for Secure, the path "/" and no domain.
    assert name == "__Host-device" and {"secure", "httponly", "samesite=strict", "path=/"} <= flags
    assert len(token) >= 43 and not any(f.startswith("domain") for f in flags)
    assert "secure" in next(c for c in phone.set_cookies if c.startswith("csrftoken")).lower()
    # The bench keeps no token, only its digest.
    kept = settings.DATABASES["devices"]["NAME"]
    with sqlite3.connect(kept) as database:
        rows = str(database.execute("SELECT * FROM devices_device").fetchall())
    assert token not in rows and hashlib.sha256(token.encode()).hexdigest() in rows


def test_a_device_that_is_taken_away_is_out_at_once(bench, phone):
    [device] = bench("GET", "devices")[1]["devices"]
    assert bench("DELETE", f"devices/{device['id']}")[0] == 204
    status, answer = phone("GET", "bench")
    assert status == 401 and "not paired" in answer["errors"][0]["message"]
    assert bench("GET", "devices")[1]["devices"] == []


def test_a_device_that_was_taken_away_stays_away_after_a_restore(bench, phone, other_databases):
    """The backup is older than the taking away."""
    assert bench("POST", "backups")[0] == 200
    bench("DELETE", f"devices/{bench('GET', 'devices')[1]['devices'][0]['id']}")
    [backup, *_] = bench("GET", "backups")[1]["backups"]
    assert bench("POST", f"backups/{backup['name']}/restore")[0] == 200
    assert phone("GET", "bench")[0] == 401


def test_a_device_that_was_not_seen_for_long_is_paired_anew(bench, phone):
    Device.objects.update(seen=timezone.now() - UNSEEN - timedelta(hours=1))
    assert phone("GET", "bench")[0] == 401
    assert bench("GET", "devices")[1]["devices"][0]["expired"]


def test_last_seen_is_when_it_was_last_here(bench, phone):
    Device.objects.update(seen=timezone.now() - timedelta(days=3))
    phone("GET", "bench")
    assert timezone.now() - Device.objects.get().seen < timedelta(minutes=1)


def test_a_bench_that_is_not_shared_any_more_answers_no_phone(bench, phone):
    assert bench("POST", "devices/share", {"on": False})[1]["on"] is False
    with pytest.raises(ConnectionRefusedError):
        phone("GET", "bench")
    # Shared again, the phone is still paired.
    bench("POST", "devices/share", {"on": True})
    assert phone("GET", "bench")[0] == 200


def test_the_fingerprint_shown_is_that_of_the_certificate_served(bench, phone, port):
    pem = ssl.get_server_certificate((ADDRESS, port))
    digest = hashlib.sha256(ssl.PEM_cert_to_DER_cert(pem)).hexdigest().upper()
    shown = bench("GET", "devices")[1]["sharing"]["fingerprint"]
    assert shown.replace(":", "") == digest
    # It stays the same as long as the address does: a phone is asked once.
    bench("POST", "devices/share", {"on": False})
    assert bench("POST", "devices/share", {"on": True})[1]["fingerprint"] == shown
    assert (settings.VAR / "bench.key").stat().st_mode & 0o077 == 0


def test_without_tls_only_by_choice_and_with_a_cookie_of_its_own(bench, port):
    assert bench("POST", "devices/share", {"on": True, "plain": True})[1]["plain"] is True
    phone = Phone(port, plain=True)
    assert phone.pair(begin(bench))[0] == 200
    assert "device-in-the-clear" in phone.cookies and phone("GET", "bench")[0] == 200
    # Back on TLS, what may have been read along opens nothing.
    bench("POST", "devices/share", {"on": True, "plain": False})
    other = Phone(port)
    other.cookies = {"__Host-device": "", **phone.cookies}
    assert other("GET", "bench")[0] == 401


def test_requests_and_bytes_of_one_device_are_limited(bench, phone, monkeypatch):
    monkeypatch.setattr(rates, "MEGABYTES", rates.RateLimitItemPerHour(2, namespace="few"))
    keys = bench.made()
    path = f"/api/equipment/{keys['equipment']}/photos/{keys['position']}"
    codes = [phone.raw("POST", path, b"x" * 1_500_000)[0] for _ in range(2)]
    assert codes[1] == 429 and codes[0] != 429
    assert phone("GET", "bench")[0] == 200
    monkeypatch.setattr(rates, "REQUESTS", rates.RateLimitItemPerMinute(3, namespace="seldom"))
    assert [phone("GET", "pulse")[0] for _ in range(4)] == [200, 200, 200, 429]
