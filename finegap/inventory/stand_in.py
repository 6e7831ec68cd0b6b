"""A stand-in for the receiver of wireless gauges: plays gauges over hidden true sizes (``docs/formats/gauge-receiver.md``).

``python -m finegap.inventory.stand_in --port 8951 --sizes demo/true-sizes.json`` serves until it is stopped, or until the process
that started it is gone.
"""

from __future__ import annotations

import argparse
import json
import os
import random
import socketserver
import sys
import threading
import time
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

SLOW_S = 5.0
MOODS = ("well", "slow", "rubbish", "inches")


@dataclass
class Played:
    """The gauges played, and the parts they stand on. Lengths in mm.

    ``gauges`` by tag: bias, repeatability (one standard deviation), resolution. ``sizes`` by pump, feature and station. ``mood`` is
    how the receiver behaves: well, slow, sending rubbish, or sending inches.
    """

    gauges: dict[str, dict[str, float]]
    sizes: dict[str, dict[str, dict[str, float]]]
    mood: str = "well"
    draw: random.Random = field(default_factory=random.Random)

    def answer(self, line: str) -> str:
        """The answer to one line."""
        words = line.split(" ", 5)
        if len(words) < 6 or words[0] != "READ" or words[2] != "AT":
            return "NO expected READ gauge AT pump feature station"
        _, tag, _, pump, feature, station = words
        if self.mood == "rubbish":
            return "\x15\x00ERR?? 8.8.8.8"
        gauge = self.gauges.get(tag)
        size = self.sizes.get(pump, {}).get(feature, {}).get(station.strip())
        if gauge is None:
            return f"NO {tag} has never sent"
        if size is None:
            return f"NO {tag} stands on nothing"
        return f"OK {tag} {self.reading(gauge, size)}"

    def reading(self, gauge: dict[str, float], size: float) -> str:
        """What the gauge shows of a true size: with its bias, scattered, rounded to its step."""
        read = self.draw.gauss(size + gauge["bias"], gauge["repeatability"])
        if self.mood == "inches":
            return f"{round(read / 25.4 / 0.00005) * 0.00005:.5f} in"
        return f"{round(read / gauge['resolution']) * gauge['resolution']:.3f} mm"


class Receiver(socketserver.ThreadingTCPServer):
    """Serves one line a connection on this machine only."""

    allow_reuse_address = True
    daemon_threads = True

    def __init__(self, port: int, played: Played) -> None:
        super().__init__(("127.0.0.1", port), _Line)
        self.played = played

    @property
    def port(self) -> int:
        """The port it listens on."""
        return int(self.server_address[1])


class _Line(socketserver.StreamRequestHandler):
    def handle(self) -> None:
        server = self.server
        assert isinstance(server, Receiver)
        line = self.rfile.readline(400).decode("utf-8", "replace").rstrip("\r\n")
        if server.played.mood == "slow":
            time.sleep(SLOW_S)
        try:
            self.wfile.write(server.played.answer(line).encode() + b"\n")
        except OSError:
            return


def read_sizes(text: str) -> Played:
    """What a file of true sizes says is played."""
    data: dict[str, Any] = json.loads(text)
    return Played(data["gauges"], data["sizes"])


def main() -> None:
    """Serve until stopped, or until whoever started it is gone."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--port", type=int, default=8951)
    parser.add_argument("--sizes", type=Path, required=True)
    parser.add_argument("--mood", choices=MOODS, default="well")
    asked = parser.parse_args()
    played = read_sizes(asked.sizes.read_text())
    played.mood = asked.mood
    parent = os.getppid()
    try:
        server = Receiver(asked.port, played)
    except OSError:
        sys.exit(f"Port {asked.port} is taken: no gauges can be pulled; everything else works.")
    threading.Thread(target=server.serve_forever, daemon=True).start()
    while os.getppid() == parent:
        time.sleep(0.5)


if __name__ == "__main__":
    main()
