"""The report: its sections, each with its shape and its builder beside it."""

from dataclasses import dataclass

from swapglow.core.build_steps.before_after import Difference
from swapglow.core.build_steps.steps import BuildStep
from swapglow.core.build_steps.warmth import Warmth
from swapglow.core.evidence.account import Trouble
from swapglow.core.evidence.expected import Diagnosis
from swapglow.core.evidence.sister import SisterReading
from swapglow.core.findings.finding import Finding
from swapglow.core.intake.second_job import DutyReport
from swapglow.core.kinds.step import NextStep
from swapglow.core.measurement.survey import Survey
from swapglow.core.presentation.battery_life import Runtime
from swapglow.core.presentation.current import CurrentReport
from swapglow.core.presentation.cycle import Cycle
from swapglow.core.presentation.glow_box import Glow
from swapglow.core.presentation.lamp_heat import LampHeat
from swapglow.core.presentation.power import PowerReport
from swapglow.core.presentation.sizing import SizingReport
from swapglow.core.presentation.slide_rule import SlideRule
from swapglow.core.presentation.snapshots import Snapshot
from swapglow.core.presentation.supply import SupplyReport
from swapglow.core.presentation.trials import Trials
from swapglow.core.stock.need import Need
from swapglow.core.uncertainty.uncertainty import Uncertainty


@dataclass(frozen=True)
class Report:
    """Everything about a position, for the screen, the command line and the card."""

    sizing: SizingReport
    current: CurrentReport
    power: PowerReport
    heat: LampHeat
    supply: SupplyReport
    snapshots: tuple[Snapshot, ...]
    cycle: Cycle | None
    runtime: Runtime | None
    rule: SlideRule
    glow: Glow
    findings: tuple[Finding, ...]
    uncertainty: Uncertainty
    next_step: NextStep
    diagnoses: tuple[Diagnosis, ...]
    sister: tuple[SisterReading, ...]
    trouble: Trouble | None
    survey: Survey
    trials: Trials | None
    build: tuple[BuildStep, ...]
    warmth: tuple[Warmth, ...]
    checks: tuple[Difference, ...]
    checks_line: str
    needs: tuple[Need, ...]
    duty: DutyReport
