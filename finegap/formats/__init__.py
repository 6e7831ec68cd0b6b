"""Open formats in and out: sheet files, reports."""
