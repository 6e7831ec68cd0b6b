"""Serves the demo, or a works of one's own: data kept in a folder that holds the one or the other, one clear line when something
is in the way."""

from __future__ import annotations

import fcntl
import ipaddress
import os
import socket
import subprocess
import sys
from dataclasses import dataclass
from importlib import import_module
from pathlib import Path
from typing import IO

from finegap.site.folder import DATABASE, DEMO, WORKS, OtherFolder, keep_apart
from finegap.site.tls import HERE, LATE_DAYS, SERVER, SERVER_KEY, Certificate, read

_IN_USE = "in-use"
_held: IO[str] | None = None


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
    """Prepare the folder, say where it is served, and serve until it is stopped."""
    port = _checked_port(asked)
    apart(asked)
    certificate = read(asked.folder / "tls") if asked.kind == WORKS else None
    _answer_to(asked, certificate)
    _hold(asked.folder)
    _keep_private(asked.folder)
    _prepare(asked)
    import_module("finegap.site.wsgi")  # whoever opens the address as soon as it is printed finds the server there
    url = _url(asked, port, certificate)
    name = "your works" if asked.kind == WORKS else "demo works"
    print(f"Fine Gap, {name}: {url}   (Ctrl-C stops it; the data stays in {asked.folder})", flush=True)
    if asked.kind == WORKS:
        _say_tls(asked, certificate)
        _say_first_visit(url)
    else:
        _play_gauges(port)
    _serve(asked, port, certificate)


def apart(asked: Asked) -> None:
    """The folder is of this kind, or one line says what to do."""
    try:
        keep_apart(asked.folder, asked.kind)
    except OtherFolder as held:
        sys.exit(f"{held}: choose another folder, as {asked.again} --works folder.")


def reset(asked: Asked, meant: bool) -> None:
    """Throw the demo's database away, where nobody is using it and it is meant; asked for at the terminal otherwise."""
    apart(asked)
    with open(asked.folder / _IN_USE, "a") as in_use:
        try:
            fcntl.flock(in_use, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            sys.exit(f"The demo in {asked.folder} is being served: stop it first, with Ctrl-C.")
        if not meant and not _is_meant(asked):
            sys.exit(f"Nothing was thrown away. Answer yes, or {asked.again} --reset --yes.")
        for path in asked.folder.glob(f"{DATABASE}*"):
            path.unlink()
    print("The demo's data is gone; it starts afresh the next time.")


def _is_meant(asked: Asked) -> bool:
    try:
        return input(f"Throw away all that was entered in the demo in {asked.folder}? yes or no: ").strip().lower() == "yes"
    except EOFError:
        return False


def _hold(folder: Path) -> None:
    """While this process or a worker of it lives, the folder is in use: nobody throws its data away."""
    global _held
    _held = open(folder / _IN_USE, "a")  # noqa: SIM115 - open until the last worker ends
    fcntl.flock(_held, fcntl.LOCK_SH)


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


def _prepare(asked: Asked) -> None:
    """Database and static files, made or brought up to date; the demo works where there is no data yet and it is the demo."""
    import django

    django.setup()
    from django.conf import settings
    from django.core.management import call_command

    call_command("migrate", verbosity=0)
    if asked.kind == DEMO:
        call_command("load_demo")
    else:
        from finegap.bench.services.retention import let_go

        let_go()
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


def _serve(asked: Asked, port: int, certificate: Certificate | None) -> None:
    """Serve with two workers, which share what this process has read already: nothing is imported twice."""
    from django.db import connections
    from gunicorn.app.base import BaseApplication

    host = f"[{asked.host}]" if ":" in asked.host else asked.host
    options = {"bind": f"{host}:{port}", "workers": 2, "threads": 4, "preload_app": True, "loglevel": "warning"}
    if certificate:
        options |= {"certfile": str(asked.folder / "tls" / SERVER), "keyfile": str(asked.folder / "tls" / SERVER_KEY)}

    class Served(BaseApplication):  # type: ignore[misc]  # gunicorn has no types
        def load_config(self) -> None:
            for name, value in options.items():
                self.cfg.set(name, value)

        def load(self) -> object:
            from finegap.site.wsgi import application

            return application

    connections.close_all()  # a connection is not shared
    Served().run()
