"""Fortis: compose, play and read back strength sessions with complex set structures."""

__version__ = "0.1.0"
