"""What the server writes to its log: no secret of a link, which would open what the link shares to whoever reads the log."""

from __future__ import annotations

import logging
import re

_SECRET = re.compile(r"(/(?:shared|calendar)/)[^/\s]+")


class NoSecrets(logging.Filter):
    """Writes three dots for the secret in the address of a shared report or calendar."""

    def filter(self, record: logging.LogRecord) -> bool:
        """Every record is written; one that tells a secret no longer does."""
        told = record.getMessage()
        hidden = _SECRET.sub(r"\1…", told)
        if hidden != told:
            record.msg, record.args = hidden, ()
        return True
