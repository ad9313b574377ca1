"""What the page knows of measures and techniques before it asks for anything: made from their rows."""

from typing import Any

from clear_steps.core.grade import MEASURES
from clear_steps.core.score import NOT_HELD, TECHNIQUES
from clear_steps.core.teach import LOUDNESS, PAIN
from clear_steps.core.teach.chunks import AFTERWARDS


def page_rows() -> dict[str, Any]:
    """For `frontend/src/rows.json`: names, signs, and the curves of the ladder that belong to a measure."""
    return {
        "measures": [
            {
                "name": row.name,
                "about": row.about,
                "spoken": row.spoken,
                "sign": row.sign,
                "curves": [{"name": name, "words": words} for name, words in row.curves.items()],
            }
            for row in MEASURES.values()
        ],
        "techniques": [
            {
                "technique": row.technique,
                "name": row.name,
                "drawing": row.drawing,
                "words": row.drawn_words,
                "afterwards": row.technique in AFTERWARDS,
            }
            for row in TECHNIQUES.values()
        ],
        "not_held": NOT_HELD,
        "care": {"pain": PAIN, "loudness": LOUDNESS},
    }
