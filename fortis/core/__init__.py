"""The rules of the job. Pure: no I/O, no clock, no web, no database."""
