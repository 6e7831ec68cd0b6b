"""A worker of gunicorn that waits for nobody for ever: who sends a byte now and then is cut off, and its thread is free again."""

from __future__ import annotations

import socket
import time
from contextlib import suppress
from typing import Any

from gunicorn.workers.gthread import ThreadWorker

HEAD_S, BODY_S, FILE_S = 5, 20, 60
"""How long the head of a request may take, its body, and a body that is a file: a photograph of 15 MB over a poor network."""


class Worker(ThreadWorker):  # type: ignore[misc]  # gunicorn has no types
    """Threads as gunicorn's own has them; the part of a connection that is still to be read has an end."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.until: dict[Any, float] = {}

    def handle(self, conn: Any) -> Any:
        """One request, in a thread."""
        self.until[conn] = time.monotonic() + HEAD_S
        try:
            return super().handle(conn)
        finally:
            self.until.pop(conn, None)

    def handle_request(self, req: Any, conn: Any) -> Any:
        """The head is read; the body is read by the application."""
        is_file = any(name == "CONTENT-TYPE" and value.startswith("multipart/") for name, value in req.headers)
        self.until[conn] = time.monotonic() + (FILE_S if is_file else BODY_S)
        return super().handle_request(req, conn)

    def notify(self) -> None:
        """Called every second by the main thread of the worker: its sign of life, and the end of who takes too long."""
        super().notify()
        now = time.monotonic()
        for conn, until in list(self.until.items()):
            if now > until:
                self.until.pop(conn, None)
                with suppress(OSError):
                    # Reading alone: an answer that is on its way is sent. Not by the method of a TLS socket, which ends both.
                    socket.socket.shutdown(conn.sock, socket.SHUT_RD)
