"""Song-wide edits: another tuning or capo, with the same shapes or the same music."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from fractions import Fraction

from clear_steps.core.easier.chordbook import shapes_sound_above
from clear_steps.core.easier.edit import Change, Edit, Setup
from clear_steps.core.easier.ways.capo import open_chords_on, open_shapes_with_capo
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.grade import Grader, GradeRequest, Ladder, hand_tables
from clear_steps.core.hand import moments_of, place, put_down
from clear_steps.core.score import STANDARD, Bar, Part, Song, Technique, Tuning
from clear_steps.core.score.chords import transposed_name
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
    SAME_SHAPES = "same shapes"  # on a neck that is asked for: the same frets
    SAME_MUSIC = "same music"  # the same pitches in new places
    SAME_CHORDS = "same chords"  # the chords, as open shapes


NECK_WISHES = (SetupWish.SAME_SHAPES, SetupWish.SAME_MUSIC, SetupWish.SAME_CHORDS)


@dataclass(frozen=True, slots=True)
class TuningAndCapo:
    """How a guitar is set up: tuning and capo."""

    tuning: Tuning
    capo: int = 0

    @property
    def words(self) -> str:
        """`DADGAD with a capo at fret 2`."""
        return f"{self.tuning.name} with {f'a capo at fret {self.capo}' if self.capo else 'no capo'}"


@dataclass(frozen=True, slots=True)
class SetupOffer:
    """A wish that can be had, and where the result would sit, in half tones above the original."""

    wish: SetupWish
    half_tones: int

    @property
    def words(self) -> str:
        """`it sits a half tone above the original`."""
        return _sits(self.half_tones)


def possible_setups(
    song: Song, part: Part, ladder: Ladder, asked: TuningAndCapo | None = None
) -> tuple[SetupOffer, ...]:
    """The wishes of tuning and capo that a part allows; those of the tuning that is asked for alone, where
    one is."""
    of = _Place(song, part, ladder, GradeRequest(), asked)
    offers = []
    for wish in (each for each in SetupWish if each and (each in NECK_WISHES) == bool(asked)):
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
    return None if capo == of.part.capo else _in_new_places(of, TuningAndCapo(of.part.tuning, capo))


@dataclass(frozen=True, slots=True)
class _Ready:
    setup: Setup
    changes: tuple[Change, ...]
    reason: str


def setup_edit(
    song: Song,
    part: Part,
    ladder: Ladder,
    wish: SetupWish,
    request: GradeRequest = GradeRequest(),
    asked: TuningAndCapo | None = None,
) -> Edit:
    """The edit that a wish asks for, of the tuning and capo it is for; raises InvalidValueError where it
    cannot be had."""
    ready = _WISHES[wish](_Place(song, part, ladder, request, asked))
    kind = "capo" if ready.setup.tuning == part.tuning else "retune"
    says = f"capo at fret {ready.setup.capo}" if ready.setup.capo else "no capo"
    if ready.setup.tuning != part.tuning:
        says = f"tune to {ready.setup.tuning.name}, {says}"
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
    asked: TuningAndCapo | None = None

    @property
    def own(self) -> TuningAndCapo:
        return TuningAndCapo(self.part.tuning, self.part.capo)

    @property
    def standard(self) -> TuningAndCapo:
        return TuningAndCapo(STANDARD, self.part.capo)

    @property
    def wanted(self) -> TuningAndCapo:
        """What is asked for; raises InvalidValueError where nothing is, or nothing else than there is."""
        if self.asked is None or self.asked == self.own:
            raise InvalidValueError("tuning and capo", self.own.words, "others than the part has")
        return self.asked


def _same_shapes(of: _Place, asked: TuningAndCapo) -> _Ready:
    """The same frets, on strings that are all as much higher or lower."""
    old, new = of.part.tuning, asked.tuning
    played = {note.string for _, _, event in of.part.events() for note in event.notes}
    apart = {new.open_pitch(string) - old.open_pitch(string) for string in played if string <= new.strings}
    if asked == of.own or old.strings != new.strings or len(apart) > 1:
        raise InvalidValueError(
            "tuning",
            old.name,
            f"one whose strings all lie as far from {new.name}, for the same shapes to be had",
        )
    half_tones = next(iter(apart), 0) + asked.capo - of.part.capo
    return _Ready(Setup(new, asked.capo, half_tones), (), _traded(of, asked, "the same shapes"))


def _traded(of: _Place, asked: TuningAndCapo, what: str) -> str:
    if asked.tuning == of.part.tuning:
        return f"{of.own.words.capitalize()} is traded for {asked.words}, {what}."
    return f"The tuning {of.part.tuning.name} is traded for {_and_capo(of, asked)} with {what}."


def _and_capo(of: _Place, asked: TuningAndCapo) -> str:
    named = "standard tuning" if asked.tuning == STANDARD else asked.tuning.name
    return named if asked.capo == of.part.capo else f"{named}, capo {asked.capo},"


def _same_music(of: _Place, asked: TuningAndCapo) -> _Ready:
    if asked == of.own:
        raise InvalidValueError("tuning", of.part.tuning.name, "another tuning or capo")
    moved = _in_new_places(of, asked)
    if moved is None:
        raise InvalidValueError(
            "tuning", of.part.tuning.name, f"music whose pitches all lie on {asked.tuning.name}"
        )
    return _Ready(Setup(asked.tuning, asked.capo, 0), moved, _traded(of, asked, "new places"))


def _same_chords(of: _Place, asked: TuningAndCapo) -> _Ready:
    found = open_chords_on(of.part, of.ladder, asked.tuning, asked.capo)
    if found is None:
        raise InvalidValueError(
            "chords", of.part.name or "this part", f"chords that have open shapes in {asked.words}"
        )
    return _Ready(
        Setup(asked.tuning, asked.capo, 0), found, _traded(of, asked, "open shapes of the same chords")
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
    ready = _same_shapes(of, TuningAndCapo(of.part.tuning))
    return replace(ready, reason=f"The capo at fret {of.part.capo} is taken off; the shapes stay.")


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


def _in_new_places(of: _Place, to: TuningAndCapo) -> tuple[Change, ...] | None:
    """The part's pitches on another neck, a change a bar; None where they do not all lie there."""
    struck = [event for bar in of.part.bars for event in bar.events if event.notes]
    if any(Technique.NATURAL_HARMONIC in note.techniques for event in struck for note in event.notes):
        return None  # a harmonic speaks on its own string alone
    neck = replace(of.part, tuning=to.tuning, capo=to.capo)
    moments = moments_of(
        of.part,
        range(len(of.part.bars)),
        bar_times(of.part, of.song.playing_tempo),
        lambda note, _: note.dead,
    )
    found = place(
        list(moments),
        to.tuning,
        to.capo,
        hand_tables(neck, of.ladder, replace(of.request, hands=("medium",))),
    )
    if found is None:
        return None
    apart = shapes_sound_above(neck) - shapes_sound_above(of.part)
    moved = [_renamed(bar, -apart) for bar in put_down(of.part.bars, found)]
    pairs = enumerate(zip(of.part.bars, moved, strict=True))
    return tuple(
        Change(index, Fraction(0), bar.events, after.events) for index, (bar, after) in pairs if after != bar
    )


def _renamed(bar: Bar, half_tones: int) -> Bar:
    """A bar whose chord names are those of shapes so much higher."""
    events = (replace(event, chord=transposed_name(event.chord, half_tones)) for event in bar.events)
    return replace(bar, events=tuple(events))


_WISHES: dict[SetupWish, Callable[[_Place], _Ready]] = {
    SetupWish.STANDARD_SHAPES: lambda of: _same_shapes(of, of.standard),
    SetupWish.STANDARD_MUSIC: lambda of: _same_music(of, of.standard),
    SetupWish.CAPO_MUSIC: _capo_music,
    SetupWish.OPEN_SHAPES: _open_shapes,
    SetupWish.NO_CAPO_SHAPES: _no_capo,
    SetupWish.SAME_SHAPES: lambda of: _same_shapes(of, of.wanted),
    SetupWish.SAME_MUSIC: lambda of: _same_music(of, of.wanted),
    SetupWish.SAME_CHORDS: lambda of: _same_chords(of, of.wanted),
}
