"""Groups: several players of one song."""
