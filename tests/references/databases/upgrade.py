"""Bring databases of versions before up to this one, as the server does, and open every job of them: run by ``test_upgrades``.

Arguments: a folder for data, and the names of the databases of ``landed.tar.xz``. Prints a line of JSON for each.
"""

import json
import os
import sqlite3
import sys
import tarfile
from contextlib import closing
from pathlib import Path

KEPT = Path(__file__).parent / "landed.tar.xz"
COUNTED = ("bench_job", "bench_signoff", "bench_reading", "toolbox_gauge", "auth_user", "bench_stepmark")


def counted(path: Path) -> dict[str, int]:
    with closing(sqlite3.connect(path)) as database:
        there = {name for (name,) in database.execute("SELECT name FROM sqlite_master")}
        return {t: database.execute(f"SELECT count(*) FROM {t}").fetchone()[0] for t in COUNTED if t in there}


def main(folder: Path, names: list[str]) -> None:
    os.environ |= {"FINEGAP_VAR": str(folder / "settings"), "DJANGO_SETTINGS_MODULE": "finegap.site.settings"}
    import django

    django.setup()
    from django.conf import settings
    from django.db import connection

    from finegap.api.plain import plain
    from finegap.bench.models import Job
    from finegap.bench.queries import job_view
    from finegap.site.checking import checked
    from finegap.site.upgrading import bring_up_to_date

    for name in names:
        works = folder / name
        works.mkdir()
        with tarfile.open(KEPT) as kept:
            (works / "finegap.sqlite3").write_bytes(kept.extractfile(f"{name}.sqlite3").read())
        settings.BACKUPS = works / "backups"
        before = counted(works / "finegap.sqlite3")
        connection.settings_dict["NAME"] = str(works / "finegap.sqlite3")
        bring_up_to_date(works)
        jobs = [plain(job_view(job.number)) for job in Job.objects.all()]
        connection.close()
        after = counted(works / "finegap.sqlite3")
        print(
            json.dumps(
                {
                    "name": name,
                    "opened": len(jobs),
                    "signed": sum(bool(job["signed"]) for job in jobs),
                    "before": before,
                    "after": {table: after[table] for table in before},
                    "wrong": checked(works).wrong,
                    "backups": len(list(settings.BACKUPS.glob("before-*.zip"))),
                    "left": sorted(path.name for path in works.glob("*.upgrade*")),
                }
            ),
            flush=True,
        )


if __name__ == "__main__":
    main(Path(sys.argv[1]), sys.argv[2:])
