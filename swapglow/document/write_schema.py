"""Write the document's JSON Schema: ``python -m swapglow.document.write_schema PATH``."""

import json
import sys
from pathlib import Path

from swapglow.document.model import schema


def main() -> None:
    """Write the schema to the path given."""
    text = json.dumps(schema(), indent=1, ensure_ascii=False)
    Path(sys.argv[1]).write_text(text + "\n", encoding="utf-8")


if __name__ == "__main__":
    main()
