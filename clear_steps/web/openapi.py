"""The OpenAPI document, from which the front end's types are generated."""

import json
from typing import Any

Json = dict[str, Any]  # an OpenAPI document


def one_name_each(spec: Json | str) -> Json | str:
    """Give every nested model its own name once, where the generator repeats it under each parent."""
    if isinstance(spec, str):  # a document in YAML is never asked for
        return spec
    schemas: Json = spec.get("components", {}).get("schemas", {})
    renamed = {name: name.rsplit(".", 1)[-1] for name in schemas}
    text = json.dumps(spec)
    for name, short in renamed.items():
        text = text.replace(f'"#/components/schemas/{name}"', f'"#/components/schemas/{short}"')
    document: Json = json.loads(text)
    document["components"]["schemas"] = {
        renamed[name]: schema for name, schema in document["components"]["schemas"].items()
    }
    return document
