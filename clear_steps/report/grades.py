"""Grades and fingerings as the JSON that scripts depend on; its shape is in docs/command-line.md."""

from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Any

from clear_steps.core.easier import Easier, Edit, Kept, Pair, Way, broken_laws, kept
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.figures import ToLearn, to_learn
from clear_steps.core.grade import BarGrade, Finding, Grading, Ladder, grade_part, pins_not_kept
from clear_steps.core.hand import Grip
from clear_steps.core.score import Event, Part, Song, Technique
from clear_steps.formats import Imported
from clear_steps.formats.tabtext import write_tab

_SEEN = 0.05  # Steps
Json = dict[str, Any]  # plain JSON, checked against its description by tests


def with_scale_length(song: Song, scale_length_mm: float | None) -> Song:
    """The song on a neck of another scale length, if one is given."""
    if scale_length_mm is None:
        return song
    return replace(song, parts=tuple(replace(part, scale_length_mm=scale_length_mm) for part in song.parts))


def grade_report(file: str, found: Imported, part: Part, grading: Grading) -> Json:
    """One entry of `grade --json`."""
    song = found.song
    return {
        "file": file,
        "title": song.title,
        "part": part.name,
        "tempo": float(grading.tempo),
        "tempo_assumed": grading.tempo_assumed,
        "step": round(grading.step, 4),
        "peak": round(grading.peak, 4),
        "typical": round(grading.typical, 4),
        "stamina": round(grading.stamina, 4),
        "to_learn": _to_learn_report(to_learn(found.song, part)),
        "guessed": [
            *({"line": guess.line, "what": guess.what, "taken": guess.taken} for guess in found.guesses),
            *({"line": 0, "what": what, "taken": "it is left out"} for what in found.not_placed),
        ],
        "bars": [_bar_report(bar) for bar in grading.bars],
    }


def _to_learn_report(found: ToLearn) -> Json:
    return {
        "bars": round(found.bars, 2),
        "grips": found.grips,
        "patterns": found.patterns,
        "sittings": found.sittings,
    }


def _bar_report(bar: BarGrade) -> Json:
    return {
        "number": bar.number,
        "step": round(bar.step, 4),
        "measures": {name: _finding_report(finding) for name, finding in bar.findings.items()},
        "added": {words: round(step, 4) for words, step in bar.added.items()},
    }


def _finding_report(finding: Finding) -> Json:
    return {
        "step": round(finding.step, 4),
        "value": None if finding.value is None else round(finding.value, 4),
        "unit": finding.unit,
        "place": None
        if finding.place is None
        else {"onset": str(finding.place.onset), "strings": list(finding.place.strings)},
        "evidence": finding.evidence,
    }


def ways_report(song: Song, part: Part, found: Sequence[Way]) -> Json:
    """All of `simplify --json`: the best way, and every way in short."""
    return easier_report(song, part, found[0].easiest) | {
        "ways": [
            {
                "name": way.name,
                "sentence": way.sentence,
                "step": round(way.easiest.after.step, 4),
                "kept": round(way.easiest.kept.overall, 2),
                "tab": _tab_with(song, part, way.easiest.version),
            }
            for way in found
        ]
    }


def _tab_with(song: Song, part: Part, version: Part) -> str:
    """The song's tab text with a version in place of a part."""
    return write_tab(replace(song, parts=tuple(version if own is part else own for own in song.parts)))


