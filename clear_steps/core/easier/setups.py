"""Song-wide edits: another tuning or capo, with the same shapes or the same music."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from fractions import Fraction

from clear_steps.core.easier.edit import Change, Edit, Setup
from clear_steps.core.easier.ways.capo import open_shapes_with_capo
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.grade import Grader, GradeRequest, Ladder, hand_tables
from clear_steps.core.hand import moments_of, place, put_down
from clear_steps.core.score import STANDARD, Bar, Part, Song, Technique, Tuning
from clear_steps.core.score.timing import bar_times

_CAPOS = range(1, 6)


class SetupWish(StrEnum):
    """What a teacher may ask of tuning and capo."""

    AS_WRITTEN = ""
    STANDARD_SHAPES = "standard shapes"  # the same shapes in standard tuning, sounding elsewhere
    STANDARD_MUSIC = "standard music"  # the same music in standard tuning, in new places
    CAPO_MUSIC = "capo music"  # the same music with the capo that makes it easiest
    OPEN_SHAPES = "open shapes"  # the chords as open shapes, with the capo that makes them sound the same
    NO_CAPO_SHAPES = "no capo shapes"  # the same shapes without the capo, sounding lower


@dataclass(frozen=True, slots=True)
class SetupOffer:
    """A wish that can be had, and where the result would sit, in half tones above the original."""

    wish: SetupWish
    half_tones: int

    @property
    def words(self) -> str:
        """`it sits a half tone above the original`."""
        return _sits(self.half_tones)


def possible_setups(song: Song, part: Part, ladder: Ladder) -> tuple[SetupOffer, ...]:
    """The wishes of tuning and capo that a part allows."""
    of = _Place(song, part, ladder, GradeRequest())
    offers = []
    for wish in (each for each in SetupWish if each):
        if wish is SetupWish.CAPO_MUSIC:  # which capo is easiest is found when it is asked for
            offers += [SetupOffer(wish, 0)] if any(_with_capo(of, capo) for capo in _CAPOS) else []
            continue
        try:
            offers.append(SetupOffer(wish, _WISHES[wish](of).setup.half_tones))
        except InvalidValueError:
            continue
    return tuple(offers)


def _with_capo(of: "_Place", capo: int) -> tuple[Change, ...] | None:
    """The same music with another capo; None where it has none there."""
    return None if capo == of.part.capo else _in_new_places(of, of.part.tuning, capo)


@dataclass(frozen=True, slots=True)
class _Ready:
    setup: Setup
    changes: tuple[Change, ...]
    reason: str


def setup_edit(
    song: Song, part: Part, ladder: Ladder, wish: SetupWish, request: GradeRequest = GradeRequest()
) -> Edit:
    """The edit that a wish asks for; raises InvalidValueError where it cannot be had."""
    ready = _WISHES[wish](_Place(song, part, ladder, request))
    kind = "capo" if ready.setup.tuning == part.tuning else "retune"
    says = f"capo at fret {ready.setup.capo}" if ready.setup.capo else "no capo"
    effect = _sits(ready.setup.half_tones)
    return Edit(1, kind, ready.changes, ready.reason, effect, 0.0, setup=ready.setup, says=says)


def _sits(half_tones: int) -> str:
    if not half_tones:
        return "it sounds where the original does"
    count = (
        "a half tone"
        if abs(half_tones) == 1
        else "a whole tone"
        if abs(half_tones) == 2
        else f"{abs(half_tones)} half tones"
    )
    return f"it sits {count} {'above' if half_tones > 0 else 'below'} the original"


@dataclass(frozen=True, slots=True)
class _Place:
    song: Song
    part: Part
    ladder: Ladder
    request: GradeRequest


def _standard_shapes(of: _Place) -> _Ready:
    apart = {b - a for a, b in zip(of.part.tuning.pitches, STANDARD.pitches, strict=False)}
    if of.part.tuning.strings != STANDARD.strings or len(apart) > 1 or apart == {0}:
        raise InvalidValueError(
            "tuning",
            of.part.tuning.name,
            "standard tuning raised or lowered as a whole, for the same shapes to be had",
        )
    return _Ready(
        Setup(STANDARD, of.part.capo, apart.pop()),
        (),
        f"The tuning {of.part.tuning.name} is traded for standard tuning with the same shapes.",
    )


def _standard_music(of: _Place) -> _Ready:
    if of.part.tuning == STANDARD:
        raise InvalidValueError("tuning", of.part.tuning.name, "another tuning than standard")
    moved = _in_new_places(of, STANDARD, of.part.capo)
    if moved is None:
        raise InvalidValueError(
            "tuning", of.part.tuning.name, "music whose pitches all lie on standard tuning"
        )
    return _Ready(
        Setup(STANDARD, of.part.capo, 0),
        moved,
        f"The tuning {of.part.tuning.name} is traded for new places in standard tuning.",
    )


def _open_shapes(of: _Place) -> _Ready:
    found = open_shapes_with_capo(of.part, of.ladder)
    if found is None:
        raise InvalidValueError(
            "chords", of.part.name or "this part", "chords that have open shapes with a capo"
        )
    capo, changes = found
    return _Ready(
        Setup(of.part.tuning, capo, 0), changes, f"With a capo at fret {capo} every chord has an open shape."
    )


def _no_capo(of: _Place) -> _Ready:
    if not of.part.capo:
        raise InvalidValueError("capo", 0, "a part with a capo")
    return _Ready(
        Setup(of.part.tuning, 0, -of.part.capo),
        (),
        f"The capo at fret {of.part.capo} is taken off; the shapes stay.",
    )


def _capo_music(of: _Place) -> _Ready:
    tried = []
    for capo in _CAPOS:
        moved = _with_capo(of, capo)
        if moved is not None:
            version = replace(of.part, capo=capo, bars=_with(of.part, moved))
            tried.append((Grader(of.song, version, of.ladder, of.request).grade(version).step, capo, moved))
    if not tried:
        raise InvalidValueError("capo", of.part.capo, "music whose lowest note leaves room for a capo")
    _, capo, moved = min(tried, key=lambda entry: entry[:2])
    return _Ready(
        Setup(of.part.tuning, capo, 0), moved, f"With a capo at fret {capo} the same music lies easiest."
    )


def _with(part: Part, changes: Sequence[Change]) -> tuple[Bar, ...]:
    after = {change.bar: change.after for change in changes}
    return tuple(replace(bar, events=after.get(index, bar.events)) for index, bar in enumerate(part.bars))


def _in_new_places(of: _Place, tuning: Tuning, capo: int) -> tuple[Change, ...] | None:
    """The part's pitches on another neck, a change a bar; None where they do not all lie there."""
    struck = [event for bar in of.part.bars for event in bar.events if event.notes]
    if any(Technique.NATURAL_HARMONIC in note.techniques for event in struck for note in event.notes):
        return None  # a harmonic speaks on its own string alone
    neck = replace(of.part, tuning=tuning, capo=capo)
    moments = moments_of(
        of.part,
        range(len(of.part.bars)),
        bar_times(of.part, of.song.playing_tempo),
        lambda note, _: note.dead,
    )
    found = place(
        list(moments), tuning, capo, hand_tables(neck, of.ladder, replace(of.request, hands=("medium",)))
    )
    if found is None:
        return None
    moved = put_down(of.part.bars, found)
    pairs = enumerate(zip(of.part.bars, moved, strict=True))
    return tuple(
        Change(index, Fraction(0), bar.events, after.events) for index, (bar, after) in pairs if after != bar
    )


_WISHES = {
    SetupWish.STANDARD_SHAPES: _standard_shapes,
    SetupWish.STANDARD_MUSIC: _standard_music,
    SetupWish.CAPO_MUSIC: _capo_music,
    SetupWish.OPEN_SHAPES: _open_shapes,
    SetupWish.NO_CAPO_SHAPES: _no_capo,
}
