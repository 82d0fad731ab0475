"""Section: what feeds the rail."""

from dataclasses import dataclass

from swapglow.core.analysis.solution import Solution


@dataclass(frozen=True)
class SupplyReport:
    """What the supply is called."""

    label: str


def supply_section(s: Solution) -> SupplyReport:
    """The kind's own words."""
    return SupplyReport(s.position.rail.supply.kind.label)
