"""Serves the demo, or a works of one's own: data kept in a folder that holds the one or the other, one clear line when something
is in the way."""

from __future__ import annotations

import ipaddress
import json
import os
import socket
import sqlite3
import subprocess
import sys
from collections.abc import Callable
from dataclasses import dataclass, replace
from importlib import import_module
from pathlib import Path
from typing import IO, Any, NoReturn

from django.core.exceptions import ImproperlyConfigured
from django.db.utils import DatabaseError

from finegap.site.faults import NO_KEY, NOT_UPGRADED, Fault, as_answer, fault_of, shown
from finegap.site.folder import DATABASE, DEMO, WORKS, EmptyKey, InUse, OtherFolder, alone, hold, keep_apart
from finegap.site.restoring import recover
from finegap.site.tls import HERE, LATE_DAYS, SERVER, SERVER_KEY, Certificate, TlsFault, read

_held: IO[str] | None = None
"""While this process or a worker of it lives, the folder is in use: nobody throws its data away."""


@dataclass(frozen=True)
class Asked:
    """What is to be served, and where: ``host`` is an address of this machine."""

    kind: str
    folder: Path
    host: str
    port: str

    @property
    def again(self) -> str:
        """The command, for a line that says what to do."""
        return f"fine-gap {'demo' if self.kind == DEMO else 'serve'}"


def serve(asked: Asked) -> None:
    """Prepare the folder, say where it is served, and serve until it is stopped.

    What stands in the way of the whole works is said here, and served as the one page there is, until somebody has mended it.
    """
    global _held
    port = _checked_port(asked)
    try:
        apart(asked)
        _held = hold(asked.folder)
        certificate = read(asked.folder / "tls") if asked.kind == WORKS else None
        _answer_to(asked, certificate)
        _recover(asked)
        _keep_private(asked.folder)
        _prepare(asked, port)
        import_module("finegap.site.wsgi")  # whoever opens the address as soon as it is printed finds the server there
        _greet(asked, port, certificate)
    except InUse as use:
        sys.exit(f"{use}: wait until that is done.")
    except (TlsFault, ImproperlyConfigured) as fault:
        sys.exit(str(fault))
    except EmptyKey:
        serve_fault(asked, port, NO_KEY)
    except (sqlite3.Error, OSError, DatabaseError) as wrong:
        serve_fault(asked, port, fault_of(wrong))
    _serve(asked, port, certificate)


def _greet(asked: Asked, port: int, certificate: Certificate | None) -> None:
    url = _url(asked, port, certificate)
    name = "your works" if asked.kind == WORKS else "demo works"
    print(f"Fine Gap, {name}: {url}   (Ctrl-C stops it; the data stays in {asked.folder})", flush=True)
    if asked.kind == WORKS:
        _say_tls(asked, certificate)
        _say_first_visit(url)
    else:
        _play_gauges(port)


def serve_fault(asked: Asked, port: int, fault: Fault) -> NoReturn:
    """Say what is wrong, and serve nothing but that; the data is not touched."""
    fault = replace(fault, do=f"{fault.do} Then the server is started anew.")
    print(f"{fault.line} Until then every page says so. Data folder: {asked.folder}", file=sys.stderr, flush=True)
    certificate = read(asked.folder / "tls") if asked.kind == WORKS else None
    page, told = shown(fault).encode(), json.dumps(as_answer(fault)).encode()

    def application(environ: dict[str, Any], start: Callable[[str, list[tuple[str, str]]], Any]) -> list[bytes]:
        of_api = environ["PATH_INFO"].startswith("/api/")
        kind = "application/json" if of_api else "text/html; charset=utf-8"
        start(f"{fault.status} Unavailable", [("Content-Type", kind), ("Cache-Control", "no-store"), ("Retry-After", "60")])
        return [told if of_api else page]

    _run(application, _options(asked, port, certificate) | {"workers": 1})
    sys.exit(0)


def apart(asked: Asked) -> None:
    """The folder is of this kind, or one line says what to do."""
    try:
        keep_apart(asked.folder, asked.kind)
    except OtherFolder as held:
        sys.exit(f"{held}: choose another folder, as {asked.again} --works folder.")


def reset(asked: Asked, meant: bool) -> None:
    """Throw the demo's database away, where nobody is using it and it is meant; asked for at the terminal otherwise."""
    apart(asked)
    try:
        with alone(asked.folder):
            if not meant and not _is_meant(asked):
                sys.exit(f"Nothing was thrown away. Answer yes, or {asked.again} --reset --yes.")
            for path in asked.folder.glob(f"{DATABASE}*"):
                path.unlink()
    except InUse:
        sys.exit(f"The demo in {asked.folder} is being served: stop it first, with Ctrl-C.")
    print("The demo's data is gone; it starts afresh the next time.")


def _is_meant(asked: Asked) -> bool:
    try:
        return input(f"Throw away all that was entered in the demo in {asked.folder}? yes or no: ").strip().lower() == "yes"
    except EOFError:
        return False


def _recover(asked: Asked) -> None:
    """What a restore left that was broken off is undone; an empty works is not begun where somebody restores one."""
    if recover(asked.folder):
        if not (asked.folder / DATABASE).exists():
            sys.exit(f"A restore into {asked.folder} was broken off: run it again, and then {asked.again}.")
        print(f"A restore into {asked.folder} was broken off: what was there before is there again.", file=sys.stderr, flush=True)


def _keep_private(folder: Path) -> None:
    """What a version before this wrote for everybody on the machine is the works' alone; new files are by the umask."""
    for path in folder.glob(f"{DATABASE}*"):
        path.chmod(0o600)
    media = folder / "media"
    if media.exists():
        media.chmod(0o700)


