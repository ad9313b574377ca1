"""`python -m clear_steps.web` prints the OpenAPI document."""

import json
import tempfile
from pathlib import Path

from clear_steps.store import Database
from clear_steps.web.app import create_app

with tempfile.TemporaryDirectory() as directory:
    database = Database(Path(directory))
    print(json.dumps(create_app(database).spec, indent=1, sort_keys=True))
    database.close()
