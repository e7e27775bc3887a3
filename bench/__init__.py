"""Benchmarks: figures as JSON, each beside a floor measured in the same run."""
