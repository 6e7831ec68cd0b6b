"""Databases as commits of main left them, and what the jobs in them showed."""
