"""A group seats people within their limits."""

import pytest

from clear_steps.core.teach import Playable, best_fit

# Step and bars past the player, of the original and two versions.
STRONG = ((6.0, 0), (4.0, 0), (2.0, 0))
SMALL_HAND = ((6.5, 3), (4.2, 1), (2.1, 0))
BEGINNER = ((7.0, 9), (5.0, 4), (3.0, 2))


@pytest.mark.parametrize(
    ("players", "comfortable", "taken"),
    [
        ((STRONG,), (None,), (0,)),
        ((STRONG,), (4.5,), (1,)),
        ((SMALL_HAND,), (None,), (2,)),
        ((STRONG, STRONG), (None, None), (0, 1)),
        ((STRONG, STRONG), (6.0, 2.0), (0, 2)),
        ((SMALL_HAND, SMALL_HAND), (None, None), (2, 2)),
        ((BEGINNER,), (None,), (2,)),
    ],
)
def test_the_hardest_within_reach_that_nobody_has_yet(
    players: tuple[tuple[tuple[float, int], ...], ...],
    comfortable: tuple[float | None, ...],
    taken: tuple[int, ...],
) -> None:
    def playable(player: int, number: int) -> Playable:
        (step, past), most = players[player][number], comfortable[player]
        return Playable(number, step, past, not past and step <= (most or step))

    found: list[int] = []
    for player in range(len(players)):
        found.append(best_fit([playable(player, number) for number in range(3)], found).key)
    assert tuple(found) == taken
