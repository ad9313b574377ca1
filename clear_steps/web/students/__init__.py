"""Students: who they are and what they can do."""
