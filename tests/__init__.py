"""Fine Gap's tests. Properties have no deadline: speed is measured in ``make bench``, never by a test."""

from hypothesis import settings

settings.register_profile("finegap", deadline=None)
settings.load_profile("finegap")