def _checked_port(asked: Asked) -> int:
    """A free port, or one line that says what to do."""
    text = asked.port
    if not text.isdigit() or not 1024 <= int(text) <= 65535:
        sys.exit(f"{text} is not a port: choose 1024 to 65535, such as {asked.again} --port 8917.")
    try:
        family = socket.AF_INET6 if ipaddress.ip_address(asked.host).version == 6 else socket.AF_INET
    except ValueError:
        sys.exit(f"{asked.host} is no address: choose one of this machine's, such as {asked.again} --host 192.168.1.20.")
    with socket.socket(family) as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((asked.host, int(text)))
        except OSError as wrong:
            if wrong.errno not in (98, 48):  # taken, on Linux and macOS; anything else is of the address
                sys.exit(f"{asked.host} is no address of this machine: {asked.again} --host takes one that is.")
            other = int(text) + 17 if int(text) < 65000 else 8917
            sys.exit(f"Port {text} is taken: choose another, such as {asked.again} --port {other}.")
    return int(text)


def _answer_to(asked: Asked, certificate: Certificate | None) -> None:
    """Which hosts it answers to, and whether by TLS: settings read it from the environment."""
    hosts = [*HERE, asked.host, *(certificate.hosts if certificate else ())]
    os.environ.setdefault("FINEGAP_HOSTS", ",".join(dict.fromkeys(f"[{h}]" if ":" in h else h for h in hosts)))
    if certificate:
        os.environ["FINEGAP_TLS"] = "own"


def _url(asked: Asked, port: int, certificate: Certificate | None) -> str:
    host = asked.host
    if host in ("0.0.0.0", "::"):
        host = next((h for h in certificate.hosts if h not in HERE), "localhost") if certificate else "localhost"
    return f"{'https' if certificate else 'http'}://{f'[{host}]' if ':' in host else host}:{port}/"


def _say_tls(asked: Asked, certificate: Certificate | None) -> None:
    if certificate is None:
        if not ipaddress.ip_address(asked.host).is_loopback:
            print(
                "Not by TLS: what is typed can be read on the network, and tablets have no camera, clipboard or offline working.\n"
                f"fine-gap certificate {asked.host} --works {asked.folder} makes what it takes.",
                flush=True,
            )
    elif certificate.days_left < LATE_DAYS:
        print(
            f"The certificate ends on {certificate.ends:%Y-%m-%d}: fine-gap certificate --works {asked.folder} renews it.",
            flush=True,
        )


def _say_first_visit(url: str) -> None:
    """The code of the first visit, while nobody works here."""
    from finegap.people.services import is_empty
    from finegap.site.first_visit import code

    if is_empty():
        print(f"Nobody works here yet. Open {url} and make yourself the first lead, with this code: {code()}", flush=True)


def _prepare(asked: Asked, port: int) -> None:
    """Database and static files, made or brought up to date; the demo works where there is no data yet and it is the demo."""
    import django

    django.setup()
    from django.conf import settings
    from django.core.management import call_command

    from finegap.site.upgrading import LaterVersion, UpgradeFault, bring_up_to_date

    global _held
    assert _held is not None
    _held.close()  # an upgrade has the folder alone
    try:
        bring_up_to_date(asked.folder, lambda line: print(line, flush=True))
    except LaterVersion as later:
        sys.exit(str(later))
    except UpgradeFault as fault:
        print(fault, file=sys.stderr, flush=True)
        serve_fault(asked, port, NOT_UPGRADED)
    _held = hold(asked.folder)
    if asked.kind == DEMO:
        call_command("load_demo")
    stamp = Path(settings.STATIC_ROOT) / ".collected"
    built = settings.FRONT_END / "index.html"
    if stamp.exists() and stamp.stat().st_mtime >= built.stat().st_mtime:
        return
    call_command("collectstatic", interactive=False, verbosity=0, clear=True)
    stamp.touch()


def _play_gauges(port: int) -> None:
    """Start the stand-in for the gauge receiver beside the demo; it ends with it."""
    from django.conf import settings

    receiver = os.environ.setdefault("FINEGAP_RECEIVER_PORT", str(port + 951 if port + 951 <= 65535 else port - 951))
    sizes = str(settings.DEMO_FOLDER / "true-sizes.json")
    subprocess.Popen([sys.executable, "-m", "finegap.inventory.stand_in", "--port", receiver, "--sizes", sizes])


def _options(asked: Asked, port: int, certificate: Certificate | None) -> dict[str, Any]:
    host = f"[{asked.host}]" if ":" in asked.host else asked.host
    options = {"bind": f"{host}:{port}", "workers": 2, "threads": 4, "preload_app": True, "loglevel": "warning"}
    options["worker_class"] = "finegap.site.worker.Worker"
    if certificate:
        options |= {"certfile": str(asked.folder / "tls" / SERVER), "keyfile": str(asked.folder / "tls" / SERVER_KEY)}
    return options


def _serve(asked: Asked, port: int, certificate: Certificate | None) -> None:
    """Serve with two workers, which share what this process has read already: nothing is imported twice."""
    from django.db import connections

    from finegap.site.keeper import begin
    from finegap.site.wsgi import application

    connections.close_all()  # a connection is not shared
    if asked.kind == WORKS:
        begin(asked.folder)
    _run(application, _options(asked, port, certificate))


def _run(application: object, options: dict[str, Any]) -> None:
    from gunicorn.app.base import BaseApplication

    class Served(BaseApplication):  # type: ignore[misc]  # gunicorn has no types
        def load_config(self) -> None:
            for name, value in options.items():
                self.cfg.set(name, value)

        def load(self) -> object:
            return application

    Served().run()
