"""The server killed in the middle of writing and of backing up: what was acknowledged is there, every file is sound.

``KILLS`` of the environment says how often; `make torture` asks for 300.
"""

import os
import random
import sqlite3
import threading
import uuid
from contextlib import closing

from tests.reliability.bench import Client, Server

KILLS = int(os.environ.get("KILLS", "3"))
WRITERS = 8


def test_no_acknowledged_save_is_lost_to_a_kill(room):
    server = Server(room).start()
    keys = [Client(server.port).made() for _ in range(WRITERS)]
    acknowledged = [set() for _ in range(WRITERS)]
    last = ["" for _ in range(WRITERS)]
    over = threading.Event()

    def write(n):
        client = Client(server.port)
        while not over.is_set():
            key, text = str(uuid.uuid4()), f"note {uuid.uuid4()}"
            reading = {"position": keys[n]["position"], "kind": "current", "text": "4mA", "note": text}
            status, _ = client.save("PUT", f"readings/after/{key}", reading, over)
            if status is None:
                return
            assert status == 200
            acknowledged[n].add(key)
            status, _ = client.save("PATCH", f"positions/{keys[n]['position']}", {"notes": text}, over)
            # One that was sent and never answered may be there or not.
            last[n] = text if status == 200 else None

    def back_up():
        while not over.is_set():
            try:
                status, made = Client(server.port).ask("POST", "backups")
            except OSError:
                over.wait(0.05)
                continue
            assert status == 200
            backed_up.append(made["name"])

    backed_up = []
    # Seeded, so that a failure comes again.
    moments = random.Random(7)
    writers = [threading.Thread(target=write, args=(n,)) for n in range(WRITERS)]
    writers.append(threading.Thread(target=back_up))
    for w in writers:
        w.start()
    try:
        for _ in range(KILLS):
            over.wait(moments.uniform(0.2, 1.0))
            server.kill()
            server.start()
            assert server.process.poll() is None, server.process.communicate()[0]
    finally:
        over.set()
        for w in writers:
            w.join()
        server.stop()
    with closing(sqlite3.connect(room / "swapglow.sqlite3")) as found:
        assert found.execute("PRAGMA integrity_check").fetchone() == ("ok",)
        there = {str(uuid.UUID(key)) for (key,) in found.execute("SELECT id FROM records_readingafter")}
        notes = dict(found.execute("SELECT id, json_extract(inputs, '$.notes') FROM records_position"))
    print(f"{KILLS} kills, {sum(map(len, acknowledged))} acknowledged readings, {len(backed_up)} backups")
    for path in (room / "backups").glob("swapglow-*.sqlite3"):
        with closing(sqlite3.connect(path)) as backup:
            assert backup.execute("PRAGMA integrity_check").fetchone() == ("ok",)
    assert backed_up and {p.name for p in (room / "backups").glob("*.sqlite3")} >= set(backed_up)
    assert sum(map(len, acknowledged)) > WRITERS
    for n in range(WRITERS):
        assert acknowledged[n] <= there
        assert last[n] in (None, notes[uuid.UUID(keys[n]["position"]).hex])
