"""Songs: cards, the Desk, revisions."""
