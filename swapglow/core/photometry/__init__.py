"""What the eye is given: spectra, colour, intensity, and whether it is seen."""
