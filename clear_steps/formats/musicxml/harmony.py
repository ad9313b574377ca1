"""Chord names and MusicXML's harmony elements."""

import re
from xml.etree.ElementTree import Element, SubElement

_CHORD = re.compile(r"([A-G])([#b]?)([^/]*)(?:/([A-G])([#b]?))?")
_ALTERS = {"#": "1", "b": "-1", "": ""}
_KINDS = {
    "": "major",
    "m": "minor",
    "7": "dominant",
    "maj7": "major-seventh",
    "m7": "minor-seventh",
    "dim": "diminished",
    "aug": "augmented",
    "sus4": "suspended-fourth",
    "sus2": "suspended-second",
    "6": "major-sixth",
    "m6": "minor-sixth",
    "9": "dominant-ninth",
    "5": "power",
    "m7b5": "half-diminished",
    "dim7": "diminished-seventh",
}
_SUFFIXES = {kind: suffix for suffix, kind in _KINDS.items()}


def write_harmony(measure: Element, chord: str) -> bool:
    """Add a chord name; False where it is none that can be taken apart."""
    match = _CHORD.fullmatch(chord)
    if not match:
        return False
    step, alter, suffix, bass_step, bass_alter = match.groups(default="")
    harmony = SubElement(measure, "harmony")
    _root(SubElement(harmony, "root"), "root", step, alter)
    SubElement(harmony, "kind", text=suffix).text = _KINDS.get(suffix, "other")
    if bass_step:
        _root(SubElement(harmony, "bass"), "bass", bass_step, bass_alter)
    return True


def _root(parent: Element, name: str, step: str, alter: str) -> None:
    SubElement(parent, f"{name}-step").text = step
    if _ALTERS[alter]:
        SubElement(parent, f"{name}-alter").text = _ALTERS[alter]


def read_harmony(harmony: Element) -> str:
    """The chord's name as it is written above tab; empty where it has no root."""
    root = _name(harmony, "root")
    if not root:
        return ""
    kind = harmony.find("kind")
    text = kind.get("text") if kind is not None else None
    suffix = (
        text if text is not None else _SUFFIXES.get((kind.text or "").strip() if kind is not None else "", "")
    )
    bass = _name(harmony, "bass")
    return "".join(f"{root}{suffix}{'/' if bass else ''}{bass}".split())[:24]


def _name(harmony: Element, name: str) -> str:
    step = (harmony.findtext(f"{name}/{name}-step") or "").strip()
    alter = (harmony.findtext(f"{name}/{name}-alter") or "").strip()
    return step + {"1": "#", "-1": "b"}.get(alter, "") if step else ""
