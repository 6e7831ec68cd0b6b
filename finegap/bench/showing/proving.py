"""How the shaft turns, the run-in, and the first hour."""

from __future__ import annotations

from finegap.bench import shapes
from finegap.bench.facts import Records
from finegap.bench.models import ProofMark, RunInNote
from finegap.core.job import Assessment
from finegap.core.proof.first_hour import NOISES
from finegap.core.proof.proving import END_PLAY, TURNING
from finegap.core.proof.run_in import Advice, Rules
from finegap.core.showing import Amount, Kind
from finegap.site.shapes import NamedShape
from finegap.site.words import Words

_EIGHTHS = {0.5: "1/16", 1.0: "1/8"}


class ProvingWords(Words):
    """Prove in one unit system."""

    def proving(self, records: Records, assessment: Assessment) -> shapes.ProvingShape:
        """Where the proof stands."""
        proving = assessment.proving
        seen = [self._seen(mark, records) for mark in records.proofs]
        plays = {mark.step: mark.id for mark in records.proofs if mark.seen == END_PLAY}
        coach = self._coach(proving.advice, proving.rules, records) if proving.advice and proving.rules else None
        return shapes.ProvingShape(
            turning=[s for s in seen if s.seen == TURNING],
            plays=[shapes.PlayShape(plays[step], step, self.line(play)) for step, play in proving.plays.items()],
            coach=coach,
            seen=[s for s in seen if s.seen not in (TURNING, END_PLAY)],
            lines=self.lines(proving.lines),
            noises=[NamedShape(key, name) for key, name in NOISES.items()],
        )

    def _seen(self, mark: ProofMark, records: Records) -> shapes.SeenShape:
        typed = NOISES.get(mark.typed, mark.typed)
        return shapes.SeenShape(mark.id, mark.step, mark.seen, typed, list(mark.places), records.names[mark.by_id], mark.when)

    def _coach(self, advice: Advice, rules: Rules, records: Records) -> shapes.CoachShape:
        return shapes.CoachShape(
            say=advice.say.value,
            headline=self.say(advice.headline),
            why=self.say(advice.why),
            eighths=advice.eighths,
            wait_min=advice.wait_min,
            drops=list(rules.drops),
            hottest_c=rules.hottest_c,
            hottest=Amount(rules.hottest_c, Kind.TEMPERATURE).text(self.units),
            notes=[self._note(note, records) for note in records.run_in],
        )

    def _note(self, note: RunInNote, records: Records) -> shapes.NoteShape:
        doubt = f" ± {note.drops_expanded:.0f}" if note.drops_expanded else ""
        share = _EIGHTHS.get(abs(note.eighths), f"{abs(note.eighths) / 8:g}")
        way = "tightened" if note.eighths > 0 else "backed off"
        return shapes.NoteShape(
            id=note.id,
            number=note.number,
            minute=note.minute,
            drops=note.drops,
            drops_text="" if note.drops is None else f"{note.drops:.0f}{doubt}",
            box_c=note.box_c,
            box="" if note.box_c is None else Amount(note.box_c, Kind.TEMPERATURE).text(self.units),
            eighths=note.eighths,
            turn=f"{way} {share}" if note.eighths else "",
            by=records.names[note.by_id],
            at=note.when,
        )
