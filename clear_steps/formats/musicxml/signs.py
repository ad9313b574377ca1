"""Techniques and the MusicXML elements that stand for them; those without one are named in words."""

from clear_steps.core.score import TECHNIQUES, Technique, Writing

ARTICULATIONS = {Technique.STACCATO: "staccato", Technique.ACCENT: "accent"}
_OWN_ELEMENT = {
    Technique.HAMMER_ON,
    Technique.PULL_OFF,
    Technique.SLIDE,
    Technique.TAP,
    Technique.NATURAL_HARMONIC,
    Technique.DEAD,
}
_BENDS = {technique for technique in Technique if TECHNIQUES[technique].writing is Writing.BEND} | {
    Technique.RELEASE
}
OTHER = frozenset(Technique) - _BENDS - _OWN_ELEMENT - set(ARTICULATIONS)
_BY_NAME = {TECHNIQUES[technique].name: technique for technique in OTHER}


def name_of_technique(technique: Technique) -> str:
    """The words an `other-technical` element holds."""
    return TECHNIQUES[technique].name


def technique_of_name(name: str) -> Technique | None:
    """The technique those words mean."""
    return _BY_NAME.get(name.strip().lower())
