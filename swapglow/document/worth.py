"""A take-in sheet's worth as the core's value."""

from swapglow.core.bench.worth import Worth, read_hours, read_money
from swapglow.core.position.typed import FieldError
from swapglow.core.quantities import QuantityError
from swapglow.document import model as doc


def read_worth(w: doc.Worth) -> Worth:
    """Hours and prices from their texts.

    Raises:
        FieldError: ``hours``, ``price``, ``hour_price`` or ``others``.
    """
    try:
        name = "hours"
        hours = read_hours(w.hours)
        name = "price"
        price = read_money(w.price)
        name = "hour_price"
        hour_price = read_money(w.hour_price) or 0.0
        name = "others"
        priced = [(o.what.strip(), read_money(o.price)) for o in w.others if o.what.strip()]
    except QuantityError as problem:
        raise FieldError(name, str(problem)) from None
    others = tuple((what, cost) for what, cost in priced if cost is not None)
    return Worth(w.access, w.brittle, w.serviceable, hours, price, hour_price, others)
