"""The signed record: its version, and how older ones are read."""

from finegap.bench.record.upgrades import RECORD_VERSION, upgraded

__all__ = ["RECORD_VERSION", "upgraded"]
