"""What comes back in a part: figures with their places, and sequences as rules.

Columns of notes are numbered by what neighbours have in common (`seeds`); where numbers come again lie the
`candidates`; every later place of one is sought by these numbers and compared (`finding`, `likeness`), kept
if no chance explains it (`chance`), and of all that is found a teacher's cut is chosen (`choosing`).
"""

from clear_steps.core.figures.likeness import As
from clear_steps.core.figures.search import coming_back
from clear_steps.core.figures.told import At, ComingBack, Figure, Place, Rule
from clear_steps.core.figures.tolearn import ToLearn, to_learn

__all__ = ["As", "At", "ComingBack", "Figure", "Place", "Rule", "ToLearn", "coming_back", "to_learn"]
