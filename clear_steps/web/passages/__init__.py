"""One place in a song: other ways, readings, the tempo, own Steps."""
