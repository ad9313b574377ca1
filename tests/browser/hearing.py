"""What the page sounds like: its sound is recorded, and each note looked for in the spectrum of its moment.

A note is heard where its own pitch (with its 2nd and 3rd partial) is stronger than both neighbouring half
tones and at least a fifth of the strongest pitch. Equal temperament, A4 = 440 Hz.
"""

import base64
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from clear_steps.core.score import Part, Song, played_order
from clear_steps.core.score.timing import bar_times
from tests.browser.page import Page

# What goes to the loudspeakers is taken down as well, sample by sample, each block with the number of its
# first sample; nodes that are silent only keep others alive.
RECORDER = """
window.blocks = [];
const TAP = `registerProcessor('tap', class extends AudioWorkletProcessor {
  process([[samples]]) {
    this.port.postMessage([currentFrame, samples ? samples.slice() : new Float32Array(128)]);
    return true;
  }
});`;
const connect = AudioNode.prototype.connect;
AudioNode.prototype.connect = function (target, ...rest) {
  if (target instanceof AudioDestinationNode && this.gain?.value > 0) {
    const module = URL.createObjectURL(new Blob([TAP], { type: 'text/javascript' }));
    window.rate = this.context.sampleRate;
    this.context.audioWorklet.addModule(module).then(() => {
      const mono = { channelCount: 1, channelCountMode: 'explicit' };
      const tap = new AudioWorkletNode(this.context, 'tap', mono);
      tap.port.onmessage = ({ data }) => {
        window.blocks.push(data);
        if (window.began === undefined && data[1].some((sample) => sample)) window.began = data[0];
      };
      connect.call(this, tap);
      connect.call(tap, target);
    });
  }
  return connect.call(this, target, ...rest);
};
"""
RECORDED = """
const last = window.blocks[window.blocks.length - 1];
return window.began === undefined ? 0 : (last[0] - window.began) / window.rate;
"""
STOP = """
const done = arguments[0];
const [first] = window.blocks[0];
const [last, block] = window.blocks[window.blocks.length - 1];
const samples = new Float32Array(last - first + block.length);
for (const [at, each] of window.blocks) samples.set(each, at - first);
const bytes = new Uint8Array(samples.buffer);
let text = '';
for (let at = 0; at < bytes.length; at += 32768)
  text += String.fromCharCode(...bytes.subarray(at, at + 32768));
done([btoa(text), window.rate]);
"""
LOWEST, HIGHEST = 36, 92  # MIDI numbers looked at
_ATTACK, _SHORTEST, _LONGEST = 0.03, 0.12, 0.35  # seconds: of a note these are looked at


@dataclass(frozen=True)
class Recording:
    """Samples from the first sound on, and how many there are a second."""

    samples: NDArray[np.float64]
    rate: float

    def strength(self, start: float, seconds: float) -> NDArray[np.float64]:
        """How strongly every pitch from LOWEST to HIGHEST sounds."""
        first, count = int(start * self.rate), int(seconds * self.rate)
        piece = self.samples[first : first + count]
        size = 1 << 16
        spectrum, hertz = (
            np.abs(np.fft.rfft(piece * np.hanning(len(piece)), size)),
            np.fft.rfftfreq(size, 1 / self.rate),
        )
        found = np.zeros(HIGHEST - LOWEST + 1)
        for at, midi in enumerate(range(LOWEST, HIGHEST + 1)):
            own = 440 * 2 ** ((midi - 69) / 12)
            found[at] = sum(
                spectrum[(hertz > own * partial * 0.985) & (hertz < own * partial * 1.015)].max()
                for partial in (1, 2, 3)
            )
        return found


@dataclass(frozen=True)
class Written:
    """A note as written: when (seconds from the first one), for how long, its MIDI number (a bend's target),
    and its bar."""

    at: float
    seconds: float
    midi: int
    bar: int


@contextmanager
def recorded(page: Page) -> Iterator[None]:
    """Everything that pages opened meanwhile play is recorded."""
    execute: Any = page.chrome.execute_cdp_cmd  # type: ignore[attr-defined]
    added = execute("Page.addScriptToEvaluateOnNewDocument", {"source": RECORDER})
    execute("Page.setBypassCSP", {"enabled": True})  # for the page's own sake a worklet must be a file
    yield
    execute("Page.setBypassCSP", {"enabled": False})
    execute("Page.removeScriptToEvaluateOnNewDocument", added)


def listen(page: Page, seconds: float) -> Recording:
    """What is heard until so long after the first sound, by the clock of the sound: a busy machine may take
    longer."""
    page.until(lambda: page.chrome.execute_script(RECORDED) >= seconds, f"{seconds} s of sound", 6 * seconds)
    encoded, rate = page.chrome.execute_async_script(STOP)  # type: ignore[no-untyped-call]
    return Recording(np.frombuffer(base64.b64decode(encoded), dtype=np.float32).astype(np.float64), rate)


