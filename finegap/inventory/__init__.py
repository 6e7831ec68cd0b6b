"""Gauges and gasket stock."""
