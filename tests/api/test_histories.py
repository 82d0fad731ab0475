"""Random histories of edits, undos and redos over several items and two clients, against a model.

The model keeps every field by itself. A step is the fields it set, with what stood there before; undo puts back
just these. Whatever else stands must not move.
"""

import copy
import os

import pytest
from hypothesis import HealthCheck, Phase, settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, precondition, rule

from swapglow.records.models import Equipment, Position, Rail, Step
from tests.api.page import Bench
from tests.api.test_steps import later

LONG = bool(os.environ.get("TORTURE"))
ITEMS, CLIENTS = 2, 2
TEXTS = st.sampled_from(["", "1k", "2k2", "4k7"])
WIRES = st.sampled_from(["a", "b"])
WHO = st.integers(0, CLIENTS - 1)
WHICH = st.integers(0, ITEMS - 1)


class Histories(RuleBasedStateMachine):
    """What a bench does, and what a model of it says."""

    @initialize()
    def begin(self):
        Equipment.objects.all().delete()
        Step.objects.all().delete()
        self.clients = [Bench() for _ in range(CLIENTS)]
        self.items = [self.clients[0].made() for _ in range(ITEMS)]
        Step.objects.all().delete()
        self.state = {}
        for n, keys in enumerate(self.items):
            self.state |= self._read(n, keys)
        # Done and undone steps by item: (fields before, fields after).
        self.done = [[] for _ in self.items]
        self.undone = [[] for _ in self.items]

    def _read(self, n, keys):
        p = Position.objects.get(pk=keys["position"]).input
        sheet = Equipment.objects.get(pk=keys["equipment"]).sheet
        out = {
            (n, "resistor"): p.resistor,
            (n, "notes"): p.notes,
            (n, "in_series"): p.in_series,
            (n, "high"): Rail.objects.get(pk=keys["rail"]).input.high.text,
        }
        for key in ("a", "b"):
            wire = sheet.wires.get(key)
            out[n, "wire", key] = None if wire is None else (wire.name, wire.goes)
        return out

    def _did(self, n, after):
        """The model's own step; steps that change nothing are none."""
        changed = {f: v for f, v in after.items() if self.state[f] != v}
        if not changed:
            return
        self.done[n].append(({f: self.state[f] for f in changed}, changed))
        self.undone[n].clear()
        self.state |= changed
        later()

    @rule(who=WHO, n=WHICH, text=TEXTS)
    def resistor(self, who, n, text):
        assert self.clients[who]("PATCH", f"positions/{self.items[n]['position']}", {"resistor": text})[0] == 200
        self._did(n, {(n, "resistor"): text})

    @rule(who=WHO, n=WHICH, text=TEXTS, count=st.integers(1, 3))
    def notes_and_count(self, who, n, text, count):
        body = {"notes": text, "in_series": count}
        assert self.clients[who]("PATCH", f"positions/{self.items[n]['position']}", body)[0] == 200
        self._did(n, {(n, "notes"): text, (n, "in_series"): count})

    @rule(who=WHO, n=WHICH, volts=st.sampled_from(["", "24V", "25V"]))
    def rail(self, who, n, volts):
        path = f"rails/{self.items[n]['rail']}"
        assert self.clients[who]("PATCH", path, {"high": {"text": volts}})[0] == 200
        self._did(n, {(n, "high"): volts})

    @rule(who=WHO, n=WHICH, key=WIRES, part=st.sampled_from([0, 1]), text=TEXTS)
    def wire(self, who, n, key, part, text):
        field = ("name", "goes")[part]
        path = f"equipment/{self.items[n]['equipment']}/take-in"
        assert self.clients[who]("PATCH", path, {"wires": {key: {field: text}}})[0] == 200
        old = list(self.state[n, "wire", key] or ("", ""))
        old[part] = text
        self._did(n, {(n, "wire", key): tuple(old)})

    @rule(who=WHO, n=WHICH, key=WIRES)
    def strike_wire(self, who, n, key):
        path = f"equipment/{self.items[n]['equipment']}/take-in"
        assert self.clients[who]("PATCH", path, {"wires": {key: None}})[0] == 200
        self._did(n, {(n, "wire", key): None})

    @precondition(lambda self: any(self.done))
    @rule(who=WHO, n=WHICH)
    def undo(self, who, n):
        if not self.done[n]:
            return
        assert self.clients[who].undo(self.items[n]["equipment"])[0] == 200
        before, after = self.done[n].pop()
        self.undone[n].append((before, after))
        self.state |= before

    @precondition(lambda self: any(self.undone))
    @rule(who=WHO, n=WHICH)
    def redo(self, who, n):
        if not self.undone[n]:
            return
        assert self.clients[who].undo(self.items[n]["equipment"], "redo")[0] == 200
        before, after = self.undone[n].pop()
        self.done[n].append((before, after))
        self.state |= after

    @rule(who=WHO, n=WHICH, data=st.data())
    def undo_one_in_the_middle(self, who, n, data):
        """A step of long ago: fields changed since are kept, all others given back."""
        if len(self.done[n]) < 2:
            return
        steps = list(Step.objects.filter(scope=self.items[n]["equipment"], kind="do", reverted=False))
        place = data.draw(st.integers(0, len(steps) - 2))
        before, after = self.done[n][place]
        mine = copy.deepcopy(self.state)
        clash = [f for f in after if self.state[f] not in (after[f], before[f])]
        answer = self.clients[who]("POST", "undo", {"step": steps[place].pk, "choice": "ask"})
        if any(isinstance(after[f], tuple) or isinstance(before[f], tuple) for f in after):
            # A wire is two fields here and one in the model: it is undone again where the model cannot tell.
            if answer[0] == 200:
                self.state |= self._read(n, self.items[n])
                assert {f for f, v in self.state.items() if mine[f] != v} <= set(after)
                del self.done[n][place]
                self.undone[n].append((before, after))
                self._forget_order(n)
            return
        assert answer[0] == (409 if clash else 200), answer
        if not clash:
            self.state |= before
            del self.done[n][place]
            self._forget_order(n)

    def _forget_order(self, n):
        """Out of their order the model follows no further: both begin anew from what stands."""
        Step.objects.filter(scope=self.items[n]["equipment"]).delete()
        self.done[n].clear()
        self.undone[n].clear()

    @invariant()
    def nothing_else_moved(self):
        for n, keys in enumerate(getattr(self, "items", [])):
            read = self._read(n, keys)
            assert read == {f: self.state[f] for f in read}


@pytest.mark.django_db
def test_nothing_changes_but_what_a_step_names():
    class Bound(Histories.TestCase):
        settings = settings(
            max_examples=400 if LONG else 12,
            stateful_step_count=40 if LONG else 20,
            deadline=None,
            database=None,
            suppress_health_check=list(HealthCheck),
            report_multiple_bugs=False,
            phases=list(Phase) if LONG else [Phase.explicit, Phase.generate],
        )

    Bound().runTest()
