"""What the API takes and gives about files."""

from pydantic import BaseModel, Field


class ImportIn(BaseModel):
    """A file to look at before anything is stored."""

    name: str = Field(max_length=200)
    content_base64: str


class ImportModel(BaseModel):
    """What a file says: the tab text it becomes, and what was read, guessed and not placed."""

    text: str
    read: list[str]
    guessed: list[str]
    not_placed: list[str]
