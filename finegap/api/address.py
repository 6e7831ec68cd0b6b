"""Where a request comes from: the machine that asked, never what it says of itself."""

from __future__ import annotations

import ipaddress

from django.conf import settings
from django.http import HttpRequest

_MOST_HOPS = 5
UNKNOWN = "0.0.0.0"


def client_address(request: HttpRequest) -> str:
    """The address of who asked.

    Of ``X-Forwarded-For``, which anybody can write, only what a proxy of ``TRUSTED_PROXIES`` added counts: it is read from its end,
    one hop after another, as long as the hop before is trusted.
    """
    now = str(request.META.get("REMOTE_ADDR") or UNKNOWN)
    said = str(request.META.get("HTTP_X_FORWARDED_FOR") or "").split(",")
    for hop in reversed(said[-_MOST_HOPS:]):
        if not is_trusted(now):
            break
        try:
            now = str(ipaddress.ip_address(hop.strip()))
        except ValueError:
            break
    return now


def is_trusted(address: str) -> bool:
    """Whether an address is that of a proxy before this server."""
    try:
        one = ipaddress.ip_address(address)
        one = getattr(one, "ipv4_mapped", None) or one  # as a server that listens on IPv6 sees IPv4
    except ValueError:
        return False
    return any(one in network for network in settings.TRUSTED_PROXIES)
