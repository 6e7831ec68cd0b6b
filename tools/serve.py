"""Serve the demo, or a works of one's own: data kept in a folder that holds the one or the other, one clear line when something
is in the way."""

from __future__ import annotations

import argparse
import os
import socket
import subprocess
import sys
from importlib import import_module
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
FOLDER = Path(os.environ.get("FINEGAP_VAR", ROOT / "var"))
"""Where the data is."""
sys.path.insert(0, str(ROOT))
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "finegap.site.settings")


def main() -> None:
    """Parse the command line and serve, or reset."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--port", default="8000")
    parser.add_argument("--reset", action="store_true")
    parser.add_argument("--own", action="store_true", help="a works of one's own, without the demo")
    asked = parser.parse_args()
    if asked.reset:
        reset()
        return
    port = checked_port(asked.port, "serve" if asked.own else "demo")
    apart("works" if asked.own else "demo")
    prepare(demo=not asked.own)
    import_module("finegap.site.wsgi")  # whoever opens the address as soon as it is printed finds the server there
    url = f"http://127.0.0.1:{port}/"
    name = "your works" if asked.own else "demo works"
    print(f"Fine Gap, {name}: {url}   (Ctrl-C stops it; the data stays in {FOLDER})", flush=True)
    if asked.own:
        say_first_visit(url)
    else:
        play_gauges(port)
    serve(port)


def apart(kind: str) -> None:
    """The folder is of this kind, or one line says what to do."""
    from finegap.site.folder import DEMO, OtherFolder, keep_apart

    try:
        keep_apart(FOLDER, kind)
    except OtherFolder as held:
        sys.exit(
            f"{held}: choose another folder, as {'make demo FINEGAP_VAR=folder' if kind == DEMO else 'make serve WORKS=folder'}."
        )


def say_first_visit(url: str) -> None:
    """The code of the first visit, while nobody works here."""
    from finegap.people.services import is_empty
    from finegap.site.first_visit import code

    if is_empty():
        print(f"Nobody works here yet. Open {url} and make yourself the first lead, with this code: {code()}", flush=True)


def serve(port: int) -> None:
    """Serve with two workers, which share what this process has read already: nothing is imported twice."""
    from django.db import connections
    from gunicorn.app.base import BaseApplication

    class Served(BaseApplication):  # type: ignore[misc]  # gunicorn has no types
        def load_config(self) -> None:
            options = {"bind": f"127.0.0.1:{port}", "workers": 2, "threads": 4, "preload_app": True, "loglevel": "warning"}
            for name, value in options.items():
                self.cfg.set(name, value)

        def load(self) -> object:
            from finegap.site.wsgi import application

            return application

    connections.close_all()  # a connection is not shared
    Served().run()


def play_gauges(port: int) -> None:
    """Start the stand-in for the gauge receiver beside the demo; it ends with it."""
    receiver = os.environ.setdefault("FINEGAP_RECEIVER_PORT", str(port + 951 if port + 951 <= 65535 else port - 951))
    stand_in = ["-m", "finegap.inventory.stand_in", "--port", receiver, "--sizes", str(ROOT / "demo/true-sizes.json")]
    subprocess.Popen([sys.executable, *stand_in], cwd=ROOT)


def checked_port(text: str, command: str) -> int:
    """A free port, or one line that says what to do."""
    if not text.isdigit() or not 1024 <= int(text) <= 65535:
        sys.exit(f"PORT={text} is not a port: choose 1024 to 65535, such as make {command} PORT=8917.")
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", int(text)))
        except OSError:
            other = int(text) + 17 if int(text) < 65000 else 8917
            sys.exit(f"Port {text} is taken: choose another, such as make {command} PORT={other}.")
    return int(text)


def prepare(demo: bool) -> None:
    """Database and static files, made or brought up to date; the demo works where there is no data yet and it is the demo."""
    import django

    django.setup()
    from django.core.management import call_command

    call_command("migrate", verbosity=0)
    if demo:
        call_command("load_demo")
    stamp = settings_static_stamp()
    if stamp.exists() and stamp.stat().st_mtime >= (ROOT / "frontend/dist/index.html").stat().st_mtime:
        return
    call_command("collectstatic", interactive=False, verbosity=0, clear=True)
    stamp.touch()


def settings_static_stamp() -> Path:
    """When the static files were last collected."""
    from django.conf import settings

    return Path(settings.STATIC_ROOT) / ".collected"


def reset() -> None:
    """Throw the demo's database away."""
    apart("demo")
    for path in FOLDER.glob("finegap.sqlite3*"):
        path.unlink()
    print("The demo's data is gone; make demo starts afresh.")


if __name__ == "__main__":
    main()
