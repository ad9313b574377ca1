"""MusicXML, ABC and song files as other programs write them: taken over, or told."""

import json
from fractions import Fraction
from pathlib import Path

import pytest

from clear_steps.core.errors import ReadError
from clear_steps.core.score import Bend, Event, Finger, Metre, PickingFinger, Song, Stroke, Technique
from clear_steps.formats import import_song
from clear_steps.formats.pitched import Imported
from clear_steps.formats.songjson import song_from_json, song_to_json
from tests.songs import line

NOTE = "<note><pitch><step>E</step><octave>4</octave></pitch><duration>4</duration>{}</note>"


STORED = Path(__file__).parents[1] / "data/stored"


def note(inside: str = "", *, place: str = "<string>1</string><fret>0</fret>") -> str:
    return NOTE.format(f"<notations><technical>{place}</technical>{inside}</notations>")


def imported(*measures: str, attributes: str = "") -> Imported:
    first = f"<attributes><divisions>1</divisions>{attributes}</attributes>"
    body = "".join(
        f'<measure number="{at}">{first if at == 1 else ""}{measure}</measure>'
        for at, measure in enumerate(measures, start=1)
    )
    names = '<part-list><score-part id="P1"><part-name>Guitar</part-name></score-part></part-list>'
    return import_song(
        "song.musicxml", f'<score-partwise>{names}<part id="P1">{body}</part></score-partwise>'.encode()
    )


def first_event(*measures: str, attributes: str = "") -> Event:
    return imported(*measures, attributes=attributes).song.parts[0].bars[0].events[0]


@pytest.mark.parametrize(
    ("time", "metre"),
    [
        ("<beats>3+2</beats><beat-type>4</beat-type>", Metre(5, 4)),
        ("<beats>3</beats><beat-type>8</beat-type><beats>2</beats><beat-type>8</beat-type>", Metre(5, 8)),
        ("<beats>4</beats><beat-type>4</beat-type>", Metre(4, 4)),
    ],
)
def test_metres_of_several_groups_are_added_up(time: str, metre: Metre) -> None:
    assert (
        imported(note().replace("<duration>4<", "<duration>2<"), attributes=f"<time>{time}</time>")
        .song.parts[0]
        .bars[0]
        .metre
        == metre
    )


def test_a_metre_that_cannot_be_read_is_told_and_the_bars_go_on() -> None:
    found = imported(note(), attributes="<time><beats>many</beats><beat-type>4</beat-type></time>")
    assert found.song.parts[0].bars[0].metre == Metre(4, 4)
    assert any("the metre many/4 is not read" in guess for guess in found.guessed)


@pytest.mark.parametrize(
    ("direction", "tempo"),
    [
        (
            '<direction><direction-type><words>Calm</words></direction-type><sound tempo="72"/></direction>',
            72,
        ),
        (
            "<direction><direction-type><metronome><beat-unit>half</beat-unit><per-minute>60</per-minute></metronome></direction-type></direction>",
            120,
        ),
        (
            "<direction><direction-type><metronome><beat-unit>quarter</beat-unit><beat-unit-dot/><per-minute>80</per-minute></metronome></direction-type></direction>",
            120,
        ),
    ],
)
def test_a_tempo_is_read_in_quarters_a_minute_whatever_its_unit(direction: str, tempo: int) -> None:
    assert imported(direction + note()).song.tempo == tempo


@pytest.mark.parametrize("per_minute", ["5", "900", "fast"])
def test_a_tempo_that_nobody_plays_is_not_taken(per_minute: str) -> None:
    metronome = f"<beat-unit>quarter</beat-unit><per-minute>{per_minute}</per-minute>"
    mark = f"<direction><direction-type><metronome>{metronome}</metronome></direction-type></direction>"
    assert imported(mark + note()).song.tempo is None


@pytest.mark.parametrize(
    ("marks", "technique"),
    [
        ("<ornaments><trill-mark/></ornaments>", Technique.TRILL),
        ("<ornaments><tremolo>3</tremolo></ornaments>", Technique.TREMOLO),
        ("<articulations><staccato/></articulations>", Technique.STACCATO),
        ("<articulations><strong-accent/></articulations>", Technique.ACCENT),
        ("<technical><harmonic><artificial/></harmonic></technical>", Technique.ARTIFICIAL_HARMONIC),
    ],
)
def test_what_is_done_to_a_note_becomes_its_technique(marks: str, technique: Technique) -> None:
    assert first_event(note(marks)).techniques == {technique}


