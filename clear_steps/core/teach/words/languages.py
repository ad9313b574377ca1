"""The languages that directions are given in."""

from enum import StrEnum


class Language(StrEnum):
    """A language that directions are given in."""

    ENGLISH = "en"
    SPANISH = "es"
