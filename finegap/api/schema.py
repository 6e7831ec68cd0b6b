"""What drf-spectacular cannot work out for itself."""

from drf_spectacular.authentication import SessionScheme


class FineGapSession(SessionScheme):  # type: ignore[no-untyped-call]  # its base registers subclasses, untyped
    """Our session is Django's."""

    target_class = "finegap.api.permissions.Session"
    name = "session"
    priority = 1
