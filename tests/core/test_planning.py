"""The bench day: no wait, no dependency and no hour is broken, whatever is asked; and what it is worth.

The hours of small days are added up by hand beside them.
"""

from datetime import datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from swapglow.core.planning.build_step_kinds import day_tick
from swapglow.core.planning.day import at_clock, first_come, meanwhile, plan_day, while_hot
from swapglow.core.planning.durations import durations_of
from swapglow.core.planning.remaining_work import kinds_left
from swapglow.core.planning.work import CHANGE_MIN, KINDS, SET_UP_MIN, SOAK_MIN, USUAL_MIN, Lamp, tasks_of
from swapglow.core.quantities import InputError
from swapglow.core.quantities.everyday import read_minutes

NINE = datetime(2031, 5, 20, 9)
KIND = st.sampled_from(list(KINDS))


@st.composite
def lamps(draw):
    out = []
    for n in range(draw(st.integers(1, 12))):
        left = tuple(k for k in KINDS if draw(st.booleans()))
        held = {k: "parts" for k in left if draw(st.integers(0, 9)) == 0}
        until = {k: NINE + timedelta(minutes=draw(st.integers(-600, 600))) for k in held if draw(st.booleans())}
        item = f"i{draw(st.integers(0, 3))}"
        due = draw(st.sampled_from(["", "", "2031-05-21", "2031-06-01"]))
        out.append(Lamp(f"l{n}", f"Lamp {n}", item, item, left, held, until, due))
    return out


@given(lamps(), st.floats(0.1, 12))
def test_no_day_breaks_a_wait_a_dependency_or_the_hours(found, hours):
    """Read from the plan alone: hands do one thing at a time, each after what comes before it has rested."""
    tasks = [t for lamp in found for t in tasks_of(lamp, USUAL_MIN)]
    for day in (plan_day(tasks, hours, NINE), first_come(tasks, hours, NINE)):
        done = {d.task.id: d for b in day.blocks for d in b.done}
        assert sorted([*done, *(h.task.id for h in day.held)]) == sorted(t.id for t in tasks)
        at = 0.0
        for d in (d for b in day.blocks for d in b.done):
            assert d.start >= at - 1e-6
            at = d.end
            assert d.end <= hours * 60 + 1e-6
            assert d.end - d.start >= d.task.minutes - 1e-9
            assert d.ready - d.end == pytest.approx(SOAK_MIN if d.task.kind == "soak" else 0)
            for before in d.task.after:
                assert done[before].ready <= d.start + 1e-6
            if d.task.held:
                assert d.task.until is not None and at_clock(NINE, d.start + 1) >= d.task.until
        assert all(h.why for h in day.held)


def lamp(n, left, item="desk", **more):
    return Lamp(f"{n}", f"Lamp {n}", item, item, left, more.get("held", {}), more.get("until", {}), more.get("due", ""))


def planned(*found, hours=8.0, **minutes):
    every = {**USUAL_MIN, **minutes}
    return plan_day([t for one in found for t in tasks_of(one, every)], hours, NINE)


def order(day):
    return [(b.kind, [d.task.lamp for d in b.done]) for b in day.blocks]


def test_the_same_work_on_all_lamps_is_done_together():
    """Heat-up 5, another item 2, twice six minutes: 19; sleeves 2 + 4 + 4; the iron is hot still: 8 + 8."""
    two = [lamp(n, ("desolder", "sleeve", "solder")) for n in (1, 2)]
    day = planned(*two)
    assert order(day) == [
        ("desolder", ["Lamp 1", "Lamp 2"]),
        ("sleeve", ["Lamp 1", "Lamp 2"]),
        ("solder", ["Lamp 1", "Lamp 2"]),
    ]
    assert [(b.start, b.end) for b in day.blocks] == [(0, 19), (19, 29), (29, 45)]
    assert day.blocks[2].why == "The iron is hot."
    slow = first_come([t for one in two for t in tasks_of(one, USUAL_MIN)], 8, NINE)
    # Each lamp to its end: the sleeves are got out twice.
    assert slow.hands_min == 45 + SET_UP_MIN["sleeve"]