def written(song: Song, part: Part) -> list[Written]:
    """Every pitched note in the order played."""
    times, notes, now = bar_times(part, song.playing_tempo), [], 0.0
    for index in played_order(part, song.order):
        bar, quarter = part.bars[index], times[index].quarter_seconds
        for onset, event in zip(bar.onsets, bar.events, strict=True):
            for note in (note for note in event.struck if not note.dead):
                midi = part.pitch_of(note) + round(note.bend.half_tones if note.bend else 0)
                notes.append(
                    Written(now + float(onset) * quarter, float(event.quarters) * quarter, midi, index + 1)
                )
        now += times[index].seconds
    first = notes[0].at if notes else 0.0
    return [Written(note.at - first, note.seconds, note.midi, note.bar) for note in notes]


def not_heard(recording: Recording, notes: Sequence[Written]) -> tuple[list[Written], int]:
    """The notes that are not heard in a recording, and how many of all it holds."""
    begins = _begins(recording, notes)
    within = [note for note in notes if _holds(recording, begins, note)]
    return [note for note in within if not _is_heard(recording, begins, note)], len(within)


def _begins(recording: Recording, notes: Sequence[Written]) -> float:
    """Seconds at which the first note sounds, where most of the first notes are heard; less than 0 where the
    recorder woke up late."""
    first = (
        int((np.abs(recording.samples) > 0.05 * np.abs(recording.samples).max()).argmax()) / recording.rate
    )

    def fit(begins: float) -> float:
        held = [note for note in notes[:24] if _holds(recording, begins, note)]
        return sum(_is_heard(recording, begins, note) for note in held) / max(len(held), 1)

    return max(np.arange(first - 0.6, first + 0.1, 0.02), key=fit)


def _span(note: Written, begins: float) -> tuple[float, float]:
    """From when on, and for how many seconds, a note is looked at: after its attack."""
    return begins + note.at + _ATTACK, min(max(note.seconds - 0.02, _SHORTEST), _LONGEST)


def _holds(recording: Recording, begins: float, note: Written) -> bool:
    start, seconds = _span(note, begins)
    return start > 0 and (start + seconds) * recording.rate < len(recording.samples)


def _is_heard(recording: Recording, begins: float, note: Written) -> bool:
    strength, own = recording.strength(*_span(note, begins)), note.midi - LOWEST
    return bool(
        strength[own] > max(strength[own - 1], strength[own + 1]) and strength[own] >= 0.2 * strength.max()
    )


def beginning(recording: Recording) -> float:
    """Seconds at which something first sounds."""
    loud = np.abs(recording.samples)
    return float((loud > 0.05 * loud.max()).argmax()) / recording.rate


def level(recording: Recording, start: float, seconds: float) -> float:
    """How loud it is for a while, in dB."""
    first = int(start * recording.rate)
    piece = recording.samples[first : first + int(seconds * recording.rate)]
    return float(20 * np.log10(np.sqrt(np.mean(piece**2)) + 1e-9))


def pitch(recording: Recording, start: float, seconds: float, near: float) -> float:
    """The pitch for a while, a MIDI number with its fraction: the strongest fundamental within five half
    tones of one that is near."""
    first = int(start * recording.rate)
    piece = recording.samples[first : first + int(seconds * recording.rate)]
    size = 1 << 19
    spectrum = np.abs(np.fft.rfft(piece * np.hanning(len(piece)), size))
    hertz = np.fft.rfftfreq(size, 1 / recording.rate)
    low, high = (440 * 2 ** ((near + away - 69) / 12) for away in (-5, 5))
    inside = np.where((hertz > low) & (hertz < high))[0]
    found = hertz[inside[spectrum[inside].argmax()]]
    return float(69 + 12 * np.log2(found / 440))


def attacks(recording: Recording) -> list[float]:
    """Seconds at which something sharp begins: where the energy above 3 kHz jumps, to a millisecond."""
    frame = int(recording.rate / 1000)
    spectrum = np.fft.rfft(recording.samples)
    spectrum[np.fft.rfftfreq(len(recording.samples), 1 / recording.rate) < 3000] = 0
    sharp = np.fft.irfft(spectrum, len(recording.samples))
    count = len(sharp) // frame
    energy = (sharp[: count * frame].reshape(count, frame) ** 2).sum(axis=1)
    found: list[float] = []
    for at in range(40, count - 8):
        before, after = energy[at - 30 : at - 2].max(), energy[at : at + 6].max()
        moment = at * frame / recording.rate
        if after > 2.5 * before and after > 0.02 * energy.max() and (not found or moment - found[-1] > 0.08):
            found.append(moment)
    return found


def late(recording: Recording, moments: Sequence[float]) -> list[float]:
    """The moments (seconds of a recording) at which nothing sharp begins within 10 ms."""
    found = np.array(attacks(recording))
    return [moment for moment in moments if np.abs(found - moment).min() > 0.010]
