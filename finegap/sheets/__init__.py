"""Spec sheets and their revisions."""
