"""The command ``fine-gap``: serve a works or the demo, quick figures, copies, checks, certificates."""

from __future__ import annotations

import argparse
import os
import sys
from collections.abc import Callable, Sequence
from pathlib import Path

Served = Callable[[argparse.Namespace], None]


def main(words: Sequence[str] | None = None) -> None:
    """Do what the command line says."""
    given = list(sys.argv[1:] if words is None else words)
    if given[:1] == ["calc"]:
        # A sum needs no Django, whose start takes most of the time.
        from finegap.calc import main as calc

        sys.exit(calc(given[1:]))
    os.umask(0o077)  # what is written here is the works', and nobody else's on this machine
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "finegap.site.settings")
    asked, rest = _parser().parse_known_args(given)
    if rest and asked.command != "manage":
        _parser().parse_args(given)  # says what is wrong
    folder = Path(asked.works).absolute()
    os.environ["FINEGAP_VAR"] = str(folder)
    asked.folder, asked.rest = folder, rest
    asked.run(asked)


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="fine-gap", description="The bench sheet that thinks, for rotary pumps.")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")

    def command(name: str, help_: str, run: Served, works: str = "works") -> argparse.ArgumentParser:
        one = commands.add_parser(name, help=help_, description=help_)
        one.add_argument("--works", default=os.environ.get("FINEGAP_VAR", works), help=f"its data folder (default {works})")
        one.set_defaults(run=run)
        return one

    own = command("serve", "serve a works of your own", _serve)
    demo = command("demo", "serve the demo: an invented works, signed in with one press", _serve, "fine-gap-demo")
    for serving in (own, demo):
        serving.add_argument("--port", default="8000")
        serving.add_argument("--host", default="127.0.0.1", help="an address of this machine (default: this machine alone)")
    demo.add_argument("--reset", action="store_true", help="throw the demo's data away; it asks first")
    demo.add_argument("--yes", action="store_true", help="with --reset: do not ask")
    backup = command("backup", "copy the works into one archive, while it is in use", _backup)
    backup.add_argument("file")
    restore = command("restore", "put a works back from such a copy, into a folder that holds none", _restore)
    restore.add_argument("file")
    restore.add_argument("--key", help="the key of an encrypted copy")
    restore.add_argument(
        "--over", action="store_true", help="into a folder that holds a works: it says what would be lost, and asks"
    )
    restore.add_argument("--yes", action="store_true", help="with --over: do not ask")
    command("check", "check a works: its database, and the files it names", _check)
    command("backup-key", "make a key: from then on backups are encrypted, and only it reads them", _backup_key).add_argument(
        "file"
    )
    for name, help_ in (
        ("export", "write the whole works into one archive of open files, while it is in use"),
        ("import", "put a works back from open files, into a folder that holds none"),
    ):
        command(name, help_, _copy).add_argument("file")
    certificate = command("certificate", "make or renew a certificate for TLS, and the authority tablets trust", _certificate)
    certificate.add_argument("host", nargs="*", help="names and addresses by which tablets reach this machine")
    commands.add_parser("calc", help="quick figures: JSON in, JSON out; calc --list tells which")
    command("manage", "a command of Django, such as manage changepassword NAME", _manage)
    return parser


def _serve(asked: argparse.Namespace) -> None:
    from finegap.site.folder import DEMO, WORKS
    from finegap.site.serving import Asked, reset, serve

    kind = DEMO if asked.command == "demo" else WORKS
    if kind == DEMO:
        os.environ["FINEGAP_DEMO"] = "1"
    else:
        os.environ.pop("FINEGAP_DEMO", None)
    what = Asked(kind, asked.folder, asked.host, asked.port)
    if kind == DEMO and asked.reset:
        reset(what, asked.yes)
    else:
        serve(what)


def _backup(asked: argparse.Namespace) -> None:
    from finegap.site.backup import BackupFault, back_up

    file = Path(asked.file)
    try:
        made = back_up(asked.folder, file)
    except BackupFault as fault:
        sys.exit(str(fault))
    print(f"{file}: the database and {made.photos} photographs, {made.size / 1e6:.1f} MB, checked.")


def _restore(asked: argparse.Namespace) -> None:
    from finegap.site.backup import BackupFault
    from finegap.site.restoring import WouldLose, restore

    def is_meant(loss: str) -> bool:
        if not asked.over:
            return False
        print(loss)
        return asked.yes or _says_yes("Put the archive in its place? What is there is set aside, not deleted. yes or no: ")

    _setup()
    from django.core.management import call_command
    from django.db.migrations.loader import MigrationLoader

    from finegap.audit.models import whole_works

    known = set(MigrationLoader(None).disk_migrations)
    key = Path(asked.key) if asked.key else None
    try:
        photos = restore(Path(asked.file), asked.folder, known, key, is_meant)
    except WouldLose as loss:
        sys.exit("Nothing was changed." if asked.over else str(loss))
    except BackupFault as fault:
        sys.exit(str(fault))
    call_command("migrate", verbosity=0)
    whole_works("restored from", Path(asked.file).name)
    print(f"{asked.folder}: the works is back, with {photos} photographs.")


def _says_yes(question: str) -> bool:
    try:
        return input(question).strip().lower() == "yes"
    except EOFError:
        return False


def _check(asked: argparse.Namespace) -> None:
    from finegap.site.checking import checked

    found = checked(asked.folder)
    said = [*found.wrong, *(f"{name} is named, and not there" for name in found.missing)]
    print("\n".join(said) if said else "The database is whole, and every file it names is there.")
    if found.stray:
        print(f"{len(found.stray)} files are named by nothing; they only take room: {', '.join(found.stray[:5])}")
    sys.exit(0 if found.is_whole else 1)


def _backup_key(asked: argparse.Namespace) -> None:
    from finegap.site.backup import BackupFault, make_key

    try:
        public = make_key(asked.folder, Path(asked.file))
    except BackupFault as fault:
        sys.exit(str(fault))
    print(f"Backups of {asked.folder} are encrypted from now on, to {public}.")
    print(f"Keep {asked.file} away from this machine, and twice: without it nobody reads them, and it cannot be made again.")


def _copy(asked: argparse.Namespace) -> None:
    _django([asked.command, asked.file])


def _manage(asked: argparse.Namespace) -> None:
    _django(asked.rest)


def _setup() -> None:
    import django

    from finegap.site.folder import EmptyKey

    try:
        django.setup()
    except EmptyKey as empty:
        sys.exit(f"{empty} Delete it: another is made, and everybody signs in again.")


def _django(words: list[str]) -> None:
    _setup()
    from django.core.management import execute_from_command_line

    execute_from_command_line(["fine-gap", *words])


def _certificate(asked: argparse.Namespace) -> None:
    from finegap.site.tls import AUTHORITY, TlsFault, make

    try:
        made = make(asked.folder / "tls", asked.host)
    except TlsFault as fault:
        sys.exit(str(fault))
    print(f"For {', '.join(made.hosts)}, until {made.ends:%Y-%m-%d}; serve it anew to use it.")
    print(f"Tablets have to trust its authority, {asked.folder / 'tls' / AUTHORITY}; SHA-256 {made.authority}")


if __name__ == "__main__":
    main()
