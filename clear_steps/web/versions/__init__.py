"""Easier versions: asked for, compared, chosen, changed by hand."""
