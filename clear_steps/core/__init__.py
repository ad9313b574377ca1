"""The rules of the job: pure functions of a song, a player and a ladder.

Nothing in here knows the web, the database, files, the clock or random numbers.
Imports run one way: score -> hand -> grade.
"""
