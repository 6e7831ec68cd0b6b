"""Run in the copy: a sheet, a pump and a job of the made-up family, through the services, to the signed page."""

import io
import json
import os
import sys

os.environ["DJANGO_SETTINGS_MODULE"] = "finegap.site.settings"

import django

django.setup()

from django.core.management import call_command

call_command("migrate", verbosity=0)

import uuid

from django.contrib.auth.models import User
from pypdf import PdfReader

from finegap.api.errors import Refused
from finegap.api.plain import plain
from finegap.bench import changes, services
from finegap.bench.queries import job_view
from finegap.core.entry import Entry
from finegap.core.families.steps import Stage
from finegap.core.formatting import Units
from finegap.core.job_record import Decided
from finegap.formats import report
from finegap.pumps.changes import AddPump
from finegap.pumps.services import add_pump
from finegap.sheets.draft_queries import draft_page
from finegap.sheets.queries import revision_of, sheet_detail
from tests.apps.base import Works, feeler, furnish, sheet_data
from tests.apps.test_typing import finish, read_all, typed_whole

SIZES = {
    "plate": {"new": ["30 mm", "30.02 mm"], "minimum": "29.9 mm"},
    "hole": {"new": ["30 mm", "30.02 mm"], "maximum": "30.1 mm"},
}
SHEET = {"slug": "plate", "title": "Plate", "family": "plate_pump", "features": SIZES, "details": {}, "torques": []}
DUTY = ("nobody-t1", "cast iron", "oil", "50 mm2/s", "60 C", "5 bar", "300")


def signed(works: Works, lead: User, held: list[str]) -> int:
    """Found worn, changed, measured again, set with the wedge in two tries, proved and signed."""
    draft = typed_whole(lead, sheet_data(**SHEET, adjustment={"means": "wedge", "run": "10 mm"}))
    asked = [ask.path for section in draft_page(draft).sections for ask in section.asks]
    held += [path for path in ("adjustment.run", "build.means", "packing.section") if path in asked]
    read_all(finish(lead, draft), works.tom)
    add_pump(lead, AddPump("X-1", "s", "l", "1", *DUTY), Entry())
    number = works.open("X-1")
    works.read(number, "plate", "left", "29.85")
    works.read(number, "plate", "right", "29.85")
    works.read(number, "hole", "12–6", "30.01", "B-1")
    services.look_at(works.seen(number), changes.LookAt(uuid.uuid4(), "plate", ["holed"]))
    works.read(number, "slit", "gap", "0.20", "F-1")
    services.decide(works.seen(number), changes.Decide(uuid.uuid4(), "plate", Decided.CHANGE))
    works.read(number, "plate", "left", "30.01", phase="left")
    try:
        services.mark_step(works.seen(number), changes.MarkStep(uuid.uuid4(), "plate_on"))
    except Refused as refused:
        held += refused.reasons
    works.read(number, "plate", "right", "30.01", phase="left")
    works.steps(number, Stage.STRIP, Stage.BUILD)
    for pushed, goes, stops in (("1 mm", "0.09", "0.11"), ("0.2 mm", "0.11", "0.13")):
        new = changes.RecordTry(uuid.uuid4(), [feeler(goes, stops)], moved=pushed, way="in")
        services.record_try(works.seen(number), new)
    works.steps(number, Stage.PROVE)
    services.sign_off(works.seen(number), changes.Sign(uuid.uuid4()))
    return number


def main() -> None:
    """Print what the test looks for."""
    furnish()
    works = Works()
    works.tom, lead = User.objects.get(username="tom"), User.objects.get(username="lena")
    held: list[str] = []
    number = signed(works, lead, held)
    record = plain(job_view(number), Units.IN)
    page = "".join(page.extract_text() for page in PdfReader(io.BytesIO(report.as_pdf(record))).pages)
    kept = revision_of("nobody-t1", None)
    sheet = sheet_detail(kept, Units.MM).adjustment
    means, tries = record["setting"]["means"], [one["set_by"] for one in record["setting"]["tries"]]
    tasks = [one for one in record["tasks"] if one["kind"] == "both-sides"]
    json.dump({"means": means, "tries": tries, "page": page, "sheet": sheet, "held": held, "tasks": tasks}, sys.stdout)


main()
