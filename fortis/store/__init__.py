"""The lifter's record in SQLite: performance in, performance out."""
