"""Light beside light, in words."""


def ratio_text(ratio: float | None) -> str:
    """ "1.4 × the old lamp"; empty where it is not known."""
    if ratio is None:
        return ""
    if ratio < 0.001:
        return "dark beside the old lamp"
    number = f"{ratio:.2g}" if ratio < 10 else f"{ratio:.0f}"
    return f"{number} × the old lamp"
