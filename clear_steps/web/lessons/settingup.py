"""How a guitar is made ready for a part: as written, and where a capo saves the turning."""

from clear_steps.core.score import TUNINGS, Part, Song, Tuning, default_tuning, parse_tuning
from clear_steps.core.teach.setting_up import Setting, fewest_changes, written_setting
from clear_steps.core.teach.words import Language, Names, cents_words, setting_words
from clear_steps.formats.tabtext import tuning_said
from clear_steps.web.analysis.shown import part_of, read_cached
from clear_steps.web.lessons import schemas as api
from clear_steps.web.whom import Whom


def usual_of(whom: Whom, part: Part) -> Tuning | None:
    """What somebody's guitar is in before a song: their own tuning, else the usual one of as many strings."""
    own = parse_tuning(whom.tuning) if whom.tuning else None
    return own if own and own.strings == part.tuning.strings else default_tuning(part.tuning.strings)


def sheet_sentences(song: Song, part: Part, whom: Whom, language: Language, names: Names) -> list[str]:
    """What a sheet says of it: the strings to turn, and a recording that is off."""
    usual = usual_of(whom, part)
    if usual is None:
        return []
    words = setting_words(usual, written_setting(usual, part.tuning, part.capo), language, names)
    said = [*words.turns, *([words.capo] if part.capo else []), cents_words(song.cents, language)]
    return [sentence for sentence in said if sentence]


def setting_up_json(text: str, whom: Whom, query: api.SettingUpQuery) -> str:
    """The SettingUpModel of a part of a text; done by the workers."""
    song = read_cached(text).song
    return setting_up(song, part_of(song, query.part_index), whom, query).model_dump_json()


def setting_up(song: Song, part: Part, whom: Whom, query: api.SettingUpQuery) -> api.SettingUpModel:
    """The guitar as it is, or as it is said to be, made ready for a part or for another tuning; raises
    InvalidValueError for a tuning nobody knows or of other strings."""
    usual = usual_of(whom, part) or part.tuning
    old = tuning_said(query.tuned_to) if query.tuned_to.strip() else usual
    own = not query.to.strip()
    tuning, capo = (part.tuning, part.capo) if own else (tuning_said(query.to), 0)
    fewer = fewest_changes(old, tuning, capo)

    def model(setting: Setting) -> api.SettingModel:
        words = setting_words(old, setting, query.language, query.names)
        return api.SettingModel(
            tuning=setting.tuning.name,
            capo=setting.capo,
            turns=list(words.turns),
            own=_named(old.pitches),
            record=_named(tuple(pitch + setting.capo for pitch in setting.tuning.pitches)),
            capo_words=words.capo,
            sounds=words.sounds,
            strings=[
                api.OpenStringModel(
                    string=string,
                    name=_name(letter, setting.tuning.open_pitch(string)),
                    pitch=setting.tuning.open_pitch(string),
                    turned=any(turn.string == string for turn in setting.turns),
                )
                for string, letter in enumerate(setting.tuning.letters, start=1)
            ],
        )

    return api.SettingUpModel(
        tuned_to=old.name,
        asked=model(written_setting(old, tuning, capo)),
        fewer=fewer and model(fewer),
        cents=song.cents if own else 0,
        cents_words=cents_words(song.cents, query.language) if own else "",
        tunings=[name for name, each in TUNINGS.items() if each.strings == old.strings],
    )


def _named(pitches: tuple[int, ...]) -> str:
    """`E2 A2 D3 G3 B3 E4`, spelled as a tuning is."""
    names = [_name(letter, pitch) for letter, pitch in zip(Tuning(pitches).letters, pitches, strict=True)]
    return " ".join(reversed(names))


def _name(letter: str, pitch: int) -> str:
    return f"{letter}{pitch // 12 - 1}"
