"""Open the shared door at a start, where it was asked for or was open before, and say how a phone comes in."""

import argparse
import contextlib
import io
import sys

import segno


def share(args: argparse.Namespace) -> None:
    """Share the bench as the command says, or as it was when it was last stopped."""
    from swapglow.devices import door, pairing
    from swapglow.devices.models import Sharing

    kept = Sharing.own()
    if not (args.share or kept.on):
        return
    plain = args.plain if args.share else kept.plain
    try:
        door.open_door(plain=plain)
    except door.DoorError as problem:
        print(f"Not shared. {problem}", file=sys.stderr, flush=True)
        return
    print(f"Paired phones reach it at {door.urls()[0]}/", flush=True)
    if plain:
        print("Without TLS: anybody on this network can read along and take a phone's place.", flush=True)
    else:
        print(f"Its certificate's fingerprint (SHA-256): {door.fingerprint()}", flush=True)
    if args.share:
        from swapglow.api.devices import pair_url

        offer = pairing.offer(may_write=True)
        _print_code(pair_url(offer))
        print(f"Scan it with the phone, then type these digits there: {offer.digits}", flush=True)
        print(f"They are good for {round(offer.left_s / 60)} minutes. More phones: press ? in the app.", flush=True)


def _print_code(url: str) -> None:
    drawn = io.StringIO()
    segno.make_qr(url).terminal(drawn, compact=True)
    # A terminal may be without the signs that it is drawn with.
    with contextlib.suppress(UnicodeEncodeError):
        print(drawn.getvalue(), flush=True)
    print(url, flush=True)


def stop_sharing() -> None:
    """Shut the shared door until the next start."""
    from swapglow.devices import door

    door.shut_door(keep=True)
