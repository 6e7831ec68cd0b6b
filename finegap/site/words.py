"""Core results to shapes: words and workings, in one unit system."""

from __future__ import annotations

from collections.abc import Iterable

from finegap.core.reckoned import Line
from finegap.core.showing import Amount, Sentence, Units, length, render
from finegap.core.working import Working
from finegap.site import shapes


class Words:
    """Writes out amounts, sentences and workings in one unit system."""

    def __init__(self, units: Units) -> None:
        self.units = units

    def say(self, words: Sentence | Amount | str) -> str:
        """Words or a number as text."""
        return render(words, self.units)

    def bare(self, mm: float, fine: bool = False) -> str:
        """A length without its unit."""
        return length(mm, fine).bare(self.units)

    def working(self, working: Working) -> shapes.WorkingShape:
        """A working with its numbers written out."""
        return shapes.WorkingShape(
            title=working.title,
            formula=working.formula,
            given=[shapes.GivenShape(g.symbol, g.meaning, self.say(g.amount)) for g in working.given],
            result=self.say(working.result),
            source=working.source,
            notes=[self.say(note) for note in working.notes],
        )

    def line(self, line: Line) -> shapes.LineShape:
        """A line of a sum."""
        working = self.working(line.working) if line.working else None
        return shapes.LineShape(line.name, self.say(line.words), line.stand.value, working)

    def lines(self, lines: Iterable[Line]) -> list[shapes.LineShape]:
        """Lines of a sum."""
        return [self.line(line) for line in lines]
