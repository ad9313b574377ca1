"""What the API takes and gives about files."""

from pydantic import BaseModel, Field


class ImportIn(BaseModel):
    """A file to look at before anything is stored."""

    name: str = Field(max_length=200)
    content_base64: str
    song: int = Field(0, ge=0)  # which of several


class ImportModel(BaseModel):
    """What a file says: the tab text it becomes, what was read, guessed and not placed, and what reads
    otherwise in that text."""

    text: str
    read: list[str]
    guessed: list[str]
    not_placed: list[str]
    changed: list[str]
    songs: list[str]  # titles, where there are several


class HeadingIn(BaseModel):
    """A header line of a text to change."""

    text: str
    key: str
    value: str = Field(max_length=200)


class PartsIn(BaseModel):
    """Which parts (indexes) of a text to keep."""

    text: str
    parts: list[int] = Field(min_length=1, max_length=12)


class WhichIn(BaseModel):
    """Which of several songs (index) in a text to take."""

    text: str
    song: int = Field(ge=0)


class TextModel(BaseModel):
    """A text as it was changed."""

    text: str
