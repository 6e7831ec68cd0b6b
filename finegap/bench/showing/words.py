"""Core results to shapes: words and workings, in one unit system."""

from __future__ import annotations

from finegap.bench import shapes
from finegap.core.showing import Amount, Sentence, Units, length, render
from finegap.core.working import Working


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
