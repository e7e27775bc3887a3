"""A made-up lifter in a boathouse gym, and a year of their training."""
