"""Song -> a standard MIDI file: a track a part, as written (repeats unrolled), tempo and metre first."""

import io
from fractions import Fraction

import mido

from clear_steps.core.score import Note, Part, Song, Technique, played_order
from clear_steps.core.shapes.ringing import sounding_quarters

TICKS_PER_QUARTER = 960
_GUITAR = 25  # steel-string, General MIDI, counted from 0
_VELOCITY, _MUTED_SHARE = 80, 0.625
_VELOCITIES = {"pp": 33, "p": 49, "mp": 64, "mf": 80, "f": 96, "ff": 112}  # common practice, no source
_NEVER_PITCHED = {Technique.DEAD}


def write_midi(song: Song) -> bytes:
    """The whole song as played; bends sound at their target, dead notes not at all."""
    file = mido.MidiFile(type=1, ticks_per_beat=TICKS_PER_QUARTER)
    file.tracks.append(_conductor(song))
    for channel, part in enumerate(song.parts):
        file.tracks.append(_track(song, part, min(channel, 8)))
    output = io.BytesIO()
    file.save(file=output)
    return output.getvalue()


def _conductor(song: Song) -> mido.MidiTrack:
    """Title, metres and tempos, by the first part."""
    part = song.parts[0]
    timed: list[tuple[Fraction, mido.MetaMessage]] = [
        (Fraction(0), mido.MetaMessage("track_name", name=_latin(song.title)))
    ]
    at, metre, tempo = Fraction(0), None, None
    current = song.playing_tempo
    for index in played_order(part, song.order):
        bar = part.bars[index]
        current = bar.tempo if bar.tempo is not None else current
        if bar.metre != metre:
            timed.append(
                (
                    at,
                    mido.MetaMessage("time_signature", numerator=bar.metre.beats, denominator=bar.metre.unit),
                )
            )
        if current != tempo:
            timed.append((at, mido.MetaMessage("set_tempo", tempo=round(60_000_000 / current))))
        metre, tempo = bar.metre, current
        at += bar.quarters
    return _sequenced(timed)


def _track(song: Song, part: Part, channel: int) -> mido.MidiTrack:
    timed = [(Fraction(0), mido.MetaMessage("track_name", name=_latin(part.name or "Guitar")))]
    timed.append((Fraction(0), mido.Message("program_change", program=_GUITAR, channel=channel)))
    sounding = sounding_quarters(part)
    at, loud = Fraction(0), _VELOCITY
    for index in played_order(part, song.order):
        bar = part.bars[index]
        for onset, event, lengths in zip(bar.onsets, bar.events, sounding[index], strict=True):
            loud = _VELOCITIES[event.dynamic] if event.dynamic else loud
            for note, length in zip(event.notes, lengths, strict=True):
                if note.tied or note.techniques & _NEVER_PITCHED:
                    continue
                pitch = _heard(part, note)
                muted = Technique.PALM_MUTE in event.techniques_of(note)
                velocity = round(loud * _MUTED_SHARE) if muted else loud
                timed.append(
                    (at + onset, mido.Message("note_on", note=pitch, velocity=velocity, channel=channel))
                )
                timed.append(
                    (at + onset + length, mido.Message("note_off", note=pitch, velocity=0, channel=channel))
                )
        at += bar.quarters
    return _sequenced(timed)


def _heard(part: Part, note: Note) -> int:
    return min(max(part.pitch_of(note) + round(note.bend.half_tones if note.bend else 0), 0), 127)


def _sequenced(timed: list[tuple[Fraction, mido.MetaMessage | mido.Message]]) -> mido.MidiTrack:
    """Messages by time, notes ending before others begin, times as ticks since the one before."""
    track, before = mido.MidiTrack(), 0
    for at, message in sorted(timed, key=lambda entry: (entry[0], entry[1].type == "note_on")):
        ticks = round(at * TICKS_PER_QUARTER)
        track.append(message.copy(time=ticks - before))
        before = ticks
    return track


def _latin(text: str) -> str:
    """MIDI texts are Latin-1."""
    return text.encode("latin-1", "replace").decode("latin-1")
