"""Which pumps and gauges something was changed of, noted by the database itself, whichever way the change came.

As the trail does (``audit.triggers``), each connection has SQLite's temporary triggers: rows are changed by ``update()`` and
``bulk_create()``, too, which send no signal. A change that is rolled back takes its note with it.
"""

from __future__ import annotations

from collections.abc import Iterator

from django.db.backends.base.base import BaseDatabaseWrapper

from finegap.bench.models import Amendment, Job, SizeOnRecord
from finegap.core import VERSION
from finegap.due.models import DueLine, Stale, Standing
from finegap.inventory.models import Gauge
from finegap.pumps.models import EarlierOverhaul, EarlierSize, Lubricated, MeterReading, PartMoved, Pump
from finegap.sheets.models import SheetRevision

_STALE = Stale._meta.db_table
_PUMP, _GAUGE, _JOB, _EARLIER = (model._meta.db_table for model in (Pump, Gauge, Job, EarlierOverhaul))


def install(connection: BaseDatabaseWrapper) -> None:
    """Have a connection note what it changes; where there are no such tables yet, it does not."""
    there = set(connection.introspection.table_names())
    if _STALE not in there:
        return
    remove(connection)
    with connection.cursor() as cursor:
        for name, table, event, select in _noted():
            if table in there:
                of = "gauge" if name.startswith("gauge") else "pump"
                # Of a pump that is deleted, with all it has, nothing is to be worked out.
                there_is = f"SELECT id FROM {_GAUGE if of == 'gauge' else _PUMP} WHERE id IN ({select})"
                into = f"INSERT OR IGNORE INTO {_STALE} ({of}_id) {there_is};"
                cursor.execute(f'CREATE TEMP TRIGGER "stale_{name}" AFTER {event} BEGIN {into} END')
        for of, table in (("pump", _PUMP), ("gauge", _GAUGE)):
            gone = f"DELETE FROM {_STALE} WHERE {of}_id = OLD.id;"
            cursor.execute(f'CREATE TEMP TRIGGER "stale_{of}_gone" AFTER DELETE ON main.{table} BEGIN {gone} END')


def remove(connection: BaseDatabaseWrapper) -> None:
    """Have it note nothing: tables are about to be made anew, or filled from an archive."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT name FROM temp.sqlite_master WHERE type = 'trigger' AND name LIKE 'stale\\_%' ESCAPE '\\'")
        for (name,) in cursor.fetchall():
            cursor.execute(f'DROP TRIGGER temp."{name}"')


def mark_unknown(connection: BaseDatabaseWrapper) -> None:
    """Note every pump and gauge nothing is worked out of, or by other rules than those of now."""
    if _STALE not in connection.introspection.table_names():
        return
    standing, gauges, lines = (model._meta.db_table for model in (Standing, Gauge, DueLine))
    with connection.cursor() as cursor:
        cursor.execute(
            f"INSERT OR IGNORE INTO {_STALE} (pump_id) SELECT p.id FROM {_PUMP} p LEFT JOIN {standing} s ON s.pump_id = p.id "
            "WHERE s.core IS NULL OR s.core <> %s",
            [VERSION],
        )
        cursor.execute(
            f"INSERT OR IGNORE INTO {_STALE} (gauge_id) SELECT g.id FROM {gauges} g "
            f"WHERE g.retired IS NULL AND NOT EXISTS (SELECT 1 FROM {lines} l WHERE l.gauge_id = g.id)"
        )


def _noted() -> Iterator[tuple[str, str, str, str]]:
    """Name of the trigger, its table, what sets it off, and whom it concerns."""
    yield from _each("pump", _PUMP, "SELECT {row}.id", acts=("INSERT", "UPDATE"))
    for model in (MeterReading, Lubricated, EarlierOverhaul):
        yield from _each(f"of_{model.__name__}", model._meta.db_table, "SELECT {row}.pump_id")
    by_overhaul = f"SELECT pump_id FROM {_EARLIER} WHERE id = {{row}}.overhaul_id"
    yield from _each("of_EarlierSize", EarlierSize._meta.db_table, by_overhaul)
    yield from _each("of_PartMoved", PartMoved._meta.db_table, "SELECT {row}.pump_id UNION SELECT {row}.taker_id")
    yield from _each("of_Job", _JOB, "SELECT {row}.pump_id", acts=("INSERT", "DELETE"))
    columns = ("hours_run", "old_meter_last", "new_meter_first", "ended", "pump_id")
    differs = " OR ".join(f"OLD.{one} IS NOT NEW.{one}" for one in columns)
    of = f"UPDATE OF {', '.join(columns)} ON main.{_JOB} WHEN {differs}"
    yield "of_Job_UPDATE", _JOB, of, "SELECT NEW.pump_id UNION SELECT OLD.pump_id"
    for kept in (SizeOnRecord, Amendment):
        by_job = f"SELECT pump_id FROM {_JOB} WHERE id = {{row}}.job_id"
        yield from _each(f"of_{kept.__name__}", kept._meta.db_table, by_job)
    sheet = SheetRevision._meta.db_table
    yield from _each("by_sheet", sheet, f"SELECT id FROM {_PUMP} WHERE sheet_id = {{row}}.sheet_id", acts=("INSERT",))
    of = f"UPDATE OF content ON main.{sheet} WHEN OLD.content IS NOT NEW.content"
    yield "by_sheet_UPDATE", sheet, of, f"SELECT id FROM {_PUMP} WHERE sheet_id = NEW.sheet_id"
    yield from _each("gauge", Gauge._meta.db_table, "SELECT {row}.id", acts=("INSERT", "UPDATE"))


def _each(
    name: str, table: str, select: str, acts: tuple[str, ...] = ("INSERT", "UPDATE", "DELETE")
) -> Iterator[tuple[str, str, str, str]]:
    for act in acts:
        row = "OLD" if act == "DELETE" else "NEW"
        yield f"{name}_{act}", table, f"{act} ON main.{table}", select.replace("{row}", row)
