"""A text -> the API's analysis: read, graded, and laid out for the screen."""

from collections.abc import Sequence
from dataclasses import asdict, dataclass, replace

from clear_steps.core.changes import changes_by_event
from clear_steps.core.easier import role_of
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.figures import coming_back, to_learn
from clear_steps.core.grade import (
    WEIGHINGS,
    Grading,
    Ladder,
    StepRange,
    asks_for_fingers,
    grade_song,
    guessed_ringing,
    pins_not_kept,
    reach_of,
    step_range,
    three_sentences,
)
from clear_steps.core.hand import Neck
from clear_steps.core.score import (
    Part,
    Passage,
    Role,
    Song,
    map_problems,
    pinned_as,
    played_order,
    same_bars,
    sharps_of,
    song_map,
)
from clear_steps.core.score.timing import BarTime, bar_times
from clear_steps.core.score.words import count_sign
from clear_steps.core.shapes import read_shapes
from clear_steps.core.shapes.ringing import sounding_quarters
from clear_steps.core.teach import Shape, cautions, shape_places, shapes
from clear_steps.formats.tabtext import Reading, read_tab
from clear_steps.web.analysis import schemas as api
from clear_steps.web.analysis.bars import bar_model, event_model
from clear_steps.web.analysis.figures import figure_models, rule_models
from clear_steps.web.current import LadderInUse
from clear_steps.web.remembering import remembered
from clear_steps.web.schemas import problem_model
from clear_steps.web.whom import Whom


@dataclass(frozen=True, slots=True)
class Graded:
    """A text's reading with one grading a part."""

    reading: Reading
    gradings: tuple[Grading, ...]
    ranges: tuple[StepRange, ...]
    whom: Whom
    ladder: Ladder
    unknown_techniques: tuple[str, ...] = ()


# About what a reading and a grading take for each character of the text (measured on 64 to 500 bars).
READING_BYTES, GRADING_BYTES = 35, 250


@remembered(lambda values, _: READING_BYTES * len(str(values[0])))
def read_cached(text: str) -> Reading:
    """Read a text once; raises ReadError."""
    return read_tab(text)


@remembered(lambda values, _: GRADING_BYTES * len(str(values[0])))
def graded(text: str, whom: Whom, ladder: LadderInUse) -> Graded:
    """Read and grade a text, once for the same question; raises ReadError."""
    return graded_reading(read_cached(text), whom, ladder)


def part_of(song: Song, index: int) -> Part:
    """A part of a song; raises InvalidValueError where it has none of that number."""
    if index >= len(song.parts):
        raise InvalidValueError("part", index, f"0 to {len(song.parts) - 1}")
    return song.parts[index]


def graded_reading(reading: Reading, whom: Whom, ladder: LadderInUse) -> Graded:
    """Grade what was read."""
    reading = replace(reading, song=whom.on_their_guitar(reading.song))
    gradings = grade_song(reading.song, ladder.ladder, whom.request)
    parts = zip(reading.song.parts, gradings, strict=True)
    ranges = tuple(
        step_range(reading.song, part, ladder.ladder, grading, whom.request) for part, grading in parts
    )
    return Graded(
        reading,
        gradings,
        ranges,
        whom,
        ladder.ladder,
        tuple(sorted(_own_techniques(reading.song) - set(ladder.ladder.own_techniques))),
    )


def _own_techniques(song: Song) -> set[str]:
    return {name for part in song.parts for _, _, event in part.events() for name in event.own_techniques}


def analysis_of(result: Graded) -> api.AnalysisModel:
    """Everything the Desk shows of a graded text."""
    song, gradings = result.reading.song, result.gradings
    return api.AnalysisModel(
        title=song.title or "Untitled",
        whom=result.whom.name,
        span_mm=result.whom.request.player.span_mm,
        marked_tempo=float(song.playing_tempo),
        tempo=float(gradings[0].tempo),
        tempo_assumed=song.tempo_is_assumed,
        feel=song.feel,
        cents=song.cents,
        extra=[[key, text] for key, text in song.extra],
        order=list(song.order),
        ladder=gradings[0].ladder,
        guesses=[problem_model(guess, result.reading) for guess in result.reading.guesses],
        unknown_techniques=list(result.unknown_techniques),
        parts=[_part_model(result, at) for at in range(len(song.parts))],
    )


def hardest_words(part: Part, grading: Grading) -> str:
    """Which bars make the song hard, and by what: `hardest in bars 7-8, by the shift`."""
    if not grading.peak_bars:
        return "no notes yet"
    numbers = sorted({part.bar_number(index) for index in grading.peak_bars})
    whole = numbers == list(range(numbers[0], numbers[-1] + 1))
    told = (
        f"{numbers[0]}-{numbers[-1]}" if whole else f"{', '.join(map(str, numbers[:-1]))} and {numbers[-1]}"
    )
    bars = f"bars {told}" if len(numbers) > 1 else f"bar {numbers[0]}"
    worst = max((grading.bars[index] for index in grading.peak_bars), key=lambda bar: bar.step)
    return f"hardest in {bars}, by the {worst.hardest_measure}"


def _text_line(reading: Reading, part: int, bar: int) -> int:
    """The line a bar begins on; 0 where the song stands in no text of its own."""
    return reading.spans[part][bar].line if reading.spans else 0