def test_fingers_strokes_and_bends_are_taken_over() -> None:
    technical = (
        "<string>2</string><fret>5</fret><fingering>3</fingering><pluck>m</pluck><down-bow/>"
        "<bend><bend-alter>2</bend-alter></bend>"
    )
    event = first_event(note(place=technical))
    struck = event.notes[0]
    assert (struck.finger, struck.picking, event.stroke, struck.bend) == (
        Finger.RING,
        PickingFinger.MIDDLE,
        Stroke.DOWN,
        Bend(Fraction(2)),
    )


def test_an_optional_and_an_uncertain_note_stay_so() -> None:
    marked = NOTE.format(
        '<notehead parentheses="yes">normal</notehead><notations><technical><string>1</string><fret>0</fret>'
        "<other-technical>uncertain</other-technical></technical></notations>"
    )
    struck = first_event(marked).notes[0]
    assert (struck.optional, struck.uncertain) == (True, True)


@pytest.mark.parametrize(
    ("content", "said"),
    [
        (note("<technical><thumb-position/></technical>"), "1 x thumb position in the part"),
        (
            note("<technical><bend><bend-alter>9</bend-alter></bend></technical>"),
            "1 x bend by 9 half tones in the part",
        ),
        (
            note()
            + "<note><cue/><pitch><step>E</step><octave>4</octave></pitch><duration>1</duration></note>",
            "1 x cue note in the part",
        ),
        (note() + "<note><unpitched/><duration>1</duration></note>", "1 x note without a pitch in the part"),
    ],
)
def test_what_the_score_does_not_know_is_counted_and_told(content: str, said: str) -> None:
    assert said in imported(content).not_placed


def test_of_notes_and_tab_for_the_same_music_the_tab_is_read() -> None:
    plain = (
        "<note><pitch><step>E</step><octave>4</octave></pitch><duration>4</duration><staff>1</staff></note>"
    )
    tabbed = note().replace("<notations>", "<staff>2</staff><notations>")
    found = imported(f"{plain}<backup><duration>4</duration></backup>{tabbed}")
    assert [[n.string for n in event.notes] for event in found.song.parts[0].bars[0].events] == [[1]]
    assert "the part has notes and tab; the tab staff is read" in found.guessed


def test_two_voices_on_one_note_are_one_note_as_long_as_the_longer() -> None:
    short = note().replace("<duration>4<", "<duration>1<")
    bar = imported(f"{short}<backup><duration>1</duration></backup>{note()}").song.parts[0].bars[0]
    assert [(event.quarters, len(event.notes)) for event in bar.events] == [(4, 1)]


def test_repeats_endings_and_sections_are_taken_over() -> None:
    first = '<barline location="left"><repeat direction="forward"/></barline>'
    first += "<direction><direction-type><rehearsal>Verse [A]</rehearsal></direction-type></direction>"
    second = '<barline location="left"><ending number="1, 2" type="start"/></barline>' + note()
    second += (
        '<barline location="right"><ending number="1, 2" type="stop"/><repeat direction="backward"'
        ' times="3"/></barline>'
    )
    part = imported(first + note(), second, note()).song.parts[0]
    assert [(bar.repeat_start, bar.repeat_times, bar.endings) for bar in part.bars] == [
        (True, 0, ()),
        (False, 3, (1, 2)),
        (False, 0, ()),
    ]
    assert [section.name for section in part.sections] == ["Verse (A)"]


def test_a_tuning_that_no_guitar_has_is_told() -> None:
    rows = "".join(
        "<staff-tuning"
        f' line="{at}"><tuning-step>C</tuning-step><tuning-octave>{octave}</tuning-octave></staff-tuning>'
        for at, octave in ((1, 4), (2, 4))
    )
    found = imported(note(), attributes=f"<staff-details>{rows}</staff-details>")
    assert any("the tuning of the part is not read" in guess for guess in found.guessed)


def test_scores_by_time_instead_of_by_part_are_refused_by_name() -> None:
    with pytest.raises(ReadError, match="a score-timewise document; expected a score-partwise"):
        import_song("song.musicxml", b"<score-timewise/>")


