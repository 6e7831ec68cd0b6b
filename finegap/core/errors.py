"""The one error a person can do something about."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import TypeVar

T = TypeVar("T")


@dataclass(frozen=True)
class Suggestion:
    """Another way of reading what was typed, offered and never taken silently."""

    typed: str
    meaning: str


class FieldError(ValueError):
    """What was typed cannot be used.

    Parameters
    ----------
    field : str
        The field as the person knows it, or the path in a file (``features.pin.new[0]``).
    problem : str
        What is wrong, in a sentence.
    hint : str
        What was expected.
    suggestions : tuple of Suggestion
        Readings to ask about ("did you mean inches?").
    """

    def __init__(self, field: str, problem: str, hint: str = "", suggestions: tuple[Suggestion, ...] = ()) -> None:
        super().__init__(f"{field}: {problem}" + (f" {hint}" if hint else ""))
        self.field, self.problem, self.hint, self.suggestions = field, problem, hint, suggestions

    def within(self, path: str) -> FieldError:
        """The same error seen from the object that holds the field."""
        joiner = "" if self.field.startswith("[") else "."
        return FieldError(f"{path}{joiner}{self.field}", self.problem, self.hint, self.suggestions)


class Found:
    """Everything that is wrong with a thing of many parts: each part is read, and what cannot be read is gathered.

    A part that lacks something is not whole; what it lacks, the schema tells.
    """

    def __init__(self) -> None:
        self.errors: list[FieldError] = []
        self.whole = True

    def reading(self, read: Callable[[], T], otherwise: T) -> T:
        """What a part reads as; ``otherwise`` where it cannot be read."""
        try:
            return read()
        except FieldError as error:
            self.errors.append(error)
        except KeyError:
            self.whole = False
        return otherwise

    def quietly(self, read: Callable[[], T], otherwise: T) -> T:
        """The same of a part that is told of elsewhere."""
        return Found().reading(read, otherwise)


class Unlikely(FieldError):
    """Possible, but so far from what was expected that it is asked about; the person may say that it is meant.

    ``reason_wanted`` when it is not kept without saying why.
    """

    def __init__(
        self, field: str, problem: str, hint: str = "", suggestions: tuple[Suggestion, ...] = (), reason_wanted: bool = False
    ) -> None:
        super().__init__(field, problem, hint, suggestions)
        self.reason_wanted = reason_wanted


class Ambiguous(FieldError):
    """What was typed has two meanings; the suggestions are both, and the person chooses."""
