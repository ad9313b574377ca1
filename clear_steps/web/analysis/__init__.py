"""A text read and graded, laid out for the screens."""
