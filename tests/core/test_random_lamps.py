"""A taste of ``make fuzz-core``: random lamps are answered twice alike, or refused by a field's name."""

from scripts.fuzz.documents import document
from scripts.fuzz.run import many


def test_random_lamps_are_answered_rightly_or_refused_by_name():
    """Thirty of them; of one in four the swaps are searched, every remedy taken, and the best swap judged."""
    tally = many(900_000, 900_030, 4)
    assert tally.wrong == []
    assert tally.ends["confirmed"] > 13
    assert sum(tally.ends.values()) == 30
    assert tally.ends["not settled"] <= 1


def test_filaments_that_stand_at_their_knee_come_to_rest():
    """Two lamps that did not: one on a shared feed of 1.3 Ω, one with five others in its loop."""
    for seed in (6264, 16821):
        tally = many(seed, seed + 1, seed + 1)
        assert (tally.wrong, tally.ends["not settled"], sum(tally.ends.values())) == ([], 0, 1)


def test_the_same_seed_makes_the_same_lamp():
    assert document(7) == document(7)
    assert document(7) != document(8)
