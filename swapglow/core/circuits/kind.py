"""What a kind of circuit declares. The toolkit does the rest, and the rest of the house never asks a kind's name."""

from abc import ABC, abstractmethod
from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass, replace
from typing import ClassVar, Generic, Protocol, TypeVar

from swapglow.core.circuits.result import CircuitResult, Figure, Option, WiringPicture, gravest_first, picked
from swapglow.core.circuits.toolkit.build import build
from swapglow.core.circuits.toolkit.picture import Parts, picture
from swapglow.core.circuits.toolkit.ratings import SLACK, Over
from swapglow.core.circuits.toolkit.wiring import Wiring
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.quantities import Input, Shown

C = TypeVar("C")


class Judged(Protocol):
    """Something solved whose parts can be judged against their ratings."""

    def judged(self) -> Iterator[Over]:
        """Each rating that is exceeded."""
        ...


@dataclass(frozen=True)
class Job(Generic[C]):
    """A circuit as it is, and as it is once an option is done.

    Attributes:
        typed: what was typed.
        now: the circuit as typed.
        options: what may be done, the advised first.
        option: the one somebody chose, else ours; None for none.
        after: the circuit once it is done; None where nothing changes.
        chosen: the id that somebody chose; empty for none.
    """

    typed: Details
    now: C
    options: tuple[Option, ...]
    option: Option | None
    after: C | None
    chosen: str

    @property
    def then(self) -> C:
        """The circuit once the option is done; as it is where there is none."""
        return self.now if self.after is None else self.after

    @property
    def cases(self) -> tuple[C, ...]:
        """As it is, and once the option is done."""
        return (self.now,) if self.after is None else (self.now, self.after)

    def pair(self, id_: str, label: str, of: Callable[[C], Shown]) -> Figure:
        """A figure of both.

        Args:
            id_, label: of the figure.
            of: the figure of a circuit.

        Returns:
            The figure now and once the option is done.
        """
        return Figure(id_, label, of(self.now), None if self.after is None else of(self.after))


class CircuitKind(ABC, Generic[C]):
    """A kind of circuit. A module binds one to ``KIND``.

    Attributes:
        id: its name in records and documents.
        order: its place among the kinds.
        label: what it is called.
        looks: how it is recognised by looking.
        never: what must not be done to it; shown before anything else.
        details: what it asks for.
        read_now, read_after: the details that are read as it is now and after the change; a kind without the first
            asks for none.
        stale: details that no longer hold once something was changed.
        parts: what the parts of its wiring are called, and the detail in which each is typed.
    """

    id: ClassVar[str]
    order: ClassVar[int]
    label: ClassVar[str]
    looks: ClassVar[str]
    never: ClassVar[str]
    details: ClassVar[tuple[Detail, ...]]
    read_now: ClassVar[str] = ""
    read_after: ClassVar[str] = "after"
    stale: ClassVar[tuple[str, ...]] = ()
    parts: ClassVar[Parts] = ()

    @abstractmethod
    def case(self, typed: Details) -> C:
        """The circuit as it was typed.

        Raises:
            InputError: a figure is missing, or cannot be.
        """

    @abstractmethod
    def states(self, case: C) -> Iterable[Judged]:
        """The circuit solved in every state that occurs; every part of it is judged in each. None for no circuit."""

    def options(self, now: C, typed: Details, chosen: str) -> Iterable[Option]:
        """What may be done, the advised first; ``chosen`` is an option that somebody picked on a rule.

        Args:
            now: the circuit as typed.
            typed: what was typed.
            chosen: the id that somebody chose, perhaps on a rule.

        Returns:
            Options; the toolkit bars those that overload a part.
        """
        return ()

    @abstractmethod
    def report(self, job: Job[C]) -> CircuitResult:
        """What it comes to, without options and ratings: the toolkit adds them."""

    def wired(self, case: C) -> Wiring | None:
        """What is drawn of it: the wiring of its first state, unless a kind says otherwise.

        Args:
            case: the circuit.

        Returns:
            Its wiring; None where it has none.
        """
        return getattr(next(iter(self.states(case)), None), "wiring", None)

    def teaches(self, typed: Details, other: Details) -> Mapping[str, str]:
        """What another circuit of this kind says of this one.

        Args:
            typed: what was typed of this one.
            other: of the other.

        Returns:
            Texts of this one's details by name; nothing where they are not alike, or this one knows itself.
        """
        return {}

    def read(self, inputs: Mapping[str, Input]) -> Details:
        """What was typed, by what the kind asks for.

        Args:
            inputs: texts by name.

        Returns:
            The details, each readable in its unit.

        Raises:
            InputError: for the first that cannot be read.
        """
        found = Details(self.details, inputs)
        found.check()
        return found

    def work(self, typed: Details, chosen: str = "") -> CircuitResult:
        """Work it out.

        Args:
            typed: what was typed.
            chosen: the id of the option that somebody chose; what comes after follows it, else ours.

        Returns:
            What it comes to, every part judged against its ratings.

        Raises:
            InputError: a figure is missing, or cannot be.
            NotConverged: its circuit has no answer.
        """
        now = self.case(typed)
        over = self._over(now)
        options = self._ranked(self.options(now, typed, chosen), typed, {o.finding.id: o.times for o in over})
        option = picked(options, chosen)
        after = None if option is None or not option.changes else self.case(typed.changed(option.changes))
        result = self.report(Job(typed, now, options, option, after, chosen))
        findings = gravest_first((*(o.finding for o in over), *result.findings))
        drawn = result.wiring or self._drawn(now, typed)
        later = None if after is None or option is None else self._drawn(after, typed.changed(option.changes))
        return replace(
            result,
            options=options,
            findings=findings,
            wiring=drawn,
            wiring_after=later,
            build=() if drawn is None or later is None else build(drawn, later),
        )

    def _drawn(self, case: C, typed: Details) -> WiringPicture | None:
        wiring = self.wired(case)
        solved = next(iter(self.states(case)), None)
        return None if wiring is None else picture(self.parts, wiring, solved, typed)

    def _over(self, case: C) -> tuple[Over, ...]:
        """Each rating that is exceeded, in the state that is worst for it."""
        worst: dict[str, Over] = {}
        for over in (o for solved in self.states(case) for o in solved.judged()):
            if over.finding.id not in worst or over.times > worst[over.finding.id].times:
                worst[over.finding.id] = over
        return tuple(worst.values())

    def _ranked(self, options: Iterable[Option], typed: Details, now: Mapping[str, float]) -> tuple[Option, ...]:
        """Options, those barred that put a part over its rating; of those that are ours the first one that may be."""
        judged = [self._barred(o, typed, now) for o in options]
        ours = next((o.id for o in judged if o.advised and not o.bars), None)
        return tuple(replace(o, advised=o.id == ours) for o in judged)

    def _barred(self, option: Option, typed: Details, now: Mapping[str, float]) -> Option:
        """An option that puts a part over its rating, or further over it than it is now."""
        if option.bars or not option.changes:
            return option
        for over in self._over(self.case(typed.changed(option.changes))):
            if over.finding.grade == "stop" and over.times > now.get(over.finding.id, 1.0) * SLACK:
                return replace(option, bars=over.finding.message)
        return option
