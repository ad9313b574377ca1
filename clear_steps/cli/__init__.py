"""The command line: libraries served, backed up and restored; files graded, told, simplified, converted."""

import gc

import click

from clear_steps.cli import files, libraries

# A search makes many small values that live on: looking for cycles among them as often as usual took a tenth
# of its time.
_GC_THRESHOLDS = (50_000, 20, 20)


@click.group()
@click.version_option(package_name="clear-steps")
def main() -> None:
    """Grade guitar parts, show where and why they are hard, and keep what you write."""
    gc.freeze()
    gc.set_threshold(*_GC_THRESHOLDS)


for _command in (*libraries.COMMANDS, *files.COMMANDS):
    main.add_command(_command)
