"""The trail of every change to everything: who, when, the old value and the new."""
