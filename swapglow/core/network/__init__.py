"""The one builder: a design as a circuit, on any waveform and in any state of what drives it."""
