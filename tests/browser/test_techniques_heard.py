"""Every technique sounds as what it is, found in what the page plays: pitches, levels and attacks."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from fractions import Fraction

import numpy as np
import pytest
from selenium.webdriver import Chrome
from selenium.webdriver.common.keys import Keys

from clear_steps.core.score import Bar, Bend, Dynamic, Event, Metre, Note, Part, Song, Technique
from clear_steps.formats.tabtext import write_tab
from clear_steps.web.workers import Processes
from tests.browser.chrome import served_demo
from tests.browser.hearing import LOWEST, Recording, attacks, beginning, late, level, listen, pitch, recorded
from tests.browser.page import Page

T = Technique
Listening = Callable[..., Recording]
TEMPO = 60  # quarters a minute: a second each
G9 = 64  # MIDI number of the 3rd string at the 9th fret
CENTS = 10  # that a pitch may be off
TRIES = 3  # recordings: on a busy machine the page itself may be late once


def quarter(string: int, fret: int, *techniques: Technique, **more: object) -> Event:
    words = frozenset(each for each in techniques if each in WORDS)
    own = frozenset(techniques) - words
    note = Note(string, fret, own, more.pop("bend", None))  # type: ignore[arg-type]
    return Event(Fraction(1), (note,), words, **more)  # type: ignore[arg-type]


WORDS = {
    T.TREMOLO,
    T.TRILL,
    T.PALM_MUTE,
    T.STACCATO,
    T.ACCENT,
    T.SLAP,
    T.WHAMMY_DIP,
    T.PRE_BEND,
    T.ARTIFICIAL_HARMONIC,
}
WHOLE = Bend(Fraction(2))
# A second each, in this order; what sounds after what matters to hammers, pulls and slides alone.
PLAYED = {
    "low": quarter(6, 0),
    "middle": quarter(4, 7),
    "plain": quarter(3, 9),
    "high": quarter(1, 17),
    "slid into from below": quarter(3, 9, T.SLIDE_IN_BELOW),
    "slid into from above": quarter(3, 9, T.SLIDE_IN_ABOVE),
    "slid out": quarter(3, 9, T.SLIDE_OUT_DOWN),
    "dipped": quarter(3, 9, T.WHAMMY_DIP),
    "trilled": quarter(3, 9, T.TRILL),
    "tremolo": quarter(3, 9, T.TREMOLO),
    "dead": quarter(3, 0, T.DEAD),
    "harmonic": quarter(3, 12, T.NATURAL_HARMONIC),
    "palm-muted": quarter(3, 9, T.PALM_MUTE),
    "cut short": quarter(3, 9, T.STACCATO),
    "accented": quarter(3, 9, T.ACCENT),
    "slapped": quarter(3, 9, T.SLAP),
    "bent": quarter(3, 9, bend=WHOLE),
    "bent and released": quarter(3, 9, bend=Bend(Fraction(2), released=True)),
    "bent before": quarter(3, 9, T.PRE_BEND, bend=WHOLE),
    "with vibrato": quarter(3, 9, T.VIBRATO),
    "slid from": quarter(3, 5),
    "slid to": quarter(3, 9, T.SLIDE),
    "hammered from": quarter(3, 7),
    "hammered": quarter(3, 9, T.HAMMER_ON),
    "soft": quarter(3, 9, dynamic=Dynamic.VERY_SOFT),
    "loud": quarter(3, 9, dynamic=Dynamic.VERY_LOUD),
}
NAMES = list(PLAYED)


@dataclass(frozen=True)
class Heard:
    """A recording of all of them."""

    recording: Recording
    begins: float

    def at(self, name: str, seconds: float = 0.0) -> float:
        """So long after one of them begins."""
        return self.begins + NAMES.index(name) + seconds

    def pitch(self, name: str, start: float, seconds: float, near: float = G9) -> float:
        """Its pitch for a while, as a MIDI number with its fraction."""
        return pitch(self.recording, self.at(name, start), seconds, near)

    def level(self, name: str, start: float, seconds: float) -> float:
        """How loud it is for a while, in dB."""
        return level(self.recording, self.at(name, start), seconds)

    def brightness(self, name: str) -> float:
        """The share of its first moment that lies above 3 kHz."""
        rate = self.recording.rate
        first = int(self.at(name) * rate)
        piece = self.recording.samples[first : first + rate // 20]
        strength = np.abs(np.fft.rfft(piece)) ** 2
        return float(strength[np.fft.rfftfreq(len(piece), 1 / rate) > 3000].sum() / strength.sum())


@pytest.fixture(scope="module")
def listening(
    chrome: Chrome, workers: Processes, tmp_path_factory: pytest.TempPathFactory
) -> Iterator[Listening]:
    """Plays a song from the Desk and gives what is heard in the first seconds."""
    with served_demo(tmp_path_factory.mktemp("sound"), workers) as served:
        page = Page(chrome, served)

        def listen_to(
            text: str,
            seconds: float,
            count_in: bool = False,
            part: str = "",
            prepare: Callable[[Page], None] = lambda _: None,
        ) -> Recording:
            number = page.add_song(text)
            page.leave()
            with recorded(page):
                page.open(f"#/song/{number}")
                page.find("[data-testid=song-step]")
                if not count_in:
                    page.find("button[aria-label='1 2 3: count-in']").click()
                if part:
                    page.choose("Part", part)
                prepare(page)
                page.find("button", "Play").click()
                return listen(page, seconds)

        yield listen_to
        page.leave()


@pytest.fixture(scope="module")
def heard(listening: Listening) -> Heard:
    events = list(PLAYED.values())
    rest = Event(Fraction(1), ())
    rows = [events[at : at + 4] for at in range(0, len(events), 4)]
    bars = tuple(Bar(Metre(4, 4), (*row, *[rest] * (4 - len(row)))) for row in rows)
    part = Part(bars=bars)
    song = Song("All that is done to a note", Fraction(TEMPO), parts=(part,))
    for _ in range(TRIES):
        recording = listening(write_tab(song), len(events) + 1)
        begins = beginning(recording)
        moments = [begins + NAMES.index(name) for name in NAMES if name != "soft"]
        if not late(recording, moments):
            break
    return Heard(recording, begins)


def cents(found: float, wanted: float) -> float:
    return abs(found - wanted) * 100


@pytest.mark.parametrize(
    ("name", "midi"), [("low", 40), ("middle", 57), ("plain", G9), ("high", 81), ("accented", G9)]
)
def test_a_note_is_in_tune(heard: Heard, name: str, midi: int) -> None:
    assert cents(heard.pitch(name, 0.1, 0.8, midi), midi) <= CENTS


def test_a_harmonic_sounds_an_octave_up_and_rings(heard: Heard) -> None:
    assert cents(heard.pitch("harmonic", 0.1, 0.8, 67), 67) <= CENTS
    fading = heard.level("harmonic", 0.05, 0.2) - heard.level("harmonic", 0.7, 0.2)
    assert fading < heard.level("plain", 0.05, 0.2) - heard.level("plain", 0.7, 0.2)


def test_slides_come_from_below_from_above_and_let_go(heard: Heard) -> None:
    for name, sign in (("slid into from below", -1), ("slid into from above", 1)):
        assert sign * (heard.pitch(name, 0.0, 0.04) - G9) > 0.5
        assert cents(heard.pitch(name, 0.15, 0.6), G9) <= CENTS
    assert cents(heard.pitch("slid out", 0.1, 0.6), G9) <= CENTS
    assert heard.pitch("slid out", 0.93, 0.06) < G9 - 1
    assert heard.pitch("slid to", 0.0, 0.04) < G9 - 0.5
    assert cents(heard.pitch("slid to", 0.15, 0.6), G9) <= CENTS


def test_a_dip_goes_down_and_comes_back(heard: Heard) -> None:
    assert heard.pitch("dipped", 0.13, 0.05) < G9 - 0.5
    assert cents(heard.pitch("dipped", 0.35, 0.5), G9) <= CENTS


def test_a_trill_goes_to_and_fro_between_two_notes(heard: Heard) -> None:
    found = [round(heard.pitch("trilled", 0.125 * each + 0.02, 0.1)) for each in range(8)]
    assert found == [G9, G9 + 2] * 4


def test_tremolo_is_struck_eight_times_a_quarter(heard: Heard) -> None:
    struck = [each - heard.at("tremolo") for each in attacks(heard.recording)]
    for eighth in range(8):
        assert min(abs(each - eighth * 0.125) for each in struck) <= 0.01


def test_a_dead_note_is_a_knock_without_pitch(heard: Heard) -> None:
    assert heard.level("dead", 0.0, 0.05) > heard.level("plain", 0.0, 0.05) - 15
    assert heard.level("dead", 0.2, 0.3) < heard.level("dead", 0.0, 0.05) - 30


def test_mutes_and_short_notes_are_gone_soon(heard: Heard) -> None:
    for name in ("palm-muted", "cut short"):
        assert heard.level(name, 0.4, 0.3) < heard.level("plain", 0.4, 0.3) - 15
        assert heard.level(name, 0.0, 0.05) > heard.level("plain", 0.0, 0.05) - 12


def test_accents_slaps_and_dynamics_are_louder_or_softer(heard: Heard) -> None:
    plain = heard.level("plain", 0.0, 0.3)
    assert heard.level("accented", 0.0, 0.3) > plain + 1.5
    assert heard.brightness("slapped") > 2 * heard.brightness("plain")
    assert heard.level("soft", 0.0, 0.3) < plain - 5
    assert heard.level("loud", 0.0, 0.3) > heard.level("soft", 0.0, 0.3) + 8
    assert heard.level("hammered", 0.0, 0.3) < plain - 2


def test_a_bend_is_at_its_target_when_it_should_be(heard: Heard) -> None:
    assert cents(heard.pitch("bent", 0.0, 0.05), G9) < 80
    assert cents(heard.pitch("bent", 0.3, 0.6), G9 + 2) <= CENTS
    assert cents(heard.pitch("bent and released", 0.3, 0.24), G9 + 2) <= CENTS
    assert cents(heard.pitch("bent and released", 0.83, 0.15), G9) <= CENTS
    assert cents(heard.pitch("bent before", 0.0, 0.5), G9 + 2) <= CENTS


def test_vibrato_shakes_around_its_note(heard: Heard) -> None:
    found = np.array([heard.pitch("with vibrato", 0.2 + 0.05 * each, 0.08) for each in range(14)])
    assert 0.1 < found.max() - found.min() < 1
    assert cents(float(np.median(found)), G9) < 30


PICKUP = Part(
    bars=(
        Bar(Metre(4, 4), (quarter(3, 2),)),
        Bar(Metre(4, 4), tuple(quarter(3, fret) for fret in (4, 5, 7, 9))),
    )
)


def test_a_pickup_is_counted_on_the_grid_of_its_bar(listening: Listening) -> None:
    """1 2 3 4, 1 2 3, and the notes come on 4: a click or a note every half second, and nothing else."""
    song = Song("From the fourth beat", Fraction(120), parts=(PICKUP,))
    for _ in range(TRIES):
        recording = listening(write_tab(song), 6.5, count_in=True)
        found = np.array(attacks(recording))
        missed = late(recording, [found[0] + beat / 2 for beat in range(12)])
        if not missed:
            break
    assert missed == []
    assert [round(each * 2) for each in found - found[0] if each < 3.75] == list(range(8))


TWO = """Title: Side by side
Tempo: 60
Time: 4/4
Tuning: standard

