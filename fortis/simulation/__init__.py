"""Lifters made up in several ways, none of them Fortis's own, to see how well their logs are understood."""
