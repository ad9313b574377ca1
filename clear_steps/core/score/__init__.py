"""What is written down: pitch, tuning, rhythm, techniques and the song."""

from clear_steps.core.score.pitch import letter_of, midi_of, midi_to_hz, name_of
from clear_steps.core.score.played import played_order
from clear_steps.core.score.readings import reading_in_use, with_reading, with_reading_in_use
from clear_steps.core.score.rhythm import NOTE_VALUES, Metre, parse_length, parse_metre, spell_length
from clear_steps.core.score.song import (
    ASSUMED_TEMPO,
    COMMON_TIME,
    MAX_FRET,
    USUAL_FRETS,
    Bar,
    BarReading,
    Bend,
    Event,
    Feel,
    Finger,
    Instrument,
    Note,
    Part,
    Picking,
    PickingFinger,
    Section,
    Song,
    Stroke,
)
from clear_steps.core.score.techniques import HARMONICS, HOW_WORDS, TECHNIQUES, UNPICKED, Technique, Writing
from clear_steps.core.score.tuning import STANDARD, TUNINGS, Tuning, default_tuning, parse_tuning

__all__ = [
    "ASSUMED_TEMPO", "COMMON_TIME", "HARMONICS", "HOW_WORDS", "MAX_FRET", "NOTE_VALUES", "STANDARD",
    "TECHNIQUES", "TUNINGS", "UNPICKED", "USUAL_FRETS", "Bar", "BarReading", "Bend", "Event", "Feel", "Finger", "Instrument", "Metre",
    "Note", "Part", "Picking", "PickingFinger", "Section", "Song", "Stroke", "Technique", "Tuning", "Writing",
    "default_tuning", "letter_of", "midi_of", "midi_to_hz", "name_of", "parse_length", "parse_metre",
    "parse_tuning", "played_order", "reading_in_use", "spell_length", "with_reading", "with_reading_in_use",
]  # fmt: skip
