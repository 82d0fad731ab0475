"""Known holes in what the program is made with: ``make audit``, or ``make audit LIST=folder`` without a network.

The package pip-audit compares the locked requirements with a service of the OSV form (https://ossf.github.io/osv-schema).
LIST names records of that form, as JSON files or one zip of them, as they are published: they are served to it here, on
the loopback address.
"""

import argparse
import json
import subprocess
import sys
import threading
import zipfile
from collections.abc import Iterator
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path
from typing import Any

from packaging.utils import canonicalize_name

ROOT = Path(__file__).resolve().parents[1]
LOCKED = ROOT / "requirements" / "run.txt"


def records(place: Path) -> Iterator[dict[str, Any]]:
    """The records of a file, a folder or a zip.

    Raises:
        ValueError: it is none of these, or holds what is no record.
    """
    if place.is_dir():
        texts = [(p.name, p.read_text("utf-8")) for p in sorted(place.rglob("*.json"))]
    elif zipfile.is_zipfile(place):
        with zipfile.ZipFile(place) as packed:
            texts = [(n, packed.read(n).decode("utf-8")) for n in packed.namelist() if n.endswith(".json")]
    elif place.is_file():
        texts = [(place.name, place.read_text("utf-8"))]
    else:
        raise ValueError(f"{place} is no file and no folder.")
    for name, text in texts:
        try:
            found = json.loads(text)
        except ValueError:
            raise ValueError(f"{name} is no JSON.") from None
        if not isinstance(found, dict) or "id" not in found or "affected" not in found:
            raise ValueError(f'{name} is no record of the OSV form: "id" and "affected" must be there.')
        yield found


def affects(record: dict[str, Any], name: str, version: str) -> bool:
    """Whether a record names a version of a package. A range counts where its versions are listed or ordered."""
    from packaging.version import InvalidVersion, Version

    for part in record["affected"]:
        package = part.get("package", {})
        if package.get("ecosystem") != "PyPI" or canonicalize_name(package.get("name", "")) != name:
            continue
        if version in part.get("versions", ()):
            return True
        for each in part.get("ranges", ()):
            try:
                if each.get("type") == "ECOSYSTEM" and _within(each["events"], Version(version)):
                    return True
            except InvalidVersion:
                return True
    return False


def _within(events: list[dict[str, str]], at: Any) -> bool:
    """Whether a version lies in a range: by its events in their order (OSV schema, "evaluation algorithm")."""
    from packaging.version import Version

    inside = False
    for event in events:
        if "introduced" in event and (event["introduced"] == "0" or at >= Version(event["introduced"])):
            inside = True
        if ("fixed" in event and at >= Version(event["fixed"])) or (
            "last_affected" in event and at > Version(event["last_affected"])
        ):
            inside = False
    return inside


def serve(known: list[dict[str, Any]]) -> ThreadingHTTPServer:
    """A stand-in of the service, on the loopback address, that knows these records."""

    class Service(BaseHTTPRequestHandler):
        def do_POST(self) -> None:
            asked = json.loads(self.rfile.read(int(self.headers["Content-Length"])))
            name = canonicalize_name(asked["package"]["name"])
            found = [r for r in known if affects(r, name, asked["version"])]
            text = json.dumps({"vulns": found} if found else {}).encode()
            self.send_response(200)
            self.send_header("Content-Type", "application/json")
            self.send_header("Content-Length", str(len(text)))
            self.end_headers()
            self.wfile.write(text)

        def log_message(self, format: str, *args: Any) -> None:
            """Say nothing."""

    server = ThreadingHTTPServer(("127.0.0.1", 0), Service)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    return server


def main() -> int:
    """Audit the locked requirements; 1 where a hole is known, 2 where nothing could be looked up."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--list", type=Path, help="records of the OSV form: a folder, a file or a zip")
    parser.add_argument("--requirements", type=Path, default=LOCKED)
    given = parser.parse_args()
    command = [sys.executable, "-m", "pip_audit", "--requirement", str(given.requirements), "--require-hashes"]
    command += ["--disable-pip", "--progress-spinner", "off", "--strict"]
    if given.list is None:
        done = subprocess.run(command, check=False)
        if done.returncode:
            print(
                "A hole is known, or the service was not reached. Without a network: make audit LIST=folder",
                file=sys.stderr,
            )
        return done.returncode
    try:
        known = list(records(given.list))
    except ValueError as problem:
        print(problem, file=sys.stderr)
        return 2
    server = serve(known)
    url = f"http://127.0.0.1:{server.server_port}/"
    print(f"{len(known)} records in {given.list}.", flush=True)
    done = subprocess.run([*command, "--vulnerability-service", "osv", "--osv-url", url], check=False)
    server.shutdown()
    server.server_close()
    return done.returncode


if __name__ == "__main__":
    sys.exit(main())
