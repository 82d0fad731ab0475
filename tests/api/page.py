"""A page of our own, talking to the API with cookie and header."""

import json
import uuid

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from swapglow.core.quantities import OHM, show
from swapglow.records.drawer import at_hand


class Bench:
    """A page of our own: a client with the CSRF cookie and header."""

    def __init__(self, client=None):
        self.client = client or Client(enforce_csrf_checks=True, SERVER_NAME="127.0.0.1")
        self.client.cookies["csrftoken"] = "a" * 32

    def __call__(self, method, path, body=None):
        answer = self.client.generic(
            method,
            f"/api/{path}",
            json.dumps(body) if body is not None else "",
            content_type="application/json",
            headers={"X-CSRFToken": "a" * 32},
        )
        return answer.status_code, (json.loads(answer.content) if answer.content else None)

    def step(self, scope, which="undo"):
        """The step that undo or redo would take in a scope: an item's key, "drawer" or "" for the bench."""
        path = {"": "bench", "drawer": "drawer"}.get(scope, f"equipment/{scope}")
        return self("GET", path)[1]["steps"][which]

    def undo(self, scope="", which="undo", **more):
        """Step back, or forth, in a scope."""
        return self("POST", which, {"step": self.step(scope, which)["id"], **more})

    def made(self, rail="21-23V"):
        """An item with a rail and a lamp; their keys."""
        keys = {k: str(uuid.uuid4()) for k in ("equipment", "rail", "position")}
        assert self("PUT", f"equipment/{keys['equipment']}", {"name": "Tide gauge"})[0] == 200
        rail_body = {"equipment": keys["equipment"], "name": "Main", "usual": {"text": rail, "source": "measured"}}
        assert self("PUT", f"rails/{keys['rail']}", rail_body)[0] == 200
        lamp = {"equipment": keys["equipment"], "name": "Ready", "led_id": "red-5-diffused", "target": {"text": "4mA"}}
        assert self("PUT", f"positions/{keys['position']}", lamp)[0] == 200
        return keys

    def signals(self):
        """An item with a red lamp on 12 V and a blue one on 5 V, 680 Ω each; its key, and theirs."""
        item, lamps = str(uuid.uuid4()), []
        assert self("PUT", f"equipment/{item}", {"name": "Pier signals"})[0] == 200
        for name, volts, led in (("Ebb", "12V", "red-5-diffused"), ("Flood", "5V", "blue-3-diffused")):
            rail, lamp = str(uuid.uuid4()), str(uuid.uuid4())
            feed = {"equipment": item, "name": f"{name} feed", "usual": {"text": volts, "source": "measured"}}
            assert self("PUT", f"rails/{rail}", feed)[0] == 200
            body = {
                "equipment": item,
                "rail": rail,
                "name": name,
                "led_id": led,
                "resistor": "680R",
                "target": {"text": "3mA", "source": "assumed"},
            }
            assert self("PUT", f"positions/{lamp}", body)[0] == 200
            lamps.append(lamp)
        return item, lamps

    def send(self, path, name, content, **fields):
        """Post a file."""
        body = {"file": SimpleUploadedFile(name, content), **fields}
        answer = self.client.post(f"/api/{path}", body, headers={"X-CSRFToken": "a" * 32})
        return answer.status_code, (json.loads(answer.content) if answer.content else None)

    def raw(self, path):
        """What a link would download."""
        answer = self.client.get(f"/api/{path}")
        return answer.status_code, answer.content, answer.headers


def hand():
    """Resistor values at hand, as printed."""
    return [show(ohm, OHM, 6) for ohm in sorted(at_hand())]
