"""What is learnt at a time: stretches of a few notes from one note to another, proposed from the music.

A part is cut as a whole (`proposing`), every note in one chunk; a chunk that is another again says so
(`naming`), each is graded note to note (`graded`), and several orders of learning are told (`ordering`,
`layers`). Kept is where each begins, so that they go on to be a whole when the song is revised (`carrying`).
"""

from clear_steps.core.teach.chunks.carrying import carried, from_starts
from clear_steps.core.teach.chunks.chunk import Chunk, Like, struck_at, struck_in
from clear_steps.core.teach.chunks.graded import GradedChunk, Switch, graded_chunks
from clear_steps.core.teach.chunks.layers import AFTERWARDS, Layer, layers, voice_strings, with_layer
from clear_steps.core.teach.chunks.naming import likes
from clear_steps.core.teach.chunks.ordering import Order, ordered
from clear_steps.core.teach.chunks.proposing import proposed_chunks

__all__ = [
    "AFTERWARDS",
    "Chunk",
    "GradedChunk",
    "Layer",
    "Like",
    "Order",
    "Switch",
    "carried",
    "from_starts",
    "graded_chunks",
    "layers",
    "likes",
    "ordered",
    "proposed_chunks",
    "struck_at",
    "struck_in",
    "voice_strings",
    "with_layer",
]
