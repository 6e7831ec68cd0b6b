"""The works itself: what it is called, and what it decided for itself."""
