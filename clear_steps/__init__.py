"""Clear Steps: grades guitar parts, shows where and why they are hard, and keeps what teachers write."""

__version__ = "0.1.0"
