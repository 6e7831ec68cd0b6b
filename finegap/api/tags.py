"""Names that stand in an address: what is written on a pump, a gauge, a gun."""

from __future__ import annotations

from finegap.core.errors import FieldError

_NOT_IN_AN_ADDRESS = "/\\?#%"


def read_tag(typed: str, field: str, example: str) -> str:
    """A tag as typed.

    Raises
    ------
    FieldError
        Empty, with a sign no address can hold, or nothing but points.
    """
    tag = typed.strip()
    if not tag:
        raise FieldError(field, "it has no name.", f"Expected what is written on it, such as {example}.")
    wrong = next((c for c in tag if c in _NOT_IN_AN_ADDRESS or not c.isprintable()), None)
    if wrong is not None or not tag.strip("."):
        problem = f"“{wrong}” cannot stand in it." if wrong else "points alone are no name."
        raise FieldError(field, problem, f"Expected letters, digits, blanks, points and dashes, such as {example}.")
    return tag