Part: One

e|0---0---0---0---|
B|----------------|
G|----------------|
D|----------------|
A|----------------|
E|----------------|

Part: Two

e|----------------|
B|----------------|
G|----------------|
D|5---5---5---5---|
A|----------------|
E|----------------|
"""


def test_two_guitars_are_balanced(listening: Listening) -> None:
    """Each is heard alike among both, and both together are about as loud as one alone."""
    alone = listening(TWO, 3.5)
    both = listening(TWO, 3.5, part="all parts together")
    strength = both.strength(beginning(both) + 0.05, 0.8)
    one, two = (strength[midi - LOWEST] for midi in (64, 55))
    assert 0.5 < one / two < 2
    apart = level(both, beginning(both), 3) - level(alone, beginning(alone), 3)
    assert abs(apart) < 3


def test_the_recordings_cents_are_heard(listening: Listening) -> None:
    def as_recorded(page: Page) -> None:
        page.press("g")
        page.find("[role=dialog] label", "as on the recording").click()
        page.find("[role=dialog] button", "Close").click()

    part = Part(bars=(Bar(Metre(4, 4), (PLAYED["plain"],) * 4),))
    song = Song("A little flat", Fraction(TEMPO), cents=-30, parts=(part,))
    recording = listening(write_tab(song), 2.5, prepare=as_recorded)
    assert cents(pitch(recording, beginning(recording) + 0.1, 0.8, G9), G9 - 0.3) <= CENTS


def test_the_other_guitar_plays_softly_behind(listening: Listening) -> None:
    def with_the_other(page: Page) -> None:
        page.press("j")
        page.find("button[aria-label$='how it is practised']").click()
        page.choose("Other guitars", "softly behind")
        page.press(Keys.ESCAPE)

    recording = listening(TWO, 2.5, prepare=with_the_other)
    strength = recording.strength(beginning(recording) + 0.05, 0.8)
    own, other = (strength[midi - LOWEST] for midi in (64, 55))
    assert 0.1 < other / own < 0.7
