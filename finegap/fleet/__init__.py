"""Pumps."""
