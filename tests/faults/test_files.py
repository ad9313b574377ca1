"""Spoilt files are told or read, never a crash, in little time and memory (`make faults` tries many more)."""

import pytest

from tests.faults.mutations import Reader, outcome, readers

TRIED = {"tab text": 1_500, "song as JSON": 1_500, "ladder": 500, "ABC": 100}
USUALLY = 150


@pytest.mark.parametrize("reader", readers(), ids=lambda reader: reader.name)
def test_a_spoilt_file_is_read_or_told_in_a_moment(reader: Reader) -> None:
    found = outcome(reader, TRIED.get(reader.name, USUALLY), seed=4)
    assert found.faults == []
    assert found.tried == TRIED.get(reader.name, USUALLY)


def test_the_spoilt_files_are_neither_all_whole_nor_all_hopeless() -> None:
    for reader in readers()[:2]:
        found = outcome(reader, 300, seed=5)
        assert 10 < found.read < 290, reader.name
