"""The means of setting a gap. Each module here is one, and holds it as ``MEANS``; nothing lists them."""
