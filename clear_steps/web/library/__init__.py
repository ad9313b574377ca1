"""The library as a whole: backup, copies, restore, the demo."""