TUNE = "X:1\nT:Mill  wheel\nM:3/4\nL:1/4\nQ:1/4=90\nK:G\n"


def test_a_tune_is_read_with_tempo_repeats_endings_and_grace_notes() -> None:
    found = import_song("mill.abc", (TUNE + "|:GAB|1{c}BAG:|2GDG|]\n").encode())
    song, bars = found.song, found.song.parts[0].bars
    assert (song.title, song.tempo, bars[0].metre) == ("Mill wheel", 90, Metre(3, 4))
    assert [(bar.repeat_start, bar.repeat_times, bar.endings) for bar in bars] == [
        (True, 0, ()),
        (False, 2, (1,)),
        (False, 0, (2,)),
    ]
    assert [Technique.GRACE in event.techniques for event in bars[1].events] == [True, False, False]


def test_of_several_tunes_the_first_is_read_and_the_others_are_told() -> None:
    found = import_song("two.abc", (TUNE + "GAB|\n\nX:2\nT:Other\nK:C\nCDE|\n").encode())
    assert (found.song.title, len(found.song.parts[0].bars)) == ("Mill wheel", 1)
    assert "1 more tune in the file" in found.not_placed


def test_chord_names_of_a_tune_are_no_notes() -> None:
    bar = import_song("mill.abc", (TUNE + '"G"GAB|\n').encode()).song.parts[0].bars[0]
    assert [len(event.notes) for event in bar.events] == [1, 1, 1]


def test_a_tune_too_long_is_refused_with_its_length() -> None:
    with pytest.raises(ReadError, match=r"the file has 200,0\d\d characters; expected at most 200,000"):
        import_song("long.abc", (TUNE + "G" * 200_000).encode())


def test_a_song_as_json_comes_back_and_a_spoilt_one_names_the_field() -> None:
    song: Song = line("1.0", "2.1", "3.2")
    assert song_from_json(song_to_json(song)) == song
    with pytest.raises(ReadError, match=r"parts\.0\.bars\.0\.metre.*expected a song written by Clear Steps"):
        song_from_json(song_to_json(song).replace(b'"beats": 4', b'"beats": "four"'))
    with pytest.raises(ReadError, match=r"the file: .*expected a song written by Clear Steps"):
        song_from_json(b"{")
    with pytest.raises(ReadError):
        song_from_json(song_to_json(song).replace(b'"fret": 2', b'"fret": 99'))


def test_a_song_file_says_its_schema_and_those_of_earlier_ones_are_read() -> None:
    written = json.loads((STORED / "song-without-schema.json").read_bytes())
    whole = song_from_json(json.dumps(written).encode())
    assert whole.title == "Flour sacks"
    assert song_from_json(json.dumps({"schema": 1, "song": written}).encode()) == whole
    now = json.loads(song_to_json(whole))
    assert (now["schema"], now["title"]) == (2, "Flour sacks")
    assert song_from_json(song_to_json(whole)) == whole


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"schema": 3}, "schema 3, from a newer Clear Steps"),
        ({"schema": 1, "song": {}, "colour": "red"}, "colour: Clear Steps knows no such field"),
        ({"colour": "red"}, "colour: Clear Steps knows no such field"),
        ({"parts": []}, "song is '0 parts'; expected 1 to 12 parts"),
    ],
)
def test_a_song_file_with_what_we_do_not_know_is_refused_and_names_it(
    change: dict[str, object], words: str
) -> None:
    written = json.loads((STORED / "song-without-schema.json").read_bytes())
    whole = change if change.get("schema") == 1 else {"schema": 2, **written} | change
    with pytest.raises(ReadError) as caught:
        song_from_json(json.dumps(whole).encode())
    assert words in str(caught.value)


@pytest.mark.parametrize("string", [-1, 0, 7])
def test_a_string_that_the_guitar_has_not_is_refused(string: int) -> None:
    written = json.loads((STORED / "song-without-schema.json").read_bytes())
    bar = next(bar for bar in written["parts"][0]["bars"] if bar["events"][0]["notes"])
    bar["events"][0]["notes"][0]["string"] = string
    with pytest.raises(ReadError, match="string in bar"):
        song_from_json(json.dumps(written).encode())
