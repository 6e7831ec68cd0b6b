"""What a served works does by itself, beside its workers: backups by the clock, its certificate renewed, old lines let go.

One process, made by the server and ended with it; whatever fails in it is said in the log and tried again, and stops nobody.
"""

from __future__ import annotations

import datetime as dt
import logging
import os
import signal
import sys
import time
from collections.abc import Callable
from pathlib import Path

from axes.models import AccessAttempt, AccessFailureLog
from django.conf import settings
from django.core.management import call_command
from django.db import connection
from django.utils import timezone

from finegap.bench.services.retention import let_go
from finegap.due.services import catch_up
from finegap.due.stale import mark_unknown
from finegap.site import backups
from finegap.site.backup import BackupFault
from finegap.site.tls import LATE_DAYS, TlsFault, make, read
from finegap.works.queries import works_settings

_LOG = logging.getLogger(__name__)
_LOOK_S, _TICK_S = 15, 1
_DAY = dt.timedelta(days=1)
_MANY = 2000
_TRIES_KEPT = dt.timedelta(days=7)


def every() -> dt.timedelta:
    """How long it is from one backup to the next."""
    return dt.timedelta(hours=works_settings().backup_hours)


class Keeper:
    """Looks every few seconds what is due."""

    def __init__(self, works: Path) -> None:
        self.works = works
        self.tidied: dt.datetime | None = None
        self.failed: dt.datetime | None = None
        self.began = True

    def look(self, now: dt.datetime) -> None:
        """Do what is due now; one thing that fails keeps no other from being done."""
        for act in (self.back_up, self.renew, self.work_out, self.tidy):
            self._safely(act, now)
        connection.close_if_unusable_or_obsolete()

    def back_up(self, now: dt.datetime) -> None:
        """A backup, where one is due."""
        if not backups.is_due(settings.BACKUPS, every(), now):
            return
        # A disk that is full takes no word of it either: what failed is known here, too, and is not tried all the time.
        if self.failed and now - self.failed < backups.AGAIN and not backups.is_asked(settings.BACKUPS):
            return
        try:
            backups.make(self.works, settings.BACKUPS, now)
            self.failed = None
        except BackupFault as fault:
            self.failed = now
            _LOG.error("No backup was made: %s", fault)

    def renew(self, now: dt.datetime) -> None:
        """The certificate, where it ends soon: the server reads it anew for whoever comes next."""
        folder = self.works / "tls"
        try:
            certificate = read(folder)
            if certificate and certificate.ends - now < dt.timedelta(days=LATE_DAYS):
                _LOG.warning("The certificate was renewed, until %s.", f"{make(folder, []).ends:%Y-%m-%d}")
        except TlsFault as fault:
            _LOG.error("The certificate ends soon and cannot be renewed: %s", fault)

    def work_out(self, now: dt.datetime) -> None:
        """How pumps stand of which something was changed: after a sheet's new revision they may be many."""
        if self.began:
            mark_unknown(connection)
            self.began = False
        catch_up(_MANY, seconds=_LOOK_S / 2)

    def tidy(self, now: dt.datetime) -> None:
        """Once a day: sessions that ended, tries of long ago, photographs the settings let go; and what is to be warned of."""
        if self.tidied and now - self.tidied < _DAY:
            return
        self.tidied = now
        call_command("clearsessions")
        for tries in (AccessFailureLog, AccessAttempt):
            tries.objects.filter(attempt_time__lt=timezone.now() - _TRIES_KEPT).delete()
        let_go()
        for line in backups.warnings(self.works, settings.BACKUPS, every(), now):
            _LOG.warning(line)

    @staticmethod
    def _safely(act: Callable[[dt.datetime], None], now: dt.datetime) -> None:
        try:
            act(now)
        except Exception:
            _LOG.exception("What the server does by itself failed; it is tried again.")


def begin(works: Path) -> None:
    """Look after a works from a process of its own, as long as the one that calls lives."""
    server = os.getpid()
    if os.fork():
        return
    for name in (signal.SIGINT, signal.SIGTERM):
        signal.signal(name, lambda *_: os._exit(0))
    try:
        keeper, looked = Keeper(works), 0.0
        while os.getppid() == server:
            if time.monotonic() - looked >= _LOOK_S or backups.is_asked(settings.BACKUPS):
                looked = time.monotonic()
                keeper.look(dt.datetime.now(dt.UTC))
            time.sleep(_TICK_S)
    finally:
        sys.stderr.flush()
        os._exit(0)
