"""A grip as it is named or described, and what stays of the one before."""

from collections.abc import Mapping

from clear_steps.core.changes import Moves
from clear_steps.core.score import STANDARD
from clear_steps.core.score.chords import parse_chord
from clear_steps.core.shapes import familiar_grips, open_grips
from clear_steps.core.teach.words.notes import Voice, strings_words
from clear_steps.core.teach.words.segments import Segment

_ALL, _FEW = 6, 3  # strings of a grip
_OPEN = "0"


def head_words(segment: Segment, voice: Voice, goes_on: bool, picked: bool) -> str:
    """`G`, `Hold G`, `Bm: barre at 2 from the 5th string, shape of Am`."""
    name = voice.chord(segment.name)
    if goes_on:
        return voice.say("goes-on", name=name) if name else voice.say("as-before")
    if segment.moved:
        return voice.say("whole-shape", name=name, to=_lowest(segment))
    shape = _shape(segment, voice)
    if shape:
        return voice.say("named", name=name, shape=shape) if name else shape
    if not name:
        return voice.say("as-before")
    return voice.say("hold", name=name) if picked and any(_frets(segment).values()) else name


def _frets(segment: Segment) -> Mapping[int, int]:
    return segment.grip.frets if segment.grip else {}


def _lowest(segment: Segment) -> int:
    return min((fret for fret in _frets(segment).values() if fret), default=0)


def _shape(segment: Segment, voice: Voice) -> str:
    """How it is held, where it is new and no open grip that everybody names."""
    frets = _frets(segment)
    text = f"{segment.name} {sorted(frets.items())}"
    if text in voice.shapes:
        return ""
    voice.shapes.add(text)
    if not any(frets.values()):
        return voice.say("all-open")
    barred = _barre(segment)
    if barred:
        return _barre_words(segment, barred, voice)
    if any(row.name == segment.name and row.by_string == dict(frets) for row in open_grips()):
        return ""
    return voice.catalogue.listed(_spot(segment, string, voice) for string in sorted(frets, reverse=True))


def _spot(segment: Segment, string: int, voice: Voice) -> str:
    """A string of a grip: its fret, and the finger where no name tells it."""
    fret = _frets(segment)[string]
    finger = (segment.grip.fingers or {}).get(string, _OPEN) if segment.grip else _OPEN
    if not fret:
        return voice.say("string-open", string=string)
    if segment.name or finger == _OPEN:
        return voice.say("at", string=string, fret=fret)
    return voice.say("shape-at", string=string, fret=fret, finger=voice.say(f"finger-{finger}"))


def _barre(segment: Segment) -> tuple[int, ...]:
    """The strings under the index finger, thickest first; none where it is no barre."""
    fingers = (segment.grip.fingers or {}) if segment.grip else {}
    first = [string for string, finger in fingers.items() if finger == "1"]
    frets = {_frets(segment)[string] for string in first}
    return tuple(sorted(first, reverse=True)) if len(first) > 1 and len(frets) == 1 else ()


def _barre_words(segment: Segment, barred: tuple[int, ...], voice: Voice) -> str:
    frets = _frets(segment)
    fret = frets[barred[0]]
    if max(barred) == _ALL and min(barred) == 1 and len(frets) == _ALL:
        over = voice.say("over-all")
    elif len(frets) <= _FEW:
        over = voice.say("over", strings=strings_words(barred, voice))
    else:
        over = voice.say("from-string", string=max(barred))
    said = voice.say("barre", fret=fret, over=over)
    others = [string for string in sorted(frets, reverse=True) if frets[string] != fret]
    if not others:
        return said
    chord = parse_chord(segment.name)
    if (
        chord
        and len(frets) > _FEW
        and any(row.movable and row.by_string == dict(frets) for row in familiar_grips(STANDARD))
    ):
        return voice.say("shape-of", barre=said, shape=voice.chord(chord.moved(-fret).usual_name))
    return ", ".join([said, *(_spot(segment, string, voice) for string in others)])


def stays_words(segment: Segment, voice: Voice) -> str:
    """What stays at the change into it; once for each pair of grips."""
    moves = segment.entered
    pair = (segment.before, segment.name)
    if moves is None or not moves.stay or not segment.name or pair in voice.changes:
        return ""
    voice.changes.add(pair)
    return _moves_words(moves, voice)


def _moves_words(moves: Moves, voice: Voice) -> str:
    stay = voice.fingers(moves.stay)
    moving = tuple(sorted({*moves.guide, *moves.anew}))
    if len(moving) == 1 and len(moves.stay) > 1:
        return voice.say("only-moves", mover=voice.fingers(moving))
    return voice.say("stays", fingers=stay)
