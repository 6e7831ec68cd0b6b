"""Serve the demo: data loaded once and kept, the address printed, one clear line when something is in the way."""

from __future__ import annotations

import argparse
import os
import socket
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "finegap.site.settings")


def main() -> None:
    """Parse the command line and serve, or reset."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--port", default="8000")
    parser.add_argument("--reset", action="store_true")
    asked = parser.parse_args()
    if asked.reset:
        reset()
        return
    port = checked_port(asked.port)
    prepare()
    url = f"http://127.0.0.1:{port}/"
    print(f"Fine Gap, demo works: {url}   (Ctrl-C stops it; the data stays in {os.environ.get('FINEGAP_VAR', 'var')})", flush=True)
    play_gauges(port)
    serve(port)


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


def checked_port(text: str) -> int:
    """A free port, or one line that says what to do."""
    if not text.isdigit() or not 1024 <= int(text) <= 65535:
        sys.exit(f"PORT={text} is not a port: choose 1024 to 65535, such as make demo PORT=8917.")
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", int(text)))
        except OSError:
            sys.exit(
                f"Port {text} is taken: choose another, such as make demo PORT={int(text) + 17 if int(text) < 65000 else 8917}."
            )
    return int(text)


def prepare() -> None:
    """Database and static files, made or brought up to date; the demo works where there is no data yet."""
    import django

    django.setup()
    from django.core.management import call_command

    call_command("migrate", verbosity=0)
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
    var = Path(os.environ.get("FINEGAP_VAR", ROOT / "var"))
    for path in var.glob("finegap.sqlite3*"):
        path.unlink()
    print("The demo's data is gone; make demo starts afresh.")


if __name__ == "__main__":
    main()
