"""Jobs: everything recorded at the bench."""