def compared_report(song: Song, other: Song, ladder: Ladder, half_tones: int) -> Json:
    """All of `compare --json`: the first parts of an original and of a version somebody wrote; raises
    InvalidValueError where they have not as many bars."""
    part, version = song.parts[0], other.parts[0]
    if len(part.bars) != len(version.bars):
        expected = f"as many as the original has, {len(part.bars)}"
        raise InvalidValueError("bars of the version", len(version.bars), expected)
    before, after = grade_part(song, part, ladder), grade_part(other, version, ladder)
    broken = [
        *(
            (law.says, bars)
            for law, bars in broken_laws(Pair(part, version, half_tones, ladder.chord_shapes))
        ),
        ("no bar is harder than it was", _bars_where(before, after, lambda a, b: b.step > a.step + _SEEN)),
        (
            "no note is past the hand that was not",
            _bars_where(before, after, lambda a, b: b.past_hand and not a.past_hand),
        ),
    ]
    return {
        "before": _steps_report(before),
        "after": _steps_report(after),
        "kept": _kept_report(kept(part, version, half_tones)),
        "laws": [
            {"law": law, "bars": [part.bar_number(index) for index in bars]} for law, bars in broken if bars
        ],
    }


def _bars_where(before: Grading, after: Grading, holds: Callable[[BarGrade, BarGrade], bool]) -> list[int]:
    return [a.index for a, b in zip(before.bars, after.bars, strict=True) if holds(a, b)]


def _kept_report(found: Kept) -> Json:
    names = ("tune", "bass", "harmony", "rhythm", "overall", "same_onsets")
    return {name: round(getattr(found, name), 2) for name in names}


def easier_report(song: Song, part: Part, found: Easier) -> Json:
    """One version; it replaces the part in the song's tab text."""
    return {
        "target": found.target,
        "reached": found.reached,
        "before": _steps_report(found.before),
        "after": _steps_report(found.after),
        "kept": _kept_report(found.kept),
        "edits": [_edit_report(part, edit) for edit in found.edits],
        "blocking": [
            {
                "bar": part.bar_number(row.bar),
                "measure": row.measure,
                "step": round(row.step, 4),
                "tried": [{"kind": tried.kind, "step": round(tried.step, 4)} for tried in row.tried],
            }
            for row in found.blocking
        ],
        "tab": _tab_with(song, part, found.version),
    }


def _steps_report(grading: Grading) -> Json:
    return {"step": round(grading.step, 4), "bars": [round(bar.step, 4) for bar in grading.bars]}


def _edit_report(part: Part, edit: Edit) -> Json:
    return {
        "id": edit.id,
        "kind": edit.kind,
        "bars": [part.bar_number(bar) for bar in edit.bars],
        "reason": edit.reason,
        "effect": edit.effect,
        "loss": round(edit.loss, 4),
        "builds_on": list(edit.builds_on),
    }


def fingering_report(song: Song, ladder: Ladder) -> Json:
    """All of `fingering --json`."""
    return {"parts": [_fingered_part(part, grade_part(song, part, ladder)) for part in song.parts]}


def _fingered_part(part: Part, grading: Grading) -> Json:
    return {"bars": _fingered_bars(part, grading), "pins_not_kept": list(pins_not_kept(part, grading))}


def _fingered_bars(part: Part, grading: Grading) -> list[Json]:
    bars: list[Json] = [{"number": part.bar_number(index), "events": []} for index in range(len(part.bars))]
    for index, bar in enumerate(part.bars):
        for number, (onset, event) in enumerate(zip(bar.onsets, bar.events, strict=True)):
            if event.notes:
                tapped = {tap.spot.string for tap in grading.fingered.bars[index].taps if tap.event == number}
                bars[index]["events"].append(
                    {
                        "onset": str(onset),
                        **_fingered_event(part, event, grading.grips.get((index, number)), tapped),
                    }
                )
    return bars


def _fingered_event(part: Part, event: Event, grip: Grip | None, tapped_strings: set[int]) -> Json:
    notes = []
    for note in event.notes:
        tapped = note.string in tapped_strings or Technique.TAP in note.techniques
        on = grip.finger_on(note.string) if grip and note.fret and not note.dead else None
        finger = None if tapped else "T" if on == "T" else int(on or 0)
        notes.append(
            {
                "string": note.string,
                "fret": note.fret,
                "finger": finger,
                "pitch": part.pitch_of(note),
                "dead": note.dead,
                "tied": note.tied,
            }
        )
    return {"position": max(grip.position, 1) if grip else None, "notes": notes}
