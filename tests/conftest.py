"""The same examples in every run: a failure can be repeated, and a green run means the same everywhere.

No test knows how busy the machine is: examples have no deadline, and waits come from `tests.patience`.
"""

from hypothesis import HealthCheck, settings

settings.register_profile(
    "repeatable",
    derandomize=True,
    deadline=None,
    suppress_health_check=[HealthCheck.too_slow, HealthCheck.data_too_large, HealthCheck.large_base_example],
)
settings.load_profile("repeatable")
