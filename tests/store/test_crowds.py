"""Many at once, on real threads and a real file: nobody is told “saved” of what is not, and the loser is told."""

import random
from concurrent.futures import ThreadPoolExecutor
from itertools import pairwise
from threading import Barrier

import pytest

from loquen.store.documents import systems, waters
from loquen.store.documents.systems import NothingToUndo, StaleRevision

ROUNDS = 20


@pytest.fixture
def system(database):
    with database.writing() as session:
        return systems.create(session, '{"name": "0"}').id


def at_once(acts):
    """What came of some acts done at the same moment: their results, or what they raised."""
    start = Barrier(len(acts))

    def run(act):
        start.wait()
        try:
            return act()
        except (StaleRevision, NothingToUndo) as fault:
            return fault

    with ThreadPoolExecutor(len(acts)) as pool:
        return list(pool.map(run, acts))


def current(database, system):
    with database.reading() as session:
        return systems.read(session, system)


def saver(database, system, base, document):
    def save():
        with database.writing() as session:
            return systems.update(session, system, base, document)

    return save


def test_of_eight_savers_on_one_base_one_wins_and_the_others_know(database, system):
    for n in range(ROUNDS):
        base = current(database, system).revision
        savers = [saver(database, system, base, f'{{"name": "{n}-{i}"}}') for i in range(8)]
        came = at_once(savers)
        (won,) = [one for one in came if not isinstance(one, StaleRevision)]
        assert (won.revision, won.document) == (
            current(database, system).revision,
            current(database, system).document,
        )
        assert {fault.current for fault in came if isinstance(fault, StaleRevision)} == {won.revision}


def test_a_save_beside_an_undo_leaves_one_of_them_standing(database, system):
    for n in range(ROUNDS):
        base = saver(database, system, current(database, system).revision, f'{{"name": "before {n}"}}')().revision

        def undo(base=base):
            with database.writing() as session:
                return systems.undo(session, system, base)

        came = at_once([saver(database, system, base, f'{{"name": "saved {n}"}}'), undo])
        (stands,) = [one for one in came if not isinstance(one, StaleRevision)]
        assert current(database, system).document == stands.document


def test_two_tabs_on_one_water(database):
    with database.writing() as session:
        water = waters.create(session, "{}").id
    for n in range(ROUNDS):
        with database.reading() as session:
            (row,) = waters.list_all(session)

        def change(i, base=row.revision, n=n):
            with database.writing() as session:
                return waters.update(session, water, base, f'{{"n": "{n}-{i}"}}')

        came = at_once([lambda i=i: change(i) for i in range(4)])
        (won,) = [one for one in came if not isinstance(one, StaleRevision)]
        with database.reading() as session:
            (row,) = waters.list_all(session)
        assert (row.document, row.revision) == (won.document, won.revision)


def test_fifty_six_readers_and_writers_all_get_their_turn(database, system):
    def read():
        with database.reading() as session:
            return systems.list_all(session)

    def write():
        with database.writing() as session:
            return systems.create(session, "{}")

    came = at_once([write if n % 4 == 0 else read for n in range(56)])
    assert len(came) == 56
    with database.reading() as session:
        assert len(systems.list_all(session)) == 1 + 14


# Thinning ---------------------------------------------------------------------------------------


@pytest.fixture
def edited(database, system):
    """A system with a thousand edits, a few of them undone."""
    rng = random.Random(4)
    said = {1: '{"name": "0"}'}
    with database.writing() as session:
        for n in range(1000):
            base = systems.read(session, system).revision
            saved = systems.update(session, system, base, f'{{"name": "edit {n}"}}')
            said[saved.revision] = saved.document
            if rng.random() < 0.05:
                systems.undo(session, system, saved.revision)
    return said


def test_old_revisions_are_let_go_of_and_undo_never_notices(database, system, edited):
    with database.writing() as session:
        kept = systems.history(session, system)
        assert len(kept) <= 401
        now, steps = systems.read(session, system), []
        while now.can_undo:
            now = systems.undo(session, system, now.revision)
            steps.append(now.revision)
            assert now.document == edited[now.revision]
        assert (now.revision, len(steps) >= 200) == (1, True)
        # The nearest two hundred are every single step.
        previous = {row.number: row.previous for row in kept}
        assert all(previous[a] == b for a, b in pairwise(steps[:200]))


def test_the_way_forward_is_kept_too(database, system, edited):
    with database.writing() as session:
        now = systems.read(session, system)
        for _ in range(150):
            now = systems.undo(session, system, now.revision)
        ahead = [now := systems.redo(session, system, now.revision) for _ in range(150)]
        assert ahead[-1].document == edited[ahead[-1].revision]
