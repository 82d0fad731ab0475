"""How a shop does it: its habits, as typed."""

from typing import Annotated

from swapglow.core.design.position import LEADS
from swapglow.core.measurement.clip_first import METERS
from swapglow.core.planning.field_of_work import LABELS
from swapglow.core.stock.order import SPARES
from swapglow.core.values import preferred
from swapglow.inputs.quantity import Line, Long
from swapglow.inputs.shape import OneOf, Shape

# Whether a lamp or board learns from the readings and looks of others like it on the item.
LEARNS = {"like": "Also for others like it on the item", "own": "For itself only"}


class ShopInput(Shape):
    """The shop's habits: ``lead`` and ``series`` are a new lamp's, ``checks`` are the house's own, a line each.

    ``asked`` says whether the questions of the first start were put.
    """

    lead: Annotated[str, OneOf(LEADS)] = "positive"
    sleeve_plus: Line = "red"
    sleeve_minus: Line = "black"
    checks: Long = ""
    spares: Annotated[str, OneOf(SPARES)] = "ours"
    meter: Annotated[str, OneOf(METERS)] = "yes"
    work: Annotated[str, OneOf(LABELS)] = ""
    series: Annotated[str, OneOf(preferred.SERIES_LABELS)] = "E24"
    learns: Annotated[str, OneOf(LEARNS)] = "like"
    asked: Annotated[str, OneOf({"no": "Not yet", "yes": "Yes"})] = "no"
