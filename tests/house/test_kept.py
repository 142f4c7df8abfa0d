"""One cache: by what makes a thing and what it is made of; and visits that see one library from beginning to end."""

from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from datetime import UTC, datetime

import pytest

from loquen.core.library import own
from loquen.core.library.whole import shipped
from loquen.house.house import House
from loquen.house.kept import Kept, at_most
from loquen.store.documents import own as own_rows
from loquen.store.documents.systems import Current

NOW = datetime(2026, 5, 1, tzinfo=UTC)


@dataclass(frozen=True)
class Marked:
    mark: int
    text: str


def danio(**cells):
    return {**own.cells_of(shipped().species["zebra_danio"]), "source": "seen", **cells}


def test_a_thing_is_made_once_for_what_it_is_made_of():
    kept, made = Kept(), []

    def double(of: Marked, times: int = 2) -> int:
        made.append(of)
        return of.mark * times

    assert [kept.of(double, Marked(3, text)) for text in "ab"] == [6, 6]  # told apart by its mark alone
    assert kept.of(double, Marked(4, "a")) == 8
    assert kept.of(double, Marked(3, "a"), times=5) == 15
    assert [one.mark for one in made] == [3, 4, 3]
    assert kept.knows(double, Marked(4, "z"))
    assert not kept.knows(double, Marked(5, "a"))


def test_nothing_is_a_thing_too_and_what_is_raised_is_not_kept():
    kept, asked = Kept(), []

    def nothing(n: int) -> None:
        asked.append(n)
        if n < 0:
            raise ValueError(n)

    for _ in range(2):
        assert kept.of(nothing, 1) is None
        with pytest.raises(ValueError):
            kept.of(nothing, -1)
    assert asked == [1, -1, -1]


def test_those_asked_for_last_are_kept():
    @at_most(3)
    def itself(n: int) -> int:
        return n

    kept = Kept()
    for n in (1, 2, 3, 1, 4):
        kept.of(itself, n)
    assert [n for n in range(1, 5) if kept.knows(itself, n)] == [1, 3, 4]


def test_many_at_once_get_the_same():
    kept = Kept()
    with ThreadPoolExecutor(8) as pool:
        found = list(pool.map(lambda n: kept.of(str, n % 7), range(400)))
    assert found == [str(n % 7) for n in range(400)]


def test_a_system_is_told_apart_by_number_revision_and_text():
    one = Current(1, NOW, 2, "{}")
    others = [
        Current(2, NOW, 2, "{}"),
        Current(1, NOW, 3, "{}"),
        Current(1, NOW, 2, "{ }"),
        Current(1, NOW, 2, None),
    ]
    assert one.mark == Current(1, NOW, 2, "{}").mark
    assert len({one.mark, *(other.mark for other in others)}) == 5
    assert Current(1, NOW, 2, None).mark != Current(1, NOW, 2, "").mark


def test_a_visit_sees_one_library_to_its_end(house):
    before = house.visited()
    with before.writing() as session:
        key = own_rows.add(session, "species", danio(common="Mine"), before.library)
    house.adopt()
    assert key not in before.library.species
    assert key in house.visited().library.species
    # What is made for one is not given to the other; taken out again, what was made before serves once more.

    def length(visit, species):
        row = visit.library.species.get(species)
        return row and row.adult_length_cm

    assert (before.kept(length, key), house.visited().kept(length, key)) == (None, 4.5)
    with before.writing() as session:
        own_rows.delete(session, "species", key)
    house.adopt()
    assert house.visited().knows(length, key)
    assert house.visited().mark == before.mark == ""


def test_two_houses_in_one_process(house, tmp_path, empty_file):
    import shutil

    from loquen.store.database import open_database

    other = House(open_database(shutil.copy(empty_file, tmp_path / "other.db")))
    for one, cm in ((house, "8"), (other, "16")):
        visit = one.visited()
        with visit.writing() as session:
            own_rows.add(session, "species", danio(common="Mine", adult_length_cm=cm), visit.library)
        one.adopt()
    lengths = [one.visited().library.species["own_mine"].adult_length_cm for one in (house, other)]
    other.database.close()
    assert lengths == [8, 16]


def test_an_own_filter_may_name_own_media(house):
    visit = house.visited()
    mat = {**own.cells_of(shipped().media["sponge_20"]), "label": "Mat", "source": "seen"}
    with visit.writing() as session:
        own_rows.add(session, "media", mat, visit.library)
    house.adopt()
    cells = {**own.cells_of(next(iter(shipped().filter_models.values()))), "label": "Box", "source": "seen"}
    visit = house.visited()
    with visit.writing() as session:
        own_rows.add(session, "filters", {**cells, "media_key": "own_mat"}, visit.library)
    house.adopt()
    assert House(house.database).library.filter_models["own_box"].media_key == "own_mat"
