"""What a visitor may do who is not at the bench itself, by the routes as they are described."""

# They ask by POST and change nothing: a device that only looks may call them.
ASKING = frozenset(
    (
        "api/echo",
        "api/quick",
        "api/positions/<key>/assess",
        "api/drawer/csv/look",
        "api/import/look",
        "api/equipment/<key>/readings/look",
        "api/scan",
        "api/pair",
    )
)
# They put the records of the whole bench at stake, or decide who comes in. What energises anything belongs here too.
AT_THE_BENCH = ("api/backups", "api/bench/whole", "api/bench.zip", "api/devices", "api/demo", "api/first-start")
