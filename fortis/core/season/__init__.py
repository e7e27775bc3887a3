"""Seasons: blocks of weeks, the sessions on their days, what changes from week to week, light weeks, a date."""
