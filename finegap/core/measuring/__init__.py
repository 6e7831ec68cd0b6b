"""Readings, uncertainty and verdicts."""
