"""The only place that changes a job: who, a transaction, the core, the record, the log."""

from finegap.bench.services.afterwards import abandon, amend
from finegap.bench.services.building import (
    NewTorque,
    confirm_new,
    fit_part,
    log_torque,
    use_at_bench,
)
from finegap.bench.services.changing import JobRef
from finegap.bench.services.deciding import decide
from finegap.bench.services.details import NewDetails, set_details
from finegap.bench.services.meanwhile import catch_up, note_verdicts, read_meanwhile
from finegap.bench.services.measuring import (
    NewReading,
    NewSet,
    look_at,
    record_reading,
    record_set,
)
from finegap.bench.services.opening import open_job
from finegap.bench.services.photos import NewPhoto, attach_photo, remove_photo
from finegap.bench.services.proving import NewNote, NewProof, note_run_in, see
from finegap.bench.services.setting import NewCheck, NewTry, record_try, set_zero
from finegap.bench.services.signing import sign_off
from finegap.bench.services.steps import mark_step, say_on_hand
from finegap.bench.services.striking import STRUCK_KINDS, strike

__all__ = [
    "STRUCK_KINDS",
    "JobRef",
    "NewCheck",
    "NewDetails",
    "NewNote",
    "NewPhoto",
    "NewProof",
    "NewReading",
    "NewSet",
    "NewTorque",
    "NewTry",
    "abandon",
    "amend",
    "attach_photo",
    "catch_up",
    "confirm_new",
    "decide",
    "fit_part",
    "log_torque",
    "look_at",
    "mark_step",
    "note_run_in",
    "note_verdicts",
    "open_job",
    "read_meanwhile",
    "record_reading",
    "record_set",
    "record_try",
    "remove_photo",
    "say_on_hand",
    "see",
    "set_details",
    "set_zero",
    "sign_off",
    "strike",
    "use_at_bench",
]