def test_what_soaks_is_lit_first_and_hands_work_meanwhile():
    day = planned(lamp(1, ("soak", "close")), lamp(2, ("solder",)))
    assert order(day) == [("soak", ["Lamp 1"]), ("solder", ["Lamp 2"]), ("close", ["Lamp 1"])]
    soak, solder, close = day.blocks
    assert solder.soaking == "While Lamp 1 soaks"
    assert close.start == pytest.approx(soak.end + SOAK_MIN)
    assert day.end_min == pytest.approx(
        SET_UP_MIN["soak"] + CHANGE_MIN + USUAL_MIN["soak"] + SOAK_MIN + SET_UP_MIN["close"] + USUAL_MIN["close"]
    )


def test_what_was_promised_first_comes_first_within_its_kind():
    day = planned(lamp(1, ("trial",)), lamp(2, ("trial",), due="2031-06-01"), lamp(3, ("trial",), due="2031-05-21"))
    assert order(day) == [("trial", ["Lamp 3", "Lamp 2", "Lamp 1"])]
    assert day.blocks[0].why == "Promised for 2031-05-21."


@pytest.mark.parametrize("due", ["2031-05-20", "2031-05-02"])
def test_what_is_promised_for_today_is_done_although_other_work_would_save_changes(due):
    """One hour. Six lamps at the iron take 5 + 6 × 8 minutes: reading the seventh (2 + 2 + 6) would not fit after."""
    many = [lamp(n, ("solder",)) for n in range(6)]
    day = planned(*many, lamp("late", ("read",), item="horn", due=due), hours=1.0)
    done = [d.task.lamp for b in day.blocks for d in b.done]
    assert done[0] == "Lamp late"
    assert len(done) > 1


def test_items_are_not_taken_in_hand_twice():
    day = planned(lamp(1, ("trial",), "a"), lamp(2, ("trial",), "b"), lamp(3, ("trial",), "a"))
    assert order(day) == [("trial", ["Lamp 1", "Lamp 3", "Lamp 2"])]
    assert day.hands_min == SET_UP_MIN["trial"] + 2 * CHANGE_MIN + 3 * USUAL_MIN["trial"]


def test_what_waits_says_for_what():
    until = {"solder": NINE + timedelta(hours=2)}
    day = planned(
        lamp(1, ("trial", "solder"), held={"solder": "Parts on order"}),
        lamp(2, ("solder",), held={"solder": "Paint dries"}, until=until),
        hours=3,
    )
    assert order(day) == [("trial", ["Lamp 1"]), ("solder", ["Lamp 2"])]
    assert day.blocks[1].start == 120
    assert [(h.task.lamp, h.why) for h in day.held] == [("Lamp 1", "Parts on order")]
    short = planned(lamp(2, ("solder",), held={"solder": "Paint dries"}, until=until), hours=1)
    assert [h.why for h in short.held] == ["Paint dries, until 2031-05-20 11:00"]


def test_a_day_says_what_is_in_it_and_what_waits_by_itself():
    """Two trials on one item: 3 + 2 + 10 + 10 = 25 minutes; what only follows the held trial is not told again."""
    day = planned(lamp(1, ("trial",)), lamp(2, ("trial",)), lamp(3, ("trial", "solder"), held={"trial": "Owner asked"}))
    assert day.line == "2 of 4 things, on 2 lamps: 25 min of hands."
    assert [(h.task.lamp, h.task.kind, h.why) for h in day.waits] == [("Lamp 3", "trial", "Owner asked")]
    assert len(day.held) == 2
    one = planned(lamp(1, ("trial",)), lamp(2, ("close",)), hours=0.25)
    assert one.line == "1 of 2 things, on 1 lamp: 15 min of hands."
    assert [h.why for h in one.waits] == ["It does not fit into the hours."]
    stuck = planned(lamp(3, ("trial",), held={"trial": "Owner asked"}))
    assert stuck.line == "Nothing can be done now: see what waits, and for what."
    assert planned().line == "Nothing is left to do on the bench."


