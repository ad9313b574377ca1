"""The Ladder screen, and the table of techniques."""
