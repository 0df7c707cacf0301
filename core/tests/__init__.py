"""Tests of the core. How fast the machine is decides none of them: no example has a time limit."""

from hypothesis import HealthCheck, settings

settings.register_profile("whole", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("whole")
