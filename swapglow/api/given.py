"""What a patch sets."""

from typing import Any

from ninja import Schema


def given(data: Schema, nullable: tuple[str, ...] = ()) -> dict[str, Any]:
    """Fields of a patch that were sent, as plain values; null counts only where it is a value.

    Defaults inside a field that was sent are kept: a quantity without a source is an assumed one.
    """
    whole = data.dict()
    return {k: whole[k] for k in data.model_fields_set if whole[k] is not None or k in nullable}
