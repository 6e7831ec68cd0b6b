"""Filters of the pages that links lead to."""
