"""Commands of people."""