def _part_model(result: Graded, at: int) -> api.PartModel:
    song, grading, steps = result.reading.song, result.gradings[at], result.ranges[at]
    part, whom = song.parts[at], result.whom
    reach = reach_of(part, grading, whom.ability(result.ladder))
    peak_share, typical_share = WEIGHINGS[whom.request.weighing]
    neck = Neck(part.scale_length_mm, part.capo)
    times = bar_times(part, song.playing_tempo, grading.tempo)
    sounding, sharps = sounding_quarters(part), sharps_of(part)
    found, played, seen = coming_back(part, song.order), played_order(part, song.order), read_shapes(part)
    places = shape_places(seen, grading.grips, part.tuning.strings)
    recognised, into = seen.recognised, changes_by_event(seen, grading.grips, times)
    same, pinned = same_bars(part.bars), pinned_as(part.bars)
    bars = []
    for index, (bar, time, grade) in enumerate(zip(part.bars, times, grading.bars, strict=True)):
        events = [
            event_model(
                part,
                sharps,
                event,
                onset,
                count_sign(part.starts_at(index) + onset, bar.metre),
                sounding[index][number],
                grading.grips.get((index, number)),
                recognised.get((index, number), ""),
                into.get((index, number)),
            )
            for number, (onset, event) in enumerate(zip(bar.onsets, bar.events, strict=True))
        ]
        line = _text_line(result.reading, at, index)
        bars.append(bar_model(part, grade, events, line, time, same[index], pinned[index]))
    return api.PartModel(
        name=part.name,
        tuning=part.tuning.name,
        capo=part.capo,
        instrument=part.instrument,
        picking=part.picking,
        feel=song.feel,
        neck=api.NeckModel(
            scale_length_mm=part.scale_length_mm,
            frets_mm=[
                round(neck.fret_mm(fret), 2)
                for fret in range(max(part.highest_fret, _highest_written(part)) + 1)
            ],
            string_letters=list(part.tuning.letters),
            string_pitches=[pitch + part.capo for pitch in part.tuning.pitches],
        ),
        sections=[
            api.SectionModel(name=section.name, first_bar=section.first_bar, times=section.times)
            for section in part.sections
        ],
        remarks=[text for _, text in part.remarks],
        played=list(played),
        map=[_passage_model(part, passage, times) for passage in song_map(part, song.order)],
        map_problems=list(map_problems(part, song.order)),
        seconds=sum(times[index].seconds for index in played),
        step=grading.step,
        peak=grading.peak,
        peak_bars=list(grading.peak_bars),
        peak_share=peak_share,
        typical_share=typical_share,
        typical=grading.typical,
        stamina=grading.stamina,
        to_learn=api.ToLearnModel(**asdict(to_learn(song, part))),
        plucked_unsaid=asks_for_fingers(part),
        hardest=hardest_words(part, grading),
        step_low=steps.low,
        step_high=steps.high,
        past_bars=[api.PastBarModel(index=past.index, words=past.words) for past in reach.bars],
        past_song=reach.song_words,
        within_reach=reach.within,
        doubts=list(steps.reasons),
        sentences=list(three_sentences(part, grading, found)),
        figures=figure_models(part, found, played),
        rules=rule_models(part, found),
        guessed_ringing=list(guessed_ringing(part)),
        rings_as_written=part.rings_as_written,
        shapes=[_shape_model(shape) for shape in shapes(places)],
        shape_places=[
            api.ShapePlaceModel(bar=place.bar, event=place.event, shape=_shape_model(place.shape))
            for place in places
        ],
        cautions=[
            api.CautionModel(kind=each.kind, words=each.words, bars=list(each.bars))
            for each in cautions(part, grading, whom.request.player)
        ],
        pins_not_kept=list(pins_not_kept(part, grading)),
        readings=[
            api.ReadingModel(bar=reading.bar, name=reading.name, in_use=reading.content is None)
            for reading in part.readings
        ],
        bars=bars,
    )


def _passage_model(part: Part, passage: Passage, times: Sequence[BarTime]) -> api.PassageModel:
    section = passage.section
    first = section.first_bar if section else 0
    return api.PassageModel(
        name=passage.name,
        first_bar=first,
        role=_role_of(part, passage),
        role_said=bool(section and section.role),
        sound=list(section.sound) if section else [],
        times=passage.times,
        counted=passage.counted,
        seconds=passage.times * sum(times[index].seconds for index in passage.bars),
        like=section.like if section else "",
        changed_bars=[part.bar_number(first + at) for at in range(len(section.differs))] if section else [],
    )


def _shape_model(shape: Shape) -> api.ShapeModel:
    return api.ShapeModel(
        name=shape.name,
        frets=list(shape.frets),
        fingers=list(shape.fingers),
        first_fret=shape.first_fret,
    )


def _role_of(part: Part, passage: Passage) -> Role | None:
    """As the teacher says it, or guessed."""
    said = passage.section.role if passage.section else None
    return said or role_of(part, [part.bars[index] for index in passage.bars])


def _highest_written(part: Part) -> int:
    return max((note.fret for _, _, event in part.events() for note in event.notes), default=0)
