"""Asking the receiver of wireless gauges for a reading (``docs/formats/gauge-receiver.md``).

One line each way over TCP on this machine. Whatever goes wrong is said in words; the bench goes on by hand.
"""

from __future__ import annotations

import re
import socket
from dataclasses import dataclass

from django.conf import settings

from finegap.api.errors import Refused
from finegap.core.errors import FieldError
from finegap.core.quantities import parse
from finegap.core.units import Dimension

_PATIENCE_S = 2.0
_LONGEST_LINE = 200
_BY_HAND = "Type the reading; nothing else changes."


@dataclass(frozen=True)
class Place:
    """Where the gauge stands: a real receiver does not ask, the stand-in plays the part that is there."""

    pump: str
    feature: str
    station: str

    @property
    def words(self) -> str:
        """In one line, whatever is in the names; the station comes last and may have spaces."""
        pump, feature, station = (
            " ".join("".join(c for c in w if c.isprintable()).split()) for w in (self.pump, self.feature, self.station)
        )
        return f"{pump.replace(' ', '_')} {feature.replace(' ', '_')} {station}"


@dataclass(frozen=True)
class Pulled:
    """A reading as the receiver sent it, with its unit; ``note`` says what is unusual about it."""

    typed: str
    note: str = ""


def pull(tag: str, place: Place) -> Pulled:
    """One reading of a gauge.

    Raises
    ------
    Refused
        The receiver is down, slow, does not know the gauge, or sends what is no reading.
    """
    line = _ask(f"READ {tag} AT {place.words}")
    word, _, rest = line.partition(" ")
    if word == "NO":
        raise Refused(f"The receiver has nothing from {tag}.", [f"It says: {_printable(rest)}.", _BY_HAND])
    sent = re.fullmatch(re.escape(tag) + r"\s+(.+)", rest.strip()) if word == "OK" else None
    if sent is None:
        raise _rubbish(line)
    typed = sent[1].strip()
    try:
        quantity = parse(typed, Dimension.LENGTH, "receiver")
    except FieldError:
        raise _rubbish(line) from None
    note = f"It came in inches: {typed} is {quantity.value:.4f} mm." if quantity.unit in ("in", "thou") else ""
    return Pulled(typed, note)


def _rubbish(line: str) -> Refused:
    return Refused("The receiver sent something that is no reading.", [f"It sent: {_printable(line)}", _BY_HAND])


def _printable(text: str) -> str:
    return "".join(c if c.isprintable() else "·" for c in text)[:60] or "nothing"


def _ask(request: str) -> str:
    try:
        with socket.create_connection(("127.0.0.1", settings.RECEIVER_PORT), timeout=_PATIENCE_S) as link:
            link.sendall(request.encode() + b"\n")
            return _line(link)
    except TimeoutError:
        raise Refused("The gauge receiver takes too long to answer.", ["Is the gauge awake and near enough?", _BY_HAND]) from None
    except OSError:
        raise Refused("The gauge receiver does not answer.", ["Is it switched on?", _BY_HAND]) from None


def _line(link: socket.socket) -> str:
    """One line, however slowly its letters come, within the time one answer may take."""
    import time

    until, got = time.monotonic() + _PATIENCE_S, b""
    while b"\n" not in got and len(got) < _LONGEST_LINE:
        link.settimeout(max(until - time.monotonic(), 0.001))
        more = link.recv(256)
        if not more:
            break
        got += more
    return got.partition(b"\n")[0].decode("utf-8", "replace").strip()
