"""What must be bought for all open work: what is needed, less what is there and on its way, with spares, in packs."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from swapglow.core.quantities.everyday import money_text
from swapglow.core.stock.need import Need
from swapglow.core.stock.part import KINDS, Part, PartKind

Spares = Literal["none", "ours", "double"]
# How many more than are needed (ours: what breaks at the bench is small and cheap, and a shop is a week away).
SPARES: dict[Spares, str] = {
    "none": "None",
    "ours": "One in five of small parts, ours",
    "double": "As many again of small parts",
}
SMALL: frozenset[PartKind] = frozenset({"resistor", "led", "diode", "capacitor", "sundry"})
_ONE_IN = 5


@dataclass(frozen=True)
class Asked:
    """What one lamp needs.

    Attributes:
        lamp, item: who asks.
        need: what for.
    """

    lamp: str
    item: str
    need: Need


@dataclass(frozen=True)
class OrderLine:
    """One part to buy.

    Attributes:
        key, kind, kind_label, label: which.
        needed, spare: how many for the work, and how many besides.
        have: how many lie there; None where nobody counts and there is enough.
        on_order: how many are on their way.
        buy: how many are short.
        pack, packs: how many come in one, and how many of them.
        price, price_text: of all packs, and as it is written; None and "" where it is not known.
        lamps: those it is for.
        part: the compartment it goes into, "" where there is none yet.
        why: how the number came about.
        need: what it is bought for; None where a compartment only runs low.
    """

    key: str
    kind: PartKind
    kind_label: str
    label: str
    needed: int
    spare: int
    have: int | None
    on_order: int
    buy: int
    pack: int
    packs: int
    price: float | None
    lamps: tuple[str, ...]
    part: str
    why: str
    need: Need | None = None
    price_text: str = ""


def spare_of(kind: PartKind, needed: int, rule: Spares) -> int:
    """Spares that are bought with parts of a kind.

    Args:
        kind: of the part.
        needed: how many the work takes.
        rule: one of :data:`SPARES`.

    Returns:
        How many more.
    """
    if rule == "none" or kind not in SMALL or needed == 0:
        return 0
    return needed if rule == "double" else math.ceil(needed / _ONE_IN)


def order_list(asked: Iterable[Asked], drawer: Sequence[Part], rule: Spares = "ours") -> tuple[OrderLine, ...]:
    """What to buy.

    Args:
        asked: what each open lamp needs.
        drawer: every compartment.
        rule: spares.

    Returns:
        A line for each part that is short or on its way, by kind and then by label.
    """
    groups: dict[str, list[Asked]] = {}
    for a in asked:
        groups.setdefault(a.need.key, []).append(a)
    left = {p.id: p.count for p in drawer}
    used: set[str] = set()
    lines = [_line(key, group, drawer, left, used, rule) for key, group in groups.items()]
    lines += [_refill(p) for p in drawer if p.id not in used and p.level != "full" and _runs_out(p)]
    order = list(KINDS)
    shown = [line for line in lines if line.buy or line.on_order]
    return tuple(sorted(shown, key=lambda x: (order.index(x.kind), x.label)))


def short_of(asked: Sequence[Need], drawer: Sequence[Part]) -> tuple[str, ...]:
    """What one lamp waits for: parts that are not in the drawer now.

    Args:
        asked: what it needs.
        drawer: every compartment.

    Returns:
        Their labels; nothing where all is there.
    """
    out = []
    for need in asked:
        found = [p for p in drawer if need.met_by(p) and p.there]
        counted = sum(p.count or 0 for p in found)
        if not any(p.count is None for p in found) and counted < need.count:
            out.append(need.label)
    return tuple(out)


def _runs_out(p: Part) -> bool:
    """Whether anybody asked to be told: a least stock is set, or it is said to be low."""
    return p.least > 0 or p.count is None


def _line(
    key: str, group: Sequence[Asked], drawer: Sequence[Part], left: dict[str, int | None], used: set[str], rule: Spares
) -> OrderLine:
    need = group[0].need
    needed = sum(a.need.count for a in group)
    fits = [p for p in drawer if need.met_by(p)]
    used.update(p.id for p in fits)
    there = [p for p in fits if p.there]
    spare = spare_of(need.kind, needed, rule)
    on_order = sum(p.on_order for p in fits)
    into = there[0] if there else (fits[0] if fits else None)
    least = max((p.least for p in fits), default=0)
    if any(p.count is None and p.level == "full" for p in there):
        have, short = None, 0
    elif any(p.count is None for p in there):
        # Said to be low: enough for the work, and time to buy.
        have, short = None, max(0, max(spare, 1) - on_order)
    else:
        have = sum(left[p.id] or 0 for p in there)
        wanted = needed + max(spare, least)
        short = max(0, wanted - have - on_order)
        # What one need takes another does not find there.
        for p in there:
            take = min(left[p.id] or 0, wanted)
            left[p.id] = (left[p.id] or 0) - take
            wanted -= take
    lamps = tuple(dict.fromkeys(f"{a.item}: {a.lamp}" for a in group))
    spares = f", {spare} spare" if spare else ""
    lies = "low in the drawer" if have is None else f"{have} in the drawer"
    coming = f", {on_order} on order" if on_order else ""
    return _priced(
        OrderLine(
            key,
            need.kind,
            KINDS[need.kind],
            need.label,
            needed,
            spare,
            have,
            on_order,
            short,
            1,
            0,
            None,
            lamps,
            "" if into is None else into.id,
            f"{needed} needed{spares}; {lies}{coming}",
            need,
        ),
        into,
    )


def _refill(p: Part) -> OrderLine:
    """A compartment that runs low though no open work asks for it."""
    here = p.count or 0
    short = max(0, max(p.least, 1) + (1 if p.count is not None else 0) - here - p.on_order)
    lies = f"{p.count} left, {p.least} is the least" if p.count is not None else f"{p.level} in the drawer"
    return _priced(
        OrderLine(
            f"part:{p.id}",
            p.kind,
            KINDS[p.kind],
            p.label,
            0,
            0,
            p.count,
            p.on_order,
            short,
            1,
            0,
            None,
            (),
            p.id,
            f"Runs low: {lies}",
        ),
        p,
    )


def _priced(line: OrderLine, part: Part | None) -> OrderLine:
    pack = 1 if part is None else max(part.pack, 1)
    packs = math.ceil(line.buy / pack)
    price = None if part is None or part.price is None else packs * part.price
    return replace(line, pack=pack, packs=packs, price=price, price_text="" if price is None else money_text(price))
