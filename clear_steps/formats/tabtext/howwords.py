"""Words of the `how` line: `PM`, `PM:6` for one string, `stop:6/5`, `dip:1`, `*own`, joined by `+`."""

import re
from dataclasses import dataclass, field, replace
from fractions import Fraction

from clear_steps.core.score import HOW_WORDS, TECHNIQUES, Event, Note, Technique, parse_number
from clear_steps.core.score.tuning import MAX_STRINGS
from clear_steps.formats.tabtext.problems import short

FREE_WORD, DOUBT_WORD, STOP_WORD = "free", "?", "stop"
OWN_SIGN = "*"  # before the name of a technique of the teacher's own
_OWN = re.compile(r"\*[A-Za-z][A-Za-z0-9_]{0,23}")
_DEEPEST_DIP = 24  # half tones
_STRINGS = re.compile(r"[1-9](?:/[1-9])*")


class NoHowWordError(Exception):
    """A word that is none; the text says which, and what was expected."""

    def __init__(self, name: str, told: str) -> None:
        super().__init__(f"'{short(name)}' {told}")


@dataclass
class How:
    """What the words at one place say."""

    techniques: set[Technique] = field(default_factory=set)  # of all notes
    by_string: dict[Technique, frozenset[int]] = field(default_factory=dict)
    own: set[str] = field(default_factory=set)
    stopped: frozenset[int] = frozenset()
    dip: Fraction | None = None
    free: bool = False
    uncertain: bool = False

    @property
    def strings(self) -> frozenset[int]:
        """Those that a technique names: a note must be there."""
        return frozenset[int]().union(*self.by_string.values())

    def on(self, event: Event) -> Event:
        """An event with all of it."""
        return replace(
            event,
            notes=tuple(self._note(note) for note in event.notes),
            own_techniques=event.own_techniques | self.own,
            techniques=event.techniques | self.techniques,
            stopped=event.stopped | self.stopped,
            dip=event.dip if self.dip is None else self.dip,
            free=event.free or self.free,
            uncertain=event.uncertain or self.uncertain,
        )

    def _note(self, note: Note) -> Note:
        named = {technique for technique, strings in self.by_string.items() if note.string in strings}
        return replace(note, techniques=note.techniques | named) if named else note


def read_how(text: str) -> How:
    """The words; raises NoHowWordError."""
    how = How()
    for name in text.split("+"):
        word, _, more = name.partition(":")
        if _OWN.fullmatch(name):
            how.own.add(name.removeprefix(OWN_SIGN))
        elif name == FREE_WORD:
            how.free = True
        elif name == DOUBT_WORD:
            how.uncertain = True
        elif word == STOP_WORD:
            how.stopped |= _strings(name, more)
        elif word not in HOW_WORDS:
            known = " ".join([*HOW_WORDS, STOP_WORD, FREE_WORD, DOUBT_WORD])
            raise NoHowWordError(
                name, f"is no word for how; expected one of {known}, or a name of your own after {OWN_SIGN}"
            )
        elif HOW_WORDS[word] is Technique.WHAMMY_DIP and more:
            how.techniques.add(Technique.WHAMMY_DIP)
            how.dip = _depth(name, more)
        elif ":" in name:
            how.by_string[HOW_WORDS[word]] = _strings(name, more)
        else:
            how.techniques.add(HOW_WORDS[word])
    return how


def _strings(name: str, text: str) -> frozenset[int]:
    if not _STRINGS.fullmatch(text) or any(int(string) > MAX_STRINGS for string in text.split("/")):
        expected = f"names no strings; expected numbers from 1 to {MAX_STRINGS} with / between, such as 6/5"
        raise NoHowWordError(name, expected)
    return frozenset(map(int, text.split("/")))


def _depth(name: str, text: str) -> Fraction:
    depth = parse_number(text)
    if depth is None or not 0 < depth <= _DEEPEST_DIP:
        expected = f"says no depth; expected half tones from above 0 to {_DEEPEST_DIP}, such as dip:1"
        raise NoHowWordError(name, expected)
    return depth


def write_how(event: Event) -> str:
    """The words of an event: of all its notes in the order of the table, then what names strings, then the
    rest."""
    words = [
        f"{TECHNIQUES[technique].sign}{_written_depth(event, technique)}"
        for technique in Technique
        if technique in event.techniques
    ]
    words += _words_by_string(event)
    words += [OWN_SIGN + name for name in sorted(event.own_techniques)]
    words += [FREE_WORD] * event.free + [DOUBT_WORD] * event.uncertain
    return "+".join(words)


def _written_depth(event: Event, technique: Technique) -> str:
    deep = technique is Technique.WHAMMY_DIP and event.dip is not None
    return f":{float(event.dip or 0):.10g}" if deep else ""


def _words_by_string(event: Event) -> list[str]:
    """`PM:6`, `stop:6/5`: what holds for some strings alone."""
    words = [
        f"{TECHNIQUES[technique].sign}:{'/'.join(map(str, strings))}"
        for technique, strings in event.strings_by_word().items()
    ]
    if event.stopped:
        words.append(f"{STOP_WORD}:{'/'.join(map(str, sorted(event.stopped)))}")
    return words
