"""Teaching a part: its chunks, their order and words."""
