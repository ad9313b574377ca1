"""`python -m clear_steps.web` prints the OpenAPI document, with `rows` after it what the page knows."""

import json
import sys
import tempfile
from pathlib import Path

from clear_steps.store import Database
from clear_steps.web.app import create_app
from clear_steps.web.rows import page_rows

if sys.argv[1:] == ["rows"]:
    print(json.dumps(page_rows(), indent=1))
else:
    with tempfile.TemporaryDirectory() as directory:
        database = Database(Path(directory))
        print(json.dumps(create_app(database).spec, indent=1, sort_keys=True))
        database.close()
