"""Everything recorded at the bench, a module a stage. Verdicts and moves are computed from it, never stored, until a signature
freezes them.
"""

from finegap.bench.models.build import PartFitted, TorqueMark
from finegap.bench.models.close import Abandonment, Amendment, SignOff, SizeOnRecord, SizesSet
from finegap.bench.models.gap import Try, TryCheck, ZeroFound
from finegap.bench.models.inspect import Decision, Look, NewPart, Reading
from finegap.bench.models.job import ABANDONED, SIGNED, Event, Job, JobSet, SectionVersion
from finegap.bench.models.prove import ProofMark, RunInNote
from finegap.bench.models.steps import OnHand, Photo, StepMark
from finegap.bench.models.talk import JobLook, JobNote

__all__ = [
    "ABANDONED",
    "SIGNED",
    "Abandonment",
    "Amendment",
    "Decision",
    "Event",
    "Job",
    "JobLook",
    "JobNote",
    "JobSet",
    "Look",
    "NewPart",
    "OnHand",
    "PartFitted",
    "Photo",
    "ProofMark",
    "Reading",
    "RunInNote",
    "SectionVersion",
    "SignOff",
    "SizeOnRecord",
    "SizesSet",
    "StepMark",
    "TorqueMark",
    "Try",
    "TryCheck",
    "ZeroFound",
]
