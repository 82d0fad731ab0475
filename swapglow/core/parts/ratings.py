"""Preferred ratings of capacitors and diodes."""

# Preferred voltage ratings of electrolytic capacitors and of rectifier diodes (common practice).
CAPACITOR_V = (6.3, 10, 16, 25, 35, 50, 63, 80, 100, 160, 200, 250, 350, 400, 450)
DIODE_V = (50, 100, 200, 400, 600, 800, 1000)
# A capacitor must stand 1.25 times the highest peak (common practice).
CAPACITOR_MARGIN = 1.25
# A rectifier must stand twice the peak it sees (common practice).
DIODE_MARGIN = 2.0
# Preferred capacitances in a decade, as electrolytics are sold (E6, IEC 60063).
_E6 = (1.0, 1.5, 2.2, 3.3, 4.7, 6.8)


def capacitor_volts(peak: float) -> float | None:
    """The smallest preferred rating that stands 1.25 times a peak, V; None where there is none."""
    return next((float(v) for v in CAPACITOR_V if v >= peak * CAPACITOR_MARGIN * (1 - 1e-9)), None)


def diode_volts(reverse: float) -> float | None:
    """The smallest preferred reverse rating that stands twice a peak, V; None where there is none."""
    return next((float(v) for v in DIODE_V if v >= reverse * DIODE_MARGIN), None)


def next_capacitance(farads: float) -> float:
    """The next larger E6 capacitance, 1 µF and up, F."""
    for power in range(-6, 0):
        for step in _E6:
            value = float(f"{step}e{power}")
            if value >= farads * (1 - 1e-9):
                return value
    return 1.0
