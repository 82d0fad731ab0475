"""What a network is solved for: arrays of one length, and named blocks of them in one batch."""

import math
from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from swapglow.core.design.position import Position
from swapglow.core.engine.netlist import Param
from swapglow.core.network.fault import Fault

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class Cases:
    """What to solve: arrays of one length (or plain numbers), SI units.

    Attributes:
        rail: open volts; RMS where it is a sine.
        vf: forward voltage at rated current of each LED, 25 °C.
        ohms: total series resistance of a string, parts and meter together.
        drop: what the driver keeps.
        source: resistance behind the rail; None takes the position's own.
        shunt: the shunt; None takes the position's own.
        held: what a fixed regulator holds; None takes its nominal volts.
        kept: what a regulator or current source keeps, by :func:`regimes.regulated`; None is its dropout.
        let: on a wave, what a regulator lets through where it has the head, by :func:`regimes.let_through`, A.
        fault: what is wrong in it, and the meter that reads it; None where nothing is.
    """

    rail: Param
    vf: Param
    ohms: Param
    drop: Param = 0.0
    source: Param | None = None
    shunt: Param | None = None
    held: Param | None = None
    kept: Param | None = None
    let: Param | None = None
    fault: Fault | None = None

    def source_of(self, position: Position) -> Param:
        """Resistance behind the rail, Ω."""
        return position.rail.supply.source_ohm.value if self.source is None else self.source

    def shunt_of(self, position: Position) -> Param | None:
        """The shunt, Ω; None where there is none."""
        return position.shunt_ohm if self.shunt is None else self.shunt

    @property
    def samples(self) -> int:
        """How many."""
        every = (self.rail, self.vf, self.ohms, self.drop, self.source, self.shunt)
        told = 1 if self.fault is None else self.fault.samples
        return max(told, *(np.asarray(v).size for v in every if v is not None))


@dataclass(frozen=True)
class Block:
    """Cases that belong together, along named axes.

    Attributes:
        axes: names of the axes with the names of their places, in order; a place may have no name.
        rail, vf, ohms, drop, source, held: as in :class:`Cases`, each broadcast to the axes' shape; None takes
            what the batch takes.
    """

    axes: Mapping[str, tuple[str, ...]]
    rail: FloatArray
    vf: FloatArray
    ohms: FloatArray
    drop: Param | None = None
    source: Param | None = None
    held: Param | None = None

    @property
    def shape(self) -> tuple[int, ...]:
        """Places along each axis."""
        return tuple(map(len, self.axes.values()))


def places(count: int) -> tuple[str, ...]:
    """Names of places that are only counted."""
    return tuple(str(k) for k in range(count))


class Batch:
    """Blocks of cases solved together: whoever puts one in gets it back by its name and axes."""

    def __init__(self, blocks: Mapping[str, Block], drop: float, source: float, held: float = 0.0) -> None:
        """Lay the blocks one after another.

        Args:
            blocks: by name; an empty one is allowed.
            drop: what the driver keeps where a block does not say.
            source: resistance behind the rail where a block does not say, Ω.
            held: what a fixed regulator holds where a block does not say, V.
        """
        self._nominal = held
        self._blocks = dict(blocks)
        self._shape = {name: block.shape for name, block in self._blocks.items()}
        self._span: dict[str, slice] = {}
        start = 0
        for name, shape in self._shape.items():
            self._span[name] = slice(start, start := start + math.prod(shape))
        self._drop, self._source = drop, source
        self.samples = start

    def cases(self) -> Cases:
        """All cases, flattened in the order of their blocks."""
        return Cases(
            self._column("rail"),
            self._column("vf"),
            self._column("ohms"),
            self._shared("drop", self._drop),
            self._shared("source", self._source),
            held=self._held(),
        )

    def _held(self) -> Param | None:
        """What regulators hold, where a block says so."""
        given = any(block.held is not None for block in self._blocks.values())
        return self._column("held", self._nominal) if given else None

    def _shared(self, field: str, usual: float) -> Param:
        """A value that is the same for all is a plain number: the engine then shares its work."""
        same = all(getattr(block, field) is None for block in self._blocks.values())
        return usual if same else self._column(field, usual)

    def _column(self, field: str, usual: float = 0.0) -> FloatArray:
        out = []
        for name, block in self._blocks.items():
            value, shape = getattr(block, field), self._shape[name]
            if value is None:
                out.append(np.full(math.prod(shape), usual))
            elif np.shape(value) == shape:
                out.append(value.ravel())
            else:
                out.append(np.broadcast_to(value, shape).ravel())
        return np.concatenate(out) if out else np.zeros(0)

    def of(self, values: FloatArray, name: str) -> FloatArray:
        """A block's own answers.

        Args:
            values: what was solved, (samples,).
            name: the block.

        Returns:
            Its part, in the shape of its axes.
        """
        return values[self._span[name]].reshape(self._shape[name])

    def index(self, name: str, **at: str) -> NDArray[np.intp]:
        """The samples of a block, or of some places in it.

        Args:
            name: the block.
            **at: a place by its axis; an axis that is not named is taken whole.

        Returns:
            Indices into the batch, in the order of the axes left.

        Raises:
            KeyError: there is no such block, axis or place.
        """
        block = self._blocks[name]
        unknown = at.keys() - block.axes.keys()
        if unknown:
            raise KeyError(f"The block {name!r} has no axis {unknown.pop()!r}.")
        span = self._span[name]
        every = np.arange(span.start, span.stop, dtype=np.intp)
        if not at:
            return every
        pick = tuple(block.axes[axis].index(at[axis]) if axis in at else slice(None) for axis in block.axes)
        return np.atleast_1d(every.reshape(self._shape[name])[pick]).ravel()
