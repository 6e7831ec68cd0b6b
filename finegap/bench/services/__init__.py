"""The only place that changes a job: who, a transaction, the core, the record, the log.

Each service takes a ``JobRef`` (who, which job, at which version, how typed) and a change of ``finegap.bench.changes``.
"""

from finegap.bench.services.afterwards import abandon, amend
from finegap.bench.services.answering import carry_out
from finegap.bench.services.building import confirm_new, fit_part, log_torque, use_at_bench
from finegap.bench.services.changing import JobRef, Service
from finegap.bench.services.deciding import decide
from finegap.bench.services.details import set_details
from finegap.bench.services.meanwhile import read_meanwhile
from finegap.bench.services.measuring import look_at, record_reading, record_set
from finegap.bench.services.opening import open_job
from finegap.bench.services.photos import attach_photo, remove_photo
from finegap.bench.services.proving import note_run_in, see
from finegap.bench.services.signing import sign_off
from finegap.bench.services.steps import mark_step, say_on_hand
from finegap.bench.services.striking import strike
from finegap.bench.services.tries import record_try, set_zero

__all__ = [
    "JobRef",
    "Service",
    "abandon",
    "amend",
    "attach_photo",
    "carry_out",
    "confirm_new",
    "decide",
    "fit_part",
    "log_torque",
    "look_at",
    "mark_step",
    "note_run_in",
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