def test_what_the_hot_iron_and_a_soak_leave_time_for():
    """A soak lasts half an hour: what takes longer is not begun in it; what must wait is in neither list."""
    found = [
        lamp(1, ("desolder", "sleeve")),
        lamp(2, ("solder",)),
        lamp(3, ("soak", "close")),
        lamp(4, ("trial",)),
        lamp(5, ("prove",)),
        lamp(6, ("solder",), held={"solder": "Parts on order"}),
        lamp(7, ("close",), held={"close": "Paint dries"}, until={"close": NINE}),
        lamp(8, ("read",), held={"read": "Owner asked"}, until={"read": NINE + timedelta(minutes=1)}),
    ]
    tasks = [t for one in found for t in tasks_of(one, {**USUAL_MIN, "trial": SOAK_MIN, "prove": SOAK_MIN + 1})]
    assert [(t.lamp, t.kind) for t in while_hot(tasks, NINE)] == [("Lamp 1", "desolder"), ("Lamp 2", "solder")]
    assert [(t.lamp, t.kind) for t in meanwhile(tasks, NINE)] == [("Lamp 4", "trial"), ("Lamp 7", "close")]


def test_nothing_is_begun_that_would_not_be_finished():
    """Set-up 3, item 2, ten minutes: fifteen; in fourteen it does not fit, and a shorter one behind it does."""
    day = planned(lamp(1, ("trial",)), lamp(2, ("prove",)), hours=14 / 60)
    assert order(day) == [("prove", ["Lamp 2"])]
    assert [h.why for h in day.held] == ["It does not fit into the hours."]
    assert order(planned(lamp(1, ("trial",)), hours=15 / 60)) == [("trial", ["Lamp 1"])]


def test_how_long_it_takes_is_learnt_from_three_on():
    """Of 4, 6 and 11 the middle is 6; half lie between 5 and 8.5 (quartiles, inclusive)."""
    found = durations_of({"trial": [4, 11, 6], "solder": [30, 40]})
    assert (found["trial"].minutes, found["trial"].low, found["trial"].high, found["trial"].known) == (6, 5, 8.5, 3)
    assert found["trial"].line == "median of 3 here, 5 to 8 min in the middle half"
    assert (found["solder"].minutes, found["solder"].line) == (USUAL_MIN["solder"], "usual, ours: 2 of 3 recorded")


@pytest.mark.parametrize(
    ("text", "minutes"),
    [
        ("12", 12),
        ("40 min", 40),
        ("1.5 h", 90),
        ("1,5h", 90),
        ("1h 20min", 80),
        ("2 hours", 120),
        ("", None),
        (".5h", 30),
    ],
)
def test_times_are_read_as_people_write_them(text, minutes):
    assert read_minutes("minutes", text) == minutes


@pytest.mark.parametrize("text", ["soon", "12 kg", "h", "9999h", "-3"])
def test_what_is_no_time_is_refused(text):
    with pytest.raises(InputError, match=r"Write it like 12, 40 min or 1\.5 h"):
        read_minutes("minutes", text)


def test_what_is_ticked_in_the_day_is_behind_and_the_last_ends_the_work():
    done = [day_tick(k) for k in ("trial", "solder")]
    assert kinds_left("sizing", done, asks_reading=True) == ("read", "desolder", "sleeve", "prove", "soak", "close")
    assert kinds_left("sizing", [day_tick("close")], asks_reading=True) == ()
    # A reading is done once it is written down, and not by a tick.
    assert day_tick("read") == "" and kinds_left("sizing", [""], asks_reading=True)[0] == "read"
