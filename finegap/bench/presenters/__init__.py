"""From what the core worked out to what the bench shows."""
